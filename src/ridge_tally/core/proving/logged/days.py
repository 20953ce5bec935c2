"""Days and months of a log against what was due: ratios, performance ratio, and their bands."""

from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.proving.logged.steps import LEFT_OUT, FloatArray, Sorted, What

# How far from what is due a month may be: fine, or worth a look; by light measured in the plane, and
# by light that is a model's.
# Common practice, no source.
BANDS = {True: (0.05, 0.10), False: (0.10, 0.15)}
# A day is judged with this much light, kWh/m², and of what was due.
LEAST_LIGHT_KWH_PER_M2, LEAST_DUE_FRAC = 1.0, 0.4
LEAST_DAYS_OF_MONTH = 3
STC_DEGC = 25.0


class LogStanding(StrEnum):
    """How a day or month stands to what was due."""

    FINE = "fine"
    LOOK = "look"
    ACT = "act"
    UNJUDGED = "not judged"


@dataclass(frozen=True, slots=True, eq=False)
class Days:
    """(d,) each: kWh made and due in all and of what is judged, over it the ratio, NaN if none."""

    made_kwh: FloatArray
    due_kwh: FloatArray
    judged_made_kwh: FloatArray
    judged_due_kwh: FloatArray
    ratio: FloatArray


@dataclass(frozen=True, slots=True)
class Month:
    """A month of a log.

    ``ratio``: made over due of its judged days.  ``performance_frac``: kWh over rated kW and the
    light's kWh/m², ``at_25_frac`` the same at cells of 25 °C; nothing without measured light.
    ``left_out_h``: hours by why they are not judged.
    """

    year: int
    month: int
    logged_days: int
    judged_days: int
    made_kwh: float
    due_kwh: float
    ratio: float | None
    performance_frac: float | None
    at_25_frac: float | None
    light_kwh_per_m2: float | None
    left_out_h: tuple[tuple[What, float], ...]
    standing: LogStanding


def standing_of(ratio: float | None, *, in_plane: bool) -> LogStanding:
    """Return how a ratio stands in its band."""
    if ratio is None or not np.isfinite(ratio):
        return LogStanding.UNJUDGED
    fine, look = BANDS[in_plane]
    # Half a thousandth: as it is shown, so it is judged.
    off = round(abs(ratio - 1), 3)
    return LogStanding.FINE if off <= fine else LogStanding.LOOK if off <= look else LogStanding.ACT


def judged_days(one: Sorted) -> Days:
    """Return a log's days."""
    log, kept = one.log, one.kept
    lit = one.what != What.NIGHT
    made, due = one.kwh(log.made_w, kept), one.kwh(log.due_w, kept)
    whole_due = one.kwh(log.due_w, lit)
    light = one.kwh(log.light_w_per_m2, kept)
    enough = due >= LEAST_DUE_FRAC * whole_due
    if log.light_measured:
        enough &= light >= LEAST_LIGHT_KWH_PER_M2
    ratio = np.where(enough & (due > 0), made / np.maximum(due, 1e-9), np.nan)
    logged = lit & np.isfinite(log.made_w)
    return Days(one.kwh(log.made_w, logged), whole_due, made, due, ratio)


def months_of(one: Sorted, days: Days, first_day: date, gamma_per_k: float) -> tuple[Month, ...]:
    """Return a log's months; ``gamma_per_k``: how the modules' power goes with heat, below 0."""
    dates = [first_day + timedelta(days=n) for n in range(len(days.ratio))]
    keys = np.array([d.year * 12 + d.month - 1 for d in dates])
    return tuple(_month(one, days, keys == key, int(key), gamma_per_k) for key in np.unique(keys))


def _month(one: Sorted, days: Days, mine: NDArray[np.bool_], key: int, gamma_per_k: float) -> Month:
    log = one.log
    use = mine & np.isfinite(days.ratio)
    made, due = float(days.judged_made_kwh[use].sum()), float(days.judged_due_kwh[use].sum())
    enough = int(use.sum()) >= LEAST_DAYS_OF_MONTH
    ratio = made / due if enough and due > 0 else None
    performance, at_25, light = _performance(one, use, gamma_per_k)
    hours = tuple((w, float((one.what[mine] == w).sum() * log.step_h)) for w in LEFT_OUT)
    logged = np.isfinite(log.made_w[mine]).any(axis=1)
    return Month(
        key // 12, key % 12 + 1, int(logged.sum()), int(use.sum()),
        float(days.made_kwh[mine].sum()), float(days.due_kwh[mine].sum()), ratio,
        performance if enough else None, at_25 if enough else None, light,
        tuple(h for h in hours if h[1] > 0), standing_of(ratio, in_plane=log.in_plane),
    )  # fmt: skip


def _performance(
    one: Sorted, use: NDArray[np.bool_], gamma_per_k: float
) -> tuple[float | None, float | None, float | None]:
    """Return the performance ratio, the same at 25 °C, and the light it is by, kWh/m².

    Notes
    -----
    kWh over rated kW and kWh/m² of light in the plane, IEC 61724-1; at 25 °C by the cells'
    temperature weighted with the light.
    """
    log = one.log
    if not log.light_measured:
        return None, None, None
    kept = one.kept & use[:, None]
    light = np.where(kept, np.nan_to_num(log.light_w_per_m2), 0.0)
    light_kwh = float(light.sum()) * log.step_h / 1000
    if light_kwh <= 0:
        return None, None, None
    made_kwh = float(one.kwh(log.made_w, kept).sum())
    ratio = made_kwh / (log.rated_dc_w / 1000 * light_kwh)
    cells = float((light * np.nan_to_num(log.cell_degc)).sum() / light.sum())
    return ratio, ratio / (1 + gamma_per_k * (cells - STC_DEGC)), light_kwh
