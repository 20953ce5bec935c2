"""Build as a crew lead meets it: a system, wind and snow, a way out, a mount moved, the lists."""

import re
from io import BytesIO

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from jobs import FULL, unracked
from ridge_tally.formats.job_file import write_job

pytestmark = pytest.mark.e2e


def typed(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def test_from_a_layout_to_the_cut_list_without_leaving_the_drawing(
    page: Page, complaints: list[str]
) -> None:
    answer = page.request.post("/api/jobs/import", data=write_job(unracked(FULL)))
    page.goto(f"/jobs/{answer.json()['found']['job_id']}/a/build")
    expect(page.get_by_text("South roof: choose a mounting system.")).to_be_visible()
    page.get_by_role("combobox", name="Mounting system").click()
    page.get_by_role("option", name="Sample flashed foot, two rails", exact=True).click()
    expect(page.get_by_text("wind and ground snow not known")).to_be_visible()
    typed(page, "Wind", "115 mph")
    typed(page, "Ground snow", "30 psf")
    # The hole is named, and a way out is one press.
    expect(
        page.get_by_text(re.compile("at the left end the nearest rafter is")).first
    ).to_be_visible()
    tally = page.get_by_role("complementary", name="Tally")
    expect(tally.get_by_text("Rails without mounts")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Take it: Let rail ends run on")).click()
    mounts = page.get_by_role("group", name="Rails and mounts on South roof").get_by_role(
        "button", name=re.compile("^Mount ")
    )
    expect(mounts).to_have_count(86)
    expect(tally.get_by_text("Span between mounts")).to_be_visible()

    # One in hand goes to the next rafter by the arrows, is held there, and is let go again.
    mount = page.get_by_role("button", name=re.compile("rail B, rafter 5"))
    mount.focus()
    mount.press("Enter")
    mount.press("ArrowRight")
    held = page.get_by_role("button", name=re.compile("rail B, rafter 6.*held in place"))
    expect(held).to_have_count(1)
    expect(page.get_by_text("1 mount is held in place")).to_be_visible()
    page.get_by_role("button", name="Let go of all").click()
    expect(page.get_by_text("1 mount is held in place")).to_have_count(0)

    # One drawn with the pointer goes to the support it is let go over.
    box = page.get_by_role("button", name=re.compile("rail C, rafter 5")).bounding_box()
    beside = page.get_by_role("button", name=re.compile("rail A, rafter 6")).bounding_box()
    assert box is not None
    assert beside is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(beside["x"] + beside["width"] / 2, y, steps=4)
    page.mouse.up()
    held = page.get_by_role("button", name=re.compile("rail C, rafter 6.*held in place"))
    expect(held).to_have_count(1)

    # A rail drawn across its modules takes all rails of the plane with it, and comes back typed.
    rail = page.get_by_role("button", name=re.compile("^Rail A, .* from the lower edge"))
    offset = page.get_by_label("Rail from the edge", exact=True)
    box = rail.bounding_box()
    assert box is not None
    # By its name, at its end.
    x, y = box["x"] + box["width"] - 14, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 5, steps=3)
    page.mouse.up()
    expect(offset).not_to_have_value("")
    before = offset.input_value()
    # Still in hand from the pointer: arrows move it on.
    rail.press("ArrowDown")
    expect(offset).not_to_have_value(before)
    typed(page, "Rail from the edge", "")
    expect(offset).to_have_value("")

    page.keyboard.press("Escape")
    page.get_by_role("button", name="Cut list").click()
    expect(page.get_by_text(re.compile(r"\d+ sticks, \d+ splices?, .* left over"))).to_be_visible()
    page.get_by_role("button", name="Chalk lines").click()
    sheet = page.get_by_role("region", name="Chalk lines")
    expect(sheet.get_by_text("Both diagonals")).to_be_visible()
    # A mount on each of the twenty rafters, nineteen taped from the first; what is cut off last.
    rail = sheet.get_by_role("row", name=re.compile("^A 1' 6"))
    expect(rail.get_by_text(re.compile(r"^\d+' \d"))).to_have_count(19)
    expect(rail).to_contain_text("trim A left")
    # One page for the roof; the Tally has one of its own.
    assert len(PdfReader(BytesIO(page.pdf(prefer_css_page_size=True))).pages) == 2
    page.get_by_role("button", name="Parts").click()
    clamps = page.get_by_role("row", name=re.compile("^Mid clamp"))
    # By hand: 28 modules in rows of 10, 10, 5 and 3 on two rails each.
    expect(clamps).to_contain_text("48")
    assert complaints == []


def test_circuits_from_the_modules_to_the_meter_and_their_diagram(
    page: Page, complaints: list[str]
) -> None:
    answer = page.request.post("/api/jobs/import", data=write_job(FULL))
    page.goto(f"/jobs/{answer.json()['found']['job_id']}/a/build?view=circuits")
    circuits = page.get_by_role("region", name="Circuits", exact=True)
    expect(circuits.get_by_role("rowheader", name="Strings A, B")).to_be_visible()
    expect(page.get_by_text("Proposed, from where the gear hangs")).to_be_visible()

    # A bend moved by an arrow is longer by what it moved; all are taken, and the year follows.
    bend = page.get_by_role("button", name="To the inverter from South roof, bend 1")
    bend.focus()
    bend.press("Enter")
    bend.press("ArrowRight")
    expect(page.get_by_text("Taken", exact=True)).to_be_visible()
    page.get_by_role("button", name="Take all ways as drawn").click()
    expect(circuits.get_by_text("by these conductors").first).to_be_visible()
    expect(page.get_by_role("button", name="Take all ways as drawn")).to_have_count(0)

    # A thicker conductor is one press and says what it saves; a length typed stands for the drawing.
    expect(circuits.get_by_text(re.compile("saves .* kWh a year")).first).to_be_visible()
    circuits.get_by_role("button", name="Take 6 AWG").click()
    expect(circuits.get_by_label("Conductor of Inverter output")).to_contain_text("6 AWG")
    typed(page, "Length of piece 1", "50'")
    expect(page.get_by_label("Length of piece 1", exact=True)).to_have_value("50'")

    # The diagram: a part that is pressed shows what it is held to; its file is a drawing.
    page.get_by_role("button", name=re.compile("^One-line")).click()
    expect(page.get_by_text("Nothing overlaps, nothing crosses unmarked.")).to_be_visible()
    page.locator('text[data-part="string A"]').first.click()
    held = page.get_by_role("complementary", name="Checks of string A")
    expect(held.get_by_text("Conductor where it is warmest")).to_be_visible()
    link = page.get_by_role("link", name="DXF").get_attribute("href")
    assert link is not None
    assert page.request.get(link).text().startswith("  0\nSECTION")

    # A bus that is too small finds its way out.
    page.get_by_role("button", name=re.compile("^Panel and labels")).click()
    expect(page.get_by_text("RAPID SHUTDOWN SWITCH FOR SOLAR PV SYSTEM")).to_be_visible()
    typed(page, "name of the board", "Garage")
    typed(page, "Garage, busbar", "80 A")
    typed(page, "Garage, breaker of its feeder", "60 A")
    expect(page.get_by_text(re.compile("Garage: .* broken"))).to_be_visible()
    way = page.get_by_role("row", name=re.compile("Tap before the main"))
    way.get_by_role("button", name="Take it").click()
    expect(page.get_by_text(re.compile("main panel: .* holds"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^Parts")).click()
    expect(page.get_by_role("rowheader", name="Connectors, mating pairs")).to_be_visible()
    assert complaints == []
