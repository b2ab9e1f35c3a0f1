"""What the verdict and a proposal say: whole sets, loads that exist, plain words."""

from dialback.core.adjusting import Options, adjust
from dialback.core.causes import causes
from dialback.core.rules import Rules
from dialback.core.undo import strayed_from_plan
from tests.build import WEEK, audited, book, remedy, session, sets

FREE = {"muscle_bands": {muscle: [0, 100] for muscle in Rules().muscle_bands}}
LAST = session(13, sets("Stretch"))


def told(plan: list[dict], *done: dict) -> dict[tuple[str, str], str]:
    result = audited(*done, LAST, planned=plan)
    return {(one.code, one.subject): one.sentence for one in strayed_from_plan(result)}


def test_what_happened_is_said_as_a_coach_would() -> None:
    plan = [session(0, sets("Press", 3, load_kg=40), sets("Row", 3, load_kg=40), title="Push day")]
    assert told(plan)["missed", "2026-10-05"] == "Push day of Monday was missed."
    short = session(0, sets("Press", 3, load_kg=40), sets("Row", 1, load_kg=40))
    assert told(plan, short)["short", "2026-10-05"] == "Monday was cut short: Row 2 sets not done."
    hurt = {**short, "pain": [{"exercise": "Row", "note": "left elbow"}]}
    assert told(plan, hurt)["pain", "2026-10-05"] == (
        "Something hurt on Monday at Row (“left elbow”); Row 2 sets not done."
    )
    curls = session(0, sets("Press", 3, load_kg=40), sets("Curl", 3, load_kg=10))
    assert told(plan, curls)["swapped", "Row"] == "Curl was done instead of Row (3 sets)."
    heavy = session(0, sets("Press", 3, load_kg=44), sets("Row", 3, load_kg=40))
    assert told(plan, heavy)["changed", "2026-10-05"] == (
        "Monday differed from the plan: Press: 44 kg instead of 40 kg (+10 %) (3 sets)."
    )
    more = session(0, sets("Press", 5, load_kg=40), sets("Row", 3, load_kg=40))
    assert told(plan, more)["extra", "2026-10-05"] == "Monday: Press 2 sets beyond the plan."


def test_a_remedy_is_whole_sets_and_loads_that_the_kit_has() -> None:
    kit = {"dumbbells_kg": [10, 12, 14, 16, 18, 20]}
    movements = [
        {
            "name": "Row",
            "pattern": "horizontal_pull",
            "kit": ["dumbbells"],
            "muscles": {"lats": "direct", "biceps": "indirect"},
        }
    ]
    weeks = [session(-7, sets("Row", 8, load_kg=16)), session(0, sets("Row", 11, load_kg=20))]
    result = audited(*weeks, exercises=movements, kit=kit, rules=FREE)
    by_code = {(one.code, one.subject): one for one in result.findings}
    step = by_code["load_step", "Row"]
    assert "(+4 kg, +25 %)" in step.sentence
    assert step.clears == "More reps at the old load first: the kit has nothing between."
    jump = by_code["jump", "total"]
    assert jump.measure in ("sets", "tut_s", "volume_load_kg")
    lats = by_code["jump", "lats"]
    assert "from 8 sets to 11 sets (+3 sets, +37.5 %)" in lats.sentence
    assert remedy(result, "jump", "lats") == "2 fewer sets of Row would be within the limit."


def test_a_cause_of_several_names_them_and_one_of_one_speaks_for_itself() -> None:
    result = audited(session(0, sets("Squat", 2)), rules={"balance_min_sets": 50})
    (cause,) = [one for one in causes(result) if one.code == "muscle_floor"]
    assert cause.sentence.startswith("Below the floor: ")
    assert cause.sentence.endswith("more.")
    alone = audited(
        session(0, sets("Squat", 2)),
        rules={
            **FREE,
            "muscle_bands": {**FREE["muscle_bands"], "quads": [4, 20]},
            "balance_min_sets": 50,
        },
    )
    (cause,) = causes(alone)
    assert cause.sentence == alone.findings[-1].sentence


def test_a_proposal_says_what_each_change_is_for() -> None:
    plan = [session(0, sets("Press", 8), sets("Row", 4))]
    found = adjust(book([], plan, rules=FREE).ledger(), WEEK, Options(new_movements=0))
    assert found.changes
    for one in found.changes:
        assert one.because
        assert " on Monday: " in one.sentence
    assert any("push : pull from 2 to " in one.sentence for one in found.changes)
