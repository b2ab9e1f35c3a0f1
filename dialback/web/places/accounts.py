"""Accounts: signing in and out, who may come in, doors for athletes' phones."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from http import HTTPStatus
from typing import Literal

import segno
from flask import Response, g, request, session

from dialback.core.movements import fold
from dialback.core.roles import ROLES, rights_of
from dialback.core.weeks import Week
from dialback.store.accounts import Account, account_named, accounts, signing_key
from dialback.store.devices import devices_of, is_known
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk
from dialback.web.devices import known_secret
from dialback.web.doors import come_in, go_out, is_withdrawn, visitor
from dialback.web.problems import RefusedError
from dialback.web.security import LOOPBACK
from dialback.web.shapes.accounts import (
    AccountOut,
    AccountPath,
    Accounts,
    DeviceOut,
    DevicePath,
    Devices,
    DoorBody,
    DoorOut,
    NewAccountBody,
    OwnPasswordBody,
    PasswordBody,
    RecoveryOut,
    RoleBody,
    RoleOut,
    SecondBody,
    SecondOut,
    SignInBody,
    WhoOut,
)
from dialback.web.shapes.common import AthletePath, Done
from dialback.work import accounts as work
from dialback.work import second_factor
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
        return WhoOut(
            state="out",
            name="",
            role="viewer",
            athlete=None,
            rights=[],
            week=week,
            withdrawn=is_withdrawn(),
        )
    role = "owner" if account is None else account.role
    return WhoOut(
        state="open" if account is None else "in",
        name=who.name,
        role=role,
        athlete=None if account is None else account.athlete,
        rights=rights_of(role),
        week=week,
        second=_second(account),
    )


def _second(account: Account | None) -> Literal["none", "on", "needed"]:
    if visitor().needs_second:
        return "needed"
    return "on" if account is not None and account.second is not None else "none"


@api.post("/sign-in", responses={200: WhoOut})
def sign_in(body: SignInBody) -> Response:
    """Come in by name and password, and a code where the account has a second factor."""
    attempt = _Attempt.of(body.name)
    attempt.refuse_too_many()
    found = work.sign_in(body.name, body.password)
    if found is None:
        attempt.note()
        raise RefusedError(
            HTTPStatus.UNAUTHORIZED,
            "wrong-password",
            "No account has this name and this password. Try again, or ask the owner of the "
            "house for a new password.",
        )
    if found.second is not None:
        _ask_for_code(found, body.code, attempt)
    come_in(found)
    return answer(_who())


def _ask_for_code(account: Account, code: str, attempt: _Attempt) -> None:
    if not code.strip():
        raise RefusedError(
            HTTPStatus.UNAUTHORIZED,
            "code-needed",
            "Type the code that the app on your phone shows, or one of your recovery codes.",
        )
    if not second_factor.is_right(account, _key(), code):
        attempt.note()
        raise RefusedError(
            HTTPStatus.UNAUTHORIZED,
            "wrong-code",
            "That code is not the one that the app shows now, or it has been used. Type the next "
            "one.",
        )


def _key() -> bytes:
    data = desk().data
    assert data is not None  # noqa: S101 - a house that has accounts has a data file
    return signing_key(data)


@dataclass(frozen=True, slots=True)
class _Attempt:
    """A try to say who one is: for which name, from where, on a device that is known there."""

    name: str
    address: str
    known: bool

    @classmethod
    def of(cls, name: str) -> _Attempt:
        folded = fold(name)
        account = account_named(folded)
        known = account is not None and is_known(account.number, known_secret())
        return cls(folded, request.remote_addr or "", known)

    def refuse_too_many(self) -> None:
        """Raise ``RefusedError`` where the next try has to wait."""
        wait_s = desk().tries.wait_s(self.name, self.address, known=self.known)
        if wait_s > 0:
            minutes = max(1, round(wait_s / 60))
            raise RefusedError(
                HTTPStatus.TOO_MANY_REQUESTS,
                "too-many-tries",
                f"Too many attempts: try again in {minutes} minute{'s' if minutes > 1 else ''}. "
                "A device that has signed in before is not kept waiting by others.",
                wait_s,
            )

    def note(self) -> None:
        """Note that it was wrong."""
        desk().tries.note(self.name, self.address, known=self.known)


@api.post("/door", responses={200: WhoOut})
def open_door(body: DoorBody) -> Response:
    """Come in by the door of an athlete's phone."""
    found = work.open_door(body.token)
    if found is None:
        # What is drawn by lot cannot be guessed: to wait is only for whoever sends nonsense.
        attempt = _Attempt("a door", request.remote_addr or "", known=False)
        attempt.refuse_too_many()
        attempt.note()
        raise RefusedError(
            HTTPStatus.UNAUTHORIZED,
            "no-door",
            "This link no longer works. Ask your coach for a new one.",
        )
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
    account, device = _signed_in()
    with _trying(account):
        work.change_own_password(account.number, body.old, body.new, device)
    return answer(Done())


