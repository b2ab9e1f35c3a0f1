"""What cannot be done for a reason of the job; nothing was changed."""

from __future__ import annotations


class WorkError(Exception):
    """A change that is refused; the text can be shown to a person as it stands."""

    kind = "refused"


class NotThereError(WorkError):
    """What was asked for is not there, or not any more."""

    kind = "not-found"


class StaleError(WorkError):
    """Somebody else has written since; nothing was stored."""

    kind = "stale-revision"

    def __init__(self, what: str) -> None:
        super().__init__(
            f"{what} was changed elsewhere since you opened it. Nothing was overwritten: reload "
            "it and make your change again."
        )


class ConflictError(WorkError):
    """It does not go with what is there now; ``kind`` says with what."""

    def __init__(self, kind: str, detail: str) -> None:
        self.kind = kind
        super().__init__(detail)


class UnfitError(WorkError):
    """It could never be done like that; ``kind`` says why."""

    def __init__(self, kind: str, detail: str) -> None:
        self.kind = kind
        super().__init__(detail)
