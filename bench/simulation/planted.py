"""What is put into a year: faults that a coach wants to hear of, oddities that are nobody's fault.

Every function here changes a year from a week on and says what is to be found, and when it can be
seen for the first time.
"""

from __future__ import annotations

from collections.abc import Callable
from copy import deepcopy
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any, Final

from bench.simulation.year import FIRST, LIFTS, MAIN, SMALL, Session, Year

Expected = tuple[str, str]
"""Code and subject; an empty subject is any."""


@dataclass(frozen=True, slots=True)
class Planted:
    """A fault or an oddity: the weeks of the year it is in, and those in which it can be found."""

    kind: str
    first: int
    last: int
    visible: int = 0
    until: int = 0
    expected: frozenset[Expected] = frozenset()
    slow: bool = False


def _fault(
    kind: str,
    first: int,
    weeks: int,
    *expected: Expected,
    visible: int | None = None,
    until: int | None = None,
    slow: bool = False,
) -> Planted:
    seen = first if visible is None else visible
    end = (first + weeks - 1) if until is None else until
    return Planted(kind, first, first + weeks - 1, seen, end, frozenset(expected), slow)


def _working(sessions: list[Session]) -> list[dict[str, Any]]:
    return [one for session in sessions for one in session["sets"] if not one.get("warm_up")]


def _main(year: Year, at: int, *slots: str) -> str:
    """A main lift of the block that a week is in."""
    names = [name for day in year.programmes[year.block_of(at)] for name in day]
    wanted = [name for slot in slots or tuple(MAIN) for name in MAIN[slot] if name in names]
    return year.rng.choice(wanted)


def _log(year: Year, weeks: range, change: Callable[[int, list[Session]], None]) -> None:
    def logger(_: Year, at: int, made: list[Session]) -> None:
        if at in weeks:
            change(at, made)

    year.loggers.append(logger)


def _plan(year: Year, weeks: range, change: Callable[[int, list[Session]], None]) -> None:
    def planner(_: Year, at: int, made: list[Session]) -> None:
        if at in weeks:
            change(at, made)

    year.planners.append(planner)


def _more(sessions: list[Session], share: float, names: frozenset[str] | None = None) -> None:
    """Working sets times a share, line by line, the fractions carried on."""
    owed = 0.0
    for session in sessions:
        sets = []
        for one in session["sets"]:
            sets.append(one)
            if not one.get("warm_up") and (names is None or one["exercise"] in names):
                owed += share - 1
                while owed >= 1:
                    sets.append(dict(one))
                    owed -= 1
                if owed <= -1:
                    sets.pop()
                    owed += 1
        session["sets"] = sets


def _without(sessions: list[Session], names: frozenset[str]) -> None:
    for session in sessions:
        session["sets"] = [one for one in session["sets"] if one["exercise"] not in names]


PULLS: Final = frozenset((*MAIN["row"], *MAIN["pull"], *SMALL["rows"], *SMALL["rear"]))
PUSHES: Final = frozenset((*MAIN["bench"], *MAIN["press"], *SMALL["chest"]))
HIPS: Final = frozenset((*MAIN["hinge"], *SMALL["hip"]))
KNEES: Final = frozenset((*MAIN["squat"], *SMALL["knee"]))


# What is there at once.


def jump(year: Year, at: int) -> Planted:
    """A week with two thirds more sets than planned before."""
    _plan(year, range(at, at + 1), lambda _, made: _more(made, 1.7))
    return _fault("jump", at, 1, ("jump", ""), ("muscle_ceiling", ""))


def load_step(year: Year, at: int) -> Planted:
    """A main lift a quarter heavier than ever."""
    name = _main(year, at)

    def heavier(_: int, made: list[Session]) -> None:
        for one in _working(made):
            if one["exercise"] == name:
                step = LIFTS[name].step
                one["load_kg"] = round(one["load_kg"] * 1.28 / step) * step
                one["reps"] = max(2, one["reps"] - 2)

    _log(year, range(at, at + 1), heavier)
    return _fault("load step", at, 1, ("load_step", name))


