"""The sheet as a vector PDF: a template, the shipped fonts, no network."""

from dataclasses import dataclass
from importlib.resources import files

from jinja2 import Environment, PackageLoader, select_autoescape
from markupsafe import Markup


@dataclass(frozen=True, slots=True)
class StringRow:
    """One string on the sheet."""

    tag: str
    tracker_number: int
    modules: int
    route: str


@dataclass(frozen=True, slots=True)
class CheckRow:
    """One sum on the sheet."""

    kind: str
    title: str
    subjects: str
    numbers: str
    result: str
    limit: str
    verdict: str
    remark: str
    source: str


@dataclass(frozen=True, slots=True)
class SheetContent:
    """Everything printed; ``plan`` is an SVG element, all else is text."""

    job: str
    option: str
    place: str
    printed_on: str
    revision: int
    plan: str
    plan_caption: str
    equipment: tuple[str, ...]
    strings: tuple[StringRow, ...]
    checks: tuple[CheckRow, ...]
    year: tuple[str, ...]
    doubts: tuple[str, ...]
    stand_in_weather: bool


def sheet_html(content: SheetContent) -> str:
    """Return the sheet as HTML; every text is escaped."""
    environment = Environment(
        loader=PackageLoader("ridge_tally.formats"), autoescape=select_autoescape()
    )
    return environment.get_template("sheet.html").render(
        sheet=content,
        plan=Markup(content.plan),  # noqa: S704 - drawn by plan_svg, which escapes names
    )


def write_sheet_pdf(content: SheetContent) -> bytes:
    """Return the sheet as one PDF page."""
    # Imported here: loading the page layouter takes longer than all the rest of a start.
    from weasyprint import HTML  # noqa: PLC0415
    from weasyprint.urls import URLFetcher  # noqa: PLC0415

    fonts = files("ridge_tally").joinpath("fonts")
    document = HTML(
        string=sheet_html(content),
        base_url=f"{fonts}/",
        url_fetcher=URLFetcher(allowed_protocols={"file"}, allow_redirects=False),
    )
    pdf: bytes = document.write_pdf()
    return pdf
