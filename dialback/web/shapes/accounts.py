"""Shapes of the place `accounts`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.roles import Right, Role
from dialback.web.shapes.common import DayText, Number, Shape, WeekText

Text = Field(max_length=400)


class WhoOut(Shape):
    """Who asks: nobody known yet, somebody signed in, or anybody at a desk without accounts.

    ``week`` is the one that today lies in. ``second`` is the second factor: ``needed`` where the
    house lets them do nothing before they have one. ``withdrawn``: this device was signed out by
    somebody, so that nothing of a person is to stay on it.
    """

    state: Literal["out", "in", "open"]
    name: str
    role: Role
    athlete: int | None
    rights: list[Right]
    week: WeekText
    second: Literal["none", "on", "needed"] = "none"
    withdrawn: bool = False


class SignInBody(Shape):
    """A name and its password, with the code of a second factor where there is one."""

    name: str = Text
    password: str = Text
    code: str = Field(default="", max_length=40)


class DoorBody(Shape):
    """What a door's link has behind its mark."""

    token: str = Text


class OwnPasswordBody(Shape):
    """The own password as it was, and as it is to be."""

    old: str = Text
    new: str = Text


class PasswordBody(Shape):
    """A new password."""

    password: str = Text


class NewAccountBody(Shape):
    """An account to make."""

    name: str = Text
    role: Role
    password: str = Text


class RoleBody(Shape):
    """A role."""

    role: Role


class DevicePath(Shape):
    """One of the own devices by number."""

    device: Number


class DeviceOut(Shape):
    """A device that is signed in; ``here`` is the one that asks."""

    id: int
    words: str
    since: DayText
    seen: DayText
    here: bool


class Devices(Shape):
    """The own devices, the one used last first."""

    devices: list[DeviceOut]


class SecondOut(Shape):
    """A second factor that is not taken on yet: what the app on the phone is told.

    ``secret`` is what is typed where the picture cannot be read.
    """

    secret: str
    picture: str


class SecondBody(Shape):
    """The own password, and the code that the app shows."""

    password: str = Text
    code: str = Field(max_length=40)


class RecoveryOut(Shape):
    """Codes that let in without the phone, each once; told once."""

    codes: list[str]


class AccountPath(Shape):
    """An account by number."""

    account: Number


class AccountOut(Shape):
    """An account; for an athlete, whose door it is. ``seen`` is the day of the last sign-in."""

    id: int
    name: str
    role: Role
    athlete: int | None
    seen: str | None
    you: bool
    second: bool


class RoleOut(Shape):
    """A role, and what it is for."""

    role: Role
    says: str


class Accounts(Shape):
    """Who may come in, and what the roles are."""

    accounts: list[AccountOut]
    roles: list[RoleOut]


class DoorOut(Shape):
    """A door: its link, as a picture too. ``here_only`` if only this machine finds the address."""

    link: str
    picture: str
    here_only: bool
