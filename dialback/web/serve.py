"""The server: waitress on one address, its ledgers warmed before the first request."""

from __future__ import annotations

import contextlib
import gc
import logging
import threading
import time
from collections.abc import Callable
from datetime import date
from http import HTTPStatus
from pathlib import Path

from flask import Flask
from peewee import DatabaseError
from waitress.server import create_server
from werkzeug.test import TestResponse

from dialback.book.errors import BadInputError, bad_input
from dialback.core.weeks import Week
from dialback.store.copies import copy_of_the_day
from dialback.store.database import check_large, connected
from dialback.web.app import create_app
from dialback.web.desk import Desk
from dialback.web.security import LOOPBACK

log = logging.getLogger(__name__)

KEEP_EVERY_S = 20.0
GARBAGE = (5_000, 10, 10)
"""How often garbage is searched for: seldom enough for a count, often enough for a day."""
THREADS = 32
"""Enough for a room: the stream of a sensor holds one for as long as its set lasts."""


def serve(data: Path, host: str, port: int, say: Callable[[str], None]) -> None:
    """Serve until interrupted; ``say`` is told the address. Port 0 takes a free one.

    Raises ``BadInputError`` if the address cannot be had.
    """
    # Ledgers that were let go hang together in circles: only a search for garbage frees them.
    gc.set_threshold(*GARBAGE)
    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(levelname)s %(message)s")
    app = create_app(data, hosts=list(dict.fromkeys([*LOOPBACK, host])))
    try:
        server = create_server(app, host=host, port=port, threads=THREADS, ident="Dial Back")
    except OSError as error:
        raise bad_input(f"{host}:{port}", f"cannot be served: {error.strerror}") from None
    say(f"Dial Back is at http://{host}:{server.effective_port}/ (stop it with Ctrl+C)")
    # The first coach of the morning does not wait for a year of sets to be counted.
    threading.Thread(target=_stay_warm, args=(app, host, data), daemon=True).start()
    try:
        server.run()
    except KeyboardInterrupt:
        server.close()


def _stay_warm(app: Flask, host: str, data: Path) -> None:
    """Count the roster ahead of the coach, and keep what was counted, behind the answers."""
    shared: Desk = app.extensions["dialback"]
    counted: Week | None = None
    checked = False
    copied: date | None = None
    while True:
        week = Week.to_audit(shared.today())
        if week != counted:
            # One answer after another, so that whoever comes meanwhile has a turn.
            client = app.test_client()
            while _is_waiting(client.get("/api/roster", headers={"Host": host})):
                continue
            counted = week
        copied = _copy_of_the_day(data, shared.today(), copied)
        with contextlib.suppress(DatabaseError), connected():
            # What cannot be kept now is worked out again: nothing of it is anybody's record.
            shared.verdicts.keep()
        if not checked:
            _say_if_damaged(data)
            checked = True
        time.sleep(KEEP_EVERY_S)


def _copy_of_the_day(data: Path, today: date, copied: date | None) -> date:
    """Once a day a copy of the data file is laid beside it; tomorrow it is tried again."""
    if copied != today:
        try:
            copy_of_the_day(data, today)
        except BadInputError as error:
            log.warning("no copy of the data file was made today: %s", error)
    return today


def _say_if_damaged(data: Path) -> None:
    try:
        check_large(data)
    except BadInputError as damaged:
        log.critical("%s; stop writing in it", damaged.line)


def _is_waiting(answer: TestResponse) -> bool:
    return answer.status_code == HTTPStatus.OK and bool(answer.get_json()["waiting"])
