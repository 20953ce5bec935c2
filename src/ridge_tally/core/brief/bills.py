"""Reading bills row by row, and the year of use they tell."""

from dataclasses import dataclass, replace
from datetime import date, timedelta

from ridge_tally.core.brief.tariff import bill_cents, energy_for_bill_kwh
from ridge_tally.core.brief.typed import parse_day, parse_energy_kwh, parse_money_cents
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.brief import BillRow
from ridge_tally.core.job.grid import Tariff
from ridge_tally.core.job.ids import BillId
from ridge_tally.core.nominal_year import DAYS_IN_MONTH, MONTH_NAMES
from ridge_tally.core.units import day_text

SEASONS = ((12, 1, 2), (3, 4, 5), (6, 7, 8), (9, 10, 11))
NORTHERN = ("winter", "spring", "summer", "autumn")
LONGEST_BILL_DAYS = 370
# A house that buys more is possible; a typing slip is likelier. Common practice, no source.
UNUSUAL_KWH_PER_DAY = 150.0
UNUSUAL_CENTS_PER_KWH = (1.0, 200.0)
SWAPPED_WITHIN_FRAC = 0.2


@dataclass(frozen=True, slots=True)
class ReadBill:
    """A row as it was understood; a row with a ``problem`` counts for nothing until mended.

    A row with days alone waits for its energy: ``energy_kwh`` is ``None`` without a problem.
    ``problem_field`` is ``first_day``, ``last_day``, ``energy``, ``cost`` or empty for the row.
    """

    id: BillId
    first_day: date | None = None
    last_day: date | None = None
    days: int = 0
    energy_kwh: float | None = None
    from_cost: bool = False
    cost_cents: int | None = None
    problem: str = ""
    problem_field: str = ""
    warning: str = ""


@dataclass(frozen=True, slots=True)
class Usage:
    """A year of use in 365 days; ``billed_kwh`` is the part of each month the bills cover."""

    energy_kwh: float
    monthly_kwh: tuple[float, ...]
    billed_kwh: tuple[float, ...]
    days_covered: int
    origin: str
    warnings: tuple[str, ...]
    first_day: date | None = None


def read_bills(
    rows: tuple[BillRow, ...], tariff: Tariff | None, *, month_first: bool
) -> tuple[ReadBill, ...]:
    """Return what each row says, in the order of the rows; rows without any text are left out.

    Parameters
    ----------
    rows : tuple of BillRow
        As typed.
    tariff : Tariff or None
        Turns a cost without energy into kWh; without one such a row has a problem.
    month_first : bool
        How ``3/4/2025`` is read.
    """
    filled = [r for r in rows if any((r.first_day, r.last_day, r.energy, r.cost))]
    read = [_texts_read(row, month_first=month_first) for row in filled]
    dated = _days_counted(read)
    return tuple(_energy_told(bill, tariff) for bill in dated)


def _texts_read(row: BillRow, *, month_first: bool) -> ReadBill:
    bill = ReadBill(row.id)
    field = "first_day"
    try:
        bill = replace(bill, first_day=parse_day(row.first_day, "From", month_first=month_first))
        field = "last_day"
        bill = replace(bill, last_day=parse_day(row.last_day, "To", month_first=month_first))
        field = "cost"
        if row.cost:
            bill = replace(bill, cost_cents=round(parse_money_cents(row.cost, "Money")))
        field = "energy"
        if row.energy:
            bill = replace(bill, energy_kwh=parse_energy_kwh(row.energy, "kWh"))
    except RidgeTallyError as error:
        missing = not getattr(row, field)
        sentence = "The day is missing." if missing else str(error)
        return replace(bill, problem=sentence, problem_field=field)
    assert bill.first_day is not None
    assert bill.last_day is not None
    length = (bill.last_day - bill.first_day).days + 1
    if length < 1:
        return _faulty(bill, "last_day", "The bill ends before it begins: swap the two days.")
    if length > LONGEST_BILL_DAYS:
        sentence = f"{length} days is longer than a year: type the yearly figure instead."
        return _faulty(bill, "last_day", sentence)
    return bill


def _days_counted(bills: list[ReadBill]) -> list[ReadBill]:
    """Return the bills with their days; a reading day that two bills share counts once.

    A bill that begins inside an earlier one has a problem.
    """
    place = {bill.id: index + 1 for index, bill in enumerate(bills)}
    sound = sorted((b for b in bills if not b.problem), key=lambda b: (_first(b), place[b.id]))
    begins = {_first(b) for b in sound}
    shares = any(_last(b) in begins and _first(b) < _last(b) for b in sound)
    done: dict[BillId, ReadBill] = {}
    before: ReadBill | None = None
    for bill in sound:
        if before is not None and _first(bill) < _last(before):
            days = (_last(before) - _first(bill)).days
            done[bill.id] = _faulty(
                bill,
                "first_day",
                f"Overlaps the bill of {day_text(_first(before))} to {day_text(_last(before))} "
                f"(row {place[before.id]}) by {days} day{'s' if days > 1 else ''}.",
            )
            continue
        followed = _last(bill) + timedelta(days=1) in begins
        open_ended = shares and not followed and _first(bill) < _last(bill)
        days = (_last(bill) - _first(bill)).days + (0 if open_ended else 1)
        done[bill.id] = replace(bill, days=days)
        before = bill
    return [done.get(bill.id, bill) for bill in bills]


