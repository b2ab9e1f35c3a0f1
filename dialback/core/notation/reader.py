"""From text to a written session; every mistake with its place and the nearest legal thing."""

from __future__ import annotations

import difflib
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Any, Final

from lark import Token, Tree
from lark.exceptions import UnexpectedCharacters, UnexpectedEOF, UnexpectedInput, UnexpectedToken

from dialback.core.movements import MovementTable, fold
from dialback.core.notation.grammar import EXPECTED, HEAD, KEYWORDS, PRESCRIPTION, UNITS
from dialback.core.notation.session import (
    PART_KINDS,
    Bout,
    Line,
    Load,
    Moves,
    Part,
    PartKind,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)
from dialback.core.sessions import parse_day
from dialback.core.tempo import parse_tempo

MAX_LINES: Final = 2000
MAX_SETS: Final = 99
MAX_ROUNDS: Final = 99
MAX_REPS: Final = 9999
MAX_SECONDS: Final = 86_400

_DAY: Final = re.compile(r"(\d{4}-\d{2}-\d{2})\b[ \t]*(.*)")
PART_LINE: Final = re.compile(
    r"(warm-?up|main|finisher|cool-?down)\b[ \t]*([^,:]*?)[ \t]*(,[ \t]*pre-?exhaust)?[ \t]*:",
    re.IGNORECASE,
)
REST_LINE: Final = re.compile(r"rest[ \t]+(.+)", re.IGNORECASE)
_DOSE_BEGINS: Final = re.compile(
    r"[ \t,]*(?:(?<!\w)\d|\(|\b(?:tempo|rest|hold|help|at|each|alternating|left|right|warm-?up"
    r"|to failure|for time|rpe|easier|harder)\b)",
    re.IGNORECASE,
)
_LEVEL: Final = re.compile(r"[ \t,]*\b(easier|harder)\b", re.IGNORECASE)
_OUTSIDE_NOTES: Final = r"(?![^()]*\))"
_THEN: Final = re.compile(rf",?[ \t]*\bthen\b[ \t]*{_OUTSIDE_NOTES}", re.IGNORECASE)
_SLASH: Final = re.compile(rf"/{_OUTSIDE_NOTES}")
_TIME_OF: Final = re.compile(r"(\d[\d.,:]*[ \t]*[a-z]*)[ \t]+of[ \t]+", re.IGNORECASE)
_NUMBER_AND_WORD: Final = re.compile(r"\d[\d.,]*[ \t]*([a-z]+)", re.IGNORECASE)
_LOAD: Final = re.compile(r"(?:(\d+)\s*[x×*]\s*)?(\d+(?:[.,]\d+)?)\s*(kgs?|lbs?)\b", re.IGNORECASE)
_HELP_BEFORE: Final = re.compile(r"\bhelp\s+$", re.IGNORECASE)
_SEVERAL: Final = re.compile(r"[ \t]*\+[ \t]*")
_TIMES_BEFORE: Final = re.compile(r"(\d+)[ \t]*[x×]?[ \t]+(?=\D)")


@dataclass(frozen=True, slots=True)
class Mistake:
    """What is wrong at a place of the text; lines and columns count from 1.

    ``length`` is how many characters are meant, at least 1.
    """

    line: int
    column: int
    length: int
    message: str

    def __str__(self) -> str:
        return f"line {self.line}, column {self.column}: {self.message}"


@dataclass(frozen=True, slots=True)
class Reading:
    """What a text comes to: its sessions as far as they could be read, and every mistake."""

    sessions: tuple[WrittenSession, ...]
    mistakes: tuple[Mistake, ...]


class _SlipError(Exception):
    """A mistake at an offset in its line."""

    def __init__(self, at: int, length: int, message: str) -> None:
        self.at = at
        self.length = length
        super().__init__(message)


