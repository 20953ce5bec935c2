"""A newcomer with tape readings of a gable gets to a checked design by following the next line.

Timed at a person's pace, not the machine's, by the keystroke-level model of Card, Moran and Newell
(Communications of the ACM 23, 1980; times from memory): what is typed, pointed at, clicked and
thought about is added up.
"""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

pytestmark = pytest.mark.e2e
# An average typist's key, pointing, pressing and letting go of a button, a move of the hand
# between keyboard and mouse, and a moment of thought, seconds.
KEY_S, POINT_S, CLICK_S, HAND_S, THINK_S = 0.28, 1.10, 0.20, 0.40, 1.35
# A minute for every sentence read that was never seen before would be slow; ten seconds is not.
READ_S = 10.0
FIVE_MINUTES_S = 300.0


class Newcomer:
    """A person at the page, whose time is added up."""

    def __init__(self, page: Page) -> None:
        self.page, self.spent_s = page, 0.0

    def clicks(self, part: Locator) -> None:
        part.click()
        self.spent_s += THINK_S + HAND_S + POINT_S + CLICK_S

    def types(self, part: Locator, text: str) -> None:
        self.clicks(part)
        part.fill(text)
        self.spent_s += THINK_S + HAND_S + KEY_S * (len(text) + 1)
        part.press("Enter")

    def reads(self, expected: str) -> None:
        line = self.page.get_by_role("region", name="Next")
        expect(line).to_contain_text(re.compile(expected))
        self.spent_s += READ_S

    def goes(self, step: str) -> None:
        line = self.page.get_by_role("region", name="Next")
        self.clicks(line.get_by_role("button", name=f"Go to {step}"))
        expect(line.get_by_role("button", name=f"Go to {step}")).to_have_count(0)


def test_a_newcomer_has_a_checked_design_of_a_gable_in_five_minutes(
    page: Page, complaints: list[str]
) -> None:
    page.goto("/")
    me = Newcomer(page)
    me.types(page.get_by_label("Name of a new job"), "Larch End")
    me.reads("Say where the house stands")
    me.types(page.get_by_label("Lat., lon."), "50.1, 8.7")
    me.reads("Roof plane 1: type its tape readings")
    me.goes("Survey")
    me.types(page.get_by_label("Eave", exact=True), "11.0")
    me.types(page.get_by_label("Left rake", exact=True), "5.2")
    me.reads("Roof plane 1: its slope is a guess")
    me.types(page.get_by_label(re.compile("^Slope")), "35")
    me.reads("Roof plane 1: which way it looks is a guess")
    me.types(page.get_by_label("Azimuth, true", exact=True), "180")
    me.reads("holds no module yet")
    me.clicks(page.get_by_role("button", name="Fill it in portrait"))
    me.reads("Type the coldest air")
    me.goes("Strings")
    me.types(page.get_by_label(re.compile("^Coldest air")), "-16")
    tally = page.get_by_role("complementary", name="Tally")
    me.clicks(tally.get_by_role("button", name=re.compile("more kept$")))
    cold = tally.get_by_role("button", name=re.compile("^Cold Voc"))
    expect(cold).to_contain_text(re.compile(r"\d+ V"))
    me.spent_s += READ_S
    assert me.spent_s < FIVE_MINUTES_S, me.spent_s
    expect(tally.get_by_text("Stop: limit passed")).to_have_count(0)
    expect(tally).to_contain_text(re.compile(r"\d \d{3} kWh"))

    # The line is switched off for good, and on again.
    line = page.get_by_role("region", name="Next")
    if line.count():
        line.get_by_role("button", name="Do not show").click()
        expect(line).to_have_count(0)
    page.reload()
    expect(tally).to_be_visible()
    expect(line).to_have_count(0)
    assert complaints == []


def test_a_job_opens_where_it_was_left(page: Page, job: str) -> None:
    page.goto(f"{job}/b/sun?view=path")
    expect(page.get_by_role("button", name=re.compile("^Sun path"))).to_have_attribute(
        "aria-pressed", "true"
    )
    page.goto("/")
    page.goto(job)
    expect(page).to_have_url(re.compile(rf"{job}/b/sun\?view=path"))
    page.goto(f"{job}/a")
    expect(page).to_have_url(re.compile(rf"{job}/a/brief"))


def test_steps_of_an_empty_job_start_the_work(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Name of a new job").fill("Empty House")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Next")).to_be_visible()
    for step in ("strings", "loading"):
        page.locator(f"nav[aria-label=Steps] a[href$='/{step}']").click()
        expect(
            page.get_by_role("main").get_by_role("link", name="Measure it first")
        ).to_be_visible()
    page.get_by_role("link", name="Measure it first").click()
    for label, typed in (("Eave", "11"), ("Left rake", "5")):
        field = page.get_by_label(label, exact=True)
        field.fill(typed)
        field.press("Enter")
    expect(page.get_by_text("1 of 1")).to_be_visible()
    page.locator("nav[aria-label=Steps] a[href$='/loading']").click()
    page.get_by_role("button", name="Fill Roof plane 1 in portrait").click()
    expect(page.get_by_role("main")).to_contain_text(re.compile(r"kWh of AC"))
