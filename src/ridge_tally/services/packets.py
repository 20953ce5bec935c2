"""Packets of a job: files taken in, the whole as one PDF, practice with a portal; the plan of work."""

from hashlib import sha256

from ridge_tally.core.errors import FormatError, NotFound
from ridge_tally.core.job.packet import Addressee, AttachedFile, LogEntry
from ridge_tally.core.sheets.flow import flowed
from ridge_tally.core.sheets.paper import SheetPaper, ground_of
from ridge_tally.core.sheets.titled import SheetHead, sheet
from ridge_tally.formats.attached_pdf import bound, plain_pages
from ridge_tally.formats.calendar_file import calendar_text
from ridge_tally.formats.scene_pdf import scenes_pdf
from ridge_tally.services.kept_files import attached_file
from ridge_tally.services.papers import PROGRAM, SetAt, design_at, plan_set_of
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulators.utility_portal import Application, Course, answers
from ridge_tally.store.files import keep_file
from ridge_tally.views.option import option_report
from ridge_tally.views.sheets.packet import PacketView, packet_cover, packet_view
from ridge_tally.views.sheets.titles import title_facts
from ridge_tally.views.sheets.work import WorkView, work_days, work_view


def take_in_attached(workspace: Workspace, content: bytes, file: str) -> AttachedFile:
    """Keep a clean copy of a PDF or picture and return what a packet names it by.

    Raises
    ------
    FormatError, StorageFailed
        If it is neither, is locked, damaged or too large, or cannot be written; nothing is kept then.
    """
    clean = plain_pages(content, file)
    digest = sha256(clean.content).hexdigest()
    keep_file(workspace.attached, digest, clean.content, ".pdf")
    return AttachedFile(digest, file, clean.pages)


def packet_of_option(workspace: Workspace, at: SetAt, to: Addressee) -> PacketView:
    """Return a packet for a screen; NotFound if the option is not there."""
    design, _ = design_at(workspace, at)
    return packet_view(design, to)


def packet_pdf(workspace: Workspace, at: SetAt, to: Addressee, paper: SheetPaper) -> bytes:
    """Return the whole packet as one PDF: its cover, the sheets, every file attached.

    A file that is not kept here, or does not open, is told on the cover and leaves the rest standing.
    NotFound if the option is not there.
    """
    design, stamp = design_at(workspace, at)
    view = packet_view(design, to)
    unread, files = [], []
    for one in (f for state in view.wanted for f in state.wanted.files):
        try:
            content = attached_file(workspace, one.sha256).read_bytes()
            files.append((one.file, plain_pages(content, one.file).content))
        except (NotFound, FormatError, OSError) as error:
            unread.append(f"Not in this packet: {one.file} ({error}).")
    ground = ground_of(paper)
    facts = title_facts(design, option_report(design), stamp)
    pages = flowed(packet_cover(view, tuple(unread)), ground.free)
    scenes = [sheet(ground, facts, SheetHead("P-1", "Packet"), items) for items in pages]
    scenes += [s.scene for s in plan_set_of(workspace, at, view.set, paper)]
    title = f"{design.job.name}, packet for the {to.value}"
    sheets = scenes_pdf(title, design.job.paperwork.firm or PROGRAM, scenes)
    return bound(title, [("Sheets", sheets), *files])


def practised(
    workspace: Workspace, at: SetAt, to: Addressee, course: Course
) -> tuple[LogEntry, ...]:
    """Return what the practice portal takes and answers; NotFound if the option is not there."""
    design, _ = design_at(workspace, at)
    view = packet_view(design, to)
    lacks = tuple(s.wanted.words for s in view.wanted if not s.there)
    phases = design.job.survey.service.phases
    asked = Application(to, design.p_ac_w / 1000, phases, lacks, design.job.paperwork.log)
    return answers(asked, course, workspace.clock().date())


def work_of_option(workspace: Workspace, at: SetAt) -> WorkView:
    """Return the plan of work for a screen; NotFound if the option is not there."""
    design, _ = design_at(workspace, at)
    return work_view(design, workspace.clock().date())


def work_calendar(workspace: Workspace, at: SetAt) -> str:
    """Return the days of a job as a calendar file; NotFound if the option is not there."""
    design, stamp = design_at(workspace, at)
    view = work_view(design, workspace.clock().date())
    return calendar_text(work_days(design, view, at.job_id), stamp.day, at.revision)
