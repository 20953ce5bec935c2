"""All fast checks of an option, in the order the Tally shows them."""

from ridge_tally.core.sheets.in_feet import in_feet
from ridge_tally.core.units import LengthUnit
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.rules.array.checks import array_checks
from ridge_tally.rules.array.ground import ground_checks
from ridge_tally.rules.array.setbacks import setback_checks
from ridge_tally.rules.brief.wishes import wish_checks
from ridge_tally.rules.build.checks import build_checks
from ridge_tally.rules.build.circuits.checks import circuit_checks
from ridge_tally.rules.build.circuits.conductors import circuits_sized
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.checks import loading_checks
from ridge_tally.rules.loading.grid import grid_checks
from ridge_tally.rules.strings.fuses import fuse_checks
from ridge_tally.rules.strings.leads import lead_checks
from ridge_tally.rules.strings.microinverters import microinverter_checks
from ridge_tally.rules.strings.mixing import mixing_checks
from ridge_tally.rules.strings.optimizers import optimizer_checks
from ridge_tally.rules.strings.safety import safety_checks
from ridge_tally.rules.strings.tracker_current import held_tracker_checks, tracker_checks
from ridge_tally.rules.strings.voltage import voltage_checks
from ridge_tally.rules.survey.checks import survey_checks

KINDS = (LimitKind.STOP, LimitKind.OUTSIDE, LimitKind.COSTS, LimitKind.NOTE)


def all_checks(design: Design) -> tuple[Check, ...]:
    """Return every check: broken by kind, then unchecked by kind, then kept by margin.

    Lengths are in the job's own unit.
    """
    found = (
        *_electrical_checks(design),
        *array_checks(design),
        *setback_checks(design),
        *loading_checks(design),
        *grid_checks(design),
        *ground_checks(design),
        *wish_checks(design),
        *survey_checks(design),
        *build_checks(design),
        *circuit_checks(design, circuits_sized(design)),
    )
    told = found if design.job.unit is LengthUnit.METRE else tuple(map(in_feet, found))
    return tuple(sorted(told, key=_place))


def _electrical_checks(design: Design) -> tuple[Check, ...]:
    """Return what holds for the way modules reach the grid.

    Where the inverter holds a string's voltage, or every module has its own inverter, the rules of
    plain strings give way to those of the units.
    """
    if design.microinverter is not None:
        return microinverter_checks(design, design.microinverter)
    units = () if design.optimizer is None else optimizer_checks(design, design.optimizer)
    if design.system is not None:
        return (*units, *held_tracker_checks(design), *lead_checks(design), *safety_checks(design))
    return (
        *(c for s in design.option.strings for c in voltage_checks(design, s)),
        *tracker_checks(design),
        *fuse_checks(design),
        *mixing_checks(design),
        *lead_checks(design),
        *safety_checks(design),
        *units,
    )


def _place(item: Check) -> tuple[int, float]:
    kind = float(KINDS.index(item.kind))
    if item.verdict is Verdict.BROKEN:
        return 0, kind
    if item.verdict is Verdict.NOT_CHECKED:
        return 1, kind
    return 2, item.margin_frac if item.margin_frac is not None else float("inf")
