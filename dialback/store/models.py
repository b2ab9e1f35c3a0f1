"""The tables. Loads in kg, times in seconds, days as ISO dates; deletion is soft."""

from __future__ import annotations

import json
import secrets
from collections.abc import Iterable, Iterator
from typing import Any

import peewee as pw
from playhouse.sqlite_ext import AutoIncrementField

database = pw.DatabaseProxy()


def rows(query: Any) -> Iterator[tuple[Any, ...]]:
    """Rows straight from the driver, for reads that are many; columns as SQLite has them."""
    return iter(database.execute(query))


def insert_rows(model: type[pw.Model], columns: Iterable[str], values: Iterable[Any]) -> None:
    """Insert many rows in one go; values are tuples as SQLite takes them.

    A book has tens of thousands of sets: building a query for each costs more than the insert.
    """
    names = ", ".join(f'"{model._meta.fields[name].column_name}"' for name in columns)
    marks = ", ".join("?" for _ in columns)
    statement = f'INSERT INTO "{model._meta.table_name}" ({names}) VALUES ({marks})'  # noqa: S608
    database.connection().executemany(statement, values)


class JsonField(pw.TextField):
    """A JSON value in a text column."""

    def db_value(self, value: Any) -> str | None:
        """Write the value as JSON."""
        return None if value is None else json.dumps(value, ensure_ascii=False, allow_nan=False)

    def python_value(self, value: str | None) -> Any:
        """Read the value back."""
        return None if value is None else json.loads(value)


class Table(pw.Model):
    """What all tables share. A number is given once: what was deleted never stands for another."""

    id = AutoIncrementField()

    class Meta:
        database = database
        legacy_table_names = False
        # What was not changed is not written: a row that was read earlier undoes nobody's change.
        only_save_dirty = True


class House(Table):
    """The coach's own row: house rules for every athlete, and the kit of the room.

    ``change`` counts shared writes. ``club`` is what the made-up club brought, and what it stands
    in the place of. ``identity`` tells one house from another, in every copy of it. ``unlocked``
    counts how often the wrong tries were forgotten from the command line.
    """

    name = pw.CharField(default="")
    rules = JsonField(default=dict)
    revision = pw.IntegerField(default=1)
    kit = JsonField(null=True)
    kit_revision = pw.IntegerField(default=1)
    unit = pw.CharField(default="kg")
    schools = JsonField(default=list)
    change = pw.IntegerField(default=1)
    club = JsonField(null=True)
    identity = pw.CharField(default=lambda: secrets.token_hex(16))
    unlocked = pw.IntegerField(default=0)


class Athlete(Table):
    """An athlete. ``rules`` override the house; ``change`` counts writes that alter figures."""

    name = pw.CharField()
    bodyweight_kg = pw.FloatField(null=True)
    note = pw.TextField(default="")
    squad = pw.CharField(default="")
    level = pw.CharField(default="")
    born = pw.IntegerField(null=True)
    rules = JsonField(default=dict)
    extra = JsonField(default=dict)
    revision = pw.IntegerField(default=1)
    change = pw.IntegerField(default=1)
    deleted_on = pw.DateField(null=True)


class Movement(Table):
    """A movement of the house, or (with an athlete) one as that athlete's book defines it."""

    athlete = pw.ForeignKeyField(Athlete, null=True, backref="movements")
    name = pw.CharField()
    folded = pw.CharField()
    pattern = pw.CharField()
    compound = pw.BooleanField()
    bodyweight_share = pw.FloatField()
    tempo = pw.CharField(null=True)
    isometric = pw.BooleanField()
    aliases = JsonField(default=list)
    easier = pw.CharField(null=True)
    harder = pw.CharField(null=True)
    kit = JsonField(default=list)
    one_sided = pw.BooleanField(default=False)
    progress = pw.CharField(null=True)
    extra = JsonField(default=dict)

    class Meta:
        indexes = ((("athlete", "folded"), True),)


class MovementMuscle(Table):
    """A muscle of a movement, with its role."""

    movement = pw.ForeignKeyField(Movement, backref="muscles")
    muscle = pw.CharField()
    role = pw.CharField()

    class Meta:
        indexes = ((("movement", "muscle"), True),)


class Import(Table):
    """A file that brought logs in; it can be undone."""

    sessions: Any

    name = pw.CharField()
    day = pw.DateField()
    undone_on = pw.DateField(null=True)


