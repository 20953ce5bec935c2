"""Rules of the brief: what the grid, the panel, the rebate and the household allow.

The checks here need no yield and follow every edit at once; the ceilings that need one
are in ``rules.ceilings``.
"""

from ridge_tally.core.job.document import CodePack, Job, PlaneArray, plane_of, present_ids
from ridge_tally.core.job.edits import ToggleModules
from ridge_tally.core.job.grid import GridRules, RouteKind, SizeCapKind
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.working import Check, Fix, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design

WISH = Source("wish of the household", "", SourceStatus.BRIEF)
# Half a module gap: closer than this two modules mirror each other for the eye.
MIRROR_M = 0.05


def grid_source(grid: GridRules) -> Source:
    """Return where the grid rules come from, marked as a sample while they are one."""
    status = SourceStatus.SAMPLE if grid.sample else SourceStatus.BRIEF
    return Source(f"grid rules of {grid.dated:%Y-%m-%d}", f"{grid.operator}: {grid.source}", status)


def brief_checks(design: Design) -> tuple[Check, ...]:
    """Return every check of the brief that applies; none before modules are placed."""
    if not present_ids(design.option):
        return ()
    found: list[Check] = []
    grid = design.job.brief.grid
    if grid is not None:
        found += _grid_checks(design, grid)
    if design.job.site.code_pack is CodePack.US:
        found.append(_busbar(design))
    found += _wish_checks(design)
    return tuple(found)


def dc_kw(design: Design) -> tuple[Given, Given]:
    """Return count and kW of a module as givens."""
    count = float(len(present_ids(design.option)))
    return (
        Given("n", "modules", count, "", "this design"),
        Given("p_kw", "Pmax", design.module.p_max_w / 1000, "kW", "module datasheet"),
    )


def existing_dc(design: Design) -> Given:
    """Return the DC power that is already there."""
    arrays = design.job.brief.already.arrays
    return Given("p_old", "DC power already there", sum(a.p_dc_kw for a in arrays), "kW", "brief")


def existing_ac(design: Design) -> Given:
    """Return the AC power that is already there."""
    arrays = design.job.brief.already.arrays
    return Given("p_old", "AC power already there", sum(a.p_ac_kw for a in arrays), "kW", "brief")


def ac_kw(design: Design) -> Given:
    """Return the inverter's AC power."""
    return Given(
        "p_ac", "inverter AC power", design.inverter.p_ac_w / 1000, "kW", "inverter datasheet"
    )


def _grid_checks(design: Design, grid: GridRules) -> list[Check]:
    phases = design.job.survey.service.phases
    source = grid_source(grid)
    found = []
    if grid.ac_cap_kw_per_phase is not None:
        found.append(
            _ac_power(
                design,
                "grid.ac-cap",
                "Inverter cap of the grid",
                LimitKind.OUTSIDE,
                Given(
                    "cap",
                    f"cap of {phases} phase{'s' if phases > 1 else ''}",
                    grid.ac_cap_kw_per_phase * phases,
                    "kW",
                    "grid rules",
                ),
                source,
            )
        )
    if grid.size_cap.kind is SizeCapKind.AC_KW:
        limit = Given("cap", "size cap", grid.size_cap.value, "kW", "grid rules")
        found.append(
            _ac_power(design, "grid.size-cap", "Size cap", LimitKind.OUTSIDE, limit, source)
        )
    if grid.size_cap.kind is SizeCapKind.DC_KW:
        limit = Given("cap", "size cap", grid.size_cap.value, "kW", "grid rules")
        found.append(_dc_power(design, "grid.size-cap", "Size cap", limit, source))
    route = next((r for r in grid.routes if r.kind is RouteKind.NOTIFY), None)
    if route is not None and route.most_kw_per_phase is not None:
        limit = Given(
            "quick", "notify afterwards up to", route.most_kw_per_phase * phases, "kW", "grid rules"
        )
        found.append(
            _ac_power(
                design, "grid.quick-approval", "Quick approval", LimitKind.NOTE, limit, source
            )
        )
    if grid.export_limit_kw is not None:
        limit = Given("out", "export limit", grid.export_limit_kw, "kW", "grid rules")
        told = "above it a certified limiter is needed, and what the house does not use is lost"
        found.append(
            _ac_power(design, "grid.export", "Export limit", LimitKind.NOTE, limit, source, told)
        )
    rebate = grid.rebate
    if rebate is not None and rebate.most_dc_kw is not None:
        limit = Given("paid_to", "rebate pays up to", rebate.most_dc_kw, "kW", "grid rules")
        found.append(_dc_power(design, "grid.rebate-size", "Rebate size", limit, source))
    if rebate is not None and rebate.most_dc_ac_ratio is not None:
        limit = Given("paid_to", "rebate pays up to", rebate.most_dc_ac_ratio, "", "grid rules")
        n, p_kw = dc_kw(design)
        p_ac = ac_kw(design)
        assert n.value is not None
        assert p_kw.value is not None
        assert p_ac.value is not None
        found.append(
            check(
                rule_id="grid.rebate-ratio",
                title="Rebate DC:AC",
                subject="rebate",
                kind=LimitKind.OUTSIDE,
                formula="n * p_kw / p_ac",
                givens=(n, p_kw, p_ac),
                value=n.value * p_kw.value / p_ac.value,
                symbol="ratio",
                unit="",
                relation="<=",
                limit=limit,
                source=source,
            )
        )
    return found


