"""What must hold whatever the book: breaks, sides, lighter weeks, remedies."""

import re
from copy import deepcopy
from datetime import timedelta
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import Audit, audit
from dialback.core.baseline import baseline, is_lighter_week
from dialback.core.movements import MovementTable
from dialback.core.plans.spans import rebuilt, spans_of
from dialback.core.remedies import NO_STEP, clears, told
from dialback.core.vocabulary import LEVELS
from dialback.core.weeks import Week
from tests.build import MOVEMENTS, WEEK, audited, book, remedy, restricted, session, sets
from tests.properties import tried

NAMES = ("Press", "Row", "Squat", "Hinge", "Curl", "Pull-up")
COUNTS = st.lists(st.integers(0, 14), min_size=6, max_size=10)
SIDED = st.lists(
    st.builds(
        lambda side, reps, load: {"exercise": "Curl", "reps": reps, "load_kg": load, "sides": side},
        st.sampled_from(["left", "right", "each", "alternating", "both"]),
        st.integers(1, 15),
        st.sampled_from([0, 8, 10, 12.5]),
    ),
    max_size=8,
)
A_DAY = st.lists(st.tuples(st.sampled_from(NAMES), st.integers(1, 6)), min_size=1, max_size=5)


def squats(back: int, count: int) -> list[dict]:
    return [session(-7 * back, sets("Squat", count))] if count else []


def weeks(counts: list[int], now: int = 8) -> Audit:
    """Squats in the weeks before, the latest first, and in the audited one."""
    before = [one for back, count in enumerate(counts, 1) for one in squats(back, count)]
    return audited(*before, session(0, sets("Squat", now)))


@tried(60)
@given(COUNTS)
def test_without_the_break_there_is_no_return(counts: list[int]) -> None:
    found = [one for one in weeks(counts).findings if one.code == "return"]
    trained = [back for back, count in enumerate(counts) if count]
    assert bool(found) == (bool(trained) and trained[0] >= 2)
    if found:
        filled = [count or 5 for count in counts[: trained[0]]] + counts[trained[0] :]
        assert not [one for one in weeks(filled).findings if one.code == "return"]


@tried(60)
@given(SIDED)
def test_mirrored_sides_have_the_same_gap(several: list[dict]) -> None:
    turned = {"left": "right", "right": "left"}
    mirror = [{**one, "sides": turned.get(one["sides"], one["sides"])} for one in several]
    one, two = (
        [
            (found.key, found.level, found.value)
            for found in audited(session(0, day)).findings
            if found.code == "side_gap"
        ]
        for day in (several, mirror)
    )
    assert one == two


@tried(60)
@given(COUNTS)
def test_a_lighter_week_never_lowers_the_next_baseline(counts: list[int]) -> None:
    ledger = weeks(counts).ledger
    base = baseline(ledger, WEEK).base("totals/sets")
    last = WEEK.plus(-1)
    if not is_lighter_week(ledger, last):
        return
    rest = baseline(weeks([0, *counts[1:]]).ledger, WEEK).base("totals/sets")
    assert rest is None or (base or 0) >= min(rest, base or 0)
    # Others that are not lighter decide alone.
    full = [
        one
        for one in (WEEK.plus(-back) for back in (2, 3, 4))
        if ledger.is_trained(one) and not is_lighter_week(ledger, one)
    ]
    if full:
        mean = sum(ledger.tally("completed", one)["totals/sets"] for one in full) / len(full)
        assert base == mean


@tried(60)
@given(A_DAY, st.sampled_from(["vertical_push", "vertical_pull", "horizontal_pull", "squat"]))
def test_no_remedy_asks_for_what_a_restriction_forbids(day: list, pattern: str) -> None:
    spared = restricted(
        {"about": "pattern", "subject": pattern}, {"about": "muscle", "subject": "chest"}
    )
    result = audited(session(0, *(sets(name, count) for name, count in day)), athlete=spared)
    short: dict[str, str] = {
        "vertical_push": "vertical push",
        "vertical_pull": "vertical pull",
        "horizontal_pull": "horizontal pull",
    }
    for one in result.findings:
        if one.code == "muscle_floor" and one.subject == "chest":
            assert "more" not in clears(result.in_hand, one)
        if one.code == "balance" and one.subject == "vertical_push_pull" and pattern in short:
            said = clears(result.in_hand, one)
            assert f"more sets of {short[pattern]}" not in said
            assert f"more set of {short[pattern]}" not in said


