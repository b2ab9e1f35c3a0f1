"""The day that a session begins with, as coaches write it."""

from __future__ import annotations

import re
from calendar import isleap
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from dialback.core.notation.names import Names
from dialback.core.notation.slips import SlipError

_MONTHS: Final = (
    "jan(?:uary)?", "feb(?:ruary)?", "mar(?:ch)?", "apr(?:il)?", "may", "june?", "july?",
    "aug(?:ust)?", "sept?(?:ember)?", "oct(?:ober)?", "nov(?:ember)?", "dec(?:ember)?",
)  # fmt: skip
_WEEKDAYS: Final = (
    "mon(?:day)?", "tue(?:s(?:day)?)?", "wed(?:s|nesday)?", "thu(?:r(?:s(?:day)?)?)?",
    "fri(?:day)?", "sat(?:urday)?", "sun(?:day)?",
)  # fmt: skip
_MONTH: Final = "|".join(_MONTHS)
_FIRST_LETTERS: Final = tuple(month[:3] for month in _MONTHS)
_YEAR: Final = r"(?:,?[ \t]{1,4}(?P<year>[0-9]{4}))?"
_WEEKDAY: Final = re.compile(
    rf"(?P<weekday>{'|'.join(_WEEKDAYS)})\b\.?(?=[ \t]|$|[:,/-])[ \t]{{0,4}},?[ \t]{{0,4}}",
    re.IGNORECASE,
)
_FORMS: Final = tuple(
    re.compile(pattern, re.IGNORECASE)
    for pattern in (
        r"(?P<year>[0-9]{4})[-/.](?P<month>[0-9]{1,2})[-/.](?P<day>[0-9]{1,2})(?![0-9])",
        r"(?P<a>[0-9]{1,2})(?P<sign>[./])(?P<b>[0-9]{1,2})(?P=sign)(?P<year>[0-9]{4}|[0-9]{2})"
        r"(?![0-9])",
        r"(?P<a>[0-9]{1,2})(?P<sign>-)(?P<b>[0-9]{1,2})-(?P<year>[0-9]{4})(?![0-9])",
        r"(?P<day>[0-9]{1,2})\.[ ]?(?P<month>[0-9]{1,2})\.(?![0-9])",
        rf"(?P<day>[0-9]{{1,2}})(?:st|nd|rd|th)?[ \t]{{1,4}}(?:of[ \t]{{1,4}})?(?P<name>{_MONTH})\b"
        rf"\.?{_YEAR}",
        rf"(?P<name>{_MONTH})\b\.?[ \t]{{1,4}}(?P<day>[0-9]{{1,2}})(?:st|nd|rd|th)?"
        rf"(?![0-9]|[ ]?[x×*]){_YEAR}",
    )
)
_BEHIND: Final = re.compile(r"[ \t]{0,8}(?:[-:,/][ \t]{0,8})?")
_FULL: Final = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


@dataclass(frozen=True, slots=True)
class DayLine:
    """A day, and where what stands behind it begins.

    ``loose``: a short weekday with nothing but a blank behind it, which may be any word: *Sun*.
    """

    day: date
    rest: int
    loose: bool = False


def day_line(text: str, around: date | None) -> DayLine | None:
    """The day that a line begins with; ``None`` where it begins with none.

    A weekday, and a day without a year, are those nearest to ``around``: of its week, of its year.
    Raises ``SlipError`` for a day that may be two, or that needs one to go by and has none.
    """
    named = _WEEKDAY.match(text)
    at = named.end() if named else 0
    match = next((found for form in _FORMS if (found := form.match(text, at))), None)
    weekday = _weekday(named["weekday"]) if named else None
    if match is None:
        if named is None or not re.match(r"$|[-:,/]|[ \t]", text[named.end("weekday") :] or " "):
            return None
        end = named.end("weekday")
        short = named["weekday"].lower() not in map(str.lower, _FULL)
        loose = short and bool(re.match(r"\.?[ \t]", text[end:]))
        if loose and around is None:
            return None
        return DayLine(_of_week(weekday, around, named), _rest(text, end), loose)
    day = _day(match, around)
    if weekday is not None and day.weekday() != weekday:
        raise SlipError(
            0,
            match.end(),
            f"{day.isoformat()} is a {_FULL[day.weekday()]}, not a {_FULL[weekday]}: write the one "
            "you mean",
        )
    return DayLine(day, _rest(text, match.end()))


def begins_with_day(text: str, names: Names) -> bool:
    """Whether a line is the head of a session, with its day."""
    if not text[:1].isalnum() or names.begins(text):
        return False
    try:
        return day_line(text, date.min + timedelta(days=400)) is not None
    except SlipError:
        return True


def _rest(text: str, at: int) -> int:
    behind = _BEHIND.match(text, at)
    return behind.end() if behind else at


def _weekday(word: str) -> int:
    return _FULL.index(next(one for one in _FULL if one.lower().startswith(word[:3].lower())))


def _of_week(weekday: int | None, around: date | None, named: re.Match[str]) -> date:
    if around is None or weekday is None:
        raise SlipError(
            0,
            len(named[0].rstrip()),
            f"which {_FULL[weekday or 0]}? Begin the session with its day, as in '2026-11-30 Legs'",
        )
    return around + timedelta(days=weekday - around.weekday())


def _day(match: re.Match[str], around: date | None) -> date:
    groups = match.groupdict()
    if "a" in groups:
        month, day = _in_order(match)
    else:
        month = int(match["month"]) if "month" in groups else _month(match["name"])
        day = int(match["day"])
    year = groups.get("year")
    if year is None:
        if around is None:
            raise _no_year(match)
        # 29 February is of a leap year.
        years = [one for one in _years(around) if (month, day) != (2, 29) or isleap(one)]
        found = [_made(one, month, day, match) for one in years or [around.year]]
        return min(found, key=lambda one: abs(one - around))
    return _made(int(year) + (2000 if len(year) == 2 else 0), month, day, match)


def _years(around: date) -> tuple[int, ...]:
    return around.year - 1, around.year, around.year + 1


def _month(name: str) -> int:
    return 1 + _FIRST_LETTERS.index(name[:3].lower())


def _in_order(match: re.Match[str]) -> tuple[int, int]:
    """Month and day of ``30/11/2026``. Raises ``SlipError`` where either may come first."""
    first, second = int(match["a"]), int(match["b"])
    if match["sign"] != "." and first <= 12 and second <= 12 and first != second:
        year = int(match["year"]) + (2000 if len(match["year"]) == 2 else 0)
        raise SlipError(
            match.start(),
            len(match[0]),
            f"{match[0]} may be {year}-{second:02}-{first:02} or {year}-{first:02}-{second:02}: "
            "write the one you mean",
        )
    return (second, first) if first > 12 or match["sign"] == "." else (first, second)


def _made(year: int, month: int, day: int, match: re.Match[str]) -> date:
    try:
        return date(year, month, day)
    except ValueError:
        raise SlipError(
            match.start(), len(match[0]), f"{match[0]} is not a day of the calendar"
        ) from None


def _no_year(match: re.Match[str]) -> SlipError:
    return SlipError(
        match.start(),
        len(match[0].rstrip()),
        f"{match[0].strip()} of which year? Write the day as in '2026-11-30 Legs'",
    )
