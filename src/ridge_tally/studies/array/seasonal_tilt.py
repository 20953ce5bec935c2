"""What changing a ground array's tilt with the seasons is worth, when, and how it is done."""

from dataclasses import dataclass, replace
from datetime import date

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.stances import Stand, positions_of, stands, table_hinge_m, tilt_by_day
from ridge_tally.core.array.tables import behind_frac, table_rows, tables_of
from ridge_tally.core.energy.lit import Direct, kwh_of
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.array import Position, present_of, table_of
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.nominal_year import DAYS, NOMINAL_YEAR, date_of
from ridge_tally.core.sky.plane_irradiance import PlaneLight, share_of
from ridge_tally.core.sun.row_spacing import gap_at_m, shaded_frac
from ridge_tally.core.sun.seasons import best_positions
from ridge_tally.core.sun.shading import glass_of
from ridge_tally.core.survey.ground import ground_of_plane
from ridge_tally.core.units import format_length
from ridge_tally.formats.calendar_file import CalendarDay, calendar_text
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.array.ground import rows_of
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.simulation.array_light import slope_of
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.even import covered, even_array, even_year, power_frac
from ridge_tally.simulation.plant import heat_loss
from ridge_tally.simulation.site_sky import site_sky, turned
from ridge_tally.simulation.year import hourly_year, require_year

FloatArray = NDArray[np.float64]
TILTS_DEG = tuple(float(t) for t in range(5, 71, 5))
COUNTS = (1, 2, 4)
LATE_DAYS = 14
ORDER_OF_WORK = (
    "Two people at least; wind under 5 m/s; nobody under the glass.",
    "AC off, then DC off at the isolator; the strings stay live in daylight: no connector is opened.",
    "Prop the table before any clamp is loosened; loosen front hinges by a turn, then back legs one by one.",
    "Walk it up or down a hole at a time from one end to the other, never more than one hole apart.",
    "Pin every leg, tighten back to front, check the lowest edge and the cables’ slack.",
)


@dataclass(frozen=True, slots=True)
class SeasonalPlan:
    """So many positions a year; ``over_best_kwh`` against the best tilt that stays.

    ``late_kwh``: what is lost if every change is made two weeks late.
    ``hinge_m``: how high the front posts hold the glass so that its steepest clears the ground.
    """

    positions: tuple[Position, ...]
    energy_kwh: float
    over_best_kwh: float
    late_kwh: float
    hinge_m: float
    stands: tuple[Stand, ...]


@dataclass(frozen=True, slots=True)
class SeasonalTilt:
    """The year by tilt, and plans of one, two and four positions.

    ``by_tilt_kwh``: the year at each of ``tilts_deg``.  ``now``: the array as it is; where no
    other array is beside it, that is its simulated year, and all else in its measure.
    """

    tilts_deg: tuple[float, ...]
    by_tilt_kwh: tuple[float, ...]
    plans: tuple[SeasonalPlan, ...]
    now: SeasonalPlan
    order_of_work: tuple[str, ...]
    caveats: tuple[str, ...]


def seasonal_tilt(desk: Desk, design: Design, plane_id: PlaneId) -> SeasonalTilt:
    """Return what other tilts, and tilts changed with the seasons, give a ground array.

    Raises
    ------
    BadGeometry, MissingDatum
        If the plane is a roof, or no module is in a string.
    """
    laid = design.on(plane_id)
    plane, array = laid.plane, laid.array
    ground_of_plane(plane)
    require_year(design)
    table, rows = table_of(array), rows_of(laid)
    is_now = positions_of(array)
    tilts = np.array(sorted({*TILTS_DEG, *(p.tilt_deg for p in is_now)}))
    behind = behind_frac(len(table_rows(tables_of(plane, array, lay_of(laid)))))
    daily = _daily_kwh(desk, design, laid, tilts, behind)
    best = [best_positions(daily, tilts, count) for count in COUNTS]

    def year_kwh(positions: tuple[Position, ...], late_days: int = 0) -> float:
        held = np.roll(tilt_by_day(positions), late_days)
        return float(daily[np.searchsorted(tilts, held), np.arange(DAYS)].sum())

    now_kwh = year_kwh(is_now)
    alone = all(a is array or not present_of(a) for a in design.option.arrays)
    scale = hourly_year(desk, design).energy_kwh / now_kwh if alone else 1.0

    def plan(positions: tuple[Position, ...]) -> SeasonalPlan:
        energy_kwh = year_kwh(positions)
        return SeasonalPlan(
            positions,
            energy_kwh * scale,
            (energy_kwh - best[0].energy_kwh) * scale,
            (energy_kwh - year_kwh(positions, LATE_DAYS)) * scale,
            table_hinge_m(rows.slant_m, table, positions),
            stands(rows.slant_m, table, positions),
        )

    return SeasonalTilt(
        tilts_deg=tuple(tilts.tolist()),
        by_tilt_kwh=tuple((daily.sum(axis=1) * scale).tolist()),
        plans=tuple(plan(b.positions) for b in best),
        now=plan(is_now),
        order_of_work=ORDER_OF_WORK,
        caveats=(
            "Rows long and alike, shade of beam alone, the loss taken as the share of a row in shade: "
            "strings in landscape lose more",
            "By the hour on this weather, in the measure of this array’s simulated year"
            if alone
            else "By the hour on this weather, of this array alone, without trees and houses",
        ),
    )


