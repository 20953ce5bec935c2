"""A log's clock against the sun: shifted as a whole, or on daylight time for a while."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
# Our own lines.  A log far off is shifted as a whole, by half hours; it fits so much better then.
COARSE_H, LEAST_OFF_H, MOST_OFF_H, LEAST_GAIN = 0.5, 2.0, 13.0, 0.02
# Mornings begin and evenings end where this share of the day's most is reached, at the same hours
# off: a day on which they differ more than so is clouded, shaded or lame, and tells no clock.
EDGE_FRAC, AGREE_H, NEAR_H = 0.4, 0.6, 0.35
LEAST_TELLING_DAYS, MOST_SPELLS = 3, 6
# Beyond this the numbers are in another unit: their own size is taken.
SIZES = (0.3, 2.0)
SUNDAY = 6


@dataclass(frozen=True, slots=True)
class Off:
    """From a day, numbered from 0, to before another the log is so many hours late."""

    first: int
    end: int
    late_h: float


def clock_off(
    made_w: FloatArray, due_w: FloatArray, step_h: float, first_day: date
) -> tuple[Off, ...]:
    """Return where (d, p) logged power comes at other hours than the power due.

    By the hours at which it begins and ends: what a limit, a fault or dirt does to the middle of a
    day moves neither, or both against each other.
    """
    days, per_day = made_w.shape
    if per_day == 1:
        return ()
    made = np.nan_to_num(made_w)
    whole = _far_off(made, due_w, step_h)
    found = [Off(0, days, whole * step_h)] if whole else []
    made = np.roll(made.ravel(), -whole).reshape(days, per_day)
    found += _spells(_late_h(made, due_w, step_h), first_day)
    return tuple(found)


def _far_off(made: FloatArray, due: FloatArray, step_h: float) -> int:
    """Return by how many steps the whole is late, where that is two hours or more."""
    coarse = max(1, round(COARSE_H / step_h))
    most = round(MOST_OFF_H / step_h) // coarse
    shifts = np.arange(-most, most + 1) * coarse
    flat, other = made.ravel(), due.ravel()
    alike = np.array([_alike(np.roll(flat, -k), other) for k in shifts])
    best = int(np.argmax(alike))
    far = abs(shifts[best]) * step_h >= LEAST_OFF_H
    return int(shifts[best]) if far and alike[best] - alike[most] >= LEAST_GAIN else 0


def _alike(one: FloatArray, other: FloatArray) -> float:
    over = float(np.std(one) * np.std(other))
    return float(np.mean((one - one.mean()) * (other - other.mean()))) / over if over > 0 else 0.0


def _late_h(made: FloatArray, due: FloatArray, step_h: float) -> FloatArray:
    """Return (d,) hours each day is late at both its ends, NaN where they do not agree."""
    size = float(np.quantile(made, 0.98)) / max(float(np.quantile(due, 0.98)), 1e-9)
    scale = 1.0 if SIZES[0] <= size <= SIZES[1] else max(size, 1e-9)
    out = np.full(len(made), np.nan)
    for day, (mine, other) in enumerate(zip(made / scale, due, strict=True)):
        level = EDGE_FRAC * float(other.max())
        ends = [_ends(of, level) for of in (mine, other)]
        if level <= 0 or ends[0] is None or ends[1] is None:
            continue
        late = [(a - b) * step_h for a, b in zip(ends[0], ends[1], strict=True)]
        if abs(late[0] - late[1]) <= AGREE_H:
            out[day] = sum(late) / 2
    return out


def _ends(power: FloatArray, level: float) -> tuple[float, float] | None:
    """Return where a day first rises through a level and last falls through it, in steps."""
    above = np.flatnonzero(power > level)
    if not len(above) or above[0] == 0 or above[-1] == len(power) - 1:
        return None
    up, down = int(above[0]), int(above[-1])
    rise = up - (power[up] - level) / max(power[up] - power[up - 1], 1e-9)
    fall = down + (power[down] - level) / max(power[down] - power[down + 1], 1e-9)
    return float(rise), float(fall)


def _spells(late_h: FloatArray, first_day: date) -> Iterator[Off]:
    """Yield the days on which a clock is an hour off."""
    votes = {
        h: np.where(
            np.isnan(late_h), 0.0, np.where(np.abs(late_h - h) <= NEAR_H, 1.0, -1.0)
        )
        for h in (1.0, -1.0)
    }  # fmt: skip
    for _ in range(MOST_SPELLS):
        spells = [(*_best_run(vote), h) for h, vote in votes.items()]
        first, end, total, hours = max(spells, key=lambda s: s[2])
        if total < LEAST_TELLING_DAYS:
            return
        vote = votes[hours]
        before = first - 1
        while before >= 0 and vote[before] == 0:
            before -= 1
        after = end
        while after < len(vote) and vote[after] == 0:
            after += 1
        first = 0 if before < 0 else _changed(before + 1, first, first_day)
        end = len(vote) if after >= len(vote) else _changed(end, after, first_day)
        yield Off(first, end, hours)
        for one in votes.values():
            one[first:end] = -1.0


def _changed(first: int, last: int, first_day: date) -> int:
    """Return on which of some days a clock was changed: a Sunday if one is among them."""
    for day in range(first, last + 1):
        if (first_day + timedelta(days=day)).weekday() == SUNDAY:
            return day
    return (first + last + 1) // 2


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
    """Return (d, p) with its clock put right; what leaves a spell's ends is night, or lost."""
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
