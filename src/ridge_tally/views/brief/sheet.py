"""The one-page brief."""

from ridge_tally.core.brief.tariff import write_tiers
from ridge_tally.core.job.document import DesignTemperature, Job
from ridge_tally.core.job.grid import GridRules, Metering, RouteKind, SizeCapKind, TariffPeriod
from ridge_tally.core.number_format import spaced
from ridge_tally.core.sheets.need_chart import need_svg
from ridge_tally.core.units import format_altitude
from ridge_tally.core.working import shown
from ridge_tally.formats.sheet_pdf import BriefContent, BriefRow
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulators.weather_service import climate
from ridge_tally.studies.brief.target import TargetReport, target_report
from ridge_tally.views.brief.report import BriefReport, brief_report
from ridge_tally.views.sheets.design import Stamp, paper_of

CHART_WIDTH_MM = 186.0
METERING = {
    Metering.NET: "net metering",
    Metering.NET_BILLING: "surplus credited",
    Metering.ALL_SOLD: "all sold",
    Metering.UNPAID: "export unpaid",
}
ROUTES = {RouteKind.NOTIFY: "Notify afterwards", RouteKind.APPLY: "Apply first"}


def brief_content(desk: Desk, design: Design, stamp: Stamp) -> BriefContent:
    """Return what the page of a job's brief says, with the target of one option."""
    brief = brief_report(design.job)
    target = target_report(desk, design)
    return BriefContent(
        job=design.job.name,
        place=design.job.site.place or "Place not given",
        printed_on=stamp.day.isoformat(),
        revision=stamp.revision,
        paper=paper_of(design.job),
        told=target.told,
        chart=need_svg(
            brief.monthly_need_kwh, target.monthly_kwh, target.monthly_title, CHART_WIDTH_MM
        ),
        need=_need(design.job, brief),
        target=_target(target),
        ceilings=tuple(
            BriefRow(
                c.title, "?" if c.modules is None else str(c.modules), c.reason or c.sum.numbers
            )
            for c in target.ceilings
        ),
        site=_site(design.job, brief),
        grid=_grid(design.job.brief.grid) if design.job.brief.grid else (),
        routes=_routes(target),
        house=_house(design.job),
        caveats=(
            *brief.caveats,
            *brief.grid_warnings,
            *(brief.usage.warnings if brief.usage else ()),
        ),
    )


def _kwh(value: float | None) -> str:
    return "not given" if value is None else f"{shown(round(value, -1), 6)} kWh"


def _need(job: Job, brief: BriefReport) -> tuple[BriefRow, ...]:
    used = brief.usage
    rows = [
        BriefRow(
            "Bought in a year", _kwh(used.energy_kwh if used else None), used.origin if used else ""
        )
    ]
    for load, view in zip(job.brief.loads, brief.loads, strict=True):
        spared = f"instead of {view.displaced}" if view.displaced else ""
        rows.append(BriefRow(load.name, _kwh(view.energy_kwh), spared))
    return (*rows, BriefRow("Need", _kwh(brief.need_kwh)))


def _target(target: TargetReport) -> tuple[BriefRow, ...]:
    rows = [
        BriefRow(target.title, _kwh(target.target_kwh)),
        BriefRow("Yield", f"{shown(target.yield_kwh_per_kw, 4)} kWh/kW", target.yield_origin),
    ]
    if target.target_modules is not None:
        count = f"{target.target_modules} × {target.module_w:g} W"
        rows.append(BriefRow("Modules", count, target.target_sum.numbers))
    if target.against_need_frac is not None:
        figure = f"{spaced(target.against_need_frac * 100)} %"
        rows.append(BriefRow("This design against the need", figure, _kwh(target.energy_kwh)))
    return tuple(rows)


def _temperature(temperature: DesignTemperature, stand_in: str) -> tuple[str, str]:
    if temperature.value_degc is None:
        return "not given", stand_in
    return f"{temperature.value_degc:g} °C".replace("-", "−"), temperature.source


def _site(job: Job, brief: BriefReport) -> tuple[BriefRow, ...]:
    site = job.site
    typed = climate(site.climate_id)
    cold, cold_source = _temperature(
        site.coldest, f"the climate's {typed.coldest_degc:g} °C plans, but passes no limit"
    )
    low, low_source = _temperature(site.record_low, "")
    hot, hot_source = _temperature(site.hottest, f"stand-in by climate, {typed.hottest_degc:g} °C")
    height_m = site.elevation_m
    elevation = "not given" if height_m is None else format_altitude(height_m, job.unit)
    declination = brief.declination_deg
    rows = [
        BriefRow(
            "Latitude, longitude",
            f"{spaced(site.latitude_deg, 2)}°, {spaced(site.longitude_deg, 2)}°".replace("-", "−"),
        ),
        BriefRow("Elevation", elevation),
        BriefRow(
            "Standard time", f"UTC {site.utc_offset_h:+g} h".replace("-", "−"), site.time_zone
        ),
        BriefRow("Extreme annual mean minimum", cold, cold_source),
        BriefRow("Record low", low, low_source),
        BriefRow("2 % high", hot, hot_source),
    ]
    if declination is not None:
        way = "east" if declination >= 0 else "west"
        rows.insert(
            3,
            BriefRow(
                "Compass reads from",
                f"{spaced(abs(declination), 1)}° {way} of true",
                brief.declination_model,
            ),
        )
    return tuple(rows)


