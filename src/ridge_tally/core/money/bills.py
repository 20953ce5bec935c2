"""A year of bills: what a house pays for what it takes and is paid for what it sends, month by month."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.brief.tariff import by_tier
from ridge_tally.core.brief.tariff_hours import TariffHours, tariff_hours
from ridge_tally.core.job.grid import GridRules, Metering, Tariff, TariffPeriod
from ridge_tally.core.money.cents import half_up
from ridge_tally.core.nominal_year import DAYS_IN_MONTH

FloatArray = NDArray[np.float64]
MONTHS = 12


@dataclass(frozen=True, slots=True, eq=False)
class MeterYear:
    """What passes a house's meter in each hour of a year, (8760,) kWh; ``sold_kwh`` at paid events."""

    bought_kwh: FloatArray
    sent_kwh: FloatArray
    sold_kwh: FloatArray | None = None


@dataclass(frozen=True, slots=True, eq=False)
class YearBills:
    """Twelve bills part by part, cents not rounded; arrays are (12,) or (12, periods).

    ``billed_kwh`` is what is charged after kWh banked before; ``banked_kwh`` what is left of them;
    ``paid_cents`` for what was sent.  ``least_cents``: the minimum charge.
    """

    names: tuple[str, ...]
    bought_kwh: FloatArray
    sent_kwh: FloatArray
    billed_kwh: FloatArray
    banked_kwh: FloatArray
    energy_cents: FloatArray
    demand_cents: FloatArray
    fixed_cents: FloatArray
    least_cents: FloatArray
    paid_cents: FloatArray
    tax_frac: float

    def months_cents(
        self, energy: float = 1.0, fixed: float = 1.0, paid: float = 1.0
    ) -> tuple[int, ...]:
        """Return the twelve bills in whole cents, with prices so many times today's.

        Notes
        -----
        bill = (1 + tax) * max(minimum, fixed + energy + demand) - paid for export; below 0 the
        house is paid.  Source: the way household tariffs are printed; common practice, no source.
        """
        used = (self.energy_cents + self.demand_cents) * energy + self.fixed_cents * fixed
        charged = np.maximum(self.least_cents * fixed, used) * (1 + self.tax_frac)
        return tuple(half_up(c) for c in (charged - self.paid_cents * paid).tolist())

    @property
    def year_cents(self) -> int:
        """Return what the twelve come to."""
        return sum(self.months_cents())


def year_bills(grid: GridRules, meter: MeterYear, event_cents_per_kwh: float = 0.0) -> YearBills:
    """Return the bills of a year under a house's grid rules.

    Notes
    -----
    Net metering: what is sent in a period of the tariff counts against what is bought in it; what
    is left of it is carried to the next month, and paid at the export price after the true-up
    month, or each month without one.  The year is one of many alike: it begins, with nothing
    carried, after the true-up month.  Net billing and all sold: each hour at its own prices.
    """
    hours = tariff_hours(grid.tariff, grid.export_cents_per_kwh)
    bought, sent = (_by_period(hours, kwh) for kwh in (meter.bought_kwh, meter.sent_kwh))
    tariff = grid.tariff
    paid, banked = np.zeros(MONTHS), np.zeros_like(bought)
    billed = bought
    if grid.metering is Metering.NET:
        billed, banked, paid = _netted(bought - sent, hours.sell_cents, grid.trueup_month)
    elif grid.metering is not Metering.UNPAID:
        paid = sent @ hours.sell_cents
    if meter.sold_kwh is not None:
        sold = np.bincount(hours.month, weights=meter.sold_kwh, minlength=MONTHS)
        paid = paid + sold * event_cents_per_kwh
    scale = np.array(DAYS_IN_MONTH if tariff.per is TariffPeriod.DAY else [1] * MONTHS, dtype=float)
    highest = np.zeros(MONTHS)
    np.maximum.at(highest, hours.month, meter.bought_kwh)
    return YearBills(
        hours.names, bought, sent, billed, banked,
        energy_cents=_energy(tariff, hours, billed, scale),
        demand_cents=highest * tariff.demand_cents_per_kw,
        fixed_cents=tariff.fixed_cents * scale,
        least_cents=tariff.minimum_cents * scale,
        paid_cents=paid,
        tax_frac=tariff.tax_frac,
    )  # fmt: skip


def between(first: YearBills, last: YearBills, share: float) -> YearBills:
    """Return bills between two that differ in how much sun there is; ``share`` 0 for the first."""

    def mix(a: FloatArray, b: FloatArray) -> FloatArray:
        return a + (b - a) * share

    return replace(
        first,
        bought_kwh=mix(first.bought_kwh, last.bought_kwh),
        sent_kwh=mix(first.sent_kwh, last.sent_kwh),
        billed_kwh=mix(first.billed_kwh, last.billed_kwh),
        banked_kwh=mix(first.banked_kwh, last.banked_kwh),
        energy_cents=mix(first.energy_cents, last.energy_cents),
        demand_cents=mix(first.demand_cents, last.demand_cents),
        paid_cents=mix(first.paid_cents, last.paid_cents),
    )


def _by_period(hours: TariffHours, kwh: FloatArray) -> FloatArray:
    """Return (12, periods) kWh."""
    count = len(hours.names)
    sums = np.bincount(hours.month * count + hours.period, weights=kwh, minlength=MONTHS * count)
    return np.asarray(sums.reshape(MONTHS, count), dtype=float)


def _netted(
    net_kwh: FloatArray, sell_cents: FloatArray, trueup_month: int | None
) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Return billed and banked kWh, (12, periods), and what is paid for the rest, (12,) cents."""
    billed, banked = np.maximum(net_kwh, 0.0), np.zeros_like(net_kwh)
    paid = np.zeros(MONTHS)
    if trueup_month is None:
        return billed, banked, np.maximum(-net_kwh, 0.0) @ sell_cents
    bank = np.zeros(net_kwh.shape[1])
    for n in range(MONTHS):
        month = (trueup_month + n) % MONTHS
        after = bank - net_kwh[month]
        billed[month], bank = np.maximum(-after, 0.0), np.maximum(after, 0.0)
        banked[month] = bank
    last = trueup_month - 1
    paid[last], banked[last] = bank @ sell_cents, 0.0
    return billed, banked, paid


def _energy(
    tariff: Tariff, hours: TariffHours, billed_kwh: FloatArray, scale: FloatArray
) -> FloatArray:
    if tariff.periods:
        return np.asarray(billed_kwh @ hours.buy_cents)
    rates = [tier.rate_cents_per_kwh for tier in tariff.tiers]
    return np.array(
        [
            sum(kwh * rate for kwh, rate in zip(by_tier(tariff, row[0], s), rates, strict=True))
            for row, s in zip(billed_kwh.tolist(), scale.tolist(), strict=True)
        ]
    )