def read(text: str, movements: MovementTable) -> Reading:
    """Read a text; lines with mistakes are left out, the others count.

    Line ends of every system, tabs, and numbers with comma or point are taken. Never raises for
    what a text says; a text of more than ``MAX_LINES`` lines is one mistake.
    """
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    if len(lines) > MAX_LINES:
        return Reading((), (Mistake(MAX_LINES + 1, 1, 1, f"a text has at most {MAX_LINES} lines"),))
    reader = _Reader(movements)
    for number, line in enumerate(lines, 1):
        try:
            reader.take(line, number)
        except _SlipError as slip:
            reader.mistake(number, slip)
    reader.close_session()
    return Reading(tuple(reader.sessions), tuple(sorted(reader.mistakes, key=_place)))


def _place(one: Mistake) -> tuple[int, int]:
    return one.line, one.column


class _Reader:
    """The state between the lines: the session, the part and the rounds that are open."""

    def __init__(self, movements: MovementTable) -> None:
        self.names = _Names(movements)
        self.sessions: list[WrittenSession] = []
        self.mistakes: list[Mistake] = []
        self.head: WrittenSession | None = None
        self.parts: list[Part] = []
        self.part: Part | None = None
        self.items: list[Line | Rounds] = []
        self.rounds: Rounds | None = None
        self.turns: list[Turn] = []
        self.broken_rounds = False
        self.has_turns = False

    def mistake(self, line: int, slip: _SlipError) -> None:
        self.mistakes.append(Mistake(line, slip.at + 1, max(1, slip.length), str(slip)))

    def take(self, line: str, number: int) -> None:
        stripped = line.strip()
        indent = len(line) - len(line.lstrip())
        inside = indent > 0 and (self.rounds is not None or self.broken_rounds)
        if not inside:
            self.close_rounds()
        if not stripped or stripped.startswith("#"):
            return
        if inside:
            self.has_turns = True
            self.turns.append(_turn(line, indent, number, self.names, self.rounds))
        elif day := _DAY.fullmatch(stripped):
            self.close_session()
            self.head = WrittenSession(day=_day(day[1], indent), title=day[2].strip())
        elif part := PART_LINE.fullmatch(stripped):
            self.close_part()
            self.part = Part(part_kind(part[1]), part[2].strip(), pre_exhaust=bool(part[3]))
        elif (rest := REST_LINE.fullmatch(stripped)) and (self.items or self.part):
            opened = self.part or Part()
            seconds = _seconds(rest[1].strip(), indent + rest.start(1))
            self.part = replace(opened, rest_s=seconds)
            self.close_part()
        elif stripped.endswith(":"):
            # A head that cannot be read still owns the lines below it.
            self.broken_rounds = True
            self.rounds = _head(stripped[:-1], indent, number)
            self.broken_rounds = False
        else:
            self.items.append(_line(line, indent, number, self.names))

    def close_rounds(self) -> None:
        self.broken_rounds = False
        if self.rounds is not None:
            if self.turns:
                self.items.append(replace(self.rounds, turns=tuple(self.turns)))
            elif not self.has_turns:
                slip = _SlipError(0, 1, "nothing is done in these rounds: write the movements "
                                  "below, each on a line that begins with a space")  # fmt: skip
                self.mistake(self.rounds.at, slip)
            self.rounds = None
            self.turns = []
        self.has_turns = False

    def close_part(self) -> None:
        self.close_rounds()
        if self.items or self.part is not None:
            self.parts.append(replace(self.part or Part(), items=tuple(self.items)))
        self.part, self.items = None, []

    def close_session(self) -> None:
        self.close_part()
        if self.parts or self.head is not None:
            head = self.head or WrittenSession()
            self.sessions.append(replace(head, parts=tuple(self.parts)))
        self.head, self.parts = None, []


