"""Athletes, their ledgers, and their books in and out."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from threading import Lock
from typing import Any, Final, cast

from dialback.book.book import Book, BookAthlete, BookBlock, BookKind, week_kinds
from dialback.book.errors import bad_input
from dialback.core import rules as core_rules
from dialback.core.blocks import Blocks
from dialback.core.breaks import as_planned_from
from dialback.core.cautions import TrainingLevel
from dialback.core.kit import Kit
from dialback.core.movements import Movement as CoreMovement
from dialback.core.movements import MovementTable, fold
from dialback.core.plans.kept import Kept, kept_in
from dialback.core.rules import Rules
from dialback.core.tally import Ledger
from dialback.core.vocabulary import BASES
from dialback.core.weeks import Week
from dialback.core.words import Unit, weight_text
from dialback.store.cautions import (
    add_cautions,
    add_weighings,
    body_of,
    numbered_cautions,
    numbered_weighings,
)
from dialback.store.cues import add_own_cues, own_cues
from dialback.store.decisions import add_decisions, numbered_decisions
from dialback.store.fields import legible
from dialback.store.goals import add_goals, numbered_goals
from dialback.store.journal import change
from dialback.store.kit import kit_of
from dialback.store.maxima import add_maxima, maxima_of
from dialback.store.models import Athlete, Block, House, Movement, block_rows
from dialback.store.movements import add_movements, movements_of, movements_of_house, own_movements
from dialback.store.restrictions import add_restrictions, restrictions_of
from dialback.store.sessions import StoredSessions, add_sessions, sessions_by_number
from dialback.store.unit import touch_house, unit

__all__ = ["Athlete", "House"]
"""What a place hands on: it asks nothing of the rows itself."""


class NameTakenError(ValueError):
    """An athlete of that name is there already."""

    def __init__(self, name: str) -> None:
        self.name = name
        super().__init__(
            f"there is already an athlete called {name!r}: choose another name, or replace that one"
        )


def house() -> House:
    """The coach's own row."""
    return House.get()


def house_unit() -> Unit:
    """The unit in which the house reads weights."""
    return cast(Unit, house().unit)


def weight_said(kg: float) -> str:
    """A weight in the unit in which the house reads them."""
    return weight_text(kg, house_unit())


def athletes() -> list[Athlete]:
    """The athletes on the roster, by name."""
    return list(Athlete.select().where(Athlete.deleted_on.is_null()).order_by(Athlete.name))


class UnknownAthleteError(LookupError):
    """Nobody on the roster has that number."""

    def __init__(self, number: int) -> None:
        super().__init__(
            f"No athlete on the roster has the number {number}: they may have been "
            "archived in the meantime. Look at the roster."
        )


def athlete_on_roster(number: int) -> Athlete:
    """The athlete of that number. Raises ``UnknownAthleteError``."""
    found: Athlete | None = Athlete.get_or_none(Athlete.id == number, Athlete.deleted_on.is_null())
    if found is None:
        raise UnknownAthleteError(number)
    return found


def find_athlete(name: str, *, but: int | None = None) -> Athlete | None:
    """The athlete of that name, letter case apart; ``but`` is one who is not looked at."""
    same = (one for one in athletes() if fold(one.name) == fold(name) and one.id != but)
    return next(same, None)


def rules_of(athlete: Athlete, owner: House | None = None) -> Rules:
    """The rules in force for an athlete: the house's, with the athlete's own over them."""
    return core_rules.merge((owner or house()).rules, athlete.rules)


MOST_MOVEMENTS: Final = 4000
"""Movements of a house, however many books come in."""
MOST_LEDGERS: Final = 64
"""So many athletes are kept in memory, years of sets each; the least used is let go first."""


