"""The site as solids, for looking at: roof planes, what stands on them, what stands around.

Site coordinates, metres east, north and up.  Drawn only: no figure is taken from it.
"""

import math
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.survey import (
    ROUND_KINDS,
    CrownShape,
    EdgeKind,
    Obstruction,
    RoofPlane,
    ShadeKind,
    ShadeSource,
    Survey,
)
from ridge_tally.core.survey.outline import corners_m, existing_box, obstruction_box
from ridge_tally.core.survey.shade import source_at, source_height_m
from ridge_tally.core.survey.site_frame import to_site

FloatArray = NDArray[np.float64]
# Round pipes are drawn with this many sides.
ROUND_SIDES = 10
# A shade source without a height is drawn this high, and marked as a guess.
GUESSED_SOURCE_M = 5.0
# A carport's post as wide as most; common practice, no source.
POST_WIDE_M = 0.12


class FaceKind(StrEnum):
    """What a face belongs to."""

    ROOF = "roof"
    GROUND = "ground"
    WALL = "wall"
    OBSTRUCTION = "obstruction"
    EXISTING = "existing"
    HOUSE = "house"


class RoundKind(StrEnum):
    """What a round solid is."""

    CROWN = "crown"
    CONE = "cone"
    POST = "post"


@dataclass(frozen=True, slots=True)
class SitePoint3:
    """A point of the site, metres east, north and up."""

    east_m: float
    north_m: float
    up_m: float


@dataclass(frozen=True, slots=True)
class Face:
    """A flat face; ``name`` says whose, ``owner_id`` tells it from another of that name."""

    kind: FaceKind
    name: str
    owner_id: str
    ring: tuple[SitePoint3, ...]


@dataclass(frozen=True, slots=True)
class Round:
    """An upright ellipsoid, cone or cylinder from ``base_m`` to ``top_m`` above the ground.

    ``owner_id``: the tree, pole or chimney it belongs to.
    """

    kind: RoundKind
    name: str
    owner_id: str
    at: SitePoint3
    base_m: float
    top_m: float
    radius_m: float
    guessed: bool


@dataclass(frozen=True, slots=True)
class Scene:
    """All of it."""

    faces: tuple[Face, ...]
    rounds: tuple[Round, ...]


# A name and the id it goes by.
Owner = tuple[str, str]


def scene_of(survey: Survey) -> Scene:
    """Return the site as solids."""
    faces: list[Face] = []
    rounds: list[Round] = []
    for plane in survey.planes:
        faces += _plane_faces(plane)
    for source in survey.shade_sources:
        if source.kind is ShadeKind.HOUSE:
            faces += _house_faces(source)
        else:
            rounds += _rounds(source)
    return Scene(tuple(faces), tuple(rounds))


def _ring(points: FloatArray) -> tuple[SitePoint3, ...]:
    return tuple(SitePoint3(*(round(float(v), 3) for v in p)) for p in points)


def _plane_faces(plane: RoofPlane) -> list[Face]:
    corners = to_site(plane, corners_m(plane))
    owner = plane.name, plane.id
    if plane.ground is not None:
        return [Face(FaceKind.GROUND, *owner, _ring(corners))]
    upright = plane.slope_deg >= 89.0
    faces = [Face(FaceKind.WALL if upright else FaceKind.ROOF, *owner, _ring(corners))]
    if plane.open_below:
        faces += [_post(owner, corner) for corner in corners]
    elif not upright:
        for i, kind in enumerate(plane.outline.edges):
            # Rakes too: their walls are gable ends, and the cheeks of dormers.
            if kind in (EdgeKind.EAVE, EdgeKind.RAKE):
                faces.append(_to_ground(owner, corners[i], corners[(i + 1) % len(corners)]))
    for obstruction in plane.obstructions:
        faces += _raised(plane, obstruction)
    for rows in plane.existing:
        ring = to_site(plane, existing_box(plane, rows).ring()) + np.array([0.0, 0.0, 0.1])
        faces.append(
            Face(FaceKind.EXISTING, f"existing array on {plane.name}", plane.id, _ring(ring))
        )
    return faces


def _to_ground(owner: Owner, a: FloatArray, b: FloatArray) -> Face:
    down = np.array([1.0, 1.0, 0.0])
    return Face(FaceKind.WALL, *owner, _ring(np.array([a, b, b * down, a * down])))


