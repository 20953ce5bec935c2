"""The command that prints the design sheet."""

from pathlib import Path

import click

from ridge_tally.cli.asking import data_option, open_workspace, option_option, speaks
from ridge_tally.core.job.ids import OptionId
from ridge_tally.services import jobs
from ridge_tally.services.papers import design_sheet_pdf
from ridge_tally.store.jobs import JobId


@click.command()
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
