"""Surveying on the drawing: typing, placing, dragging, and being told what is wrong."""

import re

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.e2e


def test_text_that_is_no_length_stays_with_its_message_until_put_right(
    page: Page, job: str
) -> None:
    page.goto(f"{job}/a/survey")
    height = page.get_by_label("Height up the slope")
    height.fill("tall")
    height.press("Enter")
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("height up the slope: “tall” was not understood. Type a length")
    expect(height).to_have_value("tall")
    height.press("Escape")
    expect(height).to_have_value("21' 3\"")
    expect(alert).to_have_count(0)


@pytest.mark.parametrize(
    ("label", "typed", "says"),
    [
        ("Slope 26.6°", "95", "slope in degrees reads 95"),
        ("Eave length", "0", "more than 0"),
        ("Height up the slope", "10'", "does not lie on the plane"),
    ],
)
def test_an_impossible_roof_is_refused_where_it_was_typed(
    page: Page, job: str, label: str, typed: str, says: str
) -> None:
    page.goto(f"{job}/a/survey")
    field = page.get_by_label(label, exact=True)
    field.fill(typed)
    field.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text(says)


def test_a_vent_is_placed_dragged_nudged_and_removed(page: Page, job: str) -> None:
    page.goto(f"{job}/a/survey")
    expect(page.get_by_label("Eave length")).to_be_visible()
    page.keyboard.press("v")
    expect(page.get_by_text("Click where the vent stands")).to_be_visible()
    page.mouse.click(400, 400)
    vent = page.get_by_role("button", name=re.compile("^Vent 2,"))
    expect(vent).to_be_visible()
    box = vent.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + 60, box["y"] + 20, steps=4)
    page.mouse.up()
    offset = page.get_by_label("Vent 2, from the left along the eave")
    dragged = offset.input_value()
    vent.press("ArrowRight")
    expect(offset).not_to_have_value(dragged)
    offset.fill("12' 6\"")
    offset.press("Enter")
    expect(page.get_by_role("button", name="Vent 2, 12' 6\" from the left")).to_be_visible()
    page.get_by_role("button", name="Remove Vent 2").click()
    expect(vent).to_have_count(0)


def test_a_ridge_shorter_than_the_eave_makes_a_trapezoid_with_its_inset_to_type(
    page: Page, job: str
) -> None:
    page.goto(f"{job}/a/survey")
    ridge = page.get_by_label("Ridge length")
    ridge.fill("38'")
    ridge.press("Enter")
    inset = page.get_by_label("Ridge inset from the left eave corner")
    inset.fill("1'")
    inset.press("Enter")
    expect(page.get_by_label("South roof", exact=True)).to_contain_text(
        "829 ft²"
    )  # (40 + 38) / 2 x 21.25


def test_metric_and_feet_switch_the_area_and_the_meaning_of_bare_numbers(
    page: Page, job: str
) -> None:
    page.goto(f"{job}/a/survey")
    page.get_by_role("button", name="m", exact=True).click()
    expect(page.get_by_label("South roof", exact=True)).to_contain_text("79.0 m²")
    eave = page.get_by_label("Eave length")
    eave.fill("12.5")
    expect(page.get_by_text("12.50 m = 41' 1/8\"")).to_be_visible()
    eave.press("Escape")


def test_without_the_coldest_temperature_the_stop_is_not_checked(page: Page, job: str) -> None:
    page.goto(f"{job}/a/strings")
    coldest = page.get_by_label("Coldest air, °C")
    coldest.fill("")
    coldest.press("Enter")
    cold = page.get_by_role("button", name="Cold Voc string A")
    expect(cold).to_contain_text("not checked")
    cold.click()
    expect(
        page.get_by_text("no extreme minimum temperature is typed for this site")
    ).to_be_visible()
    expect(page.get_by_label("Tracker 1", exact=True)).to_contain_text("cold: not checked")


def test_a_gable_gets_its_second_half_is_filled_and_strung_apart(page: Page, job: str) -> None:
    page.goto(f"{job}/a/survey")
    page.get_by_role("button", name="Other side").click()
    planes = page.get_by_role("group", name="Roof planes")
    expect(planes.get_by_role("button", name="South roof, other side")).to_have_attribute(
        "aria-pressed", "true"
    )
    expect(page.get_by_label("Azimuth, true")).to_have_value("356°")
    page.get_by_role("button", name="South roof, other side").last.click()
    page.get_by_label("Name of the plane").fill("North roof")
    page.keyboard.press("Enter")
    expect(planes.get_by_role("button", name="North roof")).to_be_visible()
    page.get_by_role("link", name=re.compile("^Array")).click()
    expect(planes.get_by_role("button", name="North roof")).to_have_attribute(
        "aria-pressed", "true"
    )
    expect(page.get_by_text("Nothing placed yet")).to_be_visible()
    page.keyboard.press("l")
    expect(page.get_by_text(re.compile(r"\d+ of \d+ places taken"))).to_be_visible()
    page.get_by_role("link", name=re.compile("^Strings")).click()
    page.get_by_role("combobox", name="Inverter").click()
    page.get_by_role("option", name=re.compile("10.0 kW")).first.click()
    planes.get_by_role("button", name="South roof").click()
    expect(page.get_by_role("img", name=re.compile("^String A"))).to_be_visible()
    page.get_by_role("link", name=re.compile("^Survey")).click()
    page.get_by_role("button", name="Remove South roof").click()
    expect(page.get_by_role("button", name="Remove South roof")).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(planes.get_by_role("button", name="South roof")).to_be_visible()
