"""House rules: every rule with its argument, and what a change would do to the open week."""

from __future__ import annotations

import time
from collections.abc import Mapping
from datetime import date
from typing import Any, Final

from flask import Response

from dialback.core.findings.difference import difference
from dialback.core.once import Once
from dialback.core.rules import (
    DEFAULT_RULES,
    PRESET_WORDS,
    PRESETS,
    RULES,
    Rules,
    choices_of_school,
    merge,
)
from dialback.core.verdict import by_urgency
from dialback.core.weeks import Week
from dialback.store.athletes import Athlete, athletes, house
from dialback.web.blueprint import blueprint
from dialback.web.columns import last_week_done
from dialback.web.desk import answer, desk, judged_week, the_athlete, the_week
from dialback.web.shapes.common import AthletePath, Done, Revision, WeekPath
from dialback.web.shapes.rules import (
    AthleteEffect,
    Choice,
    PresetOut,
    PreviewAllBody,
    PreviewAllOut,
    PreviewBody,
    PreviewOut,
    RuleOut,
    RuleRow,
    RulesOut,
    SaveRulesBody,
    SchoolBody,
    SchoolName,
)
from dialback.web.sheet import finding_out
from dialback.work import house as work

api = blueprint("rules", __name__)

ANSWER_S: Final = 0.7
"""So long an answer goes on counting; the rest comes with the next one. The coach sees it grow."""


@api.get("/rules", responses={200: RulesOut})
def house_rules() -> Response:
    """The rules of the house."""
    owner = house()
    return answer(_rules_out(owner.rules, {}, owner.revision, owner.rules))


@api.get("/athletes/<int:athlete_id>/rules", responses={200: RulesOut})
def athlete_rules(path: AthletePath) -> Response:
    """The rules in force for an athlete: the house's, and the athlete's own."""
    athlete = the_athlete(path.athlete_id)
    return answer(_rules_out(house().rules, athlete.rules, athlete.revision, athlete.rules))


@api.put("/rules", responses={200: Revision})
def save_house_rules(body: SaveRulesBody) -> Response:
    """Keep the house's choices."""
    return answer(Revision(revision=work.keep_house_rules(body.chosen, body.revision)))


@api.put("/athletes/<int:athlete_id>/rules", responses={200: Revision})
def save_athlete_rules(path: AthletePath, body: SaveRulesBody) -> Response:
    """Keep an athlete's own choices."""
    revision = work.keep_athlete_rules(path.athlete_id, body.chosen, body.revision)
    return answer(Revision(revision=revision))


@api.post("/athletes/<int:athlete_id>/weeks/<week>/rules/preview", responses={200: PreviewOut})
def preview_rules(path: WeekPath, body: PreviewBody) -> Response:
    """Which findings of the week would come and go under other choices; nothing is stored."""
    athlete, week = the_athlete(path.athlete_id), the_week(path.week)
    if body.scope == "house":
        work.rules_of_choices(body.chosen, {})
        rules = merge(body.chosen, athlete.rules)
    else:
        rules = work.rules_of_choices(body.chosen, house().rules)
    before = judged_week(desk().ledgers.of(athlete), week, body.basis).findings
    after = judged_week(desk().ledgers.under(athlete, rules), week, body.basis).findings
    changes = difference(before, after)
    return answer(
        PreviewOut(
            before=len(before),
            after=len(after),
            cleared=[finding_out(finding, {}) for finding in by_urgency(changes.cleared)],
            appeared=[finding_out(finding, {}) for finding in by_urgency(changes.appeared)],
            changed=[finding_out(finding, {}) for finding in by_urgency(changes.changed)],
        )
    )


@api.post("/rules/preview", responses={200: PreviewAllOut})
def preview_for_all(body: PreviewAllBody) -> Response:
    """What the house's choices would do to everybody's last week; nothing is stored."""
    work.rules_of_choices(body.chosen, {})
    today = desk().today()
    latest = Week.to_audit(today)
    everybody = athletes()
    until = time.monotonic() + ANSWER_S * desk().patience
    found: list[AthleteEffect] = []
    for athlete in everybody[body.skip :]:
        if found and time.monotonic() > until:
            break
        rules = merge(body.chosen, athlete.rules)
        found.append(_effect(athlete, rules, latest))
    seen = body.skip + len(found)
    return answer(
        PreviewAllOut(
            athletes=found, next=seen if seen < len(everybody) else None, of=len(everybody)
        )
    )


def _effect(athlete: Athlete, rules: Rules, latest: Week) -> AthleteEffect:
    now = desk().ledgers.of(athlete)
    week = last_week_done(now, latest) or latest
    # What hangs on the week alone is worked out once for the same choices.
    key = (week, desk().today(), rules.model_dump_json())

    def effect() -> AthleteEffect:
        before, after = (
            [finding for finding in judged_week(ledger, week).findings if finding.level != "note"]
            for ledger in (now, now.but(rules=rules))
        )
        changes = difference(before, after)
        return AthleteEffect(
            id=athlete.id,
            name=athlete.name,
            week=str(week),
            before=len(before),
            after=len(after),
            cleared=len(changes.cleared),
            appeared=len(changes.appeared),
            changed=len(changes.changed),
        )

    return _EFFECTS.of(now.kept, key, effect)


_EFFECTS: Final = Once[tuple[Week, date, str], AthleteEffect]()


@api.post("/rules/schools", responses={201: Done})
def save_school(body: SchoolBody) -> Response:
    """Save choices as a school of the house, to compare with and to come back to."""
    work.save_school(body.name, body.chosen)
    return answer(Done(), 201)


@api.post("/rules/schools/remove", responses={200: Done})
def remove_school(body: SchoolName) -> Response:
    """Remove a school of the house."""
    work.remove_school(body.name)
    return answer(Done())


def _rules_out(
    of_house: Mapping[str, Any], own: Mapping[str, Any], revision: int, chosen: dict[str, Any]
) -> RulesOut:
    default = DEFAULT_RULES.model_dump(mode="json")
    house_values = merge(of_house).model_dump(mode="json")
    own_values = merge(of_house, own).model_dump(mode="json")
    return RulesOut(
        revision=revision,
        chosen={name: value for name, value in chosen.items() if name in Rules.model_fields},
        rules=[
            RuleOut(
                name=entry.name,
                group=entry.group,
                title=entry.title,
                argument=entry.argument,
                changes=entry.changes,
                source=entry.source,
                unit=entry.unit,
                optional=entry.optional,
                begin=entry.begin if default[entry.name] is None else default[entry.name],
                choices=[Choice(value=value, meaning=text) for value, text in entry.choices],
                rows=[RuleRow(key=key, title=title, unit=unit) for key, title, unit in entry.rows],
                default=default[entry.name],
                house=house_values[entry.name],
                own=own_values[entry.name],
                is_house_own=house_values[entry.name] != default[entry.name],
                is_own=own_values[entry.name] != house_values[entry.name],
            )
            for entry in RULES
        ],
        presets=[
            *(
                PresetOut(
                    name=name,
                    says=PRESET_WORDS[name],
                    rules=choices_of_school(name),
                    of_house=False,
                )
                for name in PRESETS
            ),
            *(
                PresetOut(name=school.name, says="", rules=school.rules, of_house=True)
                for school in work.schools_of_house()
            ),
        ],
    )
