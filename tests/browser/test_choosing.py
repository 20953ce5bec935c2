"""What is weighed against what, as an owner does it: ways out, ways to the grid, the shelf."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from jobs import SHELF
from ridge_tally.core.job.document import Job
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.formats.job_file import write_job

pytestmark = pytest.mark.e2e


def strings_of(page: Page, job: Job) -> None:
    answer = page.request.post("/api/jobs/import", data=write_job(job))
    page.goto(f"/jobs/{answer.json()['found']['job_id']}/a/strings")
    expect(page.get_by_role("button", name="Wiring")).to_be_visible()


def test_two_roofs_that_overrun_a_tracker_are_led_out_of_it(
    page: Page, complaints: list[str]
) -> None:
    strings_of(page, mill_terrace(SHELF))
    page.get_by_role("button", name="Fixes").click()
    wrong = page.get_by_role("region", name="What is wrong")
    expect(wrong).to_contain_text("Operating current, tracker 1: 23.2 A of 16 A")
    expect(wrong).to_contain_text(re.compile(r"over 16 A for \d+ h of the year, 23.2 A at most"))
    expect(wrong.get_by_role("group", name=re.compile("limit 16.0 A"))).to_be_visible()
    ways = page.get_by_role("region", name="Fixes")
    expect(ways.get_by_text("what breaks no limit comes first")).to_be_visible()
    rows = ways.locator("ol > li")
    assert rows.count() >= 9
    for row in rows.all():
        expect(row).to_contain_text(re.compile(r"[\d ]+ kWh.*[+−±][\d ]+ kWh", re.DOTALL))
    series = rows.filter(has_text="one string of 14")
    expect(series).to_contain_text("Breaks Cold Voc, string A: 631 V of 600 V")
    expect(series.get_by_role("button")).to_have_count(0)
    # The string of the south-west roof to the tracker of the east one costs nothing and is better.
    split = rows.filter(has_text="B (South-west roof) to tracker 2, beside C")
    expect(split).to_contain_text("no parts")
    cheapest = rows.filter(has_text="least cost")
    expect(cheapest).to_contain_text("three trackers")
    cheapest.get_by_role("button", name=re.compile("^Take")).click()
    expect(wrong).to_contain_text("Nothing asks for a way out")
    page.get_by_role("button", name="Wiring").click()
    expect(page.get_by_role("region", name="Tracker 3")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("region", name="Tracker 3")).to_have_count(0)
    assert complaints == []


def test_lagoon_road_in_three_ways_says_which_and_why(page: Page, complaints: list[str]) -> None:
    strings_of(page, lagoon_road(SHELF))
    page.keyboard.press("6")
    verdict = page.get_by_role("status", name="Which, and why")
    expect(verdict).to_contain_text("For this roof: strings alone")
    expect(verdict).to_contain_text("Strings alone cost least")
    expect(verdict).to_contain_text(
        re.compile(r"Microinverters: \d+ kWh a year more \(\+\d\.\d %\)")
    )
    table = page.get_by_role("region", name="Ways compared")
    for point in ("If a part fails", "What is watched", "A battery later", "More modules later"):
        expect(table.get_by_role("rowheader", name=point)).to_be_visible()
    expect(table).to_contain_text("as option B has it")
    table.get_by_role("button", name="Take it: Microinverters").click()
    expect(page.get_by_text("17 units")).to_be_visible()
    assert complaints == []


def test_every_module_of_the_shelf_on_this_roof(page: Page, job: str) -> None:
    page.goto(f"{job}/a/strings")
    page.get_by_role("button", name="Equipment").click()
    page.get_by_role("button", name="Which module?").click()
    table = page.get_by_role("region", name="Modules for this roof")
    expect(table).to_contain_text("Modules with a legal plan: 4 of 7")
    table.get_by_role("button", name="W/m²").click()
    expect(table.get_by_role("rowheader").first).to_contain_text("600 W")
    table.get_by_role("button", name="W/m²").click()
    expect(table.get_by_role("rowheader").first).to_contain_text("250 W")
    table.get_by_role("button", name="Take Sample module 500 W, 132 half cells, large").click()
    tally = page.get_by_role("complementary", name="Tally")
    expect(tally).to_contain_text("8.50 / 7.60 kW")


def test_a_module_against_every_microinverter(page: Page, job: str) -> None:
    page.goto(f"{job}/a/strings")
    page.get_by_role("button", name="Equipment").click()
    page.get_by_role("button", name="Microinverters", exact=True).click()
    study = page.get_by_role("region", name="Microinverters for this module")
    expect(study).to_contain_text("405 W are laboratory watts")
    small = study.get_by_role("row", name=re.compile("Sample microinverter 245 W"))
    expect(small).to_contain_text("405 W against 350 W")
    usual = study.get_by_role("row", name=re.compile("Sample microinverter 330 W"))
    expect(usual).to_contain_text("292 of 330")
    expect(usual).to_contain_text(
        re.compile(r"kWhlost \d\.\d+ %: limit \d+\.\d.*\d+ h at the limit")
    )
    usual.get_by_role("button", name="Take Sample microinverter 330 W").click()
    expect(page.get_by_text("28 units")).to_be_visible()


def test_a_bare_dc_input_is_checked_and_refused_in_words(page: Page, job: str) -> None:
    page.goto(f"{job}/a/strings")
    page.get_by_role("button", name="Equipment").click()
    page.get_by_role("button", name="Generic DC input").click()
    form = page.get_by_role("region", name="Generic DC input")
    form.get_by_label("Highest volts").fill("-5")
    form.get_by_role("button").click()
    expect(form.get_by_role("alert")).to_contain_text("Highest volts reads -5")
    form.get_by_label("Highest volts").fill("600")
    form.get_by_role("button").click()
    expect(form.get_by_role("status")).to_contain_text("tracker 1")
    expect(page.get_by_role("complementary", name="Tally")).to_contain_text("5 670 W of 2 000 W")


def fill_in(page: Page, **figures: str) -> None:
    form = page.get_by_role("complementary", name="A datasheet of your own")
    for label, text in figures.items():
        form.get_by_label(re.compile(f"^{label.replace('_', ' ')}")).fill(text)
    form.get_by_role("button", name="Put it on the shelf").click()


def test_an_own_module_by_form_with_a_slip_that_is_named(page: Page, complaints: list[str]) -> None:
    page.goto("/shelf")
    page.get_by_role("button", name="Type one in").click()
    figures = {
        "Maker’s_name": "Fold 410", "Voc_?\\*": "31.4", "Isc_?\\*": "13.9", "Vmp_?\\*": "37.6",
        "Imp": "13.06", "Voc_coefficient": "-98 mV/K", "Isc_coefficient": "0.05 %/K",
        "Cells": "54", "Long": "1722", "Short": "1134", "Weight": "21.3",
    }  # fmt: skip
    fill_in(page, **figures)
    form = page.get_by_role("complementary", name="A datasheet of your own")
    expect(form.get_by_role("alert")).to_contain_text("Are Vmp and Voc swapped?")
    fill_in(page, **{"Voc_?\\*": "37.6", "Vmp_?\\*": "31.4"})
    sheet = page.get_by_role("complementary", name="Datasheets")
    expect(sheet).to_contain_text("Fold 410")
    expect(sheet.get_by_role("row", name=re.compile("^Pmax 410"))).to_contain_text("computed")
    expect(sheet.get_by_role("row", name=re.compile("^Bypass"))).to_contain_text("estimated")
    expect(sheet).to_contain_text("off at worst")
    shelf = page.get_by_role("region", name="On the shelf")
    shelf.get_by_label("Find").fill("fold")
    expect(shelf.get_by_role("status").filter(has_text=re.compile("^1 of 8$"))).to_be_visible()
    sheet.get_by_role("button", name="Take Fold 410 off the shelf").click()
    expect(shelf.get_by_role("status").filter(has_text=re.compile("^0 of 7$"))).to_be_visible()
    # The refusal is an answer of 422, which the browser reports by itself.
    assert [c for c in complaints if "422" not in c] == []


def test_a_file_of_equipment_keeps_good_lines_and_tells_the_others(
    page: Page, tmp_path: Path
) -> None:
    heading = (
        "kind,name,voc_v,isc_a,vmp_v,imp_a,beta_voc,cells_in_series,long_mm,short_mm,mass_kg\n"
    )
    good = "module,Fold {},37.6,13.9,31.4,13.06,-0.26 %/K,54,1722,1134,21.3\n"
    bad = (
        "module,Fold bad,37.6,13.9,31.4,20,-0.26 %/K,54,1722,1134,21.3\nmodule,=1+1,1,1,1,1,,,,,\n"
    )
    file = tmp_path / "folds.csv"
    file.write_text(heading + good.format(1) + bad + good.format(2), "utf-8")
    page.goto("/shelf")
    pick = page.get_by_label("From a file (CSV, JSON), file")
    pick.set_input_files(file)
    told = page.get_by_role("status", name="What came of the file")
    expect(told).to_contain_text("2 new, 0 renewed, 2 left out")
    expect(told).to_contain_text("line 3 Fold bad, Imp reads 20")
    expect(told).to_contain_text("looks like a formula")
    file.write_bytes("name\nM\xf6dul".encode("latin-1"))
    pick.set_input_files(file)
    expect(page.get_by_text("this is not UTF-8 text").first).to_be_visible()
    # Side by side, what differs stands out.
    shelf = page.get_by_role("region", name="On the shelf")
    shelf.get_by_label("Find").fill("fold")
    shelf.get_by_label("Look at Fold 1").check()
    shelf.get_by_label("Look at Fold 2").check()
    sheets = page.get_by_role("complementary", name="Datasheets")
    expect(sheets.get_by_role("columnheader")).to_have_count(3)
    for n in (1, 2):
        sheets.get_by_role("button", name=f"Take Fold {n} off the shelf").click()
    expect(shelf.get_by_role("status").filter(has_text=re.compile("^0 of 7$"))).to_be_visible()
