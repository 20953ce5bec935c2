"""Routes of packets and of the plan of work."""

from flask import Response
from pydantic import BaseModel

from ridge_tally.core.job.packet import Addressee, AttachedFile, LogEntry
from ridge_tally.services.kept_files import attached_file
from ridge_tally.services.packets import (
    packet_of_option,
    packet_pdf,
    practised,
    take_in_attached,
    work_calendar,
    work_of_option,
)
from ridge_tally.simulators.utility_portal import Course
from ridge_tally.views.sheets.packet import PacketView
from ridge_tally.views.sheets.work import WorkView
from ridge_tally.web.at import OPTION, set_at, workspace
from ridge_tally.web.models import Found, HashPath, OptionPath
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out, send_kept, sent_file
from ridge_tally.web.sheets import PaperQuery

bp = Routes("packets", __name__, url_prefix="/api")


class PacketPath(OptionPath):
    """A packet of an option."""

    to: Addressee


class PracticeRequest(BaseModel):
    """How the practice portal's answer is to come out."""

    course: Course


@bp.get(f"{OPTION}/packets/<to>", operation_id="packet", responses={200: Found[PacketView]})
def get_packet(path: PacketPath) -> Found[PacketView]:
    """What one of them wants, what is there, and how it stands."""
    return Found[PacketView](found=packet_of_option(workspace(), set_at(path), path.to))


@bp.get(f"{OPTION}/packets/<to>.pdf", operation_id="packet_pdf")
def get_packet_pdf(path: PacketPath, query: PaperQuery) -> Response:
    """The whole packet as one PDF."""
    pdf = packet_pdf(workspace(), set_at(path), path.to, query.paper)
    name = f"{path.job_id}-{path.option_id}-r{path.revision}-packet-{path.to.value}.pdf"
    return handed_out(pdf, "application/pdf", name, shown=True)


@bp.post(
    f"{OPTION}/packets/<to>/practice",
    operation_id="practise",
    responses={200: Found[list[LogEntry]]},
)
def post_practice(path: PacketPath, body: PracticeRequest) -> Found[list[LogEntry]]:
    """What the practice portal takes and answers; the job records it by the edit that follows."""
    entries = practised(workspace(), set_at(path), path.to, body.course)
    return Found[list[LogEntry]](found=list(entries))


@bp.post("/attached", operation_id="attach", responses={201: Found[AttachedFile]})
def post_attached() -> tuple[Found[AttachedFile], int]:
    """A PDF or picture sent as the body, kept as plain pages; its name comes in X-File-Name."""
    return Found[AttachedFile](
        found=take_in_attached(workspace(), *sent_file("attached file"))
    ), 201


@bp.get("/attached/<sha256>.pdf", operation_id="attached_file")
def get_attached(path: HashPath) -> Response:
    """A file that goes along with a packet."""
    return send_kept(attached_file(workspace(), path.sha256))


@bp.get(f"{OPTION}/work", operation_id="work", responses={200: Found[WorkView]})
def get_work(path: OptionPath) -> Found[WorkView]:
    """The plan of work, step by step."""
    return Found[WorkView](found=work_of_option(workspace(), set_at(path)))


@bp.get(f"{OPTION}/work.ics", operation_id="work_calendar")
def get_calendar(path: OptionPath) -> Response:
    """The days of the job as a calendar file."""
    text = work_calendar(workspace(), set_at(path))
    return handed_out(text, "text/calendar", f"{path.job_id}-work.ics")
