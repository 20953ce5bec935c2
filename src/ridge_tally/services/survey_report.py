"""What the survey makes of its readings: corners, residuals, doubts, and what is still to measure."""

import math
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

import numpy as np

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.ids import ObstructionId, PlaneId, ShadeId
from ridge_tally.core.job.survey import (
    ROUND_KINDS,
    EdgeKind,
    ReadingKind,
    RoofPlane,
    SitePoint,
    Structure,
    TapeReading,
)
from ridge_tally.core.survey.adjustment import Adjusted, Traverse
from ridge_tally.core.survey.closing import Suspicion, suspicion, walked
from ridge_tally.core.survey.outline import (
    Box,
    adjusted_outline,
    corners_m,
    edge_names,
    existing_box,
    lies_on,
    obstruction_box,
    reading_name,
    up_slope_per_plan,
    what_would_close,
)
from ridge_tally.core.survey.polygon import area_m2
from ridge_tally.core.survey.readings import LENGTHS
from ridge_tally.core.survey.scene import SitePoint3
from ridge_tally.core.survey.shade import source_at, source_height_m
from ridge_tally.core.survey.site_frame import MEETS_WITHIN_M, meetings, to_site
from ridge_tally.core.units import M_PER_IN, LengthUnit, format_length
from ridge_tally.rules.survey import FAIR_RATIO, GOOD_RATIO
from ridge_tally.services.plane_editing import is_unmeasured

# More seams or rafters than these are not drawn.
MOST_LINES = 400


class EdgeState(StrEnum):
    """How an edge's length is known."""

    TAPED = "taped"
    DERIVED = "derived"
    RECKONED = "reckoned"
    LOOSE = "loose"
    SUSPECT = "suspect"


class Closing(StrEnum):
    """How well the readings of an outline close; ``open`` while corners are loose."""

    OPEN = "open"
    UNCHECKED = "unchecked"
    GOOD = "good"
    FAIR = "fair"
    POOR = "poor"


@dataclass(frozen=True, slots=True)
class EdgeView:
    """An edge: what it is called, how long it came out, and how that is known."""

    name: str
    kind: EdgeKind
    length_text: str
    state: EdgeState


@dataclass(frozen=True, slots=True)
class ReadingView:
    """A reading beside what the adjustment made of it.

    ``fits_text`` is the length it came out as, ``residual_text`` that less what was read; ``predicted_text`` what a suspect should have read.
    """

    kind: ReadingKind
    at: tuple[int, ...]
    name: str
    typed: str
    fits_text: str
    residual_m: float | None
    residual_text: str
    suspect: bool
    predicted_text: str
    left_out: bool
    derived: bool


@dataclass(frozen=True, slots=True)
class CornerPair:
    """Two corners, counted from 0."""

    a: int
    b: int


@dataclass(frozen=True, slots=True)
class CornerView:
    """A corner; ``sd_m`` is ``None`` while corners are loose."""

    x_m: float
    y_m: float
    sd_m: float | None
    loose: bool


@dataclass(frozen=True, slots=True)
class ObstructionView:
    """Where an obstruction's offsets lead; ``off_plane`` when that is beside the plane."""

    id: ObstructionId
    round: bool
    box: Box
    off_plane: bool


@dataclass(frozen=True, slots=True)
class PlaneSurvey:
    """A plane as its readings make it, in metres up the slope."""

    plane_id: PlaneId
    corners: tuple[CornerView, ...]
    edges: tuple[EdgeView, ...]
    readings: tuple[ReadingView, ...]
    unmeasured: bool
    closing: Closing
    closing_text: str
    to_close: str
    would_fix: tuple[CornerPair, ...]
    doubt: str
    area_m2: float
    area_sd_m2: float | None
    obstructions: tuple[ObstructionView, ...]
    existing: tuple[Box, ...]
    rafters_x_m: tuple[float, ...]
    purlins_y_m: tuple[float, ...]
    ribs_x_m: tuple[float, ...]
    site: tuple[SitePoint3, ...]


