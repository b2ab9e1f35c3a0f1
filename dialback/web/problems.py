"""Errors as problem details (RFC 9457): one shape for every refusal."""

from __future__ import annotations

import logging
from http import HTTPStatus
from math import ceil

from flask import Flask, Response
from peewee import DatabaseError, IntegrityError
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from dialback.book.errors import BadInputError, Problem, from_validation
from dialback.core.adjusting import NotWantedError
from dialback.core.movements import UnknownMovementError
from dialback.store.athletes import UnknownAthleteError
from dialback.store.database import what_is_wrong
from dialback.web.saying import sentences
from dialback.work.errors import NotThereError, UnfitError, WorkError

_STATUS: dict[type[WorkError], HTTPStatus] = {
    NotThereError: HTTPStatus.NOT_FOUND,
    UnfitError: HTTPStatus.UNPROCESSABLE_ENTITY,
}
"""How what cannot be done is answered; in conflict with what is there, if nothing else is said."""

log = logging.getLogger(__name__)


class ProblemItem(BaseModel):
    """One thing that is wrong: its place in the input, and what would be right."""

    place: str
    message: str


class ProblemDetails(BaseModel):
    """Why a request was refused; ``detail`` can be shown to a person as it stands."""

    type: str
    title: str
    status: int
    detail: str
    problems: list[ProblemItem]


class RefusedError(Exception):
    """A request that is refused for a reason of the job; ``wait_s`` is when to ask again."""

    def __init__(
        self, status: HTTPStatus, kind: str, detail: str, wait_s: float | None = None
    ) -> None:
        self.status = status
        self.kind = kind
        self.wait_s = wait_s
        super().__init__(detail)


def problem(
    status: int, detail: str, kind: str = "about:blank", problems: tuple[Problem, ...] = ()
) -> Response:
    """A problem document as a response."""
    document = ProblemDetails(
        type=kind if kind == "about:blank" else f"urn:dialback:problem:{kind}",
        title=HTTPStatus(status).phrase,
        status=status,
        detail=detail,
        problems=[ProblemItem(place=one.place, message=one.message) for one in problems],
    )
    return Response(
        document.model_dump_json(), status=status, content_type="application/problem+json"
    )


def invalid(error: ValidationError) -> Response:
    """The answer to a request that does not validate."""
    return bad_input_response(from_validation(error))


def bad_input_response(error: BadInputError) -> Response:
    """The answer to bad input, with every place that is wrong."""
    return problem(
        HTTPStatus.UNPROCESSABLE_ENTITY, sentences(error.problems), "bad-input", error.problems
    )


def register(app: Flask) -> None:
    """Answer every error of the app in this shape."""

    @app.errorhandler(BadInputError)
    def _bad_input(error: BadInputError) -> Response:
        return bad_input_response(error)

    @app.errorhandler(ValidationError)
    def _validation(error: ValidationError) -> Response:
        return invalid(error)

    @app.errorhandler(RefusedError)
    def _refused(error: RefusedError) -> Response:
        response = problem(error.status, str(error), error.kind)
        if error.wait_s is not None:
            response.headers["Retry-After"] = str(ceil(error.wait_s))
        return response

    @app.errorhandler(UnknownAthleteError)
    def _nobody(error: UnknownAthleteError) -> Response:
        return problem(HTTPStatus.NOT_FOUND, str(error), "not-found")

    @app.errorhandler(UnknownMovementError)
    def _no_movement(error: UnknownMovementError) -> Response:
        return problem(HTTPStatus.UNPROCESSABLE_ENTITY, str(error), "unknown-movement")

    @app.errorhandler(WorkError)
    def _cannot_be_done(error: WorkError) -> Response:
        status = next(
            (status for kind, status in _STATUS.items() if isinstance(error, kind)),
            HTTPStatus.CONFLICT,
        )
        return problem(status, str(error), error.kind)

    @app.errorhandler(NotWantedError)
    def _not_wanted(_error: NotWantedError) -> Response:
        return problem(
            HTTPStatus.SERVICE_UNAVAILABLE, "Nobody waits for this answer any more.", "not-wanted"
        )

    @app.errorhandler(HTTPException)
    def _http(error: HTTPException) -> Response:
        if isinstance(error.response, Response):
            return Response(
                error.response.get_data(),
                status=error.response.status_code,
                content_type=error.response.content_type,
            )
        return problem(error.code or 500, error.description or error.name)

    @app.errorhandler(DatabaseError)
    def _data_file(error: DatabaseError) -> Response:
        if isinstance(error, IntegrityError):
            return _unforeseen(error)
        busy = "locked" in str(error)
        if not busy:
            log.exception("the data file failed", exc_info=error)
        status = HTTPStatus.SERVICE_UNAVAILABLE if busy else HTTPStatus.INSUFFICIENT_STORAGE
        response = problem(
            status,
            "Somebody else is saving something large: this is not saved yet, and is tried again."
            if busy
            else f"The data file {what_is_wrong(error)}.",
            "busy" if busy else "data-file",
        )
        if busy:
            response.headers["Retry-After"] = "1"
        return response

    @app.errorhandler(Exception)
    def _unforeseen(error: Exception) -> Response:
        log.exception("a request failed", exc_info=error)
        return problem(
            500,
            "Dial Back failed at this request; the log has the details. Reload the page to see "
            "what is stored.",
        )
