"""Commands of jobs: listed, checked, exported, imported."""

import sys
from pathlib import Path

import click

from ridge_tally.cli.asking import (
    AUTHOR,
    BROKEN_STOP,
    UNCHECKED_STOP,
    as_json,
    data_option,
    json_option,
    open_workspace,
    option_option,
    speaks,
)
from ridge_tally.core.job.ids import OptionId
from ridge_tally.editing.design import design_in
from ridge_tally.services import jobs
from ridge_tally.store.jobs import JobId
from ridge_tally.views.option import CheckView, OptionReport, option_report


@click.command(name="list")
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


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def check(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Check an option; exit code 1 for a broken Stop, 3 for an unchecked one."""
    job = jobs.load_job(open_workspace(data), JobId(job_id))
    report = option_report(design_in(job, OptionId(option_id)))
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


@click.command(name="export")
@click.argument("job_id")
@data_option
@speaks
def export_command(job_id: str, data: Path) -> None:
    """Print the job file."""
    content, _ = jobs.export_job(open_workspace(data), JobId(job_id))
    click.echo(content, nl=False)


@click.command(name="import")
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@data_option
@json_option
@speaks
def import_command(file: Path, data: Path, *, json_out: bool) -> None:
    """Store a job file as a new job and print its id."""
    state = jobs.import_job(open_workspace(data), file.read_bytes(), file.name, AUTHOR)
    click.echo(as_json({"job_id": state.job_id}) if json_out else state.job_id)
