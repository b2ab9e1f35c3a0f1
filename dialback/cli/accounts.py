"""Who may come in, for whoever has the machine in hand."""

from __future__ import annotations

import sys
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

import click

from dialback.cli.common import main, open_data, plain_errors
from dialback.core.roles import ROLES, rights_of

if TYPE_CHECKING:
    from dialback.core.roles import Role


@main.group()
def account() -> None:
    """Who may come in."""


def _asked_password(*, from_input: bool) -> str:
    """A password typed twice, or the first line of standard input."""
    if from_input:
        return sys.stdin.readline().rstrip("\r\n")
    typed: str = click.prompt("Password", hide_input=True, confirmation_prompt=True)
    return typed


_FROM_INPUT = click.option(
    "--password-stdin", "from_input", is_flag=True, help="Read the password from standard input."
)


@contextmanager
def _at_the_desk(data: Path | None, *, make: bool = False) -> Iterator[date]:
    """The data file, in the hands of whoever has the machine; the day."""
    from dialback.book.errors import bad_input
    from dialback.store.journal import Actor, acting
    from dialback.store.models import database
    from dialback.work.errors import WorkError

    open_data(data, make=make)
    today = date.today()
    with database.connection_context(), acting(Actor("", "command line", today)):
        try:
            yield today
        except WorkError as refused:
            raise bad_input("account", str(refused)) from None


def _the_account(name: str) -> int:
    from dialback.book.errors import bad_input
    from dialback.store.accounts import account_named, accounts

    found = account_named(name)
    if found is None:
        names = ", ".join(one.name for one in accounts()) or "nobody"
        raise bad_input("NAME", f"no account is called {name!r}; there are: {names}")
    return found.number


@account.command("add")
@click.argument("name")
@click.option(
    "--role", type=click.Choice([role for role in ROLES if rights_of(role)]), required=True
)
@_FROM_INPUT
@click.pass_obj
@plain_errors
def account_add(data: Path | None, name: str, role: Role, *, from_input: bool) -> None:
    """Make an account for NAME; the first is the owner's."""
    from dialback.work.accounts import add

    password = _asked_password(from_input=from_input)
    with _at_the_desk(data, make=True) as today:
        made = add(name, role, password, today)
    click.echo(f"{made.name} can sign in as {made.role}")


@account.command("password")
@click.argument("name")
@_FROM_INPUT
@click.pass_obj
@plain_errors
def account_password(data: Path | None, name: str, *, from_input: bool) -> None:
    """Set a new password for NAME; all their devices are signed out."""
    from dialback.work.accounts import set_password

    password = _asked_password(from_input=from_input)
    with _at_the_desk(data):
        set_password(_the_account(name), password)
    click.echo(f"{name} signs in with the new password from now on")


@account.command("list")
@click.pass_obj
@plain_errors
def account_list(data: Path | None) -> None:
    """List who may come in."""
    from dialback.store.accounts import accounts

    with _at_the_desk(data):
        found = accounts()
    for one in found:
        seen = f"last signed in on {one.seen_on}" if one.seen_on else "never signed in"
        click.echo(f"{one.name}, {one.role}, {seen}")
    if not found:
        click.echo("no accounts: anyone at this machine can do everything")


@account.command("remove")
@click.argument("name", required=False)
@click.option("--all", "everybody", is_flag=True, help="Every account: the desk is open again.")
@click.pass_obj
@plain_errors
def account_remove(data: Path | None, name: str | None, *, everybody: bool) -> None:
    """Remove the account of NAME; what they have done stays in the journal."""
    from dialback.book.errors import bad_input
    from dialback.work.accounts import remove, remove_all

    if (name is None) != everybody:
        raise bad_input("NAME", "name one account, or say --all")
    with _at_the_desk(data):
        if name is None:
            click.echo(f"{remove_all()} accounts are removed: the desk is open again")
        else:
            remove(_the_account(name))
            click.echo(f"{name} can no longer sign in")


@account.command("unlock")
@click.pass_obj
@plain_errors
def account_unlock(data: Path | None) -> None:
    """Let everybody try again who has to wait after wrong passwords."""
    from dialback.work.accounts import forget_tries

    with _at_the_desk(data):
        forget_tries()
    click.echo("the wrong attempts are forgotten: anyone may try again")


@account.command("second-factor")
@click.argument("name")
@click.option("--remove", is_flag=True, required=True, help="Take it off.")
@click.pass_obj
@plain_errors
def account_second_factor(data: Path | None, name: str, *, remove: bool) -> None:
    """Take the second factor off the account of NAME, who has lost phone and codes."""
    from dialback.work.second_factor import end

    with _at_the_desk(data):
        end(_the_account(name))
    click.echo(f"{name} signs in with the password alone, until a new second factor is set up")
