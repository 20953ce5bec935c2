"""What stands between an array and the sky: the scene's solids, each with whose it is."""

from dataclasses import dataclass, replace
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.ids import ShadeId
from ridge_tally.core.job.survey import LeafHabit, ShadeKind, Survey
from ridge_tally.core.kernels.dome import CONE, CYLINDER, ELLIPSOID
from ridge_tally.core.survey.scene import Face, FaceKind, RoundKind, Scene, scene_of
from ridge_tally.core.survey.standing import shades_others

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]
# A word of the sky holds so many owners; those beyond share the last.
MOST_OWNERS = 64
HORIZON = "the horizon"
# A face along the glass and nearer than this is what the glass lies on or in: its plane, or
# what lies flat on that; between rows on legs, its own row.
OWN_PLANE_M, OWN_ROW_M = 0.3, 0.02


class OwnerKind(StrEnum):
    """What an owner is."""

    ROOF = "roof"
    OBSTRUCTION = "obstruction"
    TREE = "tree"
    HOUSE = "house"
    POLE = "pole"
    HORIZON = "horizon"
    ROWS = "rows"


@dataclass(frozen=True, slots=True)
class SkyOwner:
    """Somebody's solids: ``owner_id`` tells owners of one name apart.

    ``shade_id`` names a tree, house or pole of the survey.
    """

    name: str
    kind: OwnerKind
    owner_id: str = ""
    shade_id: str = ""
    leafless_months: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True)
class Occluders:
    """Solids as arrays, for the kernels; see ``core.kernels.dome.skies`` for the shapes."""

    owners: tuple[SkyOwner, ...]
    corners_m: FloatArray
    starts: IntArray
    normals: FloatArray
    drops: IntArray
    face_owners: IntArray
    own_m: FloatArray
    rounds_m: FloatArray
    shapes: IntArray
    round_owners: IntArray
    horizon_deg: FloatArray


def occluders_of(survey: Survey) -> Occluders:
    """Return the site's solids with their owners; heights nobody measured are the scene's guesses."""
    scene = scene_of(survey)
    owners = _owners(survey, scene)
    number = {(o.owner_id, o.kind): min(i, MOST_OWNERS - 1) for i, o in enumerate(owners)}
    rings, normals, drops, face_owners = [], [], [], []
    for face in _throwing(survey, scene):
        ring = np.array([[p.east_m, p.north_m, p.up_m] for p in face.ring])
        normal = _normal(ring)
        if normal is None:
            continue
        rings.append(ring)
        normals.append(normal)
        drops.append(int(np.argmax(np.abs(normal))))
        face_owners.append(number[face.owner_id, KIND_OF_FACE[face.kind]])
    kinds = {s.id: KIND_OF_SOURCE[s.kind] for s in survey.shade_sources}
    rounds, shapes, round_owners = [], [], []
    for solid in scene.rounds:
        rounds.append(
            [solid.at.east_m, solid.at.north_m, solid.base_m, solid.top_m, solid.radius_m]
        )
        shapes.append(SHAPES[solid.kind])
        round_owners.append(number[solid.owner_id, kinds[ShadeId(solid.owner_id)]])
    return Occluders(
        owners=tuple(owners[:MOST_OWNERS]),
        corners_m=np.concatenate(rings) if rings else np.zeros((0, 3)),
        starts=np.cumsum([0, *(len(r) for r in rings)]),
        normals=np.array(normals).reshape(-1, 3),
        drops=np.array(drops, dtype=np.int64),
        face_owners=np.array(face_owners, dtype=np.int64),
        own_m=np.full(len(rings), OWN_PLANE_M),
        rounds_m=np.array(rounds, dtype=float).reshape(-1, 5),
        shapes=np.array(shapes, dtype=np.int64),
        round_owners=np.array(round_owners, dtype=np.int64),
        horizon_deg=_horizon(survey),
    )


