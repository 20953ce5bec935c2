"""Sun as an estimator uses it: the worst tree by name, trimmed, and every figure follows."""

import re
from importlib.resources import files

import pytest
from playwright.sync_api import Page, expect

from jobs import FULL
from ridge_tally.formats.job_file import write_job

pytestmark = pytest.mark.e2e
# A real typical year that travels with the reference library.
CAROLINA = files("pvlib").joinpath("data", "723170TYA.CSV").read_bytes()


@pytest.fixture
def full(page: Page) -> str:
    answer = page.request.post("/api/jobs/import", data=write_job(FULL))
    return f"/jobs/{answer.json()['found']['job_id']}"


def test_the_worst_tree_is_trimmed_and_plan_list_and_tally_follow(
    page: Page, full: str, complaints: list[str]
) -> None:
    page.goto(f"{full}/a/sun")
    worst = page.get_by_role("region", name="Shade by source").get_by_role("listitem").first
    expect(worst).to_contain_text(re.compile(r"Cottonwood.*1 \d{3}"))
    first = page.get_by_role("button", name=re.compile("^Module 1: shade takes"))
    expect(first).to_have_accessible_name("Module 1: shade takes 3.2 %")
    row = page.get_by_role("complementary", name="Tally").get_by_text("Shade, of the light")
    expect(row.locator("xpath=..")).to_contain_text("−2.0 %")
    worst.get_by_role("button", name="Trim Cottonwood").click()
    expect(page.get_by_text(re.compile(r"gives 5\d\d kWh of light"))).to_be_visible()
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
    page.goto(f"/jobs/{answer.json()['found']['job_id']}/a/sun")
    expect(page.get_by_text("fill a roof in the Array step")).to_be_visible()


def test_the_sun_path_tells_days_and_what_stands_before_the_sky(
    page: Page, full: str, complaints: list[str]
) -> None:
    page.goto(f"{full}/a/sun")
    expect(page.get_by_role("region", name="Shade by source")).to_be_visible()
    page.keyboard.press("2")
    chart = page.get_by_role("group", name=re.compile("Sun paths"))
    expect(chart.locator("text").filter(has_text="Cottonwood")).to_be_visible()
    expect(chart.locator("text").filter(has_text="21 Dec")).to_be_visible()
    # By hand: noon at the winter solstice stands 90 - 36.2 - 23.44 = 30.4 degrees high.
    expect(page.get_by_role("row").filter(has_text="21 Dec")).to_contain_text("30.4°")
    expect(page.get_by_text("Seen from the middle of South roof")).to_be_visible()
    # The day of the other views is drawn too, and its sun: 10:00 on 21 December by hand, hour
    # angle -30° less 22 minutes of clock: about 150° and 24°.
    expect(page.get_by_text("the sun at 10:00: 150°, 23.9° high")).to_be_visible()
    page.keyboard.press("v")
    expect(page.get_by_role("group", name="Sun paths from above, north up")).to_be_visible()
    page.keyboard.press("1")
    expect(page.get_by_role("region", name="Shade by source")).to_be_visible()
    assert complaints == []


def open_view(page: Page, full: str, key: str) -> None:
    """The Sun step at the view behind a key; keys work once the step is there."""
    page.goto(f"{full}/a/sun")
    expect(page.get_by_role("region", name="Shade by source")).to_be_visible()
    page.keyboard.press(key)


def test_a_day_is_scrubbed_by_keyboard_and_played_and_a_module_s_day_is_told(
    page: Page, full: str, complaints: list[str]
) -> None:
    open_view(page, full, "3")
    site = page.get_by_role("group", name=re.compile("Shadows on the site, 21 Dec at 10:00"))
    expect(site).to_be_visible()
    slider = page.get_by_role("slider", name="Time of day")
    slider.focus()
    for _ in range(22):
        slider.press("ArrowRight")
    expect(slider).to_have_attribute("aria-valuetext", "15:30")
    # The bare crown lets 60 % through; by hand in the test of the service.
    module = page.get_by_role("button", name=re.compile("^Module 1: "))
    expect(module).to_have_accessible_name(re.compile("6[0-9] % of the beam"))
    module.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Beam, % through the day: Module 1")).to_be_visible()
    page.get_by_role("button", name="21 Jun", exact=True).click()
    expect(page.get_by_role("group", name=re.compile("21 Jun at 15:30"))).to_be_visible()
    page.get_by_role("button", name="Play the day").click()
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    expect(page.get_by_role("button", name="Play the day")).to_be_visible()
    expect(slider).to_have_attribute("aria-valuetext", re.compile("^19:"))
    assert complaints == []


