"""The commands of Proving: what meters should show."""

from pathlib import Path

import click

from ridge_tally.cli.asking import as_json, json_option, speaks
from ridge_tally.formats.readings_case import expected_of_case


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
