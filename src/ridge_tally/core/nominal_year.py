"""The year that carries no date: its days are numbered, and named where people read them."""

from datetime import date, timedelta

# Any year without a leap day.
NOMINAL_YEAR = 2025
DAYS = 365
# Where the sun stands highest and lowest in the north, from 0 for the first of January.
JUNE_21, DECEMBER_21 = 171, 354
DAYS_IN_MONTH = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
MONTH_NAMES = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def date_of(day: int) -> date:
    """Return the date in the nominal year of a day, 0 for the first of January."""
    return date(NOMINAL_YEAR, 1, 1) + timedelta(days=day)


def day_of_date(of: date) -> int:
    """Return the number of a date's day in any year; ValueError on the 29th of February."""
    return (of.replace(year=NOMINAL_YEAR) - date(NOMINAL_YEAR, 1, 1)).days


def day_name(day: int) -> str:
    """Return a day as people write it, such as 4 Mar."""
    return f"{date_of(day):%-d %b}"
