"""How far a purchase's worth may lie from its estimate: many draws of what nobody knows at once."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.money import Expected
from ridge_tally.core.money.years import SunBills, aged_frac

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True, eq=False)
class Unknowns:
    """What each draw takes, (d,): shares of what is expected, and what is added to rises a year."""

    yield_frac: FloatArray
    price_frac: FloatArray
    energy_rise_add: FloatArray
    replaced_frac: FloatArray

    @staticmethod
    def expected(draws: int) -> "Unknowns":
        """Return draws that are all as expected."""
        one = np.ones(draws)
        return Unknowns(one, one, np.zeros(draws), one)


@dataclass(frozen=True, slots=True, eq=False)
class PricePoints:
    """What a purchase takes and incentives bring at prices around the one asked.

    ``price_frac`` (p,) rising; ``by_year_cents`` (p, years + 1): what flows of the price itself, its
    loan and its incentives in each year.
    """

    price_frac: FloatArray
    by_year_cents: FloatArray


def flows_cents(
    bills: SunBills,
    points: PricePoints,
    inverter_cents: int,
    expected: Expected,
    unknowns: Unknowns,
) -> FloatArray:
    """Return (d, years + 1) cents, the purchase first.

    Notes
    -----
    The same sum as ``year_rows``, without its rounding to whole cents, for all draws at once.
    """
    n = np.arange(1, expected.years + 1)
    aged = unknowns.yield_frac[:, None] * [aged_frac(expected, year) for year in n.tolist()]
    rise = 1 + expected.energy_rise_frac + unknowns.energy_rise_add
    energy = rise[:, None] ** (n - 1)
    fixed = (1 + expected.fixed_rise_frac) ** (n - 1)
    paid = (1 + expected.export_rise_frac) ** (n - 1)
    ages = bills.ages[::-1]
    fracs = np.array([a.aged_frac for a in ages])
    used = np.array([a.bills.energy_cents + a.bills.demand_cents for a in ages])
    sold = np.array([a.bills.paid_cents for a in ages])
    without = bills.without
    flows = np.zeros((len(aged), expected.years + 1))
    for m in range(12):

        def charged(cents: FloatArray, month: int = m) -> FloatArray:
            """Return a month's bill before what is paid for export, (d, years)."""
            least = without.least_cents[month] * fixed
            whole = np.maximum(least, cents * energy + without.fixed_cents[month] * fixed)
            return np.asarray(whole * (1 + without.tax_frac))

        before = charged(np.asarray(without.energy_cents[m] + without.demand_cents[m]))
        after = charged(np.interp(aged, fracs, used[:, m]))
        earned = (np.interp(aged, fracs, sold[:, m]) - without.paid_cents[m]) * paid
        flows[:, 1:] += before - after + earned
    upkeep = expected.upkeep_cents * (1 + expected.upkeep_rise_frac) ** (n - 1)
    flows[:, 1:] -= upkeep
    if expected.inverter_year <= expected.years:
        flows[:, expected.inverter_year] -= inverter_cents * unknowns.replaced_frac
    for year in range(expected.years + 1):
        flows[:, year] += np.interp(
            unknowns.price_frac, points.price_frac, points.by_year_cents[:, year]
        )
    return flows


def worth_today_cents(flows: FloatArray, discount_frac: float) -> FloatArray:
    """Return (d,) present values."""
    years = np.arange(flows.shape[1])
    return np.asarray((flows / (1 + discount_frac) ** years).sum(axis=1))


def paid_years(flows: FloatArray) -> FloatArray:
    """Return (d,) years until flows have paid for themselves for good; infinite for never."""
    totals = flows.cumsum(axis=1)
    found = np.full(len(flows), np.inf)
    found[(totals >= 0).all(axis=1)] = 0.0
    for year in range(1, totals.shape[1]):
        a, b = totals[:, year - 1], totals[:, year]
        crossed = (a < 0) & (b >= 0)
        found[crossed] = year - 1 - a[crossed] / (b[crossed] - a[crossed])
    found[totals[:, -1] < 0] = np.inf
    return found
