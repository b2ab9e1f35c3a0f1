"""Who may ask, and what a browser may do with the answer."""

from __future__ import annotations

from http import HTTPStatus
from typing import Final
from urllib.parse import urlsplit

from flask import Flask, Response, request
from flask_talisman import Talisman

from dialback.book.book import MAX_BYTES
from dialback.web.problems import is_json, problem

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
SAFE_METHODS: Final = frozenset({"GET", "HEAD", "OPTIONS"})
LOOPBACK: Final = ["127.0.0.1", "localhost", "[::1]"]


def register(app: Flask, hosts: list[str]) -> None:
    """Set headers on every answer; refuse foreign hosts, foreign origins and other bodies."""
    app.config["TRUSTED_HOSTS"] = hosts
    app.config["MAX_CONTENT_LENGTH"] = MAX_BYTES
    Talisman(
        app,
        # It serves the loopback address; whoever puts it behind TLS adds these two there.
        force_https=False,
        strict_transport_security=False,
        session_cookie_secure=False,
        content_security_policy=CONTENT_SECURITY_POLICY,
        referrer_policy="no-referrer",
        permissions_policy={"geolocation": "()", "camera": "()", "microphone": "()"},
    )

    @app.before_request
    def _same_origin() -> Response | None:
        if request.method in SAFE_METHODS:
            return None
        origin = request.headers.get("Origin")
        site = request.headers.get("Sec-Fetch-Site", "same-origin")
        foreign = origin is not None and urlsplit(origin).netloc != request.host
        if foreign or site not in ("same-origin", "none"):
            return problem(
                HTTPStatus.FORBIDDEN, "A change was asked for by another site.", "foreign-origin"
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
        if request.endpoint and not request.endpoint.endswith("import_one"):
            # The book has its own reader, which tells line and column.
            data = request.get_data(cache=True)
            if not is_json(data):
                return problem(HTTPStatus.BAD_REQUEST, "The body is not JSON.", "not-json")
        return None
