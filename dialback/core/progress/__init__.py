"""Progress: what each movement of a plan does next, from what was done of it last."""

from dialback.core.progress.steps import Progress, next_steps, take_next
from dialback.core.progress.ways import Kind, Way, taken

__all__ = ["Kind", "Progress", "Way", "next_steps", "take_next", "taken"]
