"""A revision's printed pages: the design sheet of an option, and the brief."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import partial
from hashlib import sha256
from pathlib import Path

from ridge_tally.core.errors import BadGeometry, NotFound
from ridge_tally.core.job.edits.sheets.paperwork import RecordIssue
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.job.paperwork import Issue
from ridge_tally.core.sheets.clouds import SheetMarks
from ridge_tally.core.sheets.paper import SheetPaper
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.core.sheets.titled import TitleFacts
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.formats.flat_dxf import flat_dxf
from ridge_tally.formats.scene_dxf import scene_dxf
from ridge_tally.formats.scene_pdf import scenes_pdf
from ridge_tally.formats.set_marks import FILE, marks_in, marks_json
from ridge_tally.formats.sheet_pdf import SheetContent, write_brief_pdf, write_sheet_pdf
from ridge_tally.rules.design import Design
from ridge_tally.services.jobs import earlier, load_job, saved_on
from ridge_tally.services.kept_files import issued_file
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.files import keep_file
from ridge_tally.store.jobs import JobId
from ridge_tally.views.brief.sheet import brief_content
from ridge_tally.views.build.one_line import DiagramView, diagram_view, one_line
from ridge_tally.views.option import option_report
from ridge_tally.views.sheets.design import Stamp, sheet_content
from ridge_tally.views.sheets.plan_set import SetSheet, in_order, plan_set
from ridge_tally.views.sheets.since import Before, clouded, family, stood_on
from ridge_tally.views.sheets.titles import title_facts


def design_sheet(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> SheetContent:
    """Return what the sheet of an option says, on screen and on paper; NotFound if it is not there."""
    return sheet_content(workspace.desk, *_at(workspace, job_id, revision, option_id))


def design_sheet_pdf(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> bytes:
    """Return the PDF of the sheet of an option; NotFound if it is not there."""
    return write_sheet_pdf(design_sheet(workspace, job_id, revision, option_id))


def brief_pdf(workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId) -> bytes:
    """Return the PDF of a job's brief with the target of one option; NotFound if it is not there."""
    content = brief_content(workspace.desk, *_at(workspace, job_id, revision, option_id))
    return write_brief_pdf(content)


@dataclass(frozen=True, slots=True)
class SetAt:
    """Of which option of which revision a set is."""

    job_id: JobId
    revision: int
    option_id: OptionId


PROGRAM = "Ridge Tally"
# Stands for a file's hash until it is written; nothing prints it.
NOT_YET = "0" * 64


class DiagramFormat(StrEnum):
    """The open formats a diagram leaves in."""

    SVG = "svg"
    DXF = "dxf"


def _titled(workspace: Workspace, at: SetAt) -> tuple[Design, TitleFacts]:
    design, stamp = design_at(workspace, at)
    return design, title_facts(design, option_report(design), stamp)


def diagram_of(workspace: Workspace, at: SetAt) -> DiagramView:
    """Return the one-line diagram of an option for a screen; NotFound if the option is not there."""
    return diagram_view(*_titled(workspace, at))


def diagram_file(workspace: Workspace, at: SetAt, sheet: int, kind: DiagramFormat) -> str | None:
    """Return a sheet of the one-line diagram, numbered from 1; ``None`` if there is no such one.

    NotFound if the option is not there.
    """
    sheets = one_line(*_titled(workspace, at))
    if not 1 <= sheet <= len(sheets):
        return None
    scene = sheets[sheet - 1].scene
    return scene_svg(scene) if kind is DiagramFormat.SVG else scene_dxf(scene)


def plan_set_of(
    workspace: Workspace, at: SetAt, name: str, paper: SheetPaper
) -> tuple[SetSheet, ...]:
    """Return the sheets of a set as they are bound, clouds round what changed since they were issued.

    Remembered; NotFound if the option or the set is not there.
    """
    *_, whole = plan_set_so_far(workspace, at, name, paper)
    return whole


def plan_set_so_far(
    workspace: Workspace, at: SetAt, name: str, paper: SheetPaper
) -> Iterator[tuple[SetSheet, ...]]:
    """Yield the sheets of a set as they are drawn, the whole of it as it is bound last.

    NotFound if the option or the set is not there.
    """
    design, stamp = design_at(workspace, at)
    key, found = ("plan set", at, name, paper), list[SetSheet]()
    if key not in workspace.desk.fills:
        for one in plan_set(workspace.desk, design, stamp, name, paper):
            found.append(one)
            yield tuple(found)
    number = len(design.job.paperwork.issues) + 1

    def whole() -> tuple[SetSheet, ...]:
        sheets = found or list(plan_set(workspace.desk, design, stamp, name, paper))
        return _bound(workspace, design, sheets, paper, number)

    yield workspace.desk.fills.get(key, whole)


