"""The plan set: opened by an independent reader, measured with a ruler, without a drawing fault."""

from dataclasses import replace
from datetime import date
from functools import cache
from io import BytesIO, StringIO

import ezdxf
import numpy as np
import pypdfium2
import pytest
from pypdf import PdfReader
from shapely import Polygon

from jobs import FULL, SHELF, WORKED_OUT, option_a
from ridge_tally.core.array.strips import kept_free
from ridge_tally.core.errors import NotFound, RidgeTallyError
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import Job, module_footprint_m
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.sheets.paperwork import DropSet, KeepSet
from ridge_tally.core.job.paperwork import OwnSet
from ridge_tally.core.sheets.flow import BODY, Table, Words, flowed, wrapped
from ridge_tally.core.sheets.mount_detail import HIGH_MM, clamp_detail, draw_detail, mount_detail
from ridge_tally.core.sheets.paper import SIZES_MM, SheetPaper, ground_of
from ridge_tally.core.sheets.scale import SCALES, largest, scale_bar
from ridge_tally.core.sheets.scene import Arc, Layer, Line, Scene, Text, text_box, text_width
from ridge_tally.core.sheets.scene_lint import lint
from ridge_tally.core.sheets.sets import SETS, SetName
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.units import M_PER_FT, LengthUnit, format_length, parse_length_m
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.formats.flat_dxf import flat_dxf
from ridge_tally.formats.scene_pdf import letters_missing, scenes_pdf
from ridge_tally.formats.set_marks import FILE, marks_in, marks_json
from ridge_tally.views.sheets.design import Stamp
from ridge_tally.views.sheets.plan_set import SetSheet, in_order, plan_set
from ridge_tally.views.sheets.set_drawings import bearing_told
from ridge_tally.views.sheets.since import Before, clouded, family, is_clouded, stood_on

STAMP = Stamp(7, date(2026, 12, 1))
MM_PER_PT = 25.4 / 72


