"""The OpenAPI document: what the framework makes of the code, with every refusal in it."""

from __future__ import annotations

from copy import deepcopy
from http import HTTPStatus
from typing import Any, Final

_PROBLEM: Final = {
    "application/problem+json": {"schema": {"$ref": "#/components/schemas/ProblemDetails"}}
}
_ALWAYS: Final = (
    HTTPStatus.BAD_REQUEST,
    HTTPStatus.UNAUTHORIZED,
    HTTPStatus.FORBIDDEN,
    HTTPStatus.NOT_FOUND,
    HTTPStatus.METHOD_NOT_ALLOWED,
    HTTPStatus.UNPROCESSABLE_ENTITY,
    HTTPStatus.INTERNAL_SERVER_ERROR,
    HTTPStatus.SERVICE_UNAVAILABLE,
)
"""Refusals that any operation can answer with; others depend on what it takes."""
_SCHEMAS: Final[dict[str, Any]] = {
    "application/json": {"type": "object"},
    "text/event-stream": {},
    "text/plain": {"type": "string"},
    "text/csv": {"type": "string"},
    "text/calendar": {"type": "string"},
}
_WORDS: Final = {
    HTTPStatus.BAD_REQUEST: "The request is not one that can be read",
    HTTPStatus.UNAUTHORIZED: "Nobody is signed in, and this house has accounts",
    HTTPStatus.FORBIDDEN: "Not for whoever is signed in, or asked for by a page of another site",
    HTTPStatus.NOT_FOUND: "There is no such thing",
    HTTPStatus.METHOD_NOT_ALLOWED: "There is no such operation here",
    HTTPStatus.CONFLICT: "It does not fit what is there, or builds on an older state",
    HTTPStatus.REQUEST_ENTITY_TOO_LARGE: "The body is too long",
    HTTPStatus.UNSUPPORTED_MEDIA_TYPE: "The body is of another type",
    HTTPStatus.UNPROCESSABLE_ENTITY: "Bad input, with the place of everything that is wrong",
    HTTPStatus.TOO_MANY_REQUESTS: "Too many wrong attempts: wait",
    HTTPStatus.INTERNAL_SERVER_ERROR: "It failed here; the log has the details",
    HTTPStatus.SERVICE_UNAVAILABLE: "Busy: try again after Retry-After",
}


def file_answer(kind: str, words: str) -> dict[str, Any]:
    """How an operation that answers with a file is described."""
    schema = _SCHEMAS.get(kind, {"type": "string", "format": "binary"})
    return {"description": words, "content": {kind: {"schema": schema}}}


def finished(document: dict[str, Any]) -> dict[str, Any]:
    """The document with its refusals, and without what the framework leaves empty."""
    document = deepcopy(document)
    components = document["components"]
    if not components.get("securitySchemes"):
        components.pop("securitySchemes", None)
    components["responses"] = {
        _name(status): {"description": words, "content": _PROBLEM}
        for status, words in _WORDS.items()
    }
    for operations in document["paths"].values():
        for method, operation in operations.items():
            operation["responses"].update(
                {
                    str(int(status)): {"$ref": f"#/components/responses/{_name(status)}"}
                    for status in _refusals(method)
                }
            )
    return document


def _name(status: HTTPStatus) -> str:
    """What a refusal is called in the document: ``NotFound``."""
    return status.phrase.title().replace(" ", "")


def _refusals(method: str) -> list[HTTPStatus]:
    found = list(_ALWAYS)
    if method != "get":
        found += [
            HTTPStatus.CONFLICT,
            HTTPStatus.REQUEST_ENTITY_TOO_LARGE,
            HTTPStatus.TOO_MANY_REQUESTS,
        ]
        found.append(HTTPStatus.UNSUPPORTED_MEDIA_TYPE)
    return sorted(found)
