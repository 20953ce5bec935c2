"""The plan on paper: to scale, with its figures, and with names that cannot break it."""

import re
from dataclasses import replace
from xml.etree import ElementTree

import pytest

from jobs import SHELF
from ridge_tally.core.array.posts import Post
from ridge_tally.core.job.survey import EdgeKind
from ridge_tally.core.sheets.plan_drawing import EDGE_STROKES, MARGIN_MM, Thread, plan_svg
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.kiln_yard import kiln_yard

SVG = "{http://www.w3.org/2000/svg}"


def drawn(job, unit: LengthUnit = LengthUnit.FOOT, width_mm: float = 112.0, name: str = "Chimney"):
    option, plane = job.options[0], job.survey.planes[0]
    chimney, *vents = plane.obstructions
    plane = replace(plane, obstructions=(replace(chimney, name=name), *vents))
    threads = [
        Thread(n, tuple((m, f"{s.tag}{i}") for i, m in enumerate(s.module_ids, start=1)))
        for n, s in enumerate(option.strings)
    ]
    return ElementTree.fromstring(
        plan_svg(plane, option.arrays[0], threads, job.equipment.modules[0], unit, width_mm)
    )


def test_every_module_and_every_place_in_a_string_is_drawn(sample_job) -> None:
    svg = drawn(sample_job)
    labels = [t.text for t in svg.iter(f"{SVG}text")]
    assert len([r for r in svg.iter(f"{SVG}rect") if r.get("fill") == "#dfe7e6"]) == 28
    assert {f"A{i}" for i in range(1, 15)} | {f"B{i}" for i in range(1, 15)} <= set(labels)


@pytest.mark.parametrize(
    ("unit", "eave"), [(LengthUnit.FOOT, "40' 0\""), (LengthUnit.METRE, "12.19 m")]
)
def test_dimensions_carry_the_unit_of_the_job(sample_job, unit: LengthUnit, eave: str) -> None:
    assert eave in [t.text for t in drawn(sample_job, unit).iter(f"{SVG}text")]


@pytest.mark.parametrize("width_mm", [80.0, 112.0, 180.0])
def test_the_drawing_is_to_scale(sample_job, width_mm: float) -> None:
    svg = drawn(sample_job, width_mm=width_mm)
    module = next(r for r in svg.iter(f"{SVG}rect") if r.get("fill") == "#dfe7e6")
    mm_per_m = (width_mm - 2 * MARGIN_MM) / 12.192
    assert float(module.get("width")) == pytest.approx(1.134 * mm_per_m, abs=0.01)
    assert float(module.get("height")) == pytest.approx(1.722 * mm_per_m, abs=0.01)
    assert re.fullmatch(rf"{width_mm:.1f}mm", svg.get("width"))


def test_a_name_with_markup_stays_a_name(sample_job) -> None:
    svg = drawn(sample_job, name="<script>&")
    assert "<script>&" in [t.text for t in svg.iter(f"{SVG}text")]


def test_a_plane_without_an_array_is_still_drawn(sample_job) -> None:
    plane, module = sample_job.survey.planes[0], sample_job.equipment.modules[0]
    svg = ElementTree.fromstring(plan_svg(plane, None, (), module, LengthUnit.METRE, 100.0))
    assert [t.text for t in svg.iter(f"{SVG}text")].count("12.19 m") == 2


def test_every_kind_of_edge_has_a_stroke() -> None:
    assert set(EDGE_STROKES) == set(EdgeKind)


def test_ground_tables_show_their_bays_and_the_posts_at_their_ends() -> None:
    job = kiln_yard(SHELF)
    option, plane = job.options[0], job.survey.planes[1]
    array = next(a for a in option.arrays if a.plane_id == plane.id)
    posts = [Post(1, x, y, y > 1, 0.9 + y / 10) for y in (0.5, 1.5) for x in (1.0, 3.0, 5.0)]
    svg = ElementTree.fromstring(
        plan_svg(plane, array, (), job.equipment.modules[0], LengthUnit.METRE, 112.0, posts)
    )
    rects = list(svg.iter(f"{SVG}rect"))
    assert len([r for r in rects if r.get("stroke-dasharray")]) == 3
    assert len([r for r in rects if r.get("stroke")]) == 27
    told = [t.text for t in svg.iter(f"{SVG}text")]
    assert (told.count("0.95 m"), told.count("1.05 m")) == (2, 2)
