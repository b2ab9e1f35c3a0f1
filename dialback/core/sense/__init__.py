"""Sense: what a text says looked at with a coach's eyes, and asked about where it has none."""

from dialback.core.sense.doubt import Doubt
from dialback.core.sense.heard import Knowing
from dialback.core.sense.look import doubts

__all__ = ["Doubt", "Knowing", "doubts"]