class _Names:
    """Movement names as they are found in a line: whole, or by a beginning that only one has."""

    def __init__(self, movements: MovementTable) -> None:
        self.movements = movements
        # A name goes before an alias that is spelt alike.
        aliases = {fold(alias): one.name for one in movements for alias in one.aliases}
        self._called = {**aliases, **{fold(one.name): one.name for one in movements}}
        self._folded = sorted(self._called, key=len, reverse=True)

    def split(self, text: str, at: int) -> tuple[str, int]:
        """The movement that a text begins with, and how many characters its name takes.

        A level word behind the name, as in ``Press-up harder``, means the neighbour.
        """
        name, length = self._named(text, at)
        while word := _LEVEL.match(text, length):
            name = self.level(name, word[1], at + word.start(1))
            length = word.end()
        return name, length

    def level(self, name: str, word: str, at: int) -> str:
        """The easier or harder neighbour of a movement."""
        movement = self.movements[name]
        neighbour = movement.easier if word.lower() == "easier" else movement.harder
        if neighbour is None or neighbour not in self.movements:
            raise _SlipError(at, len(word), f"{name} has no {word.lower()} level: write the "
                             "movement's own name, or point to one in Movements")  # fmt: skip
        return self.movements[neighbour].name

    def _named(self, text: str, at: int) -> tuple[str, int]:
        whole = self.begins(text)
        if whole:
            return self._called[whole], len(whole)
        begins = _DOSE_BEGINS.search(text)
        written = (text[: begins.start()] if begins else text).rstrip(" \t,")
        if not written:
            raise _SlipError(at, 1, "a movement's name is expected here")
        return self._by_beginning(written, at), len(written)

    def begins(self, text: str) -> str | None:
        """The longest name or alias that a text begins with, folded."""
        lowered = text.casefold()
        if len(lowered) != len(text):
            # Folding changed the length: places in the text would be off.
            return None
        for name in self._folded:
            if lowered.startswith(name) and not lowered[len(name) : len(name) + 1].isalnum():
                return name
        return None

    def _by_beginning(self, written: str, at: int) -> str:
        folded = fold(written)
        if folded in self._called:
            return self._called[folded]
        begin = self._beginning(folded, names=True) or self._beginning(folded, names=False)
        if len(begin) == 1:
            return begin[0]
        if begin:
            names = ", ".join(begin[:4])
            raise _SlipError(at, len(written), f"{written!r} may be {names}: write more of it")
        near = difflib.get_close_matches(folded, self._folded, n=1)
        hint = f". Did you mean {self._called[near[0]]}?" if near else ""
        raise _SlipError(at, len(written), f"no movement is called {written!r}{hint}")

    def _beginning(self, folded: str, *, names: bool) -> list[str]:
        """The movements whose names, or whose aliases, begin so."""
        return sorted(
            {
                name
                for spelling, name in self._called.items()
                if spelling.startswith(folded) and (spelling == fold(name)) == names
            }
        )


def _day(text: str, at: int) -> date:
    try:
        found = parse_day(text)
    except ValueError as error:
        raise _SlipError(at, len(text), str(error)) from None
    assert isinstance(found, date)  # noqa: S101 - parse_day gives a date for a text
    return found


def part_kind(word: str) -> PartKind:
    """The kind of part that a word opens, hyphen or not."""
    plain = word.lower().replace("-", "")
    return next(kind for kind in PART_KINDS if kind.replace("-", "") == plain)


def _line(line: str, indent: int, number: int, names: _Names) -> Line:
    timed = _TIME_OF.match(line, indent)
    if timed:
        # Eight minutes of this and that: one timed set of them all.
        moves, rest = _moves(line, timed.end(), names)
        (step,) = _steps(line, rest) or [Step(Bout())]
        seconds = _seconds(timed[1], indent)
        return Line(moves, (Step(replace(step.bout, seconds=seconds)),), number)
    moves, rest = _moves(line, indent, names)
    steps = _steps(line, rest)
    for step in steps:
        if not step.bout.has_dose:
            raise _SlipError(
                indent, len(line.strip()), "how much? Write sets × reps, as in 3 × 8, or a time"
            )
    return Line(moves, tuple(steps), number)


