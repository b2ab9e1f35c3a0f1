"""What asks for care about an athlete, and what the athlete weighed: kept with days."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date

from dialback.core.body import BodyWeight
from dialback.core.body import Weighing as CoreWeighing
from dialback.core.cautions import Care, care_on
from dialback.core.cautions import Caution as CoreCaution
from dialback.store.models import Athlete, Caution, Weighing

_COLUMNS = ("kind", "word", "by", "since", "ended_on")


def numbered_cautions(athlete: Athlete) -> dict[int, CoreCaution]:
    """The athlete's cautions by number, ended ones included, the latest first."""
    rows = (
        Caution.select()
        .where(Caution.athlete == athlete)
        .order_by(Caution.since.desc(), Caution.id.desc())
    )
    return {
        row.id: CoreCaution.model_validate(
            {**{name: getattr(row, name) for name in _COLUMNS}, **row.extra}
        )
        for row in rows
    }


def care_of(athlete: Athlete, day: date) -> list[Care]:
    """What to mind about an athlete on a day."""
    return care_on(day, numbered_cautions(athlete).values(), athlete.born)


def add_cautions(athlete: Athlete, cautions: Iterable[CoreCaution]) -> None:
    """Keep cautions, in an order that they come out in again."""
    for caution in reversed(list(cautions)):
        values = {name: getattr(caution, name) for name in _COLUMNS}
        Caution.create(athlete=athlete, extra=caution.model_extra or {}, **values)


def caution_row(athlete: Athlete, number: int) -> Caution | None:
    """The caution of that number."""
    found: Caution | None = Caution.get_or_none(Caution.id == number, Caution.athlete == athlete)
    return found


def numbered_weighings(athlete: Athlete) -> dict[int, CoreWeighing]:
    """What the athlete weighed from which day on, by number, the latest first."""
    rows = Weighing.select().where(Weighing.athlete == athlete).order_by(Weighing.date.desc())
    return {
        row.id: CoreWeighing.model_validate({"date": row.date, "kg": row.kg, **row.extra})
        for row in rows
    }


def add_weighings(athlete: Athlete, weighings: Iterable[CoreWeighing]) -> None:
    """Keep what an athlete weighed; of two on a day the later one."""
    for one in weighings:
        Weighing.delete().where(Weighing.athlete == athlete, Weighing.date == one.date).execute()
        Weighing.create(athlete=athlete, date=one.date, kg=one.kg, extra=one.model_extra or {})


def weighing_row(athlete: Athlete, number: int) -> Weighing | None:
    """The weighing of that number."""
    found: Weighing | None = Weighing.get_or_none(
        Weighing.id == number, Weighing.athlete == athlete
    )
    return found


def body_of(athlete: Athlete) -> BodyWeight:
    """What the athlete weighed on a day."""
    return BodyWeight.of(athlete.bodyweight_kg, numbered_weighings(athlete).values())
