"""The plan set in the browser: read sheet by sheet, followed back to its steps, issued and opened again."""

import re

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.e2e


def _milder(page: Page, job: str) -> None:
    """Give the job a milder winter, as another tab would."""
    api = f"/api/jobs/{job.rsplit('/', 1)[-1]}"
    revision = page.request.get(api).json()["found"]["revision"]
    edit = {"kind": "set-site-field", "field": "coldest", "typed": "-27 C"}
    sent = page.request.post(f"{api}/edits", data={"parent": revision, "edit": edit, "author": "x"})
    assert sent.ok, sent.text()


def test_a_set_is_read_followed_back_named_and_issued(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/sheets?view=set")
    listed = page.get_by_role("navigation", name="Sheets of the set")
    for number in ("G-1", "G-2", "A-1", "E-1", "E-3", "S-2", "E-4"):
        expect(listed.get_by_role("button", name=re.compile(rf"^{number}\b")).first).to_be_visible()
    expect(page.get_by_text("nothing overlaps or falls off one")).to_be_visible()
    # Another set on another paper.
    page.get_by_label("Set", exact=True).click()
    page.get_by_role("option", name="Owner’s page").click()
    expect(listed.get_by_role("button")).to_have_count(1)
    expect(page.get_by_role("region", name=re.compile("^Sheet H-1"))).to_contain_text(
        "Switching it off, in this order"
    )
    page.get_by_label("Set", exact=True).click()
    page.get_by_role("option", name="Utility set").click()
    firm = page.get_by_label("Installer", exact=True)
    firm.fill("Hill & Daughters")
    firm.press("Enter")
    site = listed.get_by_role("button", name=re.compile("^G-2"))
    site.click()
    sheet = page.get_by_role("region", name=re.compile("^Sheet G-2"))
    expect(sheet).to_contain_text("Hill & Daughters")
    # Issued: frozen, listed, openable; what is changed afterwards is told.
    page.get_by_role("button", name="Issue 1").click()
    issued = page.get_by_role("link", name="Issue 1")
    expect(issued).to_be_visible()
    expect(page.get_by_text("Nothing was changed since.")).to_be_visible()
    frozen = page.request.get(str(issued.get_attribute("href")))
    assert frozen.body().startswith(b"%PDF")
    firm.fill("Hill & Sons")
    firm.press("Enter")
    expect(
        page.get_by_text(re.compile("^Changed since: set paperwork field Hill & Sons"))
    ).to_be_visible()
    # What has changed is clouded on a sheet that left the house, and listed.
    layouts = listed.get_by_role("button", name=re.compile("^G-1"))
    expect(layouts).not_to_contain_text("changed since issued")
    _milder(page, job)
    page.goto(f"{job}/a/sheets?view=set")
    page.get_by_label("Set", exact=True).click()
    page.get_by_role("option", name="Utility set").click()
    expect(listed.get_by_role("button", name=re.compile("^G-1"))).to_contain_text(
        "changed since issued"
    )
    # A press on a module leads to where it was laid.
    page.get_by_label("Set", exact=True).click()
    page.get_by_role("option", name="Permit set").click()
    listed.get_by_role("button", name=re.compile("^A-1")).click()
    layout = page.get_by_role("region", name=re.compile("^Sheet A-1"))
    layout.locator("[data-part^='module']").first.click(force=True)
    expect(page).to_have_url(re.compile(rf"{job}/a/array"))
    assert complaints == []


def test_a_set_of_ones_own_is_kept_read_and_deleted(
    page: Page, job: str, complaints: list[str]
) -> None:
    page.goto(f"{job}/a/sheets?view=set")
    page.get_by_role("button", name="Own set").click()
    panel = page.get_by_role("dialog", name="A set of your own")
    panel.get_by_label("Name").fill("roofer")
    panel.get_by_label("W-1 Crew: chalk and cut").click()
    panel.get_by_label("G-1 Cover").click()
    panel.get_by_role("button", name="Keep set").click()
    listed = page.get_by_role("navigation", name="Sheets of the set")
    expect(listed.get_by_role("button").first).to_contain_text("W-1")
    expect(page.get_by_role("link", name="roofer (PDF)")).to_be_visible()
    page.get_by_role("button", name="Change set").click()
    panel.get_by_role("button", name="Delete set").click()
    expect(page.get_by_role("link", name="Permit set (PDF)")).to_be_visible()
    assert complaints == []
