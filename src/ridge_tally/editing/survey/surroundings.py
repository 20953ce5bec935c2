"""What lies around the planes: shade sources, horizon, lot lines, trace, service gear, notes."""

from dataclasses import replace
from typing import Any, assert_never

from ridge_tally.core.errors import BadGeometry, NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job.document import Job, plane_of
from ridge_tally.core.job.edits.survey.surroundings import (
    AddAttachment,
    AddLotLine,
    AddShade,
    Gear,
    MoveShade,
    MoveTrace,
    PlaceGear,
    RemoveAttachment,
    RemoveLotLine,
    RemoveShade,
    RemoveTrace,
    RenameLotLine,
    ScaleTrace,
    SetAttachmentText,
    SetHorizon,
    SetShadeField,
    SetTrace,
    ShadeField,
    SightShade,
    SurroundingsEdit,
    TurnTrace,
)
from ridge_tally.core.job.ids import AttachmentId, LotLineId, ShadeId
from ridge_tally.core.job.places import SitePoint, Taped
from ridge_tally.core.job.service import Service
from ridge_tally.core.job.survey import (
    Attachment,
    CrownShape,
    LeafHabit,
    LotLine,
    Picture,
    PicturePoint,
    ShadeKind,
    ShadeSource,
    Sighting,
    Survey,
    Trace,
)
from ridge_tally.core.survey.shade import parse_horizon, sighted_at
from ridge_tally.core.survey.taping import drawn_length, typed_length
from ridge_tally.core.survey.trace import site_of
from ridge_tally.core.units import parse_number
from ridge_tally.editing.rows import next_id, require_room, row_of, with_row
from ridge_tally.editing.survey.planes import true_bearing_deg

MOST_SHADES, MOST_LOT_LINES, MOST_ATTACHMENTS = 60, 12, 60
# Width, depth, base, trunk of a new source in metres, to be typed over; common practice.
NEW_SHADES: dict[ShadeKind, tuple[str, float, float, float, float]] = {
    ShadeKind.TREE: ("Tree", 6.0, 6.0, 2.0, 0.4),
    ShadeKind.HOUSE: ("House", 10.0, 8.0, 3.0, 0.0),
    ShadeKind.POLE: ("Pole", 0.3, 0.3, 0.0, 0.0),
    ShadeKind.CHIMNEY: ("Chimney", 0.8, 0.8, 0.0, 0.0),
}
NEW_TRACE_WIDTH_M = 40.0
LENGTH_FIELDS = {
    ShadeField.HEIGHT: "height",
    ShadeField.WIDTH: "width",
    ShadeField.DEPTH: "depth",
    ShadeField.BASE: "base",
    ShadeField.TRUNK: "trunk",
}


def surroundings_changed(job: Job, edit: SurroundingsEdit) -> Job:
    """Return the job after an edit of what lies around its planes.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound
        Naming the thing, the figure and the remedy.
    """
    return replace(job, survey=_changed(job, job.survey, edit))


def _changed(job: Job, survey: Survey, edit: SurroundingsEdit) -> Survey:  # noqa: PLR0911, PLR0912 - one return an edit
    match edit:
        case AddShade():
            require_room("Shade sources", len(survey.shade_sources), MOST_SHADES)
            return replace(survey, shade_sources=(*survey.shade_sources, _new_shade(job, edit)))
        case SetShadeField():
            return _with_shade(survey, _shade_field(job, edit))
        case MoveShade():
            old = row_of(survey.shade_sources, edit.shade_id, "shade source")
            return _with_shade(survey, replace(old, at=edit.at, sighting=None))
        case SightShade():
            return _with_shade(survey, _sighted(job, edit))
        case RemoveShade():
            gone = row_of(survey.shade_sources, edit.shade_id, "shade source")
            return replace(
                survey, shade_sources=tuple(s for s in survey.shade_sources if s != gone)
            )
        case SetHorizon():
            return replace(survey, horizon=parse_horizon(edit.typed))
        case AddLotLine():
            return _with_lot_line(survey, edit)
        case RenameLotLine():
            line = replace(
                row_of(survey.lot_lines, edit.lot_line_id, "lot line"),
                name=_words(edit.name, "Lot line"),
            )
            return replace(survey, lot_lines=with_row(survey.lot_lines, line))
        case RemoveLotLine():
            off = row_of(survey.lot_lines, edit.lot_line_id, "lot line")
            return replace(survey, lot_lines=tuple(x for x in survey.lot_lines if x != off))
        case SetTrace():
            return replace(survey, trace=_new_trace(job, edit.picture))
        case ScaleTrace() | MoveTrace() | TurnTrace():
            return replace(survey, trace=_trace(job, edit))
        case RemoveTrace():
            return replace(survey, trace=None)
        case PlaceGear():
            return replace(survey, service=_gear_placed(survey.service, edit))
        case AddAttachment():
            return _with_attachment(job, survey, edit)
        case SetAttachmentText():
            note = replace(
                row_of(survey.attachments, edit.attachment_id, "photo or note"),
                text=edit.text.strip()[:500],
            )
            return replace(survey, attachments=with_row(survey.attachments, note))
        case RemoveAttachment():
            old_note = row_of(survey.attachments, edit.attachment_id, "photo or note")
            kept = tuple(a for a in survey.attachments if a != old_note)
            return replace(survey, attachments=kept)


