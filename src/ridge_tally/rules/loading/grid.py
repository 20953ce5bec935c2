"""Rules of the grid: what its operator, the panel and the rebate allow.

The checks here need no yield and follow every edit at once; the ceilings that need one
are in ``rules.brief.ceilings``.
"""

from collections.abc import Iterator
from dataclasses import replace

from ridge_tally.core.job.document import CodePack, present_ids
from ridge_tally.core.job.grid import GridRules, Rebate, RouteKind, SizeCapKind
from ridge_tally.core.strings.parts import ac_makers
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
from ridge_tally.rules.design import Design, dc_watts, makes_ac
from ridge_tally.rules.loading.ac_sources import (
    AcPower,
    ac_kw,
    apart_kw,
    battery_ac,
    on_fullest_phase,
    phases_of,
    whole_ac,
)
from ridge_tally.rules.loading.busbar import busbar_checks
from ridge_tally.rules.strings.tracker_current import over_from

# Per cents nearer than this to a whole one were typed as it.
EXACT = 1e-9


def grid_source(grid: GridRules) -> Source:
    """Return where the grid rules come from, marked as a sample while they are one."""
    status = SourceStatus.SAMPLE if grid.sample else SourceStatus.BRIEF
    return Source(f"grid rules of {grid.dated:%Y-%m-%d}", f"{grid.operator}: {grid.source}", status)


def grid_checks(design: Design) -> tuple[Check, ...]:
    """Return every check of grid and panel that applies; none before anything new feeds them."""
    feeds = makes_ac(design) or battery_ac(design) is not None
    if not feeds or not present_ids(design.option):
        return ()
    grid = design.job.brief.grid
    found = [] if grid is None else _rule_checks(design, grid)
    if design.job.site.code_pack is CodePack.US:
        found += busbar_checks(design)
    return (*found, *_phases(design))


def dc_kw(design: Design) -> tuple[str, tuple[Given, ...], float]:
    """Return formula, givens and kW of the modules that are there."""
    formula, givens, watts = dc_watts(design)
    kilo = tuple(
        replace(g, value=number_of(g) / 1000, unit="kW") if g.unit == "W" else g for g in givens
    )
    return formula, kilo, watts / 1000


def _over_from(design: Design, most_kw: float) -> str:
    """Return from how many modules on a DC power is passed."""
    dc, count = dc_kw(design)[2], len(present_ids(design.option))
    return over_from(most_kw, design.module.p_max_w / 1000, "kW", dc, count)


def existing_dc(design: Design) -> Given:
    """Return the DC power that is already there."""
    arrays = design.job.brief.already.arrays
    return Given("p_old", "DC power already there", sum(a.p_dc_kw for a in arrays), "kW", "brief")


def _rule_checks(design: Design, grid: GridRules) -> list[Check]:
    source = grid_source(grid)
    return [
        *_caps(design, grid, source),
        *_notices(design, grid, source),
        *_rebates(design, grid.rebate, source),
    ]


def _cap(symbol: str, label: str, limit_kw: float | None) -> Given:
    return Given(symbol, label, limit_kw, "kW", "grid rules")


def _caps(design: Design, grid: GridRules, source: Source) -> Iterator[Check]:
    kind = LimitKind.OUTSIDE
    if grid.ac_cap_kw_per_phase is not None:
        cap = _cap("cap", f"cap{_each(design)}", grid.ac_cap_kw_per_phase)
        power = on_fullest_phase(design)
        yield _ac_power("grid.ac-cap", "Inverter cap of the grid", kind, power, cap, source)
    cap = _cap("cap", "size cap", grid.size_cap.value)
    if grid.size_cap.kind is SizeCapKind.AC_KW:
        yield _ac_power("grid.size-cap", "Size cap", kind, whole_ac(design), cap, source)
    if grid.size_cap.kind is SizeCapKind.DC_KW:
        yield _dc_power(design, "grid.size-cap", "Size cap", cap, source)


def _each(design: Design) -> str:
    return " of a phase" if design.job.survey.service.phases > 1 else ""


def _notices(design: Design, grid: GridRules, source: Source) -> Iterator[Check]:
    kind = LimitKind.NOTE
    route = next((r for r in grid.routes if r.kind is RouteKind.NOTIFY), None)
    if route is not None and route.most_kw_per_phase is not None:
        words = f"notify afterwards up to{_each(design)}"
        quick = _cap("quick", words, route.most_kw_per_phase)
        power = on_fullest_phase(design)
        yield _ac_power("grid.quick-approval", "Quick approval", kind, power, quick, source)
    if grid.export_limit_kw is not None:
        out = _cap("out", "export limit", grid.export_limit_kw)
        told = "above it a certified limiter is needed, and what the house does not use is lost"
        yield _ac_power("grid.export", "Export limit", kind, whole_ac(design), out, source, told)


