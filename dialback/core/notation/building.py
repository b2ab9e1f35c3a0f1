"""What is built while a text is read: the session, its parts, the rounds and supersets in hand."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from dialback.core.notation.session import (
    Bout,
    Item,
    Line,
    Moves,
    Part,
    Pause,
    Rounds,
    Turn,
    WrittenSession,
)
from dialback.core.notation.slips import Mistake, SlipError


@dataclass
class OpenRounds:
    """Rounds that are open: their head, ``None`` if it was not understood, and what is in them."""

    head: Rounds | None
    indent: int
    line: int
    turns: list[Turn] = field(default_factory=list)
    lines: int = 0


@dataclass
class OpenSuperset:
    """Lines with the labels A1, A2 …: done in turn."""

    letter: str
    lines: list[tuple[str, Line]] = field(default_factory=list)


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
        if rounds.turns:
            self.add(replace(rounds.head, turns=tuple(rounds.turns)))
        elif not rounds.lines:
            slip = SlipError(
                0,
                1,
                "nothing is done in these rounds: write the movements below, "
                "each on a line that begins with a space",
            )
            self.mistakes.append(slip.on(rounds.line))

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

    def close_session(self) -> None:
        """The session in hand has all of its parts."""
        self.close_part()
        if self.parts or self.head is not None:
            head = self.head or WrittenSession()
            self.sessions.append(replace(head, parts=tuple(self.parts)))
        self.head, self.parts = None, []


def _turn_of_sets(line: Line) -> Turn:
    """The sets of a line as a turn: one a round."""
    sets: list[tuple[Moves, Bout]] = [
        (line.moves, step.bout) for step in line.steps for _ in range(step.sets)
    ]
    alike = len(set(sets)) == 1
    return Turn(tuple(sets[:1] if alike else sets), line.at)
