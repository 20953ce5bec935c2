"""Refresh docs/screenshots from the sample job: one picture a built view."""

import re
import tempfile
from io import BytesIO
from pathlib import Path

from live import live_app
from PIL import Image
from playwright.sync_api import Page, sync_playwright

from browser import CONTEXT, launch

OUT = Path(__file__).parents[2] / "docs" / "screenshots"


def survey(page: Page) -> None:
    page.get_by_role("button", name="Chimney, ").focus()


def site(page: Page) -> None:
    page.get_by_role("button", name="Site", exact=True).click()
    page.get_by_role("tab", name="Around").click()
    page.get_by_role("button", name="Poplar 3", exact=True).click()


def scene(page: Page) -> None:
    page.get_by_role("button", name="3-D", exact=True).click()
    page.locator("canvas").wait_for()
    # The software renderer takes a moment for its first picture.
    page.wait_for_timeout(2000)


def ground(page: Page) -> None:
    page.get_by_role("button", name="Yard", exact=True).click()
    page.get_by_text("Long rows take").wait_for()


def path(page: Page) -> None:
    page.get_by_role("button", name="Sun path").click()
    page.get_by_text("Seen from the").wait_for()


def culprits(page: Page) -> None:
    page.get_by_role("button", name="Shade sources").click()
    page.get_by_text("At the meter that is").wait_for()


def shade(page: Page) -> None:
    page.get_by_role("button", name="Trim Cottonwood").click()
    page.get_by_text("of light").first.wait_for()
    page.get_by_role("button", name="Trim it").wait_for()


def working(page: Page) -> None:
    page.get_by_role("button", name="Cold Voc string A").click()


def angles(page: Page) -> None:
    page.get_by_role("button", name="Angles").click()
    page.get_by_text("East and west give").wait_for()


def sweep(page: Page) -> None:
    page.get_by_role("button", name="Sweep").click()
    page.get_by_text("The largest that breaks").wait_for(timeout=90_000)


def racking(page: Page) -> None:
    page.get_by_text("Weight on the roof").wait_for()


def both_halves(page: Page) -> None:
    """Rails and mounts above, the circuits on the site plan below: one picture."""
    racking(page)
    page.wait_for_load_state("networkidle")
    upper = Image.open(BytesIO(page.screenshot()))
    page.get_by_role("button", name=re.compile("^Circuits")).click()
    page.get_by_text(re.compile("saves .* kWh a year")).first.wait_for()
    lower = Image.open(BytesIO(page.screenshot()))
    both = Image.new("RGB", (upper.width, upper.height + lower.height))
    both.paste(upper, (0, 0))
    both.paste(lower, (0, upper.height))
    both.save(OUT / "build.png", optimize=True)


def money(page: Page) -> None:
    page.get_by_text("By this estimate").wait_for()


def sheets(page: Page) -> None:
    page.get_by_role("button", name=re.compile("^A-1")).click()
    page.get_by_role("region", name=re.compile("^Sheet A-1")).wait_for()


def proving(page: Page) -> None:
    page.get_by_label("South roof: power of the array, read").fill("6300")
    page.get_by_label("West roof: power of the array, read").fill("2150")
    page.get_by_text("West roof too little").first.wait_for()


def micro(page: Page) -> None:
    page.get_by_role("combobox", name="At the modules").click()
    page.get_by_role("option", name="On all: Sample microinverter 330 W", exact=True).click()
    page.get_by_text("The year is catching up").wait_for()
    page.get_by_text("The year is catching up").wait_for(state="hidden")


VIEWS = {
    "brief": ("juniper-bench/a/brief", None),
    "survey-plane": ("juniper-bench/a/survey", survey),
    "survey-site": ("lagoon-road/a/survey", site),
    "survey-scene": ("lagoon-road/a/survey", scene),
    "array-roof": ("juniper-bench/a/array", None),
    "array-ground": ("kiln-yard/a/array", ground),
    "sun-path": ("juniper-bench/a/sun", path),
    "sun-shade": ("juniper-bench/a/sun", shade),
    "sun-culprits": ("juniper-bench/a/sun", culprits),
    "sun-angles": ("juniper-bench/a/sun", angles),
    "strings-inverter": ("juniper-bench/b/strings", working),
    "loading-day": ("juniper-bench/a/loading", None),
    "loading-sweep": ("juniper-bench/a/loading", sweep),
    "build": ("juniper-bench/a/build", both_halves),
    "money": ("juniper-bench/a/money", money),
    "sheets": ("juniper-bench/a/sheets?view=set", sheets),
    "proving": ("tollgate/a/proving", proving),
    # The last: it changes the option.
    "strings-micro": ("juniper-bench/b/strings", micro),
}


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        live_app(Path(folder), whole=True) as address,
        sync_playwright() as playwright,
    ):
        page = launch(playwright).new_context(**CONTEXT).new_page()
        # A busy machine takes its time.
        page.set_default_timeout(300_000)
        page.goto(address)
        page.get_by_text(re.compile("kWh a year")).nth(3).wait_for()
        page.screenshot(path=OUT / "home.png")
        for name, (place, prepare) in VIEWS.items():
            page.goto(f"{address}/jobs/{place}")
            page.get_by_text("To the meter", exact=True).wait_for()
            page.get_by_text("Against usage", exact=True).wait_for()
            if prepare:
                prepare(page)
            page.evaluate("document.fonts.ready")
            page.wait_for_load_state("networkidle")
            page.get_by_text(re.compile("Counting|Working out")).wait_for(state="hidden")
            if prepare is not both_halves:
                page.screenshot(path=OUT / f"{name}.png")


if __name__ == "__main__":
    main()
