"""Why a line changes, and why a finding stays: in words a coach would use."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from dialback.core.adjusting.judged import Judge
from dialback.core.balance import Weighing, weigh
from dialback.core.figures import in_total, of_muscle
from dialback.core.findings import BY_CODE, Finding
from dialback.core.measures import TITLES
from dialback.core.sessions import Session
from dialback.core.tally import tally
from dialback.core.vocabulary import PAIRS_BY_NAME, WHOLE_WEEK, Key, label
from dialback.core.words import amount_text, capital, number

_UNITS = {"sets": ("set", "sets"), "pairs": ("pair", "pairs"), "rounds": ("round", "rounds")}
_TOLD: Final = 3
"""So many of the findings that clearing one would raise are told."""


def change_words(session: Session, name: str, kind: str, counts: tuple[int, int]) -> str:
    """What is changed, from one count to another."""
    before, after = counts
    apart = abs(after - before)
    unit = _UNITS[kind][apart != 1]
    day = f"on {session.date:%A}"
    if before == 0:
        return f"{apart} {unit} of {name} added {day}"
    if after == 0:
        return f"{name} left out {day}"
    return f"{apart} {'more' if after > before else 'fewer'} {unit} of {name} {day}"


def effects(judge: Judge, sessions: tuple[Session, ...], keys: Sequence[Key]) -> str:
    """What some changes do: the findings that they clear, lower or keep away, in a row."""
    return "; ".join(dict.fromkeys(_effect(judge, sessions, key) for key in keys))


def _effect(judge: Judge, sessions: tuple[Session, ...], key: Key) -> str:
    """A finding that a change clears, lowers or prevents, with its figure before and after."""
    code, subject, measure = key
    if key not in judge.at_start:
        return f"prevents {finding_words(key)}"
    sums = tally(judge.ledger.measure(sessions))
    figure = _figure(code, subject, measure)
    if figure is not None:
        about = f"the week's {TITLES[measure]}" if subject == WHOLE_WEEK else label(subject)
        old, new = judge.start.value(figure), sums.get(figure, 0.0)
        if number(old) != number(new):
            return f"{about} from {number(old)} to {amount_text(new, measure, judge.ledger.unit)}"
    pair = PAIRS_BY_NAME.get(subject)
    if BY_CODE[code].of == "ratio" and pair is not None:
        old_ratio, new_ratio = (
            _ratio_text(weigh(one, pair, measure)) for one in (judge.start.tally, sums)
        )
        if old_ratio != new_ratio:
            return f"{pair.title} from {old_ratio} to {new_ratio}"
    return f"clears {finding_words(key)}"


def _ratio_text(weighing: Weighing) -> str:
    return "all on one side" if weighing.ratio is None else number(weighing.ratio)


def _figure(code: str, subject: str, measure: str) -> str | None:
    if BY_CODE[code].of == "sum":
        return in_total(measure) if subject == WHOLE_WEEK else of_muscle(subject, measure)
    return None


def finding_words(key: Key) -> str:
    """A finding or a limit by its name: ``below the minimum (side delts)``."""
    code, subject, measure = key
    match code:
        case "lock":
            return f"{subject} is locked"
        case "bounds":
            return "the week keeps most of its sets, and every session one"
        case "range":
            return f"{subject} can grow no further"
        case "new_movements":
            return "no more movements may be added"
        case "lines":
            return "no more lines may change"
        case "budget":
            return "the change may cost no more"
    about = BY_CODE[code].about(subject)
    if subject == WHOLE_WEEK:
        about = f"the week's {TITLES.get(measure, measure)}"
    return f"{BY_CODE[code].title.lower()} ({about})"


def remaining_sentence(finding: Finding, against: Sequence[Key] | None) -> str:
    """That a finding stays, with its figure and limit, and what keeps it; ``None`` is the cost."""
    left = stays(finding)
    if against is None:
        return f"{left}: clearing it would cost more than it is worth."
    if not against:
        return f"{left}: nothing that can still be changed would clear it."
    held = [finding_words(key) for key in against if key[0] in _OWN_WORDS]
    raised = [finding_words(key) for key in against if key[0] not in _OWN_WORDS]
    if raised:
        more = len(raised) - _TOLD
        several = [*raised[:_TOLD], f"{more} more"] if more > 1 else raised
        held.append(f"{' and '.join(several)} would be raised")
    return f"{left}: {', and '.join(held)}."


def costs_sentence(finding: Finding, more: int, in_all: int) -> str:
    """That a finding stays, and what it would cost to clear it."""
    return f"{stays(finding)}: clearing it would cost {more} more, {in_all} in all."


def held_sentence(finding: Finding) -> str:
    """That a finding stays for what is not proposed again, or not turned back yet."""
    return (
        f"{stays(finding)}: clearing it would take a step that was declined, or reverse what was "
        "published lately."
    )


def stays(finding: Finding) -> str:
    """That a finding stays, with its figure and limit where it has them."""
    code, subject, measure = finding.key
    if _figure(code, subject, measure) and finding.limit is not None and finding.base is None:
        have, wanted = number(finding.value or 0), number(finding.limit)
        return f"{capital(finding.about)}, {have} of {wanted} sets"
    return f"{finding.title} ({finding.about}) stays"


_OWN_WORDS = ("lock", "bounds", "range", "new_movements", "lines", "budget")
