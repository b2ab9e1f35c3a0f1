"""The tables. Loads in kg, times in seconds, days as ISO dates; deletion is soft."""

from __future__ import annotations

import secrets
from collections.abc import Iterable, Iterator
from typing import Any

import peewee as pw
from playhouse.sqlite_ext import AutoIncrementField

from dialback.store.fields import (
    DayField,
    JsonField,
    NumberField,
    WholeField,
    WordField,
    WordsField,
)

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

    name = WordField(default="")
    rules = JsonField(default=dict)
    revision = WholeField(default=1)
    kit = JsonField(null=True)
    kit_revision = WholeField(default=1)
    unit = WordField(default="kg")
    schools = JsonField(default=list)
    change = WholeField(default=1)
    club = JsonField(null=True)
    identity = WordField(default=lambda: secrets.token_hex(16))
    unlocked = WholeField(default=0)


class Athlete(Table):
    """An athlete. ``rules`` override the house; ``change`` counts writes that alter figures."""

    name = WordField()
    bodyweight_kg = NumberField(null=True)
    note = WordsField(default="")
    squad = WordField(default="")
    level = WordField(default="")
    born = WholeField(null=True)
    rules = JsonField(default=dict)
    extra = JsonField(default=dict)
    revision = WholeField(default=1)
    change = WholeField(default=1)
    deleted_on = DayField(null=True)


class Movement(Table):
    """A movement of the house, or (with an athlete) one as that athlete's book defines it.

    ``cues`` are the words to say where the house has its own.
    """

    athlete = pw.ForeignKeyField(Athlete, null=True, backref="movements")
    name = WordField()
    folded = WordField()
    pattern = WordField()
    compound = pw.BooleanField()
    bodyweight_share = NumberField()
    tempo = WordField(null=True)
    isometric = pw.BooleanField()
    aliases = JsonField(default=list)
    easier = WordField(null=True)
    harder = WordField(null=True)
    kit = JsonField(default=list)
    one_sided = pw.BooleanField(default=False)
    progress = WordField(null=True)
    cues = JsonField(null=True)
    extra = JsonField(default=dict)

    class Meta:
        indexes = ((("athlete", "folded"), True),)


class MovementMuscle(Table):
    """A muscle of a movement, with its role."""

    movement = pw.ForeignKeyField(Movement, backref="muscles")
    muscle = WordField()
    role = WordField()

    class Meta:
        indexes = ((("movement", "muscle"), True),)


class Import(Table):
    """A file that brought logs in; it can be undone."""

    sessions: Any

    name = WordField()
    day = DayField()
    undone_on = DayField(null=True)


class Session(Table):
    """A session, planned or completed. A completed one may link to its plan.

    ``client_id`` was made where it was logged; ``last_change`` is the last change that arrived,
    so that the same one arriving twice is made once.
    """

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="sessions")
    plan_id: int | None
    basis = WordField()
    date = DayField()
    title = WordField(default="")
    rpe = NumberField(null=True)
    duration_min = NumberField(null=True)
    plan = pw.ForeignKeyField("self", null=True, backref="done")
    extra = JsonField(default=dict)
    revision = WholeField(default=1)
    deleted_on = DayField(null=True)
    client_id = WordField(null=True, unique=True)
    last_change = WordField(null=True)
    came_with = pw.ForeignKeyField(Import, null=True, backref="sessions")

    class Meta:
        indexes = ((("athlete", "basis", "date"), False),)


class Version(Table):
    """A log that arrived when another was stored already: kept until somebody decides."""

    session = pw.ForeignKeyField(Session, backref="versions")
    change = WordField(unique=True)
    body = JsonField(default=dict)
    day = DayField()


class ColumnChoice(Table):
    """What the columns of a source mean, remembered by their heads."""

    heads = WordsField()
    choice = JsonField(default=dict)

    class Meta:
        table_name = "column_choice"


class Habit(Table):
    """What was answered to a question of the same form, and how often in a row.

    An athlete's is about what that athlete does; without one it is how the house writes.
    """

    athlete = pw.ForeignKeyField(Athlete, null=True, backref="habits")
    asked = WordsField()
    answer = WordsField()
    times = WholeField(default=0)


