"""Commands of strings: plans, inverters, ways out, ways to the grid."""

from dataclasses import asdict
from pathlib import Path

import click

from ridge_tally.cli.asking import (
    as_json,
    at_desk,
    csv_option,
    data_option,
    json_option,
    option_option,
    speaks,
)
from ridge_tally.core.equipment import InverterId
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.number_format import signed
from ridge_tally.core.strings.plans import MOST_LISTED
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.formats.csv_file import csv_text
from ridge_tally.studies.strings.asked_plan import plan_verdict
from ridge_tally.studies.strings.comparison import comparison
from ridge_tally.studies.strings.inverters import inverter_plans
from ridge_tally.studies.strings.own_point import helped_ids, own_point_report
from ridge_tally.studies.strings.plans import Objective, plans_report
from ridge_tally.studies.strings.remedies import Remedy, remedies


@click.command(name="plan-strings")
@click.argument("job_id")
@option_option
@data_option
@click.option("--inverter", "inverter_id", help="Another inverter of the shelf.")
@click.option("--all", "every", is_flag=True, help="Every inverter of the shelf.")
@click.option("--first", type=click.Choice(Objective), help="What counts before the rest.")
@click.option("--ask", "asked", help="Whether a plan is legal, in words.")
@speaks
def plan_strings(
    job_id: str,
    option_id: str,
    data: Path,
    inverter_id: str | None,
    first: Objective | None,
    asked: str | None,
    *,
    every: bool,
) -> None:
    """Print every legal string plan with its rank and reasons, or why there is none, as JSON.

    With --ask "14 on 1, 2 x 7 on 2": whether that plan is legal, or why it is not.
    """
    desk, design = at_desk(data, job_id, option_id)
    if every:
        *_, last = inverter_plans(desk, design, desk.shelf.inverters)
        click.echo(as_json(last))
        return
    if inverter_id is not None:
        chosen = ChooseInverter(design.option.id, InverterId(inverter_id))
        design = design_in(apply_edit(design.job, chosen, desk.shelf), design.option.id)
    if asked is not None:
        click.echo(as_json(plan_verdict(design, asked)))
        return
    click.echo(as_json(plans_report(desk, design, first, shown=MOST_LISTED)))


@click.command(name="own-point")
@click.argument("job_id")
@option_option
@data_option
@json_option
@click.option("--on", "helped", help="Ids of modules with add-on optimizers, by commas.")
@speaks
def own_point(
    job_id: str, option_id: str, data: Path, helped: str | None, *, json_out: bool
) -> None:
    """Tell what optimizers and microinverters of the shelf would give in a year."""
    desk, design = at_desk(data, job_id, option_id)
    report = own_point_report(desk, design, helped_ids(helped))
    lines = [
        f"{w.problem or f'{w.energy_kwh:.0f} kWh, {signed(w.gain_kwh or 0.0)}'}  {w.units} × {w.unit}"
        if w.unit
        else f"{w.energy_kwh:.0f} kWh as strung"
        for w in report.ways
    ]
    click.echo(as_json(report) if json_out else "\n".join(lines))


@click.command(name="ways-out")
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def ways_out(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Tell the ways out of what a design breaks or loses, best first."""
    *_, report = remedies(*at_desk(data, job_id, option_id))
    if json_out:
        click.echo(as_json(report))
        return
    lines = [t.told for t in report.troubles] or ["Nothing asks for a way out."]
    click.echo("\n".join((*lines, *(_line(r) for r in report.remedies))))


def _line(remedy: Remedy) -> str:
    energy = "no year" if remedy.gain_kwh is None else f"{signed(remedy.gain_kwh)} kWh"
    cents = remedy.extra_cents
    cost = "price not known" if cents is None else f"{signed(cents / 100)}"
    broken = "; ".join(b.told for b in (*remedy.breaks, *remedy.left))
    tail = f"  breaks {broken}" if broken else ""
    return f"{energy:>12} {cost:>12}  {remedy.kind.value}: {remedy.title}{tail}"


@click.command(name="compare-ways")
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def compare_ways(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Compare the ways to the grid of an option's array, and say which and why."""
    *_, whole = comparison(*at_desk(data, job_id, option_id))
    click.echo(as_json(whole) if json_out else "\n".join((whole.which, *whole.why)))


@click.command(name="find-inverter")
@click.argument("job_id")
@option_option
@data_option
@csv_option
@speaks
def find_inverter(job_id: str, option_id: str, data: Path, *, as_csv: bool) -> None:
    """Try every inverter of the shelf on an option's array, each with its best plan and year."""
    desk, design = at_desk(data, job_id, option_id)
    *_, last = inverter_plans(desk, design, desk.shelf.inverters)
    click.echo(
        csv_text([asdict(p) for p in last.found]) if as_csv else as_json(last), nl=not as_csv
    )
