"""Money in the browser: a price typed, a tariff by the hour, an incentive, the years that follow."""

import re

import pytest
from playwright.sync_api import Page, expect

from jobs import FULL, SHELF
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.formats.job_file import write_job

pytestmark = pytest.mark.e2e


def typed(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def grouped(told: str) -> re.Pattern[str]:
    """Figures as they are shown, whatever space stands between their groups."""
    return re.compile(re.escape(told).replace("\\ ", r"\s"))


def test_what_it_costs_what_it_spares_and_when_it_is_paid(
    page: Page, complaints: list[str]
) -> None:
    answer = page.request.post("/api/jobs/import", data=write_job(FULL))
    page.goto(f"/jobs/{answer.json()['found']['job_id']}/a/money")
    costs = page.get_by_role("region", name="What it costs")
    gross = costs.locator("dd").nth(3)
    expect(gross).to_have_text(grouped("$22 884.29"))

    # A price typed over moves the sum by 28 modules at 42 % on top: 10 more each are 397.60.
    typed(page, "Price of Sample module 405 W, half-cut", "150.60")
    expect(gross).to_have_text(grouped("$23 281.89"))
    tally = page.get_by_role("complementary", name="Tally").get_by_role("region", name="Money")
    expect(tally).to_contain_text(grouped("$23 281.89"))
    costs.get_by_text("Price", exact=True).last.click()
    expect(costs.get_by_text(grouped("together $23 281.89"))).to_be_visible()

    # What is refused stays with its reason; the list's order is the order they are taken in.
    incentives = page.get_by_role("region", name="Incentives")
    incentives.get_by_role("button", name="Change").first.click()
    typed(page, "Last day", "2026-01-31")
    expect(incentives.get_by_text("no day of going live is given")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Years")).click()
    typed(page, "Day it goes live", "2026-01-31")
    page.get_by_role("button", name=re.compile("^Price")).first.click()
    expect(incentives.get_by_text("no day of going live is given")).to_have_count(0)

    # Prices by the hour: a gap is refused in words and nothing is lost; the bills follow.
    page.get_by_role("button", name=re.compile("^Bills")).click()
    year = page.get_by_role("row", name=re.compile("^Year"))
    before = year.get_by_role("cell").last.inner_text()
    page.get_by_role("button", name="Prices by the hour").click()
    expect(year.get_by_role("cell").last).not_to_have_text(before)
    typed(page, "Hours, other hours", "0-12")
    expect(page.get_by_role("alert")).to_contain_text("no price holds in Jan, workdays, 12 to 13 h")
    page.get_by_label("Hours, other hours", exact=True).press("Escape")
    typed(page, "Bought, peak", "44")
    expect(page.get_by_label("Bought, peak", exact=True)).to_have_value("44")

    # The years: a loan changes each year's sum, and every figure opens to its working.
    page.get_by_role("button", name=re.compile("^Years")).click()
    worth = page.get_by_role("region", name="Worth")
    expect(worth.get_by_text("Paid back", exact=True).first).to_be_visible()
    typed(page, "Share on loan", "80 %")
    expect(worth.get_by_text("Loan a month")).to_be_visible()
    worth.get_by_text("Loan", exact=True).click()
    expect(worth.get_by_text(re.compile("80 % of "))).to_be_visible()
    expect(page.get_by_role("columnheader", name="Loan")).to_be_visible()

    # Option against option, each whole.
    page.get_by_role("button", name=re.compile("^Options")).click()
    expect(page.get_by_role("row", name=re.compile("^A two trackers"))).to_contain_text("years")
    expect(page.get_by_role("row", name=re.compile("^B one longer string"))).to_contain_text("$")
    # The refused hours are answered with 422.
    assert [c for c in complaints if "422" not in c] == []


def test_what_would_better_it_how_sure_it_is_and_what_another_firm_asks(
    page: Page, complaints: list[str]
) -> None:
    answer = page.request.post("/api/jobs/import", data=write_job(lagoon_road(SHELF)))
    page.goto(f"/jobs/{answer.json()['found']['job_id']}/a/money?view=moves")
    moves = page.get_by_role("region", name="Next moves")
    expect(moves.get_by_text("changes tried, each a whole run")).to_be_visible()
    expect(moves.get_by_text(re.compile("^Not tried: "))).to_be_visible()
    less = moves.get_by_role("row", name=re.compile("^1 module less"))
    # A difference has its sign; what is taken is a new option, and the old one stays.
    expect(less).to_contain_text(re.compile(r"−A\$\d"))
    less.get_by_role("button", name="Into a new option").click()
    expect(page).to_have_url(re.compile("/d/money"))
    expect(page.get_by_role("banner")).to_contain_text("1 module less")
    tally = page.get_by_role("complementary", name="Tally").get_by_role("region", name="Count")
    expect(tally).to_contain_text("16")

    page.get_by_role("button", name=re.compile("^How sure")).click()
    sure = page.get_by_role("region", name="How sure")
    expect(sure.get_by_role("row", name=re.compile("^Worth today"))).to_contain_text("A$")
    bar = sure.get_by_role("img", name=re.compile("^Price asked: .* at 92 %"))
    expect(bar).to_have_count(1)

    # An offer typed from its paper: its claim is held against this roof's own year.
    page.get_by_role("button", name=re.compile("^Options")).click()
    offers = page.get_by_role("region", name="Offers")
    offers.get_by_role("button", name="Add an offer").click()
    typed(page, "kWh claimed, Another firm", "14000")
    expect(
        offers.get_by_text(re.compile("It claims 1.750 kWh a kW; .* more would have to be true"))
    ).to_be_visible()
    typed(page, "Modules, Another firm", "3")
    expect(page.get_by_role("alert")).to_contain_text("8 kW of 3 modules would be 2,667 W each")
    assert [c for c in complaints if "422" not in c] == []
