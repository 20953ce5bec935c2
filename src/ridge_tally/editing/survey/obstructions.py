"""What stands on, is kept free on, or lies under a plane: obstructions, zones, rows, structure."""

from dataclasses import dataclass, replace
from typing import Any, TypeVar

from ridge_tally.core.errors import BadGeometry, NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job.document import Job, plane_of, with_plane
from ridge_tally.core.job.edits.survey.obstructions import (
    AddKeepOut,
    AddObstruction,
    DrawExisting,
    EraseExisting,
    ExistingRowsField,
    MoveObstruction,
    ObstructionEdit,
    ObstructionField,
    RemoveKeepOut,
    RemoveObstruction,
    SetExistingRows,
    SetFoundRafters,
    SetKeepOutReason,
    SetObstructionField,
    SetOffsetMode,
    SetStructure,
    StructureField,
)
from ridge_tally.core.job.ids import ExistingId, KeepOutId, ObstructionId
from ridge_tally.core.job.places import PlanePoint, Taped
from ridge_tally.core.job.survey import (
    ROUND_KINDS,
    Covering,
    ExistingRows,
    FoundRafter,
    Framing,
    KeepOut,
    Obstruction,
    ObstructionKind,
    OffsetMode,
    RoofPlane,
    Structure,
)
from ridge_tally.core.survey.framing import MOST_LINES
from ridge_tally.core.survey.outline import (
    existing_box,
    is_closed,
    left_offset_m,
    lies_on,
    obstruction_box,
    sketch_m,
    up_slope_per_plan,
)
from ridge_tally.core.survey.possible import MOST_OBSTRUCTIONS
from ridge_tally.core.survey.taping import drawn_length, each_typed, typed_length
from ridge_tally.core.units import LengthUnit, parse_number, whole
from ridge_tally.editing.rows import next_id, row_of, with_row


@dataclass(frozen=True, slots=True)
class NewSize:
    """What a new obstruction starts as, to be typed over."""

    name: str
    width_m: float
    depth_m: float
    height_m: float
    clearance_m: float


# Usual sizes, common practice, no source; a flue runs hot and wants more room.
NEW_SIZES = {
    ObstructionKind.VENT: NewSize("Vent", 0.08, 0.08, 0.4, 0.1),
    ObstructionKind.FLUE: NewSize("Flue", 0.2, 0.2, 0.9, 0.5),
    ObstructionKind.DISH: NewSize("Dish", 0.6, 0.6, 0.6, 0.1),
    ObstructionKind.CHIMNEY: NewSize("Chimney", 0.6, 0.6, 1.0, 0.3),
    ObstructionKind.SKYLIGHT: NewSize("Skylight", 0.78, 1.18, 0.12, 0.15),
    ObstructionKind.BOX_VENT: NewSize("Box vent", 0.3, 0.3, 0.2, 0.1),
    ObstructionKind.HATCH: NewSize("Hatch", 0.6, 0.6, 0.15, 0.6),
    ObstructionKind.OTHER: NewSize("Obstruction", 0.3, 0.3, 0.3, 0.1),
}
# A usual module of some years ago, to be typed over; common practice, no source.
OLD_MODULE_M = (1.0, 1.65)
FIELD_NAMES = {ObstructionField.LEFT: "offset from the left"}


def plane_parts_changed(job: Job, edit: ObstructionEdit) -> Job:
    """Return the job after an edit of what stands on a plane or lies under it.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, NotFound
        Naming the thing, the figure and the remedy.
    """
    plane = plane_of(job, edit.plane_id)
    changed = with_plane(job, _changed(job, plane, edit))
    if not isinstance(edit, RemoveObstruction):
        return changed
    # What hung on it stays, on the plane.
    notes = tuple(
        replace(a, obstruction_id=None)
        if (a.plane_id, a.obstruction_id) == (edit.plane_id, edit.obstruction_id)
        else a
        for a in job.survey.attachments
    )
    return replace(changed, survey=replace(changed.survey, attachments=notes))


