"""The year by year table of a purchase, and what it is worth: payback, present value, rate of return."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate, pairwise

from ridge_tally.core.job.money import Expected, Loan
from ridge_tally.core.money.bills import YearBills, between
from ridge_tally.core.money.cents import half_up
from ridge_tally.core.money.incentives import Granted, arriving_cents

MONTHS = 12
# No rate of return is looked for beyond: 1 000 % a year either way ends a search.
LEAST_RATE, MOST_RATE = -0.99, 10.0
BISECTIONS = 200


@dataclass(frozen=True, slots=True)
class Borrowed:
    """A loan as it is paid: ``owed_cents`` with its fee, by the month, interest and fee in all."""

    taken_cents: int
    owed_cents: int
    monthly_cents: int
    by_year_cents: tuple[int, ...]
    interest_cents: int


def borrowed(loan: Loan, price_cents: int) -> Borrowed:
    """Return a loan on a price.

    Notes
    -----
    payment = P * i / (1 - (1 + i)^-n) a month, i a twelfth of the year's rate; P / n at 0 %.  Paid
    in whole cents; the last month settles what rounding left.
    """
    taken = half_up(price_cents * loan.share_frac)
    owed, months = half_up(taken * (1 + loan.fee_frac)), loan.years * MONTHS
    rate = loan.rate_frac / MONTHS
    exact = owed / months if rate == 0 else owed * rate / (1 - (1 + rate) ** -months)
    monthly, left, by_year = half_up(exact), float(owed), []
    for _ in range(loan.years):
        paid = 0
        for _ in range(MONTHS):
            left += left * rate
            paid += monthly
            left -= monthly
        by_year.append(paid)
    by_year[-1] += half_up(left)
    return Borrowed(taken, owed, monthly, tuple(by_year), sum(by_year) - taken)


@dataclass(frozen=True, slots=True)
class YearRow:
    """A year of the table, whole cents; year 0 is the purchase."""

    year: int
    energy_kwh: float
    price_cents: int
    before_cents: int
    after_cents: int
    saved_cents: int
    upkeep_cents: int
    inverter_cents: int
    incentives_cents: int
    loan_cents: int
    net_cents: int
    running_cents: int
    discounted_cents: int


@dataclass(frozen=True, slots=True)
class Paid:
    """When a purchase has paid for itself, years; ``None``: never within the table.

    ``first``: the running total turns positive; ``lasting``: for the last time.
    """

    first: float | None
    lasting: float | None


@dataclass(frozen=True, slots=True)
class Worth:
    """What a purchase is worth over its years; ``irr_frac`` ``None``: there is none to speak of."""

    paid: Paid
    paid_discounted: Paid
    npv_cents: int
    irr_frac: float | None
    total_cents: int
    kwh_cents: float | None


@dataclass(frozen=True, slots=True, eq=False)
class AgedBills:
    """Energy and bills of a year in which an array makes ``aged_frac`` of what it made new."""

    aged_frac: float
    energy_kwh: float
    bills: YearBills


@dataclass(frozen=True, slots=True, eq=False)
class SunBills:
    """Bills without an array, and with it at some of its ages, new first; years between lie between."""

    without: YearBills
    ages: tuple[AgedBills, ...]

    def at(self, aged: float) -> AgedBills:
        """Return energy and bills at an age between the first and the last."""
        for newer, older in pairwise(self.ages):
            if aged >= older.aged_frac and newer.aged_frac > older.aged_frac:
                share = (newer.aged_frac - aged) / (newer.aged_frac - older.aged_frac)
                energy = newer.energy_kwh + (older.energy_kwh - newer.energy_kwh) * share
                return AgedBills(aged, energy, between(newer.bills, older.bills, share))
        return self.ages[-1] if aged < 1.0 else self.ages[0]


@dataclass(frozen=True, slots=True)
class Purchase:
    """What is bought: ``inverter_cents`` each time it is replaced."""

    gross_cents: int
    inverter_cents: int
    granted: tuple[Granted, ...]
    loan: Borrowed | None


def aged_frac(expected: Expected, year: int) -> float:
    """Return what of the first year's power a year has."""
    assert expected.ageing_frac is not None
    return float((1 - expected.ageing_frac) ** (year - 1))


def rises_by(expected: Expected, year: int) -> tuple[float, float, float]:
    """Return what prices of energy, fixed charges and export prices are in a year, over today's."""
    rises = expected.energy_rise_frac, expected.fixed_rise_frac, expected.export_rise_frac
    energy, fixed, export = ((1 + rise) ** (year - 1) for rise in rises)
    return energy, fixed, export


