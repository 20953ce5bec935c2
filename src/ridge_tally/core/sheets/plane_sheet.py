"""A plane as a plan for a sheet: outline with its lengths, what stands on it, modules or strings."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import pairwise
from math import cos, dist, pi, sin

from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.shape import runs_of
from ridge_tally.core.array.strips import kept_free
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.survey import ROUND_KINDS, RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.sheets.flat_plan import FlatPlan, Note, Running, Shape, Side, flat
from ridge_tally.core.sheets.plan_drawing import Thread
from ridge_tally.core.sheets.scene import Layer
from ridge_tally.core.survey.outline import Box, corners_m, obstruction_box
from ridge_tally.core.units import LengthUnit, format_length

# Marks nearer to each other than this are one.
SAME_MARK_M = 0.005
# Where in a module a string runs, so that its number stands beside it.
WAY_FRAC = 0.7
ROUND_SIDES = 24


def bare_plan(plane: RoofPlane, unit: LengthUnit) -> FlatPlan:
    """Return a plane's outline with the length of each side, and what stands on it by name."""
    corners = flat(corners_m(plane))
    shapes = [Shape(Layer.ROOF, corners, f"plane {plane.id}")]
    notes = []
    for thing in plane.obstructions:
        b = obstruction_box(plane, thing)
        part = f"obstruction {thing.id}"
        ring = _round(b) if thing.kind in ROUND_KINDS else flat(b.ring())
        shapes.append(Shape(Layer.OBSTACLE, ring, part))
        notes.append(Note(thing.kind.value.replace("-", " "), _within(b), part, beside=True))
    sides = tuple(
        Side(a, b, plane.outline.edges[n].value, format_length(dist(a, b), unit))
        for n, (a, b) in enumerate(zip(corners, [*corners[1:], corners[0]], strict=True))
    )
    # Up the paper is up the slope, away from where the plane faces.
    return FlatPlan(
        tuple(shapes), notes=tuple(notes), sides=sides, north_deg=(180.0 - plane.azimuth_deg) % 360
    )


def _round(b: Box) -> list[tuple[float, float]]:
    """Return a circle in a box as a ring of many sides."""
    x, y, r = (b.left_m + b.right_m) / 2, (b.bottom_m + b.top_m) / 2, (b.right_m - b.left_m) / 2
    turns = [2 * pi * n / ROUND_SIDES for n in range(ROUND_SIDES)]
    return [(x + r * cos(t), y + r * sin(t)) for t in turns]


def layout_plan(laid: LaidArray, lay: Lay, path_edge: int | None, unit: LengthUnit) -> FlatPlan:
    """Return a plane with its modules numbered, its free strips, and lengths running from its corner."""
    bare, boxes = bare_plan(laid.plane, unit), module_boxes(laid)
    shapes = module_shapes(boxes)
    numbers = [
        Note(str(n), _within(b), f"module {id_}")
        for n, (id_, b) in enumerate(boxes.items(), start=1)
    ]
    return FlatPlan(
        (*bare.shapes, *shapes),
        notes=(*bare.notes, *numbers),
        sides=bare.sides,
        runnings=tuple(_runnings(laid, lay, unit)),
        patches=kept_free(laid.plane, path_edge),
        north_deg=bare.north_deg,
    )


def string_plan(laid: LaidArray, threads: Sequence[Thread], unit: LengthUnit) -> FlatPlan:
    """Return a plane with its strings or branches by colour, dash and number, as they are threaded."""
    bare, boxes = bare_plan(laid.plane, unit), module_boxes(laid)
    shapes = module_shapes(boxes)
    notes = []
    for thread in threads:
        mine = [(label, boxes[m]) for m, label in thread.modules if m in boxes]
        for label, b in mine:
            notes.append(Note(label, _within(b), f"string {label[0]}", bold=True))
        if len(mine) > 1:
            way = tuple(_way([b for _, b in mine]))
            shapes.append(
                Shape(Layer.STRING, way, f"string {mine[0][0][0]}", closed=False,
                      dashed=thread.number % 2 == 1, hue=thread.number + 1)
            )  # fmt: skip
    return FlatPlan(
        (*bare.shapes, *shapes),
        notes=(*bare.notes, *notes),
        sides=bare.sides,
        north_deg=bare.north_deg,
    )


def module_boxes(laid: LaidArray) -> dict[PlacedId, Box]:
    """Return where each present module lies, plane metres, by its id in the order of the array."""
    found: dict[PlacedId, Box] = {}
    for m in present_of(laid.array):
        wide_m, high_m = module_footprint_m(laid.module, m.orientation, laid.array.leg_tilt_deg)
        found[m.id] = Box(m.x_m, m.y_m, m.x_m + wide_m, m.y_m + high_m)
    return found


def module_shapes(boxes: Mapping[PlacedId, Box], layer: Layer = Layer.MODULE) -> list[Shape]:
    """Return modules as they lie."""
    return [Shape(layer, flat(b.ring()), f"module {id_}") for id_, b in boxes.items()]


def _within(b: Box) -> tuple[float, float, float, float]:
    return b.left_m, b.bottom_m, b.right_m, b.top_m


def _way(boxes: Sequence[Box]) -> Iterator[tuple[float, float]]:
    """Yield the way of a string: level and upright; past what lies between, along the lower edges."""

    def spot(b: Box) -> tuple[float, float]:
        return b.left_m + WAY_FRAC * (b.right_m - b.left_m), (b.bottom_m + b.top_m) / 2

    yield spot(boxes[0])
    for one, other in pairwise(boxes):
        (x, y), (to_x, to_y) = spot(one), spot(other)
        apart = max(one.left_m, other.left_m) - min(one.right_m, other.right_m)
        level = abs(y - to_y) < SAME_MARK_M
        if level and apart > 0.25 * (one.right_m - one.left_m):
            low = min(one.bottom_m, other.bottom_m)
            yield from ((x, low), (to_x, low))
        elif not level:
            yield (x, to_y)
        yield (to_x, to_y)


def _runnings(laid: LaidArray, lay: Lay, unit: LengthUnit) -> Iterator[Running]:
    places = tuple(Place(m.x_m, m.y_m, m.orientation) for m in present_of(laid.array))
    runs = runs_of(lay, places)
    corners = corners_m(laid.plane)
    ends = [x for r in runs for x in (r.left_m, r.right_m)]
    edges = [y for b in module_boxes(laid).values() for y in (b.bottom_m, b.top_m)]
    for along_x, marks, most in (
        (True, ends, float(corners[:, 0].max())),
        (False, edges, float(corners[:, 1].max())),
    ):
        told = tuple(_apart([0.0, *marks, most]))
        yield Running(along_x, told, tuple(format_length(m, unit) for m in told))


def _apart(marks: Iterable[float]) -> Iterator[float]:
    last = float("-inf")
    for mark in sorted(marks):
        if mark - last > SAME_MARK_M:
            yield mark
            last = mark
