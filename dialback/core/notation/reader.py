"""From text to a written session; every mistake with its place and the nearest right thing."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import date
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from dialback.core.movements import MovementTable
from dialback.core.notation import values
from dialback.core.notation.building import Below, Building, OpenRounds, OpenSuperset
from dialback.core.notation.characters import lines_of, plain
from dialback.core.notation.days import DayLine, day_line
from dialback.core.notation.instead import with_offers
from dialback.core.notation.lines import head_of, is_head, line_of, turn_of
from dialback.core.notation.marks import BULLET, LABEL
from dialback.core.notation.messages import line_class
from dialback.core.notation.names import Names, names_of
from dialback.core.notation.reasons import both, cut_reason
from dialback.core.notation.session import (
    PART_KINDS,
    Line,
    Part,
    PartKind,
    Pause,
    Rounds,
    WrittenSession,
)
from dialback.core.notation.slips import Mistake, SlipError
from dialback.core.notation.talk import spoken_words
from dialback.core.notation.vocabulary import PART_WORD
from dialback.core.notation.wording import Placed, reworded
from dialback.core.plain import odd_character
from dialback.core.vocabulary import WEEK_KINDS, WeekKind
from dialback.core.weeks import Week

MAX_LINES: Final = 2000
MAX_MISTAKES: Final = 200
MAX_BROKEN: Final = 40_000
MAX_STEPS: Final = 4000
"""Mistakes, characters of lines with mistakes, and steps of a text: beyond these the rest is not
read, and that is said. No text holds the program up."""
MAX_LINE: Final = 1000
"""Characters of a line; more is not a line of a board."""

_PRE_EXHAUST: Final = r"((?:,[ \t]{0,8}|[ \t]{1,8})\(?pre-?exhaust(?:ion)?\)?[ \t]{0,8})?"
PART_LINE: Final = re.compile(
    rf"({PART_WORD})\b([^,:]{{0,200}}?){_PRE_EXHAUST}:[ \t]{{0,8}}(.*)", re.IGNORECASE
)
_PART_WORD: Final = re.compile(PART_WORD, re.IGNORECASE)
_LETTER_PART: Final = re.compile(
    rf"(?:part[ ]|block[ ])?([A-Z])[ \t]{{0,8}}{_PRE_EXHAUST}:", re.IGNORECASE
)
_TITLE_PART: Final = re.compile(
    rf"\A(.{{0,200}}?)[ \t]{{0,2}}[-:,][ \t]{{0,2}}({PART_WORD}):?", re.IGNORECASE
)
_DOSE: Final = re.compile(r"[0-9][ ]?(?:[x×*][ ]?[0-9]|sets?\b|kg\b|lb\b|s\b|min\b|reps?\b)", re.I)
"""What tells a movement on a day's line from a title that begins with one's name."""
_AS_MANY: Final = re.compile(r"amrap ([0-9]{1,3}) min:", re.IGNORECASE)
REST_LINE: Final = re.compile(r"rest[ \t:]{1,8}(.+)|(.{1,20})[ \t]{1,8}rest", re.IGNORECASE)


_WEEK_LINE: Final = re.compile(
    r"week[ \t]{1,8}([0-9]{4}-W[0-9]{2})[ \t]{0,8}:[ \t]{0,8}(.{0,40})", re.IGNORECASE
)


@dataclass(frozen=True, slots=True)
class Reading:
    """What a text comes to: its sessions as far as they could be read, and every mistake.

    ``labelled`` are the lines of supersets (``A1``, ``A2``) as they were written, by line number.
    ``kinds`` is what weeks are for, where the text of a block says so.
    """

    sessions: tuple[WrittenSession, ...]
    mistakes: tuple[Mistake, ...]
    labelled: Mapping[int, tuple[str, Line]] = field(
        default_factory=lambda: MappingProxyType({}), compare=False
    )
    kinds: Mapping[Week, WeekKind] = field(default_factory=lambda: MappingProxyType({}))
    below: Mapping[int, Below] = field(default_factory=lambda: MappingProxyType({}), compare=False)
    """Lines to which words on lines below belong, by their number."""


def read(
    text: str,
    movements: MovementTable,
    *,
    of_block: bool = False,
    day: date | None = None,
    offering: bool = True,
) -> Reading:
    """Read a text; lines with mistakes are left out, the others count.

    That ``of_block`` may say what its weeks are for: ``Week 2026-W49: test``. Weekdays are those of
    the week of ``day``. Mistakes have lines that can stand in their place, unless not ``offering``.
    Line ends of every system, tabs, typographic signs, and numbers with comma or point are taken.
    Never raises for what a text says; a text of more than ``MAX_LINES`` lines is one mistake.
    """
    raw_lines = lines_of(text)
    if len(raw_lines) > MAX_LINES:
        return Reading((), (Mistake(MAX_LINES + 1, 1, 1, f"a text has at most {MAX_LINES} lines"),))
    reader = _Reader(movements, of_block=of_block, day=day)
    for number, raw in enumerate(raw_lines, 1):
        try:
            if len(raw) > MAX_LINE:
                raise SlipError(
                    MAX_LINE,
                    1,
                    f"a line has at most {MAX_LINE} characters: write the rest on the next one",
                )
            text = plain(raw)
            if odd := odd_character(text):
                raise SlipError(0, len(raw), odd)
            text, raw, reader.why = cut_reason(text, raw)
            if reader.why and not text.strip():
                reader.take_reason(len(text), number)
                continue
            if reader.takes_words(text, raw, number):
                continue
            for line in _lines_of(reader, text, raw):
                try:
                    reader.take(line.text, line.raw, number)
                except SlipError as slip:
                    raise line.slip(slip) from None
            reader.is_lost = False
        except SlipError as slip:
            reader.mistakes.append(slip.on(number))
            reader.broken += len(raw)
            reader.is_lost = True
        if (told := reader.too_much()) and number < len(raw_lines):
            reader.mistakes.append(Mistake(number + 1, 1, 1, told))
            break
    reader.close_session()
    mistakes = sorted(reader.mistakes, key=lambda mistake: (mistake.line, mistake.column))
    if offering and mistakes:
        mistakes = with_offers(
            raw_lines, mistakes, lambda one: read(one, movements, day=day, offering=False).mistakes
        )
    return Reading(
        tuple(reader.sessions),
        tuple(mistakes),
        MappingProxyType(reader.labelled),
        MappingProxyType(reader.kinds),
        MappingProxyType(reader.below),
    )


def part_kind(word: str) -> PartKind:
    """The kind of part that a word opens, hyphen or not."""
    letters = re.sub("[- ]", "", word.lower())
    return next(kind for kind in PART_KINDS if kind.replace("-", "") == letters)


@lru_cache(maxsize=4096)
def _reworded(text: str, raw: str, names: Names, inside: bool) -> tuple[Placed, ...]:
    """A line in the notation's own words; most lines of a text are the same at every key."""
    line = Placed.of(text, raw)
    part = PART_LINE.fullmatch(text.strip())
    if part is None or not part[4]:
        return reworded(line, names, in_rounds=inside)
    begin = len(text) - len(text.lstrip())
    head = line.cut(0, begin + part.start(4))
    rest = line.cut(begin + part.start(4), len(text))
    lines = reworded(rest, names, in_rounds=inside)
    return (head, *(one.indented(line, begin) for one in lines))


