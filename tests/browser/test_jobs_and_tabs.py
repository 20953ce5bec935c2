"""Jobs, options, history, other tabs and a server that has gone."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.e2e


def test_create_rename_delete_and_undo(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Name of a new job").fill("Kiln Yard")
    page.get_by_role("button", name="New job").click()
    page.get_by_role("button", name="Kiln Yard", exact=True).click()
    page.get_by_label("Name of the job").fill("Kiln Yard North")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Kiln Yard North")).to_be_visible()
    expect(page.get_by_text("No modules yet: fill the roof in the Array step.")).to_be_visible()
    page.goto("/")
    do_with(page, "Kiln Yard North", "Delete")
    expect(page.get_by_role("link", name="Kiln Yard North")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Kiln Yard North")).to_be_visible()
    do_with(page, "Kiln Yard North", "Duplicate")
    expect(page.get_by_role("link", name="Kiln Yard North (copy)")).to_be_visible()


def do_with(page: Page, job: str, deed: str) -> None:
    """A deed of a job's card."""
    page.get_by_role("button", name=f"What to do with {job}", exact=True).click()
    page.get_by_role("menuitem", name=deed).click()


def test_jobs_are_found_sorted_put_away_and_begun_with_a_sample(
    page: Page, complaints: list[str]
) -> None:
    page.goto("/")
    page.get_by_role("button", name="Begin with a sample").click()
    page.get_by_role("menuitem", name=re.compile("^Mill Terrace")).click()
    expect(page.get_by_role("button", name="Mill Terrace", exact=True)).to_be_visible()
    page.goto("/")
    cards = page.get_by_role("listitem").filter(has=page.get_by_role("heading", level=3))
    # By its place, a northern inland valley, and by its name: as many as there are of it.
    page.get_by_label("Find a job").fill("inland valley")
    expect(cards.first).to_contain_text("Mill Terrace")
    page.get_by_label("Find a job").fill("mill terr")
    expect(cards.first).to_contain_text("northern inland valley")
    found = cards.count()
    assert found >= 2
    card = cards.first
    expect(card).to_contain_text("21 modules, 8.19 kW DC")
    expect(card).to_contain_text(re.compile(r"\d \d{3} kWh a year"))
    expect(card.get_by_role("list", name="Steps").get_by_role("listitem")).to_have_count(10)
    put_away = card.get_by_role("link").get_attribute("href")
    card.get_by_role("button").click()
    page.get_by_role("menuitem", name="Put into the archive").click()
    expect(cards).to_have_count(found - 1)
    page.get_by_role("button", name="Archive (1)").click()
    expect(cards).to_have_count(1)
    expect(cards.first.get_by_role("link")).to_have_attribute("href", put_away)
    cards.first.get_by_role("button").click()
    page.get_by_role("menuitem", name="Take out of the archive").click()
    expect(page.get_by_text("No job has")).to_be_visible()
    page.get_by_role("button", name="Archive (0)").click()
    expect(cards).to_have_count(found)
    page.get_by_label("Find a job").fill("")
    page.get_by_role("combobox", name="Order of the jobs").click()
    page.get_by_role("option", name="By name").click()
    names = page.get_by_role("heading", level=3).all_inner_texts()
    assert names[0] == min(names, key=str.casefold)
    assert complaints == []


def test_a_bad_job_file_is_told_and_a_good_one_opens(page: Page, job: str, tmp_path: Path) -> None:
    page.goto("/")
    bad = tmp_path / "roof.ridgetally.json"
    bad.write_text('{"format": "ridge-tally-job", "job": {"version": 1}}', "utf-8")
    page.get_by_label("Job file").set_input_files(bad)
    expect(page.get_by_text("roof.ridgetally.json at job.name").first).to_be_visible()
    good = tmp_path / "good.ridgetally.json"
    good.write_bytes(page.request.get(f"/api{job}/file").body())
    page.get_by_label("Job file").set_input_files(good)
    page.get_by_role("link", name=re.compile("^Survey")).click()
    expect(page.get_by_label("Eave", exact=True)).to_have_value("40'")


def test_a_second_tab_is_told_and_both_versions_are_kept(page: Page, job: str) -> None:
    other = page.context.new_page()
    for tab in (page, other):
        tab.goto(f"{job}/a/survey")
        expect(tab.get_by_label("Eave", exact=True)).to_be_visible()
    first = page.get_by_label("Eave", exact=True)
    first.fill("41'")
    first.press("Enter")
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    late = other.get_by_label("Eave", exact=True)
    late.fill("39'")
    late.press("Enter")
    expect(other.get_by_text("Your version is kept as the job").first).to_be_visible()
    other.get_by_role("link", name="Open my version").click()
    expect(other).to_have_url(re.compile("other-tab"))
    other.get_by_role("link", name=re.compile("^Survey")).click()
    expect(other.get_by_label("Eave", exact=True)).to_have_value("39'")
    page.reload()
    expect(page.get_by_label("Eave", exact=True)).to_have_value("41'")


