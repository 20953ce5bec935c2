"""What the survey makes of its readings: corners, residuals, doubts, and what is still to measure."""

import math
from functools import lru_cache

import numpy as np

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.survey import ROUND_KINDS, ReadingKind, RoofPlane, TapeReading
from ridge_tally.core.survey.adjustment import Adjusted, Traverse
from ridge_tally.core.survey.closing import Suspicion, suspicion, walked
from ridge_tally.core.survey.framing import framing_lines
from ridge_tally.core.survey.outline import (
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
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.core.survey.standing import is_unmeasured
from ridge_tally.core.survey.taping import small_length_text, small_size_text
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.rules.survey.checks import FAIR_RATIO, GOOD_RATIO
from ridge_tally.views.survey.drawings import (
    Closing,
    CornerPair,
    CornerView,
    EdgeState,
    EdgeView,
    ObstructionView,
    PlaneSurvey,
    ReadingView,
    ShadeView,
    SurveyReport,
)
from ridge_tally.views.survey.to_measure import to_measure


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
        to_measure=to_measure(job, planes),
    )


@lru_cache(maxsize=256)
def _plane(plane: RoofPlane, unit: LengthUnit) -> PlaneSurvey:
    adjusted, corners = adjusted_outline(plane.outline), corners_m(plane)
    loose = set(adjusted.loose)
    up = up_slope_per_plan(plane)
    sds = adjusted.sd_m or (None,) * len(corners)
    blamed = suspicion(plane.outline, FAIR_RATIO)
    framing = framing_lines(plane, corners)
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
        doubt=_caveat(adjusted, readings, closing, blamed),
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
        rafters_x_m=framing.rafters_x_m,
        purlins_y_m=framing.purlins_y_m,
        ribs_x_m=framing.ribs_x_m,
        site=tuple(SitePoint3(*(round(float(v), 3) for v in p)) for p in to_site(plane, corners)),
    )


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
        text = f"misses by {small_size_text(size_m, unit)}, 1\u00a0:\u00a0{rounded:.0f}"
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


def _caveat(
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
