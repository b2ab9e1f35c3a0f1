"""Sense: what a text says looked at with a coach's eyes, and asked about where it has none."""

from dialback.core.sense.checks import Objection, objection
from dialback.core.sense.doubt import Doubt
from dialback.core.sense.heard import Heard, Knowing
from dialback.core.sense.look import doubts

__all__ = ["Doubt", "Heard", "Knowing", "Objection", "doubts", "objection"]