def _bound(
    workspace: Workspace, design: Design, sheets: list[SetSheet], paper: SheetPaper, number: int
) -> tuple[SetSheet, ...]:
    """Return sheets in their order, clouds round what changed since the issues before that number."""
    issues = design.job.paperwork.issues[: number - 1]
    marks = _last_issued(workspace, issues, design.option.id, paper)
    return tuple(clouded(in_order(sheets), Before(marks, number)))


def _last_issued(
    workspace: Workspace, issues: tuple[Issue, ...], option_id: OptionId, paper: SheetPaper
) -> dict[str, SheetMarks]:
    """Return what stood on sheets of that paper when they last left the house, by number."""
    found: dict[str, SheetMarks] = {}
    for issue in reversed(issues):
        if issue.option_id != option_id or issue.paper != paper.value:
            continue
        try:
            place = issued_file(workspace, issue.sha256)
        except NotFound:
            continue
        marks = workspace.desk.fills.get(("marks", issue.sha256), partial(_marks_at, place))
        known = {family(n) for n in found}
        found |= {n: m for n, m in marks.items() if family(n) not in known}
    return found


def _marks_at(place: Path) -> dict[str, SheetMarks]:
    return marks_in(place.read_bytes())


def plan_set_pdf(workspace: Workspace, at: SetAt, name: str, paper: SheetPaper) -> bytes:
    """Return a set as one PDF with a bookmark a sheet; NotFound if the option or the set is not there."""
    sheets = plan_set_of(workspace, at, name, paper)
    job = load_job(workspace, at.job_id, at.revision)
    title = f"{job.name}, option {at.option_id.upper()}, {name} set"
    return scenes_pdf(title, job.paperwork.firm or PROGRAM, [s.scene for s in sheets])


def sheet_dxf(one: SetSheet) -> str:
    """Return a sheet as DXF: what is drawn to scale in the world's millimetres, else as on paper."""
    return scene_dxf(one.scene) if one.plan is None else flat_dxf(one.plan)


def issue_set(workspace: Workspace, at: SetAt, name: str, paper: SheetPaper, what: str) -> Issue:
    """Freeze a set as a file and return what the job is to record of it; its own row is printed in it.

    Raises
    ------
    BadGeometry
        If a sheet has a drawing fault: nothing is kept then.
    NotFound, StorageFailed
        If the option or the set is not there, or the file cannot be written.
    """
    job, day = load_job(workspace, at.job_id, at.revision), workspace.clock().date()
    who = job.paperwork.drawn_by or "nobody named"
    issue = Issue(
        len(job.paperwork.issues) + 1, day, name, paper.value, at.option_id, at.revision,
        " ".join(what.split()) or f"{name} set", who, NOT_YET,
    )  # fmt: skip
    printed = apply_edit(job, RecordIssue(issue), workspace.desk.shelf)
    saved = saved_on(workspace, at.job_id, at.revision)
    design, stamp = design_in(printed, at.option_id), Stamp(at.revision, saved)
    drawn = list(plan_set(workspace.desk, design, stamp, name, paper))
    sheets = _bound(workspace, design, drawn, paper, issue.number)
    for sheet in sheets:
        for hit in sheet.hits:
            raise BadGeometry(
                f"Sheet {sheet.number}", f"{hit.kind}: {hit.told}", "Mend it, or take larger paper."
            )
    title = f"{job.name}, issue {issue.number}, {name} set"
    carried = FILE, marks_json(stood_on(sheets))
    pdf = scenes_pdf(title, job.paperwork.firm or PROGRAM, [s.scene for s in sheets], carried)
    digest = sha256(pdf).hexdigest()
    keep_file(workspace.issued, digest, pdf, ".pdf")
    return replace(issue, sha256=digest)


def changed_since(workspace: Workspace, at: SetAt) -> tuple[str, ...]:
    """Return what was changed since the last set of an option left the house, newest first, in words."""
    job = load_job(workspace, at.job_id, at.revision)
    last = next((i for i in reversed(job.paperwork.issues) if i.option_id == at.option_id), None)
    if last is None:
        return ()
    steps = earlier(workspace, at.job_id, at.revision)
    return tuple(
        e.before for e in steps if e.revision >= last.revision and not e.before.startswith("issue ")
    )


def design_at(workspace: Workspace, at: SetAt) -> tuple[Design, Stamp]:
    """Return an option and its stamp by the day the revision was saved; NotFound if it is not there.

    By that day the same revision is the same file, whenever it is printed.
    """
    job = load_job(workspace, at.job_id, at.revision)
    stamp = Stamp(at.revision, saved_on(workspace, at.job_id, at.revision))
    return design_in(job, at.option_id), stamp


def _at(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> tuple[Design, Stamp]:
    job = load_job(workspace, job_id, revision)
    return design_in(job, option_id), Stamp(revision, workspace.clock().date())