def upkeep_cents_of(expected: Expected, year: int) -> int:
    """Return what upkeep costs in a year, whole cents."""
    return half_up(expected.upkeep_cents * (1 + expected.upkeep_rise_frac) ** (year - 1))


def year_rows(purchase: Purchase, bills: SunBills, expected: Expected) -> tuple[YearRow, ...]:
    """Return the table, year 0 first.

    Notes
    -----
    Bills of a year lie between those of the nearest two ages that were worked out whole; prices rise
    by (1 + rise)^(year - 1), what is fixed and what export earns each by its own.
    """
    rows: list[YearRow] = []
    arrives, loan = arriving_cents(purchase.granted), purchase.loan
    at_once, lent = arrives.get(0, 0), 0 if loan is None else loan.taken_cents
    running = at_once + lent - purchase.gross_cents
    discounted = float(running)
    rows.append(
        YearRow(
            0, 0.0, purchase.gross_cents, 0, 0, 0, 0, 0, at_once, -lent, running, running, running
        )
    )
    for year in range(1, expected.years + 1):
        aged = bills.at(aged_frac(expected, year))
        rises = rises_by(expected, year)
        before = sum(bills.without.months_cents(*rises))
        after = sum(aged.bills.months_cents(*rises))
        upkeep = upkeep_cents_of(expected, year)
        renewed = purchase.inverter_cents if year == expected.inverter_year else 0
        paid = 0 if loan is None or year > len(loan.by_year_cents) else loan.by_year_cents[year - 1]
        net = before - after - upkeep - renewed + arrives.get(year, 0) - paid
        running += net
        discounted += net / (1 + expected.discount_frac) ** year
        rows.append(
            YearRow(
                year=year,
                energy_kwh=aged.energy_kwh,
                price_cents=0,
                before_cents=before,
                after_cents=after,
                saved_cents=before - after,
                upkeep_cents=upkeep,
                inverter_cents=renewed,
                incentives_cents=arrives.get(year, 0),
                loan_cents=paid,
                net_cents=net,
                running_cents=running,
                discounted_cents=half_up(discounted),
            )
        )
    return tuple(rows)


def worth_of(rows: Sequence[YearRow], expected: Expected) -> Worth:
    """Return what the table comes to."""
    flows = [r.net_cents for r in rows]
    rate = expected.discount_frac
    discounted = [cents / (1 + rate) ** n for n, cents in enumerate(flows)]
    energy = sum(r.energy_kwh / (1 + rate) ** r.year for r in rows)
    # What an array costs, whatever it spares: without its bills, incentives taken off.
    costs = sum((r.saved_cents - r.net_cents) / (1 + rate) ** r.year for r in rows)
    return Worth(
        paid=payback(flows),
        paid_discounted=payback(discounted),
        npv_cents=half_up(sum(discounted)),
        irr_frac=rate_of_return(flows),
        total_cents=sum(flows),
        kwh_cents=costs / energy if energy > 0 else None,
    )


def payback(flows: Sequence[float]) -> Paid:
    """Return when flows, year 0 first, have paid for themselves, between years by share."""
    totals = list(accumulate(flows))
    crossings = [n + (-a / (b - a)) for n, (a, b) in enumerate(pairwise(totals)) if a < 0 <= b]
    first = 0.0 if totals[0] >= 0 else next(iter(crossings), None)
    return (
        Paid(first, crossings[-1] if crossings else first) if totals[-1] >= 0 else Paid(first, None)
    )


def rate_of_return(flows: Sequence[float]) -> float | None:
    """Return the rate at which flows are worth nothing today; ``None`` where none speaks for them.

    There is none where they never come to more than they cost, and none to speak of where they
    change sign more than once.
    """
    signs = [f > 0 for f in flows if f]
    if sum(a != b for a, b in pairwise(signs)) != 1 or sum(flows) < 0:
        return None

    def worth(rate: float) -> float:
        return sum(f / (1 + rate) ** n for n, f in enumerate(flows))

    low, high = LEAST_RATE, MOST_RATE
    if worth(low) * worth(high) > 0:
        return None
    for _ in range(BISECTIONS):
        middle = (low + high) / 2
        low, high = (middle, high) if worth(low) * worth(middle) > 0 else (low, middle)
    return (low + high) / 2
