"""Printed pages: no words lie on others, on any sample; the paper is that of the place.

The boxes are those of the ink of each character, as a PDF renderer outside the project has them.
"""

from collections.abc import Callable
from functools import cache

import numpy as np
import pypdfium2
import pypdfium2.raw as pdfium
import pytest

from jobs import warm_workspace_in
from ridge_tally.services import jobs
from ridge_tally.services.papers import brief_pdf, design_sheet, design_sheet_pdf
from ridge_tally.services.sample_jobs import store_samples
from ridge_tally.services.workspace import Workspace

# Of a character's ink; less is two neighbours that kiss.
OVERLAP_PT = 0.45
LETTER_PT, A4_PT = (612, 792), (595, 842)
SHEETS = [
    ("juniper-bench", "a"), ("juniper-bench", "b"), ("lagoon-road", "a"), ("lagoon-road", "b"),
    ("lagoon-road", "c"), ("mill-terrace", "a"), ("kiln-yard", "a"),
]  # fmt: skip


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    workspace = warm_workspace_in(tmp_path_factory.mktemp("sheets"))
    store_samples(workspace, "tests")
    return workspace


@pytest.fixture(scope="module")
def design_pdf(workspace: Workspace) -> Callable[[str, str], bytes]:
    """Return what prints a sheet, each but once."""
    return cache(lambda job_id, option_id: design_sheet_pdf(workspace, job_id, 1, option_id))


@pytest.fixture(scope="module")
def brief(workspace: Workspace) -> Callable[[str], bytes]:
    """Return what prints a brief, each but once."""
    return cache(lambda job_id: brief_pdf(workspace, job_id, 1, "a"))


def words_on_words(pdf: bytes) -> list[str]:
    """Return pairs of runs of words of which one's ink lies on the other's, page by page."""
    found = []
    for number, page in enumerate(pypdfium2.PdfDocument(pdf), start=1):
        runs = list(page.get_objects([pdfium.FPDF_PAGEOBJ_TEXT], textpage=page.get_textpage()))
        box = np.array([_on_page(run) for run in runs])
        wide = np.minimum(box[:, None, 2], box[None, :, 2]) - np.maximum(
            box[:, None, 0], box[None, :, 0]
        )
        high = np.minimum(box[:, None, 3], box[None, :, 3]) - np.maximum(
            box[:, None, 1], box[None, :, 1]
        )
        for i, j in np.argwhere(np.triu((wide > OVERLAP_PT) & (high > OVERLAP_PT), 1)):
            found.append(f"page {number}: “{runs[i].extract()}” on “{runs[j].extract()}”")
    return found


def _on_page(run: pypdfium2.PdfObject) -> tuple[float, float, float, float]:
    """Return left, bottom, right, top on the page, through the drawings a run stands in."""
    box, around = run.get_bounds(), run.container
    while around is not None:
        box, around = around.get_matrix().on_rect(*box), around.container
    return box


@pytest.mark.parametrize(("job_id", "option_id"), SHEETS)
def test_no_words_lie_on_others(design_pdf, job_id: str, option_id: str) -> None:
    assert words_on_words(design_pdf(job_id, option_id)) == []


@pytest.mark.parametrize("job_id", sorted({j for j, _ in SHEETS}))
def test_no_words_lie_on_others_in_the_brief(brief, job_id: str) -> None:
    assert words_on_words(brief(job_id)) == []


@pytest.mark.parametrize(("job_id", "size"), [("juniper-bench", LETTER_PT), ("kiln-yard", A4_PT)])
def test_the_paper_is_what_the_place_prints_on(design_pdf, brief, job_id: str, size) -> None:
    for pdf in (design_pdf(job_id, "a"), brief(job_id)):
        page = pypdfium2.PdfDocument(pdf)[0]
        assert (round(page.get_width()), round(page.get_height())) == size


def test_what_makes_ac_and_what_joins_it_is_told(workspace: Workspace, design_pdf) -> None:
    by_micro = design_sheet(workspace, "lagoon-road", 1, "b")
    assert by_micro.circuits.title == "Branch circuits"
    assert [row[:3] for row in by_micro.circuits.rows] == [("1", "9", "9"), ("2", "8", "8")]
    # By hand: two branches on two of three phases; nine units of 325 VA at 240 V are 12.19 A, and
    # where no code asks for 125 % of them a 13 A breaker is next.
    assert "= 12.2 A, so 13 A" in by_micro.circuits.note
    helped = design_sheet(workspace, "lagoon-road", 1, "c")
    assert helped.circuits.rows[0][-1] == "3 of 17"
    assert any("optimizer" in line for line in helped.equipment)
    pdf = design_pdf("lagoon-road", "b")
    text = "\n".join(page.get_textpage().get_text_range() for page in pypdfium2.PdfDocument(pdf))
    for line in (*by_micro.equipment, *by_micro.year, by_micro.circuits.note):
        assert "".join(line.split()) in "".join(text.split())
    assert jobs.load_job(workspace, "lagoon-road").name in text


@pytest.mark.parametrize(("off_x", "off_y"), [(0.5, 0.0), (2.0, 0.5), (0.0, 1.5)])
def test_the_measure_finds_words_on_words(off_x: float, off_y: float) -> None:
    from weasyprint import HTML

    words = f'<text x="9" y="9" font-size="3">A1</text><text x="{9 + off_x}" y="{9 + off_y}" font-size="3">A2</text>'
    page = f'<svg width="60mm" height="20mm" viewBox="0 0 60 20">{words}</svg>'
    assert words_on_words(HTML(string=page).write_pdf()) != []
