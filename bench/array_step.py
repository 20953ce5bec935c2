"""The array's speed: every layout of a roof, proofs, why not one more, and dragging a block."""

import time
from collections.abc import Callable

import numpy as np
from playwright.sync_api import Page

import survey
from core.roofs import LAY, chimney, roof, vent
from jobs import FULL, SHELF
from ridge_tally.core.array.aligned import best_seed, prove
from ridge_tally.core.array.blockers import LayoutRegion, ground_of
from ridge_tally.core.array.fill import fill_row_kinds, fill_rows
from ridge_tally.core.array.lay import Place
from ridge_tally.core.array.legal import shortfalls
from ridge_tally.core.array.search import prepared
from ridge_tally.core.array.why_not import changes
from ridge_tally.core.job.array import Orientation, Ways
from ridge_tally.core.job.edits.array.modules import MoveModules
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.views.option import option_report

SWEEP_M = 0.05


def eight_obstructions() -> LayoutRegion:
    """A gable of 12 by 6 m with a chimney and seven vents."""
    ground = chimney(roof(12, 6), 6.5, 3.6, 7.3, 4.4)
    for x, y in ((1.5, 2), (3, 4.2), (4.4, 1.2), (6, 2.2), (8.3, 3), (9.6, 4.4), (10.8, 1.6)):
        ground = vent(ground, x, y, 0.05)
    return ground


def swept(ground: LayoutRegion, orientation: Orientation) -> int:
    """What is done by hand today: one grid of one pitch, slid about; the most legal places."""
    best = 0
    width_m, height_m = LAY.width_m(orientation), LAY.height_m(orientation)
    pitch_x, pitch_y = LAY.pitch_m(orientation), height_m + LAY.gap_between_rows_m
    right_m, top_m = ground.corners.max(axis=0)
    for x0 in np.arange(0, pitch_x, SWEEP_M * 4):
        for y0 in np.arange(0, pitch_y, SWEEP_M * 4):
            places = tuple(
                Place(float(x), float(y), orientation)
                for y in np.arange(y0, top_m - height_m, pitch_y)
                for x in np.arange(x0, right_m - width_m, pitch_x)
            )
            best = max(best, sum(not s for s in shortfalls(ground, LAY, places)))
    return best


def core(median_s: Callable[..., float]) -> None:
    """Layouts of a roof with eight obstructions, against a grid slid about in the same run."""
    lagoon = lagoon_road(SHELF).survey.planes[0]
    for name, ground in (
        ("a gable with 8 obstructions", eight_obstructions()),
        ("an outline of 12 corners", ground_of(lagoon)),
    ):
        ready = prepared(ground, LAY)
        rows_s = median_s(lambda g=ground: [fill_rows(prepared(g, LAY), w) for w in Ways], 5)
        all_s = median_s(lambda g=ground: fill_row_kinds(g, LAY), 5)
        print(
            f"{name}: rows of all three ways, proven, {rows_s * 1000:.0f} ms (aim about 100 ms); "
            f"shared grids as well, {all_s * 1000:.0f} ms (aim about 350 ms)"
        )
        for ways in Ways:
            at_most = fill_rows(ready, ways).at_most
            seed = best_seed(ready, ways.orientations, at_most)
            start = time.perf_counter()
            *_, last = prove(ready, ways.orientations, seed)
            took_s = time.perf_counter() - start
            print(
                f"  shared grid, {ways}: {seed.count} found, {last.best.count} of at most "
                f"{last.best.at_most} after {last.judged} ranges in {took_s:.2f} s (aim under 2 s)"
            )
    ground = eight_obstructions()
    start = time.perf_counter()
    by_hand = swept(ground, Orientation.PORTRAIT)
    swept_s = time.perf_counter() - start
    one = fill_rows(prepared(ground, LAY), Ways.PORTRAIT)
    one_s = median_s(lambda: fill_rows(prepared(ground, LAY), Ways.PORTRAIT), 5)
    print(
        f"  a grid slid about in 0.2 m steps holds {by_hand} in {swept_s:.2f} s; "
        f"rows hold {one.count}, proven, {swept_s / one_s:.0f} times as fast"
    )
    kinds = ("eave", "rake", "ridge", "rake")
    why_s = median_s(lambda: changes(ground, LAY, Ways.MIXED, kinds), 3)
    print(f"why not one more, eight obstructions: {why_s:.2f} s")
    option = FULL.options[0]
    every = tuple(m.id for a in option.arrays for m in a.modules)
    steps = iter(range(10_000))

    def nudge() -> None:
        shift_m = 0.001 if next(steps) % 2 else -0.001
        job = apply_edit(FULL, MoveModules(option.id, every, shift_m, 0.0), SHELF)
        option_report(design_for(job, job.options[0]))

    print(
        f"{len(every)} modules moved and checked: {median_s(nudge, 9) * 1000:.0f} ms (aim under 50 ms)"
    )


def in_browser(page: Page, address: str) -> None:
    """Frames while forty modules are dragged together."""
    page.goto(f"{address}/jobs/lagoon-road/a/array")
    page.get_by_role("region", name="Portrait fill").wait_for()
    page.get_by_text("To the meter", exact=True).wait_for()
    # The smallest module on the larger roof, so that it holds forty.
    page.get_by_role("combobox", name="Module", exact=True).click()
    page.get_by_role("option", name="250 W").click()
    page.get_by_role("button", name="South back").click()
    page.get_by_role("region", name="Portrait fill").first.get_by_role("button").click()
    page.wait_for_timeout(6000)
    first = page.get_by_role("checkbox", name="Module 1", exact=True)
    first.focus()
    for number in range(1, page.get_by_role("checkbox", name="Module").count() + 1):
        module = page.get_by_role("checkbox", name=f"Module {number}", exact=True)
        if module.count():
            module.focus()
            page.keyboard.press("h")
    held = page.get_by_role("group", name="Held modules").inner_text().split()[0]
    box = page.get_by_role("checkbox", name="Module 1, held").bounding_box()
    assert box is not None
    x, y = box["x"] + 20, box["y"] + 20

    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 6, y + 6, steps=3)
    page.wait_for_timeout(300)

    def drag() -> None:
        for i in range(120):
            page.mouse.move(x + 40 * np.sin(i / 9), y - 20 + 20 * np.cos(i / 7))
            time.sleep(0.012)

    survey.frames(page, f"{held} modules dragged together", drag)
    page.mouse.up()
