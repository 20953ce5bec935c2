"""What must hold in the brief of a job before anything is computed from it."""

from ridge_tally.core.brief.tariff_hours import require_whole_periods
from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.job.brief import MOST_BILLS, Brief, CarLoad, HeatPumpLoad, Load
from ridge_tally.core.job.document import Job, plane_of
from ridge_tally.core.job.grid import GridRules, SizeCapKind
from ridge_tally.core.job.household import Household
from ridge_tally.core.job.service import Service
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.rules.ranges import Range, require_named, require_ranges


def require_sound_brief(job: Job) -> None:
    """Raise on the first figure of the brief that cannot be.

    Raises
    ------
    OutOfRange, BadGeometry, NotFound
        Naming the field, the value and what to do.
    """
    brief = job.brief
    if len(brief.bills) > MOST_BILLS:
        raise BadGeometry("Bills", f"{len(brief.bills)} rows are too many", f"Keep {MOST_BILLS}.")
    require_ranges(_target_ranges(brief))
    for load in brief.loads:
        require_named(load.name, "Load")
        require_ranges(_load_ranges(load))
    for array in brief.already.arrays:
        require_named(array.name, "Array already there")
        require_ranges(
            (
                (f"{array.name}, DC kW", array.p_dc_kw, 0.01, 500.0),
                (f"{array.name}, AC kW", array.p_ac_kw, 0.01, 500.0),
                (f"{array.name}, built in", array.built_year, 1975, 2100),
            )
        )
        for plane_id in array.plane_ids:
            plane_of(job, plane_id)
    for plane_id in brief.wishes.no_go_planes:
        plane_of(job, plane_id)
    _require_household(brief.household)
    if brief.grid is not None:
        _require_grid(brief.grid)
    _require_service(job.survey.service)


def _target_ranges(brief: Brief) -> tuple[Range, ...]:
    target, already = brief.target, brief.already
    return (
        ("Use in a year, kWh", brief.use_kwh_per_year, 0.0, 500_000.0),
        ("Share of the use", target.share_frac, 0.01, 3.0),
        ("Budget, cents", target.budget_cents, 0, 100_000_000),
        ("Price of a watt, cents", target.price_cents_per_w, 1.0, 10_000.0),
        ("Fixed part of the price, cents", target.fixed_price_cents, 0, 100_000_000),
        ("Yield, kWh/kW", target.yield_kwh_per_kw, 200.0, 3000.0),
        ("Modules to grow by", brief.wishes.growth_modules, 0, 500),
        ("Battery, kWh", already.battery_kwh, 0.0, 1000.0),
        ("Battery power, kW", already.battery_kw, 0.0, 500.0),
        ("Generator, kW", already.generator_kw, 0.0, 500.0),
    )


def _load_ranges(load: Load) -> tuple[Range, ...]:
    match load:
        case CarLoad():
            return (
                (f"{load.name}, km a year", load.distance_km_per_year, 0.0, 200_000.0),
                (f"{load.name}, kWh/km", load.use_kwh_per_km, 0.02, 1.5),
                (f"{load.name}, charging loss", load.charging_loss_frac, 0.0, 0.6),
                (f"{load.name}, share charged at home", load.charged_at_home_frac, 0.0, 1.0),
                (f"{load.name}, fuel displaced, l/100km", load.displaced_l_per_100km, 0.0, 60.0),
            )
        case HeatPumpLoad():
            return (
                (f"{load.name}, fuel a year", load.fuel_per_year, 0.0, 500_000.0),
                (f"{load.name}, burner efficiency", load.burner_efficiency_frac, 0.1, 1.2),
                (f"{load.name}, seasonal COP", load.seasonal_cop, 1.0, 8.0),
            )
        case _:
            return (
                (f"{load.name}, kWh a year", load.energy_kwh_per_year, -100_000.0, 100_000.0),
                (f"{load.name}, first month", load.first_month, 1, 12),
                (f"{load.name}, last month", load.last_month, 1, 12),
            )


def _require_household(house: Household) -> None:
    if house.load_file is not None:
        require_ranges(
            (("Metered use in a year, kWh", house.load_file.energy_kwh, 1.0, 500_000.0),)
        )
    events = house.events
    if events is None:
        return
    require_ranges(
        (
            ("Export events a year", events.days, 1, 20),
            ("Hours of the events, from", events.from_h, 0, 23),
            ("Hours of the events, to", events.to_h, events.from_h + 1, 24),
            ("Paid at events, cents a kWh", events.cents_per_kwh, 0.0, 10_000.0),
        )
    )


