"""A plan somebody asks about: legal, or in one sentence the first gate it does not pass."""

from collections import Counter

from ridge_tally.core.strings.plans import Plan, PlanLoad
from ridge_tally.core.working import degc_text, number_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.limits import (
    bright_cloud_factor,
    cold_limit,
    planning_voltages,
    rear_gain,
)
from ridge_tally.rules.strings.plans import PlanSpace, length_told


def why_not(design: Design, space: PlanSpace, plan: Plan) -> str:
    """Return why a plan is not legal, with its numbers; empty where it is.

    Stops come first: the inputs, currents, the coldest voltage, strings that are not alike; then
    what costs energy; then whether it strings what is there.
    """
    for load in plan:
        if not 1 <= load.tracker_number <= space.trackers:
            return f"There is no tracker {load.tracker_number}: the inverter has {space.trackers}."
    gates = PLAIN if design.system is None else (_held, _counts)
    for gate in gates:
        told = gate(design, space, plan)
        if told:
            return told
    return ""


def _held(design: Design, space: PlanSpace, plan: Plan) -> str:
    """Strings held at one voltage may be of any lengths their maker takes."""
    for load in plan:
        told = length_told(design, space.parts[load.plane_index].sheet, load.modules_in_series)
        if told.breaks is not None:
            return f"{told.told}."
    for number, loads in sorted(_by_tracker(plan).items()):
        strings, inputs = sum(ld.strings for ld in loads), design.trackers[number - 1].sheet.inputs
        if strings > inputs:
            return f"{strings} on tracker {number}: it has {inputs} pair(s) of terminals."
    return ""


def _by_tracker(plan: Plan) -> dict[int, list[PlanLoad]]:
    found: dict[int, list[PlanLoad]] = {}
    for load in plan:
        found.setdefault(load.tracker_number, []).append(load)
    return found


def _currents(design: Design, space: PlanSpace, plan: Plan) -> str:
    for number, loads in sorted(_by_tracker(plan).items()):
        tracker, strings = design.trackers[number - 1], sum(ld.strings for ld in loads)
        sheets = [space.parts[ld.plane_index].sheet for ld in loads for _ in range(ld.strings)]
        factor = bright_cloud_factor(design, tracker.inverter)
        short_a = sum(factor * rear_gain(design, s) * s.isc_a for s in sheets)
        most_a = tracker.sheet.isc_max_a
        if most_a is not None and short_a > most_a * (1 + 1e-9):
            return (
                f"{strings} in parallel on tracker {number}: {short_a:.1f} A short-circuited "
                f"({factor:g} × Isc each), the input takes {most_a:g} A."
            )
        if strings > tracker.sheet.inputs:
            return (
                f"{strings} in parallel on tracker {number}: it has {tracker.sheet.inputs} pair(s) "
                "of terminals."
            )
        at_work_a = sum(rear_gain(design, s) * s.imp_a for s in sheets)
        if strings > 1 and at_work_a > tracker.sheet.i_max_a * (1 + 1e-9):
            return (
                f"{strings} in parallel on tracker {number}: {at_work_a:.1f} A at work, the input "
                f"takes {tracker.sheet.i_max_a:g} A and clips the rest."
            )
    return ""


def _coldest(design: Design, space: PlanSpace, plan: Plan) -> str:
    for load in plan:
        sheet = space.parts[load.plane_index].sheet
        volts = planning_voltages(design, sheet)
        n, tracker = load.modules_in_series, design.trackers[load.tracker_number - 1]
        limit = cold_limit(design, tracker.inverter, (sheet,))[0]
        cold_v = n * volts.cold_open_v
        if cold_v > number_of(limit) * (1 + 1e-9):
            return (
                f"{n} in series on tracker {load.tracker_number}: {cold_v:.0f} V on a "
                f"{degc_text(design.coldest_planning_degc)} morning, the {limit.label} is "
                f"{limit.value:g} V."
            )
    return ""


def _alike(design: Design, space: PlanSpace, plan: Plan) -> str:
    del design
    for number, loads in sorted(_by_tracker(plan).items()):
        if len({space.parts[ld.plane_index].sheet for ld in loads}) > 1:
            return (
                f"Two types of module in parallel on tracker {number}: their voltages differ; "
                "give each type a tracker, or thread it by hand and see its checks."
            )
        lengths = sorted({ld.modules_in_series for ld in loads})
        if len(lengths) > 1:
            told = " and ".join(map(str, lengths))
            return (
                f"Strings of {told} in parallel on tracker {number}: the longer pushes current "
                "back through the shorter; paralleled strings are equally long."
            )
    return ""


def _hottest(design: Design, space: PlanSpace, plan: Plan) -> str:
    hot = degc_text(number_of(design.hottest_cell))
    for load in plan:
        volts = planning_voltages(design, space.parts[load.plane_index].sheet)
        n, tracker = load.modules_in_series, design.trackers[load.tracker_number - 1]
        if n * volts.hot_mp_v < tracker.sheet.v_min_v * (1 - 1e-9):
            return (
                f"{n} in series on tracker {load.tracker_number}: {n * volts.hot_mp_v:.0f} V with "
                f"cells at {hot}, the tracker needs {tracker.sheet.v_min_v:g} V."
            )
        if n * volts.hot_open_v < tracker.inverter.v_start_v * (1 - 1e-9):
            return (
                f"{n} in series on tracker {load.tracker_number}: opens at "
                f"{n * volts.hot_open_v:.0f} V with cells at {hot}, the inverter starts at "
                f"{tracker.inverter.v_start_v:g} V."
            )
    return ""


def _counts(design: Design, space: PlanSpace, plan: Plan) -> str:
    del design
    strung: Counter[int] = Counter()
    for load in plan:
        strung[load.plane_index] += load.strings * load.modules_in_series
    for index, part in enumerate(space.parts):
        if strung[index] != part.modules:
            return (
                f"It strings {strung[index]} of the {part.modules} modules on {part.name}."
                if strung[index] < part.modules
                else f"It wants {strung[index]} modules on {part.name}; there are {part.modules}."
            )
    return ""


# Stops first, then what costs energy, then whether it strings what is there.
PLAIN = (_currents, _coldest, _alike, _hottest, _counts)
