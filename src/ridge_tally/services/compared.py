"""Options of a job laid over each other, each read at its own revision."""

from collections.abc import Sequence

from ridge_tally.editing.design import design_in
from ridge_tally.services.jobs import load_job
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.jobs import JobId
from ridge_tally.studies.loading.options_compared import OptionsCompared, Pick, options_compared


def compared(
    workspace: Workspace, job_id: JobId, revision: int, picks: Sequence[Pick]
) -> OptionsCompared:
    """Return the years of options, the first one being what the others are held against.

    Raises
    ------
    NotFound
        If a revision or an option is not there.
    """
    jobs = [load_job(workspace, job_id, pick.revision) for pick in picks]
    there = [(pick, design_in(job, pick.option_id)) for pick, job in zip(picks, jobs, strict=True)]
    return options_compared(workspace.desk, revision, there)
