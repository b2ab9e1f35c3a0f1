"""Figures: the names of what a week comes to, such as ``muscles/chest/sets``.

A figure is a text, so that it can be a key, a word on the wire and part of an address; here alone
it is put together and taken apart.
"""

from __future__ import annotations

from typing import Final, NamedTuple, NewType

from dialback.core.measures import MEASURES, MUSCLE_MEASURES, measures_of
from dialback.core.movements import MovementTable
from dialback.core.vocabulary import MUSCLES, PAIRS, PAIRS_BY_NAME, PATTERNS, Pair

Figure = NewType("Figure", str)
"""A figure's name; made by the functions below."""

TOTALS: Final = (*measures_of("week"), "estimated_rep_sets", "assumed_tempo_sets")
"""The measures of a week as a whole."""
TOP_LOAD: Final = "top_load_kg"
"""The measure of a movement's heaviest load: no sum."""


class Parts(NamedTuple):
    """A figure taken apart; the subject of ``totals`` is empty, that of a side ``pair/a``."""

    kind: str
    subject: str
    measure: str


IN_ALL: Final = "totals"
"""The subject of the whole week's measures."""


def as_muscle(muscle: str) -> str:
    """A muscle as the subject of figures: ``muscles/chest``."""
    return f"muscles/{muscle}"


def as_pattern(pattern: str) -> str:
    """A pattern as the subject of figures."""
    return f"patterns/{pattern}"


def as_movement(movement: str) -> str:
    """A movement, by its name, as the subject of figures."""
    return f"movements/{movement}"


def as_side(pair: str, side: str) -> str:
    """One side, ``a`` or ``b``, of a pair as the subject of figures."""
    return f"balance/{pair}/{side}"


def of(subject: str, measure: str) -> Figure:
    """A measure of a subject that says its kind: ``totals``, ``muscles/chest``."""
    return Figure(f"{subject}/{measure}")


def in_total(measure: str) -> Figure:
    """A measure of the whole week."""
    return of(IN_ALL, measure)


def of_muscle(muscle: str, measure: str) -> Figure:
    """A measure of a muscle."""
    return of(as_muscle(muscle), measure)


def of_pattern(pattern: str, measure: str) -> Figure:
    """A measure of a pattern."""
    return of(as_pattern(pattern), measure)


def of_movement(movement: str, measure: str) -> Figure:
    """A measure of a movement, by its name."""
    return of(as_movement(movement), measure)


def of_side(pair: str, side: str, measure: str) -> Figure:
    """A measure of one side, ``a`` or ``b``, of a pair."""
    return of(as_side(pair, side), measure)


TOTAL_SETS: Final = in_total("sets")


def parts(figure: str) -> Parts:
    """A figure taken apart."""
    kind, _, rest = figure.partition("/")
    subject, _, measure = rest.rpartition("/")
    return Parts(kind, subject, measure)


def subject_of(figure: str) -> str:
    """A figure without its measure: ``muscles/chest``."""
    return figure.rpartition("/")[0]


def measure_of(figure: str) -> str:
    """The measure of a figure."""
    return figure.rpartition("/")[2]


def kind_and_name(subject: str) -> tuple[str, str]:
    """A figure without its measure taken apart: ``muscles`` and ``chest``."""
    kind, _, name = subject.partition("/")
    return kind, name


def side_of(name: str) -> tuple[Pair, str]:
    """The pair and the side, ``a`` or ``b``, of a subject such as ``push_pull/a``."""
    pair_name, _, side = name.partition("/")
    return PAIRS_BY_NAME[pair_name], side


def is_figure(key: str, movements: MovementTable) -> bool:
    """Whether a text names a figure that a week can have."""
    kind, subject, measure = parts(key)
    match kind:
        case "totals":
            return not subject and measure in TOTALS
        case "muscles":
            return subject in MUSCLES and measure in MUSCLE_MEASURES
        case "patterns":
            return subject in PATTERNS and measure in MEASURES
        case "movements":
            return subject in movements and measure in (*MEASURES, TOP_LOAD)
        case "balance":
            return any(
                subject == f"{pair.name}/{side}" and measure in pair.measures
                for pair in PAIRS
                for side in "ab"
            )
    return False
