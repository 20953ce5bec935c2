"""Files of metered use and of a test module's power, as meters write them."""

import math
from datetime import datetime, timedelta

START = datetime(2025, 1, 1)  # noqa: DTZ001 - a meter's own clock


def use_csv(kwh_per_hour: float = 0.5) -> bytes:
    """A year of hours alike."""
    rows = ["time,use kWh"]
    rows += [f"{START + timedelta(hours=i):%Y-%m-%d %H:%M},{kwh_per_hour}" for i in range(365 * 24)]
    return "\n".join(rows).encode()


def power_csv(top_w: float = 300.0, noon_h: float = 12.0, month: int = 4, day: int = 18) -> bytes:
    """A clear day of one module in steps of five minutes: a half sine over twelve hours."""
    rows = ["Time,Power W"]
    for i in range(288):
        hour = i / 12
        watts = max(0.0, top_w * math.cos((hour + 1 / 24 - noon_h) / 12 * math.pi))
        rows.append(
            f"{START.replace(month=month, day=day) + timedelta(hours=hour):%Y-%m-%d %H:%M},{watts:.1f}"
        )
    return "\n".join(rows).encode()
