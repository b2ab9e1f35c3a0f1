"""What a squad has in common, and that it takes nothing from anybody."""

from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from dialback.core.audit import audit
from dialback.core.squads import Member, SquadAudit, SquadCause, audit_squad, programmes
from dialback.core.squads.programmes import are_the_same
from tests.build import WEEK, book, restricted, session, sets
from tests.properties import tried

PUSH = [sets("Press", 8, rpe=8), sets("Row", 2, rpe=8)]
LEGS = [sets("Squat", 6, rpe=8), sets("Hinge", 6, rpe=8)]
PULL = [sets("Press", 2, rpe=8), sets("Row", 8, rpe=8)]


def plan(*days: tuple[int, str, list[list[dict]]]) -> list[dict]:
    return [session(day, *work, title=title) for day, title, work in days]


ONE = plan((0, "Upper", PUSH), (2, "Lower", LEGS))
OTHER = plan((0, "Back", PULL), (2, "Lower", LEGS))


def upper(press: int, row: int) -> list[dict]:
    """A week with so many sets of the two, and the legs as ever."""
    work = [sets("Press", press, rpe=8), sets("Row", row, rpe=8)]
    return plan((0, "Upper", work), (2, "Lower", LEGS))


def member(name: str, planned: list[dict], done: list[dict] | None = None, **more: Any) -> Member:
    """Somebody who did what was planned, unless it is said what."""
    athlete = {**restricted(*more.pop("under", ())), "name": name}
    read = book(planned if done is None else done, planned, athlete=athlete, **more)
    return Member(name, read.ledger())


def squad(planned: list[dict], *names: str, **more: Any) -> list[Member]:
    return [member(name, planned, **more) for name in names]


def named(result: SquadAudit, code: str) -> dict[str, SquadCause]:
    return {cause.subject: cause for cause in result.causes if cause.code == code}


def keys(cause: SquadCause) -> set[tuple[str, str, str, str]]:
    return {(one.athlete, *one.finding.key) for one in cause.explains}


LEANS = ("balance", "push_pull", "sets")


def test_sessions_are_the_same_by_title_and_by_two_thirds_both_ways() -> None:
    own = member("A", ONE).ledger
    (upper, lower) = own.source.week("planned", WEEK)

    def same(title: str, *work: list[dict]) -> bool:
        other = book(planned=[session(4, *work, title=title)]).ledger()
        (one,) = other.source.week("planned", WEEK)
        there = are_the_same(upper, own.movements, one, other.movements)
        assert are_the_same(one, other.movements, upper, own.movements) == there
        return there

    assert same(" uPPer ", *PUSH)
    assert not same("Other", *PUSH)
    # Seven of ten are two thirds; six are not.
    assert same("Upper", sets("Press", 7))
    assert not same("Upper", sets("Press", 6))
    # More than half as much again is another session, seen from its own side.
    assert same("Upper", *PUSH, sets("Curl", 5))
    assert not same("Upper", *PUSH, sets("Curl", 6))
    # A warm-up, conditioning and mobility are aside.
    assert same("Upper", *PUSH, sets("Curl", 9, warm_up=True), sets("Skip", 9, None, seconds=60))
    assert not are_the_same(lower, own.movements, upper, own.movements)


def test_untitled_sessions_are_nobodys_same() -> None:
    nameless = [{**one, "title": " "} for one in ONE]
    assert len(programmes(squad(nameless, "A", "B", "C"), WEEK)) == 3


def test_a_week_is_in_the_first_programme_that_it_fits_whole() -> None:
    moved = plan((1, "Lower", LEGS), (4, "Upper", PUSH))
    more = [*ONE, session(5, sets("Curl", 4), title="Arms")]
    only_mobility = [session(0, sets("Stretch", 3, None, seconds=60), title="Upper")]
    members = [
        member("A", ONE),
        member("B", more),
        member("C", [*moved, *only_mobility]),
        member("D", []),
        member("E", only_mobility),
    ]
    first, second = programmes(members, WEEK)
    assert [one.name for one in first.members] == ["A", "C"]
    assert [one.name for one in second.members] == ["B"]
    assert first.title == "Upper / Lower"
    # The sessions of whoever trains on other days stand in the places of the first one's.
    assert [one.title for one in first.stands[1].sessions] == ["Upper", "Lower"]
    assert [one.date.day for one in first.stands[1].sessions] == [9, 6]
    assert not first.is_shared


