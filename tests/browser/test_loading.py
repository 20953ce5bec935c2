"""Loading as an estimator reads it: the way to the meter, and when the limit cuts."""

import re

import pytest
from playwright.sync_api import Page, expect

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
    page.get_by_role("button", name=re.compile("^Uneven light in strings")).click()
    expect(page.get_by_text("if its darkest cells ruled it")).to_be_visible()
    assert complaints == []


@pytest.mark.fine
def test_the_calendar_tells_when_the_limit_cuts_and_the_band(page: Page, job: str) -> None:
    page.goto(f"{job}/a/loading")
    expect(page.get_by_text("Clipped by limit")).to_be_visible()
    page.keyboard.press("3")
    table = page.get_by_role("table", name="Clipped by month and hour, kWh")
    expect(table.get_by_role("row", name=re.compile("^Apr"))).to_be_visible()
    # By the hour first, then by the quarter with the band from hours to minutes.
    expect(page.get_by_text("in steps of 15 minutes")).to_be_visible(timeout=30_000)
    expect(page.get_by_text("kWh on single minutes")).to_be_visible()
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
    expect(marked).to_contain_text("1 × Sample add-on", timeout=30_000)
    before = marked.inner_text()
    page.get_by_role("checkbox", name=re.compile("^Module 25,")).click()
    expect(page.get_by_text("2 have one")).to_be_visible()
    expect(marked).to_contain_text("2 × Sample add-on", timeout=30_000)
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
    expect(why).to_contain_text("By energy: 22 modules, DC:AC 1.17", timeout=90_000)
    expect(why).to_contain_text("The largest that keeps every Stop and Outside limit: 28 modules")
    schools = page.get_by_role("region", name="The schools, here")
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
    ).to_be_visible(timeout=90_000)
    assert complaints == []
