"""Applying the edits of an option's battery."""

from dataclasses import replace

from ridge_tally.core.brief.typed import parse_money_cents, parse_quantity
from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.document import Job, option_of, with_option
from ridge_tally.core.job.edits.loading.batteries import BatteryEdit, RemoveBattery
from ridge_tally.editing.loading.units import KW, KWH


def battery_changed(job: Job, edit: BatteryEdit) -> Job:
    """Return the job with another battery in an option, or none.

    Raises
    ------
    NotUnderstood, OutOfRange
        If a figure cannot be read.
    BadGeometry
        If it should join on a DC side that microinverters do not have.
    """
    option = option_of(job, edit.option_id)
    if isinstance(edit, RemoveBattery):
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