def _require_grid(grid: GridRules) -> None:
    cap = grid.size_cap
    share = cap.kind is SizeCapKind.SHARE_OF_USE
    ranges: list[Range] = [
        ("Size cap, share of the use" if share else "Size cap, kW", cap.value, 0.0, 1000.0),
        ("Inverter cap for a phase, kW", grid.ac_cap_kw_per_phase, 0.1, 1000.0),
        ("Export limit, kW", grid.export_limit_kw, 0.0, 1000.0),
        ("Paid for export, cents", grid.export_cents_per_kwh, 0.0, 1000.0),
        ("Fixed charge, cents", grid.tariff.fixed_cents, 0.0, 1_000_000.0),
        ("Minimum charge, cents", grid.tariff.minimum_cents, 0.0, 1_000_000.0),
        ("Tax", grid.tariff.tax_frac, 0.0, 1.0),
        ("Volts of a phase", grid.volts_per_phase_v, 100.0, 480.0),
    ]
    ranges += [
        ("Price of a kWh, cents", t.rate_cents_per_kwh, 0.0, 1000.0) for t in grid.tariff.tiers
    ]
    if grid.rebate is not None:
        ranges += [
            ("Rebate up to, kW", grid.rebate.most_dc_kw, 0.1, 1000.0),
            ("DC over AC for the rebate", grid.rebate.most_dc_ac_ratio, 0.5, 5.0),
            ("Rebate for a watt, cents", grid.rebate.pays_cents_per_dc_w, 0.0, 10_000.0),
        ]
    for route in grid.routes:
        ranges += [
            (f"{route.kind.value} route, limit, kW", route.most_kw_per_phase, 0.0, 1000.0),
            (f"{route.kind.value} route, weeks", route.weeks, 0.0, 520.0),
            (f"{route.kind.value} route, fee, cents", route.fee_cents, 0, 100_000_000),
            (f"{route.kind.value} route, imposed export, kW", route.imposed_export_kw, 0.0, 1000.0),
        ]
    ranges += [
        ("Price of the month’s highest kW, cents", grid.tariff.demand_cents_per_kw, 0.0, 100_000.0),
        ("True-up after month", grid.trueup_month, 1, 12),
        *(("Holiday, day of the year", day, 0, DAYS - 1) for day in grid.tariff.holidays),
    ]
    for period in grid.tariff.periods:
        ranges += [
            (f"Price, {period.name}, cents", period.buy_cents_per_kwh, 0.0, 1000.0),
            (f"Paid for export, {period.name}, cents", period.sell_cents_per_kwh, 0.0, 1000.0),
        ]
    require_ranges(ranges)
    require_whole_periods(grid.tariff)
    if not grid.tariff.tiers or grid.tariff.tiers[-1].up_to_kwh is not None:
        raise BadGeometry(
            "Price of a kWh",
            "the last tier has an end",
            "Leave the last one open, as in 11 to 500; 15.",
        )


def _require_service(service: Service) -> None:
    if service.phases not in (1, 2, 3):
        raise OutOfRange("Phases", service.phases, "1, 2 or 3")
    require_ranges(
        (
            ("Main breaker, A", service.main_breaker_a, 15.0, 1200.0),
            ("Busbar, A", service.busbar_a, 15.0, 1200.0),
            ("Load breakers together, A", service.load_breakers_a, 0.0, 5000.0),
            ("Feeder, A", service.feeder_a, 15.0, 1200.0),
            ("Free spaces in the panel", service.spaces, 0.0, 84.0),
            (
                "Disconnect within, in metres",
                service.disconnect_within.value_m if service.disconnect_within else None,
                0.3,
                100.0,
            ),
        )
    )
    for board in service.subpanels:
        require_ranges(
            (
                (f"{board.name}, main breaker, A", board.main_breaker_a, 15.0, 1200.0),
                (f"{board.name}, busbar, A", board.busbar_a, 15.0, 1200.0),
                (f"{board.name}, breaker of its feeder, A", board.feeder_a, 15.0, 1200.0),
            )
        )
