"""Nothing is cut and nothing lies on anything: every view of the sample at five sizes of the window."""

from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.e2e
LAYOUT = (Path(__file__).parent / "layout.js").read_text("utf-8")
# A desk, a small laptop, a tablet, a desk at twice the size, a phone.
SIZES = [(1280, 800), (1100, 760), (768, 1024), (640, 400), (400, 800)]
VIEWS = {
    "brief": ("place", "bills", "loads", "grid", "approval", "house", "shelf"),
    "survey": ("plane", "site", "scene"),
    "array": ("",),
    "sun": ("shade", "path", "day", "who", "weather", "angles"),
    "strings": ("wiring", "plans", "equipment", "rules", "out", "compare"),
    "loading": (
        "day", "waterfall", "calendar", "work", "own", "sweep", "house", "compared", "bench", "buy",
    ),
    "sheets": ("",),
    "build": ("",),
}  # fmt: skip


def drawn(page: Page) -> None:
    """What is worked out stands there, drawn at the window's size."""
    expect(page.locator("[data-waiting], [aria-busy=true]")).to_have_count(0)
    page.evaluate(
        "() => new Promise((done) => { let left = 3; const next = () =>"
        " (left-- ? requestAnimationFrame(next) : done()); next(); })"
    )


@pytest.mark.parametrize("step", VIEWS)
def test_nothing_is_cut_or_covered(page: Page, job: str, step: str, complaints: list[str]) -> None:
    page.goto(f"{job}/a/{step}")
    wrong: list[str] = []
    for view in VIEWS[step]:
        # As a link in the app would go there, without loading the page anew.
        page.evaluate(
            "(to) => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')); }",
            f"{job}/a/{step}{f'?view={view}' if view else ''}",
        )
        for wide, high in SIZES:
            page.set_viewport_size({"width": wide, "height": high})
            drawn(page)
            wrong += [f"{step} {view} at {wide} x {high}: {it}" for it in page.evaluate(LAYOUT)]
    assert wrong == []
    assert complaints == []
