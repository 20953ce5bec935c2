"""The way cables go: legs from the arrays to the house, as drawn, typed, or first proposed."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise

import numpy as np

from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.places import SitePoint, Taped
from ridge_tally.core.job.service import SourceBreaker
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.job.wiring import CableSegment, Lie
from ridge_tally.core.survey.outline import corners_m, is_closed
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.core.survey.taping import drawn_length
from ridge_tally.rules.design import Design

# How high boxes hang on a wall; what two inverters' wires take to their common box; practice.
HANGS_M, BESIDE_M = 1.5, 1.0
USUAL_TRENCH_M = 0.6
# Nearer than this along the eave is no piece of its own.
SAME_SPOT_M = 0.3


class LegKind(StrEnum):
    """What a leg joins."""

    ARRAY = "array"
    JOIN = "join"
    DISCONNECT = "disconnect"
    PANEL = "panel"
    BATTERY = "battery"


@dataclass(frozen=True, slots=True)
class Piece:
    """A piece of a leg with its length; ``points``: where it is drawn, two of them or none."""

    segment: CableSegment
    points: tuple[SitePoint, ...]
    length_m: float | None


@dataclass(frozen=True, slots=True)
class Leg:
    """A leg: its pieces, whether a person took or drew them, and what is asked where none is known."""

    id: str
    name: str
    kind: LegKind
    start: SitePoint | None
    pieces: tuple[Piece, ...]
    taken: bool
    asked: str = ""

    @property
    def length_m(self) -> float | None:
        """Its length; ``None`` while a piece of it has none."""
        lengths = [p.length_m for p in self.pieces]
        known = [m for m in lengths if m is not None]
        return sum(known) if lengths and len(known) == len(lengths) else None


def array_leg_id(laid: LaidArray) -> str:
    """Return the name of the leg of an array's circuits."""
    return f"array {laid.plane.id}"


DISCONNECT_LEG, PANEL_LEG, BATTERY_LEG, JOIN_LEG = "disconnect", "panel", "battery", "join"


def legs_of(design: Design) -> tuple[Leg, ...]:
    """Return the legs of an option, from the arrays to the panel."""
    routes = {r.leg: r.segments for r in design.option.wiring.routes}
    found = []
    for leg_id, name, kind, start, proposed, asked in _wanted(design):
        taken = routes.get(leg_id, ())
        pieces = _pieces(start, taken or proposed)
        found.append(Leg(leg_id, name, kind, start, pieces, bool(taken), "" if pieces else asked))
    return tuple(found)


_Wanted = tuple[str, str, LegKind, SitePoint | None, tuple[CableSegment, ...], str]


def _wanted(design: Design) -> Iterator[_Wanted]:
    service = design.job.survey.service
    gear = service.inverter
    place = "Put the {} on the site plan, in Survey, or type the length."
    for laid in design.arrays:
        if not present_of(laid.array):
            continue
        start, proposed = _from_array(design, laid, gear)
        yield (
            array_leg_id(laid),
            f"To the {'combiner' if design.microinverter else 'inverter'} from {laid.plane.name}",
            LegKind.ARRAY,
            start,
            proposed,
            place.format("inverter"),
        )
    last = service.meter if service.source_breaker is SourceBreaker.LINE_SIDE else service.panel
    told = "meter" if service.source_breaker is SourceBreaker.LINE_SIDE else "panel"
    source = "combiner" if design.microinverter else "inverter"
    if design.microinverter is None and len(design.inverters) > 1:
        beside = (CableSegment(Lie.OUTSIDE, length=drawn_length(BESIDE_M, design.job.unit)),)
        yield (JOIN_LEG, "Each inverter to where they join", LegKind.JOIN, None, beside, "")
    switch = service.disconnect
    if switch is not None:
        to_switch = _on_the_wall(gear, switch)
        yield (DISCONNECT_LEG, f"{source.capitalize()} to the AC disconnect", LegKind.DISCONNECT,
               gear, to_switch, place.format("inverter"))  # fmt: skip
    start = gear if switch is None else switch
    name = f"{source.capitalize() if switch is None else 'AC disconnect'} to the {told}"
    asked = place.format("inverter" if gear is None else told)
    yield (PANEL_LEG, name, LegKind.PANEL, start, _on_the_wall(start, last), asked)
    if design.option.battery is not None:
        yield (BATTERY_LEG, "Battery to where it joins", LegKind.BATTERY, None, (),
               "Type how long the battery’s cable is.")  # fmt: skip


