"""Applying the edits of Proving: what was built, serials, records, readings."""

from dataclasses import replace

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import ProvingEdit
from ridge_tally.core.job.edits.proving.built import BuiltEdit
from ridge_tally.editing.proving.built import built_changed
from ridge_tally.editing.proving.readings import readings_changed


def proving_changed(job: Job, edit: ProvingEdit) -> Job:
    """Return the job with its log changed; raises as the edits of each do."""
    if isinstance(edit, BuiltEdit):
        return replace(job, proving=built_changed(job, edit))
    return replace(job, proving=readings_changed(job, edit))
