"""Strings as an estimator wires them: by hand on the plan, by the planner, by another inverter."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

pytestmark = pytest.mark.e2e


def module(page: Page, place: str) -> Locator:
    """A module by its place in a string: ``A5``."""
    return page.get_by_role("button", name=re.compile(f", {place}$"))


def open_strings(page: Page, job: str) -> None:
    page.goto(f"{job}/a/strings")
    expect(module(page, "A1")).to_be_visible()


def draw_across(page: Page, *places: str) -> None:
    """Press on the first and draw over the others."""
    for number, place in enumerate(places):
        box = module(page, place).bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2, steps=4)
        if number == 0:
            page.mouse.down()
    page.mouse.up()


def test_a_string_is_drawn_by_hand_and_the_planner_takes_it_back(
    page: Page, job: str, complaints: list[str]
) -> None:
    open_strings(page, job)
    page.keyboard.press("h")
    draw_across(page, "B14", "B13", "B12", "B11", "B10", "B9")
    card = page.get_by_role("region", name="New string")
    expect(card).to_contain_text("6 in series")
    page.keyboard.press("w")
    # The six stand beside what was left of B, on its tracker: unequal strings are a Stop.
    expect(module(page, "C6")).to_be_visible()
    tally = page.get_by_role("complementary", name="Tally")
    expect(tally.get_by_text("Equal strings")).to_be_visible()
    module(page, "C1").click()
    page.get_by_role("button", name="Turn round").click()
    expect(module(page, "C6")).to_be_visible()
    page.get_by_role("button", name="Join string B to its end").click()
    expect(module(page, "C14")).to_be_visible()
    page.get_by_role("button", name="Let the planner choose").click()
    expect(module(page, "B14")).to_be_visible()
    expect(module(page, "C1")).to_have_count(0)
    assert complaints == []


def test_a_string_is_drawn_to_another_tracker_and_cut_where_it_was_clicked(
    page: Page, job: str
) -> None:
    open_strings(page, job)
    chip = page.get_by_role("button", name=re.compile("^String A:"))
    chip.drag_to(page.get_by_role("region", name="Tracker 2"))
    expect(page.get_by_role("region", name="Tracker 1")).to_contain_text("No string")
    module(page, "A8").click()
    page.get_by_role("button", name="Cut before A8").click()
    expect(module(page, "A7")).to_be_visible()
    expect(module(page, "C7")).to_be_visible()


def test_the_screen_says_why_one_more_in_series_is_too_many(page: Page, job: str) -> None:
    open_strings(page, job)
    page.keyboard.press("2")
    expect(page.get_by_text("One legal plan")).to_be_visible(timeout=20_000)
    lengths = page.get_by_role("region", name="Lengths in series")
    expect(lengths).to_contain_text(
        "15 in series: 640 V on a −28 °C morning, the inverter input limit is 600 V"
    )
    expect(page.get_by_role("region", name="Legal plans")).to_contain_text("as it is")


def test_another_inverter_is_chosen_by_its_plans_and_one_of_them_used(page: Page, job: str) -> None:
    open_strings(page, job)
    page.keyboard.press("3")
    table = page.get_by_role("region", name="Inverters for this array")
    expect(table).to_contain_text("7 of 8 inverters have a legal plan", timeout=20_000)
    expect(table).to_contain_text("28 modules need at least 2 strings of up to 14")
    row = table.get_by_role("row", name=re.compile("10.0 kW"))
    row.get_by_role("button", name="Choose").click()
    expect(row).to_contain_text("chosen")
    page.keyboard.press("2")
    plans = page.get_by_role("region", name="Legal plans")
    expect(plans).to_contain_text("16 legal plans", timeout=20_000)
    plans.get_by_role("button", name="Use it").first.click()
    expect(plans.get_by_text("as it is")).to_be_visible()
