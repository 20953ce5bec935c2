"""The command that fills the shelf."""

from pathlib import Path

import click

from ridge_tally.cli.asking import as_json, data_option, json_option, open_workspace, speaks
from ridge_tally.services.own_equipment import take_in_equipment


@click.command(name="take-equipment")
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
