"""What is new, worse, stands or has eased, against the last comparable weeks."""

from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import Audit, audit
from dialback.core.verdict import News, news
from tests.build import WEEK, book, session, sets
from tests.properties import tried

PAIR = "horizontal_push_pull"
RULES: dict[str, Any] = {
    "balance_bands": {"horizontal_push_pull": [0.5, 1.5]},
    "balance_min_sets": 4,
    "muscle_bands": {},
    "order": "any",
}


def after(*weeks: list[list[dict]], **more: Any) -> Audit:
    """The audit of the last of several weeks, each with one session on Wednesday."""
    done = [
        session(7 * (at + 1 - len(weeks)) + 2, *one, **more.get(f"week_{at}", {}))
        for at, one in enumerate(weeks)
    ]
    return audit(book(done, rules=RULES).ledger(), WEEK)


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


def test_what_was_at_a_lower_level_is_worse() -> None:
    (line,) = told(after(EVEN, EVEN, LEANS, LEANS_MORE))
    assert (line.kind, line.level) == ("worse", "high")


def test_what_stands_for_weeks_is_one_line_and_one_question() -> None:
    (line,) = told(after(EVEN, LEANS, LEANS, LEANS, LEANS))
    assert (line.kind, line.since) == ("standing", WEEK.plus(-3))
    assert line.ask
    assert line.sentence.endswith(f"since {WEEK.plus(-3).said}.")
    # A gap begins it anew.
    assert told(after(LEANS, LEANS, EVEN, LEANS, LEANS)) == []


def test_what_has_gone_is_half_a_line() -> None:
    (line,) = told(after(EVEN, EVEN, LEANS, EVEN))
    assert (line.kind, line.level, line.causes) == ("eased", "note", ())
    assert "imbalance (horizontal push : horizontal pull)" in line.sentence


def test_a_lighter_week_is_not_compared_with() -> None:
    light = [sets("Press", 1), sets("Row", 1)]
    assert told(after(LEANS, LEANS, LEANS, light, LEANS))[0].kind == "standing"
    # And nothing has eased in one.
    assert not [one for one in news(after(LEANS, LEANS, LEANS, light)) if one.kind == "eased"]


def test_a_day_is_the_same_day_of_another_week() -> None:
    full = [sets(name, 1) for name in ("Press", "Row", "Squat", "Hinge", "Curl")]
    rules = {**RULES, "session_movements": 3}
    done = [session(7 * back + 2, *full) for back in (-3, -2, -1, 0)]
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
    hurt = {"pain": [{"exercise": "Row", "note": "elbow"}]}
    for weeks in (2, 3, 4):
        hurting = {f"week_{at}": hurt for at in range(5 - weeks, 5)}
        first = news(after(EVEN, EVEN, EVEN, EVEN, LEANS_MORE, **hurting))[0]
        assert [key[0] for key in first.explains] == ["pain"]
        assert (first.kind, first.since) == ("standing", WEEK.plus(-min(weeks - 1, 3)))
        assert "restriction" in first.ask


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
        assert (line.kind == "eased") == keys.isdisjoint(above)
        assert bool(line.ask) == (line.kind == "standing")
        assert line.since <= WEEK