def _signed_in() -> tuple[Account, int]:
    """Who asks, and on which device; whoever is at an open desk has no account to ask about."""
    who = visitor()
    if who.account is None or who.device is None:
        raise RefusedError(
            HTTPStatus.CONFLICT, "no-account", "There are no accounts here yet: create yours first."
        )
    return who.account, who.device


@contextmanager
def _trying(account: Account) -> Iterator[None]:
    """Somebody says who they are once more: wrong tries count as they do at the door."""
    attempt = _Attempt.of(account.name)
    attempt.refuse_too_many()
    try:
        yield
    except UnfitError:
        attempt.note()
        raise


@api.get("/me/devices", responses={200: Devices})
def own_devices() -> Response:
    """The devices on which whoever asks is signed in."""
    who = visitor()
    found = [] if who.account is None else devices_of(who.account.number, desk().today())
    return answer(
        Devices(
            devices=[
                DeviceOut(
                    id=one.number,
                    words=one.words,
                    since=one.since.isoformat(),
                    seen=one.seen.isoformat(),
                    here=one.number == who.device,
                )
                for one in found
            ]
        )
    )


@api.post("/me/devices/<int:device>/sign-out", responses={200: Done})
def sign_out_there(path: DevicePath) -> Response:
    """Sign one of the own devices out."""
    account, _ = _signed_in()
    work.sign_out_there(account.number, path.device)
    return answer(Done())


@api.post("/me/second-factor/draw", responses={200: SecondOut})
def draw_second_factor() -> Response:
    """Draw a second factor for the app on the phone; it counts once its first code is right."""
    account, _ = _signed_in()
    # The cookie holds what the secret is derived from; without the key that is worth nothing.
    session["second"] = second_factor.draw()
    secret = second_factor.secret_of(_key(), session["second"])
    picture = segno.make(second_factor.address_of(secret, account.name), micro=False)
    return answer(SecondOut(secret=secret, picture=_picture(picture)))


@api.post("/me/second-factor", responses={200: RecoveryOut})
def begin_second_factor(body: SecondBody) -> Response:
    """Take the second factor on that was drawn; the codes for a lost phone are told once."""
    account, device = _signed_in()
    drawn = session.get("second")
    if drawn is None:
        raise RefusedError(
            HTTPStatus.CONFLICT, "not-drawn", "Begin again: the picture is no longer good."
        )
    with _trying(account):
        work.check_own_password(account.number, body.password)
    codes = second_factor.begin(account.number, _key(), drawn, body.code)
    work.sign_out_elsewhere(account.number, device)
    session.pop("second")
    g.pop("visitor", None)
    return answer(RecoveryOut(codes=codes))


@api.post("/me/second-factor/end", responses={200: Done})
def end_own_second_factor(body: SecondBody) -> Response:
    """Sign in without a second factor again; every device is signed out."""
    account, _ = _signed_in()
    with _trying(account):
        work.check_own_password(account.number, body.password)
        if not second_factor.is_right(account, _key(), body.code):
            raise UnfitError("wrong-code", "That code is not the one that the app shows now.")
    second_factor.end(account.number)
    return answer(Done())


@api.post("/accounts/<int:account>/second-factor/end", responses={200: Done})
def end_second_factor(path: AccountPath) -> Response:
    """Let somebody in without a second factor again who has lost phone and codes."""
    second_factor.end(path.account)
    return answer(Done())


def _picture(code: segno.QRCode) -> str:
    return code.svg_data_uri(scale=5, border=3, light="#fff")


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
        second=account.second is not None,
    )


@api.post("/accounts", responses={201: AccountOut})
def make_account(body: NewAccountBody) -> Response:
    """Make an account; whoever makes the first one is signed in with it."""
    was_open = visitor().is_open
    made = work.add(body.name, body.role, body.password, desk().today())
    if was_open:
        come_in(made)
    return answer(_out(made), 201)


@api.put("/accounts/<int:account>", responses={200: Done})
def change_role(path: AccountPath, body: RoleBody) -> Response:
    """Give an account another role."""
    work.change_role(path.account, body.role, desk().today())
    return answer(Done())


@api.post("/accounts/<int:account>/password", responses={200: Done})
def set_password(path: AccountPath, body: PasswordBody) -> Response:
    """Give somebody a new password; their devices are signed out."""
    who = visitor()
    own = who.account is not None and who.account.number == path.account
    work.set_password(path.account, body.password, but=who.device if own else None)
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
            picture=_picture(segno.make(link, micro=False)),
            here_only=request.host.rpartition(":")[0] in LOOPBACK or request.host in LOOPBACK,
        )
    )


@api.post("/athletes/<int:athlete_id>/door/withdraw", responses={200: Done})
def withdraw_door(path: AthletePath) -> Response:
    """Withdraw an athlete's door; the phone is signed out."""
    work.withdraw_door(path.athlete_id)
    return answer(Done())