class _Reader(Building):
    """Takes line by line, and knows what is written on each."""

    def __init__(self, movements: MovementTable, *, of_block: bool, day: date | None) -> None:
        super().__init__()
        self.of_block = of_block
        self.around = day
        self.names = names_of(movements)
        self.kinds: dict[Week, WeekKind] = {}
        self.labelled: dict[int, tuple[str, Line]] = {}
        self.broken = 0
        self.why = ""
        """The reason at the end of the line in hand."""
        self.is_lost = False
        """Whether the line above was not understood: what belongs to it belongs to nothing."""
        self.indent = 0
        """How far the line above is indented."""

    def take_reason(self, indent: int, number: int) -> None:
        """A reason on a line of its own: of the line above, of a part, or of the session."""
        if self.rounds is not None and indent <= self.rounds.indent:
            self.close_rounds()
        if self.is_lost or self.put_below(number, why=self.why):
            return
        if self.items or self.rounds is not None:
            # Below a rest there is nothing that it could be the reason for.
            raise SlipError(
                indent, 3, "a reason stands below the line, the part or the day that it is about"
            )
        if self.part is not None:
            self.part = replace(self.part, why=both(self.part.why, self.why))
        else:
            head = self.head or WrittenSession()
            self.head = replace(head, why=both(head.why, self.why))

    def takes_words(self, text: str, raw: str, number: int) -> bool:
        """Whether a line is words for the line above: further in, and nothing to be done."""
        indent = len(text) - len(text.lstrip())
        stripped = text.strip()
        if not stripped or indent <= self.indent or self.is_lost or self.names.begins(stripped):
            return False
        remark = spoken_words(text, indent, self.names)
        if remark is None or remark.said != indent or remark.end < len(text.rstrip()):
            return False
        return self.put_below(
            number, note=" ".join(raw.split()), **({"why": self.why} if self.why else {})
        )

    def too_much(self) -> str:
        """Why no more is read; empty as long as there is no reason."""
        if len(self.mistakes) >= MAX_MISTAKES or self.broken > MAX_BROKEN:
            return "so much is not understood that the rest was not read"
        if self.steps > MAX_STEPS:
            return f"the text has more than {MAX_STEPS} steps: the rest was not read"
        return ""

    def take_day(self, day: DayLine, raw: str, number: int) -> None:
        """A session's head: its day, a title, and maybe its first part or movement."""
        self.close_session()
        title, rest = behind_day(raw, day, self.names)
        self.head = WrittenSession(day=day.day, title=title, at=number, why=self.why)
        self.why = ""
        for line in _lines_of(self, plain(rest), rest) if rest else ():
            self.take(line.text, line.raw, number)

    def take(self, line: str, raw: str, number: int) -> None:
        stripped = line.strip()
        indent = len(line) - len(line.lstrip())
        if not stripped or stripped.startswith("#"):
            # A blank or a remark between two lines of rounds does not end them.
            return
        self.indent = indent
        if self.rounds is not None:
            if indent > self.rounds.indent or self.rounds.goes_on_with(stripped):
                self.take_turn(line, raw, indent, number)
                return
            self.close_rounds()
        if day := _day_of(self, stripped):
            self.take_day(day, raw, number)
        elif week := _WEEK_LINE.fullmatch(stripped):
            self.close_session()
            self.take_week(week, indent)
        elif part := PART_LINE.fullmatch(stripped):
            kind = part_kind(part[1])
            of_line = bool(part[4])
            why = "" if of_line else self.why
            self.open_part(Part(kind, part[2].strip(), pre_exhaust=bool(part[3]), why=why))
            if of_line:
                self.take_line(line, raw, indent + part.start(4), indent, number)
        elif letter := _LETTER_PART.fullmatch(stripped):
            marked = bool(letter[2])
            self.open_part(Part("main", letter[1].upper(), pre_exhaust=marked, why=self.why))
        elif (rest := REST_LINE.fullmatch(stripped)) and self.is_rest(line[indent:], rest):
            self.take_rest(rest, indent, number)
        else:
            self.take_line(line, raw, indent, indent, number)

    def take_week(self, week: re.Match[str], indent: int) -> None:
        """What a week is for, in the text of a block."""
        if not self.of_block:
            whole = len(week[0])
            raise SlipError(
                indent,
                whole,
                "the kind of a week belongs in the text of a block: choose it on the week sheet",
            )
        kind = next((one for one in WEEK_KINDS if one == week[2].strip().lower()), None)
        if kind is None:
            told = f"the kind of a week is one of these: {', '.join(WEEK_KINDS)}"
            raise SlipError(indent + week.start(2), max(1, len(week[2])), told)
        try:
            self.kinds[Week.parse(week[1].upper())] = kind
        except ValueError as error:
            raise SlipError(indent + week.start(1), len(week[1]), str(error)) from None

    def take_line(self, line: str, raw: str, begin: int, indent: int, number: int) -> None:
        """A movement, labelled or not, or the head of rounds."""
        if bullet := BULLET.match(line, begin):
            begin = bullet.end()
        text = line[begin:].strip()
        label = LABEL.match(line, begin)
        if (
            label
            and not self.names.begins(line[begin:])
            and (label[2] or self.names.begins(line[label.end() :]))
        ):
            self.take_labelled(line, raw, label, number)
            return
        self.close_superset()
        if as_many := _AS_MANY.fullmatch(text):
            head = Rounds("rounds", 1, (), at=number, why=self.why)
            self.rounds = OpenRounds(head, indent, number, as_many_s=int(as_many[1]) * 60.0)
            self.had_rounds = True
            return
        if text.endswith(":") or is_head(text):
            # A head that cannot be read still owns the lines below it.
            self.rounds = OpenRounds(None, indent, number)
            self.had_rounds = True
            head = head_of(text.removesuffix(":"), begin, number)
            self.rounds.head = replace(head, why=self.why)
            return
        if not self.names.begins(text):
            told = line_class(text)
            if _PART_WORD.fullmatch(text):
                told = f"a part begins with its name and a colon: write '{text.lower()}:'"
            if told:
                raise SlipError(begin, len(text), told)
        if self.margin is None:
            self.margin = indent
        elif indent > self.margin and self.had_rounds:
            raise SlipError(
                0,
                indent,
                "this line is indented, but no rounds are open above it: "
                "begin it at the margin, or write it below their head",
            )
        self.add(replace(line_of(line, raw, begin, number, self.names), why=self.why))

    def take_turn(self, line: str, raw: str, indent: int, number: int) -> None:
        assert self.rounds is not None  # noqa: S101 - the caller has looked
        self.rounds.lines += 1
        begin = indent
        if bullet := BULLET.match(line, begin):
            begin = bullet.end()
        if (label := LABEL.match(line, begin)) and self.names.begins(line[label.end() :]):
            begin = label.end()
        if REST_LINE.fullmatch(line.strip()) and not self.names.begins(line[begin:]):
            raise SlipError(
                begin,
                len(line.strip()),
                "a rest inside rounds goes behind its movement, or in "
                "the head: '25 s off' after each movement, '90 s between rounds' after each round",
            )
        self.steps += line.count("/") + 1
        turn = turn_of(line, raw, begin, number, self.names, self.rounds.head)
        self.rounds.turns.append(replace(turn, why=self.why))

    def take_labelled(self, line: str, raw: str, label: re.Match[str], number: int) -> None:
        letter = label[1].upper()
        if self.superset is not None and self.superset.letter != letter:
            self.close_superset()
        if self.superset is None:
            if self.part is None or self.part.label != letter or self.part.kind != "main":
                self.open_part(Part("main", letter))
            if self.pause is not None and label[2] not in (None, "1"):
                raise SlipError(
                    label.start(),
                    len(label[0]),
                    "there is a rest between this line "
                    "and the one before: write it after the movement",
                )
            self.superset = OpenSuperset(letter)
        written = replace(line_of(line, raw, label.end(), number, self.names), why=self.why)
        self.labelled[number] = (line[label.start() : label.end()].strip(), written)
        if label[2]:
            self.superset.lines.append((label[2], written))
        else:
            self.close_superset()
            self.add(written)

    def take_rest(self, rest: re.Match[str], indent: int, number: int) -> None:
        if not self.items and not self.superset:
            raise SlipError(indent, len(rest[0]), "a rest goes below the movement that it follows")
        group = 1 if rest[1] else 2
        said = rest[group].strip()
        seconds = values.seconds(said, indent + rest.start(group))
        self.close_superset()
        if self.pause is not None:
            raise SlipError(
                indent,
                len(rest[0]),
                "there is already a rest above this one: leave one of them out",
            )
        self.pause = Pause(seconds, number)

    def is_rest(self, text: str, rest: re.Match[str]) -> bool:
        return bool(rest[1] or values.is_time(rest[2])) and not self.names.begins(text)


