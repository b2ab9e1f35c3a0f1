"""What a coach reads first of a week: its findings in order, and what of them is news."""

from dialback.core.verdict.line import KINDS, News
from dialback.core.verdict.news import news
from dialback.core.verdict.order import Verdict, by_urgency, verdict, worst_level, worst_open

__all__ = ["KINDS", "News", "Verdict", "by_urgency", "news", "verdict", "worst_level", "worst_open"]
