"""Movements, and the table in which a set finds its own."""

from __future__ import annotations

import difflib
from collections.abc import Iterable, Iterator
from functools import lru_cache
from typing import Annotated, Any, Final, Literal, Self

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    WithJsonSchema,
)

from dialback.core.tempo import DASHED, RUN, parse_tempo
from dialback.core.vocabulary import UNCOUNTED, Muscle, Pattern, ProgressRule, Role


def _tempo_text(text: str) -> str:
    parse_tempo(text)
    return text


def _name(text: str) -> str:
    trimmed = " ".join(text.split())
    if not trimmed:
        raise ValueError("a name is needed")
    return trimmed


Name = Annotated[str, AfterValidator(_name), Field(max_length=120)]
TempoText = Annotated[
    str,
    AfterValidator(_tempo_text),
    Field(max_length=24),
    WithJsonSchema(
        {
            "type": "string",
            "pattern": f"^(?:{DASHED}|{RUN})$",
            "description": "Seconds of lowering, pause, lifting, pause: 3-1-2-0 or 30X1",
        }
    ),
]


def _several(value: Any) -> Any:
    """One text is a list of one, as people write it."""
    return (value,) if isinstance(value, str) else value


Names = Annotated[tuple[Name, ...], Field(strict=False), BeforeValidator(_several)]


@lru_cache(maxsize=256)
def _given(names: tuple[str, ...]) -> set[str]:
    """Names of the fields that are given: one set for all values alike, which are frozen."""
    return set(names)


class Value(BaseModel):
    """A value of the domain: checked strictly, never changed, unknown keys kept."""

    model_config = ConfigDict(
        extra="allow", frozen=True, strict=True, allow_inf_nan=False, ser_json_inf_nan="strings"
    )

    @classmethod
    def trusted(cls, fields: dict[str, Any], extra: dict[str, Any]) -> Self:
        """A value of fields that were all checked before, and its unknown keys; unchecked.

        What ``model_construct`` does, without looking at each field: a store reads sets by the
        ten thousand.
        """
        value = cls.__new__(cls)
        for slot, content in (
            ("__dict__", fields),
            ("__pydantic_fields_set__", _given(tuple(fields))),
            ("__pydantic_extra__", extra),
            ("__pydantic_private__", None),
        ):
            object.__setattr__(value, slot, content)
        return value


Level = Literal["easier", "harder"]


class Movement(Value):
    """An exercise: what it trains and how it counts."""

    name: Name
    pattern: Pattern
    compound: bool = False
    muscles: dict[Muscle, Role] = Field(default_factory=dict)
    bodyweight_share: float = Field(
        0.0, ge=0, le=2, description="Share of body weight moved in a rep"
    )
    tempo: TempoText | None = None
    isometric: bool = False
    aliases: Names = Field((), max_length=20)
    easier: Name | None = Field(None, description="The level below: a movement of its own")
    harder: Name | None = Field(None, description="The level above")
    kit: Names = Field((), max_length=10)
    one_sided: bool = False
    progress: ProgressRule | None = Field(
        None, description="How it progresses, where not by the house rule"
    )

    @property
    def counted(self) -> bool:
        """Whether it belongs to the strength sums (conditioning and mobility do not)."""
        return self.pattern not in UNCOUNTED

    @property
    def direct(self) -> tuple[str, ...]:
        """The muscles that it is for."""
        return tuple(muscle for muscle, role in self.muscles.items() if role == "direct")

    def like(self, name: str, level: Level | None = None) -> Movement:
        """Another movement that is like this one, without its other names and levels.

        ``level`` says that it is the easier, or the harder one of the two. Raises
        ``ValidationError`` for a name that is none.
        """
        own = {"name": name, "aliases": (), "easier": None, "harder": None}
        if level is not None:
            own["harder" if level == "easier" else "easier"] = self.name
        return Movement.model_validate(self.model_dump() | own)

    def counts_like(self, other: Movement) -> bool:
        """Whether a set of either comes to the same figures."""
        return all(getattr(self, name) == getattr(other, name) for name in COUNTING_FIELDS)


COUNTING_FIELDS: Final = (
    "pattern",
    "compound",
    "muscles",
    "bodyweight_share",
    "tempo",
    "isometric",
)
"""What of a movement enters a count; the rest helps to find and to choose it."""


class UnknownMovementError(LookupError):
    """A name that no movement has; ``nearest`` may be the one that was meant."""

    def __init__(self, name: str, nearest: str | None) -> None:
        self.name = name
        self.nearest = nearest
        hint = f"; did you mean {nearest!r}?" if nearest else ""
        super().__init__(f"no movement is called {name!r}{hint}")


class MovementTable:
    """Movements by name, letter case apart. Later ones win over earlier ones of the same name."""

    def __init__(self, movements: Iterable[Movement]) -> None:
        self._by_name = {fold(movement.name): movement for movement in movements}

    def __getitem__(self, name: str) -> Movement:
        """The movement of that name. Raises ``UnknownMovementError`` with the nearest name."""
        try:
            return self._by_name[fold(name)]
        except KeyError:
            near = difflib.get_close_matches(fold(name), self._by_name, n=1)
            raise UnknownMovementError(
                name, self._by_name[near[0]].name if near else None
            ) from None

    def get(self, name: str) -> Movement | None:
        """The movement of that name, or ``None``."""
        return self._by_name.get(fold(name))

    def __contains__(self, name: str) -> bool:
        return fold(name) in self._by_name

    def __iter__(self) -> Iterator[Movement]:
        return iter(self._by_name.values())

    def __len__(self) -> int:
        return len(self._by_name)


def fold(name: str) -> str:
    """The form in which two spellings of one name agree: letter case and spaces apart."""
    return " ".join(name.split()).casefold()
