"""Rules of power: the makers' DC limits, the DC:AC ratio, and thin air."""

from ridge_tally.core.equipment import InverterSheet
from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.units import format_altitude
from ridge_tally.core.working import (
    Check,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    bracketed,
    check,
    number_of,
)
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design, dc_watts, makes_ac, watts_of
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.strings.tracker_current import over_from

THIN_AIR = Source("inverters in thin air", "", SourceStatus.FROM_MEMORY)


def loading_checks(design: Design) -> tuple[Check, ...]:
    """Return the checks of array power against inverter power; none without modules."""
    if not present_ids(design.option):
        return ()
    own = design.rules.dc_ac_most
    if not makes_ac(design):
        # Nothing to be in a ratio to; watts are held to the input's own by its tracker.
        return ()
    if design.microinverter is not None:
        # Makers of microinverters limit the module on each, not the sum.
        return (
            _usual_ratio(design),
            *(() if own is None else (_own_ratio(design, own),)),
        )
    return (
        *_dc_limits(design),
        _usual_ratio(design),
        *(() if own is None else (_own_ratio(design, own),)),
        *_altitude(design),
    )


def _dc_limits(design: Design) -> tuple[Check, ...]:
    """DC watts beyond the maker's figure void what the maker stands behind, inverter by inverter."""
    if len(design.inverters) == 1:
        present = present_ids(design.option)
        return (_dc_limit(design, "inverter", present, design.inverters[0]),)
    found = []
    for unit, inverter in enumerate(design.inverters, start=1):
        numbers = {t.number for t in design.trackers if t.unit_number == unit}
        on_it = tuple(
            m for s in design.option.strings if s.tracker_number in numbers for m in s.module_ids
        )
        found.append(_dc_limit(design, f"inverter {unit}", on_it, inverter))
    return tuple(found)


def _dc_limit(
    design: Design, subject: str, module_ids: tuple[PlacedId, ...], inverter: InverterSheet
) -> Check:
    most = inverter.p_dc_max_w
    formula, givens, value = watts_of(design, module_ids)
    return check(
        rule_id="loading.dc-limit",
        title="Maker's DC watts",
        subject=subject,
        kind=LimitKind.OUTSIDE,
        formula=formula,
        givens=givens,
        value=value,
        symbol="p_dc",
        unit="W",
        relation="<=",
        limit=Given("p_dc_max", "maker's DC limit", most, "W", "inverter datasheet"),
        source=Source("inverter datasheet", "", SourceStatus.DATASHEET),
        reached_at=""
        if most is None
        else over_from(most, design.module.p_max_w, "W", value, len(module_ids)),
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
    formula, givens, p_dc_w = dc_watts(design)
    most_w, count = number_of(limit) * design.p_ac_w, len(present_ids(design.option))
    return check(
        rule_id=rule_id,
        title=title,
        subject="inverter",
        kind=kind,
        formula=f"{bracketed(formula)} / p_ac",
        givens=(*givens, Given("p_ac", "inverter AC power", design.p_ac_w, "W", "datasheet")),
        value=p_dc_w / design.p_ac_w,
        symbol="ratio",
        unit="",
        relation="<=",
        limit=limit,
        source=source,
        reached_at=over_from(most_w, design.module.p_max_w, "W", p_dc_w, count),
    )


def _altitude(design: Design) -> tuple[Check, ...]:
    """Thin air cools badly: many inverters give less than their rating high up.

    Told where a sheet says how high it gives its rating, and where the site is so high that
    a silent sheet matters.
    """
    elevation_m = design.job.site.elevation_m
    highest = [i.full_power_to_m for i in design.inverters]
    thin_m = practice(Practice.THIN_AIR_M)
    if None in highest and (elevation_m or 0.0) <= thin_m:
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
            f"less above {format_altitude(thin_m, design.job.unit)}.",
        ),
    )
