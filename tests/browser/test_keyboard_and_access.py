"""By keyboard alone, and on a narrow screen."""

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.e2e


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