def _on_the_wall(start: SitePoint | None, end: SitePoint | None) -> tuple[CableSegment, ...]:
    if start is None or end is None:
        return ()
    return (CableSegment(Lie.OUTSIDE, end),)


def _from_array(
    design: Design, laid: LaidArray, gear: SitePoint | None
) -> tuple[SitePoint | None, tuple[CableSegment, ...]]:
    """Return where an array's cables leave it, and the first way proposed from there to the gear."""
    plane = laid.plane
    if not is_closed(plane):
        return None, ()
    x_m, y_m = _leaves_at(design, laid, gear)
    start = _site(laid, x_m, y_m)
    if gear is None:
        return start, ()
    if plane.ground is not None:
        depth = plane.ground.trench_depth
        deep_m = USUAL_TRENCH_M if depth is None else depth.value_m
        ups = _length(design, 2 * deep_m)
        route = (*plane.ground.trench_route, gear)
        return start, tuple(
            CableSegment(Lie.BURIED, to, drop=ups if n == 0 else None) for n, to in enumerate(route)
        )
    corners = corners_m(plane)
    eave_x = np.clip(_along_eave(laid, gear), corners[:, 0].min(), corners[:, 0].max())
    slope = math.radians(plane.slope_deg)
    pieces = [
        CableSegment(Lie.ROOF, _site(laid, x_m, 0.0), drop=_length(design, y_m * math.sin(slope)))
    ]
    if abs(eave_x - x_m) > SAME_SPOT_M:
        pieces.append(CableSegment(Lie.ROOF, _site(laid, float(eave_x), 0.0)))
    high_m = float(to_site(plane, np.array([[eave_x, 0.0]]))[0, 2])
    down = _length(design, max(0.0, high_m - HANGS_M))
    return start, (*pieces, CableSegment(Lie.OUTSIDE, gear, drop=down))


def _leaves_at(design: Design, laid: LaidArray, gear: SitePoint | None) -> tuple[float, float]:
    """Return the box of a plane, or the end of its lowest row that is nearest the gear, metres."""
    box = next((b for b in design.option.boxes if b.plane_id == laid.plane.id), None)
    if box is not None:
        return box.x_m, box.y_m
    modules = present_of(laid.array)
    low_m = min(m.y_m for m in modules)
    row = [m for m in modules if m.y_m - low_m < SAME_SPOT_M]
    left_m = min(m.x_m for m in row)
    right = max(row, key=lambda m: m.x_m)
    width_m, _ = module_footprint_m(laid.module, right.orientation)
    right_m = right.x_m + width_m
    if gear is None:
        return left_m, low_m
    at = _along_eave(laid, gear)
    return min(left_m, right_m, key=lambda x: abs(x - at)), low_m


def _along_eave(laid: LaidArray, gear: SitePoint) -> float:
    """Return where along a plane's eave a point of the site lies, metres from its first corner."""
    ends = to_site(laid.plane, np.array([[0.0, 0.0], [1.0, 0.0]]))[:, :2]
    along = ends[1] - ends[0]
    return float((np.array([gear.east_m, gear.north_m]) - ends[0]) @ along)


def _site(laid: LaidArray, x_m: float, y_m: float) -> SitePoint:
    east, north, _ = to_site(laid.plane, np.array([[x_m, y_m]]))[0]
    return SitePoint(round(float(east), 3), round(float(north), 3))


def _length(design: Design, length_m: float) -> Taped | None:
    return drawn_length(length_m, design.job.unit) if length_m > 0 else None


def _pieces(start: SitePoint | None, segments: tuple[CableSegment, ...]) -> tuple[Piece, ...]:
    found, at = [], start
    for segment in segments:
        points = () if at is None or segment.to is None else (at, segment.to)
        found.append(Piece(segment, points, _piece_m(segment, points)))
        at = segment.to or at
    return tuple(found)


def _piece_m(segment: CableSegment, points: tuple[SitePoint, ...]) -> float | None:
    """Return a piece's length: typed, else drawn.

    On a slope the straight line; on walls and under ground over and down.
    """
    if segment.length is not None:
        return segment.length.value_m
    if not points:
        return None
    level = sum(math.hypot(b.east_m - a.east_m, b.north_m - a.north_m) for a, b in pairwise(points))
    drop = 0.0 if segment.drop is None else segment.drop.value_m
    return math.hypot(level, drop) if segment.lie is Lie.ROOF else level + drop
