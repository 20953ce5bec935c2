"""Every view of every step, gone to as a link in the app would go there."""

from collections.abc import Iterator

from playwright.sync_api import Page, expect

VIEWS = {
    "brief": ("place", "bills", "loads", "grid", "approval", "house", "shelf"),
    "survey": ("plane", "site", "scene"),
    "array": ("",),
    "sun": ("shade", "path", "day", "who", "weather", "angles"),
    "strings": ("wiring", "plans", "equipment", "rules", "out", "compare"),
    "loading": (
        "day", "waterfall", "calendar", "work", "own", "sweep", "house", "compared", "bench", "buy",
    ),
    "sheets": ("one", "set", "packet", "work"),
    "money": ("price", "bills", "years", "options", "moves", "later", "sure"),
    "proving": ("moment", "records", "tests", "fault", "yard", "output"),
    "build": ("rails", "cut", "chalk", "circuits", "one-line", "panel", "parts"),
}  # fmt: skip


def drawn(page: Page) -> None:
    """What is worked out stands there, drawn at the window's size."""
    expect(page.locator("[data-waiting], [aria-busy=true]")).to_have_count(0)
    page.evaluate(
        "() => new Promise((done) => { let left = 3; const next = () =>"
        " (left-- ? requestAnimationFrame(next) : done()); next(); })"
    )


def views_of(page: Page, option: str, step: str) -> Iterator[str]:
    """Go to one view of a step after another, without loading the page anew."""
    page.goto(f"{option}/{step}")
    for view in VIEWS[step]:
        page.evaluate(
            "(to) => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')); }",
            f"{option}/{step}{f'?view={view}' if view else ''}",
        )
        drawn(page)
        yield view
