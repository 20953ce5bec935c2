"""Commands of loading: the year, the house, sweeps, what to buy, files to practise with."""

import csv
import io
from datetime import date
from pathlib import Path

import click

from ridge_tally.cli.asking import (
    as_json,
    at_desk,
    by_option,
    csv_option,
    data_option,
    json_option,
    option_option,
    speaks,
)
from ridge_tally.core.loading.weights import parse_weighing
from ridge_tally.core.number_format import spaced
from ridge_tally.core.sky.sun import Location
from ridge_tally.formats.csv_file import csv_text
from ridge_tally.simulation.house_load import shares
from ridge_tally.simulation.plant import weather_of
from ridge_tally.simulation.year import hourly_year
from ridge_tally.simulators.meters import meter_year_csv, module_day_csv
from ridge_tally.studies.loading.household import house_report
from ridge_tally.studies.loading.sweep import loading_sweep
from ridge_tally.studies.loading.what_to_buy import what_to_buy
from ridge_tally.views.loading.year import YearReport, year_report


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@click.option("--csv", "csv_file", type=click.Path(dir_okay=False, path_type=Path))
@click.option("--quick", is_flag=True, hidden=True, help="Means nothing any more.")
@speaks
def year(
    job_id: str, option_id: str, data: Path, csv_file: Path | None, *, json_out: bool, quick: bool
) -> None:
    """Simulate the year of an option; --csv writes its hours, each named by its middle."""
    del quick
    desk, design = at_desk(data, job_id, option_id)
    report = year_report(desk, design)
    if csv_file is not None:
        result = hourly_year(desk, design)
        columns = {
            "local_standard_time": weather_of(desk, design.job).time,
            **{f"source_{n}_dc_w": w for n, w in enumerate(result.tracker_dc_w, start=1)},
            "dc_w": result.dc_w,
            "ac_unlimited_w": result.ac_unlimited_w,
            "ac_w": result.ac_w,
            "cabinet_degc": result.cabinet_degc,
        }
        text = io.StringIO(newline="")
        writer = csv.writer(text)
        writer.writerow(columns)
        rows = zip(*columns.values(), strict=True)
        writer.writerows([str(t), *(f"{v:.1f}" for v in values)] for t, *values in rows)
        csv_file.write_text(text.getvalue(), "utf-8", newline="")
    click.echo(as_json(report) if json_out else _year_text(report))


def _year_text(report: YearReport) -> str:
    stand_in = " (stand-in weather)" if report.stand_in_weather else ""
    return "\n".join(
        [
            f"{report.energy_kwh:.0f} kWh a year at the meter{stand_in}",
            f"{report.specific_kwh_per_kw:.0f} kWh per kW DC",
            f"clipped {report.clipped_kwh:.0f} kWh, {report.clipped_frac * 100:.2f} %, "
            f"{report.clipped_hours:.0f} hours; between {report.clipped_hourly_kwh:.0f} kWh in even "
            f"hours and {report.clipped_most_kwh:.0f} kWh where sun and cloud change most",
            *(f"! {fault}" for fault in report.faults),
            *(
                f"{s.step.value:<11} {spaced(s.change_kwh):>9} kWh {spaced(s.share_frac * 100, 2):>7} %  "
                f"leaves {s.after_kwh:.0f}"
                for s in report.stages
            ),
            *report.caveats,
        ]
    )


@click.command()
@click.argument("job_id")
@option_option
@data_option
@by_option
@csv_option
@speaks
def sweep(job_id: str, option_id: str, data: Path, weighed: str, *, as_csv: bool) -> None:
    """Sweep the loading of an option: counts of modules and sizes of inverter, as JSON."""
    desk, design = at_desk(data, job_id, option_id)
    *_, report = loading_sweep(desk, design, parse_weighing(weighed))
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
    click.echo(csv_text(rows), nl=False)


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def house(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Tell how a house lives on an option's sun, with the option's battery and without."""
    report = house_report(*at_desk(data, job_id, option_id))
    click.echo(as_json(report) if json_out else "\n".join((report.origin, *report.told)))


@click.command(name="sample-files")
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


@click.command(name="what-to-buy")
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
    click.echo(csv_text(rows), nl=False)
