"""Shapes of the place `care`."""

from __future__ import annotations

from pydantic import Field

from dialback.core.body import Weighing
from dialback.core.cautions import Caution, Kind
from dialback.core.newcomers import BODYWEIGHTS_KG
from dialback.web.shapes.common import AthletePath, DayText, Number, Shape


class CautionOut(Shape):
    """Something that asks for care, as it is kept. ``holds`` says whether it stands today."""

    id: int
    holds: bool
    caution: Caution


class WeighingOut(Shape):
    """What an athlete weighs from a day on."""

    id: int
    weighing: Weighing


class CareOut(Shape):
    """An athlete's cautions and weighings, the latest first; what is usually said of each kind."""

    today: str
    cautions: list[CautionOut]
    weighings: list[WeighingOut]
    usual: dict[Kind, str]


class WeighBody(Shape):
    """What an athlete weighs, from a day on."""

    date: DayText
    kg: float = Field(ge=BODYWEIGHTS_KG[0], le=BODYWEIGHTS_KG[1])


class CautionPath(AthletePath):
    """A caution of an athlete."""

    caution: Number


class WeighingPath(AthletePath):
    """A weighing of an athlete."""

    weighing: Number
