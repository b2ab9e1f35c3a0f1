"""What ships with Dial Back, in tables a coach can read: movements, and the words to say at each.

``cues.tsv`` has a row for every pattern, too: its words hold where a movement has none of its own.
"""

from __future__ import annotations

import csv
from functools import lru_cache
from importlib import resources

from dialback.core.cues import MOMENTS, Cues
from dialback.core.movements import Movement, fold


@lru_cache(maxsize=1)
def library() -> tuple[Movement, ...]:
    """The movements of the shipped table, in its order."""
    return tuple(_movement(row) for row in _table("movements.tsv"))


def shipped_cues(movement: Movement) -> Cues:
    """The words that ship for a movement, found by any of its names; else those of its pattern."""
    known = _cues()
    names = (movement.name, *movement.aliases)
    own = next((known[fold(name)] for name in names if fold(name) in known), Cues())
    return own.over(known.get(f"every {movement.pattern}", Cues()))


@lru_cache(maxsize=1)
def _cues() -> dict[str, Cues]:
    rows = _table("cues.tsv")
    return {fold(row["of"]): Cues(**{key: row[key] for key in MOMENTS}) for row in rows}


def _table(name: str) -> csv.DictReader[str]:
    text = resources.files(__name__).joinpath(name).read_text("utf-8")
    return csv.DictReader(text.splitlines(), delimiter="\t", quoting=csv.QUOTE_NONE)


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
