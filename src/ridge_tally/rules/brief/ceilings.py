"""How many modules each limit leaves room for: the ladder the target is held against."""

from dataclasses import dataclass

from ridge_tally.core.brief.target import (
    Ceiling,
    CeilingKind,
    ceiling,
    modules_reaching,
    modules_within,
)
from ridge_tally.core.job.brief import TargetKind
from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.grid import GridRules, SizeCapKind
from ridge_tally.core.working import Given, LimitKind, Source, SourceStatus, number_of
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design, makes_ac, p_max_given
from ridge_tally.rules.loading.ac_sources import existing_ac, phases_used
from ridge_tally.rules.loading.busbar import TABLE, best_room, service_volts
from ridge_tally.rules.loading.grid import ac_kw, existing_dc, grid_source

PRICE = Source("budget and first installed price", "", SourceStatus.BRIEF)
ROOF = Source("proven fill of this survey", "", SourceStatus.GEOMETRY)


@dataclass(frozen=True, slots=True)
class Figures:
    """What the ceilings need beyond the design.

    ``roof_title``: says when the roof is not measured yet.  ``n_roof``: most modules proven on the free planes.  ``yield_``: kWh a year for each kW.
    ``past_use``: kWh a year before this array, what an old array made added back.
    ``old_energy``: kWh a year of arrays already there.
    """

    roof_title: str
    n_roof: Given
    yield_: Given
    past_use: Given
    old_energy: Given


REBATE_SIZE = "Rebate size"


def ceilings(design: Design, figures: Figures) -> tuple[Ceiling, ...]:
    """Return every ceiling that applies, those with a missing number too, the roof first."""
    grid, target = design.job.brief.grid, design.job.brief.target
    found = [
        ceiling(
            CeilingKind.ROOF,
            figures.roof_title,
            LimitKind.NOTE,
            "n_roof",
            (figures.n_roof,),
            figures.n_roof.value,
            ROOF,
        )
    ]
    if target.budget_cents is not None or target.kind is TargetKind.BUDGET:
        found.append(_purse(design))
    if grid is not None:
        found += _grid_ceilings(design, grid, figures)
    if design.job.site.code_pack is CodePack.US:
        found.append(_busbar(design))
    return tuple(found)


def _ratio(design: Design) -> Given:
    """Return the DC:AC ratio taken for a limit on AC power."""
    table = tables.load("loading-practice")
    return Given("r", "DC:AC ratio taken", table.number("ratio"), "", table.source.document)


def _purse(design: Design) -> Ceiling:
    target = design.job.brief.target
    budget, price = target.budget_cents, target.price_cents_per_w
    givens = (
        Given("budget", "budget", None if budget is None else budget / 100, "", "brief"),
        Given("fixed", "fixed part of the price", target.fixed_price_cents / 100, "", "brief"),
        Given(
            "price",
            "price of a watt",
            None if price is None else price / 100,
            "",
            "brief, a first price",
        ),
        p_max_given(design),
    )
    value = None
    if budget is not None and price is not None:
        value = (budget - target.fixed_price_cents) / (price * design.module.p_max_w)
    return ceiling(
        CeilingKind.PURSE,
        "Purse",
        LimitKind.COSTS,
        "(budget - fixed) / (price * p_max)",
        givens,
        value,
        PRICE,
    )


