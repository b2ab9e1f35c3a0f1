"""Accounts: who may come in, by a password or by the door of a phone; hashes only are kept."""

from __future__ import annotations

import os
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Final, cast

from dialback.book.errors import bad_input
from dialback.core.movements import fold
from dialback.core.roles import Role
from dialback.store.models import Account as AccountRow
from dialback.store.models import Athlete, House
from dialback.store.unit import silently

_KEY_BYTES: Final = 32


@dataclass(frozen=True, slots=True)
class Account:
    """Somebody who comes in: name, role, and for an athlete whose plan it is."""

    number: int
    name: str
    role: Role
    athlete: int | None
    password: str | None
    seen_on: date | None
    second: str | None
    """What the secret of the second factor is derived from; ``None`` for who has none."""


def _account(row: AccountRow) -> Account:
    return Account(
        row.id,
        row.name,
        cast(Role, row.role),
        row.athlete_id,
        row.password,
        row.seen_on,
        row.second,
    )


def accounts() -> list[Account]:
    """Every account, by name."""
    return [_account(row) for row in AccountRow.select().order_by(AccountRow.folded)]


def is_any() -> bool:
    """Whether anybody has an account: then whoever comes has to say who it is."""
    return bool(AccountRow.select().exists())


def times_unlocked() -> int:
    """How often the wrong tries were forgotten from the command line."""
    count: int = House.select(House.unlocked).scalar() or 0
    return count


def account_row(number: int) -> AccountRow | None:
    """The row of an account."""
    found: AccountRow | None = AccountRow.get_or_none(AccountRow.id == number)
    return found


def account_of(number: int) -> Account | None:
    """The account of that number. An athlete who is archived has none."""
    row = account_row(number)
    return None if row is None or _is_archived(row) else _account(row)


def _is_archived(row: AccountRow) -> bool:
    return row.athlete is not None and row.athlete.deleted_on is not None


def account_named(name: str) -> Account | None:
    """The account of that name, letter case apart."""
    row = AccountRow.get_or_none(AccountRow.folded == fold(name))
    return None if row is None else _account(row)


def row_of_athlete(athlete: Athlete) -> AccountRow | None:
    """The account of an athlete."""
    found: AccountRow | None = AccountRow.get_or_none(AccountRow.athlete == athlete)
    return found


def account_by_door(hashed: str) -> Account | None:
    """Whose door that is, by its hash; nobody's if it was withdrawn or the athlete is archived."""
    row = AccountRow.get_or_none(AccountRow.door == hashed)
    return None if row is None or _is_archived(row) else _account(row)


def keep_hash(number: int, password: str) -> None:
    """Keep a password's hash made anew, with today's cost."""
    with silently():
        AccountRow.update(password=password).where(AccountRow.id == number).execute()


def signing_key(data: Path) -> bytes:
    """The key that signs this data file's cookies; made beside it the first time.

    It is not in the data file: a copy of that lets nobody in. Raises ``BadInputError``.
    """
    path = data.with_name(f"{data.name}.key")
    try:
        try:
            part = path.with_name(f".{path.name}.{os.getpid()}.part")
            with os.fdopen(os.open(part, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600), "wb") as new:
                new.write(os.urandom(_KEY_BYTES))
            # Two that start at once agree on one key.
            os.link(part, path)
        except FileExistsError:
            pass
        finally:
            part.unlink(missing_ok=True)
        key = path.read_bytes()
    except OSError as error:
        raise bad_input(str(path), f"cannot be made or read: {error.strerror}") from None
    if len(key) != _KEY_BYTES:
        raise bad_input(str(path), "is damaged: delete it, and everybody signs in again")
    return key
