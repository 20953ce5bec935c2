"""Which file applies which edits of the household, batteries and the measured-curve bench."""

from typing import assert_never

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import LoadingEdit
from ridge_tally.core.job.edits.loading.batteries import BatteryEdit
from ridge_tally.core.job.edits.loading.bench import BenchEdit
from ridge_tally.core.job.edits.loading.household import HouseholdEdit
from ridge_tally.editing.loading.batteries import battery_changed
from ridge_tally.editing.loading.bench import bench_changed
from ridge_tally.editing.loading.household import household_changed


def loading_changed(job: Job, edit: LoadingEdit) -> Job:
    """Return the job after an edit of the household, batteries and the measured-curve bench.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound, FormatError
        Naming the field, the value and the remedy; the job given in is untouched.
    """
    if isinstance(edit, HouseholdEdit):
        return household_changed(job, edit)
    if isinstance(edit, BatteryEdit):
        return battery_changed(job, edit)
    if isinstance(edit, BenchEdit):
        return bench_changed(job, edit)
    assert_never(edit)
