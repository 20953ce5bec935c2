"""Commands of the brief: the target, the printed page."""

from pathlib import Path

import click

from ridge_tally.cli.asking import (
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
from ridge_tally.services.papers import brief_pdf
from ridge_tally.store.jobs import JobId
from ridge_tally.studies.brief.target import TargetReport, target_report


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def target(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """Tell the target of an option and the ceilings in its way."""
    workspace = open_workspace(data)
    job = jobs.load_job(workspace, JobId(job_id))
    report = target_report(workspace.desk, design_in(job, OptionId(option_id)))
    click.echo(as_json(report) if json_out else _target_text(report))


def _target_text(report: TargetReport) -> str:
    lines = [f"{report.told}.", f"{report.yield_kwh_per_kw:.0f} kWh/kW: {report.yield_origin}"]
    if report.against_need_frac is not None:
        lines.append(f"against usage: {report.against_need_frac * 100:.0f} %")
    for item in report.ceilings:
        count = "?" if item.modules is None else str(item.modules)
        lines.append(f"{count:>5}  {item.title}: {item.reason or item.sum.numbers}")
    return "\n".join(lines)


@click.command()
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
