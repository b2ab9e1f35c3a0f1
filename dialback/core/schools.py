"""Schools: the findings of a week as each school would raise them."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from types import MappingProxyType

from dialback.core.audit import Audit, audit
from dialback.core.rules import PRESETS, Rules, school
from dialback.core.tally import Ledger
from dialback.core.vocabulary import Basis
from dialback.core.weeks import Week


def under_schools(
    ledger: Ledger,
    week: Week,
    basis: Basis,
    as_of: date | None = None,
    own: Mapping[str, Rules] = MappingProxyType({}),
) -> dict[str, Audit]:
    """The audit of a week under each school, by its name.

    A preset leaves all else of the rules as it is; ``own`` are the house's own schools, whole.
    """
    key = ("schools", week, basis, as_of)
    if key not in ledger.kept:
        ledger.kept[key] = {
            name: audit(ledger.but(rules=school(name, ledger.rules)), week, basis, as_of)
            for name in PRESETS
        }
    found: dict[str, Audit] = dict(ledger.kept[key])
    for name, rules in own.items():
        of_own = (*key, rules.model_dump_json())
        if of_own not in ledger.kept:
            ledger.kept[of_own] = audit(ledger.but(rules=rules), week, basis, as_of)
        found[name] = ledger.kept[of_own]
    return found
