"""The plan set: opened by an independent reader, measured with a ruler, without a drawing fault."""

from dataclasses import replace
from datetime import date
from functools import cache
from io import BytesIO, StringIO

import ezdxf
import pytest
from pypdf import PdfReader

from jobs import FULL, SHELF, WORKED_OUT, option_a
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import Job, module_footprint_m
from ridge_tally.core.sheets.flow import BODY, Table, Words, flowed, wrapped
from ridge_tally.core.sheets.paper import SIZES_MM, SheetPaper, ground_of
from ridge_tally.core.sheets.scale import SCALES, largest, scale_bar
from ridge_tally.core.sheets.scene import Layer, Line, Text, text_box, text_width
from ridge_tally.core.sheets.sets import SETS, SetName
from ridge_tally.core.units import M_PER_FT, LengthUnit
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.design import design_for
from ridge_tally.formats.scene_dxf import scene_dxf
from ridge_tally.formats.scene_pdf import letters_missing, scenes_pdf
from ridge_tally.views.sheets.design import Stamp
from ridge_tally.views.sheets.plan_set import SetSheet, in_order, plan_set

STAMP = Stamp(7, date(2026, 12, 1))
MM_PER_PT = 25.4 / 72


@cache
def sheets(
    job: Job = FULL, paper: SheetPaper = SheetPaper.LETTER, name: SetName = SetName.WHOLE
) -> tuple[SetSheet, ...]:
    design = design_for(job, option_a(job))
    return in_order(plan_set(WORKED_OUT, design, STAMP, name, paper))


@cache
def pdf() -> bytes:
    return scenes_pdf("Juniper Bench", "tests", [s.scene for s in sheets()])


@pytest.mark.parametrize("paper", SheetPaper)
@pytest.mark.parametrize(
    "make", [lambda _: FULL, lagoon_road, kiln_yard], ids=["Juniper", "Lagoon", "Kiln"]
)
def test_no_sheet_of_a_sample_has_a_drawing_fault(make, paper: SheetPaper) -> None:
    found = sheets(make(SHELF), paper)
    assert {s.number.split(".")[0] for s in found} == set(SETS[SetName.WHOLE])
    assert [(s.number, h.kind, h.told) for s in found for h in s.hits] == []


def test_a_reader_finds_pages_fonts_bookmarks_and_words_and_no_picture() -> None:
    reader = PdfReader(BytesIO(pdf()))
    listed = sheets()
    assert len(reader.pages) == len(listed)
    assert [mark.title for mark in reader.outline] == [s.scene.title for s in listed]
    for page, s in zip(reader.pages, listed, strict=True):
        size = (float(page.mediabox.width) * MM_PER_PT, float(page.mediabox.height) * MM_PER_PT)
        assert size == pytest.approx((s.scene.width, s.scene.height), abs=0.01)
        assert list(page.images) == []
        for font in page["/Resources"]["/Font"].values():
            below = font.get_object()["/DescendantFonts"][0].get_object()
            assert "/FontFile2" in below["/FontDescriptor"].get_object()
    words = "".join(page.extract_text() for page in reader.pages)
    for told in ("Not for construction until reviewed", "Sample module 405 W", "≤", "South roof"):
        assert told in words
    # The index leads to the sheets it names.
    assert len(reader.pages[0].get("/Annots", [])) >= len({s.number for s in listed}) - 3


def test_the_same_revision_is_the_same_file() -> None:
    assert scenes_pdf("Juniper Bench", "tests", [s.scene for s in sheets()]) == pdf()


def test_modules_measure_on_paper_and_in_dxf_what_they_measure_on_the_roof() -> None:
    (layout,) = (s for s in sheets() if s.number == "A-1")
    scale = next(
        i.words for i in layout.scene.items if isinstance(i, Text) and i.words.startswith("Scale: ")
    )
    ratio = dict(SCALES[LengthUnit.FOOT])[scale.removeprefix("Scale: ")]
    laid = design_for(FULL, option_a(FULL)).arrays[0]
    there = present_of(laid.array)
    rings = [
        i.points for i in layout.scene.items if isinstance(i, Line) and i.layer is Layer.MODULE
    ]
    assert len(rings) == len(there)
    read = ezdxf.read(StringIO(scene_dxf(layout.scene)))
    assert not read.audit().errors
    drawn = [
        list(e.get_points("xy")) for e in read.modelspace().query("LWPOLYLINE[layer=='A-PV-MODL']")
    ]
    first = there[0]
    for ring, corners, m in zip(rings, drawn, there, strict=True):
        wide_m, high_m = module_footprint_m(laid.module, m.orientation)
        for (left, y), (right, _), (_, top) in (ring[:3], corners[:3]):
            assert abs(right - left) * ratio / 1000 == pytest.approx(wide_m, abs=1e-4)
            assert abs(top - y) * ratio / 1000 == pytest.approx(high_m, abs=1e-4)
        along = (ring[0][0] - rings[0][0][0]) * ratio / 1000
        assert along == pytest.approx(m.x_m - first.x_m, abs=1e-4)


