"""What must hold of a job's weather before a year is reckoned from it."""

import math

from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.weather import MONTHS, Monthly
from ridge_tally.rules.distinct import require_distinct

# Name with its unit, lowest, highest.
KINDS: dict[Monthly, tuple[str, float, float]] = {
    Monthly.CLEARNESS: ("Clearness, a fraction of the light outside the air", 0.1, 0.8),
    Monthly.MEAN_AIR: ("Mean air in °C", -50.0, 45.0),
    Monthly.MAX_AIR: ("Mean of the days' highest in °C", -50.0, 55.0),
    Monthly.MIN_AIR: ("Mean of the days' lowest in °C", -60.0, 40.0),
    Monthly.WIND: ("Wind in m/s", 0.0, 25.0),
    Monthly.REFLECTION: ("Ground reflection, a fraction", 0.0, 0.95),
    Monthly.SOILING: ("Soiling, a fraction", 0.0, 0.9),
    Monthly.SNOWFALL: ("Snowfall in centimetres", 0.0, 1500.0),
}


def require_sound_weather(job: Job) -> None:
    """Raise on the first month or place of the weather that cannot be.

    Raises
    ------
    OutOfRange
        Naming the quantity, the month's value and what it may be.
    """
    weather = job.weather
    require_distinct("Month tables of the weather", [m.quantity for m in weather.months])
    for table in weather.months:
        name, low, high = KINDS[table.quantity]
        if len(table.values) != MONTHS:
            raise OutOfRange(f"{name}, months", len(table.values), "twelve")
        for value in table.values:
            if not (math.isfinite(value) and low <= value <= high):
                raise OutOfRange(name, value, f"between {low:g} and {high:g}")
    if weather.file is not None:
        file = weather.file
        for what, value, most in (
            ("latitude", file.latitude_deg, 90.0),
            ("longitude", file.longitude_deg, 180.0),
            ("elevation in metres", file.elevation_m, 9000.0),
        ):
            if not abs(value) <= most:
                raise OutOfRange(f"{file.file}, {what}", value, f"between −{most:g} and {most:g}")