def _gear_placed(service: Service, edit: PlaceGear) -> Service:
    match edit.gear:
        case Gear.METER:
            return replace(service, meter=edit.at)
        case Gear.PANEL:
            return replace(service, panel=edit.at)
        case Gear.DISCONNECT:
            return replace(service, disconnect=edit.at)
        case Gear.INVERTER:
            return replace(service, inverter=edit.at)
        case _:
            assert_never(edit.gear)


def _words(typed: str, field: str) -> str:
    if not 0 < len(typed.strip()) <= 60:
        raise OutOfRange(f"{field}, length of the name", len(typed.strip()), "1 to 60 characters")
    return typed.strip()


def _new_shade(job: Job, edit: AddShade) -> ShadeSource:
    sources = job.survey.shade_sources
    name, width_m, depth_m, base_m, trunk_m = NEW_SHADES[edit.shade_kind]
    same = sum(s.kind is edit.shade_kind for s in sources) + 1
    return ShadeSource(
        id=ShadeId(next_id("s", [s.id for s in sources])),
        kind=edit.shade_kind,
        name=f"{name} {same}",
        at=edit.at,
        height=None,
        width=drawn_length(width_m, job.unit),
        depth=drawn_length(depth_m, job.unit),
        base=drawn_length(base_m, job.unit),
        trunk=drawn_length(trunk_m, job.unit),
    )


def _with_shade(survey: Survey, changed: ShadeSource) -> Survey:
    return replace(survey, shade_sources=with_row(survey.shade_sources, changed))


def _shade_field(job: Job, edit: SetShadeField) -> ShadeSource:
    old, kind, typed = (
        row_of(job.survey.shade_sources, edit.shade_id, "shade source"),
        ShadeField,
        edit.typed.strip(),
    )
    change: dict[str, Any]
    match edit.field:
        case kind.NAME:
            change = {"name": _words(typed, old.name)}
        case kind.TURNED:
            change = {"turned_deg": parse_number(typed, f"{old.name}, turned", "degrees") % 180}
        case kind.LEAF:
            try:
                change = {"leaf": LeafHabit(typed)}
            except ValueError:
                raise NotUnderstood(f"{old.name}, leaf", typed, "evergreen or deciduous") from None
        case kind.CROWN:
            try:
                change = {"crown": CrownShape(typed)}
            except ValueError:
                raise NotUnderstood(f"{old.name}, crown", typed, "round or cone") from None
        case kind.LEAF_MONTHS:
            first, last = _months(typed, f"{old.name}, months in leaf")
            change = {"first_leaf_month": first, "last_leaf_month": last}
        case _:
            change = _shade_length(job, old, edit)
    return replace(old, **change)


def _months(typed: str, field: str) -> tuple[int, int]:
    parts = typed.replace("–", "-").split("-")
    if len(parts) != 2 or not all(p.strip().isdigit() for p in parts):
        raise NotUnderstood(field, typed, "two months such as 5-10")
    first, last = (int(p) for p in parts)
    for month in (first, last):
        if not 1 <= month <= 12:
            raise OutOfRange(field, month, "between 1 and 12")
    return first, last


def _shade_length(job: Job, old: ShadeSource, edit: SetShadeField) -> dict[str, Any]:
    name = LENGTH_FIELDS[edit.field]
    if name == "height" and not edit.typed.strip():
        return {name: None}
    field = f"{old.name}, {name}"
    taped = typed_length(edit.typed, job.unit, field)
    value_m = taped.value_m
    low_open = name in ("height", "width", "depth")
    if not (0 < value_m <= 120 if low_open else 0 <= value_m <= 120):
        raise OutOfRange(
            f"{field} in metres", value_m, "more than 0 and at most 120" if low_open else "0 to 120"
        )
    round_thing = name == "width" and old.kind is not ShadeKind.HOUSE
    return {name: taped, "depth": taped} if round_thing else {name: taped}