class OwnCue(Table):
    """What one athlete is told at a movement; nothing is said where ``says`` is empty."""

    athlete = pw.ForeignKeyField(Athlete, backref="cues")
    movement = WordField()
    says = WordsField(default="")


class SetRow(Table):
    """A set of a session. ``movement`` is empty for a combination, whose moves are in SetMove."""

    session = pw.ForeignKeyField(Session, backref="sets")
    position = WholeField()
    movement = pw.ForeignKeyField(Movement, null=True)
    reps = WholeField(null=True)
    seconds = NumberField(null=True)
    load_kg = NumberField()
    implements = WholeField()
    sides = WordField()
    tempo = WordField(null=True)
    hold_s = NumberField()
    partial_reps = WholeField()
    rpe = NumberField(null=True)
    warm_up = pw.BooleanField()
    rest_s = NumberField(null=True)
    part = WordField(null=True)
    measured_reps = WholeField(null=True)
    measured_tension_s = NumberField(null=True)
    extra = JsonField(null=True)

    class Meta:
        table_name = "set"
        indexes = ((("session", "position"), True),)


class SetMove(Table):
    """A move of a combination."""

    set = pw.ForeignKeyField(SetRow, backref="moves")
    position = WholeField()
    movement = pw.ForeignKeyField(Movement)
    times = NumberField()
    extra = JsonField(null=True)

    class Meta:
        indexes = ((("set", "position"), True),)


class Block(Table):
    """Weeks of an athlete that are planned as one."""

    athlete = pw.ForeignKeyField(Athlete, backref="blocks")
    title = WordField(default="")
    first_week = WordField()
    weeks = WholeField()
    extra = JsonField(default=dict)
    deleted_on = DayField(null=True)

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

    name = WordField()
    weeks = WholeField()
    sessions = JsonField(default=list)
    deleted_on = DayField(null=True)


class Restriction(Table):
    """What an athlete is to avoid, or to do within a limit. It stays when it was lifted."""

    athlete = pw.ForeignKeyField(Athlete, backref="restrictions")
    about = WordField()
    subject = WordField()
    most_sets = NumberField(null=True)
    most_load_kg = NumberField(null=True)
    least_s = NumberField(null=True)
    most_s = NumberField(null=True)
    word = WordsField(default="")
    by = WordField()
    since = DayField()
    lifted_on = DayField(null=True)
    lifted_by = WordField(null=True)
    extra = JsonField(default=dict)


class Maximum(Table):
    """A maximum of an athlete that somebody typed in: the load of all implements, moved once."""

    athlete = pw.ForeignKeyField(Athlete, backref="maxima")
    movement = WordField()
    kg = NumberField()
    date = DayField()
    extra = JsonField(default=dict)

    class Meta:
        indexes = ((("athlete", "movement", "date"), False),)


class Weighing(Table):
    """What an athlete weighed from a day on."""

    athlete = pw.ForeignKeyField(Athlete, backref="weighings")
    date = DayField()
    kg = NumberField()
    extra = JsonField(default=dict)

    class Meta:
        indexes = ((("athlete", "date"), True),)


class Caution(Table):
    """A circumstance of an athlete that asks for care. It stays when it has ended."""

    athlete = pw.ForeignKeyField(Athlete, backref="cautions")
    kind = WordField()
    word = WordsField(default="")
    by = WordField()
    since = DayField()
    ended_on = DayField(null=True)
    extra = JsonField(default=dict)


class Decision(Table):
    """What a coach has decided about a finding or a signal. It stays when it has ended."""

    athlete = pw.ForeignKeyField(Athlete, backref="decisions")
    kind = WordField()
    code = WordField()
    subject = WordField()
    measure = WordField()
    level = WordField()
    value = NumberField(null=True)
    reason = WordsField(default="")
    since = DayField()
    until = DayField(null=True)
    ended_on = DayField(null=True)
    extra = JsonField(default=dict)


class Draft(Table):
    """A draft of a week's plan, not published yet.

    ``shape`` is the draft as it was last edited by hand, which the dial scales; ``start_total`` is
    where the dial began.
    """

    athlete = pw.ForeignKeyField(Athlete, backref="drafts")
    week = WordField()
    sessions = JsonField(default=list)
    shape = JsonField(null=True)
    start_total = WholeField()
    revision = WholeField(default=1)

    class Meta:
        indexes = ((("athlete", "week"), True),)


