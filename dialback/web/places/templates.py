"""Templates: sessions of some weeks, kept to lay over any athlete's weeks."""

from __future__ import annotations

from flask import Response

from dialback.core.movements import MovementTable
from dialback.core.plans.kept import unread_in
from dialback.store.blocks import KeptTemplate, templates
from dialback.store.movements import house_movements
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_week
from dialback.web.shapes.common import Done, WeekPath
from dialback.web.shapes.templates import (
    LaidOver,
    LayTemplateBody,
    TemplateBody,
    TemplateLaid,
    TemplateOut,
    TemplatePath,
    Templates,
)
from dialback.work import templates as work

api = blueprint("templates", __name__, "/templates")
from_block = blueprint("template_of_weeks", __name__, "/athletes/<int:athlete_id>/weeks/<week>")


@api.get("", responses={200: Templates})
def list_templates() -> Response:
    """The templates of the house, by name."""
    movements = _house_table()
    return answer(Templates(templates=[_out(template, movements) for template in templates()]))


@from_block.post("/template", responses={201: TemplateOut})
def keep_template(path: WeekPath, body: TemplateBody) -> Response:
    """Keep the planned sessions from this week on as a template."""
    first = the_week(path.week)
    weeks = [first.plus(at) for at in range(body.weeks)]
    kept = work.keep(desk().ledgers, path.athlete_id, body.name, weeks)
    return answer(_out(kept, _house_table()), 201)


@api.post("/<int:template>/lay", responses={200: TemplateLaid})
def lay_template(path: TemplatePath, body: LayTemplateBody) -> Response:
    """Lay a template over the weeks of several athletes; for all of them or for none.

    It is one change of the journal: taken back whole from any of its entries.
    """
    shared = desk()
    done = work.lay(
        shared.ledgers, path.template, body.athletes, the_week(body.week), shared.today()
    )
    return answer(_laid(done))


def _laid(done: list[work.Laid]) -> TemplateLaid:
    return TemplateLaid(laid=[LaidOver(athlete=number, change=change) for number, change in done])


@api.post("/<int:template>/remove", responses={200: Done})
def remove_template(path: TemplatePath) -> Response:
    """Take a template away; what was laid from it stays."""
    work.remove(path.template, desk().today())
    return answer(Done())


@api.post("/<int:template>/restore", responses={200: Done})
def restore_template(path: TemplatePath) -> Response:
    """Bring a template back."""
    work.restore(path.template)
    return answer(Done())


def _house_table() -> MovementTable:
    return MovementTable(one for _, one in house_movements())


def _out(kept: KeptTemplate, movements: MovementTable) -> TemplateOut:
    return TemplateOut(
        id=kept.number,
        name=kept.name,
        weeks=kept.weeks,
        sessions=len(kept.sessions),
        unread=[
            one.text for session in kept.sessions for one in unread_in(session["text"], movements)
        ],
    )
