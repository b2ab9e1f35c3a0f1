"""Schools: the findings of a week as each school would raise them."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from types import MappingProxyType
from typing import Final

from dialback.core.audit import Audit, audit
from dialback.core.once import Once
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
    schools = {name: school(name, ledger.rules) for name in PRESETS} | dict(own)
    return {name: _under(ledger, rules, week, basis, as_of) for name, rules in schools.items()}


_UNDER: Final = Once[tuple[str, Week, Basis, date | None], Audit]()


def _under(ledger: Ledger, rules: Rules, week: Week, basis: Basis, as_of: date | None) -> Audit:
    key = (rules.model_dump_json(), week, basis, as_of)
    return _UNDER.of(ledger.kept, key, lambda: audit(ledger.but(rules=rules), week, basis, as_of))
