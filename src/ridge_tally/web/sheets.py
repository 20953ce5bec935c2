"""Routes of the design sheet and the plan set, on screen and as PDF."""

from collections.abc import Iterator
from dataclasses import dataclass

from flask import Response
from pydantic import BaseModel, Field

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.job.paperwork import Issue
from ridge_tally.core.sheets.paper import SheetPaper
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.core.sheets.sets import sheets_in
from ridge_tally.formats.sheet_pdf import SheetContent
from ridge_tally.services.files_out import zip_of_all
from ridge_tally.services.kept_files import issued_file
from ridge_tally.services.papers import (
    changed_since,
    design_sheet,
    design_sheet_pdf,
    issue_set,
    plan_set_of,
    plan_set_pdf,
    plan_set_so_far,
    sheet_dxf,
)
from ridge_tally.store.jobs import JobId
from ridge_tally.views.sheets.plan_set import SetSheet
from ridge_tally.views.sheets.since import is_clouded
from ridge_tally.web.at import OPTION, job_at, set_at, workspace
from ridge_tally.web.models import (
    Found,
    HashPath,
    OptionPath,
    Running,
    Study,
)
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out, send_kept
from ridge_tally.web.studies import running

bp = Routes("sheets", __name__, url_prefix="/api")


class PaperQuery(BaseModel):
    """On which paper."""

    paper: SheetPaper


class SetQuery(PaperQuery):
    """Which set, on which paper."""

    name: str = Field(max_length=120)


class IssueRequest(SetQuery):
    """A set that is to leave the house, and what it is for."""

    what: str = Field("", max_length=200)


class SheetQuery(SetQuery):
    """Which sheet of it, by its number."""

    number: str


@dataclass(frozen=True, slots=True)
class SheetListed:
    """A sheet of a set, how many faults its lint found, whether it changed since it was issued."""

    number: str
    title: str
    hits: int
    changed: bool


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
    return handed_out(pdf, "application/pdf", name, shown=True)


def _sheet(path: OptionPath, query: SheetQuery) -> SetSheet:
    sheets = plan_set_of(workspace(), set_at(path), query.name, query.paper)
    found = next((s for s in sheets if s.number == query.number), None)
    if found is None:
        raise NotFound("sheet", query.number)
    return found


@bp.get(f"{OPTION}/plan-set", operation_id="plan_set", responses={200: Running[list[SheetListed]]})
def get_plan_set(path: OptionPath, query: SetQuery) -> Running[list[SheetListed]]:
    """The sheets of a set as they are drawn; in their order once all of them are."""
    here, at = workspace(), set_at(path)
    sheets_in(job_at(path).paperwork, query.name)

    def listed(*_: object) -> Iterator[list[SheetListed]]:
        for sheets in plan_set_so_far(here, at, query.name, query.paper):
            yield [SheetListed(s.number, s.title, len(s.hits), is_clouded(s)) for s in sheets]

    return running(Study.PLAN_SET, path, listed, first_here=True, apart=(query.name, query.paper))


@bp.get(f"{OPTION}/plan-set/sheet", operation_id="set_sheet", responses={200: Found[SheetShown]})
def get_set_sheet(path: OptionPath, query: SheetQuery) -> Found[SheetShown]:
    """A sheet of a set as it is printed."""
    one = _sheet(path, query)
    hits = tuple(f"{h.kind}: {h.told}" for h in one.hits)
    return Found[SheetShown](found=SheetShown(one.number, one.title, scene_svg(one.scene), hits))


@bp.get(f"{OPTION}/plan-set.pdf", operation_id="plan_set_pdf")
def get_plan_set_pdf(path: OptionPath, query: SetQuery) -> Response:
    """A set as one PDF with bookmarks."""
    pdf = plan_set_pdf(workspace(), set_at(path), query.name, query.paper)
    name = f"{path.job_id}-{path.option_id}-r{path.revision}-{query.name}.pdf"
    return handed_out(pdf, "application/pdf", name, shown=True)


@bp.get(f"{OPTION}/plan-set/sheet.svg", operation_id="set_sheet_svg")
def get_set_sheet_svg(path: OptionPath, query: SheetQuery) -> Response:
    """A sheet as SVG."""
    return _file(path, query, scene_svg(_sheet(path, query).scene), "svg", "image/svg+xml")


@bp.get(f"{OPTION}/plan-set/sheet.dxf", operation_id="set_sheet_dxf")
def get_set_sheet_dxf(path: OptionPath, query: SheetQuery) -> Response:
    """A sheet as DXF: plans in the world's millimetres, schematics in those of paper."""
    return _file(path, query, sheet_dxf(_sheet(path, query)), "dxf", "image/vnd.dxf")


@bp.get(f"{OPTION}/files.zip", operation_id="all_files")
def get_all_files(path: OptionPath, query: PaperQuery) -> Response:
    """Drawings, tables, days, the whole set and the job file as one zip."""
    content = zip_of_all(workspace(), set_at(path), query.paper)
    name = f"{path.job_id}-{path.option_id}-r{path.revision}.zip"
    return handed_out(content, "application/zip", name)


def _file(path: OptionPath, query: SheetQuery, text: str, kind: str, mimetype: str) -> Response:
    name = f"{path.job_id}-{path.option_id}-r{path.revision}-{query.number}.{kind}"
    return handed_out(text, mimetype, name)


@bp.post(f"{OPTION}/plan-set/issue", operation_id="issue_set", responses={201: Found[Issue]})
def post_issue(path: OptionPath, body: IssueRequest) -> tuple[Found[Issue], int]:
    """Freeze a set as a file; the job records it by the edit that follows."""
    issue = issue_set(workspace(), set_at(path), body.name, body.paper, body.what)
    return Found[Issue](found=issue), 201


@bp.get(f"{OPTION}/plan-set/since", operation_id="changed_since", responses={200: Found[list[str]]})
def get_changed_since(path: OptionPath) -> Found[list[str]]:
    """What was changed since the last set of the option left the house."""
    return Found[list[str]](found=list(changed_since(workspace(), set_at(path))))


@bp.get("/issued/<sha256>.pdf", operation_id="issued_set")
def get_issued(path: HashPath) -> Response:
    """A set as it left the house, byte for byte."""
    return send_kept(issued_file(workspace(), path.sha256))
