"""Sun as an estimator uses it: the worst tree by name, trimmed, and every figure follows."""

import re

import pytest
from playwright.sync_api import Page, expect

from jobs import FULL
from ridge_tally.formats.job_file import write_job

pytestmark = pytest.mark.e2e


@pytest.fixture
def full(page: Page) -> str:
    answer = page.request.post("/api/jobs/import", data=write_job(FULL))
    return f"/jobs/{answer.json()['state']['job_id']}"


def test_the_worst_tree_is_trimmed_and_plan_list_and_tally_follow(
    page: Page, full: str, complaints: list[str]
) -> None:
    page.goto(f"{full}/a/sun")
    worst = page.get_by_role("region", name="Who takes the light").get_by_role("listitem").first
    expect(worst).to_contain_text(re.compile(r"Cottonwood.*1 \d{3}"))
    first = page.get_by_role("button", name=re.compile("^Module 1: shade takes"))
    expect(first).to_have_accessible_name("Module 1: shade takes 3.2 %")
    row = page.get_by_role("complementary", name="Tally").get_by_text("Shade, of the light")
    expect(row.locator("xpath=..")).to_contain_text("−2.0 %")
    worst.get_by_role("button", name="Trim Cottonwood").click()
    expect(page.get_by_text(re.compile(r"gives back 5\d\d kWh"))).to_be_visible()
    page.get_by_role("button", name="Trim it").click()
    expect(first).not_to_have_accessible_name("Module 1: shade takes 3.2 %")
    expect(worst).not_to_contain_text(re.compile(r"Cottonwood.*1 \d{3}"))
    expect(row.locator("xpath=..")).not_to_contain_text("−2.0 %")
    assert complaints == []


def test_months_are_stepped_through_and_a_module_chosen_by_keyboard(page: Page, full: str) -> None:
    page.goto(f"{full}/a/sun")
    module = page.get_by_role("button", name=re.compile("^Module 26: shade takes 8.2 %"))
    expect(module).to_be_visible()
    page.keyboard.press(".")
    expect(page.get_by_role("combobox", name="Time of year")).to_have_text("Jan")
    expect(module).to_have_count(0)
    page.keyboard.press("y")
    expect(module).to_be_visible()
    module.focus()
    page.keyboard.press("Enter")
    expect(module).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_text("Module 26, by month, %")).to_be_visible()


def test_a_length_that_is_none_is_told_beside_the_trim(page: Page, full: str) -> None:
    page.goto(f"{full}/a/sun")
    page.get_by_role("button", name="Trim Cottonwood").click()
    field = page.get_by_label("Lower Cottonwood by")
    field.fill("90 m")
    field.press("Enter")
    expect(page.get_by_text("Trimmed off Cottonwood, metres reads 90")).to_be_visible()


def test_no_module_laid_says_what_to_do_first(page: Page) -> None:
    answer = page.request.post("/api/jobs", data={"name": "Bare", "unit": "m"})
    page.goto(f"/jobs/{answer.json()['state']['job_id']}/a/sun")
    expect(page.get_by_text("fill a roof in the Array step")).to_be_visible()


def test_the_sun_path_tells_days_and_what_stands_before_the_sky(
    page: Page, full: str, complaints: list[str]
) -> None:
    page.goto(f"{full}/a/sun")
    expect(page.get_by_role("region", name="Who takes the light")).to_be_visible()
    page.keyboard.press("2")
    chart = page.get_by_role("img", name=re.compile("Sun paths"))
    expect(chart.locator("text").filter(has_text="Cottonwood")).to_be_visible()
    expect(chart.locator("text").filter(has_text="21 Dec")).to_be_visible()
    # By hand: noon at the winter solstice stands 90 - 36.2 - 23.44 = 30.4 degrees high.
    expect(page.get_by_role("row").filter(has_text="21 Dec")).to_contain_text("30.4°")
    expect(page.get_by_text("Seen from the middle of South roof")).to_be_visible()
    page.keyboard.press("1")
    expect(page.get_by_role("region", name="Who takes the light")).to_be_visible()
    assert complaints == []
