"""What must hold of a survey's surroundings before anything is drawn or computed from them."""

import math
from collections.abc import Sequence

from ridge_tally.core.errors import BadGeometry, NotFound
from ridge_tally.core.job.document import Job, plane_of
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import Attachment, LotLine, Picture, ShadeSource, Survey, Trace
from ridge_tally.rules.distinct import require_distinct
from ridge_tally.rules.ranges import require_within

# A site plan reaches no farther from its origin.
FARTHEST_M = 5000.0
LARGEST_SIDE_PX = 20_000
NEAREST_POINTS_PX = 1.0


def require_sound_survey(job: Job) -> None:
    """Raise on the first thing around the planes that cannot be.

    Raises
    ------
    OutOfRange, BadGeometry, NotFound
        Naming the thing, the value and the remedy.
    """
    survey = job.survey
    _require_own_ids(survey)
    for plane in survey.planes:
        _require_near(f"{plane.name}, place on the site", plane.at)
        require_within(f"{plane.name}, eave above ground", _m(plane.eave_height), 0.0, 60.0)
        if plane.ground is not None:
            require_within(
                f"{plane.name}, ground falls by, degrees", plane.ground.slope_deg, 0.0, 30.0
            )
            for turn in plane.ground.trench_route:
                _require_near(f"{plane.name}, trench", turn)
    for source in survey.shade_sources:
        _require_shade(source)
    for line in survey.lot_lines:
        _require_line(line)
    for point in survey.horizon:
        require_within("Horizon, bearing in degrees", point.bearing_deg, 0.0, 360.0)
        require_within("Horizon, elevation in degrees", point.elevation_deg, -10.0, 90.0)
    if survey.trace is not None:
        _require_trace(survey.trace)
    service = survey.service
    for gear in ("meter", "panel", "disconnect", "inverter"):
        at: SitePoint | None = getattr(service, gear)
        if at is not None:
            _require_near(gear.capitalize(), at)
    for note in survey.attachments:
        _require_note(job, note)


def _m(taped: object) -> float | None:
    value: float | None = getattr(taped, "value_m", None)
    return value


def _require_near(what: str, at: SitePoint) -> None:
    require_within(f"{what}, east in metres", at.east_m, -FARTHEST_M, FARTHEST_M)
    require_within(f"{what}, north in metres", at.north_m, -FARTHEST_M, FARTHEST_M)


def _require_shade(source: ShadeSource) -> None:
    _require_near(source.name, source.at)
    for name in ("height", "width", "depth", "base", "trunk"):
        low = 0.0 if name in ("base", "trunk") else 0.001
        require_within(f"{source.name}, {name} in metres", _m(getattr(source, name)), low, 120.0)
    for month in (source.first_leaf_month, source.last_leaf_month):
        require_within(f"{source.name}, month in leaf", month, 1, 12)
    sighting = source.sighting
    if sighting is None:
        return
    require_within(f"{source.name}, bearing in degrees", sighting.bearing_deg, 0.0, 360.0)
    require_within(f"{source.name}, distance in metres", sighting.distance.value_m, 0.001, 500.0)
    require_within(f"{source.name}, angle to the top in degrees", sighting.top_deg, 0.0, 85.0)
    _require_near(f"{source.name}, station", sighting.station)


def _require_line(line: LotLine) -> None:
    fewest = 3 if line.closed else 2
    if len(line.points) < fewest:
        raise BadGeometry(
            line.name, f"{len(line.points)} points", f"A lot line has {fewest} or more."
        )
    for point in line.points:
        _require_near(line.name, point)


def _require_picture(picture: Picture) -> None:
    for side in (picture.width_px, picture.height_px):
        require_within("Picture, pixels along a side", side, 1, LARGEST_SIDE_PX)


def _require_trace(trace: Trace) -> None:
    _require_picture(trace.picture)
    _require_near("Picture under the site plan", trace.at)
    require_within("Picture’s scale, distance in metres", trace.distance.value_m, 0.001, 2000.0)
    a, b = trace.first, trace.second
    if math.hypot(a.x_px - b.x_px, a.y_px - b.y_px) < NEAREST_POINTS_PX:
        raise BadGeometry("Picture’s scale", "its two points are one", "Choose two points apart.")


def _require_note(job: Job, note: Attachment) -> None:
    if note.picture is not None:
        _require_picture(note.picture)
    if note.plane_id is None:
        return
    plane = plane_of(job, note.plane_id)
    if note.obstruction_id not in {None, *(o.id for o in plane.obstructions)}:
        raise NotFound("obstruction", str(note.obstruction_id))


def _require_own_ids(survey: Survey) -> None:
    lists: tuple[tuple[str, Sequence[str]], ...] = (
        ("trees and neighbours", [s.id for s in survey.shade_sources]),
        ("lot lines", [line.id for line in survey.lot_lines]),
        ("notes and photos", [a.id for a in survey.attachments]),
        *((f"keep-out zones of {p.name}", [k.id for k in p.keep_outs]) for p in survey.planes),
        *((f"old arrays on {p.name}", [r.existing_id for r in p.existing]) for p in survey.planes),
    )
    for what, ids in lists:
        require_distinct(what, ids)
