"""The server: waitress on one address, its ledgers warmed before the first request."""

from __future__ import annotations

import contextlib
import gc
import logging
import socket
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Any

from flask import Flask
from peewee import DatabaseError
from waitress.server import create_server

from dialback.book.errors import BadInputError, bad_input
from dialback.core.weeks import Week
from dialback.store.accounts import accounts
from dialback.store.copies import copy_of_the_day
from dialback.store.database import check_large, connected
from dialback.store.hold import held
from dialback.web.app import create_app
from dialback.web.counting import count_ahead
from dialback.web.desk import Desk
from dialback.web.security import LOOPBACK

log = logging.getLogger(__name__)

KEEP_EVERY_S = 20.0
GARBAGE = (5_000, 10, 10)
"""How often garbage is searched for: seldom enough for a count, often enough for a day."""
THREADS = 32
"""Enough for a room: the stream of a sensor holds one for as long as its set lasts."""


@dataclass(frozen=True, slots=True)
class Reach:
    """Who reaches the server: the address it listens at, names it answers to, a proxy before it.

    Port 0 takes a free one. ``proxy`` is the address of a reverse proxy that is trusted to say who
    asks, by which name, and whether by https. ``second_factor``: owners and coaches need one.
    """

    host: str = "127.0.0.1"
    port: int = 8765
    names: tuple[str, ...] = ()
    proxy: str | None = None
    second_factor: bool = False

    @property
    def beyond(self) -> bool:
        """Whether others than this machine may come."""
        return self.host not in LOOPBACK or bool(self.names) or self.proxy is not None

    @property
    def everywhere(self) -> bool:
        """Whether it listens at every address of the machine."""
        return self.host in ("0.0.0.0", "::")  # noqa: S104

    def hosts(self) -> list[str]:
        """The names that it answers to."""
        own = own_addresses() if self.everywhere else [self.host]
        return list(dict.fromkeys([*LOOPBACK, *own, *self.names]))


def own_addresses() -> list[str]:
    """The names and addresses under which a phone of the same network finds this machine."""
    name = socket.gethostname()
    with contextlib.suppress(OSError):
        found = {str(info[4][0]) for info in socket.getaddrinfo(name, None, socket.AF_INET)}
        return [*sorted(found - {"127.0.0.1", "127.0.1.1"}), name, f"{name}.local"]
    return [name, f"{name}.local"]


def serve(
    data: Path,
    reach: Reach,
    say: Callable[[str], None],
    *,
    today: Callable[[], date] = date.today,
    keep_every_s: float = KEEP_EVERY_S,
) -> None:
    """Serve until interrupted; ``say`` is told the address, ``today`` is the clock.

    Raises ``BadInputError`` if the address cannot be had, and where others would reach a house in
    which nobody has an account.
    """
    if reach.beyond:
        _refuse_without_owner()
    with held(data):
        _serve(data, reach, say, today, keep_every_s)


def _serve(
    data: Path,
    reach: Reach,
    say: Callable[[str], None],
    today: Callable[[], date],
    keep_every_s: float,
) -> None:
    host = reach.host
    # Ledgers that were let go hang together in circles: only a search for garbage frees them.
    gc.set_threshold(*GARBAGE)
    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(levelname)s %(message)s")
    app = create_app(
        data,
        today=today,
        hosts=reach.hosts(),
        beyond=reach.beyond,
        second_factor=reach.second_factor,
    )
    trusted = (
        {}
        if reach.proxy is None
        else {
            "trusted_proxy": reach.proxy,
            "trusted_proxy_count": 1,
            "trusted_proxy_headers": "x-forwarded-for x-forwarded-proto x-forwarded-host",
            "clear_untrusted_proxy_headers": True,
        }
    )
    try:
        server = listen(app, host, reach.port, threads=THREADS, ident="Dial Back", **trusted)
    except OSError as error:
        raise bad_input(f"{host}:{reach.port}", f"cannot be served: {error.strerror}") from None
    for line in _told(reach, server.effective_port):
        say(line)
    # The first coach of the morning does not wait for a year of sets to be counted.
    threading.Thread(target=_stay_warm, args=(app, data, keep_every_s), daemon=True).start()
    try:
        server.run()
    except KeyboardInterrupt:
        server.close()


def listen(app: Flask, host: str, port: int, **more: Any) -> Any:
    """A waitress server for the app; port 0 takes a free one. Raises ``OSError``.

    It looks ahead on its connections, so that long work ends when whoever asked is gone.
    """
    return create_server(app, host=host, port=port, channel_request_lookahead=1, **more)


def _refuse_without_owner() -> None:
    with connected():
        if not any(one.role == "owner" for one in accounts()):
            raise bad_input(
                "--host",
                "others would reach it, and nobody has an account: make the owner's "
                "first, with 'dialback account add NAME --role owner'",
            )


def _told(reach: Reach, port: int) -> list[str]:
    """Where it is, for whoever started it."""
    where = own_addresses()[0] if reach.everywhere else reach.host
    lines = [f"Dial Back is at http://{where}:{port}/ (stop it with Ctrl+C)"]
    if reach.names:
        lines.append(f"It answers to {', '.join(reach.names)}, too")
    if reach.beyond and reach.proxy is None:
        lines.append(
            "Without https anyone on the network can read everything, passwords too: "
            "docs/deploy.md tells how to put a proxy before it"
        )
    return lines


def _stay_warm(app: Flask, data: Path, keep_every_s: float) -> None:
    """Count the roster ahead of the coach, and keep what was counted, behind the answers."""
    shared: Desk = app.extensions["dialback"]
    counted: Week | None = None
    checked = False
    copied: date | None = None
    while True:
        week = Week.to_audit(shared.today())
        if week != counted:
            # Some after others, so that whoever comes meanwhile has a turn.
            while _count_some(app):
                continue
            counted = week
        if copied != shared.today():
            _look_for_damage(shared)
        copied = _copy_of_the_day(data, shared.today(), copied)
        with contextlib.suppress(DatabaseError), connected():
            # What cannot be kept now is worked out again: nothing of it is anybody's record.
            shared.verdicts.keep()
        if not checked:
            _say_if_damaged(data)
            checked = True
        time.sleep(keep_every_s)


def _look_for_damage(shared: Desk) -> None:
    """Once a day every value is looked at: what cannot be read is told where it would stand."""
    with contextlib.suppress(DatabaseError), connected(snapshot=True):
        if count := shared.damage.look():
            log.critical("%s damaged values: run 'dialback check'", count)


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


def _count_some(app: Flask) -> bool:
    with app.app_context(), connected(snapshot=True):
        return count_ahead()