def behind_day(raw: str, day: DayLine, names: Names) -> tuple[str, str]:
    """The title on a session's head, and what else stands there: a part's name, or a movement."""
    said = raw.strip()[day.rest :].strip()
    if names.begins(plain(said)) and _DOSE.search(plain(said)):
        return "", said
    if part := _TITLE_PART.fullmatch(plain(said)):
        return said[: part.end(1)].strip(), f"{part[2]}:"
    return said, ""


def _day_of(reader: _Reader, stripped: str) -> DayLine | None:
    """The day that a line begins with, if it is a session's head."""
    if not stripped[0].isalnum() or reader.names.begins(stripped):
        return None
    day = day_line(stripped, reader.around)
    if day is not None and day.loose and not reader.names.begins(stripped[day.rest :]):
        return None
    return day


def _lines_of(reader: _Reader, text: str, raw: str) -> tuple[Placed, ...]:
    """The lines of the notation that a line as it was typed is, where the reader stands."""
    stripped = text.strip()
    as_typed = not stripped or stripped[0] == "#" or _WEEK_LINE.match(stripped)
    if as_typed or _day_of(reader, stripped):
        return (Placed.of(text, raw),)
    indent = len(text) - len(text.lstrip())
    inside = reader.rounds is not None and indent > reader.rounds.indent
    return _reworded(text, raw, reader.names, inside)
