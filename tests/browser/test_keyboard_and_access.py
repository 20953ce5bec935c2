"""By keyboard alone, and on a narrow screen."""

import re
from pathlib import Path

import pytest
from every_view import drawn
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.e2e
LAYOUT = (Path(__file__).parent / "layout.js").read_text("utf-8")


def test_walking_the_modules_and_toggling_by_keys(page: Page, job: str) -> None:
    page.goto(f"{job}/a/array")
    first = page.get_by_role("checkbox", name="Module 1", exact=True)
    first.focus()
    page.keyboard.press("ArrowRight")
    second = page.get_by_role("checkbox", name="Module 2", exact=True)
    expect(second).to_be_focused()
    page.keyboard.press(" ")
    expect(second).not_to_be_checked()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowDown")
    expect(second).to_be_focused()


def test_find_or_do_goes_to_a_step_and_does_a_deed(page: Page, job: str) -> None:
    page.goto(f"{job}/a/survey")
    expect(page.get_by_label("Eave", exact=True)).to_be_visible()
    page.keyboard.press("/")
    page.keyboard.type("landscape")
    page.keyboard.press("Enter")
    page.keyboard.press("/")
    page.keyboard.type("go array")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Landscape fill")).to_contain_text("On the roof now")


# What people type, and where it takes them: the address, and the name of what is in focus.
FOUND = [
    ("altitude", r"/brief\?view=place", "Elevation"),
    ("net metering", r"/brief\?view=grid", "Metering"),
    ("120 busbar", r"/brief\?view=house", "Where the source breaker stands"),
    ("pitch", r"/survey\?view=plane", "Slope"),
    ("rafter", r"/survey\?view=plane", "Spacing"),
    ("trees neigh", r"/survey\?view=site", "Around"),
    ("chimney", r"/survey\?view=plane", "Chimney, "),
    ("module 12", r"/array$", "Module 12"),
    ("number of", r"/array$", "Modules on this plane"),
    ("epw", r"/sun\?view=weather", "Choose a weather file"),
    ("albedo", r"/sun\?view=weather", "Ground throws back, Jan"),
    ("string b", r"/strings\?view=wiring", "String B"),
    ("firefighter", r"/strings\?view=rules", "How the roof is shut down"),
    ("clip line", r"/loading$", "AC limit to try"),
]


NAMED_IN_FOCUS = """(name) => {
  const here = document.activeElement;
  const called = here?.ariaLabel ?? here?.labels?.[0]?.textContent ?? here?.textContent;
  return called?.trim().startsWith(name);
}"""


def test_find_or_do_takes_peoples_words_to_the_very_field(page: Page, job: str) -> None:
    page.goto(f"{job}/a/build")
    for typed, address, name in FOUND:
        page.get_by_role("button", name="Find or do").click()
        page.keyboard.type(typed)
        expect(page.get_by_role("option").first).to_be_visible()
        page.keyboard.press("Enter")
        expect(page).to_have_url(re.compile(address))
        page.wait_for_function(NAMED_IN_FOCUS, arg=name)


def test_find_or_do_opens_a_check_and_a_datasheet(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    page.get_by_role("button", name="Find or do").click()
    page.keyboard.type("rapid")
    expect(page.get_by_role("option").first).to_contain_text("check")
    # Down to the field of the same words, and up again.
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("option", selected=True)).to_contain_text("in Strings")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    row = page.get_by_role("complementary", name="Tally").locator(":focus")
    expect(row).to_have_attribute("aria-expanded", "true")
    page.keyboard.press("/")
    page.keyboard.type("module 500")
    # What is found follows the letters: the list is read once it has come to the last of them.
    shelf = page.get_by_role("option").filter(has_text="on the shelf")
    sheet = shelf.filter(has_text="module 500").first
    expect(sheet).to_be_visible()
    named = sheet.locator("span").first.inner_text()
    sheet.click()
    expect(page).to_have_url(re.compile(r"/shelf\?kind=module&sheet="))
    expect(page.get_by_role("complementary", name="Datasheets")).to_contain_text(named)


def test_going_to_a_step_takes_the_focus_there(page: Page, job: str) -> None:
    page.goto(f"{job}/a/survey")
    link = page.get_by_role("navigation", name="Steps").get_by_role("link", name="Array")
    link.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("main", name="Array")).to_be_focused()
    # Its screen is fetched after it was gone to: until then there is nothing to tab to.
    expect(page.get_by_role("checkbox", name="Module 1", exact=True)).to_be_visible()
    expect(page.get_by_role("main", name="Array")).to_be_focused()
    page.keyboard.press("Tab")
    expect(page.get_by_role("main").locator(":focus")).to_have_count(1)