def _grid_ceilings(design: Design, grid: GridRules, figures: Figures) -> list[Ceiling]:
    source, found = grid_source(grid), []
    cap = grid.size_cap
    if cap.kind is SizeCapKind.SHARE_OF_USE:
        found.append(_share_of_use(design, cap.value, figures, source))
    elif cap.kind is SizeCapKind.DC_KW:
        old, p_max = existing_dc(design), p_max_given(design)
        given = Given("cap", "size cap, DC", cap.value, "kW", "grid rules")
        value = (
            None if cap.value is None else (cap.value - number_of(old)) * 1000 / number_of(p_max)
        )
        found.append(
            ceiling(
                CeilingKind.SIZE_CAP,
                "Size cap",
                LimitKind.OUTSIDE,
                "(cap - p_old) * 1000 / p_max",
                (given, old, p_max),
                value,
                source,
            )
        )
    elif cap.kind is SizeCapKind.AC_KW:
        given = Given("cap", "size cap, AC", cap.value, "kW", "grid rules")
        found.append(_by_ac(design, CeilingKind.SIZE_CAP, "Size cap", given, source))
    if grid.ac_cap_kw_per_phase is not None:
        phases = phases_used(design)
        words = "inverter cap" if phases == 1 else f"inverter cap on {phases:.3g} phases"
        given = Given("cap", words, grid.ac_cap_kw_per_phase * phases, "kW", "grid rules")
        found.append(_by_ac(design, CeilingKind.INVERTER_CAP, "Inverter cap", given, source))
    return [*found, *rebate_ceilings(design, grid)]


def _share_of_use(design: Design, share: float | None, figures: Figures, source: Source) -> Ceiling:
    p_max = p_max_given(design)
    use, old, yield_ = figures.past_use, figures.old_energy, figures.yield_
    givens = (Given("share", "share of past use", share, "", "grid rules"), use, old, yield_, p_max)
    value = None
    if share is not None and use.value is not None and yield_.value and old.value is not None:
        value = (share * use.value - old.value) * 1000 / (yield_.value * number_of(p_max))
    return ceiling(
        CeilingKind.SIZE_CAP,
        "Size cap",
        LimitKind.OUTSIDE,
        "(share * use - e_old) * 1000 / (y * p_max)",
        givens,
        value,
        source,
    )


def _by_ac(design: Design, kind: CeilingKind, title: str, cap: Given, source: Source) -> Ceiling:
    old, ratio, p_max = existing_ac(design), _ratio(design), p_max_given(design)
    value = None
    if cap.value is not None:
        value = (cap.value - number_of(old)) * number_of(ratio) * 1000 / number_of(p_max)
    return ceiling(
        kind,
        title,
        LimitKind.OUTSIDE,
        "(cap - p_old) * r * 1000 / p_max",
        (cap, old, ratio, p_max),
        value,
        source,
        exact=False,
    )


def rebate_ceilings(design: Design, grid: GridRules) -> list[Ceiling]:
    """Return the most modules a rebate stands behind, by its size and by its DC:AC."""
    rebate, p_max, found = grid.rebate, p_max_given(design), list[Ceiling]()
    source = grid_source(grid)
    if rebate is None:
        return []
    if rebate.most_dc_kw is not None:
        old = existing_dc(design)
        cap = Given("cap", "rebate pays up to", rebate.most_dc_kw, "kW", "grid rules")
        value = (rebate.most_dc_kw - number_of(old)) * 1000 / number_of(p_max)
        found.append(
            ceiling(
                CeilingKind.REBATE,
                REBATE_SIZE,
                LimitKind.OUTSIDE,
                "(cap - p_old) * 1000 / p_max",
                (cap, old, p_max),
                value,
                source,
            )
        )
    if rebate.most_dc_ac_ratio is not None and makes_ac(design):
        p_ac = ac_kw(design)
        ratio = Given("r", "rebate pays up to DC:AC", rebate.most_dc_ac_ratio, "", "grid rules")
        value = number_of(p_ac) * 1000 * rebate.most_dc_ac_ratio / number_of(p_max)
        found.append(
            ceiling(
                CeilingKind.REBATE,
                "Rebate",
                LimitKind.OUTSIDE,
                "p_ac * 1000 * r / p_max",
                (p_ac, ratio, p_max),
                value,
                source,
            )
        )
    return found