BY_SETS = {
    "balance",
    "muscle_floor",
    "muscle_ceiling",
    "jump",
    "spacing",
    "overfull",
    "restriction",
    "side_gap",
    "order",
    "no_warm_up",
    "return",
}
OFFER = re.compile(r"(\d+) (?:(more|fewer) sets? )?of (another one|\d+ others|[A-Z][a-z-]+)")
LOOSE = {
    "balance_min_sets": 2,
    "balance_bands": {"push_pull": [0.5, 2], "knee_hip": [0.4, 2.5]},
    "muscle_bands": {
        "chest": [3, 8],
        "lats": [3, 8],
        "quads": [2, 9],
        "biceps": [2, 6],
        "glutes": [0, 9],
        "hamstrings": [0, 6],
    },
    "spacing_sets": 7,
    "session_minutes": 60,
    "warm_up_from": 0.7,
}
SIDED_DAY = st.lists(
    st.tuples(
        st.sampled_from(NAMES), st.integers(1, 6),
        st.sampled_from(["both", "both", "both", "each", "left", "right"]),
    ),
    min_size=1, max_size=5,
)  # fmt: skip


def loaded(offset: int, several: list[tuple[str, int, str]]) -> dict:
    """A session with loads, so that an estimated maximum is known."""
    return session(
        offset, *(sets(name, count, load_kg=50, sides=sides) for name, count, sides in several)
    )


def offers(clears: str) -> list[dict[str, int]]:
    """What a remedy asks for: sets of each movement, fewer below 0; of few movements alone."""
    found = []
    for part in clears.split(", or "):
        several = OFFER.findall(part)
        if several and not any("other" in name for *_, name in several):
            sign = 1 if several[0][1] == "more" else -1
            found.append({name: sign * int(count) for count, _, name in several})
    return found


OTHER = {"left": "right", "right": "left"}


def followed(days: list[dict], offer: dict[str, int], earlier: list[dict]) -> list[dict]:
    """The week's sessions with the sets of a remedy: behind the movement's last one, or off it."""
    changed = deepcopy(days)
    latest = {one["exercise"]: one for day in earlier for one in day["sets"]}
    for name, count in offer.items():
        for _ in range(abs(count)):
            placed = [
                (day, at)
                for day in changed
                for at, one in enumerate(day["sets"])
                if one["exercise"] == name
            ]
            day, at = placed[-1] if placed else (changed[-1], len(changed[-1]["sets"]) - 1)
            if count > 0:
                model = day["sets"][at] if placed else latest[name]
                other = OTHER.get(model.get("sides", "both"))
                day["sets"][at + 1 : at + 1] = [
                    dict(model),
                    *([dict(model, sides=other)] if other else []),
                ]
            else:
                gone = day["sets"].pop(at)
                other = OTHER.get(gone.get("sides", "both"))
                twins = [
                    place
                    for place, one in enumerate(day["sets"])
                    if other and one["exercise"] == name and one["sides"] == other
                ]
                if twins:
                    del day["sets"][twins[-1]]
    return changed


def by_sets(result: Audit) -> dict[tuple[str, str, str], int]:
    return {
        one.key: LEVELS.index(one.level)
        for one in result.findings
        if one.code in BY_SETS and one.level != "note"
    }


@tried(120)
@given(
    st.lists(SIDED_DAY, min_size=1, max_size=3),
    SIDED_DAY,
    st.sampled_from([-7, -21]),
    st.booleans(),
)
def test_what_a_remedy_asks_for_clears_its_finding_and_raises_no_other(
    days: list[list], before: list, back: int, spared: bool
) -> None:
    now = [loaded(day, several) for day, several in enumerate(days)]
    earlier = [loaded(back, before)]
    more = {"rules": LOOSE}
    if spared:
        more["athlete"] = restricted({"about": "movement", "subject": "Curl", "most_sets": 3})
    result = audited(*earlier, *now, **more)
    start = by_sets(result)
    for finding in result.findings:
        if finding.key not in start or finding.code not in REMEDIED:
            continue
        said = clears(result.in_hand, finding)
        for offer in offers(said):
            after = by_sets(audited(*earlier, *followed(now, offer, earlier), **more))
            assert finding.key not in after, said
            worse = {key for key, level in after.items() if level > start.get(key, -1)}
            assert not worse, (said, worse)


REMEDIED = {"balance", "muscle_floor", "muscle_ceiling", "jump"}


def test_a_remedy_is_told_and_taken_in_full() -> None:
    assert offers("3 more sets of Row and 1 of Pull-up, or 2 fewer sets of Press would do.") == [
        {"Row": 3, "Pull-up": 1},
        {"Press": -2},
    ]
    assert offers("3 fewer sets of Row, 2 of Curl, 1 of Press and 1 of another one would do.") == []
    assert told({"Row": 1}, "more") == "1 more set of Row"
    assert told({"A": 1, "B": 4, "C": 1, "D": 1, "E": 2}, "fewer") == (
        "4 fewer sets of B, 2 of E, 1 of A and 2 of 2 others"
    )


