"""What a log's course gives away: each sign with its days, its figures and what it cost."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.proving.logged.days import Days
from ridge_tally.core.proving.logged.steps import DARK_FRAC, Plateau, Sorted, What, runs
from ridge_tally.core.proving.logged.trend import Change, Sinking, changes_of, sinkings_of

FloatArray = NDArray[np.float64]
# Own lines throughout: what is too little to speak of, and how alike figures must be.
LEAST_DAYS, LEAST_DAYS_UNLIT, SHORT_OUT_H, LEAST_OUT_H, FULL_FRAC = 2, 4, 2.0, 1.0, 0.5
NOTCH_FRAC, BESIDE_FRAC, LEAST_BIN_DAYS = 0.88, 0.95, 5
SHARE_WITHIN, SHARE_WITHIN_UNLIT, LEAST_SHARE = 0.03, 0.06, 0.06
BETTER_BY, FITS_WITHIN = 0.6, 0.04
UNITS = (1000.0, 1e-3, 60.0, 1 / 60, 12.0, 1 / 12, 4.0, 0.25)
UNIT_WITHIN, BEST_DAYS = 0.25, 0.8
LEAST_LIMIT_H, CLUSTER_FRAC = 1.0, 0.08


class Sign(StrEnum):
    """What is seen."""

    UNIT = "unit"
    AC_CLIP = "ac-clip"
    HELD = "held"
    HOT = "hot"
    OUT = "out"
    TRIP = "trip"
    SNOW = "snow"
    GAP = "gap"
    SHADE = "shade"
    STRING_OUT = "string-out"
    STEP = "step"
    WASHED = "washed"
    SOILING = "soiling"
    WEATHER = "weather"


@dataclass(frozen=True, slots=True)
class Seen:
    """A sign on days from ``first`` to ``last``, from 0; ``days`` with it; kWh it cost, if known.

    ``figures``: what it is told with: by name.
    """

    sign: Sign
    first: int
    last: int
    days: int
    lost_kwh: float | None
    figures: dict[str, float]


def signs_of(
    one: Sorted, days: Days, shares: Sequence[tuple[int, FloatArray]], air_usual: float
) -> tuple[Seen, ...]:
    """Return the signs of a log.

    Parameters
    ----------
    shares : sequence of (strings, (d, p) float)
        Of each tracker: how many strings it has, and its part of what all make.
    air_usual : float
        °C: the middle of the log's air at noon.
    """
    unit = _wrong_unit(days)
    if unit is not None:
        return (unit,)
    changes = changes_of(days.ratio)
    sinkings = sinkings_of(days.ratio, changes)
    strings = tuple(_string_out(one, days, changes, shares))
    for out in strings:
        # The step is theirs, and how the season moves their part is no sinking.
        changes = tuple(c for c in changes if c.day < out.first)
        sinkings = tuple(s for s in sinkings if s.first < out.first)
    found = [
        *_left_out(one),
        *_held(one, air_usual),
        *strings,
        *_notches(one, days),
        *_trends(days, changes, sinkings),
        *_weather(one, days),
    ]
    return tuple(found)


def _wrong_unit(days: Days) -> Seen | None:
    """Return a ratio that only a wrong unit explains."""
    there = np.flatnonzero(np.isfinite(days.ratio) | (days.due_kwh > 0))
    with np.errstate(divide="ignore", invalid="ignore"):
        whole = days.made_kwh[there] / days.due_kwh[there]
    # The best days: what clouds take is no unit.
    middle = float(np.quantile(whole, BEST_DAYS)) if len(whole) else 1.0
    for factor in UNITS:
        if abs(middle / factor - 1) < UNIT_WITHIN and not 0.3 < middle < 2.0:
            return Seen(
                Sign.UNIT, int(there[0]), int(there[-1]), len(there), None,
                {"times": middle, "factor": factor},
            )  # fmt: skip
    return None


def _seen(one: Sorted, sign: Sign, where: NDArray[np.bool_]) -> Seen | None:
    on = np.flatnonzero(where.any(axis=1))
    if not len(on):
        return None
    log = one.log
    behind = np.maximum(log.free_w - np.nan_to_num(log.made_w), 0.0)
    lost = one.kwh(behind, where).sum()
    hours = float(where.sum()) * log.step_h
    return Seen(sign, int(on[0]), int(on[-1]), len(on), float(lost), {"hours": hours})


def _left_out(one: Sorted) -> Iterator[Seen]:
    gap = one.what == What.GAP
    if (found := _seen(one, Sign.GAP, gap)) is not None and found.figures["hours"] >= LEAST_LIMIT_H:
        # What a hole hides was not lost.
        yield Seen(Sign.GAP, found.first, found.last, found.days, None, found.figures)
    for what, sign in ((What.CLIPPED, Sign.AC_CLIP), (What.SNOW, Sign.SNOW)):
        found = _seen(one, sign, one.what == what)
        if found is not None and found.figures["hours"] >= LEAST_LIMIT_H:
            yield found
    short, long = _outages(one)
    for sign, where in ((Sign.TRIP, short), (Sign.OUT, long)):
        if (found := _seen(one, sign, where)) is not None:
            middle = float(np.mean(np.nonzero(where)[1])) * one.log.step_h
            yield Seen(found.sign, found.first, found.last, found.days, found.lost_kwh,
                       {**found.figures, "times": float(_times(where)), "about_h": middle})  # fmt: skip


def _times(where: NDArray[np.bool_]) -> int:
    return int((np.diff(where.astype(np.int8), axis=1, prepend=0) == 1).sum())


def _outages(one: Sorted) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Return (d, p) of short stops with full power before and after, and of long ones.

    What is short and at the day's edge is an inverter that begins late or ends early.
    """
    out, log = one.what == What.OUT, one.log
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.nan_to_num(log.made_w) / np.maximum(log.due_w, 1e-9)
    full = np.isin(one.what, (What.KEPT, What.CLIPPED, What.HELD)) & (share > FULL_FRAC)
    full &= log.due_w > DARK_FRAC * log.rated_w
    short, long = np.zeros_like(out), np.zeros_like(out)
    for day in np.flatnonzero(out.any(axis=1)):
        for first, end in runs(out[day]):
            hours = (end - first) * log.step_h
            between = first > 0 and end < out.shape[1] and full[day, first - 1] and full[day, end]
            if between and hours <= SHORT_OUT_H:
                short[day, first:end] = True
            elif hours >= LEAST_OUT_H:
                long[day, first:end] = True
    return short, long