def _turn(line: str, indent: int, number: int, names: _Names, rounds: Rounds | None) -> Turn:
    alternatives: list[tuple[Moves, Bout]] = []
    begin = indent
    for piece in _SLASH.split(line[indent:]):
        at = begin + len(piece) - len(piece.lstrip())
        own = line[: begin + len(piece)]
        level = _LEVEL.match(own, at) if alternatives else None
        if alternatives and _is_dose(piece.strip(), names):
            moves, rest = alternatives[-1][0], at
        elif level and len(alternatives[-1][0]) == 1:
            # The same movement, a level up or down.
            ((name, times),) = alternatives[-1][0]
            moves, rest = ((names.level(name, level[1], level.start(1)), times),), level.end()
        else:
            moves, rest = _moves(own, at, names)
        steps = _steps(own, rest)
        if len(steps) != 1 or steps[0].sets != 1:
            rest += len(own[rest:]) - len(own[rest:].lstrip())
            raise _SlipError(rest, len(own) - rest, "in rounds a line is one set: the number of "
                             "rounds stands in their head")  # fmt: skip
        bout = steps[0].bout
        given = rounds is None or rounds.form == "ladder" or rounds.on_s is not None
        if not bout.has_dose and not given:
            raise _SlipError(at, len(piece.strip()), "how much? Write reps or a time, or give the "
                             "rounds a time, as in 4 rounds, 35 s on, 25 s off")  # fmt: skip
        alternatives.append((moves, bout))
        begin += len(piece) + 1
    return Turn(tuple(alternatives), number)


def _is_dose(piece: str, names: _Names) -> bool:
    """Whether a piece only says how much, and so goes on with the movement before it."""
    times = _TIMES_BEFORE.match(piece)
    # A band row is a movement, not a band of that level: names go before the notation.
    if names.begins(piece[times.end() :] if times else piece):
        return False
    try:
        PRESCRIPTION.parse(piece)
    except UnexpectedInput:
        return False
    return True


def _moves(line: str, at: int, names: _Names) -> tuple[Moves, int]:
    """The movements at the beginning of a line, and where they end."""
    found: list[tuple[str, float]] = []
    while True:
        times = 1.0
        if match := _TIMES_BEFORE.match(line, at):
            times = float(match[1])
            at = match.end()
        name, length = names.split(line[at:], at)
        found.append((name, times))
        at += length
        more = _SEVERAL.match(line, at)
        if not more:
            return tuple(found), at
        at = more.end()


def _steps(line: str, at: int) -> list[Step]:
    steps = []
    for piece in _THEN.split(line[at:].rstrip().rstrip(",")):
        start = line.index(piece, at)
        lead = len(piece) - len(piece.lstrip(" \t,:"))
        tree = _parse(PRESCRIPTION, piece[lead:], start + lead)
        steps.append(_step(tree, start + lead))
        at = start + len(piece)
    return steps


def read_dose(text: str) -> tuple[Bout, int] | Mistake:
    """What stands behind a movement, by itself: a dose or a part of one, and the sets beside it."""
    try:
        steps = _steps(text, 0)
        if len(steps) != 1:
            raise _SlipError(0, len(text), "one set at a time: leave out then")
    except _SlipError as slip:
        return Mistake(1, slip.at + 1, max(1, slip.length), str(slip))
    return steps[0].bout, steps[0].sets


def _parse(grammar: Any, text: str, at: int) -> Tree[Token]:
    try:
        found: Tree[Token] = grammar.parse(text)
    except UnexpectedInput as error:
        raise _explain(error, text, at) from None
    return found


def _explain(error: UnexpectedInput, text: str, at: int) -> _SlipError:
    """A parser's refusal in a coach's words: what was found, what was expected, what is near."""
    expected: Sequence[str] = ()
    where = len(text)
    if isinstance(error, UnexpectedToken):
        expected = sorted(error.accepts or error.expected)
        ends = error.token.type == "$END"
        where = len(text) if ends else (error.token.start_pos or 0)
    elif isinstance(error, UnexpectedCharacters):
        expected = sorted(error.allowed or ())
        where = error.pos_in_stream or 0
    elif isinstance(error, UnexpectedEOF):
        expected = sorted(error.expected)
    rest = text[where:]
    unit = _NUMBER_AND_WORD.match(rest)
    if unit and unit[1].lower() not in KEYWORDS:
        near = difflib.get_close_matches(unit[1].lower(), UNITS, n=1)
        hint = f". Did you mean {near[0]}?" if near else ""
        message = f"{unit[1]!r} is no unit: kg or lb for a load, s or min for a time{hint}"
        return _SlipError(at + where + unit.start(1), len(unit[1]), message)
    word = re.match(r"[^\s,()]+", rest)
    found = word[0] if word else rest[:1]
    names = [EXPECTED[one] for one in expected if one in EXPECTED and one != "COMMA"]
    wanted = f"expected {' or '.join(names)}" if 0 < len(names) <= 4 else "not understood here"
    near = difflib.get_close_matches(found.lower().strip("."), KEYWORDS, n=1, cutoff=0.6)
    hint = f". Did you mean {near[0]}?" if near and near[0] != found.lower() else ""
    what = repr(found) if found else "the line ends"
    return _SlipError(at + where, len(found), f"{what}: {wanted}{hint}")


