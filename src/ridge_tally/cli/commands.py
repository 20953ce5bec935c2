"""The command line: every computation without the browser, JSON in and out.

Exit codes: 0 all well, 1 a Stop is broken, 2 bad input, 3 a Stop is unchecked.
"""

import csv
import io
import json
import logging
import sys
import threading
from collections.abc import Callable
from dataclasses import asdict
from datetime import UTC, datetime
from functools import wraps
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any, ParamSpec

import click
from platformdirs import user_data_path
from pydantic import TypeAdapter
from waitress import create_server

from ridge_tally import __version__
from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.array.lay import after_steps
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.equipment import InverterId
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import RowRule, Ways
from ridge_tally.core.job.document import Job, Option, option_of
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.kernels.all import warm_all
from ridge_tally.core.strings.plans import MOST_LISTED
from ridge_tally.core.sun.shading import FINE, QUICK
from ridge_tally.editing.apply import apply_edit
from ridge_tally.formats.equipment_file import equipment_schema
from ridge_tally.formats.job_file import job_file_schema
from ridge_tally.formats.layout_case import solve_layout_case
from ridge_tally.formats.outline_case import solve_outline_case
from ridge_tally.formats.weather_file import WeatherFile, read_weather
from ridge_tally.services import jobs
from ridge_tally.services.papers import brief_pdf, design_sheet_pdf
from ridge_tally.services.sample_jobs import store_samples
from ridge_tally.services.workspace import Workspace, workspace_at
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.plant import weather_for
from ridge_tally.simulation.scenario import AS_IT_IS, FINELY
from ridge_tally.simulation.year import hourly_year
from ridge_tally.store.jobs import JobId
from ridge_tally.studies.array.layouts import alternatives
from ridge_tally.studies.brief.target import TargetReport, target_report
from ridge_tally.studies.strings.asked_plan import plan_verdict
from ridge_tally.studies.strings.own_point import helped_ids, own_point_report
from ridge_tally.studies.strings.plans import Objective, inverter_plans, plans_report
from ridge_tally.studies.sun.shade import ShadeReport, shade_report
from ridge_tally.views.loading.year import YearReport, year_report
from ridge_tally.views.option import CheckView, OptionReport, option_report
from ridge_tally.web.app import LOOPBACK, create_app

BROKEN_STOP, BAD_INPUT, UNCHECKED_STOP = 1, 2, 3
AUTHOR = "command line"
P = ParamSpec("P")


def open_workspace(folder: Path) -> Workspace:
    """Return a workspace on a data folder; StorageFailed if it cannot be used."""
    return workspace_at(folder, lambda: datetime.now(UTC), sample_shelf())


def at_option(data: Path, job_id: str, option_id: str) -> tuple[Workspace, Job, Option]:
    """Return a workspace, a job in it at its newest, and an option; NotFound if one is not there."""
    workspace = open_workspace(data)
    job = jobs.load_job(workspace, JobId(job_id))
    return workspace, job, option_of(job, OptionId(option_id))


def at_desk(data: Path, job_id: str, option_id: str) -> tuple[Desk, Job, Option]:
    """Return a desk, a job at its newest, and an option; NotFound if one is not there."""
    workspace, job, option = at_option(data, job_id, option_id)
    return workspace.desk, job, option


def speaks(command: Callable[P, None]) -> Callable[P, None]:
    """Turn our errors into a sentence on stderr and exit code 2."""

    @wraps(command)
    def wrapped(*args: P.args, **kwargs: P.kwargs) -> None:
        try:
            command(*args, **kwargs)
        except RidgeTallyError as error:
            click.echo(str(error), err=True)
            sys.exit(BAD_INPUT)

    return wrapped


def as_json(value: object) -> str:
    """Return any of our values as indented JSON; NaN becomes null."""
    adapter: TypeAdapter[Any] = TypeAdapter(type(value))
    plain = adapter.dump_python(value, mode="json")
    return json.dumps(plain, indent=2, ensure_ascii=False)


data_option = click.option(
    "--data",
    type=click.Path(file_okay=False, path_type=Path),
    default=lambda: user_data_path("ridge-tally", appauthor=False),
    help="Folder of the database (default: your data folder).",
)
option_option = click.option("--option", "option_id", default="a", help="Option, a by default.")
json_option = click.option("--json", "json_out", is_flag=True, help="Print JSON.")


