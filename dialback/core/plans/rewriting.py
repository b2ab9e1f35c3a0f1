"""A text whose sets were turned: only the lines that changed are written anew.

Remarks, marks of parts, ladders and rounds that change stay as the coach wrote them. What is
written is read back: a text that does not come to the turned sets is not taken.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import groupby, islice, pairwise, zip_longest
from typing import Final

from dialback.core.movements import MovementTable, fold
from dialback.core.notation import Setting, expand, read
from dialback.core.notation.building import Below
from dialback.core.notation.characters import lines_of
from dialback.core.notation.expand import item_sets, placed_sets
from dialback.core.notation.gather import bout_of, lines_from
from dialback.core.notation.reader import PART_LINE, REST_LINE
from dialback.core.notation.session import (
    DOSE,
    Bout,
    Item,
    Line,
    Moves,
    Part,
    Pause,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)
from dialback.core.notation.writer import item_lines, part_head, rest_line
from dialback.core.sessions import TO_FAILURE, Session, Set

_ENDLESS: Final = 10**6
"""What it costs to give an item sets of movements that it does not have: never."""


@dataclass(frozen=True, slots=True)
class _Written:
    """An item of a text, with the sets that it comes to."""

    item: Line | Rounds
    part: Part
    sets: tuple[Set, ...]
    rests: tuple[float | None, ...]
    """The rests behind its sets, with what a line of its own says of the last."""
    rested: bool
    """Whether a line of its own says the rest behind it."""
    below: tuple[int, ...]
    """The lines below with words that belong to it."""

    @property
    def names(self) -> frozenset[tuple[str, ...]]:
        return frozenset(_names(one) for one in self.sets)

    @property
    def at(self) -> tuple[int, ...]:
        """The lines of the text that it stands on, from 1."""
        own = {self.item.at, *self.below}
        if isinstance(self.item, Rounds):
            own |= {turn.at for turn in self.item.turns}
        return tuple(sorted(own - {0}))


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
    items = list(_items(written, reading.below, setting))
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
    at = 0
    for item, segment in zip(items, segments, strict=True):
        if _has_other_rests(item, segment):
            made_of = session.sets[at : at + len(segment)]
            if [one.rest_s for one in made_of] != [one.rest_s for one in segment]:
                return None
        at += len(segment)
    return found, after.model_copy(update={"sets": session.sets})


def _items(
    written: WrittenSession, below: Mapping[int, Below], setting: Setting
) -> Iterator[_Written]:
    rests = iter([placed.set.rest_s for placed in placed_sets(written, setting)])
    for part in written.parts:
        for item, behind in zip_longest(part.items, part.items[1:]):
            if not isinstance(item, Pause):
                sets = tuple(placed.set for placed in item_sets(item, part, setting))
                own = tuple(islice(rests, len(sets)))
                rested = behind is None and part.rest_s is not None
                turns = item.turns if isinstance(item, Rounds) else ()
                found = (below.get(one.at) for one in (item, *turns))
                words = tuple(line for one in found if one is not None for line in one.lines)
                rested = rested or isinstance(behind, Pause)
                yield _Written(item, part, sets, own, rested, words)


def _has_other_rests(item: _Written, segment: Sequence[Set]) -> bool:
    """Whether rests were turned: one more set has a rest that is there, turned ones have others."""
    now = tuple(one.rest_s for one in segment)
    if len(now) == len(item.rests):
        return now != item.rests
    return not set(now) <= set(item.rests)


def _names(a_set: Set) -> tuple[str, ...]:
    return tuple(fold(name) for name, _ in a_set.named_moves())


def _essence(a_set: Set) -> Set:
    """A set without its rest: which one stands behind the last set depends on what follows."""
    return a_set.model_copy(update={"rest_s": None, "rest_to_s": None})


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
    if _stays(item, segment):
        return 0.0
    if any(_names(one) not in item.names or one.part != item.sets[0].part for one in segment):
        return _ENDLESS
    if not _is_one(segment):
        return _ENDLESS
    return 1 + abs(len(segment) - len(item.sets)) / 100


def _stays(item: _Written, segment: Sequence[Set]) -> bool:
    same = list(map(_essence, segment)) == list(map(_essence, item.sets))
    return same and not _has_other_rests(item, segment)


def _is_one(segment: Sequence[Set]) -> bool:
    """Whether sets can be of one item: in rounds each comes after the one before it."""
    places = [(one.round or 0, one.place or 0) for one in segment if one.round is not None]
    return all(before < behind for before, behind in pairwise(places))


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
        if _stays(item, segment):
            continue
        if not item.at or any(at in instead for at in item.at):
            return None
        new = _anew(item, segment, setting)
        rest = _rest_behind(lines, item)
        if rest and not new and not _is_of_part(item, items, segments):
            instead[rest] = []
        elif rest and new and item.rested and _has_other_rests(item, segment):
            instead[rest] = [rest_line(segment[-1].rest_s)] if segment[-1].rest_s else []
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


def _rest_behind(lines: Sequence[str], item: _Written) -> int | None:
    """The line of its own that says the rest behind an item."""
    end = max(item.at)
    behind = next(
        (at for at in range(end + 1, len(lines) + 1) if lines[at - 1].strip()[:1] not in ("", "#")),
        None,
    )
    if behind is None or not REST_LINE.fullmatch(lines[behind - 1].strip()):
        return None
    return behind


def _is_of_part(
    item: _Written, items: Sequence[_Written], segments: Sequence[tuple[Set, ...]]
) -> bool:
    """Whether the rest behind an item is that after a part of which something is left."""
    left = any(one.part is item.part and some for one, some in zip(items, segments, strict=True))
    return left and item.item is item.part.items[-1]


def _anew(item: _Written, segment: Sequence[Set], setting: Setting) -> list[Item]:
    """An item that comes to other sets: rounds and ladders stay what they are where they can."""
    if not segment:
        return []
    own = [*segment]
    if item.rested and item.sets:
        # The rest behind the last set is said on a line of its own.
        rest = item.sets[-1].rest_s
        if _has_other_rests(item, segment) and len(own) > 1:
            rest = own[-2].rest_s
        own[-1] = own[-1].model_copy(update={"rest_s": rest})
    plain = _with_rest if _has_other_rests(item, segment) else _essence
    wanted = list(map(plain, own))
    rounds = isinstance(item.item, Rounds)
    for one in _rested_rounds(item, own) if rounds else _stepped(item, wanted, plain):
        made = item_sets(one, item.part, setting)
        if [plain(placed.set) for placed in made] == wanted:
            return [one]
    return list(lines_from(own))


def _with_rest(a_set: Set) -> Set:
    """A set with its rest; one that was turned has no span any more."""
    return a_set.model_copy(update={"rest_to_s": None})


def _rested_rounds(item: _Written, segment: Sequence[Set]) -> Iterator[Rounds]:
    """The rounds at another count, and where rests were turned with those that the sets have."""
    assert isinstance(item.item, Rounds)  # noqa: S101 - the caller has looked
    for rounds in _turned(item.item, segment):
        yield rounds
        turns, last = len(rounds.turns), len(segment) - 1
        inner = [one.rest_s for at, one in enumerate(segment) if (at + 1) % turns and at < last]
        ends = [one.rest_s for at, one in enumerate(segment) if not (at + 1) % turns and at < last]
        off, between = rounds.off_s, rounds.between_s
        yield replace(
            rounds,
            off_s=off and next(iter(inner or ends), off),
            between_s=between and next(iter(ends), between),
            turns=tuple(
                replace(
                    turn,
                    alternatives=tuple(
                        _own_rest(way, segment, at, turns) for way in turn.alternatives
                    ),
                )
                for at, turn in enumerate(rounds.turns)
            ),
        )


def _own_rest(
    way: tuple[Moves, Bout], segment: Sequence[Set], at: int, turns: int
) -> tuple[Moves, Bout]:
    """A movement in rounds with the rest that its sets have, where it has one of its own."""
    moves, bout = way
    rests = [one.rest_s for one in segment[at::turns]]
    if bout.rest_s is None or not rests:
        return way
    return moves, replace(bout, rest_s=rests[0], rest_to_s=None)


def _stepped(item: _Written, wanted: Sequence[Set], plain: Callable[[Set], Set]) -> Iterator[Line]:
    """The line with its steps at other counts, each as it was written or with other values."""
    assert isinstance(item.item, Line)  # noqa: S101 - rounds have no steps
    known: list[tuple[Step, Set]] = []
    at = 0
    for step in item.item.steps:
        known.append((step, plain(item.sets[at])))
        at += step.sets
    found: list[Step] = []
    place = 0
    for one, run in groupby(wanted):
        count = sum(1 for _ in run)
        same = next((nth for nth in range(place, len(known)) if known[nth][1] == one), None)
        step, _ = known[min(place if same is None else same, len(known) - 1)]
        bout = step.bout if same is not None else _with_values(step.bout, one)
        if plain is _with_rest and bout.rest_s != one.rest_s:
            bout = replace(bout, rest_s=one.rest_s, rest_to_s=None)
        top = step.sets_to if step.sets_to is not None and step.sets_to > count else None
        found.append(Step(bout, count, top))
        place = (place if same is None else same) + 1
    yield replace(item.item, steps=tuple(found))


def _turned(rounds: Rounds, segment: Sequence[Set]) -> Iterator[Rounds]:
    """The rounds at another count, with their bouts as they are or as the sets have them."""
    turns = len(rounds.turns)
    count, odd = divmod(len(segment), turns)
    if rounds.form == "bouts":
        counted = replace(rounds, count=len(segment))
    elif odd:
        return
    else:
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
    # Where movements take turns, each round says which: one more is the last one again.
    last = (rounds.count - 1) // (turns if rounds.form == "bouts" else 1)
    each = [
        [turn.alternatives[min(nth, last) % len(turn.alternatives)] for nth in range(count + odd)]
        for turn in rounds.turns
    ]
    yield replace(counted, turns=_in_turn(rounds, each))
    valued = [
        [
            (moves, _with_values(bout, segment[at + nth * turns]))
            if at + nth * turns < len(segment)
            else (moves, bout)
            for nth, (moves, bout) in enumerate(ways)
        ]
        for at, ways in enumerate(each)
    ]
    yield replace(counted, turns=_in_turn(rounds, valued))


def _in_turn(rounds: Rounds, each: Sequence[list[tuple[Moves, Bout]]]) -> tuple[Turn, ...]:
    """The turns of rounds with a way for each round; one where all of them are alike."""
    return tuple(
        replace(turn, alternatives=tuple(ways[:1] if len(set(ways)) == 1 else ways))
        for turn, ways in zip(rounds.turns, each, strict=True)
    )


def _with_values(bout: Bout, a_set: Set) -> Bout:
    """A bout with what the set has; what rounds say for all their turns stays with them."""
    now = bout_of(a_set)
    keep = {} if bout.has_dose else {name: getattr(bout, name) for name in DOSE}
    if bout.ranges and sum(reps for reps, _ in bout.ranges) == a_set.reps:
        # A set keeps how many of its reps are partial, not which part each was of.
        keep = {name: getattr(bout, name) for name in (*DOSE, "range")}
    if bout.to_failure and now.rpe == TO_FAILURE:
        keep |= {"to_failure": True, "rpe": None}
    return replace(now, rest_s=bout.rest_s, rest_to_s=bout.rest_to_s, note=bout.note, **keep)