def test_what_a_shared_programme_raises_in_most_is_its_own() -> None:
    members = [*squad(ONE, "A", "B"), member("C", ONE, done=upper(6, 6)), member("Z", OTHER)]
    result = audit_squad(members, WEEK)
    (cause,) = result.causes
    assert (cause.code, cause.subject) == ("programme", "Upper / Lower")
    # C did otherwise: the plan leans, the week does not.
    assert cause.athletes == ("A", "B", "C")
    assert {key[0] for key in keys(cause) if key[1:] == LEANS} == {"A", "B"}
    assert "Z" not in cause.sentence
    assert "3 athletes share the programme Upper / Lower" in cause.sentence
    # Two are too few, however they lean.
    assert audit_squad(squad(ONE, "A", "B"), WEEK).causes == ()


def test_of_six_half_is_enough_and_two_are_not() -> None:
    leaning, calm = upper(9, 3), upper(6, 6)

    def explained(leaning_ones: int) -> set[str]:
        names = "ABCDEF"
        members = [
            member(name, leaning if at < leaning_ones else calm) for at, name in enumerate(names)
        ]
        result = audit_squad(members, WEEK)
        return {
            key[0]
            for cause in named(result, "programme").values()
            for key in keys(cause)
            if key[1:] == LEANS
        }

    assert len(programmes([member("A", leaning), member("B", calm)], WEEK)) == 1
    assert explained(3) == {"A", "B", "C"}
    assert explained(2) == set()


def test_a_day_of_a_programme_is_that_of_its_first_athlete() -> None:
    full = {"session_movements": 1}
    moved = plan((1, "Upper", PUSH), (3, "Lower", LEGS))
    members = [*squad(ONE, "A", "B", rules=full), member("C", moved, rules=full)]
    (cause,) = audit_squad(members, WEEK, "planned").causes
    days = {key[0]: key[2] for key in keys(cause) if key[1] == "overfull" and key[2] < "2026-10-07"}
    assert days == {"A": "2026-10-05", "B": "2026-10-05", "C": "2026-10-06"}


def test_a_band_that_most_are_outside_of_is_asked_about() -> None:
    members = [*squad(ONE, "A", "B", "C", "D"), *squad(OTHER, "V", "W")]
    result = audit_squad(members, WEEK)
    floors = named(result, "rule")
    cause = floors["muscle_floor/rear_delts"]
    assert len(cause.athletes) == 6
    assert cause.sentence == (
        "6 of 6 athletes are below the minimum for rear delts, on different programmes: is it "
        "the sessions, or the minimum?"
    )
    # Four lean to push and two to pull: neither way is two thirds of six and five of them.
    assert not [subject for subject in floors if subject == "balance/push_pull"]
    # All on one programme: then it is the programme.
    alone = audit_squad(squad(ONE, *"ABCDEF"), WEEK)
    assert not named(alone, "rule")
    assert ("A", "muscle_floor", "rear_delts", "sets") in keys(
        named(alone, "programme")["Upper / Lower"]
    )


def test_what_happened_to_an_athlete_does_not_speak_against_a_rule() -> None:
    enough = upper(9, 14)
    away = [
        member(name, enough, done=[enough[1], session(6, sets("Stretch"))]) for name in ("X", "Y")
    ]
    little = plan((0, "Push", PUSH), (2, "Lower", LEGS))
    members = [*squad(ONE, *"ABC"), *squad(little, "V", "W"), *away]
    cause = named(audit_squad(members, WEEK), "rule")["muscle_floor/lats"]
    assert cause.athletes == ("A", "B", "C", "V", "W")
    assert cause.sentence.startswith("5 of 7 athletes are below the minimum for lats")
    # One fewer, and it is neither five nor two thirds.
    assert "muscle_floor/lats" not in named(audit_squad(members[1:], WEEK), "rule")


