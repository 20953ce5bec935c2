"""Loading as an estimator reads it: the way to the meter, and when the limit cuts."""

import re

import pytest
from playwright.sync_api import Page, expect

from meter_files import power_csv, use_csv

pytestmark = pytest.mark.e2e


def kwh(text: str) -> float:
    """The first number of a row, spaces for thousands and a true minus."""
    found = re.search(r"[−+]?\d[\d ]*(?= kWh)", text)
    assert found is not None, text
    return float(found[0].replace(" ", "").replace("−", "-"))


def test_every_step_to_the_meter_is_named_adds_up_and_opens(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("2")
    rows = page.get_by_role("list", name="From sunlight to meter").get_by_role("listitem")
    expect(rows.first).to_contain_text("Sunlight on the glass")
    told = [kwh(text) for text in rows.all_inner_texts()]
    # What is left is what came less what every step took, each rounded to a kilowatt-hour.
    assert sum(told[:-1]) == pytest.approx(told[-1], abs=len(told))
    page.get_by_role("button", name=re.compile("^Shading mismatch")).click()
    expect(page.get_by_text("if its darkest cells ruled it")).to_be_visible()
    assert complaints == []


def test_the_calendar_tells_when_the_limit_cuts_and_the_band(page: Page, job: str) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("3")
    table = page.get_by_role("table", name="Clipped by month and hour, kWh")
    expect(table.get_by_role("row", name=re.compile("^Apr"))).to_be_visible()
    # The band from even hours to sun and cloud almost alone stands in the Tally, too.
    expect(page.get_by_text("where sun and cloud change most")).to_be_visible()
    tally = page.get_by_role("complementary", name="Tally")
    expect(tally.get_by_text(re.compile(r"7\.\d to 1\d\.\d %"))).to_be_visible()


def test_the_inverter_at_work_and_its_years_to_come(page: Page, job: str) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("4")
    loads = page.get_by_role("region", name="Hours by load").get_by_role("row")
    expect(loads).to_have_count(11)
    years = page.get_by_role("region", name="Years to come")
    expect(years.get_by_text("year 25")).to_be_visible()
    expect(page.get_by_role("region", name="Heat of the cabinet")).to_contain_text("Warmest 6")


def test_optimizers_are_put_on_modules_by_clicking_them(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("5")
    ways = page.get_by_role("region", name="Ways to the grid")
    marked = ways.get_by_role("listitem").filter(has_text="Optimizers where marked")
    expect(marked).to_contain_text("1 × Sample add-on")
    before = marked.inner_text()
    page.get_by_role("checkbox", name=re.compile("^Module 25,")).click()
    expect(page.get_by_text("2 have one")).to_be_visible()
    expect(marked).to_contain_text("2 × Sample add-on")
    assert kwh(marked.inner_text()) != kwh(before)
    page.get_by_role("button", name="Back to the darkest").click()
    expect(page.get_by_text("1 has one")).to_be_visible()
    assert complaints == []


def test_the_sweep_says_how_many_modules_and_makes_it_so(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/loading")
    page.get_by_role("button", name="Sweep").click()
    why = page.get_by_role("region", name="Which, and why")
    expect(why).to_contain_text("By energy: 21 modules, DC:AC 1.12")
    expect(why).to_contain_text("The largest that breaks no Stop and no Outside limit: 28 modules")
    schools = page.get_by_role("region", name="Sizing rules compared")
    for ratio in ("1.00", "1.20", "1.33", "1.50", "2.00"):
        expect(schools.get_by_role("rowheader", name=ratio)).to_be_visible()
    page.get_by_role("button", name=re.compile("^22 modules on 7.60 kW")).click()
    page.get_by_role("button", name="Make it 22 modules").click()
    tally = page.get_by_role("complementary", name="Tally")
    expect(tally).to_contain_text("8.91 / 7.60 kW")
    # Other sizes of inverter under the same strings.
    page.get_by_role("button", name="Other inverter sizes").click()
    expect(
        page.get_by_role("button", name=re.compile("^22 modules on .* DC:AC 0.80"))
    ).to_be_visible()
    assert complaints == []


def test_the_house_takes_its_sun_home_with_a_battery(page: Page, job: str) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("7")
    year = page.get_by_role("region", name="In the year, kWh")
    expect(year.get_by_role("row", name=re.compile("^Used at home"))).to_be_visible()
    page.get_by_role("button", name="Add a battery of 10 kWh").click()
    expect(page.get_by_text("2 conversions from module to socket")).to_be_visible()
    expect(year.get_by_role("columnheader", name="battery")).to_be_visible()
    kwh_field = page.get_by_label("Usable kWh")
    kwh_field.fill("lots")
    kwh_field.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("kWh such as 9.6")
    kwh_field.fill("5")
    kwh_field.press("Enter")
    expect(page.get_by_role("alert")).to_have_count(0)
    page.get_by_role("combobox", name="How the battery joins").click()
    page.get_by_role("option", name="beside it, on AC").click()
    expect(page.get_by_text("3 conversions from module to socket")).to_be_visible()
    page.get_by_role("combobox", name="The house’s day").click()
    page.get_by_role("option", name="Out on workdays", exact=True).click()
    expect(page.get_by_text("all out on workdays")).to_be_visible()
    sizes = page.get_by_role("region", name="Inverters of other sizes carry")
    expect(sizes.get_by_role("rowheader", name=re.compile("quick approval"))).to_be_visible()


def test_a_metered_year_takes_the_place_of_the_bills(page: Page, job: str) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("7")
    choose = page.get_by_label("Metered year, CSV, file")
    bad = {"name": "bad.csv", "mimeType": "text/csv", "buffer": b"time;value\n1;2\n"}
    choose.set_input_files(bad)
    expect(page.get_by_role("alert")).to_contain_text("Write the unit into the heading")
    choose.set_input_files({"name": "meter.csv", "mimeType": "text/csv", "buffer": use_csv()})
    page.get_by_role("button", name="Use meter.csv").click()
    expect(page.get_by_text("metered, meter.csv")).to_be_visible()
    page.get_by_role("button", name="Back to the bills").click()
    expect(page.get_by_text("12 bills over 365 days")).to_be_visible()


def test_options_and_the_design_before_a_change_lie_over_each_other(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("8")
    figures = page.get_by_role("region", name="Figures side by side")
    expect(figures.get_by_role("columnheader")).to_have_count(2)
    expect(figures).to_contain_text("Cold Voc, string A: 640 V of 600 V")
    # One module less, and the year against the one before it.
    page.get_by_role("link", name="Array").click()
    page.get_by_role("checkbox", name="Module 1", exact=True).click()
    page.get_by_role("link", name="Loading").click()
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("8")
    page.get_by_role("combobox", name="As it was before").click()
    page.get_by_role("option", name=re.compile("^before “toggle")).first.click()
    expect(figures).to_contain_text("as it was")
    why = page.get_by_role("region", name="What makes the difference")
    expect(why).to_contain_text("At the meter")
    expect(page.get_by_text("against what was before").first).to_be_visible()
    assert complaints == []


def test_a_measured_day_becomes_an_array(page: Page, job: str, complaints: list[str]) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("9")
    file = {"name": "day.csv", "mimeType": "text/csv", "buffer": power_csv()}
    page.get_by_label("Choose a measured day, file").set_input_files(file)
    made = page.get_by_role("region", name="Made of")
    expect(made.get_by_label("Group 1, W")).to_have_value("11 340")
    # By hand: 300 W of 405, a half sine of twelve hours on 11.34 kW: 64.2 kWh.
    expect(page.get_by_text("64.2 kWh")).to_be_visible()
    page.get_by_role("button", name="Half each way").click()
    expect(made.get_by_label("Group 2, W")).to_have_value("5 670")
    limit = made.get_by_label("Cut off at, kW")
    limit.fill("6")
    limit.press("Enter")
    expect(page.get_by_text(re.compile("day.csv.*the limit cuts"))).to_be_visible()
    page.get_by_role("button", name="The module, safely").click()
    expect(page.get_by_text("never pull its connectors under load")).to_be_visible()
    assert complaints == []


def test_loading_says_which_inverter_how_many_and_which_way_and_looks_through_the_shelf(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("0")
    answer = page.get_by_role("region", name="The answer")
    inverter = answer.get_by_role("region", name="Which inverter?")
    expect(inverter).to_contain_text("Sample inverter 7.6 kW, two trackers")
    expect(answer.get_by_role("region", name="How many modules?")).to_contain_text(
        "28, DC:AC 1.49, as it is"
    )
    expect(answer.get_by_role("region", name="Orientation")).to_contain_text("All to the equator")
    page.get_by_role("button", name="Look through the shelf").click()
    shelf = page.get_by_role("region", name="Recommendation")
    expect(shelf.get_by_text(re.compile("^Most kWh for the money"))).to_be_visible()
    shelf.get_by_role("button", name="Stop").click()
    expect(shelf.get_by_role("button", name="Stop")).to_have_count(0)
    shelf.get_by_role("button", name="Parts", exact=True).click()
    expect(shelf.get_by_role("columnheader", name=re.compile("^Parts"))).to_have_attribute(
        "aria-sort", "ascending"
    )
    shelf.get_by_role("button", name=re.compile("^Take ")).first.click()
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    assert complaints == []