class Session(Table):
    """A session, planned or completed. A completed one may link to its plan.

    ``client_id`` was made where it was logged; ``last_change`` is the last change that arrived,
    so that the same one arriving twice is made once.
    """

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="sessions")
    plan_id: int | None
    basis = pw.CharField()
    date = pw.DateField()
    title = pw.CharField(default="")
    rpe = pw.FloatField(null=True)
    duration_min = pw.FloatField(null=True)
    plan = pw.ForeignKeyField("self", null=True, backref="done")
    extra = JsonField(default=dict)
    revision = pw.IntegerField(default=1)
    deleted_on = pw.DateField(null=True)
    client_id = pw.CharField(null=True, unique=True)
    last_change = pw.CharField(null=True)
    came_with = pw.ForeignKeyField(Import, null=True, backref="sessions")

    class Meta:
        indexes = ((("athlete", "basis", "date"), False),)


class Version(Table):
    """A log that arrived when another was stored already: kept until somebody decides."""

    session = pw.ForeignKeyField(Session, backref="versions")
    change = pw.CharField(unique=True)
    body = JsonField()
    day = pw.DateField()


class ColumnChoice(Table):
    """What the columns of a source mean, remembered by their heads."""

    heads = pw.TextField()
    choice = JsonField()

    class Meta:
        table_name = "column_choice"


class SetRow(Table):
    """A set of a session. ``movement`` is empty for a combination, whose moves are in SetMove."""

    session = pw.ForeignKeyField(Session, backref="sets")
    position = pw.IntegerField()
    movement = pw.ForeignKeyField(Movement, null=True)
    reps = pw.IntegerField(null=True)
    seconds = pw.FloatField(null=True)
    load_kg = pw.FloatField()
    implements = pw.IntegerField()
    sides = pw.CharField()
    tempo = pw.CharField(null=True)
    hold_s = pw.FloatField()
    partial_reps = pw.IntegerField()
    rpe = pw.FloatField(null=True)
    warm_up = pw.BooleanField()
    rest_s = pw.FloatField(null=True)
    part = pw.CharField(null=True)
    measured_reps = pw.IntegerField(null=True)
    measured_tension_s = pw.FloatField(null=True)
    extra = JsonField(null=True)

    class Meta:
        table_name = "set"
        indexes = ((("session", "position"), True),)


class SetMove(Table):
    """A move of a combination."""

    set = pw.ForeignKeyField(SetRow, backref="moves")
    position = pw.IntegerField()
    movement = pw.ForeignKeyField(Movement)
    times = pw.FloatField()
    extra = JsonField(null=True)

    class Meta:
        indexes = ((("set", "position"), True),)


class Block(Table):
    """Weeks of an athlete that are planned as one."""

    athlete = pw.ForeignKeyField(Athlete, backref="blocks")
    title = pw.CharField(default="")
    first_week = pw.CharField()
    weeks = pw.IntegerField()
    deleted_on = pw.DateField(null=True)

    class Meta:
        indexes = ((("athlete", "first_week"), False),)


def block_rows(athlete: Athlete) -> list[Block]:
    """The athlete's blocks, the earliest first."""
    return list(
        Block.select()
        .where(Block.athlete == athlete, Block.deleted_on.is_null())
        .order_by(Block.first_week)
    )


class Template(Table):
    """Sessions to lay over weeks of any athlete: each with its day, 0 for the first Monday."""

    name = pw.CharField()
    weeks = pw.IntegerField()
    sessions = JsonField()
    deleted_on = pw.DateField(null=True)


class Restriction(Table):
    """What an athlete is to avoid, or to do within a limit. It stays when it was lifted."""

    athlete = pw.ForeignKeyField(Athlete, backref="restrictions")
    about = pw.CharField()
    subject = pw.CharField()
    most_sets = pw.FloatField(null=True)
    most_load_kg = pw.FloatField(null=True)
    least_s = pw.FloatField(null=True)
    most_s = pw.FloatField(null=True)
    word = pw.TextField(default="")
    by = pw.CharField()
    since = pw.DateField()
    lifted_on = pw.DateField(null=True)
    lifted_by = pw.CharField(null=True)
    extra = JsonField(default=dict)


class Maximum(Table):
    """A maximum of an athlete that somebody typed in: the load of all implements, moved once."""

    athlete = pw.ForeignKeyField(Athlete, backref="maxima")
    movement = pw.CharField()
    kg = pw.FloatField()
    date = pw.DateField()
    extra = JsonField(default=dict)

    class Meta:
        indexes = ((("athlete", "movement", "date"), False),)


class Weighing(Table):
    """What an athlete weighed from a day on."""

    athlete = pw.ForeignKeyField(Athlete, backref="weighings")
    date = pw.DateField()
    kg = pw.FloatField()
    extra = JsonField(default=dict)

    class Meta:
        indexes = ((("athlete", "date"), True),)


class Caution(Table):
    """A circumstance of an athlete that asks for care. It stays when it has ended."""

    athlete = pw.ForeignKeyField(Athlete, backref="cautions")
    kind = pw.CharField()
    word = pw.TextField(default="")
    by = pw.CharField()
    since = pw.DateField()
    ended_on = pw.DateField(null=True)
    extra = JsonField(default=dict)


