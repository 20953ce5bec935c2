"""Rules of microinverters: the module on each, and the branch circuits that join them."""

from dataclasses import dataclass

from ridge_tally.core.energy.nominal import nominal_watts
from ridge_tally.core.equipment import MicroinverterSheet, ModuleSheet
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.loading.phases import shared_out
from ridge_tally.core.strings.units import Unit, branches_of, trunk_rise_v, units_by_plane
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check, number_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.standard_sizes import next_breaker_a
from ridge_tally.rules.strings.limits import SHEET
from ridge_tally.rules.strings.module_inputs import ModuleInput, module_input_checks, module_watts

MAKER = Source("microinverter datasheet", "", SourceStatus.DATASHEET)
UNIT = "microinverter datasheet"
RISE = Source("one per cent in the trunk", "", SourceStatus.COMMON_PRACTICE)
NOMINAL = Source("module at nominal operating conditions", "", SourceStatus.COMMON_PRACTICE)


@dataclass(frozen=True, slots=True)
class Branch:
    """A branch circuit: its units, amperes without end, and how much its trunk rises, V.

    ``rise_v`` fed at one end and ``rise_fed_in_middle_v``; ``None`` where the sheet is silent.
    """

    number: int
    units: tuple[Unit, ...]
    amps: float
    rise_v: float | None
    rise_fed_in_middle_v: float | None
    connectors: int


def kept_by_unit_frac() -> float:
    """Return what a unit leaves of a module's power."""
    return practice(Practice.KEPT_BY_MICRO_FRAC)


def _continuous_a(design: Design) -> float:
    family = design.rules.family
    return family.branch_continuous_frac * family.branch_breaker_a


def _continuous_told(design: Design) -> str:
    family = design.rules.family
    breaker = f"{family.branch_breaker_a:g} A"
    share = family.branch_continuous_frac
    return f"{share * 100:g} % of {breaker}" if share < 1 else f"a breaker of {breaker}"


def unit_amps(unit: MicroinverterSheet) -> float:
    """Return what a unit gives without end: its volt-amperes, its watts where it names none."""
    return (unit.va_continuous or unit.p_ac_w) / unit.ac_v


def most_on_branch(design: Design, unit: MicroinverterSheet) -> int:
    """Return how many units a branch takes: by its breaker, and by the listing if that is less.

    One at least: a unit that is too much for a branch by itself is told by the check of it.
    """
    by_breaker = max(1, int(_continuous_a(design) * (1 + 1e-9) / unit_amps(unit)))
    return by_breaker if unit.most_on_branch is None else min(by_breaker, unit.most_on_branch)


