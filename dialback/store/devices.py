"""Devices that accounts have signed in on: each holds a secret drawn by lot; its hash is kept.

A secret is never made of a number, never given twice, and worth nothing once its row is gone.
"""

from __future__ import annotations

import hashlib
import secrets
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from dialback.store.accounts import Account, account_of
from dialback.store.models import Account as AccountRow
from dialback.store.models import Device as DeviceRow
from dialback.store.unit import silently

STAYS: Final = timedelta(days=30)
"""So long a device stays signed in after it was last used."""
REMEMBERED: Final = timedelta(days=400)
"""So long a device is told again after it was last signed in: no longer than its cookie lasts."""
MOST: Final = 50
"""Devices of one account; the one not seen for longest goes first."""


@dataclass(frozen=True, slots=True)
class Held:
    """What a device is given to hold: what signs it in, and what tells it again afterwards."""

    session: str
    known: str


@dataclass(frozen=True, slots=True)
class Device:
    """A device of an account; ``number`` names it to its owner, and signs nobody in."""

    number: int
    words: str
    since: date
    seen: date


def hash_of(secret: str) -> str:
    """What is kept of a secret: it is long and drawn by lot, so that a plain hash will do."""
    return hashlib.sha256(secret.encode()).hexdigest()


def open_session(account: int, words: str, known: str | None, today: date) -> Held:
    """Sign a device in; both secrets are new. ``known`` is what it was told again by, if it was."""
    held = Held(secrets.token_urlsafe(32), secrets.token_urlsafe(32))
    with silently():
        row = _known(account, known) or DeviceRow(account=account, since=today)
        row.words, row.seen = words, today
        row.session, row.known = hash_of(held.session), hash_of(held.known)
        row.save()
        AccountRow.update(seen_on=today).where(AccountRow.id == account).execute()
        _let_old_ones_go(account, today)
    return held


def _known(account: int, known: str | None) -> DeviceRow | None:
    if known is None:
        return None
    row: DeviceRow | None = DeviceRow.get_or_none(
        DeviceRow.account == account, DeviceRow.known == hash_of(known)
    )
    return row


def _let_old_ones_go(account: int, today: date) -> None:
    DeviceRow.delete().where(DeviceRow.seen < today - REMEMBERED).execute()
    latest = (
        DeviceRow.select(DeviceRow.id)
        .where(DeviceRow.account == account)
        .order_by(DeviceRow.seen.desc(), DeviceRow.id.desc())
        .limit(MOST)
    )
    DeviceRow.delete().where(DeviceRow.account == account, DeviceRow.id.not_in(latest)).execute()


def is_known(account: int, known: str | None) -> bool:
    """Whether a device has signed in to this account before."""
    return _known(account, known) is not None


def signed_in(session: str, today: date) -> tuple[Account, Device] | None:
    """Whose session that is, and on which device; nobody's if it has ended."""
    row = DeviceRow.get_or_none(DeviceRow.session == hash_of(session))
    if row is None or row.seen + STAYS < today:
        return None
    account = account_of(row.account_id)
    return None if account is None else (account, _device(row))


def is_session(session: str) -> bool:
    """Whether nobody has ended that session, though it may be too old to sign in."""
    return bool(DeviceRow.select().where(DeviceRow.session == hash_of(session)).exists())


def _device(row: DeviceRow) -> Device:
    return Device(row.id, row.words, row.since, row.seen)


def note_seen(device: int, today: date) -> None:
    """Note that a device was here today; its account with it."""
    with silently():
        row = DeviceRow.get_or_none(DeviceRow.id == device)
        if row is not None:
            row.seen = today
            row.save()
            AccountRow.update(seen_on=today).where(AccountRow.id == row.account_id).execute()


def end_session(account: int, device: int) -> bool:
    """Sign one device of an account out; whether it was signed in."""
    with silently():
        ended: int = (
            DeviceRow.update(session=None)
            .where(
                DeviceRow.id == device,
                DeviceRow.account == account,
                DeviceRow.session.is_null(False),
            )
            .execute()
        )
    return ended > 0


def let_sessions_lapse(account: int, today: date) -> None:
    """End every session of an account as if nobody had been there for long.

    Nobody has taken the devices away: what waits on one is sent when the account signs in again.
    To be called within a unit.
    """
    # Far enough that a clock which is set back does not bring it to life again.
    lapsed = today - (REMEMBERED - STAYS)
    DeviceRow.update(seen=lapsed).where(
        DeviceRow.account == account, DeviceRow.seen > lapsed
    ).execute()


def forget_devices(account: int, *, but: int | None = None) -> None:
    """Sign every device of an account out, and tell none of them again; but one, if it is named.

    To be called within a unit.
    """
    DeviceRow.delete().where(DeviceRow.account == account, DeviceRow.id != (but or 0)).execute()


def devices_of(account: int, today: date) -> list[Device]:
    """The devices of an account that are signed in, the one seen last first."""
    rows = DeviceRow.select().where(
        DeviceRow.account == account,
        DeviceRow.session.is_null(False),
        DeviceRow.seen >= today - STAYS,
    )
    return [_device(row) for row in rows.order_by(DeviceRow.seen.desc(), DeviceRow.id.desc())]
