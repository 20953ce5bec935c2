"""The commands of Proving: what meters should show, what readings point to, a job’s log, practice."""

from pathlib import Path

import click

from ridge_tally.cli.asking import (
    as_json,
    at_desk,
    data_option,
    json_option,
    option_option,
    speaks,
)
from ridge_tally.core.job.proving import Practice
from ridge_tally.core.proving.weighing import EXPLAINED
from ridge_tally.formats.production_file import read_production
from ridge_tally.formats.readings_case import diagnosed_case, expected_of_case
from ridge_tally.rules.proving.diagnosis import percent_told
from ridge_tally.services.proving import commissioning_of
from ridge_tally.studies.proving.hunt import hunt_view
from ridge_tally.studies.proving.production import judged_log, production_of, terms_of
from ridge_tally.studies.proving.yard import yard_view

CAUTION = "Daylight keeps modules live: never open a connector under load; prove dead first."


@click.command()
@click.argument("case", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@json_option
@speaks
def expected(case: Path, *, json_out: bool) -> None:
    """What each instrument should read on a string of a case file, with its band."""
    due = expected_of_case(case.read_text("utf-8"), case.name)
    if json_out:
        click.echo(as_json(due))
        return
    rows = (
        ("Open voltage", due.voc_v, "V"), ("Short-circuit current", due.isc_a, "A"),
        ("Voltage at most power", due.vmp_v, "V"), ("Current at most power", due.imp_a, "A"),
    )  # fmt: skip
    for name, reading, unit in rows:
        click.echo(f"{name}: {reading.due:.2f} {unit} ± {reading.band:.2f}")
    click.echo(CAUTION)


@click.command()
@click.argument("readings", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@json_option
@speaks
def diagnose(readings: Path, *, json_out: bool) -> None:
    """What the readings of a file point to, how sure that is, and what to read next."""
    found = diagnosed_case(readings.read_text("utf-8"), readings.name)
    if json_out:
        click.echo(as_json(found))
        return
    click.echo(found.told)
    for cause in found.causes:
        click.echo(f"{percent_told(cause.chance):>9}  {cause.where}{cause.title}{cause.much}")
        for row in cause.readings:
            if not cause.fits and abs(row.off) > EXPLAINED:
                click.echo(f"           does not explain {row.told}")
    for title, lines in (
        ("Normal", found.normal), ("Weakens it", found.weakens), ("Inferred", found.inferred),
    ):  # fmt: skip
        for line in lines:
            click.echo(f"{title}: {line}")
    for test in found.next_tests:
        click.echo(f"Next: {test.told}. {test.how}")
    click.echo(CAUTION)


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def prove(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """How the commissioning of a job stands, and what its search for a fault points to."""
    desk, design = at_desk(data, job_id, option_id)
    steps = commissioning_of(design)
    hunt = hunt_view(desk, design, design.job.proving.hunt)
    if json_out:
        click.echo(as_json({"commissioning": steps, "search": hunt.diagnosis}))
        return
    click.echo(steps.told)
    for step in steps.steps:
        click.echo(f"{step.outcome.value:>7}  {step.title}")
        for row in step.rows:
            out = row.came_out
            if row.typed:
                due = "" if out.due is None else f", due {out.due:.1f} {row.unit}"
                told = f": {out.told}" if out.told else ""
                click.echo(
                    f"         {row.title} {row.typed} {row.unit}{due}, {out.outcome.value}{told}"
                )
    if hunt.diagnosis is not None:
        click.echo(f"Search: {hunt.diagnosis.told}")
    click.echo(CAUTION)


@click.command()
@click.argument("job_id")
@click.argument("log", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--column", default="", help="Which column is read; the likeliest by default.")
@option_option
@data_option
@json_option
@speaks
def production(
    job_id: str, log: Path, column: str, option_id: str, data: Path, *, json_out: bool
) -> None:
    """What a gateway’s log says of a job: made beside due, by month, with its signs."""
    desk, design = at_desk(data, job_id, option_id)
    read = read_production(log.read_bytes(), log.name, terms_of(design, column))
    found = production_of(desk, design, judged_log(desk, design, read), log.name)
    if json_out:
        click.echo(as_json(found))
        return
    click.echo(found.told)
    for line in (*found.corrections, *found.doubts):
        click.echo(f"    {line}")
    for month in found.months:
        ratio = "" if month.ratio is None else f"{month.ratio * 100:.1f} % of due, "
        click.echo(f"{month.name:>9}  {month.made_kwh:.0f} kWh, {ratio}{month.standing.value}")
    for sign in found.signs:
        click.echo(f"{sign.tone.value:>9}  {sign.title}, {sign.when}: {sign.seen}")


@click.command()
@click.argument("job_id")
@click.option("--seed", type=click.IntRange(0, 2**31 - 1), default=1, show_default=True)
@option_option
@data_option
@json_option
@speaks
def practice(job_id: str, seed: int, option_id: str, data: Path, *, json_out: bool) -> None:
    """What a number plants in a job’s system, and an efficient search for it."""
    desk, design = at_desk(data, job_id, option_id)
    view = yard_view(desk, design, Practice(seed, verdict="healthy"))
    found = view.debrief
    if json_out or found is None:
        click.echo(as_json(found))
        return
    click.echo(f"System {seed}, {view.moment}")
    for words in found.planted:
        click.echo(f"Planted: {words}")
    for n, step in enumerate(found.par, 1):
        click.echo(f"{n:>3}. {step.title}: {step.minutes:.0f} min, risk {step.risk:.0f}")
    click.echo("This practice is no licence to do the work.")