def _post(owner: Owner, top: FloatArray) -> Face:
    """Return a carport's post under a corner: a narrow upright face, as wide as a post."""
    half = np.array([POST_WIDE_M / 2, 0.0, 0.0])
    return _to_ground(owner, top - half, top + half)


def _raised(plane: RoofPlane, obstruction: Obstruction) -> list[Face]:
    """Return an obstruction as a prism that stands upright on its footprint."""
    box = obstruction_box(plane, obstruction)
    if obstruction.kind in ROUND_KINDS:
        turn = np.linspace(0.0, 2 * math.pi, ROUND_SIDES, endpoint=False)
        middle = np.array([(box.left_m + box.right_m) / 2, (box.bottom_m + box.top_m) / 2])
        radius = (box.right_m - box.left_m) / 2
        ring = middle + radius * np.column_stack([np.cos(turn), np.sin(turn)])
    else:
        ring = box.ring()
    foot = to_site(plane, ring)
    # Its top is level, at its height above the footprint's highest point.
    head = foot.copy()
    head[:, 2] = foot[:, 2].max() + obstruction.height.value_m
    owner = obstruction.name, f"{plane.id} {obstruction.id}"
    return _prism(FaceKind.OBSTRUCTION, owner, foot, head)


def _prism(kind: FaceKind, owner: Owner, foot: FloatArray, head: FloatArray) -> list[Face]:
    after = np.roll(np.arange(len(foot)), -1)
    sides = [
        Face(kind, *owner, _ring(np.array([foot[i], foot[j], head[j], head[i]])))
        for i, j in enumerate(after)
    ]
    return [*sides, Face(kind, *owner, _ring(head))]


def _height_m(source: ShadeSource) -> tuple[float, bool]:
    found = source_height_m(source)
    return (GUESSED_SOURCE_M, True) if found is None else (found, False)


def _house_faces(source: ShadeSource) -> list[Face]:
    """Return a gabled house: its length runs along ``turned_deg``, its ridge with it."""
    top_m, _ = _height_m(source)
    eave_m = min(source.base.value_m, top_m)
    at, turn = source_at(source), math.radians(source.turned_deg)
    along = np.array([math.sin(turn), math.cos(turn), 0.0]) * source.width.value_m / 2
    across = np.array([math.cos(turn), -math.sin(turn), 0.0]) * source.depth.value_m / 2
    middle = np.array([at.east_m, at.north_m, 0.0])
    up = np.array([0.0, 0.0, 1.0])
    foot = np.array([middle + s * along + t * across for s, t in _AROUND])
    eaves = foot + up * eave_m
    ridge = [middle - along + up * top_m, middle + along + up * top_m]
    owner = source.name, source.id
    ring = [Face(FaceKind.HOUSE, *owner, _ring(np.array(r))) for r in (
        [eaves[0], eaves[1], ridge[1], ridge[0]],
        [eaves[2], eaves[3], ridge[0], ridge[1]],
        [eaves[1], eaves[2], ridge[1]],
        [eaves[3], eaves[0], ridge[0]],
    )]  # fmt: skip
    return [*_prism(FaceKind.HOUSE, owner, foot, eaves)[:-1], *ring]


_AROUND = ((-1, -1), (1, -1), (1, 1), (-1, 1))


def _rounds(source: ShadeSource) -> list[Round]:
    top_m, guessed = _height_m(source)
    at = source_at(source)
    place = SitePoint3(at.east_m, at.north_m, 0.0)
    radius_m, owner = source.width.value_m / 2, (source.name, source.id)
    if source.kind is not ShadeKind.TREE:
        return [Round(RoundKind.POST, *owner, place, 0.0, top_m, radius_m, guessed)]
    base_m = min(source.base.value_m, top_m)
    crown = RoundKind.CONE if source.crown is CrownShape.CONE else RoundKind.CROWN
    found = [Round(crown, *owner, place, base_m, top_m, radius_m, guessed)]
    if source.trunk.value_m > 0 and base_m > 0:
        trunk_m = source.trunk.value_m / 2
        found.append(Round(RoundKind.POST, *owner, place, 0.0, base_m + 0.3, trunk_m, guessed))
    return found
