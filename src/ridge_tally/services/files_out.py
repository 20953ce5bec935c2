"""Everything of an option as files in open formats: drawings, tables, the days, the set, the job."""

from collections.abc import Iterator

from ridge_tally.core.sheets.paper import SheetPaper
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.core.sheets.sets import SetName
from ridge_tally.formats.csv_file import csv_file
from ridge_tally.formats.packed import packed
from ridge_tally.services.jobs import export_job
from ridge_tally.services.packets import work_calendar
from ridge_tally.services.papers import SetAt, design_at, plan_set_of, plan_set_pdf, sheet_dxf
from ridge_tally.services.proving import commissioning_pdf, commissioning_rows
from ridge_tally.services.workspace import Workspace
from ridge_tally.views.proving.records import record_rows, serial_rows
from ridge_tally.views.proving.serial_svg import serial_svg
from ridge_tally.views.sheets.out_tables import out_tables


def drawings_of(workspace: Workspace, at: SetAt, paper: SheetPaper) -> Iterator[tuple[str, bytes]]:
    """Yield every sheet as SVG and DXF, every table as CSV, the days as a calendar, by their names.

    NotFound if the option is not there.
    """
    for one in plan_set_of(workspace, at, SetName.WHOLE, paper):
        yield f"drawings/{one.number}.svg", scene_svg(one.scene).encode()
        yield f"drawings/{one.number}.dxf", sheet_dxf(one).encode()
    design, _ = design_at(workspace, at)
    for name, rows in out_tables(workspace.desk, design):
        yield f"tables/{name}.csv", csv_file(rows)
    yield "work.ics", work_calendar(workspace, at).encode()
    if design.job.proving.built is not None:
        yield from _proven(workspace, at)


def _proven(workspace: Workspace, at: SetAt) -> Iterator[tuple[str, bytes]]:
    """Yield the records of a built job: stickers, slots, commissioning."""
    design, _ = design_at(workspace, at)
    yield "proving/serials.csv", csv_file(serial_rows(design))
    yield "proving/serials.svg", serial_svg(design).encode()
    yield "proving/records.csv", csv_file(record_rows(design))
    yield "proving/commissioning.csv", commissioning_rows(design)
    yield "proving/commissioning.pdf", commissioning_pdf(workspace, at)


def zip_of_all(workspace: Workspace, at: SetAt, paper: SheetPaper) -> bytes:
    """Return one zip of drawings, tables, days, the whole set as PDF and the job file."""
    files = dict(drawings_of(workspace, at, paper))
    files["plan-set.pdf"] = plan_set_pdf(workspace, at, SetName.WHOLE, paper)
    content, suffix = export_job(workspace, at.job_id, at.revision)
    files[f"job{suffix}"] = content
    return packed(files)
