"""Strings as an estimator wires them: by hand on the plan, by the planner, by another inverter."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from browser import still_box

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
        box = still_box(module(page, place))
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
    page.get_by_role("button", name="Planner").click()
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
    expect(page.get_by_text("One legal plan")).to_be_visible()
    lengths = page.get_by_role("region", name="Lengths in series")
    expect(lengths).to_contain_text(
        "15 in series: 640 V on a −28 °C morning, the inverter input limit is 600 V"
    )
    expect(page.get_by_role("region", name="Legal plans")).to_contain_text("as it is")


def test_another_inverter_is_chosen_by_its_plans_and_one_of_them_used(page: Page, job: str) -> None:
    open_strings(page, job)
    page.keyboard.press("3")
    table = page.get_by_role("region", name="Inverters for this array")
    expect(table).to_contain_text("Inverters with a legal plan: 8 of 11")
    expect(table).to_contain_text("Needs 3 phases; the service has 1.")
    expect(table).to_contain_text("28 modules need at least 2 strings of up to 14")
    row = table.get_by_role("row", name=re.compile("^Sample inverter 10.0 kW, three trackers 1"))
    row.get_by_role("button", name="Choose").click()
    expect(row).to_contain_text("chosen")
    page.keyboard.press("2")
    plans = page.get_by_role("region", name="Legal plans")
    expect(plans).to_contain_text("16 legal plans")
    plans.get_by_role("button", name="Use it").first.click()
    expect(plans.get_by_text("as it is")).to_be_visible()


def test_a_box_counts_its_conductors_and_is_moved_by_arrows(page: Page, job: str) -> None:
    open_strings(page, job)
    page.get_by_role("tab", name="Home runs").click()
    told = page.get_by_role("tabpanel", name="Home runs")
    expect(told).to_contain_text("Box 1: 4 conductors and the ground")
    expect(told).to_contain_text("118'")
    box = page.get_by_role("button", name=re.compile("^Box 1:"))
    box.focus()
    page.keyboard.press("Enter")
    page.keyboard.press("ArrowLeft")
    expect(told).not_to_contain_text("118'")
    page.keyboard.press("j")
    expect(page.get_by_role("button", name=re.compile("^Box 2:"))).to_be_visible()
    page.get_by_role("button", name="Take box 2 away").click()
    expect(page.get_by_role("button", name=re.compile("^Box 2:"))).to_have_count(0)


def test_a_rule_typed_for_the_job_is_held_and_taken_back(page: Page, job: str) -> None:
    open_strings(page, job)
    page.keyboard.press("4")
    ceiling = page.get_by_role("textbox", name="Code's voltage ceiling, V")
    ceiling.fill("450")
    ceiling.press("Enter")
    rules = page.get_by_role("region", name="US rules")
    expect(rules).to_contain_text("typed for this job; the family has 600")
    tally = page.get_by_role("complementary", name="Tally")
    # The planner followed: shorter strings, and what finds no place is told.
    expect(tally.get_by_text("Modules not in a string")).to_be_visible()
    ceiling.fill("")
    ceiling.press("Enter")
    expect(rules).to_contain_text("NEC 690.7")
    page.get_by_role("checkbox", name=re.compile("^Polarity of every string")).click()
    page.get_by_role("button", name=re.compile(r"\d notes")).click()
    expect(tally.get_by_text("Confirmed on site")).to_be_visible()
    shutdown = page.get_by_role("combobox", name="How the roof is shut down")
    shutdown.click()
    page.get_by_role("option", name="not said yet").click()
    expect(page.get_by_role("region", name="Safety")).to_contain_text("nobody said how")


def test_a_plan_asked_in_words_is_answered_in_one_sentence(page: Page, job: str) -> None:
    open_strings(page, job)
    page.keyboard.press("2")
    asked = page.get_by_role("textbox", name="Plan in words")
    asked.fill("15 on 1, 13 on 2")
    asked.press("Enter")
    expect(page.get_by_text("15 in series on tracker 1: 640 V")).to_be_visible()
    asked.fill("as many as fit")
    asked.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("14 on 1")


def test_a_second_inverter_takes_a_string_and_goes_again(page: Page, job: str) -> None:
    open_strings(page, job)
    page.keyboard.press("3")
    page.get_by_role(
        "button",
        name="Add Sample inverter 5.0 kW, two trackers beside what hangs there",
        exact=True,
    ).click()
    hanging = page.get_by_role("list", name="Inverters of this option")
    expect(hanging).to_contain_text("Inverter 2 Sample inverter 5.0 kW")
    page.keyboard.press("1")
    module(page, "B1").click()
    page.get_by_role("combobox", name="Tracker of string B").click()
    page.get_by_role("option", name="on tracker 3 of inverter 2").click()
    third = page.get_by_role("region", name="Tracker 3")
    expect(third).to_contain_text("14 modules in series")
    expect(third).to_contain_text("inverter 2")
    expect(third).to_contain_text("A year, DC")
    page.keyboard.press("3")
    page.get_by_role("button", name="Take inverter 2 away").click()
    expect(hanging).to_have_count(0)
    page.keyboard.press("1")
    expect(page.get_by_role("region", name="Tracker 2")).to_contain_text("14 modules in series")


def test_a_plane_with_modules_of_another_type(page: Page, house: str) -> None:
    page.goto(f"{house}/a/array")
    page.get_by_role("button", name="Garage west").click()
    page.get_by_role("combobox", name="Module on this plane").click()
    page.get_by_role("option", name="Sample module 330 W").click()
    expect(page.get_by_text("1.69 × 1.002 m")).to_be_visible()
    page.keyboard.press("p")
    tally = page.get_by_role("complementary", name="Tally")
    expect(tally).to_contain_text("11 × Sample module 330 W")
    page.goto(f"{house}/a/strings")
    expect(module(page, "A1")).to_be_visible()
    page.keyboard.press("2")
    expect(
        page.get_by_role("heading", name="How many in series: Sample module 330 W, full-cell")
    ).to_be_visible()


def at_the_modules(page: Page, unit: str) -> None:
    page.get_by_role("combobox", name="At the modules").click()
    page.get_by_role("option", name=unit, exact=True).click()


def test_microinverters_stand_on_branches_and_the_strings_come_back(page: Page, job: str) -> None:
    open_strings(page, job)
    at_the_modules(page, "On all: Sample microinverter 330 W")
    first = page.get_by_role("region", name="Branch 1")
    # By hand: 28 units at most 11 to a branch are 10 + 9 + 9; 10 x 325 VA / 240 V = 13.5 A.
    expect(first).to_contain_text("10 units, 13.5 A of 16 A")
    expect(page.get_by_role("region", name="Branch 3")).to_contain_text("9 units")
    tally = page.get_by_role("complementary", name="Tally")
    expect(tally).to_contain_text("11.34 / 9.24 kW")
    expect(tally.get_by_text("Cold Voc", exact=True)).to_have_count(0)
    page.keyboard.press("2")
    expect(page.get_by_text("there are no strings to plan")).to_be_visible()
    page.keyboard.press("1")
    at_the_modules(page, "No module electronics")
    expect(module(page, "A14")).to_be_visible()


def test_optimizers_on_all_hold_the_string_and_on_some_are_marked(page: Page, job: str) -> None:
    open_strings(page, job)
    at_the_modules(page, "On all: Sample system optimizer 440 W")
    expect(page.get_by_role("region", name="Tracker 1")).to_contain_text("Held at 380 V")
    tally = page.get_by_role("complementary", name="Tally")
    expect(tally).to_contain_text("Current of a string")
    at_the_modules(page, "On some: Sample add-on optimizer 500 W")
    module(page, "A5").click()
    page.get_by_role("checkbox", name="Optimizer on A5").click()
    expect(page.get_by_role("img", name="optimizer", exact=True)).to_have_count(1)
    expect(tally).to_contain_text("Cold Voc")
