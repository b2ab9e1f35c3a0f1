"""The app factory."""

from __future__ import annotations

import json
from collections.abc import Callable
from datetime import date
from pathlib import Path
from typing import Any, TypedDict, Unpack, cast

from flask import Response, request, send_from_directory
from flask_openapi3 import Info, OpenAPI
from werkzeug.security import safe_join

from dialback import __version__
from dialback.store.athletes import Ledgers
from dialback.store.database import connect, disconnect, open_database
from dialback.web import doors, problems, security
from dialback.web.desk import Desk
from dialback.web.document import finished
from dialback.web.places import (
    accounts,
    block,
    care,
    cues,
    decisions,
    drafts,
    files,
    floor,
    form,
    goals,
    journal,
    kit,
    log,
    maxima,
    movements,
    notation,
    proposals,
    restrictions,
    roster,
    rules,
    season,
    sheets,
    squads,
    templates,
    wave,
    weeks,
    write,
)
from dialback.work.errors import NotThereError

PLACES = (
    accounts,
    roster,
    squads,
    weeks,
    block,
    wave,
    journal,
    templates,
    drafts,
    proposals,
    write,
    form,
    log,
    floor,
    movements,
    kit,
    rules,
    files,
    goals,
    care,
    cues,
    decisions,
    restrictions,
    maxima,
    notation,
    sheets,
    season,
)
MORE_APIS = (
    block.blocks_api,
    cues.own_api,
    templates.from_block,
    write.habits_api,
    log.logs_api,
    log.versions_api,
    sheets.imports_api,
    sheets.export_api,
    kit.unit_api,
    kit.house_api,
)
STATIC = Path(__file__).parent / "static"


class House(TypedDict, total=False):
    """How a house is served.

    ``today`` is the clock, ``hosts`` the names it answers to, ``patience`` how many times its
    usual time an answer may take. ``beyond``: others than this machine reach it, so that nobody
    comes in without an account. ``second_factor``: owners and coaches need one.
    """

    today: Callable[[], date]
    hosts: list[str] | None
    patience: float
    beyond: bool
    second_factor: bool


def create_app(data: Path, **house: Unpack[House]) -> OpenAPI:
    """The application on one data file. Raises ``BadInputError`` if the file does not open."""
    app = routed()
    settle(app, data, **house)
    return app


def settle(app: OpenAPI, data: Path, **house: Unpack[House]) -> None:
    """Give routes a house, in place of the one that they had; as ``create_app`` has it."""
    open_database(data)
    today, patience = house.get("today", date.today), house.get("patience", 1.0)
    app.extensions["dialback"] = Desk(Ledgers(), today, data=data, patience=patience)
    app.config["TRUSTED_HOSTS"] = house.get("hosts") or security.LOOPBACK
    doors.settle(
        app,
        data,
        beyond=house.get("beyond", False),
        second_factor=house.get("second_factor", False),
    )


def routed() -> OpenAPI:
    """The routes with all that goes before and after a request, still without a house."""
    app = _bare_app()
    security.register(app)
    problems.register(app)

    @app.before_request
    def _connect() -> None:
        asks = (request.endpoint or "").rpartition(".")[2] in doors.ASKING
        # One read, one snapshot: what an answer is made of belongs together, whoever writes.
        connect(snapshot=asks or request.method in ("GET", "HEAD"))

    @app.teardown_request
    def _disconnect(_: BaseException | None) -> None:
        disconnect()
        doors.note_first_of_the_day()

    doors.register(app)
    return app


def _bare_app() -> OpenAPI:
    """The routes without data: enough to describe the API."""
    app = OpenAPI(
        "dialback.web",
        info=Info(title="Dial Back", version=__version__),
        doc_ui=False,
        validation_error_status=422,
        validation_error_model=problems.ProblemDetails,
        validation_error_callback=problems.invalid,
        static_folder=None,
    )
    for place in PLACES:
        app.register_api(place.api)
    for api in MORE_APIS:
        app.register_api(api)
    app.add_url_rule("/api/openapi.json", "openapi_document", _document)
    app.add_url_rule("/", "page", _page)
    app.add_url_rule("/<path:path>", "page", _page)
    return app


def openapi_document() -> dict[str, Any]:
    """The OpenAPI document, made from the code."""
    return finished(cast(dict[str, Any], _bare_app().api_doc))


def _document() -> Response:
    """The document of this API, for whoever wants to talk to it."""
    return Response(json.dumps(openapi_document()), content_type="application/json")


def _is_built(path: str) -> bool:
    """Whether it is a file of the built front end; nothing outside of it is told apart."""
    inside = safe_join(str(STATIC), path)
    try:
        return inside is not None and Path(inside).is_file()
    except OSError:
        # A name that is too long for any file.
        return False


def _page(path: str = "") -> Response:
    """A file of the built front end; every other address is a place that the front end shows."""
    if path.startswith("api/"):
        raise NotThereError(f"There is nothing at /{path}.")
    if path and _is_built(path):
        response = send_from_directory(STATIC, path)
        # Built files carry a hash of their content in their name.
        response.cache_control.max_age = 31_536_000 if path.startswith("assets/") else 0
        response.cache_control.immutable = path.startswith("assets/")
        return response
    if not (STATIC / "index.html").is_file():
        raise NotThereError("The front end is not built: run 'make build'.")
    response = send_from_directory(STATIC, "index.html")
    response.cache_control.no_cache = True
    return response