@click.group()
@click.version_option(__version__)
def main() -> None:
    """Lay out, check and simulate small grid-tied solar arrays."""


@main.command()
@data_option
@click.option("--port", default=8000, show_default=True)
@click.option("--host", default="", help="Also answer on this address, for a tablet on site.")
@speaks
def serve(data: Path, port: int, host: str) -> None:
    """Serve the app."""
    _serve(open_workspace(data), port, host)


@main.command()
@data_option
@click.option("--port", default=8000, show_default=True)
@speaks
def demo(data: Path, port: int) -> None:
    """Serve the app on a data folder that holds the sample jobs."""
    workspace = open_workspace(data)
    if not jobs.list_jobs(workspace):
        store_samples(workspace, AUTHOR)
    _serve(workspace, port, "")


def _serve(workspace: Workspace, port: int, host: str) -> None:
    app = create_app(workspace, LOOPBACK | {host} if host else LOOPBACK)
    addresses = [f"127.0.0.1:{port}"] + ([f"{host}:{port}"] if host else [])
    server = create_server(app, listen=" ".join(addresses), threads=8)
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    threading.Thread(target=_warm, args=(workspace,), daemon=True).start()
    click.echo(f"Ridge Tally is at http://127.0.0.1:{port}/  (Ctrl-C stops it)")
    server.run()


def _warm(workspace: Workspace) -> None:
    """Do the slow first things before a person asks for them."""
    warm_all()
    for sheet in workspace.desk.shelf.modules:
        fit_diode(sheet)
    import weasyprint  # noqa: F401, PLC0415 - takes seconds to load, and a sheet wants it


@main.command(name="list")
@data_option
@json_option
@speaks
def list_command(data: Path, *, json_out: bool) -> None:
    """List the jobs."""
    entries = jobs.list_jobs(open_workspace(data))
    if json_out:
        click.echo(as_json(list(entries)))
        return
    for entry in entries:
        click.echo(f"{entry.id}\t{entry.name}\trevision {entry.head}")


