"""What rows of a ground array take of each other's light: at their gap, at others, at one for a loss."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq

from ridge_tally.core.array.stances import positions_of, tilt_by_day
from ridge_tally.core.array.tables import behind_frac, table_rows, tables_of
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.sky.weather_year import by_step
from ridge_tally.core.sun.row_spacing import gap_at_m, shaded_frac, solstice_gap_m
from ridge_tally.core.sun.shading import glass_of
from ridge_tally.core.sun.spliced import parts_while
from ridge_tally.core.survey.ground import ground_of_plane
from ridge_tally.core.survey.outline import require_closed
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.array.ground import rows_of
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import array_lights
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.site_sky import SiteSky, site_sky, turned
from ridge_tally.studies.array.ground_layout import land_m2

FloatArray = NDArray[np.float64]
# Gaps looked at, as shares of the shortest day's.
CURVE = tuple(i / 10 for i in range(1, 19))
WIDEST_M = 60.0


@dataclass(frozen=True, slots=True)
class SpacingPoint:
    """A level gap between rows: what rows take of the year's light, and the land they cover."""

    gap_m: float
    loss_frac: float
    land_m2: float


@dataclass(frozen=True, slots=True)
class RowsLight:
    """What the rows of a ground array take of each other's light, as shares of the year's.

    ``loss_frac`` of long rows by the reference library, ``cast_frac`` of these very tables by the
    sky over each module, with all else that stands there; ``None`` without tables or modules.
    ``asked_gap_m``: the gap at which rows take the share asked for.
    """

    loss_frac: float | None
    cast_frac: float | None
    curve: tuple[SpacingPoint, ...]
    asked_gap_m: float | None


def rows_light(
    desk: Desk,
    design: Design,
    plane_id: PlaneId,
    most_loss: float | None = None,
) -> RowsLight:
    """Return what rows take of each other's light, at their gap and at others.

    Raises
    ------
    BadGeometry, MissingDatum
        If the plane is a roof, or does not close yet.
    """
    laid = design.on(plane_id)
    plane, array = laid.plane, laid.array
    ground_of_plane(plane)
    require_closed(plane)
    tables = tables_of(plane, array, lay_of(laid))
    rows, lines = rows_of(laid), len(table_rows(tables))
    light, behind = _Light(site_sky(desk, design), laid), behind_frac(lines)
    gaps = [
        max(0.05, share * solstice_gap_m(rows, design.job.site.latitude_deg)) for share in CURVE
    ]
    return RowsLight(
        loss_frac=light.loss_frac(array.gap_between_rows.value_m) * behind if lines else None,
        cast_frac=_cast_frac(desk, design, plane) if present_of(array) else None,
        curve=tuple(
            SpacingPoint(g, light.loss_frac(g) * behind, land_m2(rows, tables, g))
            for g in (gaps if lines > 1 else ())
        ),
        asked_gap_m=_asked(light, behind, most_loss),
    )


class _Light:
    """What rows before a row take of the year's light, whatever their gap."""

    def __init__(self, sky: SiteSky, laid: LaidArray) -> None:
        self.sun, self.whole = sky.hours.sun, 0.0
        self.rows = rows_of(laid)
        # The direct light of each tilt of the year on its own days.
        self.held: dict[float, FloatArray] = {}
        tilts = by_step(tilt_by_day(positions_of(laid.array)), len(sky.hours.month))
        for tilt in np.unique(tilts).tolist():
            parts = parts_while(turned(sky, glass_of(laid.plane, tilt)).parts, tilts == tilt)
            self.whole += float(parts.poa_w_per_m2.sum())
            self.held[tilt] = parts.beam_w_per_m2 + parts.circumsolar_w_per_m2

    def loss_frac(self, gap_m: float) -> float:
        """Return the share of a shaded row's light; sky light that the row hides is not in it."""
        lost = 0.0
        for tilt, direct in self.held.items():
            there = replace(self.rows, tilt_deg=tilt)
            shaded = shaded_frac(there, gap_at_m(self.rows, gap_m, tilt), self.sun)
            lost += float((direct * shaded).sum())
        return lost / self.whole if self.whole > 0 else 0.0


def _asked(light: _Light, behind: float, most_loss: float | None) -> float | None:
    if most_loss is None or behind <= 0:
        return None

    def over(gap_m: float) -> float:
        return light.loss_frac(gap_m) * behind - most_loss

    if over(0.02) <= 0:
        return 0.02
    return None if over(WIDEST_M) > 0 else float(brentq(over, 0.02, WIDEST_M, xtol=1e-3))


def _cast_frac(desk: Desk, design: Design, plane: RoofPlane) -> float:
    """Return what all shade takes of the light on these modules, by the sky over each of them."""
    _, arrays = array_lights(desk, design)
    mine = next(a for a in arrays if a.laid.plane.id == plane.id)
    free = float(mine.on_free.free_wh_per_m2.sum()) * len(mine.lights)
    return sum(float(x.lost.sum()) for x in mine.lights) / free if free > 0 else 0.0
