"""Sense: what a text says looked at with a coach's eyes, and asked about where it has none."""

from dialback.core.sense.bounds import bounds_of
from dialback.core.sense.done import doubt_of
from dialback.core.sense.doubt import Doubt
from dialback.core.sense.heard import Knowing
from dialback.core.sense.look import doubts

__all__ = ["Doubt", "Knowing", "bounds_of", "doubt_of", "doubts"]
