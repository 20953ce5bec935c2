"""A house on its own sun: what it uses, sends out and buys, with a battery, and at other sizes."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.document import Job, battery_joined
from ridge_tally.core.loading.house import (
    BREAKFAST_H,
    EVENING_H,
    HouseYear,
    Sun,
    carried_frac,
    events_of,
    house_year,
)
from ridge_tally.core.number_format import spaced
from ridge_tally.core.sky.weather_year import hour_of, month_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.ac_sources import phases_used
from ridge_tally.simulation.batteries import conversions, cycles, takes_dc, told
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import HouseLoad, house_load
from ridge_tally.simulation.need import small_money
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import hourly_year, require_year
from ridge_tally.studies.loading.sized import sized_to
from ridge_tally.studies.money.house_bills import saved_cents

FloatArray = NDArray[np.float64]
NORTHERN_SEASONS = {"summer": (5, 6, 7), "winter": (11, 0, 1), "spring and autumn": (2, 3, 8, 9)}
# Other sizes of the inverter beside what the grid's rules name, as shares of the one there is.
SIZES = (0.5, 0.75, 1.0, 1.25, 1.5)

# What is less is not told.
LEAST_TOLD_KWH = 1.0


@dataclass(frozen=True, slots=True)
class HouseTold:
    """A year of the house, kWh.

    ``made_kwh`` before any export limit; ``own_use_kwh`` what the house takes of it, ``sold_kwh``
    out of the battery at events, ``held_kwh`` kept back by the export limit, ``lost_kwh`` in the
    battery's conversions, ``left_kwh`` in it when the year ends: all of them together are what is
    made and what it takes ``from_clipped_kwh``.  ``own_use_frac`` of what is made, ``covered_frac`` of the load;
    ``breakfast_frac`` and ``evening_frac`` of the load in those hours.  ``worth_cents``: what
    the year's bills are less by; ``None`` without a tariff.
    """

    made_kwh: float
    load_kwh: float
    own_use_kwh: float
    own_use_frac: float
    covered_frac: float
    sent_kwh: float
    sold_kwh: float
    bought_kwh: float
    held_kwh: float
    from_clipped_kwh: float
    left_kwh: float
    lost_kwh: float
    breakfast_frac: float
    evening_frac: float
    worth_cents: int | None


@dataclass(frozen=True, slots=True)
class HouseMonth:
    """A month of the house as it is, kWh."""

    load_kwh: float
    own_use_kwh: float
    sent_kwh: float
    bought_kwh: float
    held_kwh: float


@dataclass(frozen=True, slots=True)
class HouseDay:
    """The mean day of a season, kW by hour; ``battery_kw`` above 0 where it gives, below where it takes."""

    title: str
    load_kw: tuple[float, ...]
    made_kw: tuple[float, ...]
    battery_kw: tuple[float, ...]
    bought_kw: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class SizeCarried:
    """An inverter of another size under the same array: what it carries of the two peaks.

    ``mark``: the grid rule that names this size.  ``over_hours``: hours of the two peaks in which
    the load alone is above its rating.
    """

    ac_kw: float
    now: bool
    mark: str
    own_use_kwh: float
    sent_kwh: float
    held_kwh: float
    clipped_kwh: float
    breakfast_frac: float
    evening_frac: float
    over_hours: float


@dataclass(frozen=True, slots=True)
class BatteryTold:
    """The option's battery: how it joins, what its conversions leave, and what it changes."""

    told: str
    conversions: int
    kept_frac: float
    cycles: float
    more_own_kwh: float
    more_worth_cents: int | None
    price_cents: int | None
    years_to_pay: float | None
    caveats: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class HouseReport:
    """A house's year without a battery and with the option's, and at other sizes."""

    origin: str
    alone: HouseTold
    with_battery: HouseTold | None
    battery: BatteryTold | None
    months: tuple[HouseMonth, ...]
    days: tuple[HouseDay, ...]
    sizes: tuple[SizeCarried, ...]
    events_told: str
    told: tuple[str, ...]
    caveats: tuple[str, ...]