class Draft(Table):
    """A draft of a week's plan, not published yet.

    ``shape`` is the draft as it was last edited by hand, which the dial scales; ``start_total`` is
    where the dial began.
    """

    athlete = pw.ForeignKeyField(Athlete, backref="drafts")
    week = pw.CharField()
    sessions = JsonField()
    shape = JsonField(null=True)
    start_total = pw.IntegerField()
    revision = pw.IntegerField(default=1)

    class Meta:
        indexes = ((("athlete", "week"), True),)


class JournalEntry(Table):
    """A change that somebody made: who, where, when, what; ``undo`` has what takes it back.

    The same thing done again and again within a short while is one entry, from ``at`` to
    ``until``. Without an athlete it is a change of the house.
    """

    athlete_id: int | None
    athlete = pw.ForeignKeyField(Athlete, null=True, backref="journal")
    day = pw.DateField()
    at = pw.CharField()
    until = pw.CharField()
    times = pw.IntegerField(default=1)
    who = pw.CharField(default="")
    place = pw.CharField(default="")
    says = pw.TextField()
    same = pw.CharField(default="")
    undo = JsonField(null=True)
    undone_on = pw.DateField(null=True)

    class Meta:
        table_name = "journal"
        indexes = ((("athlete", "day"), False), (("same",), False))


class Account(Table):
    """Somebody who signs in, or an athlete whose phone has a door.

    ``password``, ``door`` and ``recovery`` are hashes. ``second`` is what the secret of the second
    factor is derived from, ``second_used`` the period whose code was used last.
    """

    athlete_id: int | None
    name = pw.CharField()
    folded = pw.CharField(unique=True)
    role = pw.CharField()
    athlete = pw.ForeignKeyField(Athlete, null=True, unique=True, backref="accounts")
    password = pw.CharField(null=True)
    door = pw.CharField(null=True, unique=True)
    made_on = pw.DateField()
    seen_on = pw.DateField(null=True)
    second = pw.CharField(null=True)
    second_used = pw.IntegerField(default=0)
    recovery = JsonField(default=list)


class Device(Table):
    """A device that an account has signed in on.

    ``session`` is the hash of what its cookie holds, empty once it is signed out; ``known`` the
    hash of what tells the device again, so that others' wrong tries do not keep it outside.
    """

    account_id: int
    account = pw.ForeignKeyField(Account, backref="devices", on_delete="CASCADE")
    session = pw.CharField(null=True, unique=True)
    known = pw.CharField(unique=True)
    words = pw.CharField(default="")
    since = pw.DateField()
    seen = pw.DateField()


class Goal(Table):
    """What an athlete is to move by a day: a load for reps, reps or seconds."""

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="goals")
    movement = pw.CharField()
    load_kg = pw.FloatField(default=0)
    reps = pw.IntegerField(null=True)
    seconds = pw.FloatField(null=True)
    since = pw.DateField()
    by = pw.DateField()
    extra = JsonField(default=dict)
    deleted_on = pw.DateField(null=True)


class Acceptance(Table):
    """A finding the coach has accepted, with the reason and the value it had then."""

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="acceptances")
    week = pw.CharField()
    basis = pw.CharField()
    code = pw.CharField()
    subject = pw.CharField()
    measure = pw.CharField()
    level = pw.CharField()
    value = pw.FloatField(null=True)
    reason = pw.TextField()
    day = pw.DateField()

    class Meta:
        indexes = ((("athlete", "week", "basis", "code", "subject", "measure"), True),)


class Signature(Table):
    """The audit of a week, signed off; ``document`` is what was signed."""

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="signatures")
    week = pw.CharField()
    name = pw.CharField()
    day = pw.DateField()
    document = JsonField(null=True)

    class Meta:
        indexes = ((("athlete", "week"), True),)


class Declined(Table):
    """A rule that was offered for findings of an athlete, and is not wanted."""

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="declined")
    code = pw.CharField()
    subject = pw.CharField()
    measure = pw.CharField()

    class Meta:
        indexes = ((("athlete", "code", "subject", "measure"), True),)


class Verdict(Table):
    """What an athlete's last week came to, beside the state it was worked out of."""

    athlete = pw.ForeignKeyField(Athlete, backref="verdicts", unique=True)
    state = pw.CharField()
    body = pw.TextField()


TABLES = (
    House, Athlete, Movement, MovementMuscle, Import, Session, Version, ColumnChoice, SetRow,
    SetMove, Block, Template, Restriction, Maximum, Draft, Acceptance, Signature, Declined, Verdict,
    JournalEntry, Account, Device, Goal, Weighing, Caution,
)  # fmt: skip