def branches(design: Design, unit: MicroinverterSheet) -> tuple[Branch, ...]:
    """Return the branch circuits of an option, plane after plane."""
    units = tuple(u for plane in units_by_plane(design, unit.inputs) for u in plane)
    pitch_m = _module_pitch_m(design, unit)
    found = []
    for number, mine in enumerate(branches_of(units, most_on_branch(design, unit)), start=1):
        one_a, many = unit_amps(unit), len(mine)
        rise_v = middle_v = None
        # Connectors nearer than the modules lie: some of the trunk's are skipped.
        skipped = 1
        if unit.trunk_ohm_per_m is not None and unit.trunk_pitch_m is not None:
            skipped = max(1, -int(-pitch_m // unit.trunk_pitch_m))
            step_m = skipped * unit.trunk_pitch_m
            rise_v = trunk_rise_v(many, one_a, unit.trunk_ohm_per_m, step_m)
            middle_v = trunk_rise_v(-(-many // 2), one_a, unit.trunk_ohm_per_m, step_m)
        found.append(Branch(number, mine, many * one_a, rise_v, middle_v, many * skipped))
    return tuple(found)


def _module_pitch_m(design: Design, unit: MicroinverterSheet) -> float:
    """Return how far apart units lie at most: the width of the modules on one."""
    widest = 0.0
    for array in design.option.arrays:
        for m in present_of(array):
            width_m, _ = module_footprint_m(design.sheets[m.id], m.orientation)
            widest = max(widest, width_m + array.gap_in_row.value_m)
    return widest * unit.inputs


def on_fullest_phase(design: Design, circuits: tuple[Branch, ...]) -> Given:
    """Return what branches come to together on the phase of the service that has most of it."""
    phases = design.job.survey.service.phases
    amps = max(shared_out([(b.amps, 1) for b in circuits], phases))
    told = "all branches" if phases == 1 else "branches on the fullest phase"
    return Given("i_all", told, amps, "A", "this design")


def microinverter_checks(design: Design, unit: MicroinverterSheet) -> tuple[Check, ...]:
    """Return the checks of each type of module on a unit, and of the branches."""
    sheets = dict.fromkeys(design.sheets.values())
    found = [c for sheet in sheets for c in input_checks(design, unit, sheet)]
    circuits = branches(design, unit)
    for branch in circuits:
        found.append(_on_branch(design, unit, branch))
        found.append(_rise(unit, branch))
    return (*found, *_main(design, circuits))


def input_checks(design: Design, unit: MicroinverterSheet, sheet: ModuleSheet) -> tuple[Check, ...]:
    """Return the checks of a type of module on a unit: its voltages, current and rating."""
    at = ModuleInput("micro", "Microinverter", unit.v_dc_max_v, unit.v_min_v, unit.isc_max_a, MAKER)
    most = at.limit("p_most", "largest module", unit.module_most_w, "W")
    least = at.limit("p_least", "smallest module", unit.module_least_w, "W")
    outside = LimitKind.OUTSIDE
    return (
        *module_input_checks(design, sheet, at),
        module_watts(
            "micro.largest-module", "Largest module it is meant for", sheet, outside, most, MAKER
        ),
        module_watts(
            "micro.smallest-module", "Smallest module it is meant for", sheet, outside, least, MAKER
        ),
        *_cells(unit, sheet),
        _nominal(unit, sheet),
    )


def _cells(unit: MicroinverterSheet, sheet: ModuleSheet) -> tuple[Check, ...]:
    """A pairing list may name how many cells in series its modules have."""
    if not unit.cells:
        return ()
    nearest = min(unit.cells, key=lambda cells: abs(cells - sheet.cells_in_series))
    listed = ", ".join(map(str, unit.cells))
    return (
        check(
            rule_id="micro.cells",
            title=f"Cells off its list ({listed})",
            subject=sheet.name,
            kind=LimitKind.OUTSIDE,
            formula="abs(cells - listed)",
            givens=(
                Given("cells", "cells in series", float(sheet.cells_in_series), "", SHEET),
                Given("listed", "nearest on its list", float(nearest), "", UNIT),
            ),
            value=float(abs(sheet.cells_in_series - nearest)),
            symbol="off",
            unit="cells",
            relation="<=",
            limit=Given("none", "off its list", 0.0, "cells", UNIT),
            source=MAKER,
            graded=False,
        ),
    )


def _nominal(unit: MicroinverterSheet, sheet: ModuleSheet) -> Check:
    """What modules give on a usual bright day, well under their rating, against the unit's most."""
    try:
        nominal = nominal_watts(sheet)
        watts, origin = nominal.p_w, nominal.origin.value
    except RidgeTallyError:
        watts, origin = (
            sheet.p_max_w * practice(Practice.NOMINAL_FRAC),
            "common practice: three quarters of Pmax",
        )
    return check(
        rule_id="micro.nominal",
        title="Power on a usual bright day",
        subject=sheet.name,
        kind=LimitKind.NOTE,
        formula="p_nom * kept * inputs",
        givens=(
            Given("p_nom", "nominal operating watts", watts, "W", origin),
            Given("kept", "left by the unit", kept_by_unit_frac(), "", "common practice"),
            Given("inputs", "modules on a unit", float(unit.inputs), "", UNIT),
        ),
        value=watts * kept_by_unit_frac() * unit.inputs,
        symbol="p_usual",
        unit="W",
        relation="<=",
        limit=Given("p_ac", "the most a unit gives", unit.p_ac_w, "W", UNIT),
        source=NOMINAL,
        reached_at="what it clips in the year stands under Loading",
    )


def _on_branch(design: Design, unit: MicroinverterSheet, branch: Branch) -> Check:
    """A branch carries its units without end at 80 % of its breaker; equal is legal."""
    return check(
        rule_id="micro.branch",
        title="Branch circuit",
        subject=f"branch {branch.number}",
        kind=LimitKind.STOP,
        formula="n * va / u",
        givens=(
            Given("n", "units on it", float(len(branch.units)), "", "this design"),
            Given("va", "a unit without end", unit.va_continuous or unit.p_ac_w, "VA", UNIT),
            Given("u", "volts of the branch", unit.ac_v, "V", UNIT),
        ),
        value=branch.amps,
        symbol="i_branch",
        unit="A",
        relation="<=",
        limit=Given("i_most", _continuous_told(design), _continuous_a(design), "A", "code"),
        source=design.rules.family.branch,
        reached_at=f"at most {most_on_branch(design, unit)} units on a branch",
    )


def _rise(unit: MicroinverterSheet, branch: Branch) -> Check:
    """Current pushed out along the trunk lifts its far end; feeding it in the middle helps most."""
    rise = None if branch.rise_v is None else branch.rise_v / unit.ac_v * 100
    middle = branch.rise_fed_in_middle_v
    told = ""
    if middle is not None:
        told = f"fed in its middle {middle / unit.ac_v * 100:.2f} %"
    n = Given("n", "units on it", float(len(branch.units)), "", "this design")
    ohm = unit.trunk_ohm_per_m
    step_m = None
    if unit.trunk_pitch_m is not None:
        step_m = unit.trunk_pitch_m * branch.connectors / len(branch.units)
    return check(
        rule_id="micro.trunk-rise",
        title="Rise along the trunk",
        subject=f"branch {branch.number}",
        kind=LimitKind.COSTS,
        formula="n * (n + 1) / 2 * i_unit * 2 * ohm * step / u * 100",
        givens=(
            n,
            Given("i_unit", "a unit's current", unit_amps(unit), "A", UNIT),
            Given("ohm", "trunk, each metre one way", ohm, "ohm/m", UNIT),
            Given("step", "trunk from unit to unit", step_m, "m", UNIT),
            Given("u", "volts of the branch", unit.ac_v, "V", UNIT),
        ),
        value=rise,
        symbol="rise",
        unit="%",
        relation="<=",
        limit=Given(
            "rise_most",
            "in the trunk at most",
            practice(Practice.TRUNK_RISE_PERCENT),
            "%",
            "common practice",
        ),
        source=RISE,
        reached_at=told,
    )


def _main(design: Design, circuits: tuple[Branch, ...]) -> tuple[Check, ...]:
    """The breaker that joins all branches: 125 % of them, the next standard size; told."""
    if not circuits:
        return ()
    joined = on_fullest_phase(design, circuits)
    factor, amps = design.rules.family.continuous_factor, number_of(joined)
    fits = next_breaker_a(design.job.site.code_pack, factor * amps)
    return (
        check(
            rule_id="micro.main",
            title="Main breaker of the branches",
            subject="combiner",
            kind=LimitKind.NOTE,
            formula="f * i_all",
            givens=(
                Given("f", "continuous current", factor, "", "code"),
                joined,
            ),
            value=factor * amps,
            symbol="i_main",
            unit="A",
            relation="<=",
            limit=Given("breaker", "next standard breaker", fits, "A", "table of standard sizes"),
            source=design.rules.family.branch,
            graded=False,
        ),
    )
