"""Hours with a price of their own, as people type them and as they are written back."""

import re
from itertools import groupby

from ridge_tally.core.brief.typed import parse_day_of_year, parse_kwh_price_cents
from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.job.grid import PriceDays, RatePeriod
from ridge_tally.core.nominal_year import MONTH_NAMES, day_name
from ridge_tally.core.units import one_line

ALL_MONTHS = tuple(range(1, 13))
_HOURS = re.compile(r"(\d{1,2})(?::00)? ?(?:-|–|to) ?(\d{1,2})(?::00)? ?h?", re.IGNORECASE)
MIDNIGHT = 24


def typed_period(
    name: str, months: str, days: PriceDays, hours: str, buy: str, sell: str
) -> RatePeriod:
    """Return a period of what was typed: ``Jun-Sep``, ``16-21``, cents; without hours all that are left.

    Raises
    ------
    NotUnderstood
        Naming the field, what was typed and what it reads.
    """
    title = one_line(name, "Name of the hours", "a name such as peak")
    rest = not hours.strip()
    from_h, to_h = (0, MIDNIGHT) if rest else _hours(hours)
    price = f"Price, {title}"
    return RatePeriod(
        title,
        ALL_MONTHS if rest else parse_months(months, f"Months, {title}"),
        PriceDays.EVERY if rest else days,
        from_h,
        to_h,
        parse_kwh_price_cents(buy, price, "cents such as 32.5"),
        parse_kwh_price_cents(sell, f"Paid for export, {title}", "cents such as 6")
        if sell.strip()
        else None,
        rest,
    )


def _hours(typed: str) -> tuple[int, int]:
    found = _HOURS.fullmatch(typed.strip())
    if found is None:
        raise NotUnderstood("Hours", typed, "hours such as 16-21, or 22-6 across midnight")
    from_h, to_h = int(found[1]), int(found[2])
    if from_h >= MIDNIGHT or to_h > MIDNIGHT or from_h == to_h:
        raise NotUnderstood("Hours", typed, "hours from 0 to 24 such as 16-21")
    return from_h, to_h


def parse_months(typed: str, field: str) -> tuple[int, ...]:
    """Return months 1 to 12 of ``Jun-Sep, Dec``; all of them where nothing was typed."""
    if not typed.strip():
        return ALL_MONTHS
    found: set[int] = set()
    for part in typed.replace("–", "-").split(","):
        first, _, last = (p.strip() for p in part.partition("-"))
        a = _month(first, field, typed)
        b = _month(last, field, typed) if last else a
        found.update(range(a, b + 1) if a <= b else [*range(a, 13), *range(1, b + 1)])
    return tuple(sorted(found))


def _month(word: str, field: str, typed: str) -> int:
    if word.isdigit() and 1 <= int(word) <= 12:
        return int(word)
    short = word[:3].capitalize()
    if short not in MONTH_NAMES:
        raise NotUnderstood(field, typed, "months such as Jun-Sep")
    return MONTH_NAMES.index(short) + 1


def write_months(months: tuple[int, ...]) -> str:
    """Return months as they are typed: ``Jun-Sep, Dec``; empty for all."""
    if months == ALL_MONTHS:
        return ""
    parts = []
    for _, group in groupby(enumerate(months), lambda pair: pair[1] - pair[0]):
        run = [MONTH_NAMES[m - 1] for _, m in group]
        parts.append(run[0] if len(run) == 1 else f"{run[0]}-{run[-1]}")
    return ", ".join(parts)


def write_hours(period: RatePeriod) -> str:
    """Return hours as they are typed: ``16-21``; empty for all that are left."""
    return "" if period.rest else f"{period.from_h}-{period.to_h}"


def parse_days(typed: str, field: str, *, month_first: bool) -> tuple[int, ...]:
    """Return days of any year, from 0, of ``1 Jan, 25 Dec``; NotUnderstood where one is none."""
    parts = (p.strip() for p in typed.split(","))
    return tuple(parse_day_of_year(p, field, month_first=month_first) for p in parts if p)


def write_days(days: tuple[int, ...]) -> str:
    """Return days of the year as they are typed: ``1 Jan, 25 Dec``."""
    return ", ".join(map(day_name, days))
