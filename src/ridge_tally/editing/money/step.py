"""Which file applies which edits of Money."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import MoneyEdit
from ridge_tally.core.job.edits.money.incentives import IncentiveEdit
from ridge_tally.core.job.edits.money.offers import OfferEdit
from ridge_tally.core.job.edits.money.prices import PriceEdit
from ridge_tally.editing.money.incentives import incentives_changed
from ridge_tally.editing.money.offers import offers_changed
from ridge_tally.editing.money.prices import prices_changed


def money_changed(job: Job, edit: MoneyEdit) -> Job:
    """Return the job after an edit of Money; raises as the handlers of its files do."""
    return _in_currency(_changed(job, edit))


def _in_currency(job: Job) -> Job:
    """Return the job with the currency its first prices were typed in; later ones are held to it."""
    grid = job.brief.grid
    if job.money.currency or grid is None:
        return job
    return replace(job, money=replace(job.money, currency=grid.currency))


def _changed(job: Job, edit: MoneyEdit) -> Job:
    if isinstance(edit, PriceEdit):
        return prices_changed(job, edit)
    if isinstance(edit, IncentiveEdit):
        return incentives_changed(job, edit)
    if isinstance(edit, OfferEdit):
        return offers_changed(job, edit)
    assert_never(edit)