@dataclass(frozen=True, slots=True)
class ShadeView:
    """A shade source where it stands; ``height_m`` is ``None`` until it is measured."""

    id: ShadeId
    at: SitePoint
    height_m: float | None
    height_text: str


class Where(StrEnum):
    """Which drawing of the survey shows a thing."""

    PLANE = "plane"
    SITE = "site"


@dataclass(frozen=True, slots=True)
class ToMeasure:
    """Something still to measure or in doubt, and where it is seen."""

    text: str
    where: Where
    plane_id: PlaneId | None = None
    doubt: bool = False


@dataclass(frozen=True, slots=True)
class SurveyReport:
    """What follows an edit of the survey at once."""

    planes: tuple[PlaneSurvey, ...]
    shade: tuple[ShadeView, ...]
    to_measure: tuple[ToMeasure, ...]


def survey_report(job: Job) -> SurveyReport:
    """Return what the survey's readings make, for the drawings and the Tally."""
    planes = tuple(_plane(plane, job.unit) for plane in job.survey.planes)
    return SurveyReport(
        planes=planes,
        shade=tuple(
            ShadeView(
                s.id,
                source_at(s),
                height := source_height_m(s),
                "" if height is None else format_length(height, job.unit),
            )
            for s in job.survey.shade_sources
        ),
        to_measure=_to_measure(job, planes),
    )


def small_length_text(length_m: float, unit: LengthUnit) -> str:
    """Return a few millimetres with their sign; in feet jobs as inches too."""
    size = f"{abs(length_m) * 1000:.0f}"
    sign = "" if size == "0" else "−" if length_m < 0 else "+"
    text = f"{sign}{size} mm"
    return text if unit is LengthUnit.METRE else f"{text} ({abs(length_m) / M_PER_IN:.2f}″)"


@lru_cache(maxsize=256)
def _plane(plane: RoofPlane, unit: LengthUnit) -> PlaneSurvey:
    adjusted, corners = adjusted_outline(plane.outline), corners_m(plane)
    loose = set(adjusted.loose)
    up = up_slope_per_plan(plane)
    sds = adjusted.sd_m or (None,) * len(corners)
    blamed = suspicion(plane.outline, FAIR_RATIO)
    readings = _readings(plane, adjusted, blamed, unit)
    walk = walked(plane.outline)
    closing, text = _closing(plane, adjusted, walk, unit)
    return PlaneSurvey(
        plane_id=plane.id,
        corners=tuple(
            CornerView(float(x), float(y), None if sd is None else sd * up, loose=i in loose)
            for i, ((x, y), sd) in enumerate(zip(corners, sds, strict=True))
        ),
        edges=_edges(plane, readings, loose, unit),
        readings=readings,
        unmeasured=is_unmeasured(plane),
        closing=closing,
        closing_text=text,
        to_close=what_would_close(adjusted),
        would_fix=tuple(CornerPair(a, b) for a, b in adjusted.would_fix),
        doubt=_doubt(adjusted, readings, closing, blamed),
        area_m2=area_m2(corners),
        area_sd_m2=None if adjusted.area_sd_m2 is None else adjusted.area_sd_m2 * up,
        obstructions=tuple(
            ObstructionView(
                o.id,
                o.kind in ROUND_KINDS,
                box := obstruction_box(plane, o),
                off_plane=not adjusted.missing and not lies_on(plane, box.ring()),
            )
            for o in plane.obstructions
        ),
        existing=tuple(existing_box(plane, rows) for rows in plane.existing),
        rafters_x_m=_steps(
            plane.structure.first_rafter, plane.structure.rafter_spacing, corners[:, 0]
        ),
        purlins_y_m=_steps(
            plane.structure.first_purlin, plane.structure.purlin_spacing, corners[:, 1]
        ),
        ribs_x_m=_ribs(plane.structure, corners),
        site=tuple(SitePoint3(*(round(float(v), 3) for v in p)) for p in to_site(plane, corners)),
    )


