"""Sets of free strips to start from, and the rule of the ridge strip that grows with the array."""

import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from types import MappingProxyType
from typing import Any

import numpy as np

from ridge_tally.core.equipment import module_area_m2
from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.survey import EdgeKind
from ridge_tally.core.survey.outline import corners_m, is_closed
from ridge_tally.core.survey.polygon import area_m2
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design

CONFIRM = "Confirm with the local authority."


@dataclass(frozen=True, slots=True)
class EdgeStrip:
    """How wide the strip along a kind of edge is."""

    edge: EdgeKind
    width_m: float


@dataclass(frozen=True, slots=True)
class SetbackPack:
    """Strips by kind of edge, metres, the access path, and what they rest on.

    ``edge_zone``: every strip is the edge zone worked out from the house's measures.
    ``wide_ridge_m`` is what the ridge strip grows to where the array covers more of the roof in
    plan than ``wide_above_frac``.
    """

    id: str
    title: str
    told: str
    edges: tuple[EdgeStrip, ...]
    edge_zone: bool
    path_m: float | None
    path_along: tuple[EdgeKind, ...]
    wide_ridge_m: float | None
    wide_above_frac: float | None
    source: Source
    confirm: str = CONFIRM


@cache
def setback_packs() -> MappingProxyType[str, SetbackPack]:
    """Return the shipped packs by id."""
    text = files("ridge_tally.rules").joinpath("packs/setbacks.toml").read_text("utf-8")
    return MappingProxyType({key: _pack(key, row) for key, row in tomllib.loads(text).items()})


def setback_pack(pack_id: str) -> SetbackPack:
    """Return one pack; NotFound if none has that id."""
    try:
        return setback_packs()[pack_id]
    except KeyError:
        raise NotFound("set of free strips", pack_id) from None


def _pack(pack_id: str, row: dict[str, Any]) -> SetbackPack:
    source = row["source"]
    return SetbackPack(
        id=pack_id,
        title=row["title"],
        told=row["told"],
        edges=tuple(EdgeStrip(EdgeKind(k), v) for k, v in row.get("edges", {}).items()),
        edge_zone=row.get("edge_zone", False),
        path_m=row.get("path_m"),
        path_along=tuple(EdgeKind(k) for k in row.get("path_along", ())),
        wide_ridge_m=row.get("wide_ridge_m"),
        wide_above_frac=row.get("wide_above_frac"),
        source=Source(source["document"], source["clause"], SourceStatus(source["status"])),
    )


def edge_zone_m(least_width_m: float, mean_height_m: float) -> float:
    """Return the width of the zone along the edges where wind lifts hardest.

    Parameters
    ----------
    least_width_m, mean_height_m : float
        The house's least width in plan and its mean roof height, both above 0.

    Notes
    -----
    max(min(0.1 width, 0.4 height), 0.04 width, 0.9 m).
    Source: the pattern of the US load standard, from memory; table ``edge-zone``.
    """
    zone = tables.load("edge-zone")

    def of(quantity: str) -> float:
        return zone.number("value", quantity=quantity)

    narrow = min(of("of the least width") * least_width_m, of("of the mean height") * mean_height_m)
    return max(narrow, of("at least, of the least width") * least_width_m, of("at least, m"))


def setback_checks(design: Design) -> tuple[Check, ...]:
    """Return, per plane under a pack with two ridge strips, whether the narrow one still serves."""
    found = []
    for laid in design.arrays:
        plane = laid.plane
        pack = setback_packs().get(plane.setback_pack)
        if pack is None or pack.wide_ridge_m is None or pack.wide_above_frac is None:
            continue
        narrow = plane.setbacks.ridge.value_m < pack.wide_ridge_m - 1e-3
        if narrow and any(m.present for m in laid.array.modules):
            found.append(_ridge_strip(design, plane.name, pack, pack.wide_above_frac))
    return tuple(found)


def _ridge_strip(design: Design, plane_name: str, pack: SetbackPack, most_frac: float) -> Check:
    roof_m2, array_m2 = _plan_areas_m2(design)
    return check(
        rule_id="array.ridge-strip",
        title="Narrow ridge strip allowed",
        subject=plane_name,
        kind=LimitKind.STOP,
        formula="a_array / a_roof",
        givens=(
            Given("a_array", "modules in plan", array_m2, "m²", "this design"),
            Given("a_roof", "roof in plan", roof_m2, "m²", "survey"),
        ),
        value=None if roof_m2 is None or array_m2 is None else array_m2 / roof_m2,
        symbol="share",
        unit="",
        relation="<=",
        limit=Given("most", "share of the roof", most_frac, "", pack.title),
        source=pack.source,
        reason="Not checked: a plane does not close yet, so the roof has no area.",
    )


def _plan_areas_m2(design: Design) -> tuple[float | None, float | None]:
    """Return roof and array in plan; ``None`` while a plane does not close."""
    planes = design.job.survey.planes
    if not all(is_closed(p) for p in planes):
        return None, None
    flat = {p.id: float(np.cos(np.radians(p.slope_deg))) for p in planes}
    roof = sum(area_m2(corners_m(p)) * flat[p.id] for p in planes)
    laid = sum(
        module_area_m2(a.module) * flat[a.plane.id] * sum(m.present for m in a.array.modules)
        for a in design.arrays
    )
    return roof, laid