def test_pain_and_what_a_restriction_means_belong_to_none() -> None:
    spared = {"about": "muscle", "subject": "rear_delts"}
    hurt = [{**ONE[0], "pain": [{"exercise": "Press", "note": "x"}]}, ONE[1]]
    members = [
        *squad(ONE, "A", "B"),
        member("C", ONE, under=[spared]),
        member("D", ONE, done=hurt),
    ]
    result = audit_squad(members, WEEK)
    explained = {key for cause in result.causes for key in keys(cause)}
    assert not {key[1] for key in explained} & {"pain", "restriction"}
    floors = {key[0] for key in explained if key[1:3] == ("muscle_floor", "rear_delts")}
    assert floors == {"A", "B", "D"}


def test_a_day_that_several_missed() -> None:
    balanced = upper(10, 14)
    later = session(6, sets("Stretch"))
    gone = [balanced[0], later]
    names = ("A", "B", "C")
    missing = [member(name, balanced, done=gone) for name in names]
    there = squad([*balanced], "D", "E", "F", "G", "H", "I")
    result = audit_squad([*missing, *there], WEEK)
    cause = named(result, "day")["2026-10-07"]
    assert cause.athletes == names
    assert ("A", "missed", "2026-10-07", "sets") in keys(cause)
    assert cause.sentence.startswith("3 of 9 athletes missed Wed 7 Oct")
    # Fewer than a third of those who have something that day are three who missed it.
    assert not named(audit_squad([*missing, *there, member("J", balanced)], WEEK), "day")
    assert not named(audit_squad([*missing[:2], *there[:2]], WEEK), "day")
    assert not named(audit_squad([*missing, *there], WEEK, "planned"), "day")


def test_the_heaviest_stands_first() -> None:
    members = [*squad(ONE, "A", "B", "C", "D"), *squad(OTHER, "V", "W", "X")]
    result = audit_squad(members, WEEK)
    weights = [cause.weight for cause in result.causes]
    assert len(weights) > 2
    assert weights == sorted(weights, reverse=True)


WORK = st.sampled_from([ONE, OTHER, ONE[:1], [], plan((0, "Upper", LEGS), (3, "Lower", PUSH))])


@tried(15)
@given(st.lists(st.tuples(WORK, WORK), min_size=1, max_size=7), st.randoms())
def test_it_takes_nothing_from_anybody(weeks: list[tuple[list, list]], chance: Any) -> None:
    members = [
        member(f"Athlete {at}", planned, done=done) for at, (planned, done) in enumerate(weeks)
    ]
    result = audit_squad(members, WEEK)
    taken: set[tuple[str, ...]] = set()
    for cause in result.causes:
        assert cause.explains
        assert len(cause.athletes) >= 1
        # A finding is in one of them at most, above a note, and stands in that athlete's audit.
        assert not taken & keys(cause)
        taken |= keys(cause)
    for one, own in zip(members, result.audits, strict=True):
        alone = audit(one.ledger, WEEK)
        assert own.findings == alone.findings
        standing = {(one.name, *found.key) for found in own.findings if found.level != "note"}
        assert {key for key in taken if key[0] == one.name} <= standing
    assert audit_squad(members[:1], WEEK).causes == ()
    # Another order: the same findings have a cause, in causes that weigh as much.
    shuffled = list(members)
    chance.shuffle(shuffled)
    other = audit_squad(shuffled, WEEK)
    assert {key for cause in other.causes for key in keys(cause)} == taken
    assert sorted((one.code, one.weight) for one in other.causes) == sorted(
        (one.code, one.weight) for one in result.causes
    )
