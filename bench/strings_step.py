"""The planner's speed: every plan of forty modules on three planes, and the whole shelf."""

import time
from collections.abc import Callable

from jobs import FULL, SHELF, option_a
from ridge_tally.core.strings.plans import TrackerClass, legal_plans
from ridge_tally.services.string_plans import inverter_plans

COUNTS = (16, 14, 10)


def core(median_s: Callable[..., float]) -> None:
    """Ones the rest of the program waits for."""
    two = [TrackerClass((1, 2, 3, 4, 5, 6), ((4, 14),), 1)]
    wide = [TrackerClass((1, 2, 3, 4, 5, 6), ((4, 14),), 2)]
    one_s, most_s = (median_s(lambda c=c: legal_plans(COUNTS, c)) for c in (two, wide))
    begun = time.perf_counter()
    *_, last = inverter_plans(FULL, option_a(FULL), SHELF.inverters)
    shelf_s = time.perf_counter() - begun
    print(
        f"planner, 40 modules on 3 planes and six trackers: {one_s * 1000:.0f} ms for "
        f"{legal_plans(COUNTS, two).total} plans, {most_s * 1000:.0f} ms for "
        f"{legal_plans(COUNTS, wide).total} with two strings on each (aim 300 ms); the shelf's "
        f"{last.of} inverters {shelf_s * 1000:.0f} ms (aim 5 s)"
    )