def with_rows(occluders: Occluders, name: str, glass_m: FloatArray) -> Occluders:
    """Return the solids with the modules of an array on legs among them.

    Parameters
    ----------
    glass_m : (n, 4, 3) float
        Corners of the modules' glass on the site, metres, in order round each.
    """
    if len(glass_m) == 0:
        return occluders
    owners = (*occluders.owners, SkyOwner(name, OwnerKind.ROWS))
    number = min(len(owners), MOST_OWNERS) - 1
    normal = np.cross(glass_m[:, 1] - glass_m[:, 0], glass_m[:, 3] - glass_m[:, 0])
    normal /= np.linalg.norm(normal, axis=1)[:, None]
    ends = occluders.starts[-1] + 4 * np.arange(1, len(glass_m) + 1)
    return replace(
        occluders,
        owners=owners[:MOST_OWNERS],
        corners_m=np.concatenate([occluders.corners_m, glass_m.reshape(-1, 3)]),
        starts=np.concatenate([occluders.starts, ends]),
        normals=np.concatenate([occluders.normals, normal]),
        drops=np.concatenate([occluders.drops, np.argmax(np.abs(normal), axis=1)]),
        face_owners=np.concatenate([occluders.face_owners, np.full(len(glass_m), number)]),
        own_m=np.concatenate([occluders.own_m, np.full(len(glass_m), OWN_ROW_M)]),
    )


SHAPES = {
    RoundKind.POST: CYLINDER,
    RoundKind.CROWN: ELLIPSOID,
    RoundKind.CONE: CONE,
}
KIND_OF_FACE = {
    FaceKind.ROOF: OwnerKind.ROOF,
    FaceKind.WALL: OwnerKind.ROOF,
    FaceKind.OBSTRUCTION: OwnerKind.OBSTRUCTION,
    FaceKind.EXISTING: OwnerKind.ROOF,
    FaceKind.HOUSE: OwnerKind.HOUSE,
}
KIND_OF_SOURCE = {
    ShadeKind.TREE: OwnerKind.TREE,
    ShadeKind.HOUSE: OwnerKind.HOUSE,
    ShadeKind.POLE: OwnerKind.POLE,
    ShadeKind.CHIMNEY: OwnerKind.POLE,
}


def _throwing(survey: Survey, scene: Scene) -> list[Face]:
    """Return the faces that throw shade: ground lies under what stands on it.

    Of a plane nobody measured or placed only what lies on it does.
    """
    unsure = {p.id for p in survey.planes if not shades_others(p, survey)}
    plane_kinds = (FaceKind.ROOF, FaceKind.WALL)
    return [
        f
        for f in scene.faces
        if f.kind is not FaceKind.GROUND and not (f.kind in plane_kinds and f.owner_id in unsure)
    ]


def _owners(survey: Survey, scene: Scene) -> list[SkyOwner]:
    """Return the owners: what can be trimmed first, so that a crowd of vents shares the last."""
    owners = [
        SkyOwner(
            s.name,
            KIND_OF_SOURCE[s.kind],
            s.id,
            s.id,
            _leafless(s.first_leaf_month, s.last_leaf_month)
            if s.leaf is LeafHabit.DECIDUOUS
            else (),
        )
        for s in survey.shade_sources
    ]
    if survey.horizon:
        owners.append(SkyOwner(HORIZON, OwnerKind.HORIZON))
    for face in _throwing(survey, scene):
        owner = SkyOwner(face.name, KIND_OF_FACE[face.kind], face.owner_id)
        if all((o.owner_id, o.kind) != (owner.owner_id, owner.kind) for o in owners):
            owners.append(owner)
    return owners


def _leafless(first: int, last: int) -> tuple[int, ...]:
    """Return the months, from 0, outside the leaf's; a season may run over the new year."""
    leafy = range(first, last + 1) if first <= last else (*range(first, 13), *range(1, last + 1))
    return tuple(m - 1 for m in range(1, 13) if m not in leafy)


def _horizon(survey: Survey) -> FloatArray:
    """Return elevation at each whole degree of bearing; −1 everywhere without a horizon."""
    if not survey.horizon:
        return np.full(360, -1.0)
    bearing = np.array([h.bearing_deg for h in survey.horizon])
    elevation = np.array([h.elevation_deg for h in survey.horizon])
    return np.asarray(np.interp(np.arange(360.0), bearing, elevation, period=360.0))


def _normal(ring: FloatArray) -> FloatArray | None:
    """Return a ring's unit normal (Newell); ``None`` where it has no area."""
    after = np.roll(ring, -1, axis=0)
    total = np.cross(ring, after).sum(axis=0)
    length = float(np.linalg.norm(total))
    return None if length < 1e-9 else np.asarray(total / length)
