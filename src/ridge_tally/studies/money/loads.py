"""What a load to come does to the bills, and the fuel it displaces: with an array and without."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.job.brief import Load
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.ids import LoadId
from ridge_tally.editing.design import design_in
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.need import need_of
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.money.saved import bills_cents


@dataclass(frozen=True, slots=True)
class LoadMoney:
    """A load by itself: the year's bills with all loads less those with all but this one.

    ``displaced`` of a fuel in ``unit``, worth ``fuel_cents`` at the price typed; ``None`` while
    none is.  It is the load's benefit, not the array's.
    """

    load_id: LoadId
    name: str
    energy_kwh: float
    bill_alone_cents: int
    bill_with_sun_cents: int
    displaced: float
    unit: str
    fuel_price_cents: float | None
    fuel_cents: int | None


def loads_money(desk: Desk, design: Design) -> Iterator[LoadMoney]:
    """Yield what each load to come does to the bills; nothing while no use or tariff is known."""
    job, year = design.job, hourly_year(desk, design)
    whole = bills_cents(desk, design, year)
    prices = {p.load_id: p.cents for p in job.money.fuel_prices}
    for load, its in need_of(job).loads:
        rest = tuple(other for other in job.brief.loads if other.id != load.id)
        # What the sun gives is the same with the load and without.
        less = bills_cents(desk, design_in(_with_loads(job, rest), design.option.id), year)
        if whole is None or less is None:
            continue
        price = prices.get(load.id)
        yield LoadMoney(
            load_id=load.id,
            name=load.name,
            energy_kwh=its.energy_kwh,
            bill_alone_cents=whole[0] - less[0],
            bill_with_sun_cents=whole[1] - less[1],
            displaced=its.displaced_fuel,
            unit=its.displaced_unit,
            fuel_price_cents=price,
            fuel_cents=None if price is None else round(its.displaced_fuel * price),
        )


def _with_loads(job: Job, loads: tuple[Load, ...]) -> Job:
    return replace(job, brief=replace(job.brief, loads=loads))
