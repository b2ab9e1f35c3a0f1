"""Accounts made, changed and removed; who signs in; doors for athletes' phones."""

from __future__ import annotations

import secrets
from datetime import date
from typing import Final

from dialback.book.errors import bad_input
from dialback.core.movements import fold
from dialback.core.roles import Role
from dialback.store.accounts import (
    Account,
    account_by_door,
    account_named,
    account_row,
    accounts,
    is_any,
    keep_hash,
    row_of_athlete,
)
from dialback.store.athletes import athlete_on_roster
from dialback.store.devices import end_session, forget_devices, hash_of, let_sessions_lapse
from dialback.store.models import Account as AccountRow
from dialback.store.models import Athlete, House
from dialback.store.unit import silently, unit
from dialback.work.alike import alike, invisible
from dialback.work.errors import ConflictError, NotThereError, UnfitError
from dialback.work.passwords import check_password, hashed, is_dated, is_right

LONGEST_NAME: Final = 80


def add(name: str, role: Role, password: str, today: date) -> Account:
    """Make an account; the first is the owner's. Raises ``BadInputError``, ``ConflictError``."""
    name = name.strip()
    if not name or len(name) > LONGEST_NAME:
        raise bad_input("name", f"an account needs a name of at most {LONGEST_NAME} characters")
    if invisible(name):
        raise bad_input("name", "has characters that cannot be seen: type it again")
    if role == "athlete":
        raise bad_input("role", "an athlete signs in with a link for the phone: make one instead")
    check_password(password, name)
    kept = hashed(password)
    with unit() as entry:
        if not is_any() and role != "owner":
            raise ConflictError(
                "owner-first", "The first account is the owner's: create your own before others."
            )
        if account_named(name) is not None:
            raise ConflictError("name-taken", f"There is already an account called {name!r}.")
        other = alike(name, [one.name for one in accounts()])
        if other is not None:
            raise ConflictError(
                "name-taken",
                f"{name!r} looks like {other!r}, who has an account: choose a name that cannot be "
                "taken for it.",
            )
        AccountRow.create(name=name, folded=fold(name), role=role, password=kept, made_on=today)
        entry.tell(f"Created an account for {name}, {role}")
        return _named(name)


def sign_in(name: str, password: str) -> Account | None:
    """Who that is; nobody if name and password do not belong together."""
    found = account_named(name)
    if not is_right(found.password if found is not None else None, password) or found is None:
        return None
    if found.password is not None and is_dated(found.password):
        keep_hash(found.number, hashed(password))
    return found


def set_password(number: int, password: str, *, but: int | None = None) -> Account:
    """Give an account another password; its devices are signed out, but one if it is named."""
    check_password(password, _row(number).name)
    kept = hashed(password)
    with unit() as entry:
        row = _row(number)
        if row.athlete_id is not None:
            raise UnfitError("by-door", f"{row.name} signs in with a link: make a new one instead.")
        row.password = kept
        row.save()
        forget_devices(number, but=but)
        entry.tell(f"Set a new password for {row.name}")
        return _named(row.name)


def change_own_password(number: int, old: str, new: str, device: int) -> None:
    """Change the own password, with the old one; the device at hand stays signed in.

    Raises ``UnfitError`` where the old one is wrong.
    """
    check_own_password(number, old)
    set_password(number, new, but=device)


def check_own_password(number: int, password: str) -> None:
    """Make sure who is there. Raises ``UnfitError`` where the password is wrong."""
    if not is_right(_row(number).password, password):
        raise UnfitError("wrong-password", "That is not your current password.")


def change_role(number: int, role: Role, today: date) -> None:
    """Give an account another role, and sign its devices out; there is always an owner."""
    with unit() as entry:
        row = _row(number)
        if (role == "athlete") != (row.athlete_id is not None):
            raise UnfitError("by-door", "Athletes sign in with a link, and nobody else does.")
        _keep_an_owner(row, role)
        row.role = role
        row.save()
        let_sessions_lapse(number, today)
        entry.tell(f"{row.name} is {role} now")


def remove(number: int) -> None:
    """Remove an account; what it has done stays in the journal. There is always an owner."""
    with unit() as entry:
        row = _row(number)
        _keep_an_owner(row, None)
        row.delete_instance()
        if row.athlete is None:
            entry.tell(f"Removed the account of {row.name}")
        else:
            entry.tell("Withdrew the phone link", row.athlete)


def remove_all() -> int:
    """Remove every account: the house is a desk of its own again. How many there were.

    For whoever has the machine in hand; nobody can ask for it from outside.
    """
    with unit() as entry:
        count: int = AccountRow.delete().execute()
        if count:
            entry.tell("Removed every account")
        return count


def _keep_an_owner(row: AccountRow, role: Role | None) -> None:
    owners = [one.number for one in accounts() if one.role == "owner"]
    if owners == [row.id] and role != "owner":
        raise ConflictError(
            "last-owner", f"{row.name} is the only owner: make somebody else an owner first."
        )


def make_door(athlete: int, today: date) -> str:
    """Make a door for an athlete's phone; the token that opens it, told once.

    An older one opens nothing any more, and its devices are signed out.
    """
    token = secrets.token_urlsafe(24)
    with unit() as entry:
        whose = athlete_on_roster(athlete)
        if not is_any():
            raise ConflictError(
                "owner-first",
                "Create your own account first; until then anyone at this machine is in charge.",
            )
        row = row_of_athlete(whose)
        if row is None:
            name = _free_name(whose.name)
            row = AccountRow(
                name=name, folded=fold(name), role="athlete", athlete=whose, made_on=today
            )
        row.door = hash_of(token)
        row.save()
        forget_devices(row.id)
        entry.tell("Made a phone link", whose)
    return token


def _free_name(name: str) -> str:
    """The athlete's name, or where a coach is called so, one beside it."""
    found, number = name, 1
    while account_named(found) is not None:
        number += 1
        found = f"{name} ({number})"
    return found


def follow_name(athlete: Athlete) -> None:
    """Call an athlete's account as the athlete is called now. To be called within a unit."""
    row = row_of_athlete(athlete)
    if row is not None and row.name != athlete.name:
        row.name = _free_name(athlete.name)
        row.folded = fold(row.name)
        row.save()


def withdraw_door(athlete: int) -> None:
    """Withdraw an athlete's door; every device of it is signed out."""
    with unit():
        row = row_of_athlete(athlete_on_roster(athlete))
        if row is None:
            raise NotThereError("The link has already been withdrawn.")
        remove(row.id)


def open_door(token: str) -> Account | None:
    """Who comes in by that door; nobody if it was withdrawn."""
    return account_by_door(hash_of(token))


def sign_out_there(number: int, device: int) -> None:
    """Sign one device of an account out. Raises ``NotThereError`` where it is out already."""
    if not end_session(number, device):
        raise NotThereError("That device is signed out already.")


def sign_out_elsewhere(number: int, device: int) -> None:
    """Sign out every device of an account but the one at hand."""
    with silently():
        forget_devices(number, but=device)


def forget_tries() -> None:
    """Let everybody try again who has to wait for wrong passwords: the server sees the count."""
    with silently():
        House.update(unlocked=House.unlocked + 1).execute()


def _row(number: int) -> AccountRow:
    row = account_row(number)
    if row is None:
        raise NotThereError("That account no longer exists.")
    return row


def _named(name: str) -> Account:
    found = account_named(name)
    assert found is not None  # noqa: S101 - it was made a line ago
    return found
