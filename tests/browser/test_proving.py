"""Proving, as somebody on a roof does it, at a desk's width and a phone's."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

DESK, PHONE = {"width": 1280, "height": 800}, {"width": 400, "height": 800}


def read_by_meter(page: Page, what: str) -> None:
    """Take a reading with a simulated meter and write it down."""
    taken = page.get_by_role("list", name="Trail").get_by_role("listitem")
    before = taken.count()
    page.get_by_label("What you read").select_option(label=what)
    page.get_by_role("button", name="Simulated meter").click()
    write = page.get_by_role("button", name="Write down")
    expect(write).to_be_enabled()
    write.click()
    expect(taken).to_have_count(before + 1)


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_the_two_faults_of_tollgate_are_found_with_simulated_meters(
    page: Page, size: dict[str, int]
) -> None:
    page.set_viewport_size(size)  # type: ignore[arg-type]
    page.goto("/jobs/tollgate/a/proving?view=fault")
    page.get_by_role("button", name="New search").click()
    expect(page.get_by_role("list", name="Trail")).to_have_count(0)
    expect(page.get_by_label("What you read")).to_be_visible()
    for what in (
        "A: voltage at work", "B: voltage at work", "C: power of the string",
        "West roof: a look at the plane",
    ):  # fmt: skip
        read_by_meter(page, what)
    point = page.get_by_role("region", name="What they point to")
    expect(point.get_by_role("status")).to_have_text(
        re.compile("threaded into the other string and West roof: dirt on a whole plane")
    )
    for button in page.get_by_role("button", name=re.compile("Write down|Simulated meter")).all():
        box = button.bounding_box()
        assert box is not None
        assert box["height"] >= 44
    page.get_by_text("Never do these").click()
    expect(point).to_contain_text("opening a DC connector")


def test_the_same_readings_of_two_roofs_are_normal_in_the_morning_and_odd_at_noon(
    page: Page,
) -> None:
    page.goto("/jobs/mill-terrace/a/proving")
    page.get_by_label("South-east roof: power of the array, read").fill("2150")
    page.get_by_label("South-west roof: power of the array, read").fill("770")
    page.get_by_role("textbox", name="Time").fill("8:30")
    verdict = page.get_by_role("status", name="Verdict")
    expect(verdict).to_contain_text("Normal for this moment")
    page.get_by_role("textbox", name="Time").fill("12:00")
    expect(verdict).to_contain_text("South-west roof too little: not normal")
    page.get_by_label("South-west roof: power of the array, read").fill("much")
    expect(page.get_by_role("alert").filter(has_text="South-west roof: power")).to_contain_text(
        "“much” was not understood"
    )
    expect(page.get_by_label("South-west roof: power of the array, read")).to_have_value("much")


def test_stickers_and_commissioning_on_a_phone(page: Page) -> None:
    page.set_viewport_size(PHONE)  # type: ignore[arg-type]
    page.goto("/jobs/tollgate/a/proving?view=records")
    stickers = page.get_by_role("region", name="Serial numbers, Modules")
    stickers.get_by_label("scan, type, or paste many").fill("TG1001\nTG1002\nTG1002")
    stickers.get_by_role("button", name="Stick", exact=True).click()
    expect(stickers).to_contain_text("3 of 30 stickers")
    expect(stickers).to_contain_text("“TG1002” is there twice")
    for slot in page.get_by_role("button", name=re.compile("^Fine: ")).all()[:7]:
        slot.click()
        expect(slot).to_be_visible()
    expect(page.locator("summary", has_text="Looked at")).to_contain_text("7 of 7")
    page.goto("/jobs/tollgate/a/proving?view=tests")
    expect(page.get_by_text("Next: bond to earth")).to_be_visible()
    page.get_by_label("frame to electrode, Ω").fill("0.3")
    page.get_by_role("button", name="Write down").click()
    for step in ("Polarity", "Open voltage"):
        page.get_by_role("button", name=re.compile(rf"\d\. {step}")).scroll_into_view_if_needed()
        expect(page.get_by_text(f"Next: {step.lower()}")).to_be_visible()
        page.get_by_role("button", name="Read with a simulated meter").click()
        expect(page.get_by_text("simulated: marked as practice")).to_be_visible()
        page.get_by_role("button", name="Write down").click()
    expect(page.get_by_text(re.compile("Stop: open voltage failed"))).to_be_visible()
    page.get_by_role("button", name=re.compile(r"\d\. Open voltage")).click()
    expect(page.get_by_text("one module short")).to_be_visible()


def test_a_practice_is_read_judged_and_debriefed(page: Page) -> None:
    page.goto("/jobs/tollgate/a/proving?view=yard")
    page.get_by_label("System number").fill("0")
    page.get_by_role("button", name="Begin").click()
    page.get_by_label("Take a reading").select_option("v_operating_v|A")
    page.get_by_role("button", name="Read", exact=True).click()
    expect(page.get_by_text(re.compile("1 readings"))).to_be_visible()
    page.get_by_label("What is wrong").select_option("healthy")
    page.get_by_role("button", name="Give it").click()
    debrief = page.get_by_role("region", name="Verdict and debrief")
    expect(debrief).to_contain_text("not what was planted")
    expect(debrief).to_contain_text("a module threaded into the other string")
    expect(debrief).to_contain_text("An efficient search")


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_a_gateways_log_is_judged_by_month_and_day_and_reported(
    page: Page, size: dict[str, int], tmp_path: Path
) -> None:
    page.set_viewport_size(size)  # type: ignore[arg-type]
    page.goto("/jobs/tollgate/a/proving?view=output")
    page.get_by_role("button", name="Ask the simulated gateway").click()
    months = page.get_by_role("region", name="Months")
    expect(months.get_by_role("row", name=re.compile("^Jul 2026"))).to_be_visible()
    signs = page.get_by_role("region", name="Signs")
    expect(signs).to_contain_text("Sinks slowly")
    signs.get_by_role("button", name=re.compile("^Washed clean: show")).click()
    course = page.get_by_role("region", name="Course of the day")
    expect(course).to_contain_text("1 Jul 2026")
    expect(course).to_contain_text(re.compile(r"\d kWh made, .* due"))
    page.locator("summary", has_text="Put right in the file").click()
    expect(page.get_by_text(re.compile("its clock is 1 h late by the sun"))).to_be_visible()
    report = page.get_by_role("link", name="Report (pdf)").get_attribute("href")
    answer = page.request.get(str(report))
    assert (answer.status, answer.body()[:5]) == (200, b"%PDF-")
    # What is no log is refused in words, and the one that is there stays.
    wrong = tmp_path / "wrong.csv"
    wrong.write_text("Time,Power kW\nsoon,3\nlater,4\n", "utf-8")
    page.get_by_label("Gateway’s log, file").set_input_files(wrong)
    expect(page.get_by_role("alert")).to_contain_text("no row begins with a day")
    expect(months).to_be_visible()
    page.get_by_role("button", name="Take this log off the job").click()
    expect(months).to_have_count(0)


def test_a_testers_file_is_read_and_told_in_a_report(page: Page, tmp_path: Path) -> None:
    page.goto("/jobs/tollgate/a/proving?view=tests")
    made = tmp_path / "tester.csv"
    made.write_text(
        "String;Voc (V);Isc (A);Riso (GOhm);Irradiance W/m²;Back °C\n"
        "PV-A;-401;9,1;1,2;870;38\nPV-Q;401;9,1;1,2;870;38\n", "utf-8"
    )  # fmt: skip
    page.get_by_label("Tester’s file, CSV, file").set_input_files(made)
    expect(page.get_by_role("alert")).to_contain_text("the job has no string “PV-Q”")
    made.write_text(made.read_text("utf-8").replace("PV-Q", "string B"), "utf-8")
    page.get_by_label("Tester’s file, CSV, file").set_input_files(made)
    polarity = page.get_by_role("listitem").filter(
        has=page.get_by_role("button", name="3. Polarity")
    )
    expect(polarity.get_by_text("failed", exact=True).first).to_be_visible()
    report = page.get_by_role("link", name="Report (pdf)").get_attribute("href")
    answer = page.request.get(str(report))
    assert (answer.status, answer.body()[:5]) == (200, b"%PDF-")
