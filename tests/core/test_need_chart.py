"""The chart of the brief: bars to scale, a level for each month of the array, no markup let in."""

from xml.etree import ElementTree

import pytest

from ridge_tally.core.sheets.need_chart import need_svg

SVG = "{http://www.w3.org/2000/svg}"
NEED = tuple(100.0 * m for m in range(1, 13))


def drawn(array: tuple[float, ...] = (600.0,) * 12) -> ElementTree.Element:
    return ElementTree.fromstring(need_svg(NEED, array, "28 modules", 186.0))


def test_bars_are_to_scale() -> None:
    heights = [float(r.get("height", 0)) for r in drawn().iter(f"{SVG}rect")]
    assert len(heights) == 12
    assert heights[11] == pytest.approx(12 * heights[0], abs=0.1)


def test_each_month_has_the_level_of_its_array() -> None:
    root = drawn(array=NEED)
    tops = [float(r.get("y", 0)) for r in root.iter(f"{SVG}rect")]
    levels = [float(line.get("y1", 0)) for line in root.iter(f"{SVG}line")]
    assert levels == pytest.approx(tops)


def test_figures_and_months_are_written() -> None:
    words = [t.text for t in drawn().iter(f"{SVG}text")]
    assert words[:2] == [
        "kWh a month: bars the use with loads to come, lines the array (28 modules)",
        "100",
    ]
    assert words[-1] == "Dec"


def test_a_year_nobody_knows_is_flat() -> None:
    root = ElementTree.fromstring(need_svg((0.0,) * 12, (0.0,) * 12, "", 186.0))
    assert {float(r.get("height", 1)) for r in root.iter(f"{SVG}rect")} == {0.0}
