"""Every kind of layout of one plane: what is found at once, and the proof that goes on.

Which layouts there are: rows of portrait, of landscape or of either; free sideways, on a
shared column grid, or with no rows at all.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ridge_tally.core.array.aligned import GridRows, Scores, best_seed, grid_scores, prove
from ridge_tally.core.array.blockers import LayoutRegion
from ridge_tally.core.array.free import fill_freely
from ridge_tally.core.array.lay import Fill, Lay, never
from ridge_tally.core.array.places import on_grids, shares_grid, side_by_side
from ridge_tally.core.array.search import Prepared, ceiling, prepared, stacked
from ridge_tally.core.job.array import RowRule, Ways


def fill(
    ground: LayoutRegion,
    lay: Lay,
    ways: Ways,
    rule: RowRule,
    given_up: Callable[[], bool] = never,
) -> Fill:
    """Return the fullest layout of one kind that was found before it was given up, and its ceiling.

    Parameters
    ----------
    given_up : callable
        Ends a proof, or the search of a layout without rows.  Rows that are free sideways take
        a few milliseconds and do not ask.
    """
    if rule is RowRule.FREE:
        return fill_freely(ground, lay, ways, given_up)
    roof = prepared(ground, lay, ways.orientations)
    loose = fill_rows(roof, ways)
    if rule is RowRule.INDEPENDENT:
        return loose
    *_, last = prove_aligned(roof, ways, loose, given_up=given_up)
    return last


def fill_rows(roof: Prepared, ways: Ways) -> Fill:
    """Return the fullest rows that are free sideways."""
    rows = stacked(roof, ways.orientations)
    places = side_by_side(roof, rows)
    return Fill(places, ceiling(roof, ways.orientations, len(places)))


def fill_aligned(roof: Prepared, ways: Ways, loose: Fill, scores: Scores) -> Fill:
    """Return the fullest rows found at once on shared grids.

    Parameters
    ----------
    loose : Fill
        The rows that are free sideways: no grid holds more, and often they share one.
    scores : Scores
        What ``grid_scores`` returns.
    """
    if shares_grid(roof.lay, loose.places):
        return loose
    return _placed(roof, best_seed(roof, ways.orientations, loose.at_most, scores))


def prove_aligned(
    roof: Prepared,
    ways: Ways,
    loose: Fill,
    scores: Scores | None = None,
    given_up: Callable[[], bool] = never,
) -> Iterator[Fill]:
    """Yield the fullest rows on shared grids, again whenever more is known, until proven.

    Parameters as ``fill_aligned``; the grids are scored here where that was not done yet.
    """
    if loose.proven and shares_grid(roof.lay, loose.places):
        yield loose
        return
    seed = best_seed(roof, ways.orientations, loose.at_most, scores)
    known: GridRows | None = None
    for progress in prove(roof, ways.orientations, seed, given_up):
        if progress.best != known:
            known = progress.best
            yield _placed(roof, known)


def _placed(roof: Prepared, grid: GridRows) -> Fill:
    return Fill(on_grids(roof, grid.rows, grid.offsets), grid.at_most)


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of layout."""

    ways: Ways
    rule: RowRule


ROW_KINDS = tuple(
    Kind(ways, rule) for rule in (RowRule.INDEPENDENT, RowRule.ALIGNED) for ways in Ways
)


def fill_row_kinds(ground: LayoutRegion, lay: Lay) -> dict[Kind, Fill]:
    """Return a fill of each kind that has rows, the aligned ones as first found."""
    roof = prepared(ground, lay)
    loose = {ways: fill_rows(roof, ways) for ways in Ways}
    settled = all(shares_grid(lay, rows.places) for rows in loose.values())
    scores = {} if settled else grid_scores(roof)
    found: dict[Kind, Fill] = {}
    for ways, rows in loose.items():
        found[Kind(ways, RowRule.INDEPENDENT)] = rows
        found[Kind(ways, RowRule.ALIGNED)] = fill_aligned(roof, ways, rows, scores)
    return found
