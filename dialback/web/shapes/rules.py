"""Shapes of the place `rules`."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field, JsonValue

from dialback.core.plain import MAX_INTEGER
from dialback.core.sessions import one_line
from dialback.core.vocabulary import Basis
from dialback.web.shapes.common import Shape
from dialback.web.shapes.sheet import FindingOut

OneLine = Annotated[str, AfterValidator(one_line)]


class Choice(Shape):
    """A named value of a rule."""

    value: JsonValue
    meaning: str


class RuleRow(Shape):
    """A row of a rule that is a table: its key, its title, what its number is counted in."""

    key: str
    title: str
    unit: str


class RuleOut(Shape):
    """A house rule with its argument, its source, and the values in force."""

    name: str
    group: str
    title: str
    argument: str
    changes: str
    source: str
    unit: str
    optional: bool = Field(description="Whether it can be switched off, by null")
    begin: Any = Field(description="What switching it on begins with")
    choices: list[Choice]
    rows: list[RuleRow] = Field(description="Of a table: its keys with their titles and units")
    default: JsonValue
    house: JsonValue
    own: JsonValue
    is_house_own: bool
    is_own: bool


class PresetOut(Shape):
    """A school by name.

    One that ships sets ``rules`` and leaves all else; one of the house is whole: what is not in
    ``rules`` has its default.
    """

    name: str
    rules: dict[str, Any]
    says: str
    of_house: bool = Field(description="Whether the house saved it, and can remove it")


class RulesOut(Shape):
    """The rules, for the house or (with an athlete) with the athlete's own over them."""

    revision: int
    chosen: dict[str, Any]
    rules: list[RuleOut]
    presets: list[PresetOut]


class ChoicesBody(Shape):
    """The choices that differ: of the house from the defaults, of an athlete from the house."""

    chosen: dict[str, Any]


class SaveRulesBody(ChoicesBody):
    """Choices to keep, and the revision they build on."""

    revision: int = Field(ge=0, le=MAX_INTEGER)


class PreviewBody(ChoicesBody):
    """Choices to try on a week; of the house, or of the athlete alone."""

    scope: Literal["house", "athlete"]
    basis: Basis


class PreviewOut(Shape):
    """What would change in the week's findings."""

    before: int
    after: int
    cleared: list[FindingOut]
    appeared: list[FindingOut]
    changed: list[FindingOut]


class SchoolBody(ChoicesBody):
    """Choices to save as a school of the house."""

    name: OneLine = Field(min_length=1, max_length=40)


class SchoolName(Shape):
    """A school of the house by its name."""

    name: str = Field(min_length=1, max_length=40)


class PreviewAllBody(ChoicesBody):
    """Choices of the house to try on everybody's week; ``skip`` so many, who are counted."""

    skip: int = Field(0, ge=0, le=100_000)


class AthleteEffect(Shape):
    """How many findings above a note come and go in an athlete's week."""

    id: int
    name: str
    week: str
    before: int
    after: int
    cleared: int
    appeared: int
    changed: int


class PreviewAllOut(Shape):
    """Some athletes, as many as could be counted in a moment; ``next`` is how many to skip then."""

    athletes: list[AthleteEffect]
    next: int | None
    of: int
