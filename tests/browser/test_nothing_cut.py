"""Nothing is cut, nothing lies on anything, everything is reached: every view of the samples."""

from pathlib import Path

import pytest
from every_view import VIEWS, drawn, views_of
from playwright.sync_api import Page

pytestmark = pytest.mark.e2e
LAYOUT = (Path(__file__).parent / "layout.js").read_text("utf-8")
# A desk, a small laptop, a tablet, a desk at twice the size, a phone.
DESK, PHONE = (1280, 800), (400, 800)
SIZES = [DESK, (1100, 760), (768, 1024), (640, 400), PHONE]
# A drawing or a chart is one tab stop; a slider in it is one of its own.
STOPS = """() => [...document.querySelectorAll('#work svg')].flatMap((svg) => {
  const stops = [...svg.querySelectorAll('[tabindex="0"]:not([role=slider])')];
  return stops.length > 1 ? [`${svg.ariaLabel}: ${stops.length} tab stops`] : [];
})"""
BROKEN = """(part) => axe.run(part, {
  resultTypes: ['violations'], rules: { 'target-size': { enabled: true } },
}).then((found) =>
  found.violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)}`)))"""

# Words said twice, one of many, and values that were never meant to be read.
MISWRITTEN = """() => {
  const wrong = /\\b([a-z]{2,}) \\1\\b|\\bundefined\\b|\\bNaN\\b|(?<![\\d.,−-])\\b1 (modules|strings|trackers|planes|inverters|rows|tables|posts|notes|units|readings|years|months|days|hours|bills|loads|boxes|conductors)\\b/i;
  return document.body.innerText.split('\\n').filter((line) => wrong.test(line));
}"""


def out_of_reach(page: Page, axe: str, step: str, *, faces: bool) -> list[str]:
    """What breaks the rules of access; with `faces`, in each part that stands behind another."""
    page.evaluate(axe)
    wrong = page.evaluate(BROKEN, "html") + page.evaluate(STOPS) + page.evaluate(MISWRITTEN)
    if faces and step in ("survey", "array"):
        for tab in page.get_by_role("main").get_by_role("tab").all()[1:]:
            tab.click()
            wrong += page.evaluate(BROKEN, "#work") + page.evaluate(STOPS)
    return wrong


def wrong_in(
    page: Page, axe: str, option: str, step: str, sizes: list[tuple[int, int]]
) -> list[str]:
    """Return what is wrong with any view of a step, at any of the sizes."""
    wrong: list[str] = []
    for view in views_of(page, option, step):
        wrong += [
            f"{step} {view}: {it}" for it in out_of_reach(page, axe, step, faces=len(sizes) > 1)
        ]
        for wide, high in sizes:
            page.set_viewport_size({"width": wide, "height": high})
            drawn(page)
            wrong += [f"{step} {view} at {wide} x {high}: {it}" for it in page.evaluate(LAYOUT)]
        page.set_viewport_size({"width": DESK[0], "height": DESK[1]})
    return wrong


@pytest.mark.parametrize("step", VIEWS)
def test_nothing_is_cut_covered_or_out_of_reach(
    page: Page, axe: str, job: str, step: str, complaints: list[str]
) -> None:
    assert wrong_in(page, axe, f"{job}/a", step, SIZES) == []
    assert complaints == []


# What looks otherwise there: microinverters and a plat; tables on the ground.
OTHERS = {
    "lagoon-road": ("survey", "array", "strings", "sheets", "proving"),
    "kiln-yard": ("survey", "array", "sun", "build"),
}


@pytest.mark.parametrize("sample", OTHERS)
def test_nor_is_anything_in_the_other_samples(
    page: Page, axe: str, sample: str, complaints: list[str]
) -> None:
    option = f"/jobs/{sample}/a"
    assert [
        it for step in OTHERS[sample] for it in wrong_in(page, axe, option, step, [PHONE])
    ] == []
    assert complaints == []


@pytest.mark.parametrize("place", ["/", "/shelf?kind=inverter"])
def test_nor_among_the_jobs_and_on_the_shelf(page: Page, axe: str, place: str) -> None:
    page.goto(place)
    drawn(page)
    page.evaluate(axe)
    wrong = page.evaluate(BROKEN, "html") + page.evaluate(MISWRITTEN) + page.evaluate(LAYOUT)
    assert wrong == []
