"""What may stand before a line: an indent, a bullet, or the label of a superset."""

from __future__ import annotations

import re
from typing import Final

INDENT: Final = "  "
"""Before a line inside rounds, where one is written."""

BULLET: Final = re.compile(r"(?:[-•*·–][ \t]{1,8}|[0-9]{1,2}[.)][ \t]{1,8})(?=\S)")
LABEL: Final = re.compile(r"([A-Ha-h])([0-9]{1,2})?(?:[ \t]{0,8}[.:)]|(?<=[0-9]))[ \t]{1,8}(?=\S)")
