"""The server, and what it offers."""

from __future__ import annotations

import json
from pathlib import Path

import click

from dialback.cli.common import main, open_data, plain_errors


@main.command()
@click.option("--host", default="127.0.0.1", show_default=True)
@click.option("--port", type=click.IntRange(0, 65535), default=8765, show_default=True)
@click.option(
    "--name",
    "names",
    multiple=True,
    metavar="NAME",
    help="A name it answers to; may be given several times.",
)
@click.option(
    "--proxy", metavar="ADDRESS", help="A reverse proxy that is trusted to say who asks, and how."
)
@click.option(
    "--second-factor", is_flag=True, help="Owners and coaches need a second factor to sign in."
)
@click.pass_obj
@plain_errors
def serve(
    data: Path | None,
    host: str,
    port: int,
    names: tuple[str, ...],
    proxy: str | None,
    *,
    second_factor: bool,
) -> None:
    """Serve the application until it is stopped. Beyond this machine it takes an owner's account.

    docs/deploy.md tells how to let a house reach it.
    """
    from dialback.web.serve import Reach
    from dialback.web.serve import serve as run

    reach = Reach(host, port, names, proxy, second_factor=second_factor)
    run(open_data(data, make=True), reach, lambda line: click.echo(line))


@main.command()
def openapi() -> None:
    """Print the OpenAPI document of the API."""
    from dialback.web.app import openapi_document

    click.echo(json.dumps(openapi_document(), indent=1))
