"""Learning from the coach: a rule offered where a finding was accepted again and again."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Any, Final

from dialback.core.audit import audit
from dialback.core.findings import BY_CODE, Finding, Key
from dialback.core.findings.difference import Difference, difference
from dialback.core.learning import TIMES, WEEKS, Lesson, lesson
from dialback.core.movements import fold
from dialback.core.once import Once
from dialback.core.rules import merge
from dialback.core.tally import Ledger
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, Ledgers, athlete_on_roster, house
from dialback.store.judgements import Accepted, acceptances_between, declined
from dialback.store.models import Declined
from dialback.store.unit import unit


@dataclass(frozen=True, slots=True)
class Offer:
    """A rule that would stop what was accepted so often, and what it does to the week at hand.

    ``chosen`` are the athlete's own choices with it.
    """

    key: Key
    times: int
    reason: str
    lesson: Lesson
    chosen: dict[str, Any]
    effect: Difference


def offer(ledgers: Ledgers, athlete: Athlete, week: Week, today: date) -> Offer | None:
    """The rule to offer on a week's sheet, if there is one: of the finding accepted most often."""
    refused = declined(athlete)
    groups: dict[tuple[Key, str], list[tuple[Week, Key, Accepted]]] = defaultdict(list)
    for of_week, key, accepted in acceptances_between(athlete, week.plus(1 - WEEKS), week):
        groups[_common(key), fold(accepted.reason.strip(" .!"))].append((of_week, key, accepted))
    often = sorted(
        (
            (common, several)
            for (common, _), several in groups.items()
            if len(several) >= TIMES and common not in refused
        ),
        key=lambda group: (-len(group[1]), group[0]),
    )
    for common, several in often:
        found = _offer(ledgers, athlete, week, today, common, several)
        if found is not None:
            return found
    return None


def _common(key: Key) -> Key:
    # Of findings about days, what they have in common is their kind.
    code, subject, measure = key
    known = BY_CODE.get(code)
    by_day = known is not None and known.subject == "day"
    return (code, "" if by_day else subject, measure)


_UNDER: Final = Once[str, Ledger]()


def _offer(
    ledgers: Ledgers,
    athlete: Athlete,
    week: Week,
    today: date,
    common: Key,
    several: list[tuple[Week, Key, Accepted]],
) -> Offer | None:
    ledger = ledgers.of(athlete)
    values = [accepted.value for *_, accepted in several]
    learned = lesson(*common, values, ledger.rules)
    if learned is None:
        return None
    chosen = _merge_choices(athlete.rules, learned.chosen)
    rules = merge(house().rules, chosen)
    under = _UNDER.of(ledger.kept, rules.model_dump_json(), lambda: ledger.but(rules=rules))
    # Only what is still told, and would not be told any more, is worth a word.
    still, left = (
        any(
            key in {finding.key for finding in audit(judge, of_week, as_of=today).findings}
            for of_week, key, _ in several
        )
        for judge in (ledger, under)
    )
    if left or not still:
        return None
    before, after = (_told(audit(one, week, as_of=today).findings) for one in (ledger, under))
    reason = several[-1][2].reason
    return Offer(common, len(several), reason, learned, chosen, difference(before, after))


def _told(findings: Iterable[Finding]) -> list[Finding]:
    return [finding for finding in findings if finding.level != "note"]


def _merge_choices(own: dict[str, Any], more: dict[str, Any]) -> dict[str, Any]:
    """Choices with others over them, tables key by key."""
    found = dict(own)
    for name, value in more.items():
        table = isinstance(value, dict) and isinstance(found.get(name), dict)
        found[name] = {**found[name], **value} if table else value
    return found


def decline(number: int, key: Key) -> None:
    """Remember that a rule for this is not wanted."""
    with unit() as entry:
        athlete = athlete_on_roster(number)
        code, subject, measure = key
        Declined.insert(
            athlete=athlete, code=code, subject=subject, measure=measure
        ).on_conflict_ignore().execute()
        entry.tell("Declined a suggested rule", athlete)
