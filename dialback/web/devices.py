"""What a device is called, and the cookies that it holds."""

from __future__ import annotations

from typing import Final

from flask import Flask, Response, g, request
from flask.sessions import SecureCookieSessionInterface

from dialback.store.devices import REMEMBERED

SESSION: Final = "dialback"
"""The cookie that signs in; with it the browser sends nothing else of ours."""
KNOWN: Final = "dialback-known"
"""The cookie that tells a device again, which stays when it is signed out."""
_LOCKED: Final = "__Host-"
"""Before a cookie's name, browsers take it by https from this host alone, and for all of it."""
_BROWSERS: Final = (
    ("Edg", "Edge"),
    ("OPR/", "Opera"),
    ("SamsungBrowser", "Samsung Internet"),
    ("Firefox", "Firefox"),
    ("FxiOS", "Firefox"),
    ("CriOS", "Chrome"),
    ("Chrome", "Chrome"),
    ("Safari", "Safari"),
)
"""How browsers call themselves; many name others too, so the first that is found counts."""
_SYSTEMS: Final = (
    ("iPhone", "iPhone"),
    ("iPad", "iPad"),
    ("Android", "Android"),
    ("Windows", "Windows"),
    ("Mac OS X", "Mac"),
    ("CrOS", "Chromebook"),
    ("Linux", "Linux"),
)


def _named(name: str) -> str:
    return _LOCKED + name if request.is_secure else name


def device_words() -> str:
    """What whoever asks calls itself, in words that its owner tells it by."""
    agent = request.headers.get("User-Agent", "")
    browser = next((words for mark, words in _BROWSERS if mark in agent), "A browser")
    system = next((words for mark, words in _SYSTEMS if mark in agent), None)
    return f"{browser} on {system}" if system else browser


def known_secret() -> str | None:
    """What tells this device again, if it holds it."""
    return request.cookies.get(_named(KNOWN))


def remember(secret: str) -> None:
    """Let the device hold what tells it again, with the answer under way."""
    g.known = secret


class Cookies(SecureCookieSessionInterface):
    """Signed cookies, kept to https and to this host where the request came by https."""

    def get_cookie_name(self, app: Flask) -> str:
        """The name of the cookie that signs in."""
        return _named(SESSION)

    def get_cookie_secure(self, app: Flask) -> bool:
        """Whether the browser may send it by https alone."""
        return request.is_secure


def hand_out(response: Response) -> Response:
    """Put what the device is to hold into its answer."""
    secret = g.pop("known", None)
    if secret is not None:
        response.set_cookie(
            _named(KNOWN),
            secret,
            max_age=REMEMBERED,
            secure=request.is_secure,
            httponly=True,
            samesite="Strict",
        )
    return response
