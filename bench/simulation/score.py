"""The verdicts on a made-up club, week by week: how much is said, what is found, what is not."""

from __future__ import annotations

import json
import random
from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from statistics import mean, quantiles
from typing import Any, Final

from bench.simulation.planted import FAULTS, ODDITIES, Planted
from bench.simulation.year import FIRST, WEEKS, Year, a_year
from dialback.book.book import read_book
from dialback.core.audit import audit
from dialback.core.verdict import news

FROM: Final = 9
"""No faults before this week of the year: there is nothing yet to tell them by."""
GAP: Final = 3
"""Weeks between what is planted and the next."""


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a verdict, as a coach reads it."""

    kind: str
    level: str
    sentence: str
    keys: tuple[tuple[str, str, str], ...]


@dataclass(frozen=True, slots=True)
class Story:
    """A year of an athlete: what was planted, and the verdict on each week."""

    name: str
    faults: tuple[Planted, ...]
    oddities: tuple[Planted, ...]
    verdicts: tuple[tuple[Line, ...], ...]
    findings: tuple[int, ...]


def planted_year(number: int, seed: int) -> tuple[Year, list[Planted], list[Planted]]:
    """An athlete with some faults and some oddities, one after the other."""
    year = a_year(f"Athlete {number}", seed * 1000 + number)
    rng = random.Random(seed * 1000 + number + 500_000)
    faults, oddities = [], []
    # Everybody has other ones; over a club each comes up about equally often.
    queue = [FAULTS[(number * 3 + k) % len(FAULTS)] for k in range(9)]
    odd = [ODDITIES[(number * 2 + k) % len(ODDITIES)] for k in range(9)]
    at, turn = FROM + rng.randrange(4), 0
    while at < WEEKS - 4 and (queue or odd):
        is_fault = turn % 2 == 0
        maker = (queue if is_fault else odd).pop(0)
        made = maker(year, at)
        if made.last >= WEEKS - 1:
            break
        (faults if is_fault else oddities).append(made)
        at = max(made.last, made.visible) + GAP + 1 + rng.randrange(2)
        turn += 1
    return year, faults, oddities


def story(number: int, seed: int) -> Story:
    """The year of an athlete, read week by week."""
    year, faults, oddities = planted_year(number, seed)
    book = read_book(json.dumps(year.book()).encode())
    ledger = book.ledger()
    verdicts, findings = [], []
    for at in range(FROM - 1, WEEKS):
        result = audit(ledger, FIRST.plus(at))
        verdicts.append(
            tuple(Line(one.kind, one.level, one.sentence, one.explains) for one in news(result))
        )
        findings.append(sum(one.level != "note" for one in result.findings))
    return Story(year.name, tuple(faults), tuple(oddities), tuple(verdicts), tuple(findings))


def _story(of: tuple[int, int]) -> Story:
    return story(*of)


def stories(athletes: int, seed: int, workers: int) -> list[Story]:
    """The years of a club."""
    with ProcessPoolExecutor(workers) as pool:
        return list(pool.map(_story, [(number, seed) for number in range(athletes)]))


def _hits(planted: Planted, line: Line) -> bool:
    return any(
        code == wanted and subject in ("", about)
        for code, about, _ in line.keys
        for wanted, subject in planted.expected
    )


def _found(one: Story, fault: Planted) -> tuple[int, int] | None:
    """The week of the year and the place of the first line that tells of a fault."""
    for at in range(fault.visible, min(fault.until, WEEKS - 1) + 1):
        for place, line in enumerate(one.verdicts[at - FROM + 1]):
            if _hits(fault, line):
                return at, place
    # What creeps may be found while it begins.
    for at in range(fault.first, fault.visible):
        for place, line in enumerate(one.verdicts[at - FROM + 1]):
            if _hits(fault, line):
                return at, place
    return None


def report(told: Sequence[Story]) -> Iterator[str]:
    """The score, line by line."""
    lines = [len(week) for one in told for week in one.verdicts]
    yield f"{len(told)} athletes, {len(lines)} weeks"
    yield (
        f"findings above a note {mean(n for one in told for n in one.findings):.1f}, "
        f"verdict lines {mean(lines):.2f}, 95th percentile {quantiles(lines, n=20)[-1]:.0f}"
    )
    kinds = Counter(line.kind for one in told for week in one.verdicts for line in week)
    yield "lines by kind: " + ", ".join(f"{kind} {n}" for kind, n in kinds.most_common())
    codes = Counter(
        line.keys[0][0] for one in told for week in one.verdicts for line in week if line.keys
    )
    yield "by code: " + ", ".join(f"{code} {n}" for code, n in codes.most_common())
    pairs = [
        (before[0].sentence == week[0].sentence or
         (before[0].keys and set(before[0].keys) == set(week[0].keys)))
        for one in told
        for before, week in zip(one.verdicts, one.verdicts[1:], strict=False)
        if week and before
    ]  # fmt: skip
    yield f"first line last week's {mean(pairs):.0%}"
    faults = [(one, fault) for one in told for fault in one.faults]
    found = {id(fault): _found(one, fault) for one, fault in faults}
    by_kind: dict[str, list[Planted]] = defaultdict(list)
    for _, fault in faults:
        by_kind[fault.kind].append(fault)
    seen = [(fault, found[id(fault)]) for _, fault in faults]
    hit = [(fault, at) for fault, at in seen if at is not None]
    yield (
        f"planted {len(faults)}: found {len(hit) / len(faults):.0%}, "
        f"in the first possible week {sum(at[0] <= f.visible for f, at in hit) / len(faults):.0%}, "
        f"in the first two lines {sum(at[1] < 2 for _, at in hit) / len(faults):.0%}"
    )
    slow = [(fault, at) for fault, at in seen if fault.slow]
    yield f"slow ones {len(slow)}: found {mean(at is not None for _, at in slow or seen):.0%}"
    for kind, several in by_kind.items():
        of = [found[id(fault)] for fault in several]
        weeks = [at[0] - f.visible for f, at in zip(several, of, strict=True) if at is not None]
        yield f"  {kind:16}{sum(at is not None for at in of)} of {len(of)}, weeks late {weeks}"
    oddities = [(one, odd) for one in told for odd in one.oddities]
    loud = [(odd.kind, _loud(one, odd)) for one, odd in oddities]
    yield (
        f"oddities {len(loud)}: with a high line {mean(bool(line) for _, line in loud):.0%}: "
        f"{dict(Counter(kind for kind, line in loud if line))}"
    )
    # What is told where nothing was planted, by code and level.
    yield "elsewhere: " + _listed(_elsewhere(told))


def _loud(one: Story, odd: Planted) -> Line | None:
    for at in range(odd.first, odd.last + 1):
        for line in one.verdicts[at - FROM + 1]:
            if line.level == "high":
                return line
    return None


def _elsewhere(told: Sequence[Story]) -> Iterator[str]:
    for one in told:
        for place, week in enumerate(one.verdicts):
            at = place + FROM - 1
            near = [f for f in (*one.faults, *one.oddities)
                    if f.first <= at <= max(f.last, f.until) + 1]  # fmt: skip
            if near:
                continue
            for line in week:
                yield f"{line.kind} {line.keys[0][0] if line.keys else ''} {line.level}"


def _listed(words: Any) -> str:
    return ", ".join(f"{word} {n}" for word, n in Counter(words).most_common(30))