class JournalEntry(Table):
    """A change that somebody made: who, where, when, what; ``undo`` has what takes it back.

    The same thing done again and again within a short while is one entry, from ``at`` to
    ``until``. Without an athlete it is a change of the house.
    """

    athlete_id: int | None
    athlete = pw.ForeignKeyField(Athlete, null=True, backref="journal")
    day = DayField()
    at = WordField()
    until = WordField()
    times = WholeField(default=1)
    who = WordField(default="")
    place = WordField(default="")
    says = WordsField()
    same = WordField(default="")
    undo = JsonField(null=True)
    undone_on = DayField(null=True)

    class Meta:
        table_name = "journal"
        indexes = ((("athlete", "day"), False), (("same",), False))


class Account(Table):
    """Somebody who signs in, or an athlete whose phone has a door.

    ``password``, ``door`` and ``recovery`` are hashes. ``second`` is what the secret of the second
    factor is derived from, ``second_used`` the period whose code was used last.
    """

    athlete_id: int | None
    name = WordField()
    folded = WordField(unique=True)
    role = WordField()
    athlete = pw.ForeignKeyField(Athlete, null=True, unique=True, backref="accounts")
    password = WordField(null=True)
    door = WordField(null=True, unique=True)
    made_on = DayField()
    seen_on = DayField(null=True)
    second = WordField(null=True)
    second_used = WholeField(default=0)
    recovery = JsonField(default=list)


class Device(Table):
    """A device that an account has signed in on.

    ``session`` is the hash of what its cookie holds, empty once it is signed out; ``known`` the
    hash of what tells the device again, so that others' wrong tries do not keep it outside.
    """

    account_id: int
    account = pw.ForeignKeyField(Account, backref="devices", on_delete="CASCADE")
    session = WordField(null=True, unique=True)
    known = WordField(unique=True)
    words = WordField(default="")
    since = DayField()
    seen = DayField()


class Goal(Table):
    """What an athlete is to move by a day: a load for reps, reps or seconds."""

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="goals")
    movement = WordField()
    load_kg = NumberField(default=0)
    reps = WholeField(null=True)
    seconds = NumberField(null=True)
    since = DayField()
    by = DayField()
    extra = JsonField(default=dict)
    deleted_on = DayField(null=True)


class Acceptance(Table):
    """A finding the coach has accepted, with the reason and the value it had then."""

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="acceptances")
    week = WordField()
    basis = WordField()
    code = WordField()
    subject = WordField()
    measure = WordField()
    level = WordField()
    value = NumberField(null=True)
    reason = WordsField()
    day = DayField()

    class Meta:
        indexes = ((("athlete", "week", "basis", "code", "subject", "measure"), True),)


class Signature(Table):
    """The audit of a week, signed off; ``document`` is what was signed."""

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="signatures")
    week = WordField()
    name = WordField()
    day = DayField()
    document = JsonField(null=True)

    class Meta:
        indexes = ((("athlete", "week"), True),)


class Declined(Table):
    """A rule that was offered for findings of an athlete, and is not wanted."""

    athlete_id: int
    athlete = pw.ForeignKeyField(Athlete, backref="declined")
    code = WordField()
    subject = WordField()
    measure = WordField()

    class Meta:
        indexes = ((("athlete", "code", "subject", "measure"), True),)


class Verdict(Table):
    """What an athlete's last week came to, beside the state it was worked out of."""

    athlete = pw.ForeignKeyField(Athlete, backref="verdicts", unique=True)
    state = WordField()
    body = WordsField()


TABLES = (
    House,
    Athlete,
    Movement,
    MovementMuscle,
    Import,
    Session,
    Version,
    ColumnChoice,
    Habit,
    OwnCue,
    SetRow,
    SetMove,
    Block,
    Template,
    Restriction,
    Maximum,
    Draft,
    Acceptance,
    Signature,
    Declined,
    Verdict,
    JournalEntry,
    Account,
    Device,
    Goal,
    Weighing,
    Caution,
    Decision,
)
