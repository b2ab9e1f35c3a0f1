"""Columns that are read whatever stands in them: a damaged value never takes the page with it.

What cannot be read is read as nothing, or as what does the least harm; ``store.damage`` names it.
"""

from __future__ import annotations

import json
import math
from collections.abc import Callable, Iterable, Iterator
from datetime import date
from typing import Any, Final, TypeVar

import peewee as pw

UNKNOWN_DAY: Final = date(1970, 1, 1)
"""Read for a day that cannot be read and has to be one: what begins with it holds already."""


Row = TypeVar("Row")
Out = TypeVar("Out")


class _Legible:
    """Reads what it can, and else what stands for nothing."""

    null: bool
    default: Any
    nothing: Any = None

    def instead(self) -> Any:
        """What is read of a value that cannot be read."""
        if self.null:
            return None
        made = self.default() if callable(self.default) else self.default
        return self.nothing if made is None else made


def legible(rows: Iterable[Row], convert: Callable[[Row], Out]) -> Iterator[Out]:
    """What rows come to, without those that come to nothing: ``store.damage`` names them."""
    for row in rows:
        try:
            yield convert(row)
        except (ValueError, TypeError, KeyError, AttributeError):
            continue


class JsonField(_Legible, pw.TextField):
    """A JSON value in a text column."""

    def db_value(self, value: Any) -> str | None:
        """Write the value as JSON."""
        return None if value is None else json.dumps(value, ensure_ascii=False, allow_nan=False)

    def python_value(self, value: str | None) -> Any:
        """Read the value back; of the kind that it is by default."""
        if value is None:
            return None
        try:
            found = json.loads(value)
        except (ValueError, TypeError, RecursionError):
            return self.instead()
        wanted = self.default() if callable(self.default) else None
        return found if wanted is None or isinstance(found, type(wanted)) else self.instead()


class DayField(_Legible, pw.DateField):
    """A day, as ISO has it."""

    nothing = UNKNOWN_DAY

    def python_value(self, value: Any) -> Any:
        """Read the day back."""
        if value is None or isinstance(value, date):
            return value
        try:
            return date.fromisoformat(value)
        except (ValueError, TypeError):
            return self.instead()


class WholeField(_Legible, pw.IntegerField):
    """A whole number."""

    nothing = 0

    def python_value(self, value: Any) -> Any:
        """Read the number back."""
        return value if value is None or isinstance(value, int) else self.instead()


class NumberField(_Legible, pw.FloatField):
    """A finite number."""

    nothing = 0.0

    def python_value(self, value: Any) -> Any:
        """Read the number back."""
        if value is None:
            return None
        known = isinstance(value, int | float) and math.isfinite(value)
        return float(value) if known else self.instead()


class WordsField(_Legible, pw.TextField):
    """A text of any length."""

    nothing = ""

    def python_value(self, value: Any) -> Any:
        """Read the text back."""
        return value if value is None or isinstance(value, str) else self.instead()


class WordField(WordsField, pw.CharField):
    """A short text."""
