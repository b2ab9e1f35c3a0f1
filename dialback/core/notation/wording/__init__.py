"""How coaches word it: their forms put into the notation's own words before a line is read.

``rules`` takes a line through the tables of ``words``, ``numbers``, ``loads`` and ``doses``;
``lines`` makes several lines of one. Each rule stands beside an example and what it means.
"""

from dialback.core.notation.wording.heads import HEADS
from dialback.core.notation.wording.lines import reworded
from dialback.core.notation.wording.placed import Placed
from dialback.core.notation.wording.rules import RULES, worded_dose

__all__ = ["HEADS", "RULES", "Placed", "reworded", "worded_dose"]
