"""Applying an edit to a job: a pure function from document to document.

Each edit is validated as a whole; a refused edit leaves the document as it was.
"""

from collections.abc import Iterable
from dataclasses import replace
from functools import reduce
from typing import assert_never

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.job.document import Job, alike_but_options
from ridge_tally.core.job.edits.any_edit import (
    ArrayEdit,
    BriefEdit,
    BuildEdit,
    Edit,
    LoadingEdit,
    MoneyEdit,
    PaperworkEdit,
    ProvingEdit,
    StringEdit,
    SurveyEdit,
    TakeRemedy,
)
from ridge_tally.core.job.edits.options import CopyOption, OptionEdit
from ridge_tally.core.job.edits.sun.weather import WeatherEdit
from ridge_tally.core.job.option import Option
from ridge_tally.editing.array.step import array_changed
from ridge_tally.editing.brief.step import brief_changed
from ridge_tally.editing.build.step import build_changed
from ridge_tally.editing.loading.step import loading_changed
from ridge_tally.editing.money.step import money_changed
from ridge_tally.editing.options import options_changed
from ridge_tally.editing.proving.step import proving_changed
from ridge_tally.editing.sheets.step import paperwork_changed
from ridge_tally.editing.strings.planned import thread_option
from ridge_tally.editing.strings.step import strings_changed
from ridge_tally.editing.sun.weather import weather_changed
from ridge_tally.editing.survey.planes import with_true_azimuths
from ridge_tally.editing.survey.step import survey_changed
from ridge_tally.rules.bounds import require_bounded
from ridge_tally.rules.document import require_sound


def apply_edit(job: Job, edit: Edit, shelf: Shelf) -> Job:
    """Return the job after the edit, its strings threaded again where they depend on it.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound
        Naming the field, the value and the remedy; the job given in is untouched.
    """
    require_bounded(edit)
    changed = _changed(job, edit, shelf)
    if changed.site != job.site:
        changed = with_true_azimuths(changed)
    # An option that is left alone on an unchanged site keeps its strings: they were planned on it.
    untouched = {id(o) for o in job.options} if alike_but_options(changed, job) else set()
    threaded = (o if id(o) in untouched else _threaded(changed, o) for o in changed.options)
    rethreaded = replace(changed, options=tuple(threaded))
    require_sound(rethreaded, job)
    return rethreaded


def _threaded(job: Job, option: Option) -> Option:
    """Return the option threaded again; the very same one where nothing of it changes."""
    threaded = thread_option(job, option)
    return option if threaded == option else threaded


def apply_edits(job: Job, steps: Iterable[Edit], shelf: Shelf) -> Job:
    """Return the job after one edit after another; raises as ``apply_edit`` does."""
    return reduce(lambda made, step: apply_edit(made, step, shelf), steps, job)


def _changed(job: Job, edit: Edit, shelf: Shelf) -> Job:  # noqa: PLR0911, PLR0912 - one return a step
    if isinstance(edit, TakeRemedy):
        steps = edit.steps
        if edit.into:
            job = options_changed(job, CopyOption(edit.option_id, edit.into))
            steps = tuple(replace(step, option_id=job.options[-1].id) for step in steps)
        return reduce(lambda made, step: _changed(made, step, shelf), steps, job)
    if isinstance(edit, OptionEdit):
        return options_changed(job, edit)
    if isinstance(edit, BriefEdit):
        return brief_changed(job, edit, shelf)
    if isinstance(edit, SurveyEdit):
        return survey_changed(job, edit)
    if isinstance(edit, ArrayEdit):
        return array_changed(job, edit, shelf)
    if isinstance(edit, WeatherEdit):
        return weather_changed(job, edit)
    if isinstance(edit, StringEdit):
        return strings_changed(job, edit, shelf)
    if isinstance(edit, LoadingEdit):
        return loading_changed(job, edit)
    if isinstance(edit, BuildEdit):
        return build_changed(job, edit, shelf)
    if isinstance(edit, MoneyEdit):
        return money_changed(job, edit)
    if isinstance(edit, PaperworkEdit):
        return paperwork_changed(job, edit)
    if isinstance(edit, ProvingEdit):
        return proving_changed(job, edit)
    assert_never(edit)
