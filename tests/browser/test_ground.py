"""Ground areas and metal roofs as a crew's planner uses them, from the drawing to the calendar."""

import re

import pytest
from playwright.sync_api import Page, Response, expect

from browser import still_box
from jobs import SHELF
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.formats.job_file import write_job

pytestmark = pytest.mark.e2e


@pytest.fixture
def kiln(page: Page) -> str:
    """A fresh copy of Kiln Yard; its place in the app."""
    answer = page.request.post("/api/jobs/import", data=write_job(kiln_yard(SHELF)))
    return f"/jobs/{answer.json()['found']['job_id']}"


def commit(page: Page, label: str, typed: str) -> None:
    """Type over a figure and wait until this very text was answered."""
    field = page.get_by_role("textbox", name=label, exact=True)
    field.fill(typed)

    def mine(answer: Response) -> bool:
        return typed in (answer.request.post_data or "")

    with page.expect_response(mine):
        field.press("Enter")


def open_yard(page: Page, job: str) -> None:
    page.goto(f"{job}/a/array")
    page.get_by_role("button", name="Yard", exact=True).click()
    expect(page.get_by_text(re.compile("24 modules, 3 bays for later on 3 tables"))).to_be_visible()


def test_tables_are_spaced_lifted_and_their_bays_filled(
    page: Page, kiln: str, complaints: list[str]
) -> None:
    open_yard(page, kiln)
    expect(page.get_by_role("group", name=re.compile("Rows .* apart"))).to_be_visible()
    commit(page, "Row spacing", "0.5 m")
    expect(page.get_by_text("0.50 m level between rows")).to_be_visible()
    page.get_by_role("button", name="For the shortest day").click()
    expect(page.get_by_text(re.compile("24 modules, 3 bays"))).to_be_visible()
    commit(page, "Front clearance", "0.1")
    said = page.get_by_role("list", name="About this ground")
    expect(said).to_contain_text("Snow lies 0.20 m deep and the front edge is 0.10 m")
    commit(page, "Front clearance", "0.9")
    expect(said).to_have_count(0)
    page.get_by_role("button", name="Fill 3 bays").click()
    expect(page.get_by_text(re.compile("27 modules on 3 tables; 30 posts"))).to_be_visible()
    assert complaints == []
    commit(page, "Rows a table", "9")
    expect(page.get_by_text(re.compile("Module rows on a table reads 9"))).to_be_visible()
    commit(page, "Rows a table", "2")
    asked = page.get_by_role("alert").filter(has_text="all 27 places are laid anew")
    asked.get_by_role("button", name="Leave them").click()
    expect(page.get_by_text(re.compile("27 modules on 3 tables"))).to_be_visible()
    commit(page, "Rows a table", "2")
    asked.get_by_role("button", name="Lay anew").click()
    expect(page.get_by_text(re.compile("27 modules, 1 bays? for later on"))).to_be_visible()


def test_a_gap_is_asked_for_by_what_it_may_take(page: Page, kiln: str) -> None:
    open_yard(page, kiln)
    asked = page.get_by_role("textbox", name="Light rows may take")
    asked.fill("1 %")
    asked.press("Enter")
    space = page.get_by_role("button", name=re.compile(r"^Space \d"))
    metres = re.search(r"[\d.]+", space.inner_text())
    assert metres is not None
    space.click()
    expect(page.get_by_role("textbox", name="Row spacing", exact=True)).to_have_value(
        re.compile(rf"^{metres[0][:3]}")
    )


