"""``python -m bench.simulation``: a made-up club's year, and how its verdicts fare."""

from __future__ import annotations

import os

import click

from bench.simulation.follow import report as follow_report
from bench.simulation.score import FROM, Story, report, stories


@click.command()
@click.option("--athletes", default=35, show_default=True)
@click.option("--seed", default=1, show_default=True, help="Another seed is another club.")
@click.option("--show", default=-1, help="Print the verdicts of the athlete with this number.")
@click.option("--follow", default=0, help="Follow the advice for so many athletes instead.")
def main(athletes: int, seed: int, show: int, follow: int) -> None:
    """Simulate a club over a year and print what its verdicts find."""
    workers = os.cpu_count() or 1
    if follow:
        for line in follow_report(follow, workers):
            click.echo(line)
        return
    told = stories(athletes, seed, workers)
    for line in report(told):
        click.echo(line)
    if show >= 0:
        _show(told[show])


def _show(one: Story) -> None:
    for planted in sorted((*one.faults, *one.oddities), key=lambda p: p.first):
        click.echo(f"{planted.kind}: weeks {planted.first} to {planted.last}")
    for place, week in enumerate(one.verdicts):
        click.echo(f"-- {place + FROM - 1}")
        for line in week:
            click.echo(f"   {line.kind:9}{line.level:8}{line.sentence}")


if __name__ == "__main__":
    main()
