"""Commands that weigh one thing against another, and that fill the shelf."""

from pathlib import Path

import click

from ridge_tally.cli.commands import (
    as_json,
    data_option,
    json_option,
    main,
    open_workspace,
    option_option,
    speaks,
)
from ridge_tally.core.job.document import option_of
from ridge_tally.core.job.ids import OptionId
from ridge_tally.services.comparing import comparison
from ridge_tally.services.jobs import load_job
from ridge_tally.services.own_equipment import take_in_equipment
from ridge_tally.services.remedies import Remedy, remedies
from ridge_tally.store.jobs import JobId


@main.command(name="ways-out")
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def ways_out(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Tell the ways out of what a design breaks or loses, best first."""
    workspace = open_workspace(data)
    job = load_job(workspace, JobId(job_id))
    *_, report = remedies(workspace, job, option_of(job, OptionId(option_id)))
    if json_out:
        click.echo(as_json(report))
        return
    lines = [t.told for t in report.troubles] or ["Nothing asks for a way out."]
    click.echo("\n".join((*lines, *(_line(r) for r in report.remedies))))


def _line(remedy: Remedy) -> str:
    energy = "no year" if remedy.gain_kwh is None else f"{remedy.gain_kwh:+.0f} kWh"
    cents = remedy.extra_cents
    cost = "price not known" if cents is None else f"{cents / 100:+.0f}"
    broken = "; ".join(b.told for b in (*remedy.breaks, *remedy.left))
    tail = f"  breaks {broken}" if broken else ""
    return f"{energy:>12} {cost:>12}  {remedy.kind.value}: {remedy.title}{tail}"


@main.command(name="compare-ways")
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def compare_ways(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Compare the ways to the grid of an option's array, and say which and why."""
    workspace = open_workspace(data)
    job = load_job(workspace, JobId(job_id))
    *_, whole = comparison(workspace, job, option_of(job, OptionId(option_id)))
    click.echo(as_json(whole) if json_out else "\n".join((whole.which, *whole.why)))


@main.command(name="take-equipment")
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@data_option
@json_option
@speaks
def take_equipment(file: Path, data: Path, *, json_out: bool) -> None:
    """Put the datasheets of a CSV or JSON file on the shelf."""
    taken = take_in_equipment(open_workspace(data), file.read_bytes(), file.name)
    if json_out:
        click.echo(as_json(taken))
        return
    click.echo(f"{taken.added} new, {taken.renewed} renewed, {taken.left_out} left out")
    for problem in taken.problems:
        click.echo(f"{problem.place}: {problem.why}", err=True)
