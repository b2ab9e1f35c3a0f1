"""Passwords: what is taken for one, how its hash is made, whether one is right."""

from __future__ import annotations

import secrets
from functools import cache
from threading import BoundedSemaphore
from typing import Final

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error, InvalidHashError
from zxcvbn import zxcvbn

from dialback.book.errors import bad_input

SHORTEST: Final = 12
LONGEST: Final = 200
"""Characters of a password: long ones are what helps, whatever they are made of."""
_GUESSED: Final = 72
"""So many characters are looked at for what is easily guessed; more would take seconds."""
_SAFE: Final = 3
"""Of 0 to 4 [Wheeler 2016, zxcvbn]: at least 10^8 guesses."""

_HASHER: Final = PasswordHasher()
_AT_ONCE: Final = BoundedSemaphore(2)
"""A hash takes 64 MB for a fifth of a second: who guesses keeps two of them busy, not the house."""


@cache
def nobodys() -> str:
    """What is looked at where there is no such account, so that the answer takes as long."""
    return _HASHER.hash(secrets.token_urlsafe())


def check_password(password: str, name: str) -> None:
    """Refuse what is short, common or made of the name. Raises ``BadInputError``."""
    if not SHORTEST <= len(password) <= LONGEST:
        raise bad_input(
            "password",
            f"has {len(password)} characters: use {SHORTEST} to {LONGEST}; three or "
            "four words in a row are easy to remember",
        )
    words = [name, *name.split(), "dialback", "dial back"]
    if zxcvbn(password[:_GUESSED], user_inputs=words)["score"] < _SAFE:
        raise bad_input(
            "password",
            "is easily guessed (a common password, a name, or a row of keys): use "
            "three or four words that do not belong together",
        )


def hashed(password: str) -> str:
    """The hash of a password, with today's cost."""
    with _AT_ONCE:
        return _HASHER.hash(password)


def is_right(kept: str | None, password: str) -> bool:
    """Whether a password is the one of a hash; it takes as long where there is no hash."""
    with _AT_ONCE:
        try:
            return bool(_HASHER.verify(kept or nobodys(), password)) and kept is not None
        except (Argon2Error, InvalidHashError):
            return False


def is_dated(kept: str) -> bool:
    """Whether a hash was made with less than today's cost."""
    return bool(_HASHER.check_needs_rehash(kept))
