"""Work that takes longer than an answer should: a few at a time, with its progress to ask for."""

from __future__ import annotations

import logging
import threading
import time
import uuid
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from contextvars import copy_context
from dataclasses import dataclass, field
from http import HTTPStatus
from typing import Any, Final

from peewee import DatabaseError

from dialback.book.errors import BadInputError, bad_input
from dialback.store.athletes import UnknownAthleteError
from dialback.store.database import connected, what_is_wrong
from dialback.web.problems import RefusedError
from dialback.work.errors import WorkError

log = logging.getLogger(__name__)

AT_ONCE: Final = 2
WAITING: Final = 4
"""So many are worked on at once, and so many more wait their turn."""
KEPT: Final = 6
"""So many that have finished are remembered; what nobody asked for longest is forgotten first."""
LARGE: Final = 2
"""Of those, so many that hold a whole file."""
UNASKED_S: Final = 180.0
"""Work that nobody has asked about for so long is given up; a hidden page asks once a minute."""
LONGEST_S: Final = 600.0
"""No piece of work takes longer."""


class GivenUpError(Exception):
    """The work was cancelled, or nobody waits for it any more."""


@dataclass(slots=True)
class Job:
    """A piece of work: how far it is, and what came of it.

    ``watched`` work is for the eyes of whoever asks: unasked for, it is given up. Where what was
    found so far is ``enough``, it has to do.
    """

    name: str
    watched: bool = True
    token: str = field(default_factory=lambda: uuid.uuid4().hex)
    stage: str = "waits for its turn"
    done: int = 0
    of: int | None = None
    finished: bool = False
    result: Any = None
    problem: BadInputError | None = None
    failed: bool = False
    cancelled: bool = False
    enough: bool = False
    asked: float = field(default_factory=time.monotonic)
    begun: float | None = None

    @property
    def wanted(self) -> bool:
        """Whether somebody still waits for it."""
        unasked = self.watched and time.monotonic() - self.asked > UNASKED_S
        return not (self.cancelled or unasked)

    def problem_words(self, failed: str, given_up: str) -> str | None:
        """What went wrong, in words; ``None`` as long as nothing did."""
        if self.problem is not None:
            return self.problem.line
        if self.failed:
            return failed
        return given_up if self.cancelled and self.result is None else None

    def tell(self, stage: str, of: int | None = None) -> Callable[[int], None]:
        """Say what is being done now; what is given back says how far, and ends what is given up.

        Raises ``GivenUpError``, and ``BadInputError`` when it takes too long.
        """
        self.stage, self.of, self.done = stage, of, 0

        def seen(count: int) -> None:
            self.done = count
            if not self.wanted:
                raise GivenUpError
            if self.begun is not None and time.monotonic() - self.begun > LONGEST_S:
                raise bad_input("file", "takes too long: split it by years")

        seen(0)
        return seen


class Jobs:
    """The pieces of work of one app."""

    def __init__(self) -> None:
        self._kept: OrderedDict[str, Job] = OrderedDict()
        self._lock = threading.Lock()
        self._pool = ThreadPoolExecutor(AT_ONCE, thread_name_prefix="job")

    def start(self, name: str, work: Callable[[Job], Any], *, watched: bool = True) -> Job:
        """Put it in the queue. Raises ``RefusedError`` when too many wait."""
        job = Job(name, watched)
        with self._lock:
            if sum(not one.finished for one in self._kept.values()) >= AT_ONCE + WAITING:
                raise RefusedError(
                    HTTPStatus.SERVICE_UNAVAILABLE,
                    "busy",
                    "Other long work is under way already: try again in a minute.",
                )
            self._kept[job.token] = job
        # Whoever asked for it is the one who does it.
        self._pool.submit(copy_context().run, self._run, job, work)
        return job

    def find(self, token: str) -> Job | None:
        """The piece of work of that token; that somebody asks is noted."""
        job = self._kept.get(token)
        if job is not None:
            job.asked = time.monotonic()
        return job

    def _run(self, job: Job, work: Callable[[Job], Any]) -> None:
        job.begun = time.monotonic()
        try:
            with connected():
                job.result = work(job)
        except BadInputError as problem:
            job.problem = problem
        except (UnknownAthleteError, WorkError) as refused:
            job.problem = bad_input("", str(refused))
        except GivenUpError:
            job.cancelled = True
        except DatabaseError as error:
            log.exception("the data file failed")
            job.problem = bad_input("", f"The data file {what_is_wrong(error)}.")
        except Exception:
            log.exception("a piece of work failed")
            job.failed = True
        finally:
            job.finished = True
            self._forget()

    def _forget(self) -> None:
        """Let go of what finished long ago: a read file takes tens of megabytes."""
        with self._lock:
            # A file that is looked at again and again is the one in hand, however old it is.
            finished = sorted(
                (job for job in self._kept.values() if job.finished), key=lambda job: job.asked
            )
            for job in finished[:-KEPT]:
                del self._kept[job.token]
            large = [job for job in finished if getattr(job.result, "rows", None)]
            for job in large[:-LARGE]:
                self._kept.pop(job.token, None)