def _rebates(design: Design, rebate: Rebate | None, source: Source) -> Iterator[Check]:
    if rebate is not None and rebate.most_dc_kw is not None:
        paid = _cap("paid_to", "rebate pays up to", rebate.most_dc_kw)
        yield _dc_power(design, "grid.rebate-size", "Rebate size", paid, source)
    if rebate is None or rebate.most_dc_ac_ratio is None:
        return
    worded = f"rebate pays up to, worded as {rebate_wording(rebate.most_dc_ac_ratio)}"
    limit = Given("paid_to", worded, rebate.most_dc_ac_ratio, "", "grid rules")
    formula, givens, dc = dc_kw(design)
    p_ac = ac_kw(design)
    yield check(
        rule_id="grid.rebate-ratio",
        title="Rebate DC:AC",
        subject="rebate",
        kind=LimitKind.OUTSIDE,
        formula=f"{bracketed(formula)} / p_ac",
        givens=(*givens, p_ac),
        value=dc / number_of(p_ac),
        symbol="ratio",
        unit="",
        relation="<=",
        limit=limit,
        source=source,
        reached_at=_over_from(design, number_of(limit) * number_of(p_ac)),
    )


def rebate_wording(most_ratio: float) -> str:
    """Return which of the two ways of stating a rebate's ratio it is.

    Notes
    -----
    An inverter of at least 75 % of the array lets 5 kW carry 6.667 kW, an array of at most 133 %
    of the inverter 6.65 kW: common practice words both as 133 %.
    """
    of_ac, of_dc = most_ratio * 100, 100 / most_ratio
    if abs(of_dc - round(of_dc)) < EXACT and abs(of_ac - round(of_ac)) > EXACT:
        return f"an inverter of at least {of_dc:.0f} % of the array"
    return f"an array of at most {of_ac:g} % of the inverter"


def _ac_power(
    rule_id: str,
    title: str,
    kind: LimitKind,
    power: AcPower,
    limit: Given,
    source: Source,
    reached_at: str = "",
) -> Check:
    beside_kw = power.kw - number_of(power.givens[0])
    left_kw = max(0.0, number_of(limit) - beside_kw)
    return check(
        rule_id=rule_id,
        title=title,
        subject="AC",
        kind=kind,
        formula=power.formula,
        givens=power.givens,
        value=power.kw,
        symbol="p",
        unit="kW",
        relation="<=",
        limit=limit,
        source=source,
        reached_at=reached_at or f"over {limit.value:g} kW from an inverter above {left_kw:g} kW",
    )


def _dc_power(design: Design, rule_id: str, title: str, limit: Given, source: Source) -> Check:
    (formula, givens, dc), p_old = dc_kw(design), existing_dc(design)
    left_kw = max(0.0, number_of(limit) - number_of(p_old))
    return check(
        rule_id=rule_id,
        title=title,
        subject="DC",
        kind=LimitKind.OUTSIDE,
        formula=f"{formula} + p_old",
        givens=(*givens, p_old),
        value=dc + number_of(p_old),
        symbol="p",
        unit="kW",
        relation="<=",
        limit=limit,
        source=source,
        reached_at=_over_from(design, left_kw),
    )


def _phases(design: Design) -> tuple[Check, ...]:
    """Inverters of one phase on a service of three, and the other way round."""
    service, family = design.job.survey.service.phases, design.rules.family
    found = []
    most = max((phases_of(sheet) for sheet, _ in ac_makers(design)), default=1)
    if most > service:
        found.append(
            check(
                rule_id="grid.phases",
                title="Phases",
                subject="inverter",
                kind=LimitKind.STOP,
                formula="phases",
                givens=(Given("phases", "phases it needs", float(most), "", "datasheet"),),
                value=float(most),
                symbol="phases",
                unit="",
                relation="<=",
                limit=Given("there", "phases of the service", float(service), "", "survey"),
                source=Source("inverter datasheet", "", SourceStatus.DATASHEET),
                graded=False,
            )
        )
    if service > 1 and family.phases_apart_kw is not None and family.phases is not None:
        apart = apart_kw(design)
        told = "one-phase units shared out as evenly as they go"
        found.append(
            check(
                rule_id="grid.phases-apart",
                title="Between phases",
                subject="AC",
                kind=LimitKind.OUTSIDE,
                formula="p_apart",
                givens=(Given("p_apart", "fullest phase over the emptiest", apart, "kW", told),),
                value=apart,
                symbol="p",
                unit="kW",
                relation="<=",
                limit=Given("apart", "phases apart at most", family.phases_apart_kw, "kW", "code"),
                source=family.phases,
            )
        )
    return tuple(found)
