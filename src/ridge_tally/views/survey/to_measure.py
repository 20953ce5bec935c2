"""What is still to measure on a site, or in doubt, in words."""

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.survey.shade import source_height_m
from ridge_tally.core.survey.site_frame import MEETS_WITHIN_M, meetings
from ridge_tally.core.survey.standing import overlaps
from ridge_tally.core.survey.taping import small_area_text, small_size_text
from ridge_tally.views.survey.drawings import PlaneSurvey, ToMeasure, Where


def to_measure(job: Job, planes: tuple[PlaneSurvey, ...]) -> tuple[ToMeasure, ...]:
    """Return what is still to measure, plane by plane, then on the site."""
    found: list[ToMeasure] = []
    for plane, view in zip(job.survey.planes, planes, strict=True):
        found += _of_plane(plane, view)
    named = {p.id: p.name for p in job.survey.planes}
    found += [
        ToMeasure(
            f"{named[m.plane_id]} and {named[m.other_id]}: their edges lie "
            f"{small_size_text(m.apart_m, job.unit)} apart.",
            Where.SITE,
            m.plane_id,
            doubt=True,
        )
        for m in meetings(job.survey.planes)
        if m.apart_m > MEETS_WITHIN_M
    ]
    found += [
        ToMeasure(
            f"{p.name}: its place on the site. Till then its roof and walls throw no shade.",
            Where.SITE,
            p.id,
        )
        for p in job.survey.planes
        if not p.at_given
    ]
    found += [
        ToMeasure(
            f"{named[o.plane_id]} and {named[o.other_id]} go through each other over "
            f"{small_area_text(o.area_m2, job.unit)} of the site.",
            Where.SITE,
            o.plane_id,
            doubt=True,
        )
        for o in overlaps(job.survey)
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
