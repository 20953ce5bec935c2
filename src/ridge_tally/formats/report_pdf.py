"""Reports on a built system as PDF: a verdict, tables, and the same words on paper as on screen."""

from dataclasses import dataclass

from markupsafe import Markup

from ridge_tally.formats.sheet_pdf import Paper, pdf_of, rendered


@dataclass(frozen=True, slots=True)
class ReportTable:
    """A table with its heading: ``rows`` as wide as ``headings``; ``note`` stands under it."""

    title: str
    headings: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    note: str = ""


@dataclass(frozen=True, slots=True)
class ReportContent:
    """Everything printed; ``chart`` is an SVG element or nothing, all else is text.

    ``marks``: what it rests on that is no measurement.  ``signed``: lines to be signed on.
    """

    title: str
    job: str
    option: str
    place: str
    printed_on: str
    revision: int
    paper: Paper
    told: str
    tables: tuple[ReportTable, ...]
    marks: tuple[str, ...]
    caution: str
    signed: tuple[str, ...] = ()
    chart: str = ""
    chart_told: str = ""


def write_report_pdf(content: ReportContent) -> bytes:
    """Return a report as PDF, as many pages as it wants."""
    # Charts are drawn from numbers alone.
    chart = Markup(content.chart)  # noqa: S704
    return pdf_of(rendered("report.html", sheet=content, chart=chart))
