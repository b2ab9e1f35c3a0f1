"""Accounts: signing in and out, who may come in, doors for athletes' phones."""

from __future__ import annotations

from http import HTTPStatus

import segno
from flask import Response, request

from dialback.core.roles import ROLES, rights_of
from dialback.core.weeks import Week
from dialback.store.accounts import Account, accounts, note_seen
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk
from dialback.web.doors import come_in, go_out, visitor
from dialback.web.problems import RefusedError
from dialback.web.security import LOOPBACK
from dialback.web.shapes.accounts import (
    AccountOut,
    AccountPath,
    Accounts,
    DoorBody,
    DoorOut,
    NewAccountBody,
    OwnPasswordBody,
    PasswordBody,
    RoleBody,
    RoleOut,
    SignInBody,
    WhoOut,
)
from dialback.web.shapes.common import AthletePath, Done
from dialback.work import accounts as work
from dialback.work.errors import UnfitError

api = blueprint("accounts", __name__)


@api.get("/me", responses={200: WhoOut})
def who_is_it() -> Response:
    """Who asks, and what they may do."""
    return answer(_who())


def _who() -> WhoOut:
    who = visitor()
    account = who.account
    week = str(Week.of(desk().today()))
    if account is None and not who.is_open:
        return WhoOut(state="out", name="", role="viewer", athlete=None, rights=[], week=week)
    role = "owner" if account is None else account.role
    return WhoOut(
        state="open" if account is None else "in",
        name=who.name,
        role=role,
        athlete=None if account is None else account.athlete,
        rights=rights_of(role),
        week=week,
    )


@api.post("/sign-in", responses={200: WhoOut})
def sign_in(body: SignInBody) -> Response:
    """Come in by name and password."""
    tries, whence = desk().tries, (body.name.strip().casefold(), request.remote_addr or "")
    _refuse_too_many(tries.wait_s(*whence))
    found = work.sign_in(body.name, body.password, desk().today())
    if found is None:
        tries.note(*whence)
        raise RefusedError(
            HTTPStatus.UNAUTHORIZED, "wrong-password",
            "No account has this name and this password. Try again, or ask the owner of the "
            "house for a new password.",
        )  # fmt: skip
    come_in(found)
    return answer(_who())


def _refuse_too_many(wait_s: float) -> None:
    if wait_s > 0:
        minutes = max(1, round(wait_s / 60))
        raise RefusedError(
            HTTPStatus.TOO_MANY_REQUESTS, "too-many-tries",
            f"Too many attempts: try again in {minutes} minute{'s' if minutes > 1 else ''}.",
        )  # fmt: skip


@api.post("/door", responses={200: WhoOut})
def open_door(body: DoorBody) -> Response:
    """Come in by the door of an athlete's phone."""
    tries, whence = desk().tries, ("a door", request.remote_addr or "")
    _refuse_too_many(tries.wait_s(*whence))
    found = work.open_door(body.token, desk().today())
    if found is None:
        tries.note(*whence)
        raise RefusedError(
            HTTPStatus.UNAUTHORIZED, "no-door",
            "This link no longer works. Ask your coach for a new one.",
        )  # fmt: skip
    come_in(found)
    return answer(_who())


@api.post("/sign-out", responses={200: Done})
def sign_out() -> Response:
    """Go out on this device."""
    go_out()
    return answer(Done())


@api.post("/me/password", responses={200: Done})
def change_own_password(body: OwnPasswordBody) -> Response:
    """Change the own password; other devices are signed out."""
    account = visitor().account
    if account is None:
        raise RefusedError(
            HTTPStatus.CONFLICT, "no-account", "There are no accounts here yet: create yours first."
        )
    tries, whence = desk().tries, (account.name.casefold(), request.remote_addr or "")
    _refuse_too_many(tries.wait_s(*whence))
    try:
        changed = work.change_own_password(account.number, body.old, body.new)
    except UnfitError:
        tries.note(*whence)
        raise
    come_in(changed)
    return answer(Done())


@api.get("/accounts", responses={200: Accounts})
def list_accounts() -> Response:
    """Who may come in."""
    return answer(
        Accounts(
            accounts=[_out(account) for account in accounts()],
            roles=[RoleOut(role=role, says=says) for role, says in ROLES.items()],
        )
    )


def _out(account: Account) -> AccountOut:
    own = visitor().account
    return AccountOut(
        id=account.number,
        name=account.name,
        role=account.role,
        athlete=account.athlete,
        seen=account.seen_on.isoformat() if account.seen_on else None,
        you=own is not None and own.number == account.number,
    )


@api.post("/accounts", responses={201: AccountOut})
def make_account(body: NewAccountBody) -> Response:
    """Make an account; whoever makes the first one is signed in with it."""
    was_open = visitor().is_open
    made = work.add(body.name, body.role, body.password, desk().today())
    if was_open:
        note_seen(made.number, desk().today())
        come_in(made)
    return answer(_out(made), 201)


@api.put("/accounts/<int:account>", responses={200: Done})
def change_role(path: AccountPath, body: RoleBody) -> Response:
    """Give an account another role."""
    work.change_role(path.account, body.role)
    return answer(Done())


@api.post("/accounts/<int:account>/password", responses={200: Done})
def set_password(path: AccountPath, body: PasswordBody) -> Response:
    """Give somebody a new password; their devices are signed out."""
    changed = work.set_password(path.account, body.password)
    own = visitor().account
    if own is not None and own.number == changed.number:
        come_in(changed)
    return answer(Done())


@api.post("/accounts/<int:account>/remove", responses={200: Done})
def remove_account(path: AccountPath) -> Response:
    """Remove an account; what it has done stays in the journal."""
    work.remove(path.account)
    return answer(Done())


@api.post("/athletes/<int:athlete_id>/door", responses={200: DoorOut})
def make_door(path: AthletePath) -> Response:
    """Make a door for an athlete's phone; an older one opens nothing any more."""
    token = work.make_door(path.athlete_id, desk().today())
    link = f"{request.host_url}door#{token}"
    return answer(
        DoorOut(
            link=link,
            picture=segno.make(link, micro=False).svg_data_uri(scale=5, border=3, light="#fff"),
            here_only=request.host.rpartition(":")[0] in LOOPBACK or request.host in LOOPBACK,
        )
    )


@api.post("/athletes/<int:athlete_id>/door/withdraw", responses={200: Done})
def withdraw_door(path: AthletePath) -> Response:
    """Withdraw an athlete's door; the phone is signed out."""
    work.withdraw_door(path.athlete_id)
    return answer(Done())