class Ledgers:
    """Ledgers by athlete, kept until something that enters their figures changes."""

    def __init__(self) -> None:
        self._kept: OrderedDict[int, tuple[tuple[int, int], Ledger]] = OrderedDict()
        self._lock = Lock()
        self._house: tuple[int, Mapping[int, CoreMovement], MovementTable] | None = None

    def of(self, athlete: Athlete, owner: House | None = None) -> Ledger:
        """The athlete's ledger under the rules in force."""
        owner = owner or house()
        state = (athlete.change, owner.change)
        kept = self._kept.get(athlete.id)
        if kept is None or kept[0] != state:
            movements, table = self._movements(athlete, owner)
            ledger = Ledger(
                StoredSessions(athlete, movements),
                table,
                rules_of(athlete, owner),
                body_of(athlete),
                restrictions_of(athlete),
                kit=kit_of(owner),
                maxima=maxima_of(athlete),
                unit=cast(Unit, owner.unit),
                blocks=Blocks.of(legible(block_rows(athlete), lambda row: _book_block(row).plan)),
                kinds=week_kinds(_kinds_of(athlete)),
                decisions=tuple(numbered_decisions(athlete).values()),
            )
            kept = (state, ledger)
            with self._lock:
                self._kept[athlete.id] = kept
                while len(self._kept) > MOST_LEDGERS:
                    self._kept.popitem(last=False)
        with self._lock:
            if athlete.id in self._kept:
                self._kept.move_to_end(athlete.id)
        return kept[1]

    def _movements(
        self, athlete: Athlete, owner: House
    ) -> tuple[Mapping[int, CoreMovement], MovementTable]:
        """An athlete's movements; those of the house are read once for all."""
        kept = self._house
        if kept is None or kept[0] != owner.change:
            found = movements_of_house()
            # Another thread may put its own there meanwhile: this one goes on with what it read.
            kept = self._house = (owner.change, found, MovementTable(found.values()))
        _, of_house, table = kept
        own = own_movements(athlete)
        if not own:
            return of_house, table
        every = {**of_house, **own}
        return every, MovementTable(every.values())

    def plans(self, athlete: Athlete, numbers: Sequence[int]) -> list[Kept] | int:
        """Planned sessions by number, in that order; the first number that has none otherwise."""
        weeks = {Week.of(day) for _, day in sessions_by_number(athlete, "planned", numbers)}
        ledger = self.of(athlete)
        found = {kept.number: kept for week in weeks for kept in kept_in(ledger, "planned", week)}
        missing = next((number for number in numbers if number not in found), None)
        return [found[number] for number in numbers] if missing is None else missing

    def ahead(self, athlete: Athlete, running: Week) -> Ledger:
        """The ledger as it will be if every plan from the running week on is done."""
        return as_planned_from(self.of(athlete), running)

    def under(self, athlete: Athlete, rules: Rules) -> Ledger:
        """A ledger of the same sessions under other rules, to try them out."""
        return self.of(athlete).but(rules=rules)


@dataclass(frozen=True, slots=True)
class Imported:
    """What an import did."""

    athlete: Athlete
    planned: int
    completed: int
    sets: int
    new_movements: tuple[str, ...]
    own_movements: tuple[str, ...]
    replaced: bool


def import_book(
    book: Book, today: date, name: str | None = None, *, replace: bool = False
) -> Imported:
    """Store a book whole, as a new athlete, or not at all.

    Movements that the house does not know are added to it; those that the house defines
    otherwise stay the athlete's own, so that the book counts as it did. Raises
    ``NameTakenError`` unless ``replace`` puts the athlete of that name aside.
    """
    called = name or book.athlete.name
    with unit() as entry:
        there = find_athlete(called)
        if there is not None:
            if not replace:
                raise NameTakenError(there.name)
            undo = change(there, deleted_on=today)
            entry.tell("Archived: a book was imported under this name", there, undo=undo)
        # Where the house counts otherwise, the book's own way is kept for this athlete.
        own_rules = book.rules.changes(since=core_rules.merge(house().rules))
        athlete = Athlete.create(
            name=called,
            bodyweight_kg=book.athlete.bodyweight_kg,
            level=book.athlete.training_level,
            born=book.athlete.born_in,
            rules=own_rules,
            extra={"book": _kept(book), "athlete": book.athlete.model_extra or {}},
        )
        add_restrictions(athlete, book.athlete.restrictions)
        add_maxima(athlete, book.athlete.maxima)
        add_goals(athlete, book.athlete.goals)
        add_weighings(athlete, book.athlete.weighings)
        add_cautions(athlete, book.athlete.cautions)
        add_decisions(athlete, book.athlete.decisions)
        add_own_cues(athlete, book.athlete.cues)
        for block in book.blocks:
            Block.create(
                athlete=athlete,
                title=block.title,
                first_week=block.week,
                weeks=block.weeks,
                extra=block.model_dump(
                    mode="json", exclude={"week", "weeks", "title"}, exclude_defaults=True
                ),
            )
        ids, new, own = _place_movements(book, athlete)
        plans = add_sessions(athlete, "planned", book.planned, ids)
        add_sessions(athlete, "completed", book.completed, ids, plans)
        if new:
            touch_house()
        sessions = len(book.planned) + len(book.completed)
        entry.tell(f"Imported with a book of {sessions} sessions", athlete)
    return Imported(
        athlete,
        len(book.planned),
        len(book.completed),
        sum(len(session.sets) for session in (*book.planned, *book.completed)),
        tuple(new),
        tuple(own),
        there is not None,
    )


def _kept(book: Book) -> dict[str, Any]:
    """What of a book has no place of its own here, and goes out again with it."""
    kit = {} if book.kit is None else {"kit": book.kit.model_dump(mode="json", exclude_unset=True)}
    kinds = {"kinds": [one.model_dump() for one in book.kinds]} if book.kinds else {}
    return {**(book.model_extra or {}), **kit, **kinds}


