"""What is decided already, and in which words."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date

from dialback.core.decisions import NO_MOVEMENT, PAIN, STEP, Decision
from dialback.core.findings import BY_CODE
from dialback.core.findings.finding import has_grown
from dialback.core.long_run.codes import BY_SIGNAL
from dialback.core.vocabulary import Key, Level
from dialback.core.weeks import Week, said
from dialback.core.words import capital


def decided(
    decisions: Iterable[Decision],
    week: Week,
    key: Key,
    level: Level,
    value: float | None = None,
    limit: float | None = None,
) -> Decision | None:
    """The decision in force in a week about a finding or signal that has not grown since."""
    for one in decisions:
        if (
            one.key == key
            and one.holds_in(week)
            and not has_grown(level, value, limit, one.level, one.value)
        ):
            return one
    return None


def can_be_decided(code: str) -> bool:
    """Whether it stands from week to week, so that something can be said of it for longer."""
    if code in BY_SIGNAL:
        return BY_SIGNAL[code].kind == "course" and not BY_SIGNAL[code].hurts
    return code in BY_CODE and BY_CODE[code].lasts and BY_CODE[code].subject != "day"


def about(key: Key) -> str:
    """What a finding or a signal is about, in words: ``imbalance (push : pull)``."""
    code, subject, way = key
    if code == STEP:
        return f"{way} sets of {subject}"
    if code == PAIN and (day := _day(way)):
        at = "" if subject == NO_MOVEMENT else f" at {subject}"
        return f"pain on {said(day)}{at}"
    known = BY_CODE.get(code) or BY_SIGNAL.get(code)
    return f"{known.title.lower()} ({known.about(subject)})" if known else f"{code} ({subject})"


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text)
    except ValueError:
        return None


def words_of(decision: Decision) -> str:
    """A decision as it is read, with how long it holds."""
    if decision.kind == "watched":
        by = f" by {said(decision.until)}" if decision.until else ""
        return f"{capital(about(decision.key))}: to be gone{by}"
    if decision.kind == "declined":
        until = f" until {said(decision.until)}" if decision.until else ""
        return f"{capital(about(decision.key))}: not proposed again{until}"
    if decision.kind == "seen":
        return f"{capital(about(decision.key))}: seen"
    until = f"until {said(decision.until)}" if decision.until else "for good"
    return f"{capital(about(decision.key))}: intended {until}"