@dataclass(frozen=True, slots=True, eq=False)
class SelfConsumption:
    """What a house's year is worked out from besides the sun."""

    load: HouseLoad
    export_w: float | None
    event: NDArray[np.int8]
    time: NDArray[np.datetime64]


def require_load(desk: Desk, job: Job) -> HouseLoad:
    """Return the load of a job; MissingDatum while no use is known."""
    load = house_load(desk, job)
    if load is None:
        raise MissingDatum(
            "use",
            "The Brief",
            "Type bills or a yearly figure there, or choose a metered file here.",
        )
    return load


def house_of(desk: Desk, job: Job, load: HouseLoad) -> SelfConsumption:
    """Return what a house's year is worked out from besides the sun."""
    time, grid = weather_of(desk, job).time, job.brief.grid
    export_kw = grid.export_limit_kw if grid else None
    return SelfConsumption(
        load,
        None if export_kw is None else export_kw * 1000,
        events_of(load.power_w, time, job.brief.household.events),
        time,
    )


def sun_of(year: YearResult) -> Sun:
    """Return what a year's inverters give."""
    return Sun(
        year.before_export_w,
        year.clipped_w * year.ac_kept_frac,
        year.limit_w * year.ac_kept_frac,
        year.hours,
        year.held_within_w,
    )


def lived(
    design: Design, house: SelfConsumption, year: YearResult, battery: Battery | None
) -> HouseYear:
    """Return a house's year on an option's sun, with a battery as it joins or without."""
    return lived_on(design, house, sun_of(year), battery)


def lived_on(
    design: Design, house: SelfConsumption, sun: Sun, battery: Battery | None
) -> HouseYear:
    """Return a house's year on some sun, with a battery as it joins or without."""
    if battery is None:
        return house_year(sun, house.load.power_w, house.export_w)
    kept = conversions(design, battery.coupling).kept
    return house_year(sun, house.load.power_w, house.export_w, battery, kept, house.event)


def house_report(desk: Desk, design: Design) -> HouseReport:
    """Return how a house lives on an option's sun.

    Raises
    ------
    MissingDatum
        While no use is known, or no module is in a string.
    """
    require_year(design)
    load = require_load(desk, design.job)
    house, year = house_of(desk, design.job, load), hourly_year(desk, design)
    alone = lived(design, house, year, None)
    stored = (
        None
        if design.option.battery is None
        else lived(design, house, year, battery_joined(design.option))
    )
    now, alone_told = stored or alone, _told_of(desk, design.job, house, alone)
    with_battery = None if stored is None else _told_of(desk, design.job, house, stored)
    sizes = tuple(_sizes(desk, design, house))
    battery = None
    if stored is not None and with_battery is not None:
        battery = _battery(design, stored, alone_told, with_battery)
    return HouseReport(
        origin=load.origin,
        alone=alone_told,
        with_battery=with_battery,
        battery=battery,
        months=_months(now, house),
        days=_days(design.job, now, year, house),
        sizes=sizes,
        events_told=_events_told(design.job, stored),
        told=_words(alone_told, with_battery, sizes, year.energy_kwh),
        caveats=load.caveats,
    )


def _told_of(desk: Desk, job: Job, house: SelfConsumption, lived_year: HouseYear) -> HouseTold:
    def kwh(power_w: FloatArray) -> float:
        return kwh_of(power_w, lived_year.hours)

    own, sent, sold = kwh(lived_year.own_use_w), kwh(lived_year.sent_w), kwh(lived_year.sold_w)
    load, bought, held = kwh(lived_year.load_w), kwh(lived_year.bought_w), kwh(lived_year.held_w)
    direct, given = kwh(lived_year.direct_w), kwh(lived_year.given_w)
    from_surplus, from_clipped = kwh(lived_year.from_surplus_w), kwh(lived_year.from_clipped_w)
    made = direct + from_surplus + sent + held
    at = [carried_frac(lived_year, house.time, hours)[1] for hours in (BREAKFAST_H, EVENING_H)]
    return HouseTold(
        made_kwh=made,
        load_kwh=load,
        own_use_kwh=own,
        own_use_frac=own / (made + from_clipped) if made > 0 else 0.0,
        covered_frac=(direct + given) / load if load > 0 else 0.0,
        sent_kwh=sent,
        sold_kwh=sold,
        bought_kwh=bought,
        held_kwh=held,
        from_clipped_kwh=from_clipped,
        lost_kwh=lived_year.lost_kwh,
        left_kwh=float(lived_year.charge_wh[-1]) / 1000,
        breakfast_frac=at[0],
        evening_frac=at[1],
        worth_cents=saved_cents(desk, job, house.load, lived_year),
    )


