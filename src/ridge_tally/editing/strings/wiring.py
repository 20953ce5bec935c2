"""Boxes placed on planes, and what somebody says of shutdown and confirms on site."""

from dataclasses import replace
from itertools import count
from typing import assert_never

from ridge_tally.core.brief.typed import parse_quantity
from ridge_tally.core.errors import BadGeometry, NotFound
from ridge_tally.core.job.document import Job, option_of, plane_of, with_option
from ridge_tally.core.job.edits.strings.wiring import (
    ConfirmOnSite,
    PlaceBox,
    RemoveBox,
    SetShutdown,
    SetStringFuse,
    WiringEdit,
)
from ridge_tally.core.job.ids import BoxId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.wiring import JunctionBox

MOST_BOXES = 20


def wiring_changed(job: Job, edit: WiringEdit) -> Job:
    """Return the job after an edit of boxes or safety.

    Raises
    ------
    NotFound
        If the plane or the box is not there.
    BadGeometry
        With too many boxes.
    """
    option = option_of(job, edit.option_id)
    match edit:
        case PlaceBox():
            plane_of(job, edit.plane_id)
            option = _placed(option, edit)
        case RemoveBox():
            _require_box(option, edit.box_id)
            boxes = tuple(b for b in option.boxes if b.id != edit.box_id)
            option = replace(option, boxes=boxes)
        case SetShutdown():
            option = replace(option, safety=replace(option.safety, shutdown=edit.way))
        case ConfirmOnSite():
            others = tuple(c for c in option.safety.confirmed if c is not edit.point)
            confirmed = (*others, edit.point) if edit.on else others
            option = replace(option, safety=replace(option.safety, confirmed=confirmed))
        case SetStringFuse():
            safety = replace(option.safety, string_fuse_a=_fuse_a(edit.typed.strip()))
            option = replace(option, safety=safety)
        case _:
            assert_never(edit)
    return with_option(job, option)


def _fuse_a(typed: str) -> float | None:
    if not typed:
        return None
    return parse_quantity(typed, "String fuse", {"": 1.0, "a": 1.0}, "amperes such as 15 A")


def _placed(option: Option, edit: PlaceBox) -> Option:
    if edit.box_id is None:
        if len(option.boxes) >= MOST_BOXES:
            raise BadGeometry("Boxes", f"an option has at most {MOST_BOXES}", "Remove one first.")
        taken = {b.id for b in option.boxes}
        new_id = next(i for i in (BoxId(f"box{n}") for n in count(1)) if i not in taken)
        box = JunctionBox(new_id, edit.plane_id, edit.x_m, edit.y_m)
        return replace(option, boxes=(*option.boxes, box))
    _require_box(option, edit.box_id)
    box = JunctionBox(edit.box_id, edit.plane_id, edit.x_m, edit.y_m)
    return replace(option, boxes=tuple(box if b.id == box.id else b for b in option.boxes))


def _require_box(option: Option, box_id: BoxId) -> None:
    if all(b.id != box_id for b in option.boxes):
        raise NotFound("box", box_id)
