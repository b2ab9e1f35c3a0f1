"""Movements: what the house knows, to find and to read."""

from __future__ import annotations

from flask import Response

from dialback.core.vocabulary import CLASSES
from dialback.store.movements import house_movements
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer
from dialback.web.shapes import MovementOut, MovementsOut

api = blueprint("movements", __name__)


@api.get("/movements", responses={200: MovementsOut})
def movements() -> Response:
    """The movements of the house, by name."""
    class_of = {pattern: name for name, patterns in CLASSES.items() for pattern in patterns}
    return answer(
        MovementsOut(
            movements=[
                MovementOut(
                    name=one.name,
                    pattern=one.pattern,
                    side=class_of.get(one.pattern),
                    compound=one.compound,
                    direct=[muscle for muscle, role in one.muscles.items() if role == "direct"],
                    indirect=[muscle for muscle, role in one.muscles.items() if role != "direct"],
                    bodyweight_share=one.bodyweight_share,
                    tempo=one.tempo,
                    isometric=one.isometric,
                    one_sided=one.one_sided,
                    aliases=list(one.aliases),
                    easier=one.easier,
                    harder=one.harder,
                    kit=list(one.kit),
                )
                for one in house_movements()
            ]
        )
    )
