"""Refresh docs/screenshots from the sample job: one picture a built view."""

import re
import tempfile
from pathlib import Path

from live import live_app
from playwright.sync_api import Page, sync_playwright

from browser import CONTEXT, launch

OUT = Path(__file__).parents[2] / "docs" / "screenshots"


def survey(page: Page) -> None:
    page.get_by_role("button", name="Chimney, ").focus()


def working(page: Page) -> None:
    page.get_by_role("button", name="Cold Voc string A").click()


VIEWS = {
    "brief": ("a/brief", None),
    "survey-plane": ("a/survey", survey),
    "array-roof": ("a/array", None),
    "strings-inverter": ("b/strings", working),
    "loading-day": ("a/loading", None),
    "sheets": ("a/sheets", None),
}


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        live_app(Path(folder)) as address,
        sync_playwright() as playwright,
    ):
        page = launch(playwright).new_context(**CONTEXT).new_page()
        for name, (place, prepare) in VIEWS.items():
            page.goto(f"{address}/jobs/juniper-bench/{place}")
            page.get_by_text("To the meter", exact=True).wait_for()
            page.get_by_text("Against usage", exact=True).wait_for()
            if prepare:
                prepare(page)
            page.evaluate("document.fonts.ready")
            page.wait_for_load_state("networkidle")
            page.get_by_text(re.compile("Counting|Working out")).wait_for(state="hidden")
            page.screenshot(path=OUT / f"{name}.png")


if __name__ == "__main__":
    main()
