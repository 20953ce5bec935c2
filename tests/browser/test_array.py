"""Array as a crew's planner uses it: layouts compared, modules moved, exceptions, one more."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser import still_box
from jobs import SHELF
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.formats.job_file import write_job

pytestmark = pytest.mark.e2e


def module(page: Page, number: int):
    return page.get_by_role("checkbox", name=re.compile(rf"^Module {number}(, held)?$"))


def taken(page: Page, count: int, of: int | None = None) -> None:
    expect(page.get_by_text(f"{count} of {of or count} places taken")).to_be_visible()


def open_array(page: Page, job: str) -> None:
    page.goto(f"{job}/a/array")
    expect(page.get_by_role("region", name="Portrait fill")).to_be_visible()
    expect(page.get_by_text("To the meter", exact=True)).to_be_visible()


def drag(page: Page, number: int, right_px: float, down_px: float) -> None:
    box = still_box(module(page, number))
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + right_px / 2, y + down_px / 2, steps=3)
    page.mouse.move(x + right_px, y + down_px, steps=3)
    page.mouse.up()


def test_layouts_are_compared_stepped_through_and_laid(page: Page, job: str) -> None:
    open_array(page, job)
    mixed = page.get_by_role("region", name="Mixed rows fill")
    expect(mixed).to_contain_text("29")
    expect(mixed).to_contain_text("proven")
    expect(mixed).to_contain_text(re.compile(r"11\.75 kW, about 2\d \d{3} kWh"))
    expect(page.get_by_role("region", name="Portrait fill")).to_contain_text("On the roof now")
    page.keyboard.press(",")
    expect(mixed).to_contain_text("On the roof now")
    taken(page, 29)
    page.keyboard.press("l")
    taken(page, 27)
    page.get_by_role("region", name="Portrait fill").get_by_role("button").click()
    taken(page, 28)
    page.get_by_role("button", name="Undo").click()
    taken(page, 27)


def test_exactly_so_many_are_asked_and_laid(page: Page, job: str) -> None:
    open_array(page, job)
    page.get_by_role("tab", name="Exact count").click()
    field = page.get_by_label("Modules on this plane")
    field.fill("99")
    field.press("Enter")
    expect(page.get_by_text("Modules wanted reads 99")).to_be_visible()
    field.fill("20")
    field.press("Enter")
    best = page.get_by_role("region", name=re.compile("fill, ")).first
    expect(best).to_contain_text("2 rows of 10")
    page.get_by_role("combobox", name="Arranged").click()
    page.get_by_role("option", name="in one row").click()
    expect(page.get_by_text("Modules wanted in one row reads 20")).to_be_visible()
    field.fill("16")
    field.press("Enter")
    page.get_by_role("combobox", name="Arranged").click()
    page.get_by_role("option", name="in one rectangle").click()
    expect(best).to_contain_text("2 rows of 8")
    best.get_by_role("button", name="Use this fill").click()
    taken(page, 16)


def test_a_module_dragged_too_close_says_why_and_is_kept_with_a_reason(
    page: Page, job: str, complaints: list[str]
) -> None:
    open_array(page, job)
    drag(page, 1, -17, 0)
    note = page.get_by_role("status").filter(has_text="too close to left rake")
    expect(note).to_contain_text('which wants 12"')
    broken = page.get_by_role("button", name=re.compile("Keeps its distances"))
    expect(broken).to_contain_text("limit passed")
    page.get_by_role("button", name="Keep anyway").click()
    page.get_by_label("Why it is kept").fill("agreed with the owner")
    page.keyboard.press("Enter")
    expect(note).to_contain_text("kept: agreed with the owner")
    expect(broken).to_have_count(0)
    page.get_by_role("link", name=re.compile("^Sheets")).click()
    expect(page.get_by_role("article").get_by_text("agreed with the owner")).to_be_visible()
    assert complaints == []


def settled(page: Page) -> None:
    """Wait until what was saved is what is drawn: both come in one go."""
    expect(page.get_by_role("status").filter(has_text=re.compile("^Saved"))).to_be_visible()


def test_a_dragged_module_catches_its_row_and_one_on_another_goes_back(
    page: Page, job: str
) -> None:
    open_array(page, job)
    # In focus as after a drag, so that its ring is measured each time.
    module(page, 25).focus()
    before = still_box(module(page, 25))
    undo = page.get_by_role("button", name="Undo")
    with page.expect_response("**/edits"):
        drag(page, 25, 36, 22)
    expect(undo).to_be_enabled()
    settled(page)
    off = still_box(module(page, 25))
    # Back to within two pixels of its column and row: they catch it.
    with page.expect_response("**/edits"):
        drag(page, 25, before["x"] - off["x"] + 2, before["y"] - off["y"] + 2)
    settled(page)
    after = still_box(module(page, 25))
    assert after["x"] == pytest.approx(before["x"], abs=0.5)
    assert after["y"] == pytest.approx(before["y"], abs=0.5)
    drag(page, 25, 0, 90)
    expect(page.get_by_text("it would lie on another module").first).to_be_visible()
    expect(module(page, 25)).to_be_visible()
    back = still_box(module(page, 25))
    assert abs(back["y"] - after["y"]) < 1


def test_a_box_holds_modules_that_are_turned_and_removed(page: Page, job: str) -> None:
    open_array(page, job)
    first, last = still_box(module(page, 21)), still_box(module(page, 25))
    page.mouse.move(first["x"] - 8, first["y"] - 12)
    page.mouse.down()
    page.mouse.move(last["x"] + 20, last["y"] + 30, steps=5)
    page.mouse.up()
    bar = page.get_by_role("group", name="Held modules")
    expect(bar).to_contain_text("5 held")
    bar.get_by_role("button", name="Remove").click()
    taken(page, 23)
    page.get_by_role("button", name="Undo").click()
    taken(page, 28)


def test_by_keyboard_alone_a_module_is_held_nudged_split_turned_and_added(
    page: Page, job: str
) -> None:
    open_array(page, job)
    module(page, 24).focus()
    page.keyboard.press("h")
    expect(page.get_by_role("group", name="Held modules")).to_contain_text("1 held")
    page.keyboard.press("Delete")
    taken(page, 27)
    # What stands right of the hole is drawn to a gap of 300 mm.
    module(page, 24).focus()
    page.keyboard.press("h")
    page.keyboard.press("g")
    page.keyboard.type("300mm")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Gap to the left")).to_have_count(0)
    expect(page.get_by_role("button", name=re.compile("Keeps its distances"))).to_have_count(0)
    module(page, 24).focus()
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("Shift+ArrowLeft")
    page.keyboard.press("Escape")
    page.keyboard.press("n")
    module(page, 24).focus()
    page.keyboard.press("Enter")
    taken(page, 28)


def test_why_not_one_more_is_told_drawn_and_followed(page: Page, job: str) -> None:
    open_array(page, job)
    page.keyboard.press("w")
    expect(page.get_by_text("5 in a row between left rake and Chimney")).to_be_visible()
    expect(page.locator("svg text").filter(has_text='13 7/8" short')).to_be_visible()
    way = page.get_by_role("listitem").filter(has_text="Lay them in mixed rows")
    way.get_by_role("button", name="Do it").click()
    taken(page, 29)


def test_a_set_of_strips_with_a_path_is_applied_edited_and_filled(page: Page, job: str) -> None:
    open_array(page, job)
    page.get_by_role("tab", name="Setbacks").click()
    page.get_by_label("Set of free strips").click()
    page.get_by_role("option", name="US fire access").click()
    expect(page.get_by_label("Path up")).to_have_value("3' 0\"")
    expect(page.get_by_text("Confirm with the local authority")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("Narrow ridge strip"))).to_contain_text(
        "limit passed"
    )
    path = page.get_by_role("region", name="Portrait fill").first
    expect(path).to_contain_text("path at left rake")
    page.get_by_label("Path up").fill("")
    page.keyboard.press("Enter")
    expect(path).not_to_contain_text("path at")


@pytest.mark.parametrize("typed", ["-1", "wide"])
def test_a_gap_that_cannot_be_is_told_at_its_field(page: Page, job: str, typed: str) -> None:
    open_array(page, job)
    field = page.get_by_label("Gap in row")
    field.fill(typed)
    field.press("Enter")
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("Gap in a row")
    taken(page, 28)


def test_lagoon_road_is_squeezed_and_proven_in_the_background(page: Page) -> None:
    answer = page.request.post("/api/jobs/import", data=write_job(lagoon_road(SHELF)))
    open_array(page, f"/jobs/{answer.json()['found']['job_id']}")
    landscape = page.get_by_role("region", name="Landscape fill").filter(has_text="one column grid")
    expect(landscape).to_contain_text("16")
    expect(landscape).to_contain_text("proven")
    page.get_by_label("Also squeeze in without rows").check()
    squeezed = page.get_by_role("region", name="Squeezed fill")
    expect(squeezed).to_contain_text(re.compile(r"2\d, at most 2\d"))
    squeezed.get_by_role("button").click()
    expect(squeezed).to_contain_text("On the roof now")