def test_options_are_copied_and_compared(page: Page, job: str) -> None:
    page.goto(f"{job}/a/array")
    page.get_by_role("button", name="New option from A").click()
    expect(page).to_have_url(re.compile(f"{job}/c/array"))
    page.get_by_role("button", name="copy of A").click()
    page.get_by_label("Name of the option").fill("one fewer")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="one fewer")).to_be_visible()
    page.get_by_role("checkbox", name="Module 1", exact=True).click()
    page.get_by_role("combobox", name="Compare with option").click()
    page.get_by_role("option", name="A", exact=True).click()
    expect(page.get_by_role("region", name="Count")).to_contain_text("−1")
    expect(page.get_by_role("region", name="Year", exact=True)).to_contain_text(
        re.compile("kWh−\\d+")
    )


def test_undo_and_redo_by_keyboard_without_end(page: Page, job: str) -> None:
    page.goto(f"{job}/a/array")
    counter = page.get_by_text(re.compile(r"\d+ of 28 places taken"))
    for number in (1, 2, 3):
        page.get_by_role("checkbox", name=f"Module {number}", exact=True).click()
    expect(counter).to_contain_text("25 of 28")
    for left in (26, 27, 28):
        page.keyboard.press("Control+z")
        expect(counter).to_contain_text(f"{left} of 28")
    page.keyboard.press("Control+Shift+z")
    expect(counter).to_contain_text("27 of 28")


def test_a_link_that_drops_keeps_what_was_typed_and_sends_it_when_it_is_back(
    page: Page, job: str
) -> None:
    page.goto(f"{job}/a/survey")
    eave = page.get_by_label("Eave", exact=True)
    eave.fill("41'")
    eave.press("Enter")
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    page.route("**/api/**", lambda route: route.abort())
    eave.fill("42'")
    eave.press("Enter")
    expect(page.get_by_role("banner").get_by_role("status")).to_contain_text(
        "No answer: your change waits"
    )
    expect(eave).to_have_value("42'")
    page.unroute("**/api/**")
    expect(page.get_by_role("banner").get_by_role("status")).to_contain_text("Saved")
    expect(page.get_by_role("region", name="Tape readings")).to_contain_text("42'")


def test_an_unknown_job_says_so_and_leads_back(page: Page) -> None:
    page.goto("/jobs/nowhere/a/survey")
    expect(page.get_by_role("alert")).to_contain_text("There is no job “nowhere” here")
    page.get_by_role("link", name="All jobs").click()
    expect(page.get_by_label("Name of a new job")).to_be_visible()


def test_a_job_begins_on_the_ground_and_a_small_inverter_names_the_nearest_that_serves(
    page: Page, job: str
) -> None:
    page.goto("/")
    page.get_by_label("Name of a new job").fill("Field")
    page.get_by_role("button", name="Ground", exact=True).click()
    page.get_by_role("button", name="New job", exact=True).click()
    expect(page.get_by_text("Climate guessed from a place nobody has given")).to_be_visible()
    page.get_by_role("link", name=re.compile("^Survey")).click()
    planes = page.get_by_role("group", name="Roof planes")
    expect(planes.get_by_role("button", name="Ground area 1")).to_be_visible()
    shelf = page.request.get("/api/shelf").json()["inverters"]
    small = next(i for i in shelf if i["p_ac_w"] == 3000 and len(i["trackers"]) == 1)
    at = f"/api{job}"
    opened = page.request.get(at).json()["found"]
    edit = {"kind": "choose-inverter", "option_id": "a", "inverter_id": small["id"]}
    page.request.post(
        f"{at}/edits", data={"parent": opened["revision"], "author": "t", "edit": edit}
    )
    page.goto(f"{job}/a/strings")
    tally = page.get_by_role("complementary", name="Tally")
    said = tally.get_by_role("alert").filter(has_text="No plan strings all modules")
    expect(said).to_contain_text(re.compile(r"the inverter takes 1\.\s*Nearest that does: "))
    said.get_by_role("button", name="Use it").click()
    expect(said).to_have_count(0)
    expect(tally).not_to_contain_text("not strung")
