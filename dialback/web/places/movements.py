"""Movements: what the house knows, to find, to read, to change and to add.

A movement that is changed counts the new way in every audit, the past ones too: a week and its
baseline must be counted alike, or the change between them would be one of counting. What that
alters is shown before it is kept.
"""

from __future__ import annotations

from collections.abc import Container, Iterable

from flask import Response

from dialback.core.figures import TOTAL_SETS, in_total
from dialback.core.findings.difference import difference
from dialback.core.findings.finding import Finding
from dialback.core.kit import Kit, lacks
from dialback.core.movements import Movement, MovementTable
from dialback.core.rules import RULES
from dialback.core.verdict import by_urgency
from dialback.core.vocabulary import CLASSES, MUSCLES, PATTERNS
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, athletes
from dialback.store.judgements import signed_weeks
from dialback.store.kit import the_kit
from dialback.store.movements import (
    check_movement,
    has_own_movement,
    house_movements,
    sets_by_athlete,
    sets_by_basis,
)
from dialback.store.naming import keepers, standing
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, judged_week
from dialback.web.shapes.common import Done
from dialback.web.shapes.movements import (
    LikeBody,
    MovementBody,
    MovementEffect,
    MovementEffectSheet,
    MovementOut,
    MovementPath,
    MovementsOut,
    NameBody,
    NameEffect,
    ProgressChoice,
)
from dialback.web.sheet import finding_out
from dialback.work import catalogue

api = blueprint("movements", __name__, "/movements")

WEEKS_LOOKED_AT = 8
"""How far back the effect of a changed movement is worked out."""


@api.get("", responses={200: MovementsOut})
def movements() -> Response:
    """The movements of the house, by name."""
    kit = the_kit()
    return answer(
        MovementsOut(
            movements=[_out(number, one, kit) for number, one in house_movements()],
            patterns=list(PATTERNS),
            muscles=list(MUSCLES),
            progress=[
                ProgressChoice(value=value, meaning=meaning)
                for rule in RULES
                if rule.name == "progress"
                for value, meaning in rule.choices
                if value is not None
            ],
        )
    )


def _out(number: int, movement: Movement, kit: Kit | None) -> MovementOut:
    class_of = {pattern: name for name, patterns in CLASSES.items() for pattern in patterns}
    return MovementOut(
        id=number,
        name=movement.name,
        pattern=movement.pattern,
        side=class_of.get(movement.pattern),
        compound=movement.compound,
        direct=list(movement.direct),
        indirect=[muscle for muscle, role in movement.muscles.items() if role != "direct"],
        bodyweight_share=movement.bodyweight_share,
        tempo=movement.tempo,
        isometric=movement.isometric,
        one_sided=movement.one_sided,
        aliases=list(movement.aliases),
        easier=movement.easier,
        harder=movement.harder,
        progress=movement.progress,
        kit=list(movement.kit),
        no_kit=kit is not None and lacks(kit, movement),
    )


@api.post("", responses={201: MovementOut})
def add_movement(body: MovementBody) -> Response:
    """Add a movement to the house."""
    return answer(_out(catalogue.add(body.movement), body.movement, the_kit()), 201)


@api.post("/like", responses={201: MovementOut})
def add_movement_like(body: LikeBody) -> Response:
    """Add a movement that is like one that is there."""
    number, movement = catalogue.add_like(body.name, body.like, body.level)
    return answer(_out(number, movement, the_kit()), 201)


@api.post("/<int:movement>/effect", responses={200: MovementEffect})
def movement_effect(path: MovementPath, body: MovementBody) -> Response:
    """What a changed movement would alter in the audits of the last weeks; nothing is stored."""
    row, old = catalogue.the_movement(path.movement)
    new = catalogue.with_its_name(body.movement, old)
    check_movement(new, catalogue.house_table(), new=False)
    used = sets_by_athlete(row)
    return answer(
        MovementEffect(
            athletes=len(used),
            sets=sum(used.values()),
            weeks_looked_at=WEEKS_LOOKED_AT,
            sheets=_sheets(used, old, new),
        )
    )


