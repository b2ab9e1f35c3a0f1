"""Beside the text: its lines in fields, and what of it the room's kit cannot give."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response

from dialback.core.notation.pieces import Pieces
from dialback.core.notation.rows import PartFields, RoundsFields, Row, row_text, rows
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete
from dialback.web.shapes.common import AthletePath, WholeText
from dialback.web.shapes.form import LineOut, RowOut, RowsOut

api = blueprint("form", __name__, "/athletes/<int:athlete_id>/form")


@api.post("/rows", responses={200: RowsOut})
def text_rows(path: AthletePath, body: WholeText) -> Response:
    """A text line by line in fields, for the form; nothing is stored."""
    athlete = the_athlete(path.athlete_id)
    found = rows(body.text, desk().ledgers.of(athlete).movements)
    return answer(RowsOut(rows=[RowOut.model_validate(asdict(row)) for row in found]))


@api.post("/line", responses={200: LineOut})
def row_line(path: AthletePath, body: RowOut) -> Response:
    """The line that a row of the form is written as; nothing is stored."""
    row = Row(
        kind=body.kind,
        text=body.text,
        entries=tuple(Pieces(**entry.model_dump()) for entry in body.entries),
        part=PartFields(**body.part.model_dump()) if body.part else None,
        rounds=RoundsFields(**body.rounds.model_dump()) if body.rounds else None,
        rest=body.rest,
        label=body.label,
    )
    return answer(LineOut(text=row_text(row)))
