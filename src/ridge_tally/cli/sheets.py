"""The commands that print: the design sheet, the plan set, every drawing of it."""

from pathlib import Path

import click

from ridge_tally.cli.asking import data_option, newest, option_option, speaks
from ridge_tally.core.sheets.paper import SheetPaper
from ridge_tally.core.sheets.sets import SetName
from ridge_tally.services.files_out import drawings_of
from ridge_tally.services.papers import design_sheet_pdf, plan_set_of, plan_set_pdf


@click.command()
@click.argument("job_id")
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
@option_option
@data_option
@speaks
def sheet(job_id: str, file: Path, option_id: str, data: Path) -> None:
    """Write the one-page sheet of an option as PDF."""
    workspace, at = newest(data, job_id, option_id)
    file.write_bytes(design_sheet_pdf(workspace, at.job_id, at.revision, at.option_id))


set_option = click.option(
    "--set", "name", default="permit", show_default=True,
    help=f"What is sent to whom: {', '.join(SetName)}, or a set of the job’s own.",
)  # fmt: skip
paper_option = click.option(
    "--paper", type=click.Choice([p.value for p in SheetPaper], case_sensitive=False),
    default="A4", show_default=True,
)  # fmt: skip


@click.command("plan-set")
@click.argument("job_id")
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
@set_option
@paper_option
@option_option
@data_option
@speaks
def plan_set(job_id: str, file: Path, name: str, paper: str, option_id: str, data: Path) -> None:
    """Write a set of an option's sheets as one PDF; a sheet with a drawing fault is named."""
    workspace, at = newest(data, job_id, option_id)
    asked = name, SheetPaper(paper)
    for sheet in plan_set_of(workspace, at, *asked):
        for hit in sheet.hits:
            click.echo(f"{sheet.number}: {hit.kind}, {hit.told}", err=True)
    file.write_bytes(plan_set_pdf(workspace, at, *asked))


@click.command()
@click.argument("job_id")
@click.argument("folder", type=click.Path(file_okay=False, path_type=Path))
@paper_option
@option_option
@data_option
@speaks
def drawings(job_id: str, folder: Path, paper: str, option_id: str, data: Path) -> None:
    """Write every sheet of an option as SVG and DXF, its tables as CSV, its days, into a folder."""
    workspace, at = newest(data, job_id, option_id)
    for name, content in drawings_of(workspace, at, SheetPaper(paper)):
        place = folder / name
        place.parent.mkdir(parents=True, exist_ok=True)
        place.write_bytes(content)
