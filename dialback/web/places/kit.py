"""Kit: what the room has, the unit in which weights are shown, the name of the house."""

from __future__ import annotations

from flask import Response

from dialback.core.kit import STARTS, Kit
from dialback.store.athletes import house
from dialback.store.kit import kit_of
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer
from dialback.web.shapes.common import Revision
from dialback.web.shapes.kit import BeginKitBody, HouseOut, KitBody, KitOut, UnitOut
from dialback.work import house as work

api = blueprint("kit", __name__, "/kit")
unit_api = blueprint("unit", __name__, "/unit")
house_api = blueprint("house", __name__, "/house")


@api.get("", responses={200: KitOut})
def kit() -> Response:
    """What the room has; empty until somebody describes it."""
    owner = house()
    known = kit_of(owner)
    return answer(
        KitOut(
            described=known is not None,
            revision=owner.kit_revision,
            kit=known or Kit(),
            starts=[says for says, _ in STARTS],
        )
    )


@api.put("", responses={200: Revision})
def save_kit(body: KitBody) -> Response:
    """Keep what the room has."""
    return answer(Revision(revision=work.keep_kit(body.kit, body.revision)))


@api.post("/begin", responses={200: Revision})
def begin_kit(body: BeginKitBody) -> Response:
    """Add what many rooms have to what this one has."""
    return answer(Revision(revision=work.begin_kit(body.starts, body.revision)))


@unit_api.get("", responses={200: UnitOut})
def weight_unit() -> Response:
    """The unit in which weights are shown."""
    return answer(UnitOut(unit=house().unit))


@unit_api.put("", responses={200: UnitOut})
def choose_unit(body: UnitOut) -> Response:
    """Show weights in another unit; what is kept stays as it is."""
    work.show_weights_in(body.unit)
    return answer(body)


@house_api.get("", responses={200: HouseOut})
def name_of_house() -> Response:
    """What the house is called; empty until somebody says."""
    return answer(HouseOut(name=house().name))


@house_api.put("", responses={200: HouseOut})
def name_the_house(body: HouseOut) -> Response:
    """Call the house something."""
    work.name_house(body.name.strip())
    return answer(HouseOut(name=body.name.strip()))
