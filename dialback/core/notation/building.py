"""What is built while a text is read: the session, its parts, the rounds and supersets in hand."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from functools import reduce
from typing import TypeVar

from dialback.core.notation.marks import BULLET
from dialback.core.notation.reasons import both
from dialback.core.notation.session import (
    Bout,
    Item,
    Line,
    Load,
    Moves,
    Part,
    Pause,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)
from dialback.core.notation.slips import Mistake, SlipError

L = TypeVar("L", bound=Line | Rounds | Turn)


@dataclass
class OpenRounds:
    """Rounds that are open: their head, ``None`` if it was not understood, and what is in them.

    With ``as_many_s`` as many rounds are done as go into that time, in seconds.
    """

    head: Rounds | None
    indent: int
    line: int
    turns: list[Turn] = field(default_factory=list)
    lines: int = 0
    as_many_s: float | None = None
    bulleted: bool = False

    def goes_on_with(self, text: str) -> bool:
        """Whether a line at the margin is inside all the same: bullets right below the head."""
        self.bulleted = bool(BULLET.match(text)) and (self.bulleted or not self.lines)
        return self.bulleted


@dataclass
class OpenSuperset:
    """Lines with the labels A1, A2 …: done in turn."""

    letter: str
    lines: list[tuple[str, Line]] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Below:
    """An item as it stands on its own line, and the lines below it that belong to it."""

    alone: Line | Rounds | Turn
    lines: tuple[int, ...]


class Building:
    """The state between the lines: the session, the part, the rounds that are open."""

    def __init__(self) -> None:
        self.sessions: list[WrittenSession] = []
        self.mistakes: list[Mistake] = []
        self.head: WrittenSession | None = None
        self.parts: list[Part] = []
        self.part: Part | None = None
        self.items: list[Item] = []
        self.pause: Pause | None = None
        self.rounds: OpenRounds | None = None
        self.superset: OpenSuperset | None = None
        self.margin: int | None = None
        """How far the lines of the part are indented; unknown before its first line."""
        self.had_rounds = False
        self.steps = 0
        self.below: dict[int, Below] = {}

    def add(self, item: Line | Rounds) -> None:
        """A line or rounds more in the part, behind a rest that was in hand."""
        self.steps += len(item.steps) if isinstance(item, Line) else 0
        if self.pause is not None:
            self.items.append(self.pause)
            self.pause = None
        self.items.append(item)

    def close_rounds(self) -> None:
        """The rounds in hand have all of their turns."""
        rounds, self.rounds = self.rounds, None
        if rounds is None or rounds.head is None:
            return
        if rounds.turns and rounds.as_many_s is not None:
            self.add_as_many(rounds, rounds.as_many_s)
        elif rounds.turns:
            self.add(replace(rounds.head, turns=tuple(rounds.turns)))
        elif not rounds.lines:
            slip = SlipError(
                0,
                1,
                "nothing is done in these rounds: write the movements below, "
                "each on a line that begins with a space",
            )
            self.mistakes.append(slip.on(rounds.line))

    def add_as_many(self, rounds: OpenRounds, seconds: float) -> None:
        """Rounds that go on for a time are one set of all their movements."""
        moves: list[tuple[str, float]] = []
        loads: list[Load | None] = []
        for turn in rounds.turns:
            ((movement, *more), bout), *others = turn.alternatives
            if others or more or bout.reps is None:
                slip = SlipError(
                    0, 1, "as many rounds as go into a time have so many reps of each movement"
                )
                self.mistakes.append(slip.on(turn.at))
                return
            moves.append((movement[0], float(bout.reps)))
            loads.append(bout.load)
        *own, last = loads
        same = all(load == last for load in own)
        bout = Bout(
            seconds=seconds,
            load=last,
            piece_loads=() if same else (*(load or Load(0.0) for load in own), None),
        )
        whys = (turn.why for turn in rounds.turns)
        why = reduce(both, whys, rounds.head.why if rounds.head else "")
        self.add(Line(tuple(moves), (Step(bout),), rounds.line, why))

    def close_superset(self) -> None:
        """The superset in hand has all of its lines: as rounds, a set of each in turn."""
        superset, self.superset = self.superset, None
        if superset is None or not superset.lines:
            return
        lines = [line for _, line in superset.lines]
        if len(lines) == 1:
            self.add(lines[0])
            return
        counts = [sum(step.sets for step in line.steps) for line in lines]
        if len(set(counts)) > 1:
            told = ", ".join(
                f"{superset.letter}{number} has {count}"
                for (number, _), count in zip(superset.lines, counts, strict=True)
            )
            slip = SlipError(
                0,
                1,
                f"{told} sets: movements in turn have as many sets each, or "
                "give them letters of their own",
            )
            self.mistakes.append(slip.on(lines[-1].at))
            return
        turns = tuple(_turn_of_sets(line) for line in lines)
        self.add(Rounds("rounds", counts[0], turns, at=lines[0].at))

    def open_part(self, part: Part) -> None:
        """What follows is of another part."""
        self.close_part()
        self.part = part

    def close_part(self) -> None:
        """The part in hand has all of its items."""
        self.close_rounds()
        self.close_superset()
        if self.items or self.part is not None:
            rest = self.pause.rest_s if self.pause else None
            self.parts.append(replace(self.part or Part(), items=tuple(self.items), rest_s=rest))
        self.part, self.items, self.pause, self.margin = None, [], None, None
        self.had_rounds = False

    def put_below(self, number: int, **words: str) -> bool:
        """Words on a line of their own belong to what stands above: a reason, or a note.

        ``False`` where nothing stands there that could have them.
        """
        if self.rounds is not None and self.rounds.turns:
            self.rounds.turns[-1] = self._with_words(self.rounds.turns[-1], number, words)
        elif self.rounds is not None and self.rounds.head is not None and "why" in words:
            self.rounds.head = self._with_words(self.rounds.head, number, words)
        elif self.rounds is not None:
            return False
        elif self.superset is not None and self.superset.lines:
            label, line = self.superset.lines[-1]
            self.superset.lines[-1] = (label, self._with_words(line, number, words))
        else:
            last = self.items[-1] if self.items else None
            if isinstance(last, Line) or (isinstance(last, Rounds) and "note" not in words):
                self.items[-1] = self._with_words(last, number, words)
            else:
                return False
        return True

    def _with_words(self, item: L, number: int, words: dict[str, str]) -> L:
        known = self.below.get(item.at) or Below(item, ())
        self.below[item.at] = Below(known.alone, (*known.lines, number))
        if why := words.get("why"):
            item = replace(item, why=both(item.why, why))
        return _noted(item, words["note"]) if "note" in words else item

    def close_session(self) -> None:
        """The session in hand has all of its parts."""
        self.close_part()
        if self.parts or self.head is not None:
            head = self.head or WrittenSession()
            self.sessions.append(replace(head, parts=tuple(self.parts)))
        self.head, self.parts = None, []


def _noted(item: L, note: str) -> L:
    """A line, or a movement in rounds, with a further note on the last that it says."""
    match item:
        case Line():
            *steps, last = item.steps
            bout = replace(last.bout, note=both(last.bout.note, note))
            return replace(item, steps=(*steps, replace(last, bout=bout)))
        case Turn():
            *others, (moves, bout) = item.alternatives
            noted = replace(bout, note=both(bout.note, note))
            return replace(item, alternatives=(*others, (moves, noted)))
    return item


def _turn_of_sets(line: Line) -> Turn:
    """The sets of a line as a turn: one a round."""
    sets: list[tuple[Moves, Bout]] = [
        (line.moves, step.bout) for step in line.steps for _ in range(step.sets)
    ]
    alike = len(set(sets)) == 1
    return Turn(tuple(sets[:1] if alike else sets), line.at, line.why)
