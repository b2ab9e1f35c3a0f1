"""Work that takes longer than an answer should: in a thread, with its progress to ask for."""

from __future__ import annotations

import logging
import threading
import uuid
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Final

from dialback.book.errors import BadInputError
from dialback.store.database import connected

log = logging.getLogger(__name__)

KEPT: Final = 6
"""So many pieces of work are remembered; the oldest is forgotten first."""


@dataclass(slots=True)
class Job:
    """A piece of work: how far it is, and what came of it."""

    name: str
    token: str = field(default_factory=lambda: uuid.uuid4().hex)
    stage: str = "begins"
    done: int = 0
    of: int | None = None
    finished: bool = False
    result: Any = None
    problem: BadInputError | None = None
    failed: bool = False

    def tell(self, stage: str, of: int | None = None) -> Callable[[int], None]:
        """Say what is being done now; what is given back says how far."""
        self.stage, self.of, self.done = stage, of, 0

        def seen(count: int) -> None:
            self.done = count

        return seen


class Jobs:
    """The pieces of work of one app."""

    def __init__(self) -> None:
        self._kept: OrderedDict[str, Job] = OrderedDict()
        self._lock = threading.Lock()

    def start(self, name: str, work: Callable[[Job], Any]) -> Job:
        """Begin in a thread of its own, with a connection of its own."""
        job = Job(name)
        with self._lock:
            self._kept[job.token] = job
            while len(self._kept) > KEPT:
                self._kept.popitem(last=False)
        threading.Thread(target=self._run, args=(job, work), daemon=True).start()
        return job

    def find(self, token: str) -> Job | None:
        """The piece of work of that token."""
        return self._kept.get(token)

    @staticmethod
    def _run(job: Job, work: Callable[[Job], Any]) -> None:
        try:
            with connected():
                job.result = work(job)
        except BadInputError as problem:
            job.problem = problem
        except Exception:
            log.exception("a piece of work failed")
            job.failed = True
        finally:
            job.finished = True
