"""The club into the data file: books, notes, and what the coach has judged so far."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from dialback.book.signed_document import signed_document
from dialback.core.audit import audit
from dialback.core.notation import Change
from dialback.core.plans.kept import kept_in
from dialback.core.plans.sheet import laid, sheet_from, sheet_of
from dialback.core.sessions import Goal
from dialback.core.weeks import Week
from dialback.demo.boards import BOARDS, ROOM
from dialback.demo.club import CLUB, COACH, ROWERS, Rower
from dialback.demo.generate import books
from dialback.store.athletes import Ledgers, house, import_book
from dialback.store.blocks import place_block, save_template
from dialback.store.database import mark_as_demo
from dialback.store.goals import add_goals
from dialback.store.models import Acceptance, Athlete, House, Signature, Template
from dialback.store.persons import delete_person
from dialback.store.plans import put_down
from dialback.store.unit import touch_house, unit

_ACCEPTED = {
    ("Lisbet Arnaud", "balance", "vertical_push_pull"): "No pressing overhead until the "
    "physiotherapist lifts it.",
    ("Lisbet Arnaud", "muscle_floor", "triceps"): "Elbow first; the rows keep it moving.",
}
_TEMPLATES = (
    ("Land, three days", "Anselm Brook"),
    ("Circuits", "Ondra Pell"),
    ("At home with bands", "Jory Castelin"),
    ("Bench winter", "Maro Veldt"),
)
BLOCK_WEEKS = 4
BLOCK_STEP = Change(load=0.025)
_BEHIND = 3
"""The coach signs most weeks; so many of the rowers still wait for last week's signature."""


def load_demo(today: date) -> int:
    """Store the whole club in one transaction; the number of rowers."""
    week = Week.to_audit(today)
    ledgers = Ledgers()
    written = list(books(today))
    with unit() as entry:
        was = house()
        begun = {"name": was.name, "kit": was.kit}
        House.update(kit=ROOM, kit_revision=House.kit_revision + 1, name=CLUB).execute()
        numbers = []
        for number, (book, rower) in enumerate(written):
            athlete = import_book(book, today).athlete
            numbers.append(athlete.id)
            athlete.note, athlete.squad = rower.note, rower.squad
            athlete.save()
            signed = week.plus(_last_signed(rower, number))
            Signature.create(
                athlete=athlete,
                week=str(signed),
                name=COACH,
                day=signed.sunday + timedelta(days=1),
                document=_as_signed(athlete, ledgers, signed),
            )
            _accept(athlete, ledgers, week)
            _set_goal(athlete, rower, today)
            place_block(athlete, "First winter block", week.plus(1 - BLOCK_WEEKS), BLOCK_WEEKS)
            _plan_block(athlete, ledgers, week.plus(2), today)
        templates = _keep_templates(ledgers, week.plus(2))
        House.update(club={"athletes": numbers, "templates": templates, "was": begun}).execute()
        touch_house()
        entry.tell("Loaded the made-up club")
    return len(ROWERS)


def club_here() -> list[Athlete]:
    """Who of the made-up club is in the data file, archived or not."""
    club = house().club
    if club is None:
        return []
    return list(Athlete.select().where(Athlete.id.in_(club["athletes"])).order_by(Athlete.name))


def remove_demo() -> None:
    """Delete the club's athletes and templates for good; whoever was added stays.

    The house's name and kit are what they were before, where they are still the club's.
    """
    with unit() as entry:
        owner = house()
        club = owner.club
        for athlete in club_here():
            delete_person(athlete)
        Template.delete().where(Template.id.in_(club["templates"])).execute()
        if owner.name == CLUB:
            owner.name = club["was"]["name"]
        if owner.kit == ROOM:
            owner.kit = club["was"]["kit"]
            owner.kit_revision += 1
        owner.club = None
        owner.save()
        touch_house()
        mark_as_demo(made=False)
        entry.tell("Removed the made-up club")


def _last_signed(rower: Rower, number: int) -> int:
    """The last week that the coach has signed: one with training in it."""
    last = -2 if number < _BEHIND else -1
    # Whoever is away has nothing to sign.
    return last if 0 not in rower.absent else min(rower.absent) - 1


def _set_goal(athlete: Athlete, rower: Rower, today: date) -> None:
    if rower.goal is not None:
        movement, load_kg, reps, weeks = rower.goal
        by = today + timedelta(weeks=weeks)
        goal = Goal(movement=movement, load_kg=load_kg, reps=reps, since=today, by=by)
        add_goals(athlete, [goal])


def _as_signed(athlete: Athlete, ledgers: Ledgers, week: Week) -> dict[str, Any]:
    """The week as the coach signed it on the day after."""
    day = week.sunday + timedelta(days=1)
    result = audit(ledgers.of(athlete), week, as_of=day)
    return signed_document(result, athlete.name, [], COACH, day)


def _plan_block(athlete: Athlete, ledgers: Ledgers, first: Week, today: date) -> None:
    """The coming block: next week's plan laid over four weeks, the last of them lighter.

    Every session of it is written in the notation; one of its second week is the coach's board.
    """
    ledger = ledgers.of(athlete)
    sheets = [sheet_of(plan, ledger.movements) for plan in kept_in(ledger, "planned", first)]
    place_block(athlete, "Second winter block", first, BLOCK_WEEKS)
    laid_down = [
        laid(
            sheet,
            7 * at,
            ledger.movements,
            BLOCK_STEP.times(at),
            ledger.kit,
            lighter_week=at == BLOCK_WEEKS - 1,
        )
        for at in range(BLOCK_WEEKS)
        for sheet in sheets
    ]
    title, text = BOARDS[athlete.name]
    day = sheets[0].day + timedelta(days=7)
    board = sheet_from(text, day, title, ledger.movements)
    put_down(athlete, ledger, [*(sheet for sheet in laid_down if sheet.day != day), board], today)


def _keep_templates(ledgers: Ledgers, week: Week) -> list[int]:
    """Keep some weeks as templates; their numbers."""
    numbers = []
    for name, rower in _TEMPLATES:
        athlete = Athlete.get(Athlete.name == rower)
        ledger = ledgers.of(athlete)
        plans = kept_in(ledger, "planned", week)
        numbers.append(save_template(name, plans, ledger.movements, week, 1).number)
    return numbers


def _accept(athlete: Athlete, ledgers: Ledgers, week: Week) -> None:
    reasons = {key[1:]: why for key, why in _ACCEPTED.items() if key[0] == athlete.name}
    if not reasons:
        return
    for finding in audit(ledgers.of(athlete), week).findings:
        reason = reasons.get((finding.code, finding.subject))
        if reason:
            Acceptance.create(
                athlete=athlete,
                week=str(week),
                basis="completed",
                code=finding.code,
                subject=finding.subject,
                measure=finding.measure,
                level=finding.level,
                value=finding.value,
                reason=reason,
                day=week.sunday,
            )


def everybody() -> list[str]:
    """The athletes in the data file, off the roster or on it."""
    return [athlete.name for athlete in Athlete.select().order_by(Athlete.id)]


def strangers() -> list[str]:
    """Those of them whom the demo has not made."""
    made = {rower.name for rower in ROWERS}
    return [name for name in everybody() if name not in made]
