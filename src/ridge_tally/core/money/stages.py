"""What a house pays year by year where it buys in stages, or later than today."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ridge_tally.core.job.money import Expected
from ridge_tally.core.money.years import SunBills, aged_frac, rises_by, upkeep_cents_of


@dataclass(frozen=True, slots=True, eq=False)
class Stage:
    """What is bought ``at`` the end of a year, 0 for today, and the bills from then on.

    ``arrives``: incentives, by years from then; ``renewed_cents``: what replacing this stage's
    inverters costs.
    """

    at: int
    price_cents: int
    arrives: Mapping[int, int]
    renewed_cents: int
    bills: SunBills


def staged_flows(stages: Sequence[Stage], expected: Expected) -> tuple[int, ...]:
    """Return the flows of the table's years in whole cents, today first; the stages in their order.

    Notes
    -----
    Prices of energy rise from today, whenever an array is bought.  All modules have the age of the
    first ones: a later stage is a little younger than it is taken for.
    """
    flows = [0] * (expected.years + 1)
    for stage in stages:
        for year, cents in (
            (stage.at, -stage.price_cents),
            (stage.at + expected.inverter_year, -stage.renewed_cents),
            *((stage.at + k, cents) for k, cents in stage.arrives.items()),
        ):
            if year <= expected.years:
                flows[year] += cents
    for year in range(stages[0].at + 1, expected.years + 1):
        stands = [s for s in stages if s.at < year][-1].bills
        aged = stands.at(aged_frac(expected, year - stages[0].at))
        rises = rises_by(expected, year)
        saved = sum(stands.without.months_cents(*rises)) - sum(aged.bills.months_cents(*rises))
        flows[year] += saved - upkeep_cents_of(expected, year)
    return tuple(flows)