def _steps(first: object, spacing: object, across: np.ndarray) -> tuple[float, ...]:
    """Return where rafters or purlins lie, counted from the eave's left corner; none unread."""
    start, step = getattr(first, "value_m", None), getattr(spacing, "value_m", None)
    if start is None or not step:
        return ()
    count = math.floor((float(across.max()) - start) / step + 1e-6) + 1
    return tuple(round(start + i * step, 4) for i in range(min(max(count, 0), MOST_LINES)))


def _ribs(structure: Structure, corners: np.ndarray) -> tuple[float, ...]:
    """Return seams or ribs, counted from the eave's left corner."""
    spacing = structure.seam_spacing or structure.rib_spacing
    if spacing is None:
        return ()
    count = math.floor(float(corners[:, 0].max()) / spacing.value_m + 1e-6) + 1
    return tuple(round(i * spacing.value_m, 4) for i in range(min(count, MOST_LINES)))


def _readings(
    plane: RoofPlane, adjusted: Adjusted, blamed: Suspicion | None, unit: LengthUnit
) -> tuple[ReadingView, ...]:
    used = iter(enumerate(adjusted.residuals_m))
    views = []
    for reading in plane.outline.readings:
        index, residual = (None, None) if reading.left_out else next(used)
        suspect = blamed is not None and index == blamed.reading
        predicted = blamed.predicted_m if blamed is not None and suspect else None
        views.append(_reading(plane, reading, residual, predicted, unit, suspect=suspect))
    return tuple(views)


def _reading(
    plane: RoofPlane,
    reading: TapeReading,
    residual_m: float | None,
    predicted_m: float | None,
    unit: LengthUnit,
    *,
    suspect: bool,
) -> ReadingView:
    length = reading.kind in LENGTHS
    return ReadingView(
        kind=reading.kind,
        at=reading.at,
        name=reading_name(plane.outline, reading.kind, reading.at),
        typed=reading.taped.typed if reading.taped else "",
        fits_text=_to_the_millimetre(reading.taped.value_m + residual_m, unit)
        if reading.taped and residual_m is not None
        else "",
        residual_m=residual_m,
        residual_text=small_length_text(residual_m, unit)
        if length and residual_m is not None
        else "",
        suspect=suspect,
        predicted_text="" if predicted_m is None else format_length(predicted_m, unit),
        left_out=reading.left_out,
        derived=reading.derived,
    )


def _to_the_millimetre(length_m: float, unit: LengthUnit) -> str:
    return f"{length_m:.3f} m" if unit is LengthUnit.METRE else format_length(length_m, unit)


def _edges(
    plane: RoofPlane, readings: tuple[ReadingView, ...], loose: set[int], unit: LengthUnit
) -> tuple[EdgeView, ...]:
    read = adjusted_outline(plane.outline).corners_m
    names, count = edge_names(plane.outline), len(read)
    sides = {r.at[0]: r for r in readings if r.kind is ReadingKind.SIDE and not r.left_out}
    views = []
    for i, kind in enumerate(plane.outline.edges):
        after = (i + 1) % count
        side = sides.get(i)
        if side is not None:
            state = (
                EdgeState.SUSPECT
                if side.suspect
                else EdgeState.DERIVED
                if side.derived
                else EdgeState.TAPED
            )
        else:
            state = EdgeState.LOOSE if loose & {i, after} else EdgeState.RECKONED
        length_m = float(np.hypot(*(read[after] - read[i])))
        text = "" if state is EdgeState.LOOSE else format_length(length_m, unit)
        views.append(EdgeView(names[i], kind, text, state))
    return tuple(views)