def test_a_culprit_is_picked_on_the_plan_and_trimmed_there(page: Page, full: str) -> None:
    open_view(page, full, "4")
    pole = page.get_by_role("button", name=re.compile(r"^4, Utility pole: \d+ kWh a year"))
    pole.focus()
    page.keyboard.press("Enter")
    expect(pole).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_text(re.compile("Utility pole takes .* most of all in"))).to_be_visible()
    first = page.get_by_role("button", name=re.compile(r"^1, Cottonwood: 1 \d{3} kWh"))
    expect(first).to_be_visible()
    page.get_by_role("button", name="Trim Cottonwood").click()
    page.get_by_role("button", name="Trim it").click()
    expect(
        page.get_by_role("button", name=re.compile(r"^[12], Cottonwood: [5-9]\d{2} kWh"))
    ).to_be_visible()
    expect(page.get_by_role("region", name="The worst three")).to_contain_text(
        re.compile("Left off, the array would get")
    )


def test_a_weather_file_is_read_asked_about_used_and_given_back(
    page: Page, full: str, complaints: list[str]
) -> None:
    open_view(page, full, "5")
    choose = page.get_by_label("Choose a weather file, file")
    expect(page.get_by_text("Stand-in", exact=True)).to_be_visible()
    choose.set_input_files(
        {"name": "half.csv", "mimeType": "text/csv", "buffer": CAROLINA[:90_000]}
    )
    expect(page.get_by_role("alert").filter(has_text="cut short")).to_contain_text("stays")
    choose.set_input_files({"name": "typical.csv", "mimeType": "text/csv", "buffer": CAROLINA})
    card = page.get_by_role("region", name="typical.csv")
    expect(card).to_contain_text("read, not yet used")
    expect(card).to_contain_text("30 min before their label")
    page.get_by_role("button", name=re.compile(r"Use it, though 2 \d{3} km away")).click()
    expect(card).to_contain_text("in use")
    expect(
        page.get_by_role("complementary", name="Tally").get_by_text("Stand-in weather")
    ).to_have_count(0)
    page.get_by_role("button", name="Back to the stand-in").click()
    expect(page.get_by_text("Stand-in", exact=True)).to_be_visible()
    # The browser tells of the refused file; nothing else is wrong.
    assert all("422" in told for told in complaints)


def test_a_month_is_typed_over_and_snow_is_brushed_off(page: Page, full: str) -> None:
    open_view(page, full, "5")
    snow = page.get_by_label("Snow falls, Jan")
    snow.fill("60")
    snow.press("Enter")
    taken = page.get_by_role("row").filter(has_text="Snow takes")
    expect(taken).to_contain_text(re.compile(r"−[1-9]\d{2}"))
    expect(page.get_by_label("Ground throws back, Jan")).to_have_value("60")
    page.get_by_role("checkbox", name="Snow is brushed off South roof").click()
    expect(taken).to_contain_text("0")
    expect(taken).not_to_contain_text("−")
    dirt = page.get_by_label("Soiling, Jun")
    dirt.fill("200")
    dirt.press("Enter")
    expect(page.get_by_text("Soiling, June in per cent reads 200")).to_be_visible()
    dirt.press("Escape")
    page.get_by_role("button", name="Back to usual").click()
    expect(page.get_by_label("Ground throws back, Jan")).to_have_value("20")


def test_every_angle_and_the_array_split_in_two(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/sun")
    page.get_by_role("button", name="Angles").click()
    angles = page.get_by_role("region", name="Tilt and azimuth")
    expect(angles.get_by_role("group", name="Best at 35° of tilt facing 180°")).to_be_visible()
    expect(angles).to_contain_text("South roof, 28 modules at 27° facing 176°")
    split = page.get_by_role("region", name="The array split")
    expect(split).to_contain_text("All to the equator gives most in the year.")
    loading = split.get_by_label("Loading of the split array")
    loading.fill("2.2")
    loading.press("Enter")
    tilt = split.get_by_label("Tilt of the split array")
    tilt.fill("40")
    tilt.press("Enter")
    expect(split).to_contain_text(re.compile(r"Turned \d+° each way it gives most in the year"))
    angles.get_by_role("combobox", name="Weighed by").click()
    page.get_by_role("option", name="By the winter half").click()
    expect(angles.get_by_role("group", name=re.compile("^Best at (50|55|60)°"))).to_be_visible()
    assert complaints == []