def imbalance(year: Year, at: int) -> Planted:
    """Four weeks with less than half of the pulls."""
    _plan(year, range(at, at + 4), lambda _, made: _more(made, 0.45, PULLS))
    return _fault("imbalance", at, 4, ("balance", ""), until=at + 1)


def muscle_gone(year: Year, at: int) -> Planted:
    """Nothing for the back of the legs any more."""
    _plan(year, range(at, at + 5), lambda _, made: _without(made, HIPS))
    wanted = (("muscle_floor", "hamstrings"), ("balance", "knee_hip"),
              ("balance", "quads_hamstrings"))  # fmt: skip
    return _fault("muscle gone", at, 5, *wanted, until=at + 1)


def ceiling(year: Year, at: int) -> Planted:
    """Three weeks with more than twice the pulls and curls."""
    names = frozenset((*SMALL["biceps"], *PULLS))
    _plan(year, range(at, at + 3), lambda _, made: _more(made, 2.3, names))
    wanted = (("muscle_ceiling", ""), ("balance", ""), ("jump", ""))
    return _fault("ceiling", at, 3, *wanted, until=at + 1)


def missed(year: Year, at: int) -> Planted:
    """All but the first session of a week left out."""
    _log(year, range(at, at + 1), lambda _, made: made.__delitem__(slice(1, None)))
    return _fault("missed", at, 1, ("missed", ""))


def swapped(year: Year, at: int) -> Planted:
    """A squat done as a back extension."""
    name = _main(year, at, "squat")

    def swap(_: int, made: list[Session]) -> None:
        for one in _working(made):
            if one["exercise"] == name:
                one["exercise"] = "Good morning"
                one["load_kg"] = 20.0

    _log(year, range(at, at + 1), swap)
    return _fault("swapped", at, 1, ("swapped", name))


def _hurt(made: list[Session], name: str) -> None:
    for session in made:
        if any(one["exercise"] == name for one in session["sets"]):
            session["pain"] = [{"exercise": name, "note": "pulled up short"}]
            return


def pain(year: Year, at: int) -> Planted:
    """Something hurt at a main lift."""
    name = _main(year, at, "squat", "bench", "hinge")
    _log(year, range(at, at + 1), lambda _, made: _hurt(made, name))
    return _fault("pain", at, 1, ("pain", name))


def pain_again(year: Year, at: int) -> Planted:
    """The same movement hurt three weeks later."""
    name = _main(year, at, "squat", "bench", "hinge")
    for week in (at, at + 3):
        _log(year, range(week, week + 1), lambda _, made: _hurt(made, name))
    return _fault("pain again", at, 4, ("pain_again", name), visible=at + 3, until=at + 3)


def restricted(year: Year, at: int) -> Planted:
    """Presses though they are to be avoided."""
    since = FIRST.plus(at).monday.isoformat()
    until = FIRST.plus(at).sunday.isoformat()
    year.restrictions.append(
        {"about": "pattern", "subject": "horizontal_push", "by": "Dr Odell Marr", "since": since,
         "lifted_on": until, "lifted_by": "Dr Odell Marr"}
    )  # fmt: skip
    return _fault("restricted", at, 1, ("restriction", ""))


def no_warm_up(year: Year, at: int) -> Planted:
    """A heavy squat first thing, without a lighter set."""
    name = _main(year, at, "squat")

    def cold(_: int, made: list[Session]) -> None:
        for session in made:
            rest = [one for one in session["sets"] if one["exercise"] != name]
            own = [one for one in session["sets"]
                   if one["exercise"] == name and not one.get("warm_up")]  # fmt: skip
            session["sets"] = [*own, *rest]
            for one in own:
                one["load_kg"] = round(one["load_kg"] * 1.05 / 2.5) * 2.5

    _log(year, range(at, at + 1), cold)
    return _fault("no warm-up", at, 1, ("no_warm_up", name))


