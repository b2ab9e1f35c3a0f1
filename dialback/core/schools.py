"""Schools: the findings of a week as each school would raise them."""

from __future__ import annotations

from datetime import date

from dialback.core.audit import Audit, audit
from dialback.core.rules import PRESETS, school
from dialback.core.tally import Ledger
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week


def under_schools(
    ledger: Ledger, week: Week, basis: Basis, as_of: date | None = None
) -> dict[str, Audit]:
    """The audit of a week under each school, by its name; all else of the rules stays."""
    key = ("schools", week, basis, as_of)
    if key not in ledger.kept:
        ledger.kept[key] = {
            name: audit(ledger.but(rules=school(name, ledger.rules)), week, basis, as_of)
            for name in PRESETS
        }
    found: dict[str, Audit] = ledger.kept[key]
    return found
