"""Findings of the plan against the log: off it, missed, swapped; gaps in the log; pain."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterator

from dialback.core.baseline import TOLERANCE
from dialback.core.figures import TOTAL_SETS, in_total, of_movement
from dialback.core.findings.finding import AgainstPlan, Finding, WeekInHand, exceeds
from dialback.core.measures import MEASURES, TITLES
from dialback.core.movements import Movement, MovementTable
from dialback.core.reconcile import SessionMatch, SetMatch, missed_days
from dialback.core.sessions import Set
from dialback.core.tally import Entry
from dialback.core.vocabulary import WHOLE_WEEK
from dialback.core.words import amount_text, capital, movement_text


def off_plan_findings(week: WeekInHand) -> Iterator[Finding]:
    """The week's totals outside the allowed share of the plan: one finding, with its reasons.

    It is of the measure that is farthest outside; the sentence tells all that are.
    """
    against = week.against
    if against is None or not week.has_sets:
        return
    outside = []
    for measure in MEASURES:
        figure = in_total(measure)
        planned, done = against.tally.get(figure, 0.0), week.tally.get(figure, 0.0)
        share = done / planned if planned > 0 else 1.0
        for limit, apart in zip(
            week.rules.plan_band, _beyond(share, week.rules.plan_band), strict=True
        ):
            if exceeds(apart, 0):
                outside.append((apart, measure, share, limit, planned, done))
    if not outside:
        return
    _, measure, share, limit, planned, done = max(outside, key=lambda one: one[0])
    told = "; ".join(
        f"{amount_text(have, name)} done of {amount_text(want, name)} planned ({part * 100:.0f} %)"
        if name in ("sets", "reps")
        else f"{TITLES[name]} {amount_text(have, name, week.unit)} of "
        f"{amount_text(want, name, week.unit)} "
        f"({part * 100:.0f} %)"
        for _, name, part, _, want, have in outside
    )
    low, high = week.rules.plan_band
    sentence = f"{capital(told)}; {low * 100:.0f} to {high * 100:.0f} % of the plan is allowed."
    reasons = " ".join(f"{reason}." for reason in _reasons(against))
    apart = abs(done - planned * limit)
    yield Finding(
        "off_plan",
        WHOLE_WEEK,
        measure,
        "caution",
        share,
        limit,
        f"{sentence} {reasons}".strip(),
        f"{amount_text(apart, measure, week.unit)} {'less' if share > limit else 'more'} "
        "would be within.",
        tuple(in_total(name) for _, name, *_ in outside),
        amount=done,
        base=planned,
    )


def _beyond(share: float, band: tuple[float, float]) -> tuple[float, float]:
    """How far a share is below the lower and above the upper limit; 0 where it is within."""
    return max(0.0, band[0] - share), max(0.0, share - band[1])


MOST_REASONS = 4


def _reasons(against: AgainstPlan) -> list[str]:
    """Why a week strays from its plan: missed, not planned, more rounds, and whatever else."""
    whole: list[str] = []
    parts: list[str] = []
    for match in against.matches:
        if match.plan is not None and match.done is None:
            if match.elsewhere:
                whole.append(f"{match.plan.title or 'A session'} was done in another week")
                continue
            title = match.plan.title or "The session"
            whole.append(f"{title} of {match.plan.date:%A} was not done")
        elif match.plan is None and match.done is not None:
            title = match.done.title or "A session"
            whole.append(f"{title} on {match.done.date:%A} was not planned")
        elif match.done is not None:
            parts += [f"{match.done.date:%A}: {said}" for said in match.summary]
    left = len(whole) + len(parts) - MOST_REASONS
    more = [f"And {left} more"] if left > 0 else []
    return [*whole, *parts][:MOST_REASONS] + more


def missed_findings(week: WeekInHand) -> Iterator[Finding]:
    """Planned sessions whose day is over and that nothing was done for."""
    if week.against is None:
        return
    for day, plans in missed_days(week.against.matches).items():
        sets = sum(
            entry.measured.amounts[0]
            for entry in week.against.planned
            if any(entry.session is plan for plan in plans)
        )
        titles = " and ".join(plan.title or "the session" for plan in plans)
        yield Finding(
            "missed",
            day.isoformat(),
            "sets",
            "caution",
            sets,
            0,
            f"{capital(titles)} of {day:%A} {'was' if len(plans) == 1 else 'were'} not done: "
            f"{amount_text(sets, 'sets')} planned.",
            "A log of it, or a word on why; do not pile it onto the next session.",
            (TOTAL_SETS,),
            days=(day,),
            of_plan=True,
        )


def swapped_findings(week: WeekInHand) -> Iterator[Finding]:
    """Movements that others were done for; caution where pattern or a direct muscle changed."""
    against = week.against
    if against is None:
        return
    swaps: dict[str, list[tuple[SessionMatch, SetMatch]]] = defaultdict(list)
    for match in against.matches:
        for a_set in match.sets:
            if a_set.kind == "swapped" and a_set.plan is not None and a_set.done is not None:
                swaps[subject_of(a_set.plan, against.movements)].append((match, a_set))
    for planned, several in swaps.items():
        changed = "; ".join(
            dict.fromkeys(said for _, one in several if (said := _changed(one, against.movements)))
        )
        done = dict.fromkeys(movement_text(one.done) for _, one in several if one.done)
        names = dict.fromkeys(
            name for _, one in several if one.done for name, _ in one.done.named_moves()
        )
        days = tuple(dict.fromkeys(match.done.date for match, _ in several if match.done))
        yield Finding(
            "swapped",
            planned,
            "sets",
            "caution" if changed else "note",
            float(len(several)),
            0,
            f"{' and '.join(done)} was done instead of {planned}: {_sets(len(several))} on "
            f"{' and '.join(f'{day:%A}' for day in days)}"
            f"{f'; {changed}' if changed else ', the same pattern and direct muscles'}.",
            f"{planned} again, or {' and '.join(done)} in the plan.",
            tuple(of_movement(against.movements[name].name, "sets") for name in names),
            days=days,
        )


def subject_of(a_set: Set, movements: MovementTable) -> str:
    """A set's movement as a subject; of a combination its movements, joined by a plus."""
    return " + ".join(movements[name].name for name, _ in a_set.named_moves())