def order(year: Year, at: int) -> Planted:
    """Small muscles first."""

    def small_first(_: int, made: list[Session]) -> None:
        for session in made:
            session["sets"].reverse()

    _plan(year, range(at, at + 2), small_first)
    return _fault("order", at, 2, ("order", ""), until=at)


def spacing(year: Year, at: int) -> Planted:
    """The same session on two days in a row."""

    def crowd(_: int, made: list[Session]) -> None:
        if len(made) < 2:
            return
        first = made[0]
        again = deepcopy(first)
        on = date.fromisoformat(first["date"]) + timedelta(days=1)
        again["date"] = on.isoformat()
        made[1] = again
        _more(made[:2], 1.4)

    _plan(year, range(at, at + 1), crowd)
    return _fault("spacing", at, 1, ("spacing", ""), ("jump", ""))


def all_new(year: Year, at: int) -> Planted:
    """All movements changed in the middle of a block."""

    def renew(_: int, made: list[Session]) -> None:
        for one in [one for session in made for one in session["sets"]]:
            for several in (*MAIN.values(), *SMALL.values()):
                if one["exercise"] in several and len(several) > 1:
                    old = one["exercise"]
                    one["exercise"] = several[(several.index(old) + 1) % len(several)]
                    one["load_kg"] = year.load(one["exercise"], at)
                    break

    _plan(year, range(at, at + 2), renew)
    return _fault("all new", at, 2, ("carry_over", "total"), until=at)


def too_soon(year: Year, at: int) -> Planted:
    """Three weeks off, and back with more than before."""
    _log(year, range(at, at + 3), lambda _, made: made.clear())
    _plan(year, range(at, at + 3), lambda _, made: made.clear())
    _plan(year, range(at + 3, at + 4), lambda _, made: _more(made, 1.2))
    return _fault("too soon", at, 4, ("return", "total"), visible=at + 3, until=at + 3)


# Data in doubt.


def ten_times(year: Year, at: int) -> Planted:
    """A load with a nought too many."""
    name = _main(year, at)

    def slip(_: int, made: list[Session]) -> None:
        own = [one for one in _working(made) if one["exercise"] == name]
        if own:
            own[-1]["load_kg"] *= 10

    _log(year, range(at, at + 1), slip)
    return _fault("ten times", at, 1, ("doubt_load", name))


def eighty_reps(year: Year, at: int) -> Planted:
    """Reps with a nought too many."""
    name = _main(year, at)

    def slip(_: int, made: list[Session]) -> None:
        own = [one for one in _working(made) if one["exercise"] == name]
        if own:
            own[0]["reps"] *= 10

    _log(year, range(at, at + 1), slip)
    return _fault("eighty reps", at, 1, ("doubt_reps", name))


def pounds(year: Year, at: int) -> Planted:
    """A session's loads in pounds."""

    def in_pounds(_: int, made: list[Session]) -> None:
        for one in made[0]["sets"] if made else ():
            one["load_kg"] = round(one["load_kg"] / 0.4536 / 5) * 5.0

    _log(year, range(at, at + 1), in_pounds)
    return _fault("pounds", at, 1, ("doubt_unit", ""))


def twice(year: Year, at: int) -> Planted:
    """A session logged twice."""

    def again(_: int, made: list[Session]) -> None:
        if made:
            made.append(deepcopy(made[0]))

    _log(year, range(at, at + 1), again)
    return _fault("twice", at, 1, ("doubt_twice", ""))


def stranger(year: Year, at: int) -> Planted:
    """Somebody else's session."""
    foreign = ("Handstand press", "Dip", "Pull-up", "Hanging knee raise", "Kettlebell swing")

    def anothers(_: int, made: list[Session]) -> None:
        if made:
            made[-1]["sets"] = [
                {"exercise": name, "reps": 8, "rpe": 8} for name in foreign for _ in range(4)
            ]

    _log(year, range(at, at + 1), anothers)
    return _fault("stranger", at, 1, ("doubt_stranger", ""))


