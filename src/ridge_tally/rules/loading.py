"""Rules of power: the makers' DC limits, the DC:AC ratio, and thin air."""

from ridge_tally.core.equipment import InverterSheet
from ridge_tally.core.job.document import present_ids
from ridge_tally.core.working import (
    Check,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    check,
    number_of,
)
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design, count_given, p_max_given
from ridge_tally.rules.tracker_current import over_from

THIN_AIR = Source("inverters above 2000 m", "", SourceStatus.FROM_MEMORY)
# From memory: above it datasheets begin to derate.
THIN_AIR_M = 2000.0


def loading_checks(design: Design) -> tuple[Check, ...]:
    """Return the checks of array power against inverter power; none without modules."""
    count = len(present_ids(design.option))
    if not count:
        return ()
    own = design.rules.dc_ac_most
    return (
        *_dc_limits(design, count),
        _usual_ratio(design),
        *(() if own is None else (_own_ratio(design, own),)),
        *_altitude(design),
    )


def _dc_limits(design: Design, modules: int) -> tuple[Check, ...]:
    """DC watts beyond the maker's figure void what the maker stands behind, inverter by inverter."""
    if len(design.inverters) == 1:
        return (_dc_limit(design, "inverter", count_given(design), design.inverters[0]),)
    found = []
    for unit, inverter in enumerate(design.inverters, start=1):
        numbers = {t.number for t in design.trackers if t.unit_number == unit}
        on_it = sum(len(s.module_ids) for s in design.option.strings if s.tracker_number in numbers)
        n = Given("n", "modules on it", float(on_it), "", "this design")
        found.append(_dc_limit(design, f"inverter {unit}", n, inverter))
    return tuple(found)


def _dc_limit(design: Design, subject: str, n: Given, inverter: InverterSheet) -> Check:
    most, p_max_w = inverter.p_dc_max_w, design.module.p_max_w
    return check(
        rule_id="loading.dc-limit",
        title="Maker's DC watts",
        subject=subject,
        kind=LimitKind.OUTSIDE,
        formula="n * p_max",
        givens=(n, p_max_given(design)),
        value=number_of(n) * p_max_w,
        symbol="p_dc",
        unit="W",
        relation="<=",
        limit=Given("p_dc_max", "maker's DC limit", most, "W", "inverter datasheet"),
        source=Source("inverter datasheet", "", SourceStatus.DATASHEET),
        reached_at="" if most is None else over_from(most, p_max_w, "W"),
    )


def _usual_ratio(design: Design) -> Check:
    """The ratio of array watts to inverter watts, told, never a pass or fail of its own."""
    table = tables.load("loading-practice")
    limit = Given("usual", "usual on one plane", table.number("ratio"), "", "common practice")
    return _ratio(design, "loading.dc-ac-ratio", "DC:AC ratio", LimitKind.NOTE, limit, table.source)


def _own_ratio(design: Design, most: float) -> Check:
    """The ratio this job is not to pass, as somebody typed it."""
    limit = Given("cap", "most for this job", most, "", design.rules.loading.document)
    return _ratio(
        design,
        "loading.own-cap",
        "DC:AC of this job",
        LimitKind.OUTSIDE,
        limit,
        design.rules.loading,
    )


def _ratio(
    design: Design, rule_id: str, title: str, kind: LimitKind, limit: Given, source: Source
) -> Check:
    n, p_max = count_given(design), p_max_given(design)
    most_w = number_of(limit) * design.p_ac_w
    return check(
        rule_id=rule_id,
        title=title,
        subject="inverter",
        kind=kind,
        formula="n * p_max / p_ac",
        givens=(n, p_max, Given("p_ac", "inverter AC power", design.p_ac_w, "W", "datasheet")),
        value=number_of(n) * number_of(p_max) / design.p_ac_w,
        symbol="ratio",
        unit="",
        relation="<=",
        limit=limit,
        source=source,
        reached_at=over_from(most_w, number_of(p_max), "W"),
    )


def _altitude(design: Design) -> tuple[Check, ...]:
    """Thin air cools badly: many inverters give less than their rating high up.

    Told where a sheet says how high it gives its rating, and where the site is so high that
    a silent sheet matters.
    """
    elevation_m = design.job.site.elevation_m
    highest = [i.full_power_to_m for i in design.inverters]
    if None in highest and (elevation_m or 0.0) <= THIN_AIR_M:
        return ()
    known = [h for h in highest if h is not None]
    lowest = min(known) if len(known) == len(highest) else None
    return (
        check(
            rule_id="loading.altitude",
            title="Full power up to",
            subject="inverter",
            kind=LimitKind.COSTS,
            formula="elevation",
            givens=(Given("elevation", "elevation of the site", elevation_m, "m", "brief"),),
            value=elevation_m,
            symbol="elevation",
            unit="m",
            relation="<=",
            limit=Given("highest", "full power up to", lowest, "m", "inverter datasheet"),
            source=THIN_AIR,
            reason=""
            if lowest is not None or elevation_m is None
            else "Not checked: the datasheet does not say how high it gives its rating; many give "
            f"less above {THIN_AIR_M:g} m.",
        ),
    )