def _months(lived_year: HouseYear, house: SelfConsumption) -> tuple[HouseMonth, ...]:
    month = month_of(house.time)

    def by_month(power_w: FloatArray) -> FloatArray:
        return np.bincount(month, weights=power_w, minlength=12) * lived_year.hours / 1000

    flows = [
        by_month(w)
        for w in (
            lived_year.load_w, lived_year.own_use_w, lived_year.sent_w + lived_year.sold_w,
            lived_year.bought_w, lived_year.held_w,
        )
    ]  # fmt: skip
    return tuple(HouseMonth(*(float(f[m]) for f in flows)) for m in range(12))


def _days(
    job: Job, lived_year: HouseYear, year: YearResult, house: SelfConsumption
) -> tuple[HouseDay, ...]:
    month, hour = month_of(house.time), hour_of(house.time)
    found = []
    for title, northern in NORTHERN_SEASONS.items():
        months = [(m + 6) % 12 if job.site.latitude_deg < 0 else m for m in northern]
        mine = np.isin(month, months)

        def mean_kw(power_w: FloatArray, mine: NDArray[np.bool_] = mine) -> tuple[float, ...]:
            sums = np.bincount(hour[mine], weights=power_w[mine], minlength=24)
            return tuple((sums / np.bincount(hour[mine], minlength=24) / 1000).tolist())

        battery = (
            lived_year.given_w + lived_year.sold_w
            - lived_year.from_surplus_w - lived_year.from_clipped_w
        )  # fmt: skip
        found.append(
            HouseDay(
                f"Mean day of {title}",
                mean_kw(lived_year.load_w),
                mean_kw(np.maximum(year.before_export_w, 0.0)),
                mean_kw(battery),
                mean_kw(lived_year.bought_w),
            )
        )
    return tuple(found)


def _sizes(desk: Desk, design: Design, house: SelfConsumption) -> Iterator[SizeCarried]:
    """Yield inverters of other sizes, those the grid's rules name among them."""
    now_kw = design.p_ac_w / 1000
    marks = {round(now_kw, 2): ""}
    for share in SIZES:
        marks.setdefault(round(now_kw * share, 2), "")
    grid, phases = design.job.brief.grid, phases_used(design)

    def mark(ac_kw: float, words: str) -> None:
        before = marks.get(round(ac_kw, 2), "")
        marks[round(ac_kw, 2)] = f"{before}, {words}" if before else words

    if grid is not None:
        if grid.ac_cap_kw_per_phase is not None:
            mark(grid.ac_cap_kw_per_phase * phases, "inverter cap")
        for route in grid.routes:
            if route.most_kw_per_phase is not None:
                mark(route.most_kw_per_phase * phases, "quick approval to here")
    hour = hour_of(house.time)
    peak = np.zeros(len(hour), np.bool_)
    for low, high in (BREAKFAST_H, EVENING_H):
        peak |= (hour >= low) & (hour < high)
    for ac_kw, words in sorted(marks.items()):
        sized = sized_to(design, ac_kw * 1000)
        year = hourly_year(desk, sized)
        there = lived(design, house, year, battery_joined(design.option))
        over = peak & (there.load_w > ac_kw * 1000)
        yield SizeCarried(
            ac_kw=ac_kw,
            now=abs(ac_kw - now_kw) < 0.006,
            mark=words,
            own_use_kwh=kwh_of(there.own_use_w, there.hours),
            sent_kwh=kwh_of(there.sent_w + there.sold_w, there.hours),
            held_kwh=kwh_of(there.held_w, there.hours),
            clipped_kwh=year.clipped_kwh,
            breakfast_frac=carried_frac(there, house.time, BREAKFAST_H)[1],
            evening_frac=carried_frac(there, house.time, EVENING_H)[1],
            over_hours=float(over.sum()) * there.hours,
        )


