"""The whole slice as a person goes through it: from a tape reading to a printed design."""

import re
from io import BytesIO

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from browser import still_box

pytestmark = pytest.mark.e2e


def tally_row(page: Page, label: str) -> str:
    row = page.get_by_role("complementary", name="Tally").get_by_text(label, exact=True)
    return row.locator("xpath=..").inner_text()


def energy_kwh(page: Page) -> int:
    year = page.get_by_role("complementary", name="Tally").get_by_role("region", name="Year")
    expect(year.locator("[aria-busy=false]").first).to_be_visible()
    # Nothing in it is of before the last edit any more.
    expect(year.locator("[aria-busy=true]")).to_have_count(0)
    return int(re.sub(r"\D", "", tally_row(page, "To the meter")))


def test_from_a_tape_reading_to_a_checked_drawn_printed_design(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto("/")
    # The fresh copy is the newest change, so the first of its name.
    page.get_by_role("link", name="Juniper Bench", exact=True).first.click()

    # A tape reading is changed on the drawing; the plan and the checks follow.
    page.get_by_role("link", name=re.compile("^Survey")).click()
    for checked in ("Ridge", "Right rake", "Diagonal 1–3"):
        field = page.get_by_label(checked, exact=True)
        field.fill("")
        field.press("Enter")
    eave = page.get_by_label("Eave", exact=True)
    eave.fill("37'")
    expect(page.get_by_text("37' 0\" = 11.28 m")).to_be_visible()
    eave.press("Enter")
    expect(page.get_by_label("Ridge", exact=True)).to_have_attribute("placeholder", "37' 0\"")
    broken = page.get_by_role("button", name=re.compile("Keeps its distances"))
    expect(broken).to_contain_text("limit passed")
    expect(
        page.get_by_role("link", name=re.compile("^Array")).get_by_role("img")
    ).to_have_accessible_name("a Stop limit is broken")

    # The Tally's own way out fills the roof again.
    before = energy_kwh(page)
    broken.click()
    page.get_by_role("button", name="Fill again").click()
    expect(broken).to_have_count(0)

    # Array: two fills with counts; one module is taken off on the drawing.
    page.get_by_role("link", name=re.compile("^Array")).click()
    portrait = page.get_by_role("region", name="Portrait fill").first
    landscape = page.get_by_role("region", name="Landscape fill").first
    expect(portrait).to_contain_text(re.compile(r"\d+.*proven", re.DOTALL))
    expect(landscape).to_contain_text(re.compile(r"\d+", re.DOTALL))
    page.keyboard.press("l")
    expect(landscape).to_contain_text("On the roof now")
    page.keyboard.press("p")
    expect(portrait).to_contain_text("On the roof now")
    count = page.get_by_role("checkbox", name=re.compile("^Module")).count()
    page.get_by_role("checkbox", name="Module 3", exact=True).click()
    expect(page.get_by_role("checkbox", name="Module 3", exact=True)).not_to_be_checked()
    expect(page.get_by_text(f"{count - 1} of {count} places taken")).to_be_visible()
    assert energy_kwh(page) < before

    # Strings: another inverter, then one module too many in series and the way back.
    page.get_by_role("link", name=re.compile("^Strings")).click()
    page.get_by_role("combobox", name="Inverter").click()
    page.get_by_role("option", name="Sample inverter 6.0 kW, two trackers", exact=True).click()
    expect(page.get_by_text("/ 6.00 kW")).to_be_visible()
    expect(page.get_by_label("Tracker 1", exact=True)).to_contain_text("modules in series")
    for _ in range(3):
        page.get_by_role("button", name="One more in series").click()
    cold = page.get_by_role("button", name="Cold Voc string A")
    expect(cold).to_contain_text("Stop: limit passed")
    cold.click()
    expect(page.get_by_text("n · Voc · (1 + β · (Tmin − 25))")).to_be_visible()
    page.get_by_role("button", name="Make it 14").click()
    expect(cold).not_to_contain_text("limit passed")

    # Loading: the clipped day; the limit is dragged and the year's loss follows.
    page.get_by_role("link", name=re.compile("^Loading")).click()
    expect(page.get_by_role("button", name=re.compile("Most clipped day"))).to_have_attribute(
        "aria-pressed", "true"
    )
    limit = page.get_by_role("slider", name="AC limit to try")
    expect(limit).to_have_attribute("aria-valuetext", "6.00 kW")
    at = still_box(limit)
    middle = (at["x"] + at["width"] / 2, at["y"] + at["height"] / 2)
    page.mouse.move(*middle)
    page.mouse.down()
    page.mouse.move(middle[0], middle[1] - 60, steps=4)
    page.mouse.up()
    expect(limit).not_to_have_attribute("aria-valuetext", "6.00 kW")
    page.get_by_role("button", name="Back to 6.00 kW").click()
    page.get_by_role("button", name="As table", exact=True).click()
    expect(page.get_by_role("dialog").get_by_role("row")).to_have_count(25)
    page.keyboard.press("Escape")

    # Sheets: the plan, the sums and the marks; what breaks may take a second page.
    page.get_by_role("link", name=re.compile("^Sheets")).click()
    expect(page.get_by_text(re.compile("kWh a year at the meter"))).to_be_visible()
    address = page.get_by_role("link", name="Design sheet (PDF)").get_attribute("href")
    assert address is not None
    pdf = PdfReader(BytesIO(page.request.get(address).body()))
    assert len(pdf.pages) <= 2
    text = pdf.pages[0].extract_text()
    assert f"Page 1 of {len(pdf.pages)}" in text
    assert "Stand-in weather" in text
    assert "37' 0" in text

    # Everything was saved as it was made: a reload shows it, undo goes on from there.
    page.reload()
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Redo")).to_be_enabled()
    assert complaints == []
