"""Applying the edits of a household's day."""

import re
from dataclasses import replace
from typing import assert_never

from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.loading.household import (
    ForgetLoadFile,
    HouseholdEdit,
    SetDayShape,
    SetPaidEvents,
    UseLoadFile,
)
from ridge_tally.core.job.household import Household, PaidEvents
from ridge_tally.core.units import parse_number, whole

_HOURS = re.compile(r"(\d{1,2})\s*(?:-|–|to)\s*(\d{1,2})\s*h?")


def household_changed(job: Job, edit: HouseholdEdit) -> Job:
    """Return the job after an edit of the household's day.

    Raises
    ------
    NotUnderstood
        If the days, hours or price of events cannot be read.
    """
    house = job.brief.household
    match edit:
        case SetDayShape():
            house = replace(house, shape=edit.shape)
        case UseLoadFile():
            house = replace(house, load_file=edit.file)
        case ForgetLoadFile():
            house = replace(house, load_file=None)
        case SetPaidEvents():
            house = replace(house, events=_events(edit))
        case _:
            assert_never(edit)
    return _with_house(job, house)


def _with_house(job: Job, house: Household) -> Job:
    return replace(job, brief=replace(job.brief, household=house))


def _events(edit: SetPaidEvents) -> PaidEvents | None:
    if edit.days.strip() in {"", "0"}:
        return None
    days = parse_number(edit.days, "Export events a year", "a number of days such as 6")
    hours = _HOURS.fullmatch(edit.hours.strip().lower())
    if not hours:
        raise NotUnderstood("Hours of the events", edit.hours, "hours such as 17-20")
    count = whole(days, "Export events a year", edit.days, "whole days such as 6")
    cents = parse_number(edit.cents, "Paid at events", "a price of a kWh such as 150")
    return PaidEvents(count, int(hours[1]), int(hours[2]), cents)
