"""The list of jobs as cards, and the years it tells of."""

from ridge_tally.core.job.ids import OptionId
from ridge_tally.editing.design import design_in
from ridge_tally.formats.job_file import stored_job
from ridge_tally.services.figures import figures_of
from ridge_tally.services.jobs import load_job
from ridge_tally.services.workspace import Workspace
from ridge_tally.store import jobs as store
from ridge_tally.store.database import reading, transaction
from ridge_tally.store.jobs import JobId
from ridge_tally.views.card import CardPlan, JobCard, plan_of, steps_of
from ridge_tally.views.loading.year import YearReport, year_report


def job_card(workspace: Workspace, job_id: JobId) -> JobCard:
    """Return the card of a job at its newest, with its first option; NotFound if it is not there."""
    with reading(workspace.sessions) as session:
        head = store.head_of(session, job_id)
        job = stored_job(head.document)
        option = job.options[0]
        year = store.year_of(session, job_id, head.number, option.id)
    figures = figures_of(job)
    report = next((r for r in figures.reports if r.option_id == option.id), None)
    return JobCard(
        revision=head.number,
        place=job.site.place,
        options=len(job.options),
        option_id=option.id,
        option=option.name,
        modules=report.modules if report else 0,
        p_dc_w=report.p_dc_w if report else 0.0,
        p_ac_w=report.p_ac_w if report else 0.0,
        makes_ac=report.makes_ac if report else True,
        energy_kwh=None if year is None else year.energy_kwh,
        year_is_newest=year is not None and year.revision == head.number,
        steps=steps_of(figures.brief, report),
        # A job that cannot be worked out opens and says why; its card stands without a drawing.
        plan=CardPlan((), ()) if figures.problem else plan_of(job),
        problem=figures.problem,
    )


def option_year(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> YearReport:
    """Return the year of an option and keep what it makes for the list of jobs.

    Raises
    ------
    NotFound, MissingDatum
        If it is not there, or there can be no year of it.
    """
    job = load_job(workspace, job_id, revision)
    report = year_report(workspace.desk, design_in(job, option_id))
    with reading(workspace.sessions) as session:
        kept = store.year_of(session, job_id, revision, option_id)
    if kept is None or (kept.revision, kept.energy_kwh) != (revision, report.energy_kwh):
        with transaction(workspace.sessions) as session:
            store.keep_year(session, job_id, revision, option_id, report.energy_kwh)
    return report


def archive_job(workspace: Workspace, job_id: JobId, *, away: bool) -> None:
    """Put a job into the archive or take it out again; NotFound if it is not there."""
    with transaction(workspace.sessions) as session:
        store.set_archived(session, job_id, workspace.clock() if away else None)