def _ac_power(
    design: Design,
    rule_id: str,
    title: str,
    kind: LimitKind,
    limit: Given,
    source: Source,
    reached_at: str = "",
) -> Check:
    p_ac, p_old = ac_kw(design), existing_ac(design)
    assert p_ac.value is not None
    assert p_old.value is not None
    return check(
        rule_id=rule_id,
        title=title,
        subject="AC",
        kind=kind,
        formula="p_ac + p_old",
        givens=(p_ac, p_old),
        value=p_ac.value + p_old.value,
        symbol="p",
        unit="kW",
        relation="<=",
        limit=limit,
        source=source,
        reached_at=reached_at,
    )


def _dc_power(design: Design, rule_id: str, title: str, limit: Given, source: Source) -> Check:
    (n, p_kw), p_old = dc_kw(design), existing_dc(design)
    assert n.value is not None
    assert p_kw.value is not None
    assert p_old.value is not None
    return check(
        rule_id=rule_id,
        title=title,
        subject="DC",
        kind=LimitKind.OUTSIDE,
        formula="n * p_kw + p_old",
        givens=(n, p_kw, p_old),
        value=n.value * p_kw.value + p_old.value,
        symbol="p",
        unit="kW",
        relation="<=",
        limit=limit,
        source=source,
    )


def service_volts(design: Design) -> Given:
    """Return the voltage the inverter's current is reckoned at."""
    grid = design.job.brief.grid
    volts = grid.volts_per_phase_v if grid is not None else 240.0
    return Given("u", "volts of the service", volts, "V", "grid rules" if grid else "usual service")


def _busbar(design: Design) -> Check:
    """Main breaker and 125 % of all inverter currents against 120 % of the busbar."""
    table = tables.load("busbar-share")
    share, factor = table.number("share"), table.number("factor")
    service = design.job.survey.service
    p_ac, p_old, volts = ac_kw(design), existing_ac(design), service_volts(design)
    givens = (
        Given("main", "main breaker", service.main_breaker_a, "A", "survey of the panel"),
        Given("f", "continuous current", factor, "", "code"),
        p_ac,
        p_old,
        volts,
    )
    value = None
    if service.main_breaker_a is not None:
        assert p_ac.value is not None
        assert p_old.value is not None
        assert volts.value is not None
        value = service.main_breaker_a + factor * (p_ac.value + p_old.value) * 1000 / volts.value
    bar = service.busbar_a
    return check(
        rule_id="grid.busbar",
        title="Busbar",
        subject="main panel",
        kind=LimitKind.STOP,
        formula="main + f * (p_ac + p_old) * 1000 / u",
        givens=givens,
        value=value,
        symbol="i_bus",
        unit="A",
        relation="<=",
        limit=Given(
            "bus",
            "120 % of the busbar",
            None if bar is None else share * bar,
            "A",
            "survey of the panel",
        ),
        source=table.source,
        reason="Not checked: type main breaker and busbar under Already there. Other ways of connecting may be open.",
    )


def roofs_left_free(job: Job) -> dict[PlaneId, str]:
    """Return the planes no module may go on, with why: taken by an old array, or a wish."""
    taken = {p: f"taken by {a.name}" for a in job.brief.already.arrays for p in a.plane_ids}
    return taken | dict.fromkeys(job.brief.wishes.no_go_planes, "to stay free")


