"""A plane's racking as it comes out: runs with their mounts, and what stands in the ground."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from ridge_tally.core.array.posts import Post
from ridge_tally.core.build.racking.mounts import NoPlan
from ridge_tally.core.build.racking.rails import Held, RailRun
from ridge_tally.core.equipment import module_area_m2
from ridge_tally.core.job.array import PlacedModule, present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.racking import PlaneRacking
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.rules.build.span_limits import rail_overhang_m


@dataclass(frozen=True, slots=True)
class RackedRun:
    """A run with its mounts, places along its line; ``limits_m``: of each span, in order.

    ``bare_limits_m``: how long its left and its right end may be bare, of the allowed span.
    """

    run: RailRun
    mounts_m: tuple[float, ...]
    limits_m: tuple[float, ...]
    bare_limits_m: tuple[float, float]

    @property
    def spans_m(self) -> tuple[float, ...]:
        """The spans between its mounts."""
        return tuple(b - a for a, b in pairwise(self.mounts_m))

    @property
    def bare_ends_m(self) -> tuple[float, float]:
        """How long its ends are bare; the whole run where it has no mount."""
        if not self.mounts_m:
            return self.run.length_m, self.run.length_m
        return self.mounts_m[0] - self.run.from_m, self.run.to_m - self.mounts_m[-1]


@dataclass(frozen=True, slots=True)
class GroundFrame:
    """What stands under tables: every pile, and the rails up the glass that lie on its beams.

    ``columns``: how many modules each column over the beams holds, bays none; two rails of ``rail_m``
    lie under each, on beams at ``beams_m`` of it.  ``overhang_m``: glass beyond the posts, up it.
    """

    posts: tuple[Post, ...]
    columns: tuple[int, ...]
    rail_m: float
    beams_m: tuple[float, float]
    tilt_deg: float
    slant_m: float
    overhang_m: float

    @property
    def rails(self) -> int:
        """How many rails lie over the beams."""
        return 2 * len(self.columns)


@dataclass(frozen=True, slots=True)
class RackedPlane:
    """The racking of one plane.

    ``up_slope``: rails run up the slope, so that places along them are y.  ``supports_m``: what
    mounts may stand on, along the rails, and ``unusable_m`` what they may not.  ``asked``: what has
    to be known first, in words.  ``no_plan``: why mounts cannot be placed.
    """

    laid: LaidArray
    choice: PlaneRacking
    sheet: MountingSheet | None
    up_slope: bool
    supports_m: tuple[float, ...]
    unusable_m: tuple[float, ...]
    runs: tuple[RackedRun, ...]
    shared: int
    proven: bool
    asked: tuple[str, ...]
    no_plan: NoPlan | None
    ground: GroundFrame | None = None

    @property
    def mounts(self) -> int:
        """How many mounts it has on all its runs."""
        return sum(len(r.mounts_m) for r in self.runs)

    @property
    def modules_area_m2(self) -> float:
        """The area of its modules, along their slope: what its weight is spread over."""
        return len(present_of(self.laid.array)) * module_area_m2(self.laid.module)


def rail_length_m(plane: RackedPlane) -> float:
    """Return all rail of a plane, beams and rails up the glass of ground tables alike."""
    frame = plane.ground
    over = 0.0 if frame is None else frame.rails * frame.rail_m
    return sum(r.run.length_m for r in plane.runs) + over


def held_of(laid: LaidArray, *, up_slope: bool) -> list[Held]:
    """Return the modules of an array as rails along the eave, or up the slope, see them."""
    return _seen(laid, present_of(laid.array), up_slope=up_slope)


def held_on(plane: RackedPlane, run: RailRun) -> list[Held]:
    """Return the modules over a run."""
    mine = set(run.held)
    modules = (m for m in present_of(plane.laid.array) if m.id in mine)
    return _seen(plane.laid, modules, up_slope=plane.up_slope)


def _seen(laid: LaidArray, modules: Iterable[PlacedModule], *, up_slope: bool) -> list[Held]:
    found = []
    for m in modules:
        width, height = module_footprint_m(laid.module, m.orientation, laid.array.leg_tilt_deg)
        x, y = (m.x_m, m.x_m + width), (m.y_m, m.y_m + height)
        found.append(Held(m.id, *(*y, *x) if up_slope else (*x, *y)))
    return found


# Less is sawn off by nobody.
LEAST_TRIM_M = 0.01


def trims_m(plane: RackedPlane, number: int) -> tuple[float, float]:
    """Return how much of a run is cut off at its left and its right end once its modules lie.

    Rail past the last module and its overhang, where ends were run on to a support.
    """
    run, sheet = plane.runs[number].run, plane.sheet
    held = held_on(plane, run)
    if sheet is None or not held or not plane.choice.run_on or plane.ground is not None:
        return 0.0, 0.0
    overhang = rail_overhang_m(sheet, plane.choice)
    left = min(h.from_m for h in held) - overhang - run.from_m
    right = run.to_m - max(h.to_m for h in held) - overhang
    return (left if left >= LEAST_TRIM_M else 0.0, right if right >= LEAST_TRIM_M else 0.0)


def weight_kg(plane: RackedPlane) -> float | None:
    """Return what modules, rails and mounts of a plane weigh; ``None`` where a sheet is silent."""
    sheet = plane.sheet
    if sheet is None or sheet.rail_kg_per_m is None or sheet.mount_kg is None:
        return None
    rails = rail_length_m(plane) * sheet.rail_kg_per_m
    mounts = plane.mounts * sheet.mount_kg
    modules = len(present_of(plane.laid.array)) * plane.laid.module.mass_kg
    return rails + mounts + modules