def _battery(
    design: Design, lived_year: HouseYear, alone: HouseTold, stored: HouseTold
) -> BatteryTold:
    chosen, battery = design.option.battery, battery_joined(design.option)
    assert chosen is not None
    assert battery is not None
    way = conversions(design, battery.coupling)
    caveats = ["Charger, battery inverter and cells at usual efficiencies; no draw while it waits"]
    if battery.coupling is not chosen.coupling:
        caveats.append("Microinverters have no DC side: it joins beside them, on AC")
    elif battery.coupling is Coupling.DC and not takes_dc(design):
        caveats.append(
            "The inverter's sheet names no battery input: ask its maker before DC coupling"
        )
    more = None
    if stored.worth_cents is not None and alone.worth_cents is not None:
        more = stored.worth_cents - alone.worth_cents
    price = battery.price_cents
    given = kwh_of(lived_year.given_w + lived_year.sold_w, lived_year.hours)
    return BatteryTold(
        told=told(battery),
        conversions=way.count,
        kept_frac=way.kept_frac,
        cycles=cycles(given, battery, way.kept.out_frac),
        more_own_kwh=stored.own_use_kwh - alone.own_use_kwh,
        more_worth_cents=more,
        price_cents=price,
        years_to_pay=price / more if price is not None and more is not None and more > 0 else None,
        caveats=tuple(caveats),
    )


def _events_told(job: Job, stored: HouseYear | None) -> str:
    events = job.brief.household.events
    if events is None:
        return ""
    head = f"{events.days} days, {events.from_h} to {events.to_h} h, {events.cents_per_kwh:g} {small_money(job)} a kWh"
    if stored is None:
        return f"{head}: without a battery there is nothing to sell but the sun of those hours"
    sold = kwh_of(stored.sold_w, stored.hours)
    return (
        f"{head}: {spaced(sold)} kWh a year out of the battery, on the days the house itself uses most "
        "then, since nobody knows them yet"
    )


def _words(
    alone: HouseTold, stored: HouseTold | None, sizes: tuple[SizeCarried, ...], meter_kwh: float
) -> tuple[str, ...]:
    night_kwh = alone.made_kwh - alone.held_kwh - meter_kwh
    drawn = (
        f" ({spaced(meter_kwh)} to the meter: inverters draw {spaced(night_kwh)} at night)"
        if night_kwh >= LEAST_TOLD_KWH
        else ""
    )
    found = [
        f"Of {spaced(alone.made_kwh)} kWh made{drawn} the house takes {spaced(alone.own_use_kwh)} at once "
        f"({alone.own_use_frac * 100:.0f} %): {alone.covered_frac * 100:.0f} % of its use."
    ]
    if alone.held_kwh >= 1:
        found.append(f"The export limit holds back {spaced(alone.held_kwh)} kWh a year.")
    if stored is not None:
        found.append(
            f"With the battery it takes {spaced(stored.own_use_kwh)} kWh, "
            f"{stored.covered_frac * 100:.0f} % of its use: evenings {alone.evening_frac * 100:.0f} "
            f"to {stored.evening_frac * 100:.0f} %, breakfasts {alone.breakfast_frac * 100:.0f} to "
            f"{stored.breakfast_frac * 100:.0f} %."
        )
    smallest, now = sizes[0], next(s for s in sizes if s.now)
    if smallest is not now:
        less = now.sent_kwh - smallest.sent_kwh
        found.append(
            f"An inverter of {smallest.ac_kw:g} kW in the place of {now.ac_kw:g} kW sends out "
            f"{spaced(less)} kWh less and carries {smallest.breakfast_frac * 100:.0f} % of the "
            f"breakfasts ({now.breakfast_frac * 100:.0f} %), {smallest.evening_frac * 100:.0f} % of the "
            f"evenings ({now.evening_frac * 100:.0f} %)"
            + (
                f"; in {spaced(smallest.over_hours)} hours of them the house alone uses more than it "
                "can give."
                if smallest.over_hours >= 1
                else "."
            )
        )
    return tuple(found)
