"""A design at a moment as meters find it: its strings lit as they are, its inputs and inverter."""

from collections import Counter

import numpy as np

from ridge_tally.core.proving.rig import Hung, Input, Inverter, Lit, Look, Part, Rig
from ridge_tally.core.working import number_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.busbar import service_volts
from ridge_tally.simulation.moment import DayUnder, StringDay

# Light alike within this share makes one part of a string.
LIKE_STEPS = 250
# A dark plane is taken as this bright, so that shares of it have a meaning, W/m².
LEAST_LIGHT = 1.0


def rig_at(day: DayUnder) -> tuple[Rig, Lit]:
    """Return a design as it hangs, sound, and the light and heat of the day's moment.

    The light of a plane is what a light meter reads in it, unshaded; what reaches each substring
    of it, through glass, dirt and shade, is its part's share.
    """
    now = day.now
    light = tuple(max(float(a.free_w_per_m2[now]), LEAST_LIGHT) for a in day.arrays)
    lit = Lit(light, tuple(float(a.cell_degc[now]) for a in day.arrays))
    design = day.design
    if day.strings:
        strings = tuple(_hung(day, s, light) for s in day.strings)
    else:
        strings = tuple(_behind_micros(day, n, light) for n in range(len(day.arrays)))
    return (
        Rig(
            strings=strings,
            planes=tuple(a.name for a in day.arrays),
            inputs=_inputs(design, strings),
            inverter=_inverter(day),
            looks=(Look.CLEAN,) * len(day.arrays),
        ),
        lit,
    )


def _hung(day: DayUnder, one: StringDay, light: tuple[float, ...]) -> Hung:
    now, ids = day.now, one.string.module_ids
    reaching = one.light.reaching_w_per_m2[:, now]
    parts: Counter[tuple[int, int, float]] = Counter()
    sheets = list(dict.fromkeys(one.light.sheets))
    row = 0
    for sheet, plane in zip(one.light.sheets, one.arrays, strict=True):
        for _ in range(sheet.bypass_diodes):
            share = round(float(reaching[row]) / light[plane] * LIKE_STEPS) / LIKE_STEPS
            parts[sheets.index(sheet), plane, share] += 1
            row += 1
    hung = Hung(
        one.string.tag,
        tuple(
            Part(sheets[s], float(many), share, plane)
            for (s, plane, share), many in sorted(parts.items(), key=lambda p: -p[1])
        ),
        len(ids),
        one.string.tracker_number - 1,
        drawn=len(ids),
    )
    system = day.design.system
    if system is None:
        return hung
    watts = float(one.volts_v[now] * one.amps_a[now])
    return _held(hung, float(one.volts_v[now]), watts, system.safe_v, light)


def _behind_micros(day: DayUnder, at: int, light: tuple[float, ...]) -> Hung:
    """Return an array of microinverters as if it were one string held at a volt: its watts count."""
    array, laid = day.arrays[at], day.design.arrays
    sheet = next(a.module for a in laid if a.plane.name == array.name)
    share = float(array.in_cells_w_per_m2[day.now]) / light[at]
    parts = (Part(sheet, float(array.modules * sheet.bypass_diodes), share, at),)
    hung = Hung(array.name, parts, array.modules, 0, drawn=array.modules)
    return _held(hung, 1.0, float(array.dc_w[day.now]), None, light)


def _held(
    hung: Hung, volts: float, watts: float, safe_v: float | None, light: tuple[float, ...]
) -> Hung:
    whole = sum(p.substrings * p.light_frac * light[p.plane] for p in hung.parts)
    return Hung(
        hung.name, hung.parts, hung.in_series, hung.input, drawn=hung.drawn, safe_v=safe_v,
        held_v=max(volts, 1.0), held_w_per_lit=watts / max(whole, 1e-9),
    )  # fmt: skip


def _inputs(design: Design, strings: tuple[Hung, ...]) -> tuple[Input, ...]:
    if design.microinverter is not None:
        return (Input(),)
    used = max((s.input for s in strings), default=0) + 1
    return tuple(
        Input(t.sheet.v_min_v, t.sheet.v_max_v, t.sheet.i_max_a, t.inverter.v_start_v)
        for t in design.trackers[:used]
    )


def _inverter(day: DayUnder) -> Inverter:
    now, design = day.now, day.design
    given, rated = float(day.ac.given_w[now]), float(day.ac.rated_w[now])
    unlimited = float(day.ac.unlimited_w[now])
    whole = float(day.drawn.whole_w[now])
    # What heat takes of its rating on a day like this belongs to the design, not to a fault.
    hot = given < min(unlimited, rated) * 0.995 if given > 0 else False
    return Inverter(
        p_ac_w=day.rated_w,
        ac_v=number_of(service_volts(design)),
        given_frac=float(np.clip(unlimited / whole, 0.5, 1.0)) if whole > 1 else 0.95,
        heat_frac=given / day.rated_w if hot else 1.0,
    )
