"""The commands of Proving: what meters should show, and what readings point to."""

from pathlib import Path

import click

from ridge_tally.cli.asking import as_json, json_option, speaks
from ridge_tally.core.proving.weighing import EXPLAINED
from ridge_tally.formats.readings_case import diagnosed_case, expected_of_case
from ridge_tally.rules.proving.diagnosis import percent_told


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
    click.echo("Daylight keeps modules live: never open a connector under load; prove dead first.")


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
    click.echo("Daylight keeps modules live: never open a connector under load; prove dead first.")
