"""Who may ask, and what a browser may do with the answer."""

from __future__ import annotations

from http import HTTPStatus
from typing import Final
from urllib.parse import urlsplit

from flask import Flask, Response, request

from dialback.book.book import MAX_BYTES
from dialback.book.errors import BadInputError
from dialback.book.json_text import NotJsonError, read_json
from dialback.core.plain import MAX_DEPTH, odd_character
from dialback.web.problems import bad_input_response, problem

CONTENT_SECURITY_POLICY: Final = {
    "default-src": "'none'",
    "script-src": "'self'",
    "style-src": "'self'",
    "font-src": "'self'",
    "img-src": "'self' data:",
    "connect-src": "'self'",
    "manifest-src": "'self'",
    "worker-src": "'self'",
    "base-uri": "'none'",
    "form-action": "'self'",
    "frame-ancestors": "'none'",
}
MAX_BODY: Final = 2_000_000
"""Bytes of a body that is not a file: the longest log is a tenth of that."""
MAX_NESTED: Final = MAX_DEPTH - 10
"""What comes in by a request goes out within a book, some levels deeper."""
HEADERS: Final = {
    "Content-Security-Policy": "; ".join(
        f"{what} {whence}" for what, whence in CONTENT_SECURITY_POLICY.items()
    ),
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Permissions-Policy": "geolocation=(), camera=(), microphone=()",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}
"""On every answer: no script, frame, form or address of anybody else."""
BOOK_DOORS: Final = ("import_one", "look_before_import")
"""Where a whole book comes in."""
SAFE_METHODS: Final = frozenset({"GET", "HEAD", "OPTIONS"})
LOOPBACK: Final = ["127.0.0.1", "localhost", "[::1]"]


def _is_foreign(origin: str) -> bool:
    """Whether an origin is not this one: another host, or another way to the same."""
    try:
        parts = urlsplit(origin)
    except ValueError:
        return True
    return (parts.scheme, parts.netloc) != (request.scheme, request.host)


def register(app: Flask) -> None:
    """Set headers on every answer; refuse foreign hosts, foreign origins and other bodies."""
    app.config["MAX_CONTENT_LENGTH"] = MAX_BYTES

    @app.after_request
    def _headers(response: Response) -> Response:
        for name, value in HEADERS.items():
            response.headers.setdefault(name, value)
        if request.path.startswith("/api/"):
            # What is answered is somebody's own: neither the browser nor a proxy keeps a copy.
            response.headers.setdefault("Cache-Control", "no-store")
        if request.is_secure:
            response.headers.setdefault("Strict-Transport-Security", "max-age=31536000")
        return response

    @app.before_request
    def _same_origin() -> Response | None:
        # Pages of other sites get no answer of the API either: to ask is already to keep it busy.
        if request.method in SAFE_METHODS and not request.path.startswith("/api/"):
            return None
        origin = request.headers.get("Origin")
        site = request.headers.get("Sec-Fetch-Site", "same-origin")
        if (origin is not None and _is_foreign(origin)) or site not in ("same-origin", "none"):
            return problem(
                HTTPStatus.FORBIDDEN,
                "A page of another site asked for this.",
                "foreign-origin",
            )
        return None

    @app.before_request
    def _json_only() -> Response | None:
        # A form can be sent by any page; JSON cannot without the browser asking first.
        if request.method in SAFE_METHODS or not request.content_length:
            return None
        if request.mimetype == "application/octet-stream":
            # No form can send that either; it is for files.
            return None
        if request.mimetype != "application/json":
            return problem(
                HTTPStatus.UNSUPPORTED_MEDIA_TYPE,
                f"The body is {request.mimetype or 'of no type'}: send application/json.",
                "not-json",
            )
        if request.endpoint and not request.endpoint.endswith(BOOK_DOORS):
            # The book has its own reader: it may be longer, and is read there.
            if request.content_length > MAX_BODY:
                return problem(
                    HTTPStatus.REQUEST_ENTITY_TOO_LARGE,
                    f"The body has {request.content_length:,} bytes: at most {MAX_BODY:,} are "
                    "taken here.",
                )
            try:
                read_json(request.get_data(cache=True), "the body", MAX_NESTED)
            except NotJsonError as error:
                return problem(HTTPStatus.BAD_REQUEST, error.line, "not-json")
            except BadInputError as error:
                return bad_input_response(error)
        return None

    @app.before_request
    def _plain_address() -> Response | None:
        texts = (request.path, *request.args.keys(), *request.args.values())
        odd = next((said for text in texts if (said := odd_character(text))), None)
        return (
            None
            if odd is None
            else problem(HTTPStatus.UNPROCESSABLE_ENTITY, f"The address: {odd}.", "bad-input")
        )
