"""The findings of a week as rows of its programme, one module beside each family of findings."""

from collections.abc import Sequence

from dialback.core.adjusting.rows.balance import balance_rows
from dialback.core.adjusting.rows.jumps import jump_rows
from dialback.core.adjusting.rows.muscles import muscle_rows
from dialback.core.adjusting.rows.overfull import overfull_rows
from dialback.core.adjusting.rows.restricted import restriction_rows
from dialback.core.adjusting.rows.rows import Flag, Rows
from dialback.core.adjusting.rows.spacing import spacing_rows
from dialback.core.sessions import Session


def finding_rows(rows: Rows, start: Sequence[Session]) -> None:
    """Every finding that sets can raise; none gets worse than it is at the start."""
    muscle_rows(rows)
    balance_rows(rows)
    jump_rows(rows)
    spacing_rows(rows)
    restriction_rows(rows)
    overfull_rows(rows, start)


__all__ = ["Flag", "Rows", "finding_rows"]