def _sighted(job: Job, edit: SightShade) -> ShadeSource:
    old = row_of(job.survey.shade_sources, edit.shade_id, "shade source")
    bearing, compass = true_bearing_deg(job, edit.bearing, f"{old.name}, bearing")
    distance = _positive(job, edit.distance, f"{old.name}, distance", 500.0)
    top_deg, eye = None, None
    if edit.top.strip():
        field = f"{old.name}, angle to the top"
        top_deg = parse_number(edit.top, field, "degrees up from level, such as 32")
        if not 0 < top_deg < 85:
            raise OutOfRange(f"{field} in degrees", top_deg, "above 0 and below 85")
        eye = _positive(job, edit.eye, f"{old.name}, height of the eye", 20.0)
    sighting = Sighting(edit.station, bearing, distance, compass, top_deg, eye)
    height = None if top_deg is not None else old.height
    return replace(old, sighting=sighting, at=sighted_at(sighting), height=height)


def _positive(job: Job, typed: str, field: str, most_m: float) -> Taped:
    taped = typed_length(typed, job.unit, field)
    if not 0 < taped.value_m <= most_m:
        raise OutOfRange(f"{field} in metres", taped.value_m, f"more than 0 and at most {most_m:g}")
    return taped


def _with_lot_line(survey: Survey, edit: AddLotLine) -> Survey:
    require_room("Lot lines", len(survey.lot_lines), MOST_LOT_LINES)
    fewest = 3 if edit.closed else 2
    if not fewest <= len(edit.points) <= 60:
        raise BadGeometry("Lot line", f"{len(edit.points)} points", f"Click {fewest} to 60 points.")
    new_id = LotLineId(next_id("lot", [x.id for x in survey.lot_lines]))
    line = LotLine(new_id, "Lot line", edit.points, edit.closed)
    return replace(survey, lot_lines=(*survey.lot_lines, line))


def _new_trace(job: Job, picture: Picture) -> Trace:
    """Return the picture about the site's origin, a guess wide until two points scale it."""
    wide, middle = picture.width_px, picture.height_px / 2
    return Trace(
        picture=picture,
        first=PicturePoint(0.0, middle),
        second=PicturePoint(float(wide), middle),
        distance=Taped(NEW_TRACE_WIDTH_M, ""),
        at=SitePoint(-NEW_TRACE_WIDTH_M / 2, 0.0),
    )


def _trace(job: Job, edit: ScaleTrace | MoveTrace | TurnTrace) -> Trace:
    trace = job.survey.trace
    if trace is None:
        raise NotFound("picture under the site plan", "trace")
    match edit:
        case MoveTrace():
            return replace(trace, at=edit.at)
        case TurnTrace():
            turned = parse_number(edit.typed, "Picture turned", "degrees clockwise from north")
            return replace(trace, turned_deg=turned % 360)
        case ScaleTrace():
            apart = (edit.first.x_px - edit.second.x_px, edit.first.y_px - edit.second.y_px)
            if apart[0] ** 2 + apart[1] ** 2 < 25:
                raise BadGeometry(
                    "Picture's scale",
                    "the two points are less than 5 pixels apart",
                    "Choose points far from one another.",
                )
            distance = _positive(job, edit.distance, "Distance between the two points", 2000.0)
            # The first point stays where it is seen; the picture grows or shrinks about it.
            at = site_of(trace, edit.first)
            return replace(trace, first=edit.first, second=edit.second, distance=distance, at=at)


def _with_attachment(job: Job, survey: Survey, edit: AddAttachment) -> Survey:
    require_room("Photos and notes", len(survey.attachments), MOST_ATTACHMENTS)
    if edit.plane_id is not None:
        plane = plane_of(job, edit.plane_id)
        if edit.obstruction_id not in {None, *(o.id for o in plane.obstructions)}:
            raise NotFound("obstruction", str(edit.obstruction_id))
    if not edit.text.strip() and edit.picture is None:
        raise NotUnderstood("Note", edit.text, "some words, or choose a photo")
    new_id = AttachmentId(next_id("n", [a.id for a in survey.attachments]))
    note = Attachment(
        new_id, edit.text.strip()[:500], edit.picture, edit.plane_id, edit.obstruction_id
    )
    return replace(survey, attachments=(*survey.attachments, note))
