"""The book: one athlete's movements, rules, plan and log as one JSON document."""

from __future__ import annotations

import json
from collections import defaultdict
from collections.abc import Iterable, Sequence
from functools import cached_property
from typing import Any, Final, Literal

from pydantic import Field, ValidationError, field_validator

from dialback.book.errors import BadInputError, Problem, bad_input, from_validation
from dialback.book.json_text import read_document
from dialback.core.blocks import BlockPlan, Blocks
from dialback.core.body import BodyWeight, Weighing
from dialback.core.cautions import YEARS_OF_BIRTH, Caution, TrainingLevel
from dialback.core.cues import OwnCue
from dialback.core.decisions import Decision
from dialback.core.kit import Kit
from dialback.core.movements import (
    Movement,
    MovementTable,
    Name,
    Names,
    UnknownMovementError,
    Value,
    fold,
)
from dialback.core.restrictions import Restriction
from dialback.core.rules import Rules
from dialback.core.sessions import Goal, Maximum, Session, Title
from dialback.core.tally import Ledger
from dialback.core.vocabulary import BASES, Basis, WeekKind
from dialback.core.weeks import Week

FORMAT: Final = "dialback-book"
VERSION: Final = 1
MAX_BYTES: Final = 25_000_000
"""A book of ten years of daily training is under 10 MB; more is no book."""


MAX_MOVEMENTS: Final = 2000
"""Movements of a book; what a house uses in ten years is a tenth of that."""


MAX_DECISIONS: Final = 2000
"""Decisions about an athlete; a coach makes some in a month."""


class BookAthlete(Value):
    """Whose book it is."""

    name: Name
    bodyweight_kg: float | None = Field(None, gt=0, le=1000)
    restrictions: tuple[Restriction, ...] = Field((), strict=False, max_length=100)
    maxima: tuple[Maximum, ...] = Field((), strict=False, max_length=1000)
    goals: tuple[Goal, ...] = Field((), strict=False, max_length=100)
    weighings: tuple[Weighing, ...] = Field((), strict=False, max_length=2000)
    cautions: tuple[Caution, ...] = Field((), strict=False, max_length=100)
    decisions: tuple[Decision, ...] = Field((), strict=False, max_length=MAX_DECISIONS)
    cues: tuple[OwnCue, ...] = Field((), strict=False, max_length=500)
    born_in: int | None = Field(None, ge=YEARS_OF_BIRTH[0], le=YEARS_OF_BIRTH[1])
    training_level: TrainingLevel = ""

    @property
    def is_weighed(self) -> bool:
        """Whether a body weight is known at all."""
        return self.bodyweight_kg is not None or bool(self.weighings)

    @property
    def body(self) -> BodyWeight:
        """What they weighed on a day."""
        return BodyWeight.of(self.bodyweight_kg, self.weighings)


class BookBlock(Value):
    """A block of weeks: where it begins, how many it has, what it is for."""

    week: str = Field(pattern=r"^\d{4}-W\d{2}$")
    weeks: int = Field(1, ge=1, le=53)
    title: Title = ""
    out_of_focus: Names = Field((), max_length=40, description="Muscles and pairs")
    main: Names = Field((), max_length=40, description="Its main movements")

    @field_validator("week")
    @classmethod
    def _is_a_week(cls, text: str) -> str:
        Week.parse(text)
        return text

    @property
    def plan(self) -> BlockPlan:
        """As the findings see it."""
        focus = frozenset(self.out_of_focus)
        return BlockPlan(Week.parse(self.week), self.weeks, focus, self.main)


class BookKind(Value):
    """What a week is for."""

    week: str = Field(pattern=r"^\d{4}-W\d{2}$")
    kind: WeekKind

    @field_validator("week")
    @classmethod
    def _is_a_week(cls, text: str) -> str:
        Week.parse(text)
        return text


def week_kinds(kinds: Iterable[BookKind]) -> dict[Week, WeekKind]:
    """What weeks are for; of two words on one the later holds."""
    return {Week.parse(one.week): one.kind for one in kinds}


class Book(Value):
    """``dialback-book`` version 1."""

    format: Literal["dialback-book"]
    version: Literal[1]
    athlete: BookAthlete
    exercises: tuple[Movement, ...] = Field((), strict=False, max_length=MAX_MOVEMENTS)
    rules: Rules = Field(default_factory=Rules)
    planned: tuple[Session, ...] = Field((), strict=False)
    completed: tuple[Session, ...] = Field((), strict=False)
    kit: Kit | None = None
    blocks: tuple[BookBlock, ...] = Field((), strict=False, max_length=1000)
    kinds: tuple[BookKind, ...] = Field((), strict=False, max_length=5000)

    @cached_property
    def movements(self) -> MovementTable:
        """The book's exercises by name."""
        return MovementTable(self.exercises)

    def sessions(self, basis: Basis) -> tuple[Session, ...]:
        """Its planned or completed sessions."""
        return self.completed if basis == "completed" else self.planned

    def ledger(self) -> Ledger:
        """The book's sessions under the book's rules."""
        return Ledger(
            SessionsByWeek(self.planned, self.completed),
            self.movements,
            self.rules,
            self.athlete.body,
            self.athlete.restrictions,
            kit=self.kit,
            maxima=self.athlete.maxima,
            blocks=Blocks.of(block.plan for block in self.blocks),
            kinds=week_kinds(self.kinds),
            decisions=self.athlete.decisions,
        )