def test_a_chart_is_one_tab_stop_and_is_read_point_by_point(page: Page, job: str) -> None:
    page.goto(f"{job}/a/loading")
    chart = page.get_by_role("group", name="Energy at the meter by month")
    expect(chart.locator('[tabindex="0"]')).to_have_count(1)
    chart.locator('[tabindex="0"]').focus()
    page.keyboard.press("End")
    last = chart.get_by_role("img", name=re.compile(r"^Dec .* kWh$"))
    expect(last).to_be_focused()
    told = last.get_attribute("aria-label") or ""
    expect(chart.locator("text").filter(has_text=told)).to_be_visible()


@pytest.mark.parametrize("view", ["survey", "array", "loading", "strings?view=rules"])
def test_any_screen_prints_as_a_clean_page(page: Page, job: str, view: str) -> None:
    page.goto(f"{job}/a/{view}")
    drawn(page)
    heading = page.get_by_text(re.compile(r"Revision 1, \d+ \w+ \d{4}"))
    expect(heading).to_be_hidden()
    page.emulate_media(media="print")
    expect(heading).to_be_visible()
    for tool in (page.get_by_role("toolbar"), page.get_by_role("navigation", name="Steps")):
        expect(tool).to_be_hidden()
    expect(page.get_by_role("complementary", name="Tally")).to_be_visible()
    assert page.evaluate(LAYOUT) == []


def test_the_key_map_can_switch_single_letters_off(page: Page, job: str) -> None:
    page.goto(f"{job}/a/survey")
    expect(page.get_by_label("Eave", exact=True)).to_be_visible()
    page.keyboard.press("?")
    page.get_by_label("Single letters do things").uncheck()
    page.keyboard.press("Escape")
    page.keyboard.press("d")
    expect(
        page.get_by_role("toolbar").get_by_role("button", name="Diagonal", exact=True)
    ).to_have_attribute("aria-pressed", "false")


def test_the_limit_moves_by_arrow_keys(page: Page, job: str) -> None:
    page.goto(f"{job}/a/loading")
    limit = page.get_by_role("slider", name="AC limit to try")
    limit.focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Shift+ArrowDown")
    expect(limit).to_have_attribute("aria-valuetext", "7.49 kW")
    page.keyboard.press("w")
    expect(page.get_by_role("button", name="Clear winter day")).to_have_attribute(
        "aria-pressed", "true"
    )


def test_below_1100_the_tally_is_a_drawer(page: Page, job: str) -> None:
    page.set_viewport_size({"width": 1000, "height": 800})
    page.goto(f"{job}/a/survey")
    expect(page.get_by_role("complementary", name="Tally")).to_be_hidden()
    page.get_by_role("button", name="Tally").click()
    expect(page.get_by_role("complementary", name="Tally")).to_be_visible()


def test_no_symbol_falls_back_to_the_fonts_of_the_machine(page: Page, job: str) -> None:
    page.goto(f"{job}/b/strings")
    page.get_by_role("button", name="Cold Voc string A").click()
    expect(page.get_by_text("To the meter")).to_be_visible()
    page.evaluate("document.fonts.ready")
    for symbol in "βγΩ≤≥→⌘′":
        assert page.evaluate("(s) => document.fonts.check('14px \"Ridge Symbols\"', s)", symbol), (
            symbol
        )
    session = page.context.new_cdp_session(page)
    session.send("DOM.enable")
    session.send("CSS.enable")
    root = session.send("DOM.getDocument", {"depth": -1})["root"]["nodeId"]
    nodes = session.send("DOM.querySelectorAll", {"nodeId": root, "selector": "aside *"})["nodeIds"]
    used = {
        font["familyName"]
        for node in nodes
        for font in session.send("CSS.getPlatformFontsForNode", {"nodeId": node})["fonts"]
    }
    allowed = ("Barlow", "IBM Plex Mono", "DejaVu Sans")
    assert all(name.startswith(allowed) for name in used), used
    custom = {
        font["familyName"]: font["isCustomFont"]
        for node in nodes
        for font in session.send("CSS.getPlatformFontsForNode", {"nodeId": node})["fonts"]
    }
    assert all(custom.values()), custom


def test_the_first_tab_stop_skips_to_the_work(page: Page, job: str) -> None:
    page.goto(f"{job}/a/array")
    expect(page.get_by_role("checkbox", name="Module 1", exact=True)).to_be_visible()
    page.keyboard.press("Tab")
    expect(page.get_by_role("button", name="Skip to Array")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("main")).to_be_focused()