def _step(tree: Tree[Token], at: int) -> Step:
    keys: dict[str, Any] = {}
    sets = 1
    for item in tree.children:
        if not isinstance(item, Tree):
            continue
        start = at + (item.meta.start_pos or 0)
        length = (item.meta.end_pos or 0) - (item.meta.start_pos or 0)
        values, beside = _item(item, start, length)
        for key, value in values.items():
            if key in keys:
                raise _SlipError(start, length, "this was said already on the line")
            keys[key] = value
        sets = beside or sets
    bout = Bout(**keys)
    return Step(bout, sets)


def _item(item: Tree[Token], at: int, length: int) -> tuple[dict[str, Any], int | None]:
    """What one item of a line says; the number of sets beside it for a scheme."""
    words = [str(token) for token in item.scan_values(lambda token: isinstance(token, Token))]
    match item.data:
        case "scheme":
            dose = item.children[-1]
            assert isinstance(dose, Tree)  # noqa: S101 - the grammar has it so
            several = len(item.children) > 1
            count = _whole(words[0], at, 1, MAX_SETS, "sets") if several else None
            return _dose(dose, at, length), count
        case "load":
            return {"load": _load(words[-1], at, length)}, None
        case "within":
            return {"seconds": _seconds(words[-1], at)}, None
        case "help":
            return {"load": replace(_load(words[-1], at, length), help=True)}, None
        case "tempo":
            tempo = words[0].split(maxsplit=1)[1]
            try:
                parse_tempo(tempo)
            except ValueError as error:
                raise _SlipError(at, length, str(error)) from None
            return {"tempo": tempo.upper()}, None
        case "rpe":
            value = _number(re.sub(r"(?i)rpe\s*", "", words[0]))
            if value > 10:
                raise _SlipError(at, length, "RPE goes from 0 to 10")
            return {"rpe": value}, None
        case "rest":
            return {"rest_s": _seconds(words[-1], at)}, None
        case "hold":
            return {"hold_s": _seconds(words[-1], at)}, None
        case "band":
            return {"band": words[0].split(maxsplit=1)[1].lower()}, None
        case "each" | "alternating" | "left" | "right":
            return {"sides": str(item.data)}, None
        case "warm_up":
            return {"warm_up": True}, None
        case "failure":
            return {"to_failure": True}, None
        case "for_time":
            return {"for_time": True}, None
        case "span":
            return {"range": _span(words[0])}, None
        case "note":
            return {"note": words[0][1:-1].strip()}, None
    raise AssertionError(item.data)


def _dose(dose: Tree[Token], at: int, length: int) -> dict[str, Any]:
    words = [str(token) for token in dose.children]
    match dose.data:
        case "reps":
            return {"reps": _whole(words[0], at, 0, MAX_REPS, "reps")}
        case "rep_range":
            low, high = (int(one) for one in re.split(r"\s*[-–]\s*", words[0]))
            if not 0 < low < high <= MAX_REPS:
                raise _SlipError(at, length, "a rep range goes up, as in 9-13")
            return {"reps": low, "reps_to": high}
        case "time":
            return {"seconds": _seconds(words[0], at)}
        case "clusters":
            return {"clusters": tuple(_whole(one, at, 1, MAX_REPS, "reps") for one in words[::2])}
        case "ranges":
            pairs = tuple(
                (_whole(reps, at, 0, MAX_REPS, "reps"), _span(word))
                for reps, word in zip(words[::3], words[1::3], strict=True)
            )
            if len(pairs) == 1:
                return {"reps": pairs[0][0], "range": pairs[0][1]}
            return {"ranges": pairs}
    raise AssertionError(dose.data)