def _changed(job: Job, plane: RoofPlane, edit: ObstructionEdit) -> RoofPlane:  # noqa: PLR0911, PLR0912 - one return an edit
    match edit:
        case AddObstruction():
            return _with_new(job, plane, edit)
        case SetObstructionField():
            return _with_field(job, plane, edit)
        case SetOffsetMode():
            changed = replace(
                row_of(plane.obstructions, edit.obstruction_id, "obstruction"), offsets=edit.offsets
            )
            return _with(plane, changed)
        case MoveObstruction():
            old = row_of(plane.obstructions, edit.obstruction_id, "obstruction")
            return _with(plane, _put(job, plane, old, edit.left_m, edit.bottom_m))
        case RemoveObstruction():
            row_of(plane.obstructions, edit.obstruction_id, "obstruction")
            kept = tuple(o for o in plane.obstructions if o.id != edit.obstruction_id)
            return replace(plane, obstructions=kept)
        case AddKeepOut():
            if not lies_on(plane, sketch_m(edit.corners)):
                raise BadGeometry(
                    plane.name, "the zone reaches beyond the plane", "Click inside the outline."
                )
            new_id = KeepOutId(next_id("k", [k.id for k in plane.keep_outs]))
            corners = tuple(PlanePoint(round(c.x_m, 3), round(c.y_m, 3)) for c in edit.corners)
            zone = KeepOut(new_id, _reason(edit.reason), corners)
            return replace(plane, keep_outs=(*plane.keep_outs, zone))
        case SetKeepOutReason():
            zone = replace(
                row_of(plane.keep_outs, edit.keep_out_id, "keep-out zone"),
                reason=_reason(edit.reason),
            )
            return replace(plane, keep_outs=with_row(plane.keep_outs, zone))
        case RemoveKeepOut():
            gone = row_of(plane.keep_outs, edit.keep_out_id, "keep-out zone")
            return replace(plane, keep_outs=tuple(k for k in plane.keep_outs if k != gone))
        case DrawExisting():
            return _with_existing(job, plane, edit)
        case SetExistingRows():
            return _with_rows_field(job, plane, edit)
        case EraseExisting():
            gone_rows = _rows(plane, edit.existing_id)
            return replace(plane, existing=tuple(r for r in plane.existing if r != gone_rows))
        case SetStructure():
            return replace(plane, structure=_structure(job, plane, edit))
        case SetFoundRafters():
            found = _found_rafters(edit.lengths, job.unit, f"{plane.name}, rafters as found")
            return replace(plane, structure=replace(plane.structure, found_rafters=found))


def _with_new(job: Job, plane: RoofPlane, edit: AddObstruction) -> RoofPlane:
    if len(plane.obstructions) >= MOST_OBSTRUCTIONS:
        raise BadGeometry(
            plane.name,
            f"a plane holds at most {MOST_OBSTRUCTIONS} obstructions",
            "Remove one, or draw a keep-out zone around many.",
        )
    size = NEW_SIZES[edit.obstruction_kind]
    same = sum(o.kind is edit.obstruction_kind for o in plane.obstructions) + 1
    new = Obstruction(
        id=ObstructionId(next_id("o", [o.id for o in plane.obstructions])),
        kind=edit.obstruction_kind,
        name=f"{size.name} {same}",
        left=drawn_length(0, job.unit),
        bottom=drawn_length(0, job.unit),
        width=drawn_length(size.width_m, job.unit),
        depth=drawn_length(size.depth_m, job.unit),
        height=drawn_length(size.height_m, job.unit),
        clearance=drawn_length(size.clearance_m, job.unit),
        offsets=OffsetMode.EDGE,
    )
    placed = _put(job, plane, new, edit.left_m, edit.bottom_m)
    return replace(plane, obstructions=(*plane.obstructions, placed))