def _held(one: Sorted, air_usual: float) -> Iterator[Seen]:
    """Yield a fall to a level in bright hours, and a level held on several days."""
    hot = _alike([p for p in one.plateaus if p.what is What.HOT])
    held = [p for p in one.plateaus if p.what is What.HELD]
    if hot:
        # The same level reached under a cloud is the same thing.
        level = float(np.median([p.level_w for p in hot]))
        near = [p for p in held if abs(p.level_w / level - 1) <= CLUSTER_FRAC]
        hot, held = hot + near, [p for p in held if p not in near]
    for mine, sign in ((hot, Sign.HOT), (_alike(held), Sign.HELD)):
        least = LEAST_DAYS if one.log.light_measured else LEAST_DAYS_UNLIT
        if len({p.day for p in mine}) < least:
            continue
        levels = np.array([p.level_w for p in mine])
        middle = float(np.median(levels))
        where = np.zeros(one.what.shape, bool)
        for p in mine:
            where[p.day, p.first : p.end] = True
        found = _seen(one, sign, where)
        assert found is not None
        figures = {
            **found.figures, "level_w": middle,
            "spread": float(np.quantile(levels, 0.9) - np.quantile(levels, 0.1)) / middle,
            "of_limit": middle / one.log.limit_w,
            "air_degc": float(np.mean(one.log.air_degc[where])), "air_usual_degc": air_usual,
        }  # fmt: skip
        yield Seen(sign, found.first, found.last, found.days, found.lost_kwh, figures)


def _alike(plateaus: list[Plateau]) -> list[Plateau]:
    """Return the plateaus at one level, where most are; clouds make levels of all heights."""
    if not plateaus:
        return []
    levels = np.array([p.level_w for p in plateaus])
    near = np.abs(levels[:, None] / levels - 1) <= CLUSTER_FRAC
    best = int(np.argmax(near.sum(axis=0)))
    some = [p for p, n in zip(plateaus, near[:, best], strict=True) if n]
    return some if 2 * len(some) > len(plateaus) else []


def _profile(one: Sorted, days: Days, use: NDArray[np.bool_]) -> FloatArray:
    """Return (p,) the middle of made over due by the time of day, each day by its own ratio."""
    log = one.log
    bright = one.kept & use[:, None] & (log.due_w > 0.15 * log.rated_w)
    with np.errstate(divide="ignore", invalid="ignore"):
        ratio = np.where(bright, log.made_w / log.due_w / days.ratio[:, None], np.nan)
    many = np.isfinite(ratio).sum(axis=0)
    out = np.full(ratio.shape[1], np.nan)
    there = many >= LEAST_BIN_DAYS
    out[there] = np.nanmedian(ratio[:, there], axis=0)
    return out


def _notches(one: Sorted, days: Days) -> Iterator[Seen]:
    """Yield a dent at one time of day on most days, between hours without one."""
    use = np.isfinite(days.ratio)
    if use.sum() < LEAST_BIN_DAYS or one.what.shape[1] == 1:
        return
    log = one.log
    profile = _profile(one, days, use)
    top = float(np.nanquantile(profile, 0.75)) if np.isfinite(profile).any() else 1.0
    dent = np.nan_to_num(profile, nan=top) < NOTCH_FRAC * top
    judged = int(np.isfinite(profile).sum())
    for first, end in runs(dent):
        beside = [profile[n] for n in (first - 2, end + 1) if 0 <= n < len(profile)]
        whole = [b for b in beside if np.isfinite(b)]
        # A dent has a shoulder on either side; low sun alone has one.
        if len(whole) < 2 or min(whole) < BESIDE_FRAC * top or end - first > judged / 2:
            continue
        where = np.zeros_like(one.kept)
        where[:, first:end] = True
        where &= one.kept & use[:, None]
        lost = one.kwh(top * log.due_w - np.nan_to_num(log.made_w), where).sum()
        on = np.flatnonzero(where.any(axis=1))
        yield Seen(
            Sign.SHADE, int(on[0]), int(on[-1]), len(on), float(lost),
            {"from_h": first * log.step_h, "to_h": end * log.step_h,
             "deep": float(1 - np.nanmin(profile[first:end]) / top)},
        )  # fmt: skip


