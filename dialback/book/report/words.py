"""Words that reports share: days, weeks, sets in short."""

from __future__ import annotations

import re
from collections.abc import Iterable
from datetime import date, timedelta
from itertools import groupby
from typing import Any, Final

from dialback.core.weeks import Week, said

STOP_SIGNS: Final = (
    "Stop on sharp pain, chest pain, dizziness or numbness, and see a doctor. Form before load; "
    "heavy bar work needs a spotter or safeties."
)
"""What stands at the foot of a page for an athlete."""
CAUTION: Final = (
    "An aid to the coach's judgement: no medical advice, no forecast of injury. Pain and illness "
    "are for a licensed practitioner."
)
_EXERTION: Final = re.compile(r", RPE ([0-9.]{1,5})(?:–[0-9.]{1,5})?$")
_REPS: Final = re.compile(r"^(.{1,200}?) ([0-9]{1,5}) reps?\b(.*)$")
_WARM_UP: Final = ", warm-up"


def week_title(week: Week) -> str:
    """``week 47 of 2026``."""
    year, number, _ = week.monday.isocalendar()
    return f"week {number} of {year}"


def days_text(first: date, last: date) -> str:
    """``16–22 November 2026``, with as much of the first day as differs."""
    begin = f"{first.day}"
    if first.month != last.month:
        begin += f" {first:%B}"
    if first.year != last.year:
        begin += f" {first.year}"
    return f"{begin}–{last.day} {last:%B} {last.year}"


def week_span(week: Week, weeks: int = 1) -> str:
    """The days of a week, or of several from it on."""
    return days_text(week.monday, week.monday + timedelta(days=7 * weeks - 1))


def day_text(day: date) -> str:
    """``Monday 23 November``."""
    return f"{day:%A} {day.day} {day:%B}"


def date_text(day: date) -> str:
    """``24 November 2026``."""
    return f"{day.day} {day:%B} {day.year}"


def in_short(sets: Iterable[str]) -> str:
    """Sets one after the other that differ in reps and exertion alone, told as one.

    ``Back squat 6, 6, 5 reps, at 80 kg, RPE 7–9``; warm-ups are counted and no more.
    """
    told: list[str] = []
    warm_ups = 0
    for alike, several in groupby(map(_taken_apart, sets), key=lambda one: one[0]):
        of_one = list(several)
        if alike is None:
            warm_ups += len(of_one)
            continue
        before, behind = alike
        reps = [one[1] for one in of_one]
        efforts = sorted({one[2] for one in of_one if one[2] is not None})
        dose = _dose(reps)
        effort = "" if not efforts else f", RPE {efforts[0]:g}"
        if len(efforts) > 1:
            effort += f"–{efforts[-1]:g}"
        count = f"{len(of_one)} × " if not dose and len(of_one) > 1 else ""
        told.append(f"{count}{before}{dose}{behind}{effort}")
    if warm_ups:
        told.append(f"{warm_ups} warm-up {'set' if warm_ups == 1 else 'sets'}")
    return "; ".join(told)


def _taken_apart(text: str) -> tuple[tuple[str, str] | None, str | None, float | None]:
    """What stands before and behind the reps (``None`` for a warm-up), the reps, the exertion."""
    if text.endswith(_WARM_UP):
        return None, None, None
    effort = _EXERTION.search(text)
    bare = text[: effort.start()] if effort else text
    reps = _REPS.match(bare)
    exertion = float(effort[1]) if effort else None
    if reps is None:
        return (bare, ""), None, exertion
    return (reps[1], reps[3]), reps[2], exertion


def _dose(reps: list[str | None]) -> str:
    given = [rep_ for rep_ in reps if rep_ is not None]
    if not given:
        return ""
    if len(set(given)) > 1:
        return f" {', '.join(given)} reps"
    times = f"{len(given)} × " if len(given) > 1 else ""
    return f" {times}{given[0]} {'rep' if given[0] == '1' and not times else 'reps'}"


def session_head(session: dict[str, Any]) -> str:
    """A session of a signed document: its day and its title."""
    day = date.fromisoformat(session["date"])
    title = f", {session['title']}" if session["title"] else ""
    return f"{said(day)}{title}:"