def _closing(
    plane: RoofPlane, adjusted: Adjusted, walk: Traverse | None, unit: LengthUnit
) -> tuple[Closing, str]:
    """Return how well an outline closes, and that in words with its figures."""
    if adjusted.missing:
        return Closing.OPEN, "not closed yet"
    if walk is not None and math.isfinite(walk.ratio):
        size_m = math.hypot(*walk.misclosure_m)
        rounded = float(f"{walk.ratio:.3g}")
        text = (
            f"misses by {small_length_text(size_m, unit).lstrip('+')}, 1\u00a0:\u00a0{rounded:.0f}"
        )
        good, fair = walk.ratio >= GOOD_RATIO, walk.ratio >= FAIR_RATIO
        return (Closing.GOOD if good else Closing.FAIR if fair else Closing.POOR), text
    used = [r for r in plane.outline.readings if not r.left_out]
    if not any(c and r.kind in LENGTHS for c, r in zip(adjusted.checked, used, strict=True)):
        return Closing.UNCHECKED, "closes; one more reading would check it"
    if walk is not None:
        return Closing.GOOD, "closes to the millimetre"
    fits = adjusted.global_test is not False
    word = "the readings fit together" if fits else "the readings do not fit together"
    return (Closing.GOOD if fits else Closing.POOR), word


def _doubt(
    adjusted: Adjusted,
    readings: tuple[ReadingView, ...],
    closing: Closing,
    blamed: Suspicion | None,
) -> str:
    """Return which reading is most likely wrong, or that they do not fit; empty without doubt."""
    named = next((r for r in readings if r.suspect), None)
    if named is not None:
        if not named.predicted_text:
            return f"{_sentence(named.name)} does not agree with the readings."
        by = "if the corners are square" if blamed and blamed.if_square else "by the other readings"
        return (
            f"{_sentence(named.name)} reads {named.typed}; {by} it should be "
            f"about {named.predicted_text}: re-measure it, or leave it out."
        )
    if adjusted.global_test is False or closing is Closing.POOR:
        return (
            "These readings do not fit together and none stands out: "
            "re-measure a side, or add a diagonal to tell which."
        )
    return ""


def _sentence(text: str) -> str:
    return text[:1].upper() + text[1:]


def _to_measure(job: Job, planes: tuple[PlaneSurvey, ...]) -> tuple[ToMeasure, ...]:
    found: list[ToMeasure] = []
    for plane, view in zip(job.survey.planes, planes, strict=True):
        found += _of_plane(plane, view)
    named = {p.id: p.name for p in job.survey.planes}
    found += [
        ToMeasure(
            f"{named[m.plane_id]} and {named[m.other_id]}: their edges lie "
            f"{small_length_text(m.apart_m, job.unit).lstrip('+')} apart.",
            Where.SITE,
            m.plane_id,
            doubt=True,
        )
        for m in meetings(job.survey.planes)
        if m.apart_m > MEETS_WITHIN_M
    ]
    found += [
        ToMeasure(f"{s.name}: its height.", Where.SITE)
        for s in job.survey.shade_sources
        if source_height_m(s) is None
    ]
    if job.survey.trace is not None and not job.survey.trace.distance.typed:
        found.append(ToMeasure("The picture’s scale: two points a known way apart.", Where.SITE))
    service = job.survey.service
    missing = [w for w in ("meter", "panel") if getattr(service, w) is None]
    if missing:
        found.append(ToMeasure(f"Where {' and '.join(missing)} hang.", Where.SITE))
    return tuple(found)


def _of_plane(plane: RoofPlane, view: PlaneSurvey) -> list[ToMeasure]:
    def here(text: str, *, doubt: bool = False) -> ToMeasure:
        return ToMeasure(f"{plane.name}: {text}", Where.PLANE, plane.id, doubt)

    found = []
    if view.doubt:
        found.append(here(f"{view.doubt[0].lower()}{view.doubt[1:]}", doubt=True))
    if view.to_close:
        found.append(here(f"{view.to_close[0].lower()}{view.to_close[1:]}"))
    guesses = [
        word
        for word, known in (
            ("slope", plane.slope_typed != ""),
            ("azimuth", plane.azimuth_given),
            ("eave height", plane.eave_height is not None),
        )
        if not known
    ]
    if guesses:
        found.append(here(f"{', '.join(guesses)} (drawn as a guess)."))
    found += [
        here(f"{o.name} lies off the plane: check its offsets.", doubt=True)
        for o, seen in zip(plane.obstructions, view.obstructions, strict=True)
        if seen.off_plane
    ]
    return found