def test_what_is_not_checked_or_not_kept_is_printed_and_nothing_structural_holds() -> None:
    words = " ".join(i.words for s in sheets() for i in s.scene.items if isinstance(i, Text))
    assert "not checked" in words
    mounted = [
        i.words
        for s in sheets()
        if s.number.startswith("S-2")
        for i in s.scene.items
        if isinstance(i, Text)
    ]
    assert "screened" in mounted
    assert "holds" not in mounted


def test_names_of_any_length_and_script_and_markup_still_print() -> None:
    name = "<b>&" + "W" * 300 + " Дом 屋根"
    job = replace(FULL, name=name)
    found = sheets(job, SheetPaper.A4, SetName.UTILITY)
    assert [h for s in found for h in s.hits] == []
    assert scenes_pdf(name, "x", [s.scene for s in found]).startswith(b"%PDF")
    assert letters_missing(name) == "Дом屋根"
    assert letters_missing("Ω ≤ 4.5 °C") == ""


def test_a_job_with_nothing_in_it_prints_and_says_what_is_missing() -> None:
    option = replace(option_a(FULL), arrays=(), strings=())
    bare = replace(FULL, options=(option,))
    found = sheets(bare, SheetPaper.A4, SetName.PERMIT)
    words = " ".join(i.words for s in found for i in s.scene.items if isinstance(i, Text))
    assert "No circuit is there yet" in words
    assert [h for s in found for h in s.hits] == []


@pytest.mark.parametrize("unit", LengthUnit)
def test_the_largest_scale_that_fits_is_taken_and_its_bar_is_as_long_as_it_says(unit) -> None:
    ratios = [ratio for _, ratio in SCALES[unit]]
    assert ratios == sorted(ratios)
    for n, ratio in enumerate(ratios):
        # 100 mm of paper at this very scale fit; a hair more wants the next.
        exact = largest(100 * ratio / 1000, 1.0, (0, 0, 100, 100), unit)
        assert exact.ratio == ratio
        over = largest(100.01 * ratio / 1000, 1.0, (0, 0, 100, 100), unit)
        assert over.ratio == ratios[min(n + 1, len(ratios) - 1)]
        bar = next(i for i in scale_bar(exact, unit, 0.0, 10.0) if isinstance(i, Line))
        told = next(
            i.words
            for i in scale_bar(exact, unit, 0.0, 10.0)
            if isinstance(i, Text) and i.words != "0"
        )
        number, name = told.split()
        metres = float(number) * (M_PER_FT if name == "ft" else 1.0)
        assert bar.points[1][0] * ratio / 1000 == pytest.approx(metres)


def test_tables_go_on_with_their_head_and_no_line_is_wider_than_its_cell() -> None:
    ground = ground_of(SheetPaper.A4)
    rows = tuple((f"row {n} " + "word " * 30, "x" * 90) for n in range(80))
    pages = flowed(
        [Words("Head", bold=True), Table("T", ("What", "Which"), rows, (2, 1))], ground.free
    )
    assert len(pages) > 2
    for page in pages:
        assert sum(isinstance(i, Text) and i.words == "What" for i in page) == 1
        for item in page:
            if isinstance(item, Text):
                left, top, right, bottom = text_box(item)
                assert ground.free[0] <= left
                assert right <= ground.free[2]
                assert ground.free[1] <= top
                assert bottom <= ground.free[3] + 0.5
    told = " ".join(i.words for page in pages for i in page if isinstance(i, Text))
    assert all(f"row {n} " in told for n in range(80))
    assert all(
        text_width(Text((0, 0), line, BODY)) <= 40
        for line in wrapped("w " * 50 + "y" * 70, 40, BODY)
    )


def test_papers_are_the_standard_sizes() -> None:
    """ISO 216 and ANSI/ASME Y14.1, from memory."""
    assert SIZES_MM[SheetPaper.A3] == (420.0, 297.0)
    assert SIZES_MM[SheetPaper.TABLOID] == pytest.approx((17 * 25.4, 11 * 25.4))
    assert SIZES_MM[SheetPaper.LETTER] == pytest.approx((11 * 25.4, 8.5 * 25.4))