# What creeps, repeats, stalls.


def same_day(year: Year, at: int) -> Planted:
    """The same day missed in five weeks of six."""
    day = year.rng.randrange(year.sessions_a_week)

    def skip(week: int, made: list[Session]) -> None:
        on = year.on_day(week, day)
        made[:] = [one for one in made if one.get("plan", one["date"]) != on]

    for week in (at, at + 1, at + 3, at + 4, at + 5):
        _log(year, range(week, week + 1), skip)
    return _fault("same day", at, 6, ("missed_day", ""), visible=at + 4, until=at + 10, slow=True)


def apart(year: Year, at: int) -> Planted:
    """Less and less done of what is planned."""
    _log(
        year,
        range(at, at + 9),
        lambda week, made: _more(made, max(0.6, 0.95 - 0.06 * (week - at))),
    )
    return _fault("apart", at, 9, ("plan_drift", "total"), visible=at + 5, until=at + 12, slow=True)


def never_lighter(year: Year, at: int) -> Planted:
    """Fourteen weeks without a lighter one."""
    year.never_light = range(at, at + 14)
    begun = next(week for week in range(at - 1, -1, -1) if year.is_light(week) or not week)
    return _fault(
        "never lighter", at, 14, ("no_lighter", "total"), visible=begun + 9, until=begun + 16,
        slow=True,
    )  # fmt: skip


def stands_still(year: Year, at: int) -> Planted:
    """One lift that stands still while the others rise."""
    year.gain = 0.009
    name = _main(year, at, "squat", "bench", "hinge")
    year.stands[name] = at
    return _fault(
        "stands still", at, 16, ("lift_stands", name), visible=at + 7, until=at + 15, slow=True
    )


def to_failure(year: Year, at: int) -> Planted:
    """Three weeks with every set to failure."""

    def empty(_: int, made: list[Session]) -> None:
        for one in _working(made):
            one["rpe"] = 10

    _log(year, range(at, at + 3), empty)
    return _fault("to failure", at, 3, ("to_failure", "total"), visible=at + 1, slow=True)


def thinner(year: Year, at: int) -> Planted:
    """Body weight falling by seven per cent in eight weeks."""
    for week in range(at, at + 16):
        year.heavy[week] = 1 - 0.009 * min(8, week - at)
    return _fault(
        "thinner", at, 9, ("body_weight", "total"), visible=at + 5, until=at + 13, slow=True
    )


def unrated(year: Year, at: int) -> Planted:
    """RPE that is no longer written."""
    year.discipline = max(0.95, year.discipline)

    def blank(_: int, made: list[Session]) -> None:
        for session in made:
            session.pop("rpe", None)
            for one in session["sets"]:
                one.pop("rpe", None)

    _log(year, range(at, at + 6), blank)
    return _fault("unrated", at, 6, ("rpe_gone", "total"), visible=at + 1, slow=True)


def no_rest(year: Year, at: int) -> Planted:
    """Rests that shrink."""

    def hurry(week: int, made: list[Session]) -> None:
        for one in _working(made):
            one["rest_s"] = round(one["rest_s"] * max(0.6, 1 - 0.08 * (week - at + 1)))

    _log(year, range(at, at + 9), hurry)
    return _fault(
        "no rest", at, 9, ("rests_shorter", "total"), visible=at + 3, until=at + 9, slow=True
    )


def longer(year: Year, at: int) -> Planted:
    """Sessions that take longer and longer."""
    year.discipline = max(0.8, year.discipline)

    def drag(week: int, made: list[Session]) -> None:
        for session in made:
            if "duration_min" in session:
                share = 1 + min(0.45, 0.06 * (week - at + 1))
                session["duration_min"] = round(session["duration_min"] * share)

    _log(year, range(at, at + 10), drag)
    return _fault("longer", at, 10, ("longer", "total"), visible=at + 5, until=at + 12, slow=True)


