"""The brief as a new user meets it: a place, twelve bills, a target with its ceiling named."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser import still_box

pytestmark = pytest.mark.e2e

KWH = (1335, 1742, 2108, 2013, 1655, 1490, 1168, 1214, 1583, 1496, 1452, 1390)


def section(page: Page, name: str) -> None:
    page.get_by_role("tab", name=name).click()


def target(page: Page):
    return page.get_by_role("region", name="Target and ceilings")


def tally(page: Page):
    return page.get_by_role("complementary", name="Tally").get_by_role("region", name="Target")


def test_a_place_and_twelve_bills_give_a_target_with_its_ceiling_in_every_step(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Name of a new job").fill("Larch End")
    page.get_by_role("button", name="New job").click()

    # A place: picked, then its elevation typed.
    # Enter comes before the towns do, and takes the first of them all the same.
    page.get_by_role("combobox", name="Find a place").click()
    page.keyboard.type("santa fe new")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Name", exact=True)).to_have_value(re.compile("Santa Fe, New Mexico"))
    expect(page.get_by_text("America/Denver")).to_be_visible()
    expect(page.get_by_text(re.compile(r"A compass points \d+\.\d° east"))).to_be_visible()

    # Twelve rows laid out, the kWh typed down the column.
    section(page, "Bills")
    page.get_by_label("First day of twelve months").fill("1 Nov 2025")
    page.get_by_role("button", name="Twelve months from").click()
    expect(page.get_by_label("From, bill 12")).to_have_value("2026-10-01")
    first = page.get_by_label("kWh, bill 1", exact=True)
    first.click()
    for row, kwh in enumerate(KWH, start=1):
        expect(page.get_by_label(f"kWh, bill {row}", exact=True)).to_be_focused()
        page.keyboard.type(str(kwh))
        page.keyboard.press("Enter")
    first.click()
    expect(page.get_by_text(f"{round(sum(KWH), -1):,} kWh".replace(",", " ")).first).to_be_visible()

    section(page, "Grid rules")
    page.get_by_role("combobox", name="Sample set of grid rules").click()
    page.get_by_role("option", name=re.compile("net metering")).click()
    expect(target(page).get_by_text(re.compile(r"The target is \d+ modules; "))).to_be_visible()
    expect(target(page).get_by_text(re.compile("ends it at|first ceiling is"))).to_be_visible()

    # The same is told in every later step.
    for step in (
        "Survey",
        "Array",
        "Sun",
        "Strings",
        "Loading",
        "Build",
        "Money",
        "Sheets",
        "Proving",
    ):
        page.get_by_role("link", name=re.compile(f"^{step}")).click()
        expect(tally(page).get_by_text("First ceiling")).to_be_visible()


def test_the_true_yield_replaces_the_first_guess(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    expect(tally(page).get_by_text("Against usage")).to_be_visible()
    expect(target(page).get_by_text("simulated for this design")).to_be_visible()


def test_the_target_is_dragged_across_the_ceilings(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    line = page.get_by_role("slider", name="Target in modules")
    expect(line).to_have_attribute("aria-valuenow", "33")
    line.focus()
    page.keyboard.press("ArrowLeft")
    expect(line).to_have_attribute("aria-valuenow", "32")
    expect(page.get_by_label("Share of the use")).to_be_visible()
    box = still_box(line)
    middle = box["y"] + box["height"] / 2
    page.mouse.move(box["x"] + box["width"] / 2, middle)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 - 120, middle, steps=6)
    page.mouse.up()
    expect(target(page).get_by_text(re.compile("to spare"))).to_be_visible()
    page.keyboard.press("Control+z")
    expect(line).to_have_attribute("aria-valuenow", "32")


def test_a_ceiling_opens_its_sum(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    page.get_by_role("button", name=re.compile("^Size cap")).click()
    panel = page.get_by_role("dialog")
    expect(panel.get_by_text("(share · use − e old) · 1000 / (y · Pmax)")).to_be_visible()
    expect(panel.get_by_text("invented sample")).to_be_visible()


def test_bad_bills_are_told_at_their_row_and_nothing_is_lost(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    row = page.get_by_role("row").filter(has=page.get_by_label("From, bill 2"))
    page.get_by_label("From, bill 2").fill("2025-10-20")
    page.keyboard.press("Enter")
    expect(row.get_by_role("alert")).to_contain_text("Overlaps the bill of 6 Oct 2025")
    page.get_by_label("Money, bill 3").fill("842 kWh")
    page.keyboard.press("Enter")
    expect(page.get_by_text("energy goes in the kWh column")).to_be_visible()
    page.reload()
    expect(page.get_by_label("Money, bill 3")).to_have_value("842 kWh")
    expect(page.get_by_role("tab", name="Bills")).to_contain_text("2")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    expect(row.get_by_role("alert")).to_have_count(0)


def test_bills_typed_row_by_row_keep_the_cursor_where_it_is(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    page.get_by_role("button", name="Take all away").click()
    expect(page.get_by_label("From, bill 2")).to_have_count(0)
    page.get_by_label("From, bill 1").click()
    for cell in ("6 Nov 2025", "5 Dec 2025", "842", "118.20"):
        page.keyboard.type(cell)
        page.keyboard.press("Tab")
    expect(page.get_by_label("Money, bill 1")).to_have_value("118.20")
    expect(page.get_by_label("kWh, bill 1", exact=True)).to_have_value("842")
    expect(page.get_by_text("30 days, 28.1 kWh a day")).to_be_visible()
    expect(page.get_by_label("From, bill 2")).to_have_value("")


def test_a_place_in_the_sea_is_refused_in_words(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    section(page, "Place")
    field = page.get_by_label("Lat., lon.")
    field.fill("36.2, -35.6")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("is in the open sea")
    expect(field).to_have_value("36.2, -35.6")


def test_a_pasted_column_fills_downwards_and_a_table_becomes_rows(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    expect(page.get_by_label("kWh, bill 1", exact=True)).to_have_value("1335")
    page.evaluate("""
        const paste = (label, text) => {
          const data = new DataTransfer();
          data.setData('text', text);
          const cell = document.querySelector(`[aria-label="${label}"]`);
          cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
        };
        paste('kWh, bill 1', '700\\n710\\n720');
    """)
    expect(page.get_by_label("kWh, bill 3", exact=True)).to_have_value("720")
    page.get_by_role("button", name="Take all away").click()
    # The list shrinks under the pointer: what is clicked next stands still only after that.
    expect(page.get_by_label("kWh, bill 3", exact=True)).to_have_count(0)
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="From a CSV file", exact=True).click()
    chooser.value.set_files(
        {
            "name": "bills.csv",
            "mimeType": "text/csv",
            "buffer": b"from,to,kWh\n2025-11-01,2025-11-30,500\n2025-12-01,2025-12-31,600\n",
        }
    )
    expect(page.get_by_label("kWh, bill 2", exact=True)).to_have_value("600")
    expect(page.get_by_text("No bill covers summer")).to_be_visible()


def test_a_wish_is_refused_aloud_in_the_tally(page: Page, job: str) -> None:
    page.goto(f"{job}/a/brief")
    section(page, "House and wishes")
    page.get_by_label("Leave South roof free").click()
    limits = page.get_by_role("complementary", name="Tally").get_by_role("region", name="Limits")
    expect(limits.get_by_text("Roof left free")).to_be_visible()
    limits.get_by_role("button", name=re.compile("Roof left free")).click()
    limits.get_by_role("button", name="Take them off").click()
    expect(limits.get_by_text("Roof left free")).to_have_count(0)
