"""Shapes of the place `accounts`."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from dialback.core.roles import Right, Role
from dialback.web.shapes.common import Number, Shape, WeekText

Text = Field(max_length=400)


class WhoOut(Shape):
    """Who asks: nobody known yet, somebody signed in, or anybody at a desk without accounts.

    ``week`` is the one that today lies in.
    """

    state: Literal["out", "in", "open"]
    name: str
    role: Role
    athlete: int | None
    rights: list[Right]
    week: WeekText


class SignInBody(Shape):
    """A name and its password."""

    name: str = Text
    password: str = Text


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
