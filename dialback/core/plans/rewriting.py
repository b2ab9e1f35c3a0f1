"""A text whose sets were turned: only the lines that changed are written anew.

Remarks, marks of parts, ladders and rounds that change stay as the coach wrote them. What is
written is read back: a text that does not come to the turned sets is not taken.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import zip_longest
from typing import Final

from dialback.core.movements import MovementTable, fold
from dialback.core.notation import Setting, expand, read
from dialback.core.notation.characters import lines_of
from dialback.core.notation.expand import item_sets
from dialback.core.notation.gather import bout_of, lines_from
from dialback.core.notation.reader import PART_LINE
from dialback.core.notation.session import Bout, Item, Line, Part, Pause, Rounds, WrittenSession
from dialback.core.notation.writer import item_lines, part_head
from dialback.core.sessions import Session, Set

_ENDLESS: Final = 10**6
"""What it costs to give an item sets of movements that it does not have: never."""


@dataclass(frozen=True, slots=True)
class _Written:
    """An item of a text, with the sets that it comes to."""

    item: Line | Rounds
    part: Part
    sets: tuple[Set, ...]
    rested: bool
    """Whether a line of its own says the rest behind it."""

    @property
    def names(self) -> frozenset[tuple[str, ...]]:
        return frozenset(_names(one) for one in self.sets)

    @property
    def at(self) -> tuple[int, ...]:
        """The lines of the text that it stands on, from 1."""
        if isinstance(self.item, Line):
            return (self.item.at,)
        return tuple(sorted({self.item.at, *(turn.at for turn in self.item.turns)} - {0}))


def rewritten(
    text: str, after: Session, movements: MovementTable, setting: Setting
) -> tuple[str, Session] | None:
    """The text with its changed lines written anew, and the session that it comes to.

    Its sets are those of ``after``, in their order; a rest that the text says between two lines
    stays said there. ``None`` where the text cannot be turned so far.
    """
    reading = read(text, movements, day=after.date)
    if len(reading.sessions) != 1:
        return None
    (written,) = reading.sessions
    items = list(_items(written, setting))
    given = _given(items, after.sets)
    if given is None:
        return None
    segments, more = given
    made = _lines(lines_of(text), items, segments, more, movements, setting)
    if made is None:
        return None
    found = "\n".join(made).rstrip("\n") + "\n"
    again = read(found, movements, day=after.date)
    # Lines that were not understood before are none of the turned ones, and stay.
    if len(again.mistakes) != len(reading.mistakes) or len(again.sessions) != 1:
        return None
    session = expand(again.sessions[0], setting, after.date)
    if list(map(_essence, session.sets)) != list(map(_essence, after.sets)):
        return None
    return found, after.model_copy(update={"sets": session.sets})


def _items(written: WrittenSession, setting: Setting) -> Iterator[_Written]:
    for part in written.parts:
        for item, behind in zip_longest(part.items, part.items[1:]):
            if not isinstance(item, Pause):
                sets = tuple(placed.set for placed in item_sets(item, part, setting))
                rested = behind is None and part.rest_s is not None
                yield _Written(item, part, sets, rested or isinstance(behind, Pause))


def _names(a_set: Set) -> tuple[str, ...]:
    return tuple(fold(name) for name, _ in a_set.named_moves())


def _essence(a_set: Set) -> Set:
    """A set without its rest: a line of rest between two others goes before it."""
    return a_set.model_copy(update={"rest_s": None})


def _given(
    items: Sequence[_Written], sets: Sequence[Set]
) -> tuple[list[tuple[Set, ...]], tuple[Set, ...]] | None:
    """The sets that each item comes to now, and those behind them all: the fewest items change."""
    count = len(sets)
    best: list[dict[int, tuple[float, int]]] = [{0: (0.0, 0)}]
    for item in items:
        row: dict[int, tuple[float, int]] = {}
        for start, (cost, _) in best[-1].items():
            for end in range(start, count + 1):
                price = _price(item, sets[start:end])
                if price >= _ENDLESS:
                    break
                if end not in row or cost + price < row[end][0]:
                    row[end] = (cost + price, start)
        best.append(row)
    ends = {end: cost + 2 * (count - end) for end, (cost, _) in best[-1].items()}
    if not ends:
        return None
    end = min(ends, key=lambda one: ends[one])
    more = tuple(sets[end:])
    segments: list[tuple[Set, ...]] = []
    for row in reversed(best[1:]):
        start = row[end][1]
        segments.append(tuple(sets[start:end]))
        end = start
    return segments[::-1], more


def _price(item: _Written, segment: Sequence[Set]) -> float:
    if list(map(_essence, segment)) == list(map(_essence, item.sets)):
        return 0.0
    if any(_names(one) not in item.names or one.part != item.sets[0].part for one in segment):
        return _ENDLESS
    return 1 + abs(len(segment) - len(item.sets)) / 100


def _lines(
    lines: Sequence[str],
    items: Sequence[_Written],
    segments: Sequence[tuple[Set, ...]],
    more: tuple[Set, ...],
    movements: MovementTable,
    setting: Setting,
) -> list[str] | None:
    """The lines of the text with those of changed items in place of what they were."""
    instead: dict[int, list[str]] = {}
    for item, segment in zip(items, segments, strict=True):
        if list(map(_essence, segment)) == list(map(_essence, item.sets)):
            continue
        if not item.at or any(at in instead for at in item.at):
            return None
        new = _anew(item, segment, setting)
        text = [line for one in new for line in item_lines(one, movements)]
        first, *others = item.at
        head = PART_LINE.fullmatch(lines[first - 1].strip())
        if head is not None and head[4]:
            text = [lines[first - 1][: lines[first - 1].rindex(head[4])].rstrip(), *text]
        instead |= {first: text, **{at: [] for at in others}}
    found = [line for at, old in enumerate(lines, 1) for line in instead.get(at, [old])]
    while found and not found[-1].strip():
        found.pop()
    added = [line for one in lines_from(list(more)) for line in item_lines(one, movements)]
    if added and items and items[-1].part.name and more[0].part is None:
        # What is added belongs to none of the parts.
        added = [part_head("main", "", pre_exhaust=False), *added]
    return found + added


def _anew(item: _Written, segment: Sequence[Set], setting: Setting) -> list[Item]:
    """An item that comes to other sets: rounds and ladders stay what they are where they can."""
    if not segment:
        return []
    if isinstance(item.item, Rounds):
        for rounds in _turned(item.item, segment):
            made = [placed.set for placed in item_sets(rounds, item.part, setting)]
            if list(map(_essence, made)) == list(map(_essence, segment)):
                return [rounds]
    own = [*segment]
    if item.rested and item.sets:
        own[-1] = own[-1].model_copy(update={"rest_s": item.sets[-1].rest_s})
    return list(lines_from(own))


def _turned(rounds: Rounds, segment: Sequence[Set]) -> Iterator[Rounds]:
    """The rounds at another count, with their bouts as they are or as the sets have them."""
    turns = len(rounds.turns)
    if rounds.form == "bouts":
        counted = replace(rounds, count=len(segment))
    elif len(segment) % turns:
        return
    else:
        count = len(segment) // turns
        rungs = (rounds.rungs + rounds.rungs[-1:] * count)[:count] if rounds.rungs else ()
        counted = replace(rounds, count=count, rungs=rungs)
    yield counted
    again = []
    for at, turn in enumerate(rounds.turns):
        ways = []
        for nth, (moves, bout) in enumerate(turn.alternatives):
            of_turn = segment[at + nth * turns :: turns * len(turn.alternatives)]
            ways.append((moves, _with_values(bout, of_turn[0]) if of_turn else bout))
        again.append(replace(turn, alternatives=tuple(ways)))
    yield replace(counted, turns=tuple(again))


def _with_values(bout: Bout, a_set: Set) -> Bout:
    """A bout with what the set has; what rounds say for all their turns stays with them."""
    now = bout_of(a_set)
    dose = ("reps", "reps_to", "seconds", "ranges")
    keep = {} if bout.has_dose else {name: getattr(bout, name) for name in dose}
    return replace(now, rest_s=bout.rest_s, note=bout.note, **keep)
