"""Goals: how they stand, and the way to them."""

from dialback.core.goals.outlook import Outlook, outlook
from dialback.core.goals.standing import Kind, Trend, Verdict
from dialback.core.goals.way import Step

__all__ = ["Kind", "Outlook", "Step", "Trend", "Verdict", "outlook"]