def _busbar(design: Design) -> Ceiling:
    """What the panel leaves for sources, by the way of joining that leaves most."""
    way, old, volts = best_room(design), existing_ac(design), service_volts(design)
    ratio, p_max = _ratio(design), p_max_given(design)
    phases = Given("phases", "phases of the service", float(_phases(design)), "", "survey")
    used = Given("n", "phases the sources are spread over", phases_used(design), "", "this design")
    words = _room_missing(design) if way is None else f"room by {way.name}"
    plainest_factor = tables.load(TABLE).number("factor", method="sum of sources")
    factor = plainest_factor if way is None else way.factor
    givens = (
        Given("room", words, None if way is None else way.room_a, "A", "survey of the panel"),
        Given("f", "continuous current", factor, "", "code"),
        volts,
        old,
        phases,
        used,
        ratio,
        p_max,
    )
    value = None
    if way is not None and way.room_a is not None:
        left_kw = way.room_a / factor * number_of(volts) / 1000 - number_of(old) / _phases(design)
        value = left_kw * number_of(used) * number_of(ratio) * 1000 / number_of(p_max)
    return ceiling(
        CeilingKind.BUSBAR,
        "Busbar",
        LimitKind.STOP,
        "(room / f * u / 1000 - p_old / phases) * n * r * 1000 / p_max",
        givens,
        value,
        tables.load(TABLE).source if way is None else way.source,
        exact=False,
    )


def _room_missing(design: Design) -> str:
    service = design.job.survey.service
    if service.busbar_a is None or service.main_breaker_a is None:
        return "main breaker and busbar"
    return "place of the source breaker"


def _phases(design: Design) -> int:
    return design.job.survey.service.phases


@dataclass(frozen=True, slots=True)
class TargetCount:
    """What the wish comes to; ``modules`` is ``None`` when a number is missing."""

    energy_kwh: float | None
    modules: int | None
    formula: str
    givens: tuple[Given, ...]
    value: float | None
    reason: str


def target_count(
    design: Design, need: Given, yield_: Given, found: tuple[Ceiling, ...]
) -> TargetCount:
    """Return the modules that reach the target, or that its purse, roof or rebate gives.

    Parameters
    ----------
    design : Design
        Its module is counted.
    need : Given
        kWh a year with the loads to come; ``value`` ``None`` without bills.
    yield_ : Given
        kWh a year for each kW.
    found : tuple of Ceiling
        For the targets that are a ceiling themselves.
    """
    target, p_max = design.job.brief.target, p_max_given(design)
    by_ceiling = {
        TargetKind.BUDGET: CeilingKind.PURSE,
        TargetKind.ROOF: CeilingKind.ROOF,
        TargetKind.REBATE: CeilingKind.REBATE,
    }
    if target.kind in by_ceiling:
        mine = [c for c in found if c.kind is by_ceiling[target.kind]]
        known = [c for c in mine if c.value.value is not None]
        if not known:
            reason = mine[0].reason if mine else "The grid rules name no limit of a rebate"
            return TargetCount(None, None, "", (), None, reason)
        lowest = min(known, key=lambda c: c.value.value or 0.0)
        count = modules_within(lowest.value.value or 0.0)
        energy = None if yield_.value is None else count * number_of(p_max) / 1000 * yield_.value
        return TargetCount(energy, count, lowest.formula, lowest.givens, lowest.value.value, "")
    share = Given(
        "share",
        "share of the use",
        1.0 if target.kind is TargetKind.NET_ZERO else target.share_frac,
        "",
        "brief",
    )
    givens = (share, need, yield_, p_max)
    formula = "share * need * 1000 / (y * p_max)"
    missing = [g.label for g in givens if not g.value]
    if missing:
        return TargetCount(None, None, formula, givens, None, f"{' and '.join(missing)} not given")
    energy = number_of(share) * number_of(need)
    value = energy * 1000 / (number_of(yield_) * number_of(p_max))
    return TargetCount(energy, modules_reaching(value), formula, givens, value, "")