def _daily_kwh(
    desk: Desk,
    design: Design,
    laid: LaidArray,
    tilts: FloatArray,
    behind: float,
) -> FloatArray:
    """Return (t, 365): the array's AC energy of each day at each tilt, its rows' pitch kept."""
    sky, rows = site_sky(desk, design), rows_of(laid)
    array, sheet, weather = laid.array, laid.module, sky.weather
    # This array's part of the modules and of the inverters under them.
    whole_w = dc_watts(design)[2]
    share = min(1.0, len(present_of(array)) * sheet.p_max_w / whole_w)
    even = even_array(design, sheet, heat_loss(array.mounting), design.p_ac_w * share)
    slope = slope_of(laid)
    gap_m = array.gap_between_rows.value_m
    found = []
    for tilt in tilts.tolist():
        on_free = turned(sky, glass_of(laid.plane, tilt))
        parts, passed = on_free.parts, on_free.passed
        there = replace(rows, tilt_deg=tilt)
        direct = 1.0 - shaded_frac(there, gap_at_m(rows, gap_m, tilt), sky.hours.sun) * behind
        beam, near = parts.beam_w_per_m2 * direct, parts.circumsolar_w_per_m2 * direct
        wide = near + parts.isotropic_w_per_m2 + parts.horizon_w_per_m2
        light = PlaneLight(
            beam + wide + parts.ground_w_per_m2,
            beam * passed.beam_frac
            + wide * passed.sky_frac
            + parts.ground_w_per_m2 * passed.ground_frac,
            share_of(beam, beam + wide + parts.ground_w_per_m2),
        )
        lit = covered(design.job, weather, light, replace(slope, tilt_deg=tilt))
        offered_w = power_frac(even, lit, weather) * whole_w * share
        year = even_year(desk, design.job, even, offered_w, Direct(light.direct_frac, on_free.turn))
        found.append([kwh_of(day, weather.step_h) for day in year.ac_w.reshape(DAYS, -1)])
    return np.array(found)


def calendar_of(design: Design, plane_id: PlaneId) -> str:
    """Return the changes of a ground array's tilt as an iCalendar file, once a year each.

    Raises
    ------
    BadGeometry, MissingDatum
        If the plane is a roof, or its tables keep their tilt.
    """
    return calendar_text(tilt_days(design, plane_id), date(NOMINAL_YEAR, 1, 1), 0)


def tilt_days(design: Design, plane_id: PlaneId) -> tuple[CalendarDay, ...]:
    """Return the days on which a ground array's tilt is changed, every year.

    Raises
    ------
    BadGeometry, MissingDatum
        If the plane is a roof, or its tables keep their tilt.
    """
    laid = design.on(plane_id)
    plane, array = laid.plane, laid.array
    ground_of_plane(plane)
    if array.table is None or not array.table.seasons:
        raise MissingDatum(
            "change of tilt", plane.name, "Take two or four positions under Seasonal tilt."
        )
    slant_m = rows_of(laid).slant_m
    found = []
    for stand in stands(slant_m, array.table, array.table.seasons):
        words = f"{design.job.name}: tilt the tables on {plane.name} to {stand.tilt_deg:g}°"
        by = format_length(abs(stand.lift_m), design.job.unit)
        legs = (
            f"Back legs {format_length(stand.back_leg_m, design.job.unit)}, {by} "
            f"{'down' if stand.lift_m < 0 else 'up'}. "
        )
        day = date_of(stand.from_day)
        told = legs + " ".join(ORDER_OF_WORK)
        found.append(
            CalendarDay(f"{plane_id}-{stand.from_day}", words, told, day, day, yearly=True)
        )
    return tuple(found)
