"""Commands that weigh one thing against another, and that fill the shelf."""

import csv
import io
from dataclasses import asdict, dataclass
from datetime import date
from pathlib import Path

import click

from ridge_tally.cli.commands import (
    as_json,
    at_desk,
    at_option,
    data_option,
    json_option,
    main,
    open_workspace,
    option_option,
    speaks,
)
from ridge_tally.core.loading.weights import parse_weighing
from ridge_tally.core.sky.sun import Location
from ridge_tally.services.own_equipment import take_in_equipment
from ridge_tally.simulation.house_load import shares
from ridge_tally.simulators.meters import meter_year_csv, module_day_csv
from ridge_tally.studies.loading.household import house_report
from ridge_tally.studies.loading.sweep import loading_sweep
from ridge_tally.studies.loading.what_to_buy import what_to_buy
from ridge_tally.studies.strings.comparison import comparison
from ridge_tally.studies.strings.plans import inverter_plans
from ridge_tally.studies.strings.remedies import Remedy, remedies
from ridge_tally.studies.sun.angles import AngleMap, SplitStudy, angle_map, split_study


@dataclass(frozen=True, slots=True)
class AnglesTold:
    """The map and the split together."""

    map: AngleMap
    split: SplitStudy


@main.command(name="ways-out")
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
    *_, whole = comparison(*at_desk(data, job_id, option_id))
    click.echo(as_json(whole) if json_out else "\n".join((whole.which, *whole.why)))


def _table(rows: list[dict[str, object]]) -> str:
    text = io.StringIO(newline="")
    writer = csv.DictWriter(text, list(rows[0]) if rows else [], lineterminator="\n")
    writer.writeheader()
    writer.writerows(rows)
    return text.getvalue()


csv_option = click.option("--csv", "as_csv", is_flag=True, help="Print CSV.")
by_option = click.option("--by", "weighed", default="year", help="year, winter, 16-21 and so on.")


@main.command()
@click.argument("job_id")
@option_option
@data_option
@by_option
@csv_option
@speaks
def sweep(job_id: str, option_id: str, data: Path, weighed: str, *, as_csv: bool) -> None:
    """Sweep the loading of an option: counts of modules and sizes of inverter, as JSON."""
    workspace, job, option = at_option(data, job_id, option_id)
    *_, report = loading_sweep(workspace.desk, job, option, parse_weighing(weighed))
    if not as_csv:
        click.echo(as_json(report))
        return
    rows: list[dict[str, object]] = [
        {
            "swept": swept,
            "modules": p.modules,
            "dc_kw": round(p.dc_kw, 3),
            "ac_kw": round(p.ac_kw, 3),
            "ratio": round(p.ratio, 4),
            "energy_kwh": "" if p.energy_kwh is None else round(p.energy_kwh, 1),
            "clipped_frac": "" if p.clipped_frac is None else round(p.clipped_frac, 5),
            "held_kwh": "" if p.held_kwh is None else round(p.held_kwh, 1),
            "with_battery_kwh": "" if p.with_battery_kwh is None else round(p.with_battery_kwh, 1),
            "broken": "; ".join(b.told for b in p.broken) or p.problem,
        }
        for swept, points in (("modules", report.by_modules), ("inverter", report.by_size))
        for p in points
    ]
    click.echo(_table(rows), nl=False)


@main.command()
@click.argument("job_id")
@option_option
@data_option
@by_option
@csv_option
@speaks
def angles(job_id: str, option_id: str, data: Path, weighed: str, *, as_csv: bool) -> None:
    """Tell every tilt and azimuth on a job's weather, and its array split in two, as JSON."""
    workspace, job, option = at_option(data, job_id, option_id)
    found = angle_map(workspace.desk, job, option, parse_weighing(weighed))
    if as_csv:
        rows: list[dict[str, object]] = [
            {"tilt_deg": tilt, "azimuth_deg": azimuth, "kwh_per_m2": round(kwh, 1)}
            for tilt, row in zip(found.tilts_deg, found.kwh_per_m2, strict=True)
            for azimuth, kwh in zip(found.azimuths_deg, row, strict=True)
        ]
        click.echo(_table(rows), nl=False)
        return
    click.echo(as_json(AnglesTold(found, split_study(workspace.desk, job, option))))


@main.command(name="find-inverter")
@click.argument("job_id")
@option_option
@data_option
@csv_option
@speaks
def find_inverter(job_id: str, option_id: str, data: Path, *, as_csv: bool) -> None:
    """Try every inverter of the shelf on an option's array, each with its best plan and year."""
    workspace, job, option = at_option(data, job_id, option_id)
    *_, last = inverter_plans(workspace.desk, job, option, workspace.desk.shelf.inverters)
    click.echo(_table([asdict(p) for p in last.found]) if as_csv else as_json(last), nl=not as_csv)


@main.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def house(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Tell how a house lives on an option's sun, with the option's battery and without."""
    report = house_report(*at_desk(data, job_id, option_id))
    click.echo(as_json(report) if json_out else "\n".join((report.origin, *report.told)))


@main.command(name="sample-files")
@click.argument("folder", type=click.Path(file_okay=False, path_type=Path))
@speaks
def sample_files(folder: Path) -> None:
    """Write a simulated meter's year and a simulated logger's day, to practise taking files in."""
    folder.mkdir(parents=True, exist_ok=True)
    year, day = folder / "simulated-meter-year.csv", folder / "simulated-module-day.csv"
    year.write_text(meter_year_csv(6200.0, shares("out"), 2025), "utf-8")
    site = Location(36.2, -105.6, 2150.0, -7.0)
    day.write_text(module_day_csv(date(2026, 4, 18), site, 26.6, 172.0, 405.0), "utf-8")
    click.echo(f"{year}\n{day}")


@main.command(name="what-to-buy")
@click.argument("job_id")
@option_option
@data_option
@csv_option
@speaks
def buy(job_id: str, option_id: str, data: Path, *, as_csv: bool) -> None:
    """Try every module, way and inverter of the shelf on a roof: takes minutes."""
    *_, last = what_to_buy(*at_desk(data, job_id, option_id))
    if not as_csv:
        click.echo(as_json(last))
        return
    rows: list[dict[str, object]] = [
        {
            "module": p.module,
            "modules": p.modules,
            "way": p.way,
            "made_of": p.made_of,
            "ratio": round(p.ratio, 3),
            "energy_kwh": round(p.energy_kwh),
            "clipped_frac": round(p.clipped_frac, 4),
            "parts_cents": p.cents,
            "kwh_per_100": None if p.kwh_per_100 is None else round(p.kwh_per_100, 1),
            "outside": "; ".join(p.outside),
        }
        for p in last.found
    ]
    click.echo(_table(rows), nl=False)


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