def test_the_seasons_are_told_and_put_into_a_calendar(page: Page, kiln: str) -> None:
    open_yard(page, kiln)
    page.get_by_role("tab", name="Seasonal tilt").click()
    expect(page.get_by_role("row", name=re.compile("^as it is"))).to_contain_text("30° all year")
    expect(page.get_by_role("row", name=re.compile("^best 2"))).to_contain_text("from")
    page.get_by_role("button", name="the order of the work").click()
    expect(page.get_by_role("listitem").filter(has_text="loosen").first).to_be_visible()
    page.get_by_role("button", name="Take 2 tilts a year").click()
    # Until the seasons are worked out anew the old row stands.
    now = page.get_by_role("row", name=re.compile("^as it is"))
    calendar = now.get_by_role("link", name="calendar")
    expect(page.get_by_text("Drawn at the steepest of 2 tilts")).to_be_visible()
    commit(page, "From day 1", "1 Apr")
    expect(page.get_by_text(re.compile("° from 1 Apr"))).to_be_visible()
    expect(calendar).to_have_attribute("href", re.compile("seasons.ics"))
    address = calendar.get_attribute("href")
    assert address is not None
    answer = page.request.get(address).text()
    assert answer.count("BEGIN:VEVENT") == 2
    assert "DTSTART;VALUE=DATE:20250401" in answer
    commit(page, "From day 1", "never")
    expect(page.get_by_text(re.compile("Day of the change: “never”"))).to_be_visible()


def test_a_ground_area_is_added_and_refuses_what_cannot_be(page: Page, job: str) -> None:
    page.goto(f"{job}/a/survey")
    page.get_by_role("button", name="Add a plane").click()
    page.get_by_role("menuitem", name="Ground area").click()
    commit(page, "Falls by", "5")
    commit(page, "Snow lies", "80 cm")
    expect(page.get_by_role("textbox", name="Snow lies")).to_have_value("80 cm")
    commit(page, "Falls by", "45")
    expect(page.get_by_text(re.compile("ground falls by in degrees reads 45"))).to_be_visible()


def test_a_trench_is_clicked_to_the_panel(page: Page, kiln: str) -> None:
    page.goto(f"{kiln}/a/survey")
    page.get_by_role("button", name="Site", exact=True).click()
    page.get_by_role("button", name="Service").click()
    page.get_by_role("menuitem", name="Trench from Yard to the panel").click()
    plan = page.get_by_role("group", name="Site plan, to scale, north up").or_(
        page.get_by_label("Site plan, to scale, north up")
    )
    box = still_box(plan.first)
    # Off to a corner of the plan: the trench grows by the way round.
    page.mouse.click(box["x"] + 60, box["y"] + box["height"] - 90)
    page.keyboard.press("Enter")
    expect(page.get_by_text("Saved").first).to_be_visible()
    open_yard(page, kiln)
    told = page.get_by_text(re.compile(r"; trench \d+\.\d+ m"))
    found = re.search(r"trench (\d+\.\d+) m", told.inner_text())
    assert found is not None
    # Straight from the nearest table it is under 12 m.
    assert float(found[1]) > 15


def test_a_carport_on_ribs_is_measured_laid_and_set(
    page: Page, kiln: str, complaints: list[str]
) -> None:
    page.goto(f"{kiln}/a/survey")
    page.get_by_role("button", name="Add a plane").click()
    page.get_by_role("menuitem", name="Carport, on posts").click()
    expect(page.get_by_role("button", name="Carport 1", exact=True).first).to_be_visible()
    for label, typed in (("Eave 1–2", "3.90"), ("Left rake", "5.20")):
        commit(page, label, typed)
    commit(page, "Azimuth, true", "186")
    page.get_by_role("tab", name="Structure").click()
    page.get_by_role("combobox", name="Covering").click()
    page.get_by_role("option", name="ribbed metal").click()
    for label, typed in (
        ("Ribs every", "353 mm"),
        ("First rib", "60 mm"),
        ("Cover width", "1058 mm"),
        ("Purlins every", "1.0 m"),
        ("First from eave", "0.1 m"),
    ):
        commit(page, label, typed)
    page.goto(f"{kiln}/a/array")
    page.get_by_role("button", name="Carport 1", exact=True).click()
    page.get_by_role("button", name=re.compile("^Lay 6")).click()
    page.get_by_role("tab", name="Brackets").click()
    expect(page.get_by_text("0 of 6 modules")).to_be_visible()
    page.get_by_role("button", name="Set rows on the lines").click()
    expect(page.get_by_text("6 of 6 modules")).to_be_visible()
    expect(page.get_by_text(re.compile("12 of 12 upright edges"))).to_be_visible()
    assert complaints == []
