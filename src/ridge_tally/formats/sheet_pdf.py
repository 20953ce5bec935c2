"""Sheets as vector PDF: templates, the shipped fonts, no network."""

from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from importlib.resources import files
from threading import Lock
from typing import Any

from jinja2 import Environment, PackageLoader, StrictUndefined, select_autoescape
from markupsafe import Markup

# Pages share their fonts, and those are not made for threads.
_ONE_AT_A_TIME = Lock()
BRIEF_SCALES = (1.0, 0.92, 0.86, 0.8)


class Paper(StrEnum):
    """The size of a page."""

    A4 = "A4"
    LETTER = "Letter"


@dataclass(frozen=True, slots=True)
class Circuits:
    """What the modules are wired on, a row each: strings, or branches of microinverters."""

    title: str
    headings: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    note: str


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
class PlanFigure:
    """A plane drawn to scale: an SVG element and its caption."""

    svg: str
    caption: str
    width_mm: float


@dataclass(frozen=True, slots=True)
class SheetContent:
    """Everything printed; the plans hold SVG elements, all else is text."""

    job: str
    option: str
    place: str
    printed_on: str
    revision: int
    paper: Paper
    plans: tuple[PlanFigure, ...]
    equipment: tuple[str, ...]
    circuits: Circuits
    checks: tuple[CheckRow, ...]
    year: tuple[str, ...]
    caveats: tuple[str, ...]
    stand_in_weather: bool


@dataclass(frozen=True, slots=True)
class BriefRow:
    """A line of a table on the brief: words, a figure, a remark."""

    label: str
    figure: str
    remark: str = ""


@dataclass(frozen=True, slots=True)
class BriefContent:
    """Everything printed on the brief; ``chart`` is an SVG element, all else is text."""

    job: str
    place: str
    printed_on: str
    revision: int
    paper: Paper
    told: str
    chart: str
    need: tuple[BriefRow, ...]
    target: tuple[BriefRow, ...]
    ceilings: tuple[BriefRow, ...]
    site: tuple[BriefRow, ...]
    grid: tuple[BriefRow, ...]
    routes: tuple[BriefRow, ...]
    house: tuple[BriefRow, ...]
    caveats: tuple[str, ...]


def write_sheet_pdf(content: SheetContent) -> bytes:
    """Return the design sheet as PDF: one page, and as many more as its sums want."""
    # The plans are drawn by plan_svg, which escapes names.
    plans = [(Markup(p.svg), p.caption, p.width_mm) for p in content.plans]  # noqa: S704
    return pdf_of(rendered("sheet.html", sheet=content, plans=plans))


def write_brief_pdf(content: BriefContent) -> bytes:
    """Return the brief as one PDF page: a full one is set smaller, down to 7 points."""
    # The chart is drawn by need_svg from numbers alone.
    chart = Markup(content.chart)  # noqa: S704
    document = None
    for scale in BRIEF_SCALES:
        document = _layout(rendered("brief.html", sheet=content, chart=chart, scale=scale))
        if len(document.pages) == 1:
            break
    assert document is not None
    return _written(document)


def rendered(template: str, **content: object) -> str:
    """Return the page as HTML; every text is escaped."""
    # A name that a template has and its content has not is a fault, not an empty line.
    environment = Environment(
        loader=PackageLoader("ridge_tally.formats"),
        autoescape=select_autoescape(),
        undefined=StrictUndefined,
    )
    return environment.get_template(template).render(**content)


def pdf_of(html: str) -> bytes:
    """Return a page as PDF."""
    return _written(_layout(html))


def _written(document: Any) -> bytes:
    with _ONE_AT_A_TIME:
        pdf: bytes = document.write_pdf()
    return pdf


def _layout(html: str) -> Any:
    # Imported here: loading the page layouter takes longer than all the rest of a start.
    from weasyprint import HTML  # noqa: PLC0415
    from weasyprint.urls import URLFetcher  # noqa: PLC0415

    fonts = files("ridge_tally").joinpath("fonts")
    page = HTML(
        string=html,
        base_url=f"{fonts}/",
        url_fetcher=URLFetcher(allowed_protocols={"file"}, allow_redirects=False),
    )
    with _ONE_AT_A_TIME:
        return page.render(font_config=_unpacked_fonts())


@cache
def _unpacked_fonts() -> Any:
    """Return where the shipped fonts are kept once unpacked: half the time of a page."""
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415

    return FontConfiguration()
