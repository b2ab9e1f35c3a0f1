"""Templates: sessions of some weeks, kept to lay over any athlete's weeks."""

from __future__ import annotations

from flask import Response

from dialback.core.notation import Change
from dialback.store.blocks import save_template, sheets_of, templates
from dialback.store.models import Template
from dialback.store.plans import Moved, laid, put_down, undo
from dialback.store.unit import unit
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete, the_template, the_week
from dialback.web.shapes import (
    Done,
    LaidOver,
    LayTemplateBody,
    TemplateBody,
    TemplateLaid,
    TemplateOut,
    TemplatePath,
    Templates,
    WeekPath,
)

api = blueprint("templates", __name__, "/templates")
from_block = blueprint("template_of_weeks", __name__, "/athletes/<int:athlete_id>/weeks/<week>")


@api.get("", responses={200: Templates})
def list_templates() -> Response:
    """The templates of the house, by name."""
    return answer(Templates(templates=[_out(one) for one in templates()]))


@from_block.post("/template", responses={201: TemplateOut})
def keep_template(path: WeekPath, body: TemplateBody) -> Response:
    """Keep the planned sessions from this week on as a template."""
    athlete, first = the_athlete(path.athlete_id), the_week(path.week)
    ledger = desk().ledgers.of(athlete)
    weeks = [first.plus(at) for at in range(body.weeks)]
    with unit():
        row = save_template(body.name, athlete, ledger, weeks)
    return answer(_out(row), 201)


@api.post("/<int:template>/lay", responses={200: TemplateLaid})
def lay_template(path: TemplatePath, body: LayTemplateBody) -> Response:
    """Lay a template over the weeks of several athletes; for all of them or for none."""
    template, first = the_template(path.template), the_week(body.week)
    done = []
    with unit():
        for number in dict.fromkeys(body.athletes):
            athlete = the_athlete(number)
            ledger = desk().ledgers.of(athlete)
            movements = ledger.movements
            sheets = [
                laid(one, 0, movements, Change())
                for one in sheets_of(template, first.monday, template.weeks, movements)
            ]
            moved = put_down(athlete, ledger, sheets, desk().today())
            done.append(LaidOver(athlete=number, added=moved.added, removed=moved.removed))
    return answer(TemplateLaid(laid=done))


@api.post("/undo", responses={200: TemplateLaid})
def undo_template(body: TemplateLaid) -> Response:
    """Undo what a template laid, for all of its athletes."""
    back = []
    with unit():
        for one in body.laid:
            moved = undo(the_athlete(one.athlete), Moved(one.added, one.removed), desk().today())
            back.append(LaidOver(athlete=one.athlete, added=moved.added, removed=moved.removed))
    return answer(TemplateLaid(laid=back))


@api.post("/<int:template>/remove", responses={200: Done})
def remove_template(path: TemplatePath) -> Response:
    """Take a template away; what was laid from it stays."""
    return _put(path.template, removed=True)


@api.post("/<int:template>/restore", responses={200: Done})
def restore_template(path: TemplatePath) -> Response:
    """Bring a template back."""
    return _put(path.template, removed=False)


def _put(number: int, *, removed: bool) -> Response:
    with unit():
        template = the_template(number, removed=not removed)
        template.deleted_on = desk().today() if removed else None
        template.save()
    return answer(Done())


def _out(row: Template) -> TemplateOut:
    return TemplateOut(id=row.id, name=row.name, weeks=row.weeks, sessions=len(row.sessions))