def _sets(count: int) -> str:
    return f"{count} set{'' if count == 1 else 's'}"


def _changed(match_: SetMatch, movements: MovementTable) -> str:
    assert match_.plan is not None and match_.done is not None  # noqa: S101, PT018 - a swap
    plans, dones = (
        [movements[name] for name, _ in side.named_moves()] for side in (match_.plan, match_.done)
    )
    said = []
    if {each.pattern for each in plans} != {each.pattern for each in dones}:
        said.append(f"{_patterns(dones)} instead of {_patterns(plans)}")
    lost = _direct(plans) - _direct(dones)
    if lost:
        said.append(f"nothing direct for {', '.join(sorted(lost)).replace('_', ' ')}")
    gained = _direct(dones) - _direct(plans)
    if gained and not lost:
        said.append(f"{', '.join(sorted(gained)).replace('_', ' ')} on top")
    return ", ".join(said)


def _patterns(movements: list[Movement]) -> str:
    return " and ".join(dict.fromkeys(movement.pattern.replace("_", " ") for movement in movements))


def _direct(movements: list[Movement]) -> set[str]:
    return {muscle for movement in movements for muscle in movement.direct}


def data_gap_findings(week: WeekInHand) -> Iterator[Finding]:
    """Loads, reps or exertion that the log lacks; sums that rest too much on estimates."""
    if week.against is None or not week.has_sets:
        return
    counted = [entry for entry in week.entries if entry.measured.shape.standing in ("hard", "easy")]
    tension = week.tally.get(in_total("tut_s"), 0.0)
    gaps = (
        (
            "rpe",
            _share(counted, lambda entry: entry.set.rpe is None),
            "have no exertion: hard and easy sets cannot be told apart",
            TOTAL_SETS,
        ),
        (
            "load_kg",
            _share(counted, _lacks_load),
            "have no load where the movement needs one: volume load comes out too low",
            in_total("volume_load_kg"),
        ),
        (
            "reps",
            _share(counted, lambda entry: entry.measured.estimated),
            "have reps that are estimated from their time",
            in_total("reps"),
        ),
    )
    for measure, share, says, figure in gaps:
        if exceeds(share, week.rules.gap_share):
            yield _gap(week, measure, share, f"{share * 100:.0f} % of the sets {says}.", figure)
    assumed = sum(
        entry.measured.credits.get(in_total("tut_s"), 0.0)
        for entry in counted
        if entry.measured.shape.assumed
        and entry.set.seconds is None
        and entry.set.measured_tension_s is None
    )
    share = assumed / tension if tension > TOLERANCE else 0.0
    if exceeds(share, week.rules.gap_share):
        says = f"{share * 100:.0f} % of the tension rests on an assumed tempo."
        yield _gap(week, "tut_s", share, says, in_total("tut_s"))


def _share(entries: list[Entry], lacks: Callable[[Entry], bool]) -> float:
    return sum(lacks(entry) for entry in entries) / len(entries) if entries else 0.0


def _lacks_load(entry: Entry) -> bool:
    one = entry.set
    if one.load_kg or one.band:
        return False
    return all(
        not move.movement.bodyweight_share
        and not move.movement.isometric
        and bool(
            {"bar", "dumbbells", "kettlebell", "cable stack", "machine"} & set(move.movement.kit)
        )
        for move in entry.measured.shape.moves
    )


def _gap(week: WeekInHand, measure: str, share: float, sentence: str, figure: str) -> Finding:
    return Finding(
        "data_gap",
        WHOLE_WEEK,
        measure,
        "note",
        share,
        week.rules.gap_share,
        sentence,
        "Log what is missing; until then read these figures with care.",
        (figure,),
    )


def pain_findings(week: WeekInHand) -> Iterator[Finding]:
    """Where an athlete stopped because something hurt."""
    against = week.against
    if against is None:
        return
    notes: dict[str, list[str]] = defaultdict(list)
    figures: dict[str, str] = {}
    for match in against.matches:
        for pain in match.done.pain if match.done else ():
            name = _known_name(pain.exercise, against.movements)
            subject = name or pain.exercise or "session"
            figures[subject] = of_movement(name, "sets") if name else TOTAL_SETS
            assert match.done is not None  # noqa: S101 - it has the pain
            said = f"“{pain.note}”" if pain.note else "no word on where"
            notes[subject].append(f"{match.done.date:%A}, {said}")
    for subject, several in notes.items():
        where = f"at {subject}" if subject != "session" else "in a session"
        yield Finding(
            "pain",
            subject,
            "sets",
            "high",
            float(len(several)),
            0,
            f"Stopped {where} because something hurt: {'; '.join(several)}.",
            "Talk to the athlete before the next session; pain is for a licensed practitioner, "
            "not for a number.",
            (figures[subject],),
        )


def _known_name(name: str | None, movements: MovementTable) -> str | None:
    return movements[name].name if name is not None and name in movements else None
