"""Kit: what the room has, the unit of weights, the name of the house, the made-up club."""

from __future__ import annotations

from flask import Response

from dialback.core.kit import STARTS, Kit
from dialback.store.athletes import house
from dialback.store.kit import kit_of
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk
from dialback.web.shapes.common import Done, Revision
from dialback.web.shapes.kit import BeginKitBody, ClubOut, HouseOut, KitBody, KitOut, UnitOut
from dialback.work import club
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


@house_api.get("/club", responses={200: ClubOut})
def made_up_club() -> Response:
    """Who of the made-up club is here; nobody where it is not."""
    return answer(ClubOut(athletes=club.who_is_made_up()))


@house_api.post("/club", responses={201: ClubOut})
def load_the_club() -> Response:
    """Load the made-up club into an empty house, to look around."""
    club.move_in(desk().today())
    return answer(ClubOut(athletes=club.who_is_made_up()), 201)


@house_api.post("/club/remove", responses={200: Done})
def remove_the_club() -> Response:
    """Remove the made-up club for good; whoever was added stays."""
    club.move_out()
    return answer(Done())
