"""The packet and the plan of work in the browser: attached, sent for practice, written down, booked."""

import re
from datetime import date
from io import BytesIO
from pathlib import Path

import pytest
import vobject
from fpdf import FPDF
from playwright.sync_api import Page, expect
from pypdf import PdfReader

pytestmark = pytest.mark.e2e


@pytest.fixture(scope="module")
def letter(tmp_path_factory: pytest.TempPathFactory) -> Path:
    pdf = FPDF()
    pdf.add_page()
    pdf.set_font("Helvetica")
    pdf.text(20, 20, "signed by the customer")
    place = tmp_path_factory.mktemp("packet") / "application.pdf"
    place.write_bytes(bytes(pdf.output()))
    return place


def test_a_packet_is_filled_practised_and_bound(
    page: Page, job: str, letter: Path, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/sheets?view=packet")
    wanted = page.get_by_role("region", name="What they want")
    form = wanted.get_by_role("listitem").filter(has_text="Application form")
    expect(form).to_contain_text("no file attached")
    # What is no PDF is refused in words and changes nothing.
    pick = form.get_by_label("Attach, file")
    pick.set_input_files(
        files=[{"name": "note.pdf", "mimeType": "application/pdf", "buffer": b"hello"}]
    )
    expect(form.get_by_role("alert")).to_contain_text("neither a PDF nor a picture")
    complaints.clear()
    pick.set_input_files(str(letter))
    expect(form.get_by_role("link", name="application.pdf")).to_be_visible()
    expect(form).to_contain_text("there")
    expect(page.get_by_role("status").filter(has_text="3 of 6 still missing")).to_be_visible()
    # The portal asks for what lacks; what it says is practice, and buying now is told.
    page.get_by_role("button", name="Send to the practice portal").click()
    log = page.get_by_role("list", name="Log")
    expect(log).to_contain_text("Please send: Datasheet of the inverter")
    expect(log).to_contain_text("practice")
    expect(page.get_by_role("status").filter(has_text="(practice only)")).to_be_visible()
    ordered = page.get_by_label("Equipment ordered on")
    ordered.fill("2026-12-24")
    ordered.press("Enter")
    warning = page.get_by_role("alert").filter(has_text="before utility and authority agreed")
    expect(warning).to_be_visible()
    # A real answer with a limit is held against the design.
    page.get_by_label("Day", exact=True).fill("2026-12-20")
    page.get_by_label("What happened").click()
    page.get_by_role("option", name="approved with a limit").click()
    page.get_by_label("Limit, kW").fill("5")
    page.get_by_label("In words").fill("no. 4711")
    page.get_by_role("button", name="Write down").click()
    expect(page.get_by_role("alert").filter(has_text="at most 5.00 kW out")).to_be_visible()
    page.get_by_role("button", name="Clear practice").click()
    expect(log).not_to_contain_text("Please send")
    address = page.get_by_role("link", name="Packet (PDF)").get_attribute("href")
    bound = page.request.get(str(address))
    reader = PdfReader(BytesIO(bound.body()))
    text = [p.extract_text() for p in reader.pages]
    assert "Packet for the utility" in text[0]
    assert "no. 4711" in text[0]
    assert "signed by the customer" in text[-1]
    # The authority wants other things.
    page.get_by_role("button", name="Authority").click()
    expect(wanted).to_contain_text("Structural letter")
    assert complaints == []


def test_the_days_of_the_work_are_typed_held_moved_and_taken_along(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/sheets?view=work")
    begins = page.get_by_label("Begins")
    begins.fill("2027-03-01")
    begins.press("Enter")
    steps = page.get_by_role("list", name="Steps of the work")
    survey = steps.get_by_role("button", name=re.compile("^Survey on site:"))
    expect(survey).to_have_accessible_name(re.compile("2027-03-01 to 2027-03-01"))
    # Wind on that Monday and Tuesday: the survey waits for Wednesday.
    page.get_by_label("First day held").fill("2027-03-01")
    page.get_by_label("Last day held").fill("2027-03-02")
    page.get_by_label("Why", exact=True).fill("wind")
    page.get_by_role("button", name="Hold", exact=True).click()
    expect(survey).to_have_accessible_name(re.compile("2027-03-03 to 2027-03-03"))
    # Two days longer at the desk, and by key a day later.
    drawn = steps.get_by_role("button", name=re.compile("^Design and plan set:"))
    days = page.get_by_label("Design and plan set, working days")
    days.fill("4")
    days.press("Enter")
    expect(drawn).to_have_accessible_name(re.compile("2027-03-04 to 2027-03-09"))
    drawn.focus()
    page.keyboard.press("ArrowRight")
    expect(drawn).to_have_accessible_name(re.compile("2027-03-05 to 2027-03-10"))
    address = page.get_by_role("link", name="Calendar (ics)").get_attribute("href")
    days_out = vobject.readOne(page.request.get(str(address)).text()).vevent_list
    found = next(e for e in days_out if "design and plan set" in e.summary.value)
    assert (found.dtstart.value, found.dtend.value) == (date(2027, 3, 5), date(2027, 3, 11))
    # A day that is none is refused under its field.
    done = page.get_by_label("Survey on site, done on")
    done.fill("soon")
    done.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Done on")
    complaints.clear()