def _put(job: Job, plane: RoofPlane, old: Obstruction, x_m: float, y_m: float) -> Obstruction:
    """Return the obstruction at a point of the plane, its offsets as a tape would read them."""
    left_m = left_offset_m(plane, old.offsets, PlanePoint(x_m, y_m))
    bottom_m = y_m / up_slope_per_plan(plane)
    put = replace(old, left=drawn_length(left_m, job.unit), bottom=drawn_length(bottom_m, job.unit))
    _require_on(plane, put)
    return put


def _require_on(plane: RoofPlane, obstruction: Obstruction) -> None:
    """Raise BadGeometry if an obstruction lies off a plane whose outline is known."""
    if is_closed(plane) and not lies_on(plane, obstruction_box(plane, obstruction).ring()):
        raise BadGeometry(
            f"{obstruction.name} on {plane.name}",
            f"{obstruction.left.typed} from the left and {obstruction.bottom.typed} "
            "up the slope does not lie on the plane",
            "Check both offsets, and how the left one was taped.",
        )


def _with(plane: RoofPlane, changed: Obstruction) -> RoofPlane:
    return replace(plane, obstructions=with_row(plane.obstructions, changed))


def _with_field(job: Job, plane: RoofPlane, edit: SetObstructionField) -> RoofPlane:
    old = row_of(plane.obstructions, edit.obstruction_id, "obstruction")
    if edit.field is ObstructionField.NAME:
        return _with(plane, replace(old, name=_name(edit.typed)))
    field = f"{old.name}, {FIELD_NAMES.get(edit.field, edit.field.value)}"
    taped = typed_length(edit.typed, job.unit, field)
    change: dict[str, Any] = {edit.field.value: taped}
    changed = replace(old, **change)
    if old.kind in ROUND_KINDS and edit.field is ObstructionField.WIDTH:
        changed = replace(changed, depth=taped)
    if edit.field in (ObstructionField.LEFT, ObstructionField.BOTTOM):
        _require_on(plane, changed)
    return _with(plane, changed)


def _name(typed: str) -> str:
    name = typed.strip()
    if not 0 < len(name) <= 60:
        raise OutOfRange("Length of the name", len(name), "1 to 60 characters")
    return name


def _reason(typed: str) -> str:
    return typed.strip()[:120] or "stay off"


def _rows(plane: RoofPlane, existing_id: ExistingId) -> ExistingRows:
    for rows in plane.existing:
        if rows.existing_id == existing_id:
            return rows
    raise NotFound("drawn existing array", existing_id)


def _with_existing(job: Job, plane: RoofPlane, edit: DrawExisting) -> RoofPlane:
    if edit.existing_id not in {a.id for a in job.brief.already.arrays}:
        raise NotFound("existing array", edit.existing_id)
    width_m, height_m = OLD_MODULE_M
    new = ExistingRows(
        existing_id=edit.existing_id,
        left=drawn_length(edit.left_m, job.unit),
        bottom=drawn_length(edit.bottom_m / up_slope_per_plan(plane), job.unit),
        columns=4,
        rows=1,
        width=drawn_length(width_m, job.unit),
        height=drawn_length(height_m, job.unit),
    )
    others = tuple(r for r in plane.existing if r.existing_id != edit.existing_id)
    return replace(plane, existing=(*others, new))


def _with_rows_field(job: Job, plane: RoofPlane, edit: SetExistingRows) -> RoofPlane:
    old, kind = _rows(plane, edit.existing_id), ExistingRowsField
    field = f"Array already on {plane.name}, {edit.field.value}"
    if edit.field in (kind.COLUMNS, kind.ROWS):
        count = parse_number(edit.typed, field, "a whole number such as 4")
        number = whole(count, field, edit.typed, "a whole number such as 4")
        columns = edit.field is kind.COLUMNS
        changed = replace(old, columns=number) if columns else replace(old, rows=number)
    else:
        changed = _with_rows_length(old, edit.field, typed_length(edit.typed, job.unit, field))
    if is_closed(plane) and not lies_on(plane, existing_box(plane, changed).ring()):
        raise BadGeometry(field, "those modules reach beyond the plane", "Check their place.")
    kept = tuple(changed if r == old else r for r in plane.existing)
    return replace(plane, existing=kept)


