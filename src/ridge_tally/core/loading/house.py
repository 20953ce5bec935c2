"""A house through the year: what it uses of its own, sends out and buys, with a battery or not."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.household import PaidEvents
from ridge_tally.core.kernels import house as kernel
from ridge_tally.core.sky.weather_year import day_of, hour_of

FloatArray = NDArray[np.float64]
BREAKFAST_H, EVENING_H = (6, 9), (17, 21)


@dataclass(frozen=True, slots=True)
class BatteryEfficiency:
    """What is left after the way into a battery, and after the way out of it."""

    in_frac: float
    out_frac: float


@dataclass(frozen=True, slots=True, eq=False)
class Sun:
    """What the inverters give, (n,) W in equal steps.

    ``made_w`` within their rating and before any export limit, night draw negative;
    ``clipped_w``: what the rating cut off.  ``limit_w``: their rating together.
    ``held_within_w``: what an export limit keeps back of bright minutes within the steps, where
    nobody stores it; ``None`` for nothing.
    """

    made_w: FloatArray
    clipped_w: FloatArray
    limit_w: float
    hours: float
    held_within_w: FloatArray | None = None


@dataclass(frozen=True, slots=True, eq=False)
class HouseYear:
    """Flows through a house, (n,) W, the load with the inverters' night draw.

    ``direct_w``: sun straight to the load.  ``given_w``: battery to the load.  ``sent_w`` and
    ``sold_w``: to the grid from the sun and, at events, from the battery.  ``held_w``: what the
    export limit holds back.  ``from_clipped_w`` and ``from_surplus_w`` go into the battery.
    """

    hours: float
    load_w: FloatArray
    direct_w: FloatArray
    given_w: FloatArray
    bought_w: FloatArray
    sent_w: FloatArray
    sold_w: FloatArray
    held_w: FloatArray
    from_clipped_w: FloatArray
    from_surplus_w: FloatArray
    charge_wh: FloatArray

    @property
    def own_use_w(self) -> FloatArray:
        """What the load takes of the sun, at once or out of the battery."""
        return self.direct_w + self.given_w

    @property
    def useful_w(self) -> FloatArray:
        """What the load takes of the sun and what goes to the grid."""
        return self.own_use_w + self.sent_w + self.sold_w

    @property
    def lost_kwh(self) -> float:
        """What the conversions through the battery took, what is left in it not counted."""
        taken = kwh_of(self.from_clipped_w + self.from_surplus_w, self.hours)
        out = kwh_of(self.given_w + self.sold_w, self.hours)
        return taken - out - float(self.charge_wh[-1]) / 1000


def house_year(
    sun: Sun,
    load_w: FloatArray,
    export_w: float | None = None,
    battery: Battery | None = None,
    kept: BatteryEfficiency | None = None,
    event: NDArray[np.int8] | None = None,
) -> HouseYear:
    """Return a house's year.

    Parameters
    ----------
    sun, load_w
        In the same steps.
    export_w : float, optional
        The most that may go out.
    battery, kept
        The battery with what its conversions leave; empty when the year begins.
    event : (n,) int8, optional
        See ``events_of``.

    Notes
    -----
    The sun serves the load first, then the battery, then the grid.  A battery on the DC side
    also takes what the AC limit cuts off, and gives only what the limit still lets through;
    one beside the inverter does neither.  It never charges from the grid.
    """
    usable_wh = power_w = 0.0
    if battery is not None:
        usable_wh, power_w = battery.usable_kwh * 1000, battery.power_kw * 1000
    through = kept or BatteryEfficiency(1.0, 1.0)
    flows, charge = kernel.run(
        sun.made_w, sun.clipped_w,
        np.zeros(len(load_w)) if sun.held_within_w is None else sun.held_within_w, load_w,
        np.zeros(len(load_w), np.int8) if event is None else event,
        sun.hours, sun.limit_w, np.inf if export_w is None else export_w,
        usable_wh, power_w, through.in_frac, through.out_frac,
        battery is not None and battery.coupling is Coupling.DC,
    )  # fmt: skip
    by_name = {f"{name}_w": flows[:, i] for i, name in enumerate(kernel.FLOWS)}
    night_w = np.maximum(-sun.made_w, 0.0)
    return HouseYear(hours=sun.hours, load_w=load_w + night_w, charge_wh=charge, **by_name)


def events_of(
    load_w: FloatArray, time: NDArray[np.datetime64], events: PaidEvents | None
) -> NDArray[np.int8]:
    """Return (n,): where the charge is kept for an event, and where it is sold.

    Notes
    -----
    Nobody knows the days before they are called: the days on which the house itself uses most
    in those hours stand in for them, one in each two weeks at most.  The charge is kept from
    noon, or from midnight where the hours begin before noon.
    """
    found = np.zeros(len(time), np.int8)
    if events is None:
        return found
    hour, day = hour_of(time), day_of(time)
    inside = (hour >= events.from_h) & (hour < events.to_h)
    used = np.bincount(day, weights=load_w * inside, minlength=365)
    chosen: list[int] = []
    for candidate in np.argsort(-used, kind="stable"):
        if len(chosen) == events.days:
            break
        if all(abs(candidate - other) >= 14 for other in chosen):
            chosen.append(int(candidate))
    there = np.isin(day, chosen)
    from_h = 12 if events.from_h >= 12 else 0
    found[there & (hour >= from_h) & (hour < events.from_h)] = kernel.KEEPS
    found[there & inside] = kernel.SELLS
    return found


def carried_frac(
    house: HouseYear, time: NDArray[np.datetime64], hours: tuple[int, int]
) -> tuple[float, float]:
    """Return what share of the load in some hours the sun carries at once, and with the battery."""
    hour = hour_of(time)
    mine = (hour >= hours[0]) & (hour < hours[1])
    load = float(house.load_w[mine].sum())
    if load <= 0:
        return 0.0, 0.0
    return float(house.direct_w[mine].sum()) / load, float(house.own_use_w[mine].sum()) / load
