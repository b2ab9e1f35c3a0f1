"""What is new, worse, stands or has eased, against the last comparable weeks."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import Audit, audit
from dialback.core.findings import BY_CODE, CODES, OF_WEEKS, find
from dialback.core.verdict import News, news
from dialback.core.vocabulary import MUSCLES
from tests.build import WEEK, book, session, sets
from tests.properties import tried

PAIR = "horizontal_push_pull"
RULES: dict[str, Any] = {
    "balance_bands": {"horizontal_push_pull": [0.5, 1.5]},
    "balance_min_sets": 4,
    "muscle_bands": {muscle: [0, 100] for muscle in MUSCLES},
    "order": "any",
}


def after(*weeks: list[list[dict]], of_book: Any = None, **more: Any) -> Audit:
    """The audit of the last of several weeks, each with one session on Wednesday."""
    done = [
        session(7 * (at + 1 - len(weeks)) + 2, *one, **more.get(f"week_{at}", {}))
        for at, one in enumerate(weeks)
    ]
    return audit(book(done, **({"rules": RULES} | (of_book or {}))).ledger(), WEEK)


def told(result: Audit, code: str = "balance", subject: str = PAIR) -> list[News]:
    return [one for one in news(result) if any(key[:2] == (code, subject) for key in one.explains)]


EVEN = [sets("Press", 6), sets("Row", 6)]
LEANS = [sets("Press", 8), sets("Row", 4)]
LEANS_MORE = [sets("Press", 10), sets("Row", 2)]


def test_what_the_last_week_had_not_is_new() -> None:
    (line,) = told(after(EVEN, EVEN, EVEN, LEANS))
    assert (line.kind, line.since, line.ask) == ("new", WEEK, "")
    # Its week after it is no news, and does not stand yet.
    assert told(after(EVEN, EVEN, LEANS, LEANS)) == []
    # What comes and goes is not new each time.
    assert told(after(EVEN, LEANS, EVEN, LEANS)) == []


def test_what_was_at_a_lower_level_is_worse() -> None:
    (line,) = told(after(EVEN, EVEN, LEANS, LEANS_MORE))
    assert (line.kind, line.level) == ("worse", "high")


def test_what_lasts_has_its_question() -> None:
    assert all(bool(code.ask) == code.lasts for code in CODES)


def test_what_comes_to_stand_and_is_worse_is_told_once() -> None:
    (line,) = told(after(EVEN, LEANS, LEANS, LEANS, LEANS_MORE))
    assert (line.kind, line.level) == ("worse", "high")


def test_what_stands_for_weeks_is_one_line_and_one_question() -> None:
    (line,) = told(after(EVEN, LEANS, LEANS, LEANS, LEANS))
    assert (line.kind, line.since) == ("standing", WEEK.plus(-3))
    assert line.ask
    assert line.sentence.endswith(f"since {WEEK.plus(-3).said}.")
    # A gap begins it anew, and it is asked once.
    assert told(after(LEANS, LEANS, EVEN, LEANS, LEANS)) == []
    assert told(after(EVEN, LEANS, LEANS, LEANS, LEANS, LEANS)) == []


def test_what_stands_is_asked_again_when_a_block_begins() -> None:
    weeks = (EVEN, *[LEANS] * 6)
    block = {"blocks": [{"week": str(WEEK), "weeks": 4}]}
    assert told(after(*weeks)) == []
    (line,) = told(after(*weeks, of_book=block))
    assert (line.kind, line.since) == ("standing", WEEK.plus(-5))


def test_what_the_programme_is_not_for_is_asked_and_what_it_was_for_is_news() -> None:
    floors = {**RULES["muscle_bands"], "quads": [4, 100]}
    legs = [*EVEN, sets("Squat", 6)]

    def quads(*weeks: list[list[dict]], **more: Any) -> list[News]:
        rules = {**RULES, "muscle_bands": floors}
        result = after(*weeks, of_book={"rules": rules, **more})
        return told(result, "muscle_floor", "quads")

    # Nobody planned legs: one question at once, and no word more of it.
    (line,) = quads(EVEN)
    assert (line.kind, bool(line.ask)) == ("standing", True)
    for weeks in (2, 3, 4, 5, 6):
        assert quads(*[EVEN] * weeks) == []
    # Legs were trained, and are gone.
    (line,) = quads(legs, legs, legs, [sets("Press", 8), sets("Row", 8)])
    assert line.kind == "new"
    # The block has them in its plan, though this is its first week without them.
    block = [{"week": str(WEEK), "weeks": 2, "title": "Base"}]
    (line,) = quads(EVEN, blocks=block, planned=[session(9, *legs)])
    assert line.kind == "new"


def test_what_has_gone_is_half_a_line() -> None:
    assert told(after(EVEN, EVEN, LEANS, EVEN)) == []
    (line,) = told(after(EVEN, LEANS, LEANS, LEANS, EVEN))
    assert (line.kind, line.level, line.causes) == ("eased", "note", ())
    assert "imbalance (horizontal push : horizontal pull)" in line.sentence


def test_a_lighter_week_is_not_compared_with() -> None:
    light = [sets("Press", 1), sets("Row", 1)]
    assert told(after(EVEN, LEANS, LEANS, LEANS, light, LEANS))[0].kind == "standing"
    # And nothing has eased in one.
    assert not [one for one in news(after(LEANS, LEANS, LEANS, light)) if one.kind == "eased"]


def test_a_day_is_the_same_day_of_another_week() -> None:
    full = [sets(name, 1) for name in ("Press", "Row", "Squat", "Hinge", "Curl")]
    rules = {**RULES, "session_movements": 3}
    done = [session(7 * back + 2, *full) for back in (-3, -2, -1, 0)]
    done.insert(0, session(-28, *full[:2]))
    (line,) = told(audit(book(done, rules=rules).ledger(), WEEK), "overfull", "2026-10-07")
    assert line.kind == "standing"
    moved = [*done[:-1], session(4, *full)]
    (line,) = told(audit(book(moved, rules=rules).ledger(), WEEK), "overfull", "2026-10-09")
    assert line.kind == "new"


def test_what_hurts_comes_first() -> None:
    hurt = {"pain": [{"exercise": "Row", "note": "elbow"}]}
    lines = news(after(EVEN, EVEN, EVEN, LEANS_MORE, week_3=hurt))
    assert [key[0] for key in lines[0].explains] == ["pain"]
    assert any(key[0] == "balance" for line in lines[1:] for key in line.explains)


def test_what_goes_on_hurting_is_told_every_week_and_first() -> None:
    hurt = {"pain": [{"note": "elbow"}]}
    for weeks in (2, 3, 4):
        hurting = {f"week_{at}": hurt for at in range(5 - weeks, 5)}
        first = news(after(EVEN, EVEN, EVEN, EVEN, LEANS_MORE, **hurting))[0]
        assert [key[0] for key in first.explains] == ["pain"]
        assert (first.kind, first.since) == ("standing", WEEK.plus(-min(weeks - 1, 3)))
        assert "restriction" in first.ask


def test_a_movement_that_hurts_again_is_one_line() -> None:
    hurt = {"pain": [{"exercise": "Row", "note": "elbow"}]}
    lines = news(after(EVEN, EVEN, EVEN, EVEN, EVEN, week_1=hurt, week_4=hurt))
    assert lines[0].explains == (("pain_again", "Row", "sets"),)
    assert not [one for one in lines if one.explains[0][0] == "pain"]


def test_what_follows_from_a_new_block_is_one_line_and_no_alarm() -> None:
    block = {"blocks": [{"week": str(WEEK), "weeks": 4}]}
    (line,) = told(after(EVEN, EVEN, EVEN, LEANS_MORE, of_book=block))
    assert (line.kind, line.level) == ("new", "caution")
    assert line.sentence.startswith("The new block brings imbalance (")


def test_what_follows_from_a_missed_session_is_no_alarm() -> None:
    plans = [
        session(7 * back + day, sets(name, 6))
        for back in (-3, -2, -1, 0)
        for day, name in ((0, "Press"), (2, "Row"))
    ]
    ledger = book(plans[:-1], plans, rules=RULES).ledger()
    result = audit(ledger, WEEK, as_of=WEEK.plus(1).monday)
    assert {one.level for one in result.findings if one.code == "balance"} == {"high"}
    (line,) = told(result)
    assert (line.level, line.causes) == ("caution", (("missed", "2026-10-07"),))


@pytest.mark.parametrize("kind", ["test", "travel", "lighter"])
def test_what_a_kind_of_week_brings_with_it_is_no_news(kind: str) -> None:
    weeks = (EVEN, EVEN, EVEN, LEANS_MORE)
    assert told(after(*weeks))
    marked = {"kinds": [{"week": str(WEEK), "kind": kind}]}
    assert told(after(*weeks, of_book=marked)) == []
    # Nor is the next week compared with it.
    (line,) = told(
        after(*weeks, LEANS, of_book={"kinds": [{"week": str(WEEK.plus(-1)), "kind": kind}]})
    )
    assert line.kind == "new"


def test_an_announced_overreach_has_its_limit() -> None:
    marked = {"kinds": [{"week": str(WEEK), "kind": "overreach"}]}
    base = [[sets("Press", 6), sets("Row", 6)]] * 3
    for count, jumps in ((8, False), (10, True)):
        week = [sets("Press", count), sets("Row", count)]
        lines = told(after(*base, week, of_book=marked), "jump", "total")
        assert bool(lines) == jumps


SINGLES = [
    [*sets(name, 1, 5, load_kg=60), *sets(name, 1, 1, load_kg=90), *sets(name, 1, 1, load_kg=100)]
    for name in ("Press", "Squat")
]
HEAVY = [sets(name, 5, 8, load_kg=70) for name in ("Press", "Row", "Squat")]


def test_a_week_that_looks_like_a_test_is_asked_about_once() -> None:
    lines = news(after(HEAVY, HEAVY, HEAVY, SINGLES))
    assert lines[0].explains == (("week_kind", "test", "kind"),)
    assert "singles or doubles in Press and Squat, and 6 sets instead of 15" in lines[0].sentence
    assert not [one for one in lines if one.level == "high"]
    marked = {"kinds": [{"week": str(WEEK), "kind": "test"}]}
    assert not [one for one in news(after(HEAVY, HEAVY, HEAVY, SINGLES, of_book=marked)) if one.ask]
    again = news(after(HEAVY, HEAVY, HEAVY, SINGLES, SINGLES))
    assert ("week_kind", "test", "kind") not in [key for one in again for key in one.explains]


def test_a_week_away_and_a_tempo_week_are_known_by_what_was_done() -> None:
    away = [sets("Press-up", 5), sets("Pull-up", 5), sets("Plank", 3, None, seconds=40)]
    (line, *_) = news(after(HEAVY, HEAVY, HEAVY, away))
    assert line.explains == (("week_kind", "travel", "kind"),)
    slow = [sets(name, 5, 8, load_kg=55, tempo="5-1-1-0") for name in ("Press", "Row", "Squat")]
    (line, *_) = news(after(HEAVY, HEAVY, HEAVY, slow))
    assert line.explains == (("week_kind", "tempo", "kind"),)
    usual = [key[0] for one in news(after(HEAVY, HEAVY, HEAVY, HEAVY)) for key in one.explains]
    assert "week_kind" not in usual


def test_what_is_in_doubt_is_asked_before_what_may_come_of_it() -> None:
    slip = [
        sets("Press", 5, 8, load_kg=70),
        sets("Row", 4, 8, load_kg=70),
        sets("Row", 1, 8, load_kg=700),
    ]
    usual = [sets("Press", 5, 8, load_kg=70), sets("Row", 5, 8, load_kg=70)]
    lines = news(after(usual, usual, usual, slip))
    assert [(one.kind, one.explains) for one in lines] == [
        ("doubt", (("doubt_load", "Row", "load_kg"),))
    ]


def test_what_lasts_or_hurts_is_told_by_its_families_alone() -> None:
    hurt = {"pain": [{"exercise": "Row", "note": "elbow"}]}
    sided = [*sets("Row", 3, 10, sides="left"), *sets("Row", 3, 5, sides="right")]
    for week in ([sets("Curl", 9), sided, sets("Row", 9, None, seconds=1)], LEANS_MORE, EVEN):
        result = after(EVEN, week, week_1=hurt)
        assert find(result.in_hand, OF_WEEKS) == tuple(
            one for one in result.findings if BY_CODE[one.code].lasts or BY_CODE[one.code].hurts
        )


WEEKS = st.lists(
    st.tuples(st.integers(0, 9), st.integers(0, 9)).map(
        lambda counts: [sets("Press", counts[0]), sets("Row", counts[1])]
    ),
    min_size=1,
    max_size=6,
)


@tried(60)
@given(WEEKS)
def test_every_line_is_of_the_week_or_gone_and_none_is_told_twice(weeks: list) -> None:
    result = after(*weeks)
    above = {one.key for one in result.findings if one.level != "note"}
    seen: set[tuple[str, str, str]] = set()
    for line in news(result):
        keys = set(line.explains)
        assert keys
        assert not keys & seen
        seen |= keys
        of_signals = line.kind in ("course", "doubt") or line.explains[0][0] == "week_kind"
        assert (line.kind == "eased" or of_signals) == keys.isdisjoint(above)
        assert bool(line.ask) == (line.kind == "standing" or of_signals)
        assert line.since <= WEEK