@cache
def sheets(
    job: Job = FULL, paper: SheetPaper = SheetPaper.LETTER, name: str = SetName.WHOLE
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


def test_modules_measure_in_the_world_what_they_measure_on_the_roof() -> None:
    """In the drawing file each corner stands where the job has it, to 0.1 mm; on paper to its scale."""
    (layout,) = (s for s in sheets() if s.number == "A-1")
    assert layout.plan is not None
    ratio = dict(SCALES[LengthUnit.FOOT])[_scale_of(layout)]
    laid = design_for(FULL, option_a(FULL)).arrays[0]
    there = present_of(laid.array)
    rings = [
        i.points for i in layout.scene.items if isinstance(i, Line) and i.layer is Layer.MODULE
    ]
    read = ezdxf.read(StringIO(flat_dxf(layout.plan)))
    assert not read.audit().errors
    assert (read.dxfversion, read.header["$INSUNITS"]) == ("AC1024", 4)
    space = read.modelspace()
    drawn = [list(e.get_points("xy")) for e in space.query("LWPOLYLINE[layer=='A-PV-MODL']")]
    assert len(rings) == len(drawn) == len(there)
    first = there[0]
    for ring, corners, m in zip(rings, drawn, there, strict=True):
        wide_m, high_m = module_footprint_m(laid.module, m.orientation)
        box = [(m.x_m, m.y_m), (m.x_m + wide_m, m.y_m), (m.x_m + wide_m, m.y_m + high_m)]
        for (x, y), (x_m, y_m) in zip(corners, box, strict=False):
            assert (x, y) == pytest.approx((x_m * 1000, y_m * 1000), abs=0.1)
        (left, y), (right, _), (_, top) = ring[:3]
        assert abs(right - left) * ratio / 1000 == pytest.approx(wide_m, abs=1e-4)
        assert abs(top - y) * ratio / 1000 == pytest.approx(high_m, abs=1e-4)
        assert (ring[0][0] - rings[0][0][0]) * ratio / 1000 == pytest.approx(
            m.x_m - first.x_m, abs=1e-4
        )
    # Each dimension is an entity that measures what it says.
    told = {e.dxf.text: e.get_measurement() for e in space.query("DIMENSION")}
    for m in there[:1]:
        assert told[format_length(m.x_m, LengthUnit.FOOT)] == pytest.approx(m.x_m * 1000, abs=0.1)
        assert told[format_length(m.y_m, LengthUnit.FOOT)] == pytest.approx(m.y_m * 1000, abs=0.1)
    for words, measured in told.items():
        assert parse_length_m(words, LengthUnit.FOOT) == pytest.approx(
            measured / 1000, abs=0.0017
        ), words


def _scale_of(one: SetSheet) -> str:
    words = (i.words for i in one.scene.items if isinstance(i, Text))
    return next(w for w in words if w.startswith("Scale: ")).removeprefix("Scale: ")


@pytest.mark.parametrize("number", ["A-1", "A-2"])
def test_a_rendered_page_measures_what_the_roof_does(number: str) -> None:
    """A ruler of pixels laid on the outline of the roof: its eave is 40 feet, by the tape."""
    listed = sheets()
    at = [s.number for s in listed].index(number)
    per_mm = 12
    page = pypdfium2.PdfDocument(pdf())[at].render(scale=per_mm * MM_PER_PT, grayscale=True)
    dark = np.asarray(page.to_numpy()).reshape(page.height, page.width) < 90
    outline = next(
        i for i in listed[at].scene.items if isinstance(i, Line) and i.layer is Layer.ROOF
    )
    (left, y), (right, _) = outline.points[:2]
    # Half way between eave and upper modules nothing but the roof's own sides is as thick.
    row = dark[round(y * per_mm)]
    inked = np.flatnonzero(row[round((left - 2) * per_mm) : round((right + 2) * per_mm)])
    ratio = dict(SCALES[LengthUnit.FOOT])[_scale_of(listed[at])]
    line_mm = 0.5
    eave_m = ((inked[-1] - inked[0] + 1) / per_mm - line_mm) * ratio / 1000
    assert eave_m == pytest.approx(40 * M_PER_FT, abs=2 / per_mm * ratio / 1000)


def test_strips_kept_free_cover_what_the_setbacks_say() -> None:
    """By hand, on a plain roof: the whole less what is left inside the strips."""
    laid = design_for(FULL, option_a(FULL)).arrays[0]
    corners = corners_m(laid.plane)
    wide, high = corners[:, 0].max(), corners[:, 1].max()
    setbacks = laid.plane.setbacks
    inside = (wide - 2 * setbacks.rake.value_m) * (
        high - setbacks.eave.value_m - setbacks.ridge.value_m
    )
    (patch,) = kept_free(laid.plane, None)
    area = Polygon(patch.outer, patch.holes).area
    assert area == pytest.approx(wide * high - inside, rel=2e-3)
    assert len(patch.inner) == 1


def test_every_mounting_system_has_its_details_without_a_fault() -> None:
    for mounting in SHELF.mountings:
        for covering in ("shingle", "tile"):
            for unit in LengthUnit:
                details = (mount_detail(mounting, covering, unit), clamp_detail(mounting, unit))
                for detail in details:
                    area = (20.0, 20.0, 150.0, 20.0 + HIGH_MM + 16)
                    items = tuple(draw_detail(detail, area))
                    scene = Scene("detail", 200, 200, (16, 16, 154, area[3] + 4), items)
                    assert [(h.kind, h.told) for h in lint(scene)] == [], mounting.name


def test_clouds_stand_round_what_changed_and_nowhere_else() -> None:
    design = design_for(FULL, option_a(FULL))
    first = sheets(FULL, SheetPaper.LETTER, SetName.PERMIT)
    before = Before(stood_on(first), 2)
    again = tuple(clouded(first, before))
    assert not any(is_clouded(s) for s in again)
    # A module left out: the layout, the strings, the mounting and the sums change; cautions do not.
    gone = ToggleModules(design.option.id, (present_of(design.arrays[0].array)[9].id,))
    job = apply_edit(FULL, gone, SHELF)
    now = tuple(clouded(sheets(job, SheetPaper.LETTER, SetName.PERMIT), before))
    changed = {family(s.number) for s in now if is_clouded(s)}
    assert {"G-1", "A-1", "A-2", "E-1", "E-3", "S-1"} <= changed
    assert not {"C-1", "E-5"} & changed
    layout = next(s for s in now if s.number == "A-1")
    assert layout.hits == ()
    arcs = [i for i in layout.scene.items if isinstance(i, Arc) and i.layer is Layer.CLOUD]
    left, top, right, bottom = layout.scene.frame
    assert all(left <= a.centre[0] <= right and top <= a.centre[1] <= bottom for a in arcs)
    assert "2" in [
        i.words for i in layout.scene.items if isinstance(i, Text) and i.layer is Layer.CLOUD
    ]
    # A sheet that never left the house has none.
    other = tuple(clouded(sheets(job, SheetPaper.LETTER, SetName.CREW), before))
    assert not any(is_clouded(s) for s in other if family(s.number) in ("M-1", "W-1", "T-1"))
    # What an issue carries is what is read out of it.
    carried = scenes_pdf("t", "a", [s.scene for s in first], (FILE, marks_json(stood_on(first))))
    assert marks_in(carried) == stood_on(first)
    assert marks_in(pdf()) == {}
    assert marks_in(b"%PDF broken") == {}


def test_a_set_of_ones_own_holds_its_sheets_in_their_order() -> None:
    job = apply_edit(FULL, KeepSet("roofer", ("W-1", "A-1")), SHELF)
    found = sheets(job, SheetPaper.A4, "roofer")
    assert list(dict.fromkeys(family(s.number) for s in found)) == ["A-1", "W-1"]
    job = apply_edit(job, KeepSet("roofer", ("A-1",)), SHELF)
    assert job.paperwork.sets == (OwnSet("roofer", ("A-1",)),)
    assert apply_edit(job, DropSet("roofer"), SHELF).paperwork.sets == ()
    for bad, told in (
        (KeepSet("permit", ("A-1",)), "a set that ships"),
        (KeepSet("x", ()), "no sheet is chosen"),
        (KeepSet("x", ("A-9",)), "there is no sheet A-9"),
        (DropSet("x"), "set of sheets"),
    ):
        with pytest.raises(RidgeTallyError, match=told):
            apply_edit(job, bad, SHELF)
    with pytest.raises(NotFound):
        sheets(FULL, SheetPaper.A4, "nobody’s")


@pytest.mark.parametrize(
    ("to", "told"),
    [
        ((0, 10), "due N"), ((0, -10), "due S"), ((10, 0), "due E"), ((-10, 0), "due W"),
        ((10, 10), "N 45°00′ E"), ((-10, 10), "N 45°00′ W"), ((10, -10), "S 45°00′ E"),
        ((-5, -8.660254), "S 30°00′ W"), ((1, 100), "N 0°34′ E"),
    ],
)  # fmt: skip
def test_bearings_are_told_by_quadrant(to: tuple[float, float], told: str) -> None:
    assert bearing_told((0, 0), to) == told


def test_what_is_not_checked_or_not_kept_is_printed_and_nothing_structural_holds() -> None:
    words = " ".join(i.words for s in sheets() for i in s.scene.items if isinstance(i, Text))
    assert "not checked" in words
    # What the firm pays is nobody's business on a permit.
    assert "Price of one" not in words
    assert "Pmax" in words
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
    words = " ".join(i.words for s in found for i in s.scene.items if isinstance(i, Text))
    assert "cannot print stand as boxes: cyrillic capital letter de" in words
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
