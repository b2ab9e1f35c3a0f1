"""Sessions laid on other days, with what is said of a day outside the calendar."""

from __future__ import annotations

from dialback.book.errors import bad_input
from dialback.core.notation import Change
from dialback.core.plans.sheet import OutsideCalendarError, Sheet, laid
from dialback.core.tally import Ledger


def laid_on(
    sheet: Sheet,
    days: int,
    ledger: Ledger,
    change: Change,
    *,
    lighter_week: bool = False,
    place: str = "shifts",
) -> Sheet:
    """The sheet so many days on. Raises ``BadInputError`` at the place, outside the calendar."""
    try:
        return laid(sheet, days, ledger.movements, change, ledger.kit, lighter_week=lighter_week)
    except OutsideCalendarError as error:
        raise bad_input(place, str(error)) from None
