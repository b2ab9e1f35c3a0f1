"""Drafts: planned sessions as lines, each with a count that can be turned."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import Annotated, Any

from pydantic import Field

from dialback.core.movements import MovementTable, Value
from dialback.core.plans.spans import Kind, Span, spans_of
from dialback.core.sessions import MAX_SETS, Day, Session, Set, Title

Unit = Annotated[tuple[Set, ...], Field(strict=False, min_length=1)]


class Line(Value):
    """What is turned as one: sets alike, left and right in turn, or a circuit round by round.

    ``count`` is the number of sets, pairs or rounds. ``units`` has the sets of each as they were
    planned (those of a ladder differ); where the last ones are alike, one of them stands for all.
    """

    kind: Kind = "sets"
    units: tuple[Unit, ...] = Field(strict=False, min_length=1, max_length=MAX_SETS)
    count: int = Field(ge=0, le=MAX_SETS)

    @property
    def unit(self) -> tuple[Set, ...]:
        """What one more of it adds: a set, a pair, or the sets of the last round."""
        return self.units[-1]

    def sets(self) -> Iterator[Set]:
        """All of its sets in order. One more copies the last, one fewer takes it off."""
        if self.kind == "rounds":
            yield from self._rounds()
            return
        for number in range(self.count):
            yield from self.units[min(number, len(self.units) - 1)]

    def _rounds(self) -> Iterator[Set]:
        planned = len(self.units)
        between = self.units[-2][-1].rest_s if planned > 1 else self.units[-1][-1].rest_s
        end = self.units[-1][-1].rest_s
        for number in range(self.count):
            sets = self.units[min(number, planned - 1)]
            for at, a_set in enumerate(sets):
                changed: dict[str, Any] = {}
                if number >= planned:
                    changed["round"] = number + 1
                if at == len(sets) - 1 and self.count != planned:
                    # Behind the last round there is no rest between rounds.
                    rest = end if number == self.count - 1 else between
                    if (number >= planned - 1 or number == self.count - 1) and rest != a_set.rest_s:
                        changed["rest_s"] = rest
                yield a_set.model_copy(update=changed) if changed else a_set


class DraftSession(Value):
    """A day of a draft, as lines."""

    date: Day
    title: Title = ""
    lines: tuple[Line, ...] = Field(strict=False, max_length=MAX_SETS)


def as_draft(sessions: Iterable[Session], movements: MovementTable) -> tuple[DraftSession, ...]:
    """Sessions as a draft: each span becomes a line."""
    return tuple(
        DraftSession(
            date=session.date, title=session.title, lines=tuple(_lines(session, movements))
        )
        for session in sessions
    )


def _lines(session: Session, movements: MovementTable) -> Iterator[Line]:
    for span in _in_order(spans_of(session, movements)):
        units = [tuple(session.sets[place] for place in unit) for unit in span.units]
        while len(units) > 1 and units[-1] == units[-2]:
            units.pop()
        yield Line(kind=span.kind, units=tuple(units), count=span.count)


def _in_order(spans: Sequence[Span]) -> Iterator[Span]:
    """The spans, a circuit that others stand within set by set: a draft keeps the order of sets."""
    places = [place for span in spans for unit in span.units for place in unit]
    if places == sorted(places):
        yield from spans
        return
    single = [
        (place, Span(0, "sets", ((place,),), span.movements, span.part, span.fixed))
        for span in spans
        for unit in span.units
        for place in unit
    ]
    yield from (span for _, span in sorted(single, key=lambda placed: placed[0]))


def as_sessions(draft: Iterable[DraftSession]) -> tuple[Session, ...]:
    """A draft as sessions; lines of no sets and days of no lines fall away."""
    sessions = (
        Session(
            date=day.date,
            title=day.title,
            sets=tuple(a_set for line in day.lines for a_set in line.sets()),
        )
        for day in draft
    )
    return tuple(session for session in sessions if session.sets)
