"""Routes of the design sheet and the plan set, on screen and as PDF."""

from dataclasses import dataclass

from flask import Response
from pydantic import BaseModel

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.sheets.paper import SheetPaper
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.formats.scene_dxf import scene_dxf
from ridge_tally.formats.sheet_pdf import SheetContent
from ridge_tally.services.papers import (
    SetAt,
    design_sheet,
    design_sheet_pdf,
    plan_set_of,
    plan_set_pdf,
)
from ridge_tally.store.jobs import JobId
from ridge_tally.views.sheets.plan_set import SetName, SetSheet
from ridge_tally.web.at import OPTION, workspace
from ridge_tally.web.models import (
    Found,
    OptionPath,
)
from ridge_tally.web.routes import Routes

bp = Routes("sheets", __name__, url_prefix="/api")


class SetQuery(BaseModel):
    """Which set, on which paper."""

    name: SetName
    paper: SheetPaper


class SheetQuery(SetQuery):
    """Which sheet of it, by its number."""

    number: str


@dataclass(frozen=True, slots=True)
class SheetListed:
    """A sheet of a set, and how many faults its lint found."""

    number: str
    title: str
    hits: int


@dataclass(frozen=True, slots=True)
class SheetShown:
    """A sheet as it is printed; ``hits``: its faults in words."""

    number: str
    title: str
    svg: str
    hits: tuple[str, ...]


@bp.get(f"{OPTION}/sheet", operation_id="sheet_content", responses={200: Found[SheetContent]})
def get_sheet_content(path: OptionPath) -> Found[SheetContent]:
    """What the sheet says, as it is printed."""
    at = JobId(path.job_id), path.revision, OptionId(path.option_id)
    return Found[SheetContent](found=design_sheet(workspace(), *at))


@bp.get(f"{OPTION}/sheet.pdf", operation_id="option_sheet")
def get_sheet(path: OptionPath) -> Response:
    """The one-page sheet as PDF."""
    pdf = design_sheet_pdf(workspace(), JobId(path.job_id), path.revision, OptionId(path.option_id))
    name = f"{path.job_id}-{path.option_id}-r{path.revision}.pdf"
    headers = {"Content-Disposition": f'inline; filename="{name}"'}
    return Response(pdf, mimetype="application/pdf", headers=headers)


def _set_at(path: OptionPath) -> SetAt:
    return SetAt(JobId(path.job_id), path.revision, OptionId(path.option_id))


def _sheet(path: OptionPath, query: SheetQuery) -> SetSheet:
    sheets = plan_set_of(workspace(), _set_at(path), query.name, query.paper)
    found = next((s for s in sheets if s.number == query.number), None)
    if found is None:
        raise NotFound("sheet", query.number)
    return found


@bp.get(f"{OPTION}/plan-set", operation_id="plan_set", responses={200: Found[list[SheetListed]]})
def get_plan_set(path: OptionPath, query: SetQuery) -> Found[list[SheetListed]]:
    """The sheets of a set in their order."""
    sheets = plan_set_of(workspace(), _set_at(path), query.name, query.paper)
    listed = [SheetListed(s.number, s.title, len(s.hits)) for s in sheets]
    return Found[list[SheetListed]](found=listed)


@bp.get(f"{OPTION}/plan-set/sheet", operation_id="set_sheet", responses={200: Found[SheetShown]})
def get_set_sheet(path: OptionPath, query: SheetQuery) -> Found[SheetShown]:
    """A sheet of a set as it is printed."""
    one = _sheet(path, query)
    hits = tuple(f"{h.kind}: {h.told}" for h in one.hits)
    return Found[SheetShown](found=SheetShown(one.number, one.title, scene_svg(one.scene), hits))


@bp.get(f"{OPTION}/plan-set.pdf", operation_id="plan_set_pdf")
def get_plan_set_pdf(path: OptionPath, query: SetQuery) -> Response:
    """A set as one PDF with bookmarks."""
    pdf = plan_set_pdf(workspace(), _set_at(path), query.name, query.paper)
    name = f"{path.job_id}-{path.option_id}-r{path.revision}-{query.name.value}.pdf"
    headers = {"Content-Disposition": f'inline; filename="{name}"'}
    return Response(pdf, mimetype="application/pdf", headers=headers)


@bp.get(f"{OPTION}/plan-set/sheet.svg", operation_id="set_sheet_svg")
def get_set_sheet_svg(path: OptionPath, query: SheetQuery) -> Response:
    """A sheet as SVG."""
    return _file(path, query, scene_svg(_sheet(path, query).scene), "svg", "image/svg+xml")


@bp.get(f"{OPTION}/plan-set/sheet.dxf", operation_id="set_sheet_dxf")
def get_set_sheet_dxf(path: OptionPath, query: SheetQuery) -> Response:
    """A sheet as DXF, millimetres of paper."""
    return _file(path, query, scene_dxf(_sheet(path, query).scene), "dxf", "image/vnd.dxf")


def _file(path: OptionPath, query: SheetQuery, text: str, kind: str, mimetype: str) -> Response:
    name = f"{path.job_id}-{path.option_id}-r{path.revision}-{query.number}.{kind}"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(text, mimetype=mimetype, headers=headers)
