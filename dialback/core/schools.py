"""Schools: the findings of a week as each school would raise them."""

from __future__ import annotations

from dialback.core.audit import Audit, audit
from dialback.core.rules import PRESETS, school
from dialback.core.tally import Ledger
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week


def under_schools(ledger: Ledger, week: Week, basis: Basis) -> dict[str, Audit]:
    """The audit of a week under each school, by its name; all else of the rules stays."""
    return {
        name: audit(ledger.but(rules=school(name, ledger.rules)), week, basis) for name in PRESETS
    }
