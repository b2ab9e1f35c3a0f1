"""What cannot be done for a reason of the job; nothing was changed."""

from __future__ import annotations


class NotThereError(LookupError):
    """What was asked for is not there, or not any more."""
