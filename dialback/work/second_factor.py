"""A second factor: codes of an app on the phone (TOTP, RFC 6238), and codes for a lost phone.

The secret is derived from the key beside the data file: a copy of the data does not have it.
"""

from __future__ import annotations

import base64
import hashlib
import hmac
import secrets
import time
from typing import Final

import pyotp

from dialback.book.errors import bad_input
from dialback.store.accounts import Account, account_row
from dialback.store.devices import forget_devices, hash_of
from dialback.store.unit import silently, unit
from dialback.work.errors import NotThereError

ISSUER: Final = "Dial Back"
_CODES: Final = 10
_LETTERS: Final = "abcdefghjkmnpqrstuvwxyz23456789"
"""Without those that are mixed up on paper."""
_PERIOD_S: Final = 30
_EARLIER: Final = 1
"""Periods by which a phone's clock may be wrong, either way."""


def draw() -> str:
    """What a new secret is derived from; it is worth nothing by itself."""
    return secrets.token_hex(16)


def secret_of(key: bytes, second: str) -> str:
    """The secret that the phone's app is told, in base 32."""
    digest = hmac.new(key, b"second factor " + second.encode(), hashlib.sha256).digest()
    return base64.b32encode(digest[:20]).decode()


def address_of(secret: str, name: str) -> str:
    """The address that a phone's app reads from a picture."""
    return pyotp.TOTP(secret).provisioning_uri(name=name, issuer_name=ISSUER)


def _period(secret: str, code: str, now: float) -> int | None:
    """The period whose code that is; ``None`` for a wrong one."""
    app, here = pyotp.TOTP(secret), int(now) // _PERIOD_S
    typed = "".join(code.split())
    near = range(here - _EARLIER, here + _EARLIER + 1)
    return next((one for one in near if hmac.compare_digest(app.at(one * _PERIOD_S), typed)), None)


def begin(account: int, key: bytes, second: str, code: str) -> list[str]:
    """Take a second factor on, once its first code is right; the codes for a lost phone.

    Other devices are signed out by whoever calls it. Raises ``BadInputError``.
    """
    period = _period(secret_of(key, second), code, time.time())
    if period is None:
        raise bad_input(
            "code",
            "is not the one that the app shows now: look whether the phone's clock is "
            "right, and type the six digits again",
        )
    codes = ["-".join(_few() for _ in range(3)) for _ in range(_CODES)]
    with unit() as entry:
        row = account_row(account)
        if row is None:
            raise NotThereError("That account no longer exists.")
        row.second, row.second_used = second, period
        row.recovery = [hash_of(one) for one in codes]
        row.save()
        entry.tell(f"{row.name} signs in with a second factor now")
    return codes


def _few() -> str:
    return "".join(secrets.choice(_LETTERS) for _ in range(5))


def end(account: int) -> None:
    """Let an account sign in without a second factor again."""
    with unit() as entry:
        row = account_row(account)
        if row is None:
            raise NotThereError("That account no longer exists.")
        if row.second is None:
            raise NotThereError(f"{row.name} has no second factor.")
        row.second, row.recovery = None, []
        row.save()
        forget_devices(account)
        entry.tell(f"Removed the second factor of {row.name}")


def is_right(account: Account, key: bytes, code: str) -> bool:
    """Whether a code lets an account in; each code of either kind does so once."""
    typed = code.strip().lower()
    with silently():
        row = account_row(account.number)
        if row is None or row.second is None:
            return False
        period = _period(secret_of(key, row.second), typed, time.time())
        if period is not None and period > row.second_used:
            row.second_used = period
        elif hash_of(typed) in row.recovery:
            row.recovery = [one for one in row.recovery if one != hash_of(typed)]
        else:
            return False
        row.save()
        return True
