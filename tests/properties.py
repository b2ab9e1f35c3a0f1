"""How often properties are tried: a few times in the suite, at length in ``make fuzz``."""

from __future__ import annotations

import os
from typing import Any

from hypothesis import settings

AT_LENGTH = int(os.environ.get("DIALBACK_FUZZ", "0"))
"""Requests for each operation in ``make fuzz``; 0 in the suite."""
A_FEW = 2
"""The suite tries a fourth of the examples, and so many at least."""


def tried(examples: int, **more: Any) -> settings:
    """So many examples at length, a few of them in the suite; no time limit on any machine."""
    count = examples if AT_LENGTH else min(examples, max(A_FEW, examples // 4))
    return settings(max_examples=count, deadline=None, **more)