def _span(word: str) -> Any:
    return word.lower().removesuffix(" range")


def _head(text: str, indent: int, number: int) -> Rounds:
    tree = _parse(HEAD, text, indent)
    form, *terms = [one for one in tree.children if isinstance(one, Tree)]
    words = [str(token) for token in form.children]
    times: dict[str, float] = {}
    for term in terms:
        start = indent + (term.meta.start_pos or 0)
        key = f"{term.data}_s"
        if key in times:
            raise _SlipError(start, 1, "this was said already on the line")
        times[key] = _seconds(str(term.children[0]), start)
    form_name: Any = str(form.data)
    rungs: tuple[int, ...] = ()
    if form_name == "ladder":
        rungs = tuple(
            _whole(rung, indent, 1, MAX_REPS, "reps") for rung in re.findall(r"\d+", words[0])
        )
        if not rungs:
            raise _SlipError(
                indent, len(words[0]), "a ladder needs its rungs, as in ladder 4, 7, 10"
            )
    count = len(rungs) or _whole(words[0], indent, 1, MAX_ROUNDS, form_name)
    return Rounds(
        form_name, count, (), rungs,
        times.get("on_s"), times.get("off_s"), times.get("between_s"), number,
    )  # fmt: skip


def _whole(text: str, at: int, least: int, most: int, what: str) -> int:
    value = int(text) if len(text) < 10 else most + 1
    if not least <= value <= most:
        raise _SlipError(at, len(text), f"{text} {what}: from {least} to {most} can be written")
    return value


def _number(text: str) -> float:
    return float(text.replace(",", "."))


@dataclass(frozen=True, slots=True)
class WrittenLoad:
    """A load at its place in a line: offset and length in characters."""

    load: Load
    at: int
    length: int


def loads_in(line: str) -> tuple[WrittenLoad, ...]:
    """The loads that a line writes, from left to right."""
    found = []
    for match in _LOAD.finditer(line):
        try:
            load = _load(match[0], match.start(), len(match[0]))
        except _SlipError:
            continue
        helped = _HELP_BEFORE.search(line[: match.start()])
        start = helped.start() if helped else match.start()
        found.append(WrittenLoad(replace(load, help=bool(helped)), start, match.end() - start))
    return tuple(found)


def _load(text: str, at: int, length: int) -> Load:
    match = _LOAD.fullmatch(text)
    assert match  # noqa: S101 - the grammar's own pattern
    value = _number(match[2])
    implements = int(match[1] or 1) if len(match[1] or "") < 3 else 99
    if implements not in range(1, 11):
        raise _SlipError(at, length, "a rep moves from 1 to 10 implements, as in 2 × 12 kg")
    if value > 5000:
        raise _SlipError(at, length, f"{match[2]} {match[3]} is no load that anybody lifts")
    unit: Any = match[3].lower().rstrip("s")
    return Load(value, unit, implements)


def _seconds(text: str, at: int) -> float:
    match = re.fullmatch(
        r"(?:(\d+):([0-5]\d)|(\d+(?:[.,]\d+)?)\s*(s\w*|min\w*))", text.strip(), re.IGNORECASE
    )
    if match is None:
        raise _SlipError(at, len(text), f"{text!r} is no time: write 90 s, 2 min or 1:30")
    if match[1]:
        value = int(match[1]) * 60.0 + int(match[2]) if len(match[1]) < 6 else MAX_SECONDS + 1
    else:
        value = _number(match[3]) * (60 if match[4].lower().startswith("m") else 1)
    if value > MAX_SECONDS:
        raise _SlipError(at, len(text), "a time is at most a day")
    return round(value, 3)
