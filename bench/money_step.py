"""Money's speed: an option once its hours are known, draws, moves; against the year they rest on."""

import time
from collections.abc import Callable

from jobs import FULL, WORKED_OUT, option_a
from ridge_tally.editing.design import design_for
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.money.moves import next_moves
from ridge_tally.studies.money.option_money import option_money
from ridge_tally.studies.money.sure import DRAWS, how_sure

Median = Callable[..., float]


def run(median_s: Median) -> None:
    """Print Money's figures."""
    design = design_for(FULL, option_a(FULL))
    option_money(WORKED_OUT, design)

    def year() -> None:
        WORKED_OUT.years.clear()
        hourly_year(WORKED_OUT, design)

    whole, money = median_s(year, 3), median_s(lambda: option_money(WORKED_OUT, design), 9)
    print(
        f"money of an option: {money * 1e3:.0f} ms (aim under 30 ms), {money / whole:.3f} of its year"
    )
    drawn = median_s(lambda: list(how_sure(WORKED_OUT, design)), 3)
    print(f"{DRAWS} draws of it: {drawn:.2f} s (aim under 2 s)")
    start, first = time.perf_counter(), None
    for found in next_moves(WORKED_OUT, design):
        if found.moves and first is None:
            first = time.perf_counter() - start
    print(
        f"next moves: the first after {first or 0:.1f} s (aim under 2 s), all {found.looked_at} after "
        f"{time.perf_counter() - start:.1f} s (aim under 30 s)"
    )