def _string_out(
    one: Sorted, days: Days, changes: tuple[Change, ...], shares: Sequence[tuple[int, FloatArray]]
) -> Iterator[Seen]:
    """Yield strings whose part is missing, all day, since a step or all the time."""
    if one.what.shape[1] == 1:
        return
    downs = [c for c in changes if c.after < c.before]
    # The deepest step down: what follows is how the season moves the rest.
    down = max(downs, key=lambda c: c.before - c.after, default=None)
    begin = down.day if down else 0
    use = np.isfinite(days.ratio)
    use[:begin] = False
    if use.sum() < LEAST_BIN_DAYS:
        return
    log = one.log
    kept = one.kept & use[:, None] & (log.due_w > 0.15 * log.rated_w)
    before = down.before if down else 1.0
    made = log.made_w[kept]
    due = log.due_w[kept] * before
    whole = float(made.sum() / due.sum())
    if 1 - whole < LEAST_SHARE:
        return

    def off(template: FloatArray) -> float:
        return float(np.sqrt(np.mean(((made - template) / due.mean()) ** 2)))

    within = SHARE_WITHIN if log.light_measured else SHARE_WITHIN_UNLIT
    fits = list[tuple[float, int, int]]()
    for tracker, (strings, share) in enumerate(shares):
        mine = share[kept]
        for k in range(1, strings + 1):
            missing = float((mine * k / strings * due).sum() / due.sum())
            if missing >= LEAST_SHARE and abs(1 - whole - missing) <= within:
                fits.append((off(due * (1 - mine * k / strings)), tracker, k))
    if not fits:
        return
    best = min(fits)
    alike = [f for f in fits if f[0] <= best[0] * 1.15 + 1e-4]
    even = off(due * whole)
    by_course = best[0] < BETTER_BY * even
    # The day's course tells it; where all strings make alike only a step of its size does, and a
    # wrong rating or a light meter that reads too much looks the same without one.
    if not by_course and (down is None or best[0] > max(even * 1.02, FITS_WITHIN)):
        return
    on = np.flatnonzero(use)
    lost = float((due - made).sum()) * log.step_h / 1000
    yield Seen(
        Sign.STRING_OUT, int(on[0]), int(on[-1]), len(on), lost,
        {"tracker": float(best[1] + 1) if len({f[1] for f in alike}) == 1 else 0.0,
         "strings": float(best[2]), "share": 1 - whole, "since_step": float(down is not None),
         "by_course": float(by_course)},
    )  # fmt: skip


def _trends(
    days: Days, changes: tuple[Change, ...], sinkings: tuple[Sinking, ...]
) -> Iterator[Seen]:
    due = days.judged_due_kwh
    washed = [c for c in changes if c.after > c.before and any(s.end == c.day for s in sinkings)]
    for c in changes:
        if c in washed:
            continue
        lost = float((c.before - c.after) * due[c.day :].sum()) if c.after < c.before else None
        yield Seen(Sign.STEP, c.day, c.day, 1, lost, {"before": c.before, "after": c.after})
    if not sinkings:
        return
    lost_kwh = 0.0
    for s in sinkings:
        span = slice(s.first, s.end)
        lost_kwh += float(np.nansum((s.at_first - days.ratio[span]) * due[span]))
    worst = min(sinkings, key=lambda s: s.per_day)
    yield Seen(
        Sign.SOILING, sinkings[0].first, sinkings[-1].end - 1,
        sum(s.end - s.first for s in sinkings), lost_kwh,
        {"per_day": worst.per_day, "at_first": worst.at_first, "at_end": worst.at_end,
         "times": float(len(sinkings)), "washed": float(len(washed))},
    )  # fmt: skip
    if washed:
        yield Seen(
            Sign.WASHED, washed[0].day, washed[-1].day, len(washed), None,
            {"before": float(np.mean([c.before for c in washed])),
             "after": float(np.mean([c.after for c in washed]))},
        )  # fmt: skip


def _weather(one: Sorted, days: Days) -> Iterator[Seen]:
    """Yield dark days that made what their light was worth."""
    log = one.log
    if not log.light_measured:
        return
    lit = one.kwh(log.light_w_per_m2, one.what != What.NIGHT)
    usual = float(np.quantile(lit, 0.9)) if len(lit) else 0.0
    dark = (lit < 0.4 * usual) & (np.abs(days.ratio - 1) < 0.10)
    on = np.flatnonzero(dark)
    if len(on):
        yield Seen(Sign.WEATHER, int(on[0]), int(on[-1]), len(on), None, {})