@main.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def check(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Check an option; exit code 1 for a broken Stop, 3 for an unchecked one."""
    job = jobs.load_job(open_workspace(data), JobId(job_id))
    report = option_report(job, option_of(job, OptionId(option_id)))
    click.echo(as_json(report) if json_out else _check_text(report))
    if report.broken_stops:
        sys.exit(BROKEN_STOP)
    if report.unchecked_stops:
        sys.exit(UNCHECKED_STOP)


def _check_text(report: OptionReport) -> str:
    def line(view: CheckView) -> str:
        check = view.check
        sign = view.lines.limit
        return (
            f"{check.verdict.value:<12}{check.kind.value:<8}{check.title}, {check.subject}: "
            f"{view.lines.numbers} = {view.value_text}, limit {sign}"
            + (
                f"  ({check.reason or check.reached_at})"
                if check.reason or check.reached_at
                else ""
            )
        )

    return "\n".join(line(view) for view in report.checks)


@main.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@click.option("--csv", "csv_file", type=click.Path(dir_okay=False, path_type=Path))
@click.option("--quick", is_flag=True, help="By the hour instead of the quarter of an hour.")
@speaks
def year(
    job_id: str, option_id: str, data: Path, csv_file: Path | None, *, json_out: bool, quick: bool
) -> None:
    """Simulate the year of an option; --csv writes its steps, each named by its middle."""
    workspace, job, option = at_option(data, job_id, option_id)
    report = year_report(workspace.desk, job, option, fine=not quick)
    if csv_file is not None:
        scenario = AS_IT_IS if quick else FINELY
        result = hourly_year(workspace.desk, job, option, scenario)
        columns = {
            "local_standard_time": weather_for(workspace.desk, job, scenario).time,
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


@main.command(name="plan-strings")
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
    workspace, job, option = at_option(data, job_id, option_id)
    if every:
        *_, last = inverter_plans(workspace.desk, job, option, workspace.desk.shelf.inverters)
        click.echo(as_json(last))
        return
    if inverter_id is not None:
        chosen = ChooseInverter(option.id, InverterId(inverter_id))
        job = apply_edit(job, chosen, workspace.desk.shelf)
        option = option_of(job, option.id)
    if asked is not None:
        click.echo(as_json(plan_verdict(job, option, asked)))
        return
    click.echo(as_json(plans_report(workspace.desk, job, option, first, shown=MOST_LISTED)))


@main.command(name="own-point")
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
    workspace, job, option = at_option(data, job_id, option_id)
    report = own_point_report(workspace.desk, job, option, helped_ids(helped))
    lines = [
        f"{w.problem or f'{w.energy_kwh:.0f} kWh, {w.gain_kwh:+.0f}'}  {w.units} × {w.unit}"
        if w.unit
        else f"{w.energy_kwh:.0f} kWh as strung"
        for w in report.ways
    ]
    click.echo(as_json(report) if json_out else "\n".join(lines))


@main.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@click.option("--fine", is_flag=True, help="Finer sky and more points, for the sheet.")
@speaks
def shade(job_id: str, option_id: str, data: Path, *, json_out: bool, fine: bool) -> None:
    """Tell what shade takes from an option's modules in a year, and who throws it."""
    workspace, job, option = at_option(data, job_id, option_id)
    report = shade_report(workspace.desk, job, option, FINE if fine else QUICK)
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


@main.command()
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


@main.command()
def warm() -> None:
    """Compile what is compiled, so that nobody waits for it later."""
    warm_all()


@main.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def target(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Tell the target of an option and the ceilings in its way."""
    workspace = open_workspace(data)
    job = jobs.load_job(workspace, JobId(job_id))
    report = target_report(workspace.desk, job, option_of(job, OptionId(option_id)))
    click.echo(as_json(report) if json_out else _target_text(report))


def _target_text(report: TargetReport) -> str:
    lines = [f"{report.told}.", f"{report.yield_kwh_per_kw:.0f} kWh/kW: {report.yield_origin}"]
    if report.against_need_frac is not None:
        lines.append(f"against usage: {report.against_need_frac * 100:.0f} %")
    for item in report.ceilings:
        count = "?" if item.modules is None else str(item.modules)
        lines.append(f"{count:>5}  {item.title}: {item.reason or item.sum.numbers}")
    return "\n".join(lines)


def _year_text(report: YearReport) -> str:
    stand_in = " (stand-in weather)" if report.stand_in_weather else ""
    most = ""
    if report.clipped_most_kwh is not None:
        most = f", on single minutes {report.clipped_most_kwh:.0f} kWh"
    return "\n".join(
        [
            f"{report.energy_kwh:.0f} kWh a year at the meter{stand_in}",
            f"{report.specific_kwh_per_kw:.0f} kWh per kW DC",
            f"clipped {report.clipped_kwh:.0f} kWh, {report.clipped_frac * 100:.2f} %, "
            f"{report.clipped_hours:.0f} hours, in steps of {report.step_minutes} minutes; "
            f"on hourly means {report.clipped_hourly_kwh:.0f} kWh{most}",
            *(f"! {fault}" for fault in report.faults),
            *(
                f"{s.step.value:<11} {s.change_kwh:>9.0f} kWh {s.share_frac * 100:>7.2f} %  "
                f"leaves {s.after_kwh:.0f}"
                for s in report.stages
            ),
            *report.doubts,
        ]
    )


@main.command()
@click.argument("job_id")
@option_option
@data_option
@speaks
def layouts(job_id: str, option_id: str, data: Path) -> None:
    """Print the layouts of each plane as JSON: counts, ceilings, places."""
    workspace, job, option = at_option(data, job_id, option_id)
    found = {p.id: alternatives(workspace.desk, job, option, p.id) for p in job.survey.planes}
    click.echo(as_json({str(k): [json.loads(as_json(a)) for a in v] for k, v in found.items()}))


@main.command()
@click.argument("job_id")
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
@option_option
@data_option
@speaks
def sheet(job_id: str, file: Path, option_id: str, data: Path) -> None:
    """Write the one-page sheet of an option as PDF."""
    workspace = open_workspace(data)
    newest = jobs.open_job(workspace, JobId(job_id)).revision
    file.write_bytes(design_sheet_pdf(workspace, JobId(job_id), newest, OptionId(option_id)))


@main.command()
@click.argument("job_id")
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
@option_option
@data_option
@speaks
def brief(job_id: str, file: Path, option_id: str, data: Path) -> None:
    """Write the one-page brief as PDF."""
    workspace = open_workspace(data)
    newest = jobs.open_job(workspace, JobId(job_id)).revision
    file.write_bytes(brief_pdf(workspace, JobId(job_id), newest, OptionId(option_id)))


@main.command()
@click.argument("case", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--rule", type=click.Choice([r.value for r in RowRule]), default="independent")
@click.option("--orientation", "ways", type=click.Choice([w.value for w in Ways]), default="PL")
@click.option(
    "--steps", default=2000, type=click.IntRange(0), help="Of a proof or a search, at most."
)
@json_option
@speaks
def fill(case: Path, rule: str, ways: str, steps: int, *, json_out: bool) -> None:
    """Fill the roof of a layout case file: count, ceiling, places."""
    text = case.read_text("utf-8", errors="replace")
    answer = solve_layout_case(text, case.name, RowRule(rule), Ways(ways), after_steps(steps))
    if json_out:
        click.echo(json.dumps(answer))
        return
    ceiling = "proven" if answer["proven"] else f"at most {answer['bound']}"
    click.echo(f"{answer['count']} modules, {ceiling}")


@main.command()
@click.argument("case", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@json_option
@speaks
def outline(case: Path, *, json_out: bool) -> None:
    """Adjust an outline case file: corners, misclosure, the reading most likely wrong."""
    answer = solve_outline_case(case.read_text("utf-8", errors="replace"), case.name)
    click.echo(json.dumps(answer, indent=2) if json_out else _outline_text(answer))


def _outline_text(answer: dict[str, Any]) -> str:
    lines = []
    if answer["missing"]:
        count, corners = answer["missing"], " and ".join(map(str, answer["loose_vertices"]))
        lines.append(f"{count} more reading(s) needed: corners {corners} can still move")
        lines += [f"a diagonal from {a} to {b} would fix one" for a, b in answer["would_fix"]]
    else:
        lines += [f"corner {i}: {x:.3f} {y:.3f} m" for i, (x, y) in enumerate(answer["vertices"])]
    if answer["misclosure_m"] is not None:
        x, y = answer["misclosure_m"]
        closes = f", 1:{answer['ratio']:.0f}" if answer["ratio"] is not None else ""
        lines.append(f"misclosure {x * 1000:.0f} mm along, {y * 1000:.0f} mm up{closes}")
    if answer["suspect"] is not None:
        lines.append(
            f"reading {answer['suspect']['index'] + 1} is most likely wrong"
            + (f": it should read about {answer['predicted']:.2f} m" if answer["predicted"] else "")
        )
    elif answer["global_test"] == "rejected":
        lines.append("these readings do not fit together: re-measure any side")
    return "\n".join(lines)


@main.command(name="export")
@click.argument("job_id")
@data_option
@speaks
def export_command(job_id: str, data: Path) -> None:
    """Print the job file."""
    content, _ = jobs.export_job(open_workspace(data), JobId(job_id))
    click.echo(content, nl=False)


@main.command(name="import")
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@data_option
@json_option
@speaks
def import_command(file: Path, data: Path, *, json_out: bool) -> None:
    """Store a job file as a new job and print its id."""
    state = jobs.import_job(open_workspace(data), file.read_bytes(), file.name, AUTHOR)
    click.echo(as_json({"job_id": state.job_id}) if json_out else state.job_id)


@main.command()
@click.option("--equipment", is_flag=True, help="That of the equipment file instead.")
def schema(*, equipment: bool) -> None:
    """Print the JSON Schema of the job file."""
    click.echo(json.dumps(equipment_schema() if equipment else job_file_schema(), indent=2))


@main.command()
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
def openapi(file: Path) -> None:
    """Write the description of the web API, only when it has changed."""
    with TemporaryDirectory() as folder:
        app = create_app(open_workspace(Path(folder)))
        description = app.api_doc
    for schema in description["components"]["schemas"].values():
        # Fields with defaults may be left out on the way in; on the way out all are there,
        # and the interface sends them all too.
        if "properties" in schema:
            schema["required"] = sorted(schema["properties"])
    text = json.dumps(description, indent=2, sort_keys=True) + "\n"
    if not file.exists() or file.read_text("utf-8") != text:
        file.write_text(text, "utf-8")
