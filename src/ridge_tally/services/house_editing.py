"""Applying the edits of a household's day, of batteries and of the measured-curve bench."""

import re
from dataclasses import replace
from typing import assert_never

from ridge_tally.core.brief.typed import parse_money_cents, parse_quantity
from ridge_tally.core.errors import BadGeometry, NotUnderstood
from ridge_tally.core.job import battery_edits, bench_edits, household_edits
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.bench import Bench, BenchTerm
from ridge_tally.core.job.document import Job, option_of, strung_w, with_option
from ridge_tally.core.job.household import Household, PaidEvents
from ridge_tally.core.units import parse_number

KWH, KW = {"": 1.0, "kwh": 1.0, "wh": 0.001}, {"": 1.0, "kw": 1.0, "w": 0.001}
WATTS = {"": 1.0, "w": 1.0, "kw": 1000.0, "wp": 1.0, "kwp": 1000.0}
_HOURS = re.compile(r"(\d{1,2})\s*(?:-|–|to)\s*(\d{1,2})\s*h?")


def household_changed(job: Job, edit: household_edits.HouseholdEdit) -> Job:
    """Return the job after an edit of the household's day.

    Raises
    ------
    NotUnderstood
        If the days, hours or price of events cannot be read.
    """
    house = job.brief.household
    match edit:
        case household_edits.SetDayShape():
            house = replace(house, shape=edit.shape)
        case household_edits.UseLoadFile():
            house = replace(house, load_file=edit.file)
        case household_edits.ForgetLoadFile():
            house = replace(house, load_file=None)
        case household_edits.SetPaidEvents():
            house = replace(house, events=_events(edit))
        case _:
            assert_never(edit)
    return _with_house(job, house)


def _with_house(job: Job, house: Household) -> Job:
    return replace(job, brief=replace(job.brief, household=house))


def _events(edit: household_edits.SetPaidEvents) -> PaidEvents | None:
    if edit.days.strip() in {"", "0"}:
        return None
    days = parse_number(edit.days, "Export events a year", "a number of days such as 6")
    hours = _HOURS.fullmatch(edit.hours.strip().lower())
    if not hours:
        raise NotUnderstood("Hours of the events", edit.hours, "hours such as 17-20")
    if days != int(days):
        raise NotUnderstood("Export events a year", edit.days, "whole days such as 6")
    cents = parse_number(edit.cents, "Paid at events, cents a kWh", "cents such as 150")
    return PaidEvents(int(days), int(hours[1]), int(hours[2]), cents)


def battery_changed(job: Job, edit: battery_edits.BatteryEdit) -> Job:
    """Return the job with another battery in an option, or none.

    Raises
    ------
    NotUnderstood, OutOfRange
        If a figure cannot be read.
    BadGeometry
        If it should join on a DC side that microinverters do not have.
    """
    option = option_of(job, edit.option_id)
    if isinstance(edit, battery_edits.RemoveBattery):
        return with_option(job, replace(option, battery=None))
    micro = option.electronics.architecture is Architecture.MICRO
    if micro and edit.coupling is Coupling.DC:
        raise BadGeometry(
            "Battery", "microinverters have no DC side", "Let it join beside them, on AC."
        )
    battery = Battery(
        edit.coupling,
        parse_quantity(edit.usable, "Battery, usable kWh", KWH, "kWh such as 9.6"),
        parse_quantity(edit.power, "Battery, kW", KW, "kW such as 5"),
        round(parse_money_cents(edit.price, "Price of the battery"))
        if edit.price.strip()
        else None,
    )
    return with_option(job, replace(option, battery=battery))


def bench_changed(job: Job, edit: bench_edits.BenchEdit) -> Job:
    """Return the job with another measured day on its bench, or other things made of it.

    Raises
    ------
    NotUnderstood
        If a figure cannot be read.
    BadGeometry
        If there is no measured day yet.
    """
    match edit:
        case bench_edits.ClearBench():
            return replace(job, bench=None)
        case bench_edits.UsePowerFile():
            watts = _watts(edit.module_w, "Watts of the test module")
            old = job.bench
            terms = old.terms if old else _whole_array(job)
            bench = Bench(edit.file, watts, terms, old.limit_kw if old else None)
            return replace(job, bench=bench)
        case bench_edits.SetBench():
            if job.bench is None:
                raise BadGeometry("Bench", "no measured day lies on it", "Choose its file first.")
            bench = replace(
                job.bench,
                module_w=_watts(edit.module_w, "Watts of the test module"),
                terms=tuple(
                    BenchTerm(_watts(t.watts, f"Group {n}"), t.mirrored)
                    for n, t in enumerate(edit.terms, start=1)
                ),
                limit_kw=parse_quantity(edit.limit_kw, "Limit of the bench", KW, "kW such as 5")
                if edit.limit_kw.strip()
                else None,
                daylight=edit.daylight,
            )
            return replace(job, bench=bench)
        case _:
            assert_never(edit)


def _watts(typed: str, field: str) -> float:
    return parse_quantity(typed, field, WATTS, "watts such as 405 or 6.2 kW")


def _whole_array(job: Job) -> tuple[BenchTerm, ...]:
    """Return the first option's array as one group: what a person changes from."""
    watts = strung_w(job, job.options[0])
    return (BenchTerm(watts, mirrored=False),) if watts > 0 else ()
