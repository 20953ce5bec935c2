"""Inverters added, changed and taken away; strings keep their inputs where those stay."""

from dataclasses import replace
from itertools import accumulate

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import InverterId, InverterSheet, TrackerSheet, with_renewed
from ridge_tally.core.errors import BadGeometry, NotFound, OutOfRange
from ridge_tally.core.job.document import Job, option_of, with_option
from ridge_tally.core.job.edits.strings.inverters import (
    AddInverter,
    ChangeInverter,
    ChooseInverter,
    InverterEdit,
    RemoveInverter,
    UseDcInput,
)
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import inverter_sheets_of
from ridge_tally.core.units import parse_number
from ridge_tally.rules.option_document import MOST_INVERTERS

# A bare input tracks from the least that is not nothing.
LEAST_V = 1.0
MOST_TYPED, MOST_STRINGS = 100_000.0, 40


def with_sheet(job: Job, inverter: InverterSheet) -> Job:
    """Return the job with a copy of an inverter's datasheet, in the place of an older one."""
    inverters = with_renewed(job.equipment.inverters, inverter)
    return replace(job, equipment=replace(job.equipment, inverters=inverters))


def inverters_changed(job: Job, edit: InverterEdit, shelf: Shelf) -> Job:
    """Return the job with other inverters in an option.

    Raises
    ------
    NotFound
        If the inverter is not on the shelf, or none has that number.
    BadGeometry
        If the last one is taken away, or there are too many.
    NotUnderstood, OutOfRange
        If a figure of a bare DC input cannot be.
    """
    option = option_of(job, edit.option_id)
    if isinstance(edit, UseDcInput):
        sheet = _dc_input(edit)
        alone = replace(option, inverter_id=sheet.id, more_inverters=())
        return with_option(with_sheet(job, sheet), alone)
    if isinstance(edit, ChooseInverter):
        alone = replace(option, inverter_id=edit.inverter_id, more_inverters=())
        return with_option(with_sheet(job, shelf.inverter(edit.inverter_id)), alone)
    before = inverter_sheets_of(job, option)
    # Which inverter there was stands at each place now; none where it is new.
    stays: list[int | None] = list(range(len(before)))
    ids: list[InverterId] = [option.inverter_id, *option.more_inverters]
    if isinstance(edit, AddInverter):
        if len(ids) >= MOST_INVERTERS:
            raise BadGeometry(
                "Inverters", f"an option has at most {MOST_INVERTERS}", "Choose a larger one."
            )
        ids.append(edit.inverter_id)
        stays.append(None)
    else:
        at = edit.unit_number - 1
        if not 0 <= at < len(ids):
            raise NotFound("inverter number", str(edit.unit_number))
        if isinstance(edit, ChangeInverter):
            ids[at] = edit.inverter_id
        elif len(ids) == 1:
            raise BadGeometry("Inverters", "the last one stays", "Choose another in its place.")
        else:
            del ids[at], stays[at]
    if not isinstance(edit, RemoveInverter):
        job = with_sheet(job, shelf.inverter(edit.inverter_id))
    changed = replace(option, inverter_id=ids[0], more_inverters=tuple(ids[1:]))
    after = inverter_sheets_of(job, changed)
    return with_option(job, _renumbered(changed, before, after, stays))


def _dc_input(edit: UseDcInput) -> InverterSheet:
    """Return a datasheet of one tracker that asks nothing but what was typed.

    It tracks from nearly nothing to its highest voltage, and its current is that short-circuited.
    """
    volts = parse_number(edit.most_v.rstrip("V "), "Highest volts", "volts such as 150")
    amps = parse_number(edit.most_a.rstrip("A "), "Most amperes", "amperes such as 30")
    watts = parse_number(edit.most_w.rstrip("W "), "Most watts", "watts such as 2000")
    strings = parse_number(edit.strings, "Strings in parallel", "a number such as 2")
    for field, value in (("Highest volts", volts), ("Most amperes", amps), ("Most watts", watts)):
        if not 0 < value < MOST_TYPED:
            raise OutOfRange(field, value, f"above 0, below {MOST_TYPED:g}")
    if not 1 <= strings <= MOST_STRINGS or strings != int(strings):
        raise OutOfRange("Strings in parallel", strings, f"a whole number up to {MOST_STRINGS}")
    tracker = TrackerSheet(LEAST_V, volts, amps, amps, int(strings), watts)
    return InverterSheet(
        id=InverterId(f"dc-input-{volts:g}-{amps:g}-{watts:g}-{strings:g}"),
        name=f"DC input {volts:g} V, {amps:g} A, {watts:g} W",
        provenance="typed for this job",
        p_ac_w=watts,
        p_dc_max_w=None,
        v_dc_max_v=volts,
        v_start_v=LEAST_V,
        night_w=0.0,
        phases=1,
        efficiency=(),
        trackers=(tracker,),
        bare_isc=False,
        dc_only=True,
    )


def _renumbered(
    option: Option,
    before: tuple[InverterSheet, ...],
    after: tuple[InverterSheet, ...],
    stays: list[int | None],
) -> Option:
    """Return the option with its strings on the inputs' new numbers, without those that are gone."""
    old_first, new_first = (
        [0, *accumulate(len(i.trackers) for i in sheets)] for sheets in (before, after)
    )
    numbers = {
        old_first[old] + t + 1: new_first[new] + t + 1
        for new, old in enumerate(stays)
        if old is not None
        for t in range(min(len(before[old].trackers), len(after[new].trackers)))
    }
    strings = tuple(
        replace(s, tracker_number=numbers[s.tracker_number])
        for s in option.strings
        if s.tracker_number in numbers
    )
    return replace(option, strings=strings)
