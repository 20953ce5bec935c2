"""A log's clock against the sun: shifted as a whole, or for a while."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
# Our own lines.  A clock further off than this is wrong; errors of clocks come in half hours.
LEAST_OFF_H, COARSE_H, MOST_OFF_H = 0.7, 0.5, 13.0
# A wrong clock fits so much worse that a chance is ruled out; a spell of one has some days.
LEAST_GAIN, LEAST_GAIN_OF_DAY, LEAST_SPELL_DAYS, MOST_SPELLS = 0.02, 0.015, 5, 6
# So alike, at one hour or another, only a cloudless day is; clouds tell no clock.
CUT_FRAC = 0.4
ALIKE, LEAST_ALIKE_DAYS = 0.985, 3


@dataclass(frozen=True, slots=True)
class Off:
    """From a day, numbered from 0, to before another the log is so many hours late."""

    first: int
    end: int
    late_h: float


def clock_off(made_w: FloatArray, due_w: FloatArray, step_h: float) -> tuple[Off, ...]:
    """Return where (d, p) logged power comes at other hours than the power due.

    By how alike both run at each shift; clouds blur that, and shift it nowhere.
    """
    days, per_day = made_w.shape
    if per_day == 1:
        return ()
    made, due_w = _edges(made_w), _edges(due_w)
    coarse = max(1, round(COARSE_H / step_h))
    most = round(MOST_OFF_H / step_h)
    shifts = np.arange(-(most // coarse), most // coarse + 1) * coarse
    flat, due = made.ravel(), due_w.ravel()
    alike = np.array([_alike(np.roll(flat, -k), due) for k in shifts])
    best = int(np.argmax(alike))
    whole = int(shifts[best])
    gain = alike[best] - alike[len(shifts) // 2]
    if abs(whole) * step_h < LEAST_OFF_H or gain < LEAST_GAIN:
        whole = 0
    found = [Off(0, days, whole * step_h)] if whole else []
    made = np.roll(flat, -whole).reshape(days, per_day)
    hour = round(1 / step_h)
    found += _spells(made, due_w, hour)
    return tuple(found)


def _edges(power_w: FloatArray) -> FloatArray:
    """Return days cut off at a part of their top: mornings and evenings tell the clock, limits do not."""
    power = np.nan_to_num(power_w)
    return np.asarray(np.minimum(power, CUT_FRAC * power.max(axis=1, keepdims=True)))


def _spells(made: FloatArray, due: FloatArray, hour: int) -> Iterator[Off]:
    here = _by_day(made, due)
    late = _by_day(np.roll(made, -hour, axis=1), due)
    early = _by_day(np.roll(made, hour, axis=1), due)
    telling = np.maximum(here, np.maximum(late, early)) > ALIKE
    gains = {
        1.0: np.where(telling, late - here - LEAST_GAIN_OF_DAY, 0.0),
        -1.0: np.where(telling, early - here - LEAST_GAIN_OF_DAY, 0.0),
    }
    for _ in range(MOST_SPELLS):
        spells = [(*_best_run(gain), h) for h, gain in gains.items()]
        first, end, total, off_h = max(spells, key=lambda s: s[2])
        few = int((gains[off_h][first:end] > 0).sum()) < LEAST_ALIKE_DAYS
        if end - first < LEAST_SPELL_DAYS or few or total < LEAST_ALIKE_DAYS * LEAST_GAIN_OF_DAY:
            return
        yield Off(first, end, off_h)
        for gain in gains.values():
            gain[first:end] = -1.0


def _by_day(made: FloatArray, due: FloatArray) -> FloatArray:
    """Return (d,) how alike each day runs: 0 where nothing was made."""
    a = made - made.mean(axis=1, keepdims=True)
    b = due - due.mean(axis=1, keepdims=True)
    over = np.sqrt((a**2).sum(axis=1) * (b**2).sum(axis=1))
    return np.where(over > 0, (a * b).sum(axis=1) / np.maximum(over, 1e-9), 0.0)


def _alike(one: FloatArray, other: FloatArray) -> float:
    over = float(np.std(one) * np.std(other))
    return float(np.mean((one - one.mean()) * (other - other.mean()))) / over if over > 0 else 0.0


def _best_run(gain: FloatArray) -> tuple[int, int, float]:
    """Return the run of days with the largest sum: Kadane."""
    best, first, end, total, begin = 0.0, 0, 0, 0.0, 0
    for n, value in enumerate(gain):
        if total <= 0:
            total, begin = 0.0, n
        total += float(value)
        if total > best:
            best, first, end = total, begin, n + 1
    return first, end, best


def put_right(made_w: FloatArray, offs: tuple[Off, ...], step_h: float) -> FloatArray:
    """Return (d, p) with its clock put right; what leaves a day's ends is night, or lost."""
    out = made_w.copy()
    for off in offs:
        shift = round(off.late_h / step_h)
        span = out[off.first : off.end].ravel()
        moved = np.full_like(span, np.nan)
        if shift > 0:
            moved[:-shift] = span[shift:]
        else:
            moved[-shift:] = span[:shift]
        out[off.first : off.end] = moved.reshape(-1, out.shape[1])
    return out
