"""Numbers, times, loads and days as they are written; what could be two things is refused."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from datetime import date
from typing import Any, Final

from dialback.core.notation.session import Load
from dialback.core.notation.slips import SlipError
from dialback.core.notation.vocabulary import LOAD, NUMBER, TIME
from dialback.core.sessions import parse_day

MAX_SETS: Final = 99
MAX_ROUNDS: Final = 99
MAX_REPS: Final = 9999
MAX_SECONDS: Final = 86_400
MAX_METRES: Final = 100_000
MAX_KG: Final = 5000

_LOAD: Final = re.compile(
    r"\+?[ \t]{0,8}(?:([0-9]{1,4})[ \t]{0,8}[x×*][ \t]{0,8})?"
    rf"({NUMBER})[ \t]{{0,8}}([a-z]{{1,30}})",
    re.IGNORECASE,
)
_LOAD_IN_LINE: Final = re.compile(rf"(?<![0-9.,])(?:{LOAD})", re.IGNORECASE)
_HELP_BEFORE: Final = re.compile(r"\bhelp[ \t]{1,8}$", re.IGNORECASE)
_TIME: Final = re.compile(TIME, re.IGNORECASE)
_CLOCK: Final = re.compile(r"([0-9]{1,6}):([0-9]{2})(?:[ \t]{0,8}min)?", re.IGNORECASE)
_BOTH_UNITS: Final = re.compile(
    r"([0-9]{1,4})[ \t]{0,8}m[a-z]{0,20}[ \t]{0,8}(?:and)?[ \t]{0,8}"
    r"([0-9]{1,2})[ \t]{0,8}s[a-z]{0,20}",
    re.IGNORECASE,
)
_QUOTED: Final = re.compile(r"([0-9]{1,3})'[ ]?(?:([0-9]{1,2})(?:\"|'')?)?|([0-9]{1,4})(?:\"|'')")
_SPAN: Final = re.compile(r"(.{1,12}?)[ \t]{0,8}(?:-|\bto\b)[ \t]{0,8}(.{1,20})", re.IGNORECASE)
_COUNTED: Final = re.compile(rf"({NUMBER})[ \t]{{0,8}}([a-z]{{1,30}})", re.IGNORECASE)


def whole(text: str, at: int, least: int, most: int, what: str) -> int:
    """A whole number within bounds. Raises ``SlipError``."""
    value = int(text) if len(text) < 10 else most + 1
    if not least <= value <= most:
        raise SlipError(at, len(text), f"{text} {what}: from {least} to {most} can be written")
    return value


def number(text: str, at: int) -> float:
    """A number with a decimal point or comma. Raises ``SlipError`` for what may be thousands."""
    before, *decimals = re.split("[.,]", text)
    if decimals and len(decimals[0]) == 3 and 0 < int(before) < 10:
        tidy = f"{float(text.replace(',', '.')):g}"
        thousands = re.sub("[.,]", "", text)
        raise SlipError(
            at, len(text), f"{text!r} may be two numbers: write '{tidy}' or '{thousands}'"
        )
    return float(text.replace(",", "."))


def seconds(text: str, at: int) -> float:
    """A time in seconds. Raises ``SlipError``."""
    text = text.strip()
    if clock := _CLOCK.fullmatch(text):
        if int(clock[2]) > 59:
            raise SlipError(
                at,
                len(text),
                f"{text!r} is not a time: seconds go to 59, as in 1:30, or write 90 s",
            )
        value = int(clock[1]) * 60.0 + int(clock[2])
    elif both := _BOTH_UNITS.fullmatch(text):
        value = int(both[1]) * 60.0 + int(both[2])
    elif quoted := _QUOTED.fullmatch(text):
        value = float(quoted[3]) if quoted[3] else int(quoted[1]) * 60.0 + int(quoted[2] or 0)
    elif counted := _COUNTED.fullmatch(text):
        value = _counted_seconds(counted[1], counted[2].lower(), at, len(text))
    else:
        raise SlipError(at, len(text), f"{text!r} is not a time: write 90 s, 2 min or 1:30")
    if value > MAX_SECONDS:
        raise SlipError(at, len(text), "a time is at most a day")
    return round(value, 3)


def time_span(text: str, at: int) -> tuple[float, float | None]:
    """A time, or the two ends of a span of times, in seconds. Raises ``SlipError``."""
    ends = _SPAN.fullmatch(text.strip())
    if ends is None:
        return seconds(text, at), None
    low, high = ends[1].strip(), ends[2].strip()
    if re.fullmatch(NUMBER, low):
        # The unit stands behind the second number alone.
        low += re.sub(rf"^{NUMBER}", "", high)
    found = seconds(low, at), seconds(high, at)
    if not 0 < found[0] < found[1]:
        raise SlipError(at, len(text), "a span of times goes up, as in 30-45 s")
    return found


def _counted_seconds(text: str, unit: str, at: int, length: int) -> float:
    if unit[0] == "s":
        return number(text, at)
    if unit not in ("m", "min", "mins", "minute", "minutes") or unit == "m":
        raise SlipError(at, length, f"{text} {unit} is not a time: write 90 s, 2 min or 1:30")
    _, *decimals = re.split("[.,]", text)
    if decimals and len(decimals[0]) > 1 and int(decimals[0][:2]) < 60:
        minutes, rest = re.split("[.,]", text)
        raise SlipError(
            at,
            length,
            f"'{text} min' may be two times: write '{minutes}:{rest[:2]}' or "
            f"'{float(text.replace(',', '.')) * 60:g} s'",
        )
    return number(text, at) * 60


def is_time(text: str) -> bool:
    """Whether a text is a time and nothing else."""
    return bool(_TIME.fullmatch(text.strip()))


def metres(text: str, at: int) -> float:
    """A distance in metres. Raises ``SlipError``."""
    match = _COUNTED.fullmatch(text)
    assert match  # noqa: S101 - the grammar's own pattern
    value = number(match[1], at) * (1000 if match[2].lower().startswith("k") else 1)
    if not 0 < value <= MAX_METRES:
        raise SlipError(
            at, len(text), f"a distance is more than nothing and at most {MAX_METRES // 1000} km"
        )
    return round(value, 3)


def implements_of(text: str) -> int:
    """How many implements a load says that it is of."""
    match = _LOAD.fullmatch(text)
    return int(match[1] or 1) if match else 1


def load(text: str, at: int) -> Load:
    """A load with its unit and, before it, how many implements. Raises ``SlipError``."""
    match = _LOAD.fullmatch(text)
    assert match  # noqa: S101 - the grammar's own pattern
    value = number(match[2], at + match.start(2))
    implements = int(match[1] or 1)
    if implements not in range(1, 11):
        raise SlipError(at, len(text), "a rep moves from 1 to 10 implements, as in 2 × 12 kg")
    if value > MAX_KG:
        raise SlipError(at, len(text), f"{match[2]} {match[3]} is not a load that anybody lifts")
    return Load(value, weight_unit(match[3]), implements, counted=match[1] is not None)


def weight_unit(word: str) -> Any:
    """``kg`` or ``lb``, whatever spelling."""
    return "lb" if word.lower()[0] in "lp" else "kg"


def day(text: str, at: int) -> date:
    """An ISO day. Raises ``SlipError``."""
    try:
        found = parse_day(text)
    except ValueError as error:
        raise SlipError(at, len(text), str(error)) from None
    assert isinstance(found, date)  # noqa: S101 - parse_day gives a date for a text
    return found


@dataclass(frozen=True, slots=True)
class WrittenLoad:
    """A load at its place in a line: offset and length in characters."""

    load: Load
    at: int
    length: int


def loads_in(line: str) -> tuple[WrittenLoad, ...]:
    """The loads that a line writes, from left to right."""
    found = []
    for match in _LOAD_IN_LINE.finditer(line):
        try:
            written = load(match[0], match.start())
        except SlipError:
            continue
        helped = _HELP_BEFORE.search(line[: match.start()])
        start = helped.start() if helped else match.start()
        found.append(WrittenLoad(replace(written, help=bool(helped)), start, match.end() - start))
    return tuple(found)
