"""Why not one more: what each row lacks, and the smallest change that would let one in."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import StrEnum

import numpy as np

from ridge_tally.core.array.blockers import BlockerKind, LayoutRegion, Owner, free_bands, intervals
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.search import prepared, stacked
from ridge_tally.core.array.shape import same_lines
from ridge_tally.core.job.array import Orientation, Ways

# A change is told to this.
STEP_M = 0.001


@dataclass(frozen=True, slots=True)
class RowRoom:
    """A free stretch of a row that holds modules: what bounds it, and what one more would need.

    ``short_m`` is negative where there is room for another once the row is closed up.
    """

    orientation: Orientation
    bottom_m: float
    top_m: float
    left_m: float
    right_m: float
    modules: int
    short_m: float
    left_owner: Owner
    right_owner: Owner


class ChangeKind(StrEnum):
    """What could give way."""

    STRIP = "strip"
    CLEARANCE = "clearance"
    AWAY = "away"
    GAP_IN_ROW = "gap-in-row"
    GAP_BETWEEN_ROWS = "gap-between-rows"


@dataclass(frozen=True, slots=True)
class Change:
    """A change that lets more modules in: by how much, to what, and how many there are then.

    ``edge_kind`` is the kind of edge whose strips give way together.
    """

    kind: ChangeKind
    owners: tuple[Owner, ...]
    by_m: float
    to_m: float
    modules: int
    edge_kind: str = ""


def row_rooms(ground: LayoutRegion, lay: Lay, places: tuple[Place, ...]) -> tuple[RowRoom, ...]:
    """Return the stretches of the rows there are, the nearest to one more first."""
    found: list[RowRoom] = []
    for row in same_lines(places):
        orientation = row[0].orientation
        # A hair inside, so that a row laid right at its limits is not cut by them.
        hair_m = 1e-4
        bottom = np.array([row[0].y_m + hair_m])
        top = np.array([row[0].y_m + lay.height_m(orientation) - hair_m])
        for left_m, right_m in free_bands(ground, bottom, top).gaps(0):
            width_m = lay.width_m(orientation)
            # One that is kept too close to a strip belongs to its row all the same.
            mine = [p for p in row if left_m <= p.x_m + width_m / 2 <= right_m]
            if not mine:
                continue
            wanted_m = (len(mine) + 1) * lay.pitch_m(orientation) - lay.gap_in_row_m
            left_owner, right_owner = _bounds(ground, bottom, top, left_m, right_m)
            found.append(
                RowRoom(
                    orientation,
                    row[0].y_m,
                    row[0].y_m + lay.height_m(orientation),
                    left_m,
                    right_m,
                    len(mine),
                    wanted_m - (right_m - left_m),
                    left_owner,
                    right_owner,
                )
            )
    return tuple(sorted(found, key=lambda room: room.short_m))


def _bounds(
    ground: LayoutRegion, bottom: np.ndarray, top: np.ndarray, left_m: float, right_m: float
) -> tuple[Owner, Owner]:
    """Return whose capsules end where a gap begins and begin where it ends."""
    lefts, rights = intervals(ground.capsules, bottom, top)
    left = int(np.argmin(np.abs(np.where(np.isfinite(rights[0]), rights[0], np.inf) - left_m)))
    right = int(np.argmin(np.abs(np.where(np.isfinite(lefts[0]), lefts[0], np.inf) - right_m)))
    return ground.owners[left], ground.owners[right]


def most(ground: LayoutRegion, lay: Lay, ways: Ways) -> int:
    """Return how many modules rows that are free sideways are found to hold."""
    ways_round = ways.orientations
    rows = stacked(prepared(ground, lay, ways_round), ways_round)
    return sum(row.modules for row in rows)


def changes(
    ground: LayoutRegion, lay: Lay, ways: Ways, edge_kinds: tuple[str, ...]
) -> tuple[Change, ...]:
    """Return, for each thing that could give way, the least change that lets one more in.

    Parameters
    ----------
    edge_kinds : tuple of str
        The kind of each edge: the strips of one kind give way together.

    Returns
    -------
    changes : tuple of Change
        The smallest first, taking something away last.  None where nothing helps.

    Notes
    -----
    Found by filling again with the distance cut back, halving to a millimetre; the count can
    only rise as a distance falls.
    """
    held = most(ground, lay, ways)
    found = [
        *_owners_changed(ground, lay, ways, edge_kinds, held),
        *_gap_changed(ground, lay, ways, held, ChangeKind.GAP_IN_ROW),
        *_gap_changed(ground, lay, ways, held, ChangeKind.GAP_BETWEEN_ROWS),
    ]
    return tuple(sorted(found, key=lambda c: (c.kind is ChangeKind.AWAY, c.by_m)))


def _owners_changed(
    ground: LayoutRegion, lay: Lay, ways: Ways, edge_kinds: tuple[str, ...], held: int
) -> list[Change]:
    groups: dict[str, list[int]] = {}
    for i, owner in enumerate(ground.owners):
        if owner.kind is BlockerKind.EDGE:
            groups.setdefault(f"edge {edge_kinds[int(owner.id)]}", []).append(i)
        elif owner.kind is BlockerKind.OBSTRUCTION:
            groups.setdefault(f"on it {owner.id}", []).append(i)
    found = []
    for at in groups.values():
        strip_m = float((ground.capsules[at, 4] - ground.bodies_m[at]).max())
        owners = tuple(dict.fromkeys(ground.owners[i] for i in at))

        def cut_back(by_m: float, at: list[int] = at) -> int:
            capsules = ground.capsules.copy()
            capsules[at, 4] = np.maximum(capsules[at, 4] - by_m, ground.bodies_m[at])
            return most(replace(ground, capsules=capsules), lay, ways)

        least = _least(cut_back, strip_m, held)
        if least is not None:
            edge = owners[0].kind is BlockerKind.EDGE
            kind = ChangeKind.STRIP if edge else ChangeKind.CLEARANCE
            of_kind = edge_kinds[int(owners[0].id)] if edge else ""
            found.append(_change(kind, owners, strip_m, least, of_kind))
        elif owners[0].kind is BlockerKind.OBSTRUCTION:
            without = most(_without(ground, at), lay, ways)
            if without > held:
                found.append(Change(ChangeKind.AWAY, owners, strip_m, 0.0, without))
    return found


def _without(ground: LayoutRegion, at: list[int]) -> LayoutRegion:
    """Return the ground without some capsules and the solid they go round."""
    starts = {tuple(ground.capsules[i, :2]) for i in at}
    solids = tuple(s for s in ground.solids if tuple(s[0]) not in starts)
    keep = np.setdiff1d(np.arange(len(ground.owners)), at)
    return replace(
        ground,
        capsules=ground.capsules[keep],
        owners=tuple(ground.owners[i] for i in keep),
        bodies_m=ground.bodies_m[keep],
        solids=solids,
    )


def _gap_changed(
    ground: LayoutRegion, lay: Lay, ways: Ways, held: int, kind: ChangeKind
) -> list[Change]:
    in_row = kind is ChangeKind.GAP_IN_ROW
    gap_m = lay.gap_in_row_m if in_row else lay.gap_between_rows_m

    def narrowed(by_m: float) -> int:
        closer = (
            replace(lay, gap_in_row_m=gap_m - by_m)
            if in_row
            else replace(lay, gap_between_rows_m=gap_m - by_m)
        )
        return most(ground, closer, ways)

    least = _least(narrowed, gap_m, held)
    if least is None:
        return []
    owner = Owner(BlockerKind.EXISTING, "", "gap in a row" if in_row else "gap between rows")
    return [_change(kind, (owner,), gap_m, least)]


@dataclass(frozen=True, slots=True)
class _Cut:
    """How much a distance was cut back, and how many modules there are then."""

    by_m: float
    modules: int


def _change(
    kind: ChangeKind, owners: tuple[Owner, ...], was_m: float, cut: _Cut, edge_kind: str = ""
) -> Change:
    left_m = max(was_m - cut.by_m, 0.0)
    return Change(kind, owners, cut.by_m, left_m, cut.modules, edge_kind)


def _least(count_at: Callable[[float], int], most_m: float, held: int) -> _Cut | None:
    """Return the least cut, to a millimetre, at which the count is above what is held."""
    if most_m <= STEP_M:
        return None
    best = _Cut(most_m, count_at(most_m))
    if best.modules <= held:
        return None
    low, high = 0, int(np.ceil(most_m / STEP_M))
    while high - low > 1:
        middle = (low + high) // 2
        tried = _Cut(middle * STEP_M, count_at(middle * STEP_M))
        if tried.modules > held:
            best, high = tried, middle
        else:
            low = middle
    return best