def _with_rows_length(rows: ExistingRows, field: ExistingRowsField, length: Taped) -> ExistingRows:
    kind = ExistingRowsField
    match field:
        case kind.LEFT:
            return replace(rows, left=length)
        case kind.BOTTOM:
            return replace(rows, bottom=length)
        case kind.WIDTH:
            return replace(rows, width=length)
        case kind.HEIGHT:
            return replace(rows, height=length)
        case _:
            raise NotUnderstood("Field", field.value, "a length of the array")


def _structure(job: Job, plane: RoofPlane, edit: SetStructure) -> Structure:
    structure, kind, typed = plane.structure, StructureField, edit.typed.strip()
    field = f"{plane.name}, {edit.field.value.replace('_', ' ')}"
    if edit.field is kind.COVERING:
        return replace(structure, covering=_word(Covering, typed, field))
    if edit.field is kind.FRAMING:
        return replace(structure, framing=_word(Framing, typed, field))
    if edit.field is kind.RAFTER_SIZE:
        return replace(structure, rafter_size=typed[:40])
    length = typed_length(typed, job.unit, field) if typed else None
    if length is not None:
        # A first line may stand at the very edge.
        first = edit.field in (kind.FIRST_RAFTER, kind.FIRST_PURLIN, kind.FIRST_RIB)
        if not (0 <= length.value_m <= 12 if first else 0 < length.value_m <= 12):
            raise OutOfRange(f"{field} in metres", length.value_m, "more than 0 and at most 12")
    return _with_length(structure, edit.field, length)


def _found_rafters(typed: str, unit: LengthUnit, field: str) -> tuple[FoundRafter, ...]:
    """Return rafters as found: ``0' 7"; 2' 7"; 4' 6 1/2" x``, a cross for one not to be used."""
    found = []
    for part in each_typed(typed):
        crossed = part[-1] in "xX×"
        at = typed_length(part[:-1].strip() if crossed else part, unit, field)
        if not 0 <= at.value_m <= LONGEST_EAVE_M:
            raise OutOfRange(f"{field} in metres", at.value_m, f"from 0 to {LONGEST_EAVE_M:g}")
        found.append(FoundRafter(at, usable=not crossed))
    if len(found) > MOST_LINES:
        raise OutOfRange(field, len(found), f"at most {MOST_LINES}")
    return tuple(sorted(found, key=lambda f: f.at.value_m))


def _with_length(structure: Structure, field: StructureField, length: Taped | None) -> Structure:  # noqa: PLR0911 - one arm a field
    kind = StructureField
    match field:
        case kind.SEAM_SPACING:
            return replace(structure, seam_spacing=length)
        case kind.RIB_SPACING:
            return replace(structure, rib_spacing=length)
        case kind.RIB_HEIGHT:
            return replace(structure, rib_height=length)
        case kind.COVER_WIDTH:
            return replace(structure, cover_width=length)
        case kind.RAFTER_SPACING:
            return replace(structure, rafter_spacing=length)
        case kind.FIRST_RAFTER:
            return replace(structure, first_rafter=length)
        case kind.RAFTER_SPAN:
            return replace(structure, rafter_span=length)
        case kind.PURLIN_SPACING:
            return replace(structure, purlin_spacing=length)
        case kind.FIRST_PURLIN:
            return replace(structure, first_purlin=length)
        case kind.FIRST_RIB:
            return replace(structure, first_rib=length)
        case _:
            raise NotUnderstood("Field", field.value, "a length of the structure")


# No eave of a house is longer.
LONGEST_EAVE_M = 60.0
Word = TypeVar("Word", Covering, Framing)


def _word(words: type[Word], typed: str, field: str) -> Word | None:
    """Return what a word means, nothing for none; NotUnderstood, naming the words, else."""
    try:
        return words(typed) if typed else None
    except ValueError:
        known = ", ".join(word.value for word in words)
        raise NotUnderstood(field, typed, f"one of {known}") from None
