"""Beside the text: its lines in fields, and what of it the room's kit cannot give."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import asdict, replace

from flask import Response

from dialback.core.kit import NoBand, Unmade, check, sentence
from dialback.core.movements import MovementTable
from dialback.core.notation import Load
from dialback.core.notation.expand import PlacedSet
from dialback.core.notation.pieces import Pieces, load_text
from dialback.core.notation.rows import PartFields, RoundsFields, Row, row_text, rows
from dialback.core.notation.values import loads_in
from dialback.core.sessions import KG_PER_LB
from dialback.store.kit import the_kit
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk, the_athlete
from dialback.web.shapes import (
    AthletePath,
    KitChoice,
    KitMiss,
    LineOut,
    RowOut,
    RowsOut,
    WholeText,
)

api = blueprint("form", __name__, "/athletes/<int:athlete_id>/form")


@api.post("/rows", responses={200: RowsOut})
def text_rows(path: AthletePath, body: WholeText) -> Response:
    """A text line by line in fields, for the form; nothing is stored."""
    athlete = the_athlete(path.athlete_id)
    found = rows(body.text, desk().ledgers.of(athlete).movements)
    return answer(RowsOut(rows=[RowOut.model_validate(asdict(one)) for one in found]))


@api.post("/line", responses={200: LineOut})
def row_line(path: AthletePath, body: RowOut) -> Response:
    """The line that a row of the form is written as; nothing is stored."""
    row = Row(
        kind=body.kind,
        text=body.text,
        entries=tuple(Pieces(**one.model_dump()) for one in body.entries),
        part=PartFields(**body.part.model_dump()) if body.part else None,
        rounds=RoundsFields(**body.rounds.model_dump()) if body.rounds else None,
        rest=body.rest,
        label=body.label,
    )
    return answer(LineOut(text=row_text(row)))


def kit_misses(text: str, sets: Iterable[PlacedSet], movements: MovementTable) -> list[KitMiss]:
    """What the room cannot give, once for each place in the text."""
    kit = the_kit()
    if kit is None:
        return []
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    misses: dict[tuple[int, int], KitMiss] = {}
    for placed in sets:
        found = check(placed.set, kit, movements)
        if found is None:
            continue
        line = lines[placed.line - 1]
        if isinstance(found, NoBand):
            at = re.search(rf"band\s+{re.escape(found.band)}", line, re.IGNORECASE)
            column, length = (at.start(), at.end() - at.start()) if at else (0, len(line))
            choices = [KitChoice(text=f"band {one}", step=0) for one in found.bands]
        else:
            written = next(
                (one for one in loads_in(line) if one.load.kg == placed.set.load_kg), None
            )
            column, length = (written.at, written.length) if written else (0, len(line))
            choices = [] if written is None else _choices(found, written.load)
        misses.setdefault(
            (placed.line, column),
            KitMiss(
                line=placed.line, column=column + 1, length=max(1, length),
                message=sentence(found), choices=choices,
            ),
        )  # fmt: skip
    return list(misses.values())


def _choices(found: Unmade, load: Load) -> list[KitChoice]:
    per_unit = KG_PER_LB if load.unit == "lb" else 1.0
    return [
        KitChoice(
            text=load_text(replace(load, value=round(kg / per_unit, 2))),
            step=kg / found.wanted_kg - 1,
        )
        for kg in dict.fromkeys((found.below_kg, found.above_kg))
        if kg is not None
    ]
