"""One span of weeks beside another: means, movements, findings that came and went."""

import pytest

from dialback.core.across import Across, Mean, Span, across
from dialback.core.tally import Ledger
from tests.build import WEEK, book, session, sets

BEFORE = Span("Base", tuple(WEEK.plus(-back) for back in (7, 6, 5, 4)))
AFTER = Span("Build", tuple(WEEK.plus(-back) for back in (3, 2, 1, 0)))


def found(later: list[dict], *, running: int = 1, planned: list[dict] | None = None) -> Across:
    """Four weeks of presses and rows alike, then the later ones."""
    base = [
        session(-7 * back, sets("Press", 4, load_kg=40), sets("Row", 4)) for back in range(4, 8)
    ]
    ledger: Ledger = book([*base, *later], planned).ledger()
    return across(ledger, BEFORE, AFTER, WEEK.plus(running))


def named(rows: tuple[Mean, ...]) -> dict[str, tuple[float | None, float | None]]:
    return {one.name: (one.before, one.after) for one in rows}


def more(weeks: int) -> list[dict]:
    return [
        session(-7 * back, sets("Press", 8, load_kg=45), sets("Row", 4)) for back in range(weeks)
    ]


def test_a_mean_is_of_the_weeks_that_were_trained() -> None:
    result = found(more(2))
    assert named(result.measures)["Sets"] == (8, 12)
    assert result.measures[0].change == pytest.approx(0.5)
    assert named(result.muscles)["Chest"] == (4, 8)
    assert "Lats" not in named(result.muscles)


def test_what_moves_most_stands_first_and_what_is_gone_last() -> None:
    result = found([session(0, sets("Press", 8), sets("Squat", 1))])
    names = [one.name for one in result.muscles]
    assert names[0] == "Chest"
    assert named(result.muscles)["Lats"] == (4, 0)
    assert set(names[-2:]) == {"Upper back", "Lats"}


def test_movements_of_the_last_week_that_has_some() -> None:
    result = found(more(3))
    (press,) = result.movements
    assert (press.movement, press.sets_before, press.sets_after) == ("Press", 4, 8)
    assert found([]).movements[0].sets_after == 0


def test_findings_that_came_went_and_stayed() -> None:
    result = found(more(4))
    came = result.told(before=False, after=True)
    assert [line for line in came if line.endswith("push : pull, in 4 weeks")]
    # Eight sets a week are enough for the chest, four were not.
    assert result.told(before=True, after=False) == ["Below the minimum: chest, in 4 weeks before"]
    # Half of the muscles have never had a set.
    assert any(
        line.endswith("4 weeks before, 4 weeks now")
        for line in result.told(before=True, after=True)
    )
    usual = (sets("Press", 4, load_kg=40), sets("Row", 4))
    same = found([session(-7 * back, *usual) for back in range(4)])
    assert same.told(before=False, after=True) == []


def test_weeks_ahead_count_as_they_are_planned() -> None:
    plan = [session(0, sets("Press", 10, load_kg=40), sets("Row", 10))]
    result = found(more(0), running=0, planned=plan)
    assert result.planned == 1
    assert named(result.measures)["Sets"] == (8, 20)


def test_nothing_on_either_side_is_no_figure() -> None:
    result = found([])
    assert named(result.measures)["Sets"] == (8, None)
    assert result.measures[0].change is None
