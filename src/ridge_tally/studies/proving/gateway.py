"""A stand-in for a gateway: the log of an array under made-up skies, with a trouble planted by a number."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from enum import StrEnum
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.ids import PlacedId
from ridge_tally.formats.production_file import DAY_MIN, ProductionLog
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.logged_due import LoggedDue, cloudless_light, logged_due

FloatArray = NDArray[np.float64]
STEP_MIN = 15
PER_DAY = DAY_MIN // STEP_MIN
# How days are: clear, broken, closed; invented, as is what each lets through.
CLEAR_SHARE, BROKEN_SHARE = 0.4, 0.4
CLEAR_FRAC, BROKEN_FRAC, CLOSED_FRAC = 0.95, (0.2, 1.05), (0.15, 0.4)
NOISE_FRAC = 0.005
HOUR = timedelta(hours=1)


class Trouble(StrEnum):
    """What a log may have gone through."""

    DIRT = "dirt"
    STRING_OUT = "string-out"
    HOT = "hot"
    LIMIT = "limit"
    TRIPS = "trips"
    STOOD_STILL = "stood-still"
    NOTHING = "nothing"


TROUBLES = tuple(Trouble)


@dataclass(frozen=True, slots=True)
class Gateway:
    """What a stand-in logs: from a day on, so many days, its skies and trouble by ``number``.

    ``light``: whether it has a light meter in the plane of the largest array.  ``zone``: it keeps
    the local clock of that place; nothing for standard time.
    """

    first: date
    days: int
    number: int
    light: bool = True
    zone: str = ""

    @property
    def trouble(self) -> Trouble:
        """What is planted."""
        return TROUBLES[self.number % len(TROUBLES)]


def skies(gateway: Gateway) -> FloatArray:
    """Return (d, 96): what made-up skies let through of a cloudless one's light."""
    rng = np.random.default_rng(gateway.number)
    kind = rng.random(gateway.days)
    out = np.full((gateway.days, PER_DAY), CLEAR_FRAC)
    hours = np.arange(25)
    steps = np.arange(PER_DAY) / 4
    for day in np.flatnonzero(kind >= CLEAR_SHARE):
        if kind[day] < CLEAR_SHARE + BROKEN_SHARE:
            out[day] = np.interp(steps, hours, rng.uniform(*BROKEN_FRAC, 25))
        else:
            out[day] = rng.uniform(*CLOSED_FRAC)
    return out


def sound_log(desk: Desk, design: Design, gateway: Gateway) -> tuple[ProductionLog, LoggedDue]:
    """Return the log of a sound array under a gateway's skies, and what was due.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If no module is in a string, or a datasheet lacks what the model needs.
    """
    light = cloudless_light(desk, design, gateway.first, gateway.days, STEP_MIN) * skies(gateway)
    blank = ProductionLog(
        gateway.first, STEP_MIN, np.zeros_like(light), light, False, None, None, (), "", (),
        STEP_MIN, 0, zoned=False, corrections=(),
    )  # fmt: skip
    due = logged_due(desk, design, blank)
    rng = np.random.default_rng(gateway.number + 1)
    made = due.steps.due_w * (1 + rng.normal(0, NOISE_FRAC, light.shape))
    return replace(blank, power_w=made), due


def _dirty(made: FloatArray, _: LoggedDue) -> FloatArray:
    """A third of a per cent a day, washed off after forty days."""
    day = np.arange(len(made))[:, None] % 40
    return np.asarray(made * (1 - 0.0033 * day))


def _string_out(made: FloatArray, due: LoggedDue) -> FloatArray:
    """One string is out from the middle on."""
    out, middle = made.copy(), len(made) // 2
    strings, share = max(due.shares, key=lambda s: float(s[1].mean()) / max(1, s[0]))
    out[middle:] *= 1 - share[middle:] / max(1, strings)
    return out


def _hot(made: FloatArray, due: LoggedDue) -> FloatArray:
    """In the bright of every second day the inverter steps down to a fifth."""
    out = made.copy()
    level = 0.2 * due.steps.limit_w
    hot = np.zeros(made.shape, bool)
    hot[::2, 50:60] = True
    return np.where(hot & (out > 1.3 * level), level, out)


def _limited(made: FloatArray, due: LoggedDue) -> FloatArray:
    return np.minimum(made, 0.55 * due.steps.rated_w)


def _tripped(made: FloatArray, _: LoggedDue) -> FloatArray:
    out = made.copy()
    out[3::6, 52:54] = 0.0
    return out


def _stood_still(made: FloatArray, _: LoggedDue) -> FloatArray:
    out = made.copy()
    third = len(made) // 3
    out[third : third + 3] = 0.0
    return out


TROUBLED: dict[Trouble, Callable[[FloatArray, LoggedDue], FloatArray]] = {
    Trouble.DIRT: _dirty,
    Trouble.STRING_OUT: _string_out,
    Trouble.HOT: _hot,
    Trouble.LIMIT: _limited,
    Trouble.TRIPS: _tripped,
    Trouble.STOOD_STILL: _stood_still,
    Trouble.NOTHING: lambda made, _: made,
}


def gateway_csv(
    desk: Desk, design: Design, gateway: Gateway, cells: list[tuple[str, tuple[PlacedId, ...]]]
) -> str:
    """Return the file a stand-in of a gateway writes; raises as ``sound_log`` does.

    Parameters
    ----------
    cells : list of (name, modules)
        The units that report by themselves, even parts of the whole, one of them weak; or none.
    """
    log, due = sound_log(desk, design, gateway)
    made = TROUBLED[gateway.trouble](log.power_w, due)
    light = log.light_w_per_m2
    assert light is not None
    # A gateway that was not reached for a night and a morning.
    made[len(made) // 4, 30:42] = np.nan
    names = ["Time", "AC power [W]", *(["Light in plane [W/m2]"] if gateway.light else [])]
    names += [f"{name} [W]" for name, _ in cells]
    rows = [";".join(names)]
    weak = gateway.number % len(cells) if cells else -1
    zone = ZoneInfo(gateway.zone) if gateway.zone else None
    midnight = np.datetime64(gateway.first, "m")
    ahead = _ahead(design, gateway, zone)
    for n, (power, sun) in enumerate(zip(made.ravel(), light.ravel(), strict=True)):
        when = midnight + np.timedelta64(n * STEP_MIN + int(ahead[n // PER_DAY]) * 60, "m")
        told = [str(when).replace("T", " "), "" if np.isnan(power) else f"{power:.0f}"]
        if gateway.light:
            told.append(f"{sun:.0f}")
        told += [
            "" if np.isnan(power) else f"{power / len(cells) * (0.8 if k == weak else 1.0):.1f}"
            for k in range(len(cells))
        ]
        rows.append(";".join(told))
    return "\n".join(rows) + "\n"


def _ahead(design: Design, gateway: Gateway, zone: ZoneInfo | None) -> list[float]:
    """Return by how many hours the local clock is ahead of standard time, day by day."""
    if zone is None:
        return [0.0] * gateway.days
    noons = [
        datetime(d.year, d.month, d.day, 12, tzinfo=zone)
        for d in (gateway.first + timedelta(days=n) for n in range(gateway.days))
    ]
    standard = design.job.site.utc_offset_h
    return [(noon.utcoffset() or timedelta()) / HOUR - standard for noon in noons]