def more_and_more(year: Year, at: int) -> Planted:
    """A thirtieth more sets every week."""
    _plan(year, range(at, at + 10), lambda week, made: _more(made, 1 + 0.033 * (week - at + 1)))
    return _fault(
        "more and more",
        at,
        10,
        ("creep", ""),
        ("jump", "total"),
        visible=at + 6,
        until=at + 13,
        slow=True,
    )


def leaning(year: Year, at: int) -> Planted:
    """Pulls that get fewer from week to week."""
    _plan(
        year,
        range(at, at + 13),
        lambda week, made: _more(made, max(0.4, 1 - 0.045 * (week - at + 1)), PULLS),
    )
    return _fault(
        "leaning", at, 13, ("ratio_drift", ""), ("balance", ""), visible=at + 6, until=at + 14,
        slow=True,
    )  # fmt: skip


def faster(year: Year, at: int) -> Planted:
    """Movements done faster while loads rise."""
    slow = (3, 3, 3, 2, 2, 2, 1, 1, 1, 1)

    def hurry(week: int, made: list[Session]) -> None:
        for one in _working(made):
            down = slow[min(len(slow) - 1, max(0, week - at))]
            one["tempo"] = f"{down}-0-1-0"

    _log(year, range(max(0, at - 6), at + 12), hurry)
    year.gain = max(year.gain, 0.006)
    return _fault(
        "faster", at, 12, ("tension_falls", "total"), visible=at + 6, until=at + 14, slow=True
    )


def harder(year: Year, at: int) -> Planted:
    """The same loads felt harder and harder."""
    year.discipline = max(0.95, year.discipline)

    def groan(week: int, made: list[Session]) -> None:
        for one in _working(made):
            if "rpe" in one:
                one["rpe"] = min(10.0, one["rpe"] + min(2.0, 0.3 * (week - at + 1)))

    _log(year, range(at, at + 9), groan)
    return _fault(
        "harder", at, 9, ("effort_rises", "total"), ("effort_drift", "total"),
        visible=at + 4, until=at + 11, slow=True,
    )  # fmt: skip


def one_side(year: Year, at: int) -> Planted:
    """A right side that falls behind."""

    def lean(week: int, made: list[Session]) -> None:
        for session in made:
            sets = []
            for one in session["sets"]:
                if one.get("sides") == "each" and not one.get("warm_up"):
                    less = round(one["reps"] * (1 - min(0.5, 0.05 * (week - at + 1))))
                    sets += [{**one, "sides": "left"}, {**one, "sides": "right", "reps": less}]
                else:
                    sets.append(one)
            session["sets"] = sets

    _log(year, range(at, at + 8), lean)
    return _fault(
        "one side", at, 8, ("side_gap_grows", ""), ("side_gap", ""), visible=at + 2,
        until=at + 9, slow=True,
    )  # fmt: skip


def pattern_gone(year: Year, at: int) -> Planted:
    """No vertical pull any more."""
    _plan(year, range(at, at + 7), lambda _, made: _without(made, frozenset(MAIN["pull"])))
    return _fault(
        "pattern gone", at, 7, ("gone", "vertical_pull"), visible=at + 2, until=at + 6, slow=True
    )


FAULTS: Final[tuple[Callable[[Year, int], Planted], ...]] = (
    jump, load_step, imbalance, muscle_gone, ceiling, missed, swapped, pain, pain_again,
    restricted, no_warm_up, order, spacing, all_new, too_soon, ten_times, eighty_reps, pounds,
    twice, stranger, same_day, apart, never_lighter, stands_still, to_failure, thinner, unrated,
    no_rest, longer, more_and_more, leaning, faster, harder, one_side, pattern_gone,
)  # fmt: skip


# Nobody's fault.