class SessionsByWeek:
    """Sessions in memory, by week; the ``SessionSource`` of a book."""

    def __init__(self, planned: Iterable[Session], completed: Iterable[Session]) -> None:
        self._by_week: dict[Basis, dict[Week, list[Session]]] = {
            "planned": _by_week(planned),
            "completed": _by_week(completed),
        }

    def week(self, basis: Basis, week: Week) -> Sequence[Session]:
        """The sessions of one week, in order of day and entry."""
        return self._by_week[basis].get(week, [])

    def weeks(self, basis: Basis) -> Sequence[Week]:
        """The weeks that have sessions, in order."""
        return sorted(self._by_week[basis])


def _by_week(sessions: Iterable[Session]) -> dict[Week, list[Session]]:
    weeks: dict[Week, list[Session]] = defaultdict(list)
    for session in sorted(sessions, key=lambda session: session.date):
        weeks[Week.of(session.date)].append(session)
    return dict(weeks)


def read_book(data: bytes) -> Book:
    """Read and check a book. Raises ``BadInputError`` that names every place that is wrong."""
    if len(data) > MAX_BYTES:
        raise bad_input(
            "",
            f"the book has {len(data) // 1_000_000} MB; at most {MAX_BYTES // 1_000_000} are "
            "taken: split it by years",
        )
    document = read_document(data, "book", FORMAT, VERSION)
    try:
        book = Book.model_validate(document)
    except ValidationError as error:
        raise from_validation(error) from None
    problems = _refer(book)
    if problems:
        raise BadInputError(problems)
    return book


def _refer(book: Book) -> list[Problem]:
    """What only the whole book can tell: names that are double, missing or need a body weight."""
    problems = []
    seen: dict[str, int] = {}
    for at, movement in enumerate(book.exercises):
        first = seen.setdefault(fold(movement.name), at)
        if first != at:
            problems.append(
                Problem(
                    f"exercises[{at}].name",
                    f"{movement.name!r} is already there as exercises[{first}]: names are unique, "
                    "letter case apart",
                )
            )
    weightless: Problem | None = None
    known: dict[str, Movement | str] = {}
    for basis in BASES:
        for at, session in enumerate(book.sessions(basis)):
            for number, one in enumerate(session.sets):
                for index, (name, _) in enumerate(one.named_moves()):
                    found = known.get(name)
                    if found is None:
                        found = known[name] = _look_up(book, name)
                    if isinstance(found, str):
                        move = f".moves[{index}]" if one.moves else ""
                        place = f"{basis}[{at}].sets[{number}]{move}.exercise"
                        problems.append(Problem(place, found))
                    elif found.bodyweight_share and not book.athlete.is_weighed:
                        weightless = weightless or Problem(
                            "athlete.bodyweight_kg",
                            f"is missing, and {found.name!r} in {basis}[{at}].sets[{number}] "
                            "takes a share of it",
                        )
    for at, goal in enumerate(book.athlete.goals):
        found = _look_up(book, goal.movement)
        if isinstance(found, str):
            problems.append(Problem(f"athlete.goals[{at}].movement", found))
    if weightless and book.rules.bodyweight_load:
        problems.append(weightless)
    return problems


def _look_up(book: Book, name: str) -> Movement | str:
    """The movement of that name, or what is wrong with the name."""
    try:
        return book.movements[name]
    except UnknownMovementError as unknown:
        return str(unknown)


def warnings(book: Book) -> list[str]:
    """What was read and has no effect: names under ``rules`` that no rule has."""
    return [
        f"rules.{name}: no rule has this name, it has no effect" for name in book.rules.unknown()
    ]


def as_document(book: Book) -> dict[str, Any]:
    """The book as a JSON document: what has its default is left out, unknown keys stay."""
    document = book.model_dump(mode="json", exclude_defaults=True, exclude={"rules"})
    return {
        "format": FORMAT,
        "version": VERSION,
        "athlete": document["athlete"],
        "exercises": document.get("exercises", []),
        "rules": book.rules.changes(),
        "planned": document.get("planned", []),
        "completed": document.get("completed", []),
        **{key: document[key] for key in ("kit", "blocks", "kinds") if key in document},
        **(book.model_extra or {}),
    }


def write_book(book: Book) -> bytes:
    """The book as UTF-8 JSON."""
    text = json.dumps(as_document(book), ensure_ascii=False, indent=1, allow_nan=False)
    return (text + "\n").encode()


# What a model says of several keys at once, pydantic cannot put into the schema by itself.
_SET_CONDITIONS: Final = [
    {
        "oneOf": [
            {"required": ["exercise"], "properties": {"exercise": {"type": "string"}}},
            {"required": ["moves"], "properties": {"moves": {"type": "array"}}},
        ]
    },
    {
        "anyOf": [
            {"required": ["reps"], "properties": {"reps": {"type": "integer"}}},
            {"required": ["seconds"], "properties": {"seconds": {"type": "number"}}},
            {"required": ["distance_m"], "properties": {"distance_m": {"type": "number"}}},
        ]
    },
]


def schema() -> dict[str, Any]:
    """The JSON Schema (2020-12) of the book, made from the models that read it."""
    made = Book.model_json_schema(mode="validation")
    made["$defs"]["Set"]["allOf"] = _SET_CONDITIONS
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": f"urn:{FORMAT}:{VERSION}",
        **made,
        "title": FORMAT,
    }
