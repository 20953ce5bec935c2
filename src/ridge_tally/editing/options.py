"""Applying the edits of a job's name, its unit and its list of options."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.document import (
    Job,
    option_of,
    with_option,
)
from ridge_tally.core.job.edits.options import (
    CopyOption,
    OptionEdit,
    RemoveOption,
    RenameJob,
    RenameOption,
    SetUnit,
)
from ridge_tally.core.job.ids import OptionId

MOST_OPTIONS = 8


def options_changed(job: Job, edit: OptionEdit) -> Job:
    """Return the job with another name, unit or list of options.

    Raises
    ------
    NotFound, BadGeometry
        If there is no such option, no room for one more, or it is the last.
    """
    match edit:
        case RenameJob():
            return replace(job, name=edit.name.strip())
        case SetUnit():
            return replace(job, unit=edit.unit)
        case CopyOption():
            return _copied(job, edit)
        case RenameOption():
            option = replace(option_of(job, edit.option_id), name=edit.name.strip())
            return with_option(job, option)
        case RemoveOption():
            return _without_option(job, edit.option_id)
        case _:
            assert_never(edit)


def _copied(job: Job, edit: CopyOption) -> Job:
    if len(job.options) >= MOST_OPTIONS:
        raise BadGeometry(
            "Options", f"a job holds at most {MOST_OPTIONS}", "Remove one, or duplicate the job."
        )
    taken = {o.id for o in job.options}
    new_id = next(c for c in "abcdefghijklmnop" if c not in taken)
    copy = replace(option_of(job, edit.option_id), id=OptionId(new_id), name=edit.name.strip())
    return replace(job, options=(*job.options, copy))


def _without_option(job: Job, option_id: OptionId) -> Job:
    option_of(job, option_id)
    if len(job.options) == 1:
        raise BadGeometry("Options", "the last one cannot be removed", "Delete the job instead.")
    return replace(job, options=tuple(o for o in job.options if o.id != option_id))
