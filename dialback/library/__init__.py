"""The movements that ship with Dial Back: one table a coach can read, ``movements.tsv``."""

from __future__ import annotations

import csv
from functools import lru_cache
from importlib import resources

from dialback.core.movements import Movement


@lru_cache(maxsize=1)
def library() -> tuple[Movement, ...]:
    """The movements of the shipped table, in its order."""
    text = resources.files(__name__).joinpath("movements.tsv").read_text("utf-8")
    return tuple(_movement(row) for row in csv.DictReader(text.splitlines(), delimiter="\t"))


def _movement(row: dict[str, str]) -> Movement:
    muscles = {muscle: role for role in ("direct", "indirect") for muscle in _several(row[role])}
    return Movement.model_validate(
        {
            "name": row["name"],
            "pattern": row["pattern"],
            "compound": row["kind"] == "compound",
            "muscles": muscles,
            "bodyweight_share": float(row["bodyweight_share"] or 0),
            "tempo": row["tempo"] or None,
            "isometric": row["isometric"] == "yes",
            # A name may have a comma in it.
            "aliases": _several(row["aliases"], ";"),
            "easier": row["easier"] or None,
            "harder": row["harder"] or None,
            "kit": _several(row["kit"]),
            "one_sided": row["one_sided"] == "yes",
        }
    )


def _several(cell: str, between: str = ",") -> list[str]:
    return [one.strip() for one in cell.split(between) if one.strip()]