@api.post("/<int:movement>/naming", responses={200: NameEffect})
def name_effect(path: MovementPath, body: NameBody) -> Response:
    """What another name of a movement would change; nothing is stored."""
    wanted = catalogue.naming(path.movement, body.name)
    used = sets_by_basis(wanted.row)
    there = standing(wanted.old.name)
    merged = wanted.into and wanted.into[1]
    as_merged = merged and merged.model_copy(update={"name": wanted.old.name})
    whose = {athlete for athlete, _ in used}
    return answer(
        NameEffect(
            into=merged.name if merged else None,
            planned=sum(count for (_, basis), count in used.items() if basis == "planned"),
            done=sum(count for (_, basis), count in used.items() if basis == "completed"),
            athletes=len(whose),
            maxima=there["maximum"],
            goals=there["goal"],
            restrictions=there["restriction"],
            judged=there["acceptance"] + there["decision"],
            drafts=there["draft"],
            keeps=sorted(keepers(wanted.old.name).values()),
            sheets=_sheets(whose, wanted.old, as_merged) if as_merged else [],
            weeks_looked_at=WEEKS_LOOKED_AT,
        )
    )


def _sheets(used: Container[int], old: Movement, new: Movement) -> list[MovementEffectSheet]:
    """The week sheets of those who use a movement that it alters to count it otherwise."""
    if old.counts_like(new):
        return []
    return [
        sheet for athlete in athletes() if athlete.id in used for sheet in _altered(athlete, new)
    ]


@api.put("/<int:movement>/name", responses={200: MovementOut})
def give_name(path: MovementPath, body: NameBody) -> Response:
    """Give a movement another name, or make one of it and the movement of that name."""
    number = catalogue.give_name(path.movement, body.name)
    return answer(_out(number, catalogue.the_movement(number)[1], the_kit()))


def _altered(athlete: Athlete, new: Movement) -> Iterable[MovementEffectSheet]:
    ledger = desk().ledgers.of(athlete)
    if has_own_movement(athlete, new.name):
        # The athlete's own movement of that name counts as it did.
        return
    other = ledger.but(movements=MovementTable([*ledger.movements, new]))
    last = Week.to_audit(desk().today())
    signed = signed_weeks(athlete)
    for week in (last.plus(-back) for back in range(WEEKS_LOOKED_AT)):
        before, after = judged_week(ledger, week), judged_week(other, week)
        changes = difference(before.findings, after.findings)
        moved = {name: after.value(name) - before.value(name) for name in _FIGURES}
        if changes.cleared or changes.appeared or any(abs(one) > 1e-9 for one in moved.values()):
            yield MovementEffectSheet(
                athlete=athlete.id,
                name=athlete.name,
                week=str(week),
                signed=week in signed,
                cleared=_labels(changes.cleared),
                appeared=_labels(changes.appeared),
                sets=moved[TOTAL_SETS],
                volume_load_kg=moved[in_total("volume_load_kg")],
                tut_s=moved[in_total("tut_s")],
            )


_FIGURES = (TOTAL_SETS, in_total("volume_load_kg"), in_total("tut_s"))


def _labels(findings: Iterable[Finding]) -> list[str]:
    shown = (finding_out(finding, {}) for finding in by_urgency(list(findings)))
    return [f"{finding.title}: {finding.label}" for finding in shown]


@api.put("/<int:movement>", responses={200: MovementOut})
def save_movement(path: MovementPath, body: MovementBody) -> Response:
    """Change a movement; every audit counts it the new way from now on."""
    changed = catalogue.change(path.movement, body.movement)
    return answer(_out(path.movement, changed, the_kit()))


@api.delete("/<int:movement>", responses={200: Done})
def remove_movement(path: MovementPath) -> Response:
    """Take a movement of the coach's own away that nothing uses."""
    catalogue.remove(path.movement)
    return answer(Done())