def _wish_checks(design: Design) -> list[Check]:
    wishes, option = design.job.brief.wishes, design.option
    found = []
    by_plane = {a.plane_id: a for a in option.arrays}
    for plane_id, why in roofs_left_free(design.job).items():
        found.append(_roof_left_free(design, plane_id, why, by_plane.get(plane_id)))
    if wishes.growth_modules:
        found.append(_growth(design, wishes.growth_modules))
    if wishes.symmetric:
        found += [_symmetry(design, a) for a in option.arrays if any(m.present for m in a.modules)]
    if wishes.all_black:
        found.append(_yes("wish.all-black", "All black", "module", design.module.all_black))
    if wishes.battery_later:
        ready = design.inverter.battery_ready
        found.append(_yes("wish.battery", "Battery later", "inverter", ready))
    if wishes.backup:
        ready = design.inverter.backup_ready
        found.append(_yes("wish.backup", "Backup", "inverter", ready))
    return found


def _count_check(
    rule_id: str,
    title: str,
    subject: str,
    label: str,
    count: int,
    kind: LimitKind,
    fixes: tuple[Fix, ...] = (),
) -> Check:
    return check(
        rule_id=rule_id,
        title=title,
        subject=subject,
        kind=kind,
        formula="n_off",
        givens=(Given("n_off", label, float(count), "", "this design"),),
        value=float(count),
        symbol="n_off",
        unit="modules",
        relation="<=",
        limit=Given("none", "allowed", 0.0, "modules", "brief"),
        source=WISH,
        graded=False,
        fixes=fixes,
    )


def _roof_left_free(design: Design, plane_id: str, why: str, array: PlaneArray | None) -> Check:
    plane = next(p for p in design.job.survey.planes if p.id == plane_id)
    present = tuple(m.id for m in array.modules if m.present) if array else ()
    return _count_check(
        "wish.roof-left-free",
        "Roof left free",
        f"{plane.name}, {why}",
        "modules on it",
        len(present),
        LimitKind.OUTSIDE,
        (Fix("Take them off", ToggleModules(design.option.id, present)),),
    )


def _growth(design: Design, growth: int) -> Check:
    """The inverter's maker must stand behind the modules to come as well."""
    n, _ = dc_kw(design)
    p_max = design.module.p_max_w
    assert n.value is not None
    return check(
        rule_id="wish.growth",
        title="Room to grow",
        subject="inverter",
        kind=LimitKind.NOTE,
        formula="(n + n_grow) * p_max",
        givens=(
            n,
            Given("n_grow", "modules to come", float(growth), "", "wish of the household"),
            Given("p_max", "Pmax", p_max, "W", "module datasheet"),
        ),
        value=(n.value + growth) * p_max,
        symbol="p_dc",
        unit="W",
        relation="<=",
        limit=Given(
            "p_dc_max", "maker's DC limit", design.inverter.p_dc_max_w, "W", "inverter datasheet"
        ),
        source=WISH,
    )


def _symmetry(design: Design, array: PlaneArray) -> Check:
    """Count the modules without a mirror image across the middle of the eave."""
    plane = plane_of(design.job, array.plane_id)
    eave = corners_m(plane.outline)
    middle = float(eave[0][0] + eave[1][0]) / 2
    width = design.module.short_m if array.orientation == "P" else design.module.long_m
    places = [(m.x_m + width / 2 - middle, m.y_m) for m in array.modules if m.present]
    lone = sum(
        not any(
            abs(x + other_x) < MIRROR_M and abs(y - other_y) < MIRROR_M
            for other_x, other_y in places
        )
        for x, y in places
    )
    return _count_check(
        "wish.symmetric",
        "Symmetric",
        plane.name,
        "modules without a mirror image",
        lone,
        LimitKind.NOTE,
    )


def _yes(rule_id: str, title: str, subject: str, answer: bool | None) -> Check:
    """A wish the datasheet grants, denies, or says nothing about."""
    value = None if answer is None else float(answer)
    return check(
        rule_id=rule_id,
        title=title,
        subject=subject,
        kind=LimitKind.NOTE,
        formula="yes",
        givens=(Given("yes", "datasheet says", value, "", "datasheet"),),
        value=value,
        symbol="yes",
        unit="",
        relation=">=",
        limit=Given("wished", "wished", 1.0, "", "brief"),
        source=WISH,
        graded=False,
        reason="Not checked: the datasheet does not say.",
    )
