"""Kit: what the room has, and the unit in which weights are shown."""

from __future__ import annotations

from flask import Response

from dialback.core.kit import Kit
from dialback.store.kit import the_kit
from dialback.store.models import House
from dialback.store.unit import touch_house, unit
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer
from dialback.web.problems import stale
from dialback.web.shapes import KitBody, KitOut, Revision, UnitOut

api = blueprint("kit", __name__, "/kit")
unit_api = blueprint("unit", __name__, "/unit")


@api.get("", responses={200: KitOut})
def kit() -> Response:
    """What the room has; empty until somebody describes it."""
    known = the_kit()
    owner = House.get()
    return answer(
        KitOut(described=known is not None, revision=owner.kit_revision, kit=known or Kit())
    )


@api.put("", responses={200: Revision})
def save_kit(body: KitBody) -> Response:
    """Keep what the room has."""
    with unit():
        owner = House.get()
        if owner.kit_revision != body.revision:
            raise stale("The kit")
        owner.kit = body.kit.model_dump(mode="json", exclude_defaults=True)
        owner.kit_revision += 1
        # Loads in per cent and the judgement of steps look at the kit.
        owner.save(only=[House.kit, House.kit_revision])
        touch_house()
    return answer(Revision(revision=owner.kit_revision))


@unit_api.get("", responses={200: UnitOut})
def weight_unit() -> Response:
    """The unit in which weights are shown."""
    return answer(UnitOut(unit=House.get().unit))


@unit_api.put("", responses={200: UnitOut})
def choose_unit(body: UnitOut) -> Response:
    """Show weights in another unit; what is kept stays as it is."""
    with unit():
        # Sentences were said in the other unit: they are made anew.
        House.update(unit=body.unit, change=House.change + 1).execute()
    return answer(body)