def test_week(year: Year, at: int) -> Planted:
    """A week of singles."""

    def heavy(week: int, made: list[Session]) -> None:
        for session in made:
            names = list(dict.fromkeys(one["exercise"] for one in _working([session])))[:2]
            session["sets"] = [
                {"exercise": name, "reps": reps,
                 "load_kg": round(year.load(name, week) * share / 2.5) * 2.5,
                 **({"warm_up": True} if share < 0.9 else {}), "rest_s": 180}
                for name in names
                for reps, share in ((5, 0.6), (3, 0.8), (1, 1.05), (1, 1.15), (1, 1.22))
            ]  # fmt: skip

    _plan(year, range(at, at + 1), heavy)
    if year.rng.random() < 0.6:
        year.kinds[at] = "test"
    return Planted("test week", at, at)


def travel(year: Year, at: int) -> Planted:
    """A week away, with nothing but the body."""
    away = ("Press-up", "Inverted row", "Split squat", "Glute bridge", "Front plank")

    def light(_: int, made: list[Session]) -> None:
        for session in made:
            session["sets"] = [
                {"exercise": name, "rest_s": 60,
                 **({"seconds": 40} if name == "Front plank" else {"reps": 15})}
                for name in away
                for _ in range(3)
            ]  # fmt: skip

    marked = year.rng.random() < 0.6
    (_plan if marked else _log)(year, range(at, at + 1), light)
    if marked:
        year.kinds[at] = "travel"
    return Planted("travel", at, at)


def overreach(year: Year, at: int) -> Planted:
    """An announced week of a third more."""
    _plan(year, range(at, at + 1), lambda _, made: _more(made, 1.35))
    year.kinds[at] = "overreach"
    return Planted("overreach", at, at)


def tempo_block(year: Year, at: int) -> Planted:
    """Three weeks of slow lowering with less load."""

    def slow(_: int, made: list[Session]) -> None:
        for one in _working(made):
            one["tempo"] = "4-1-1-0"
            one["load_kg"] = (
                round(one["load_kg"] * 0.8 / LIFTS[one["exercise"]].step)
                * LIFTS[one["exercise"]].step
            )

    _plan(year, range(at, at + 3), slow)
    if year.rng.random() < 0.6:
        for week in range(at, at + 3):
            year.kinds[week] = "tempo"
    return Planted("tempo block", at, at + 2)


def ill(year: Year, at: int) -> Planted:
    """A week in which nothing was done."""
    _log(year, range(at, at + 1), lambda _, made: made.clear())
    return Planted("ill", at, at + 1)


def like_swap(year: Year, at: int) -> Planted:
    """A movement done in place of one like it."""

    def swap(_: int, made: list[Session]) -> None:
        for one in _working(made):
            for of in ("rows", "biceps", "triceps", "rear"):
                several = SMALL[of]
                if one["exercise"] in several:
                    other = several[(several.index(one["exercise"]) + 1) % len(several)]
                    one["exercise"] = other
                    one["load_kg"] = year.load(other, at)
                    break

    _log(year, range(at, at + 1), swap)
    return Planted("like swap", at, at)


def taper(year: Year, at: int) -> Planted:
    """A marked taper."""
    _plan(year, range(at, at + 1), lambda _, made: _more(made, 0.5))
    year.kinds[at] = "taper"
    return Planted("taper", at, at + 1)


def skill(year: Year, at: int) -> Planted:
    """A marked week of practice, with fewer sets."""
    _plan(year, range(at, at + 1), lambda _, made: _more(made, 0.75))
    year.kinds[at] = "skill"
    return Planted("skill", at, at)


def easy_week(year: Year, at: int) -> Planted:
    """An easy week that nobody marked."""
    _plan(year, range(at, at + 1), lambda _, made: _more(made, 0.55))
    return Planted("easy week", at, at + 1)


ODDITIES: Final[tuple[Callable[[Year, int], Planted], ...]] = (
    test_week, travel, overreach, tempo_block, ill, like_swap, taper, skill, easy_week,
)  # fmt: skip