def _book_block(row: Block) -> BookBlock:
    return BookBlock.model_validate(
        {**row.extra, "week": row.first_week, "weeks": row.weeks, "title": row.title}
    )


def _kinds_of(athlete: Athlete) -> tuple[BookKind, ...]:
    """What weeks are for, as the athlete's book says."""
    kept = athlete.extra.get("book", {}).get("kinds", [])
    return tuple(legible(kept, BookKind.model_validate))


@dataclass(frozen=True, slots=True)
class _Sorted:
    """A book's movements beside those of the house: as there, unknown there, counted otherwise."""

    known: dict[str, int]
    new: list[CoreMovement]
    own: list[CoreMovement]


def _sorted_movements(book: Book) -> _Sorted:
    there = {fold(one.name): (number, one) for number, one in movements_of_house().items()}
    found = _Sorted({}, [], [])
    for movement in book.exercises:
        key = fold(movement.name)
        if key not in there:
            found.new.append(movement)
        elif there[key][1].counts_like(movement):
            found.known[key] = there[key][0]
        else:
            found.own.append(movement)
    if len(there) + len(found.new) > MOST_MOVEMENTS:
        raise bad_input(
            "exercises",
            f"with {len(found.new)} new ones the house would have more than "
            f"{MOST_MOVEMENTS} movements: remove from the book those that nothing uses",
        )
    return found


def _place_movements(book: Book, athlete: Athlete) -> tuple[dict[str, int], list[str], list[str]]:
    found = _sorted_movements(book)
    ids = {
        **found.known,
        **add_movements(found.new, athlete=None),
        **add_movements(found.own, athlete=athlete),
    }
    return ids, [one.name for one in found.new], [one.name for one in found.own]


@dataclass(frozen=True, slots=True)
class Look:
    """What an import would do, before anything is stored. ``taken`` is the name that is there."""

    taken: str | None
    new_movements: tuple[str, ...]
    own_movements: tuple[str, ...]


def look_at_book(book: Book) -> Look:
    """What a book would bring into the house."""
    there, found = find_athlete(book.athlete.name), _sorted_movements(book)
    return Look(
        there.name if there else None,
        tuple(movement.name for movement in found.new),
        tuple(movement.name for movement in found.own),
    )


def export_book(
    athlete: Athlete, ledgers: Ledgers, first: date = date.min, last: date = date.max
) -> Book:
    """The athlete's book: sessions from a day to a day, the movements in them, the rules."""
    ledger = ledgers.of(athlete)
    weeks = [week for basis in BASES for week in ledger.source.weeks(basis)]
    if weeks:
        ledger.read_ahead(min(weeks), max(weeks))
    planned, completed = (
        tuple(
            session
            for week in ledger.source.weeks(basis)
            for session in ledger.source.week(basis, week)
            if first <= session.date <= last
        )
        for basis in BASES
    )
    used = {
        fold(name)
        for session in (*planned, *completed)
        for a_set in session.sets
        for name, _ in a_set.named_moves()
    }
    goals = tuple(numbered_goals(athlete).values())
    used |= {fold(ledger.movements[goal.movement].name) for goal in goals}
    own = {row.folded for row in Movement.select().where(Movement.athlete == athlete)}
    return Book.model_construct(
        format="dialback-book",
        version=1,
        athlete=BookAthlete.model_construct(
            name=athlete.name,
            bodyweight_kg=athlete.bodyweight_kg,
            restrictions=ledger.restrictions,
            maxima=ledger.maxima,
            goals=goals,
            weighings=tuple(reversed(numbered_weighings(athlete).values())),
            cautions=tuple(numbered_cautions(athlete).values()),
            decisions=ledger.decisions,
            cues=own_cues(athlete),
            born_in=athlete.born,
            training_level=cast(TrainingLevel, athlete.level),
            **athlete.extra.get("athlete", {}),
        ),
        exercises=tuple(
            movement for movement in ledger.movements if fold(movement.name) in used | own
        ),
        rules=ledger.rules,
        planned=planned,
        completed=completed,
        kit=ledger.kit or _own_kit(athlete),
        blocks=tuple(legible(block_rows(athlete), _book_block)),
        kinds=_kinds_of(athlete),
        **{
            key: value
            for key, value in athlete.extra.get("book", {}).items()
            if key not in ("kit", "kinds")
        },
    )


def _own_kit(athlete: Athlete) -> Kit | None:
    """The kit that the athlete's book came with."""
    kept = athlete.extra.get("book", {}).get("kit")
    return None if kept is None else Kit.model_validate(kept)


def movement_ids(athlete: Athlete) -> dict[str, int]:
    """Ids of the movements an athlete can do, by folded name."""
    return {fold(movement.name): number for number, movement in movements_of(athlete).items()}