def _grid(grid: GridRules) -> tuple[BriefRow, ...]:
    def kw(value: float | None) -> str:
        return "none" if value is None else f"{value:g} kW"

    cap = grid.size_cap
    size = {
        SizeCapKind.NONE: "none",
        SizeCapKind.SHARE_OF_USE: "not given"
        if cap.value is None
        else f"{cap.value * 100:g} % of past use",
        SizeCapKind.DC_KW: f"{kw(cap.value)} DC",
        SizeCapKind.AC_KW: f"{kw(cap.value)} AC",
    }[cap.kind]
    tariff = grid.tariff
    each = "day" if tariff.per is TariffPeriod.DAY else "bill"
    rebate = grid.rebate
    rows = [
        BriefRow(
            grid.operator,
            f"{grid.dated:%Y-%m-%d}",
            grid.source + (", marked as a sample" if grid.sample else ""),
        ),
        BriefRow("Size cap, with what is there", size),
        BriefRow("Inverters for each phase", kw(grid.ac_cap_kw_per_phase)),
        BriefRow("Export limit", kw(grid.export_limit_kw)),
        BriefRow(
            "Metering", METERING[grid.metering], f"export paid {grid.export_cents_per_kwh:g} ct/kWh"
        ),
        BriefRow(
            "Tariff, ct/kWh",
            write_tiers(tariff.tiers),
            f"{grid.currency}{spaced(tariff.fixed_cents / 100, 2)} a {each}, tax {tariff.tax_frac * 100:g} %",
        ),
    ]
    if rebate is not None:
        size = kw(rebate.most_dc_kw)
        ratio = (
            ""
            if rebate.most_dc_ac_ratio is None
            else f"DC:AC up to {spaced(rebate.most_dc_ac_ratio, 2)}"
        )
        rows.append(BriefRow(rebate.name, "" if size == "none" else size, ratio))
    rows += [BriefRow(text, "") for text in (grid.disconnect, grid.insurance) if text]
    return tuple(rows)


def _routes(target: TargetReport) -> tuple[BriefRow, ...]:
    rows = []
    for inverter in target.routes:
        for route in inverter.routes:
            name = f"{ROUTES[route.kind]}, {inverter.p_ac_kw:g} kW inverter ({inverter.option_id.upper()})"
            weeks = "time not given" if route.weeks is None else f"{route.weeks:g} weeks"
            state = weeks if route.open else f"closed above {route.limit_kw:g} kW"
            lost = (
                ""
                if route.lost_kwh is None
                else f"; staying small costs {_kwh(route.lost_kwh)} a year"
            )
            rows.append(BriefRow(name, state, f"{route.notice}{lost}"))
    return tuple(rows)


def _house(job: Job) -> tuple[BriefRow, ...]:
    brief, service = job.brief, job.survey.service
    rows = [
        BriefRow(f"{a.name}, {a.built_year}", f"{a.p_dc_kw:g} kW DC, {a.p_ac_kw:g} kW AC", a.paid)
        for a in brief.already.arrays
    ]
    already = brief.already
    if already.battery_kwh is not None:
        rows.append(BriefRow("Battery", f"{already.battery_kwh:g} kWh"))
    if already.generator_kw is not None:
        rows.append(BriefRow("Generator", f"{already.generator_kw:g} kW"))
    if service.main_breaker_a is not None and service.busbar_a is not None:
        rows.append(
            BriefRow(
                "Main breaker, busbar", f"{service.main_breaker_a:g} A, {service.busbar_a:g} A"
            )
        )
    wishes = brief.wishes
    told = [
        f"{wishes.growth_modules} modules more later" if wishes.growth_modules else "",
        "battery later" if wishes.battery_later else "",
        "backup" if wishes.backup else "",
        "symmetric" if wishes.symmetric else "",
        "all black" if wishes.all_black else "",
        *(f"{p.name} stays free" for p in job.survey.planes if p.id in wishes.no_go_planes),
    ]
    words = "; ".join(w for w in told if w)
    return (*rows, BriefRow("Wishes", "", words or "none told"))