def _energy_told(bill: ReadBill, tariff: Tariff | None) -> ReadBill:
    if bill.energy_kwh is not None and not bill.problem:
        return _caveated(bill, tariff)
    if bill.problem or bill.cost_cents is None:
        return bill
    if tariff is None:
        sentence = "Type the kWh, or choose the grid rules: their tariff turns money into kWh."
        return _faulty(bill, "energy", sentence)
    try:
        energy_kwh = energy_for_bill_kwh(tariff, bill.cost_cents, bill.days)
    except RidgeTallyError as error:
        return _faulty(bill, "cost", str(error))
    if energy_kwh > UNUSUAL_KWH_PER_DAY * bill.days:
        return _faulty(
            bill,
            "cost",
            f"{bill.cost_cents / 100:,.2f} would be {energy_kwh:,.0f} kWh, "
            f"{energy_kwh / bill.days:,.0f} kWh a day: is {bill.cost_cents / 100:,.0f} the kWh? "
            "Then it belongs in the kWh column.",
        )
    return replace(bill, energy_kwh=energy_kwh, from_cost=True)


def _caveated(bill: ReadBill, tariff: Tariff | None) -> ReadBill:
    """Return the bill, with a warning where energy and cost do not go together."""
    assert bill.energy_kwh is not None
    if bill.energy_kwh > UNUSUAL_KWH_PER_DAY * bill.days:
        per_day = bill.energy_kwh / bill.days
        return replace(bill, warning=f"{per_day:,.0f} kWh a day is a lot for a house: check it.")
    if not bill.cost_cents or not bill.energy_kwh:
        return bill
    if tariff is not None:
        swapped = bill_cents(tariff, bill.cost_cents / 100, bill.days)
        as_typed = bill_cents(tariff, bill.energy_kwh, bill.days)
        fits = abs(swapped - bill.energy_kwh * 100) <= SWAPPED_WITHIN_FRAC * swapped
        if fits and abs(as_typed - bill.cost_cents) > SWAPPED_WITHIN_FRAC * as_typed:
            return _faulty(
                bill,
                "cost",
                f"With {bill.cost_cents / 100:,.0f} kWh the tariff gives "
                f"{swapped / 100:,.2f}: kWh and money look swapped.",
            )
    price = bill.cost_cents / bill.energy_kwh
    low, high = UNUSUAL_CENTS_PER_KWH
    if not low <= price <= high:
        sentence = f"{price / 100:,.3f} for each kWh is unusual: is one column in the other?"
        return replace(bill, warning=sentence)
    return bill


def usage_of_bills(bills: tuple[ReadBill, ...], *, southern: bool) -> Usage | None:
    """Return the year that the sound bills tell; ``None`` without one.

    Notes
    -----
    A bill's energy is spread evenly over its days.  A month covered more than once, or a
    February of 29 days, is brought to its 28, 30 or 31 days; days without a bill get the
    mean of the days that have one.  So for bills of less than a year
    year = energy of all bills * 365 / days covered.
    """
    sound = [b for b in bills if not b.problem and b.energy_kwh is not None]
    if not sound:
        return None
    energy, covered = [0.0] * 12, [0.0] * 12
    for bill in sound:
        assert bill.energy_kwh is not None
        for offset in range(bill.days):
            month = (_first(bill) + timedelta(days=offset)).month - 1
            energy[month] += bill.energy_kwh / bill.days
            covered[month] += 1
    for month, length in enumerate(DAYS_IN_MONTH):
        if covered[month] > length:
            energy[month] *= length / covered[month]
            covered[month] = float(length)
    days = round(sum(covered))
    mean = sum(energy) / days
    monthly = tuple(
        e + (length - c) * mean for e, c, length in zip(energy, covered, DAYS_IN_MONTH, strict=True)
    )
    warnings = []
    if days < 365:
        warnings.append(
            f"The bills cover {days} of 365 days; the other days take their mean, {mean:.1f} kWh a day"
        )
    warnings += _missing_seasons(covered, southern=southern)
    count = len(sound)
    return Usage(
        sum(monthly), monthly, tuple(energy), days,
        f"{count} bill{'s' if count > 1 else ''} over {days} days", tuple(warnings),
        min(_first(b) for b in sound),
    )  # fmt: skip


def _missing_seasons(covered: list[float], *, southern: bool) -> list[str]:
    """Return a warning for each season of which the bills cover less than half."""
    names = NORTHERN[2:] + NORTHERN[:2] if southern else NORTHERN
    found = []
    for name, months in zip(names, SEASONS, strict=True):
        length = sum(DAYS_IN_MONTH[m - 1] for m in months)
        have = sum(covered[m - 1] for m in months)
        if have < length / 2:
            first, last = MONTH_NAMES[months[0] - 1], MONTH_NAMES[months[-1] - 1]
            how = "No bill covers" if have == 0 else f"Only {have:.0f} days of bills cover"
            found.append(f"{how} {name} ({first} to {last}): what it uses is guessed")
    return found


def usage_of_year(energy_kwh: float) -> Usage:
    """Return a typed yearly figure as a year, spread by days."""
    monthly = tuple(energy_kwh * days / 365 for days in DAYS_IN_MONTH)
    return Usage(
        energy_kwh, monthly, (0.0,) * 12, 0, "the yearly figure typed",
        ("One yearly figure: the months are spread evenly, which no house is",),
    )  # fmt: skip


def _faulty(bill: ReadBill, field: str, sentence: str) -> ReadBill:
    return replace(bill, problem=sentence, problem_field=field)


def _first(bill: ReadBill) -> date:
    assert bill.first_day is not None
    return bill.first_day


def _last(bill: ReadBill) -> date:
    assert bill.last_day is not None
    return bill.last_day
