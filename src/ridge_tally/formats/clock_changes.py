"""The changes of daylight time in a column of stamps: where a clock jumps over an hour or repeats one."""

from dataclasses import dataclass
from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.units import day_text

Stamps = NDArray[np.datetime64]
SECOND = np.timedelta64(1, "s")
HOUR_S, LATEST_H = 3600, 4
SUNDAY = 6


@dataclass(frozen=True, slots=True)
class ClockChanges:
    """What a clock does in a file.

    ``forward``, ``back``: the first stamps after it jumps over an hour, and after it goes back.
    ``ahead_h`` (n,): hours each row is ahead of standard time, if the file begins in standard time
    or, where its first change is back, in daylight time.
    """

    forward: tuple[datetime, ...]
    back: tuple[datetime, ...]
    ahead_h: NDArray[np.int64]

    @property
    def notes(self) -> tuple[str, ...]:
        """What was found, in words."""
        if not (self.forward or self.back):
            return ()
        changes = sorted([(f, "forward") for f in self.forward] + [(b, "back") for b in self.back])
        told = " and ".join(f"{way} on {day_text(when)}" for when, way in changes)
        return (f"Daylight time is taken off: the clock goes {told}; all hours are standard time",)


def clock_changes(stamps: Stamps, step_min: int) -> ClockChanges:
    """Return the changes of daylight time in stamps of an ascending file.

    Parameters
    ----------
    stamps : (n,) datetime64[s]
        As the file has them: an hour that is repeated stands twice, one after the other or row by
        row beside its twin.

    Notes
    -----
    Both changes come in the small hours.  A jump over an hour alone may be a hole in the log: it
    counts on a Sunday, or where an hour is repeated in another month.
    """
    n, step_s = len(stamps), step_min * 60
    order = _twins_apart(stamps, 60 // step_min if step_min < 60 else 1)
    walked = stamps[order]
    apart_s = (walked[1:] - walked[:-1]) // SECOND
    # Late in the night, on either side of a change.
    hour = (walked - walked.astype("datetime64[D]")).astype("timedelta64[h]").astype(np.int64)
    night = (hour[1:] <= LATEST_H) & (hour[:-1] <= LATEST_H)
    back = np.nonzero(night & (apart_s == step_s - HOUR_S))[0] + 1
    forward = np.nonzero((apart_s == step_s + HOUR_S) & (hour[1:] <= LATEST_H))[0] + 1
    weekday = (walked[forward].astype("datetime64[D]").astype(np.int64) + 3) % 7
    far = np.array(
        [
            len(back) > 0 and bool(np.all(_days_apart(walked[f], walked[back]) > 60))
            for f in forward
        ],
        bool,
    )
    forward = forward[(weekday == SUNDAY) | far]
    ahead = np.zeros(n, np.int64)
    state = 0
    changes = sorted([(int(f), 1) for f in forward] + [(int(b), 0) for b in back])
    if changes:
        state = 1 - changes[0][1]
    at = 0
    for row, after in changes:
        ahead[at:row] = state
        at, state = row, after
    ahead[at:] = state
    out = np.empty(n, np.int64)
    out[order] = ahead
    return ClockChanges(
        tuple(_datetime(walked[f]) for f in forward), tuple(_datetime(walked[b]) for b in back), out
    )


def _twins_apart(stamps: Stamps, per_hour: int) -> NDArray[np.int64]:
    """Return the rows' order with an hour that is there twice row by row told one after the other."""
    order = np.arange(len(stamps))
    twin = np.nonzero(stamps[1:] == stamps[:-1])[0]
    if per_hour == 1 or len(twin) != per_hour or np.any(np.diff(twin) != 2):
        return order
    first, end = int(twin[0]), int(twin[-1]) + 2
    rows = order[first:end]
    order[first:end] = np.concatenate([rows[::2], rows[1::2]])
    return order


def _days_apart(one: np.datetime64, others: Stamps) -> NDArray[np.int64]:
    return np.abs((others - one).astype("timedelta64[D]").astype(np.int64))


def _datetime(stamp: np.datetime64) -> datetime:
    return stamp.astype("datetime64[s]").astype(datetime)  # type: ignore[no-any-return]
