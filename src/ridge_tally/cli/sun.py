"""Commands of sun and shade: what shade takes, weather files, angles."""

from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any

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
from ridge_tally.core.sun.shading import FINE, QUICK
from ridge_tally.formats.csv_file import csv_text
from ridge_tally.formats.weather_file import WeatherFile, read_weather
from ridge_tally.studies.sun.angles import AngleMap, SplitStudy, angle_map, split_study
from ridge_tally.studies.sun.shade import ShadeReport, shade_report


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@click.option("--fine", is_flag=True, help="Finer sky and more points, for the sheet.")
@speaks
def shade(job_id: str, option_id: str, data: Path, *, json_out: bool, fine: bool) -> None:
    """Tell what shade takes from an option's modules in a year, and who throws it."""
    desk, design = at_desk(data, job_id, option_id)
    report = shade_report(desk, design, FINE if fine else QUICK)
    click.echo(as_json(report) if json_out else _shade_text(report))


def _shade_text(report: ShadeReport) -> str:
    stand_in = " (stand-in weather)" if report.stand_in_weather else ""
    return "\n".join(
        [
            report.told,
            f"{report.lost_kwh:.0f} of {report.free_kwh:.0f} kWh of light on the glass{stand_in}",
            *(f"{c.alone_kwh:8.0f} kWh  {c.name}" for c in report.culprits),
        ]
    )


@click.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@json_option
@speaks
def weather(file: Path, *, json_out: bool) -> None:
    """Read an EPW or TMY3 file: its true time label, gaps and monthly sums."""
    found = read_weather(file.read_bytes(), file.name)
    click.echo(as_json(_weather_values(found)) if json_out else _weather_text(found))


def _weather_values(found: WeatherFile) -> dict[str, Any]:
    """Return what a program wants of a weather file: all but the hours themselves."""
    closure = found.closure
    return {
        "file": found.file,
        "format": found.written_as.value,
        "place": found.place,
        "latitude_deg": found.location.latitude_deg,
        "longitude_deg": found.location.longitude_deg,
        "elevation_m": found.location.elevation_m,
        "utc_offset_h": found.location.utc_offset_h,
        "label_offset_min": closure.offset_min if closure else None,
        "closure_rms_w_per_m2": closure.best_rms_w_per_m2 if closure else None,
        "closure_scan": dict(zip(closure.offsets_min, closure.rms_w_per_m2, strict=True))
        if closure
        else {},
        "gaps": [asdict(gap) for gap in found.gaps],
        "months": [asdict(month) for month in found.months],
        "notes": list(found.notes),
    }


def _weather_text(found: WeatherFile) -> str:
    at = found.location
    lines = [
        f"{found.place}: {at.latitude_deg:g}°, {at.longitude_deg:g}°, {at.elevation_m:g} m, "
        f"UTC{at.utc_offset_h:+g}",
    ]
    if found.closure:
        lines.append(
            f"middle of the hour {found.closure.offset_min:+d} min from the label "
            f"(closes within {found.closure.best_rms_w_per_m2:.1f} W/m²)"
        )
    lines += [
        f"{gap.quantity}: {gap.missing} missing, {gap.impossible} impossible, first in hour "
        f"{gap.first_hour}; filled from the days beside"
        for gap in found.gaps
    ]
    lines += [f"{note}." for note in found.notes]
    lines += [
        f"{number:>2}  {m.ghi_kwh_per_m2:6.1f} kWh/m² on the level, air {m.air_degc:5.1f} °C"
        for number, m in enumerate(found.months, start=1)
    ]
    return "\n".join(lines)


@dataclass(frozen=True, slots=True)
class AnglesTold:
    """The map and the split together."""

    map: AngleMap
    split: SplitStudy


@click.command()
@click.argument("job_id")
@option_option
@data_option
@by_option
@csv_option
@speaks
def angles(job_id: str, option_id: str, data: Path, weighed: str, *, as_csv: bool) -> None:
    """Tell every tilt and azimuth on a job's weather, and its array split in two, as JSON."""
    desk, design = at_desk(data, job_id, option_id)
    found = angle_map(desk, design, parse_weighing(weighed))
    if as_csv:
        rows: list[dict[str, object]] = [
            {"tilt_deg": tilt, "azimuth_deg": azimuth, "kwh_per_m2": round(kwh, 1)}
            for tilt, row in zip(found.tilts_deg, found.kwh_per_m2, strict=True)
            for azimuth, kwh in zip(found.azimuths_deg, row, strict=True)
        ]
        click.echo(csv_text(rows), nl=False)
        return
    click.echo(as_json(AnglesTold(found, split_study(desk, design))))