def test_where_sides_are_logged_apart_a_set_is_one_with_each() -> None:
    lunges = [one for side in ("left", "right") for one in sets("Squat", 4, sides=side)]
    result = audited(
        session(0, lunges), rules={"muscle_bands": {"quads": [0, 2]}, "balance_min_sets": 99}
    )
    assert remedy(result, "muscle_ceiling") == (
        "2 fewer sets of Squat would come down to the ceiling."
    )


def test_where_every_step_raises_something_that_is_said() -> None:
    result = audited(
        session(0, sets("Press", 6), sets("Row", 3)),
        rules={
            "muscle_bands": {"upper_back": [0, 3], "lats": [0, 3], "chest": [6, 20]},
            "balance_bands": {"push_pull": [0.7, 1.1]},
        },
    )
    assert remedy(result, "balance", "push_pull") == NO_STEP


def test_what_was_lifted_before_the_week_bars_nothing() -> None:
    day = session(0, sets("Press", 6), sets("Row", 3), sets("Pull-up", 1))
    rules = {"balance_bands": {"vertical_push_pull": [0, 9]}}
    told = {}
    for lifted in (-1, 1):
        since, until = ((WEEK.monday + timedelta(days=one)).isoformat() for one in (-30, lifted))
        athlete = restricted(
            {
                "about": "movement",
                "subject": "Row",
                "since": since,
                "lifted_on": until,
                "lifted_by": "Dr Example",
            }
        )
        result = audited(day, athlete=athlete, rules=rules)
        told[lifted] = "of Row" in remedy(result, "balance", "push_pull")
    assert told == {-1: True, 1: False}


def test_nothing_that_is_restricted_is_added_even_within_its_limit() -> None:
    athlete = restricted({"about": "movement", "subject": "Row", "most_sets": 20})
    day = session(0, sets("Press", 6), sets("Row", 3), sets("Pull-up", 1))
    rules = {"balance_bands": {"vertical_push_pull": [0, 9]}}
    result = audited(day, athlete=athlete, rules=rules)
    said = remedy(result, "balance", "push_pull")
    assert "Row" not in said
    assert "more sets of Pull-up" in said or "fewer sets of Press" in said


KINDS = st.sampled_from(["plain", "sides", "rounds"])
LINES = st.lists(
    st.tuples(st.sampled_from(NAMES), st.integers(1, 4), KINDS), min_size=1, max_size=5
)


def planned(lines: list[tuple[str, int, str]]) -> list[dict]:
    """Sets of a session: runs, left and right in turn, circuits with a rope between."""
    found: list[dict[str, Any]] = []
    for at, (name, count, kind) in enumerate(lines):
        if kind == "plain":
            found += sets(name, count, 5 + at)
        elif kind == "sides":
            for _ in range(count):
                found += sets(name, 1, 5 + at, sides="left") + sets(name, 1, 5 + at, sides="right")
        else:
            for number in range(1, count + 1):
                for place, one in enumerate((name, "Skip"), 1):
                    found += sets(one, 1, 5 + at, part=f"C{at}", round=number, place=place)
    return found


@tried(80)
@given(LINES, st.data())
def test_lines_at_their_own_counts_are_the_session_and_others_change_only_themselves(
    lines: list, data: st.DataObject
) -> None:
    (one,) = book([], [session(0, planned(lines))]).planned
    found = spans_of(one, MovementTable(book([]).exercises))
    assert sorted(place for line in found for unit in line.units for place in unit) == list(
        range(len(one.sets))
    )
    assert rebuilt(one, found, {line.number: line.count for line in found}, []) == one
    line = data.draw(st.sampled_from(found))
    count = data.draw(st.integers(0, line.most))
    changed = rebuilt(one, found, {line.number: count}, [])
    per_unit = len(line.units[-1])
    assert len(changed.sets) == len(one.sets) + (count - line.count) * per_unit
    inside = {place for unit in line.units for place in unit}
    others = [each for place, each in enumerate(one.sets) if place not in inside]
    left = list(changed.sets)
    for each in others:
        left.remove(each)
    assert len(left) == count * per_unit


def test_movements_here_are_those_of_the_table() -> None:
    assert {*NAMES} <= {one["name"] for one in MOVEMENTS}
    assert audit(book([session(0, sets("Squat"))]).ledger(), Week(WEEK.monday)).movements == (
        "Squat",
    )
