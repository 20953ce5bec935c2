"""Corners of an outline from tape readings: weighted least squares, and what the readings say.

The first corner is the origin and the first edge lies along +x; the outline runs the way the
sketch does.  Nothing is invented: where the readings leave corners loose, they are named.
"""

import math
from dataclasses import dataclass, replace
from itertools import combinations

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares
from scipy.stats import chi2

from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.job.survey import ReadingKind
from ridge_tally.core.survey.polygon import area_m2, crosses_itself
from ridge_tally.core.survey.readings import LENGTHS, Reading, misfit, turn_at

FloatArray = NDArray[np.float64]

# Usual errors of a tape on a roof and of a corner drawn square; common practice, no source.
TAPE_M, TAPE_SHARE = 0.005, 0.001
SQUARE_DEG, LOCKED_SQUARE_DEG = 0.3, 0.02
SUSPECT_AT = 3.29
# Below this local redundancy the other readings say nothing of one.
CONTROLLED = 1e-3
# Corners of a sketch closer than this are one.
SHORTEST_SIDE_M = 0.001
GLOBAL_LEVEL = 0.95
STARTS = 8
# A search that has not settled by then does not fit; another start may.
MOST_STEPS = 60
# A unit direction of no resistance that changes a length by less than this leaves it alone.
LOOSE_M = 1e-6


@dataclass(frozen=True, slots=True)
class Traverse:
    """How far the sides fail to close when walked along drawn headings."""

    misclosure_m: tuple[float, float]
    ratio: float


@dataclass(frozen=True, slots=True)
class Adjusted:
    """The adjusted outline.

    ``residuals_m`` hold adjusted less read for lengths, ``None`` for the rest.  ``sd_m`` are the
    corners' standard deviations (larger axis), ``area_sd_m2`` the area's.  ``checked`` tells
    which readings the others check.  ``missing`` readings are needed to fix the ``loose`` corners; ``would_fix`` are diagonals that would.  ``suspect`` is the reading most
    likely wrong and ``predicted_m`` what the others say it should have read.  ``global_test``
    is ``None`` without redundancy.
    """

    corners_m: FloatArray
    residuals_m: tuple[float | None, ...]
    sd_m: tuple[float, ...]
    area_sd_m2: float | None
    checked: tuple[bool, ...]
    redundancy: int
    sigma0: float | None
    global_test: bool | None
    suspect: int | None
    predicted_m: float | None
    missing: int
    loose: tuple[int, ...]
    would_fix: tuple[tuple[int, int], ...]


def reading_sd_m(value_m: float) -> float:
    """Return a tape reading's standard deviation."""
    return math.hypot(TAPE_M, TAPE_SHARE * value_m)


def adjust_outline(
    sketch: FloatArray, readings: tuple[Reading, ...], square_sd_deg: float = SQUARE_DEG
) -> Adjusted:
    """Return the outline that fits the readings best, and how far they can be trusted.

    Parameters
    ----------
    sketch : (n, 2) float
        Corners as drawn, any scale, in order round the outline; it gives the turning sense
        and the starting point.
    readings : tuple of Reading
        Lengths in metres.
    square_sd_deg : float
        How far a corner drawn square, or edges drawn parallel, may be off.

    Raises
    ------
    OutOfRange
        A length of zero or less, or a corner or edge that is not there.
    BadGeometry
        A sketch of fewer than three corners or one that crosses itself, or readings that no
        outline of the sketch's shape can meet.

    Notes
    -----
    min sum((f(x) - l) / sd)^2 over the corners, datum as above.  Redundancy r = readings -
    rank; sigma0 = sqrt(v'Pv / r), held against the upper of chi-square's two-sided 95 % limits;
    standardised residual w = v / (sd sqrt(local redundancy)), suspect above 3.29 (Baarda 1968,
    from memory).  With r = 1 all tie and none is named.
    """
    _require_sound(sketch, readings)
    problem = _Problem(sketch, readings, square_sd_deg)
    solution = problem.solve()
    jacobian = problem.jacobian(solution)
    rank, null = _rank_and_null(jacobian)
    corners = problem.corners(solution)
    missing = jacobian.shape[1] - rank
    loose = problem.moved_by(null)
    scaled = problem.misfits(solution)
    redundancy = len(readings) - rank
    weighted = float(scaled @ scaled)
    sigma0 = math.sqrt(weighted / redundancy) if redundancy else None
    local = _local_redundancy(jacobian)
    suspect = None if missing else _suspect(local, scaled, redundancy)
    return Adjusted(
        corners_m=corners,
        residuals_m=tuple(
            float(v * sd) if r.kind in LENGTHS else None
            for r, v, sd in zip(readings, scaled, problem.sds, strict=True)
        ),
        sd_m=problem.corner_sds(jacobian) if not missing else (),
        area_sd_m2=problem.area_sd_m2(jacobian, corners) if not missing else None,
        checked=tuple(bool(r > CONTROLLED) for r in local),
        redundancy=redundancy,
        sigma0=sigma0,
        global_test=_fits_together(weighted, redundancy),
        suspect=suspect,
        predicted_m=_predicted(corners, readings, square_sd_deg, suspect),
        missing=missing,
        loose=loose,
        would_fix=problem.fixing_diagonals(null, corners) if missing else (),
    )


def walk_traverse(side_m: tuple[float, ...], headings_deg: tuple[float, ...]) -> Traverse:
    """Return the misclosure of sides walked along headings (degrees, anticlockwise from +x).

    The ratio is the perimeter over the misclosure; infinite when it closes.
    """
    angles = np.radians(headings_deg)
    lengths = np.asarray(side_m)
    error = np.array([np.sum(lengths * np.cos(angles)), np.sum(lengths * np.sin(angles))])
    size = float(np.hypot(*error))
    ratio = float(lengths.sum()) / size if size > 1e-12 else math.inf
    return Traverse((float(error[0]), float(error[1])), ratio)


def _require_sound(sketch: FloatArray, readings: tuple[Reading, ...]) -> None:
    count = len(sketch)
    if count < 3:
        raise BadGeometry("Outline", f"{count} corners make no outline", "Draw at least three.")
    if crosses_itself(sketch):
        raise BadGeometry(
            "Outline", "the sketch crosses itself", "Move a corner so that it does not."
        )
    for corner in range(count):
        after = (corner + 1) % count
        if not _length(sketch, corner, after) >= SHORTEST_SIDE_M:
            raise BadGeometry(
                "Outline",
                f"corners {corner + 1} and {after + 1} lie on one another",
                "Draw them apart, or take one out.",
            )
    for number, reading in enumerate(readings, start=1):
        positive = reading.kind in LENGTHS and reading.kind is not ReadingKind.ALONG
        if positive and not reading.value_m > 0:
            raise OutOfRange(f"Reading {number}, length in metres", reading.value_m, "more than 0")
        for place in reading.at:
            if not 0 <= place < count:
                raise OutOfRange(f"Reading {number}, corner or edge", place, f"0 to {count - 1}")


class _Problem:
    """The misfits of an outline as functions of its free coordinates."""

    def __init__(
        self, sketch: FloatArray, readings: tuple[Reading, ...], square_sd_deg: float
    ) -> None:
        self.count = len(sketch)
        self.readings = readings
        self.clockwise = area_m2(sketch) < 0
        self.start = _laid_out(sketch, readings)
        self.turn_signs = [math.copysign(1.0, turn_at(self.start, i)) for i in range(self.count)]
        angle = math.radians(square_sd_deg)
        self.sds = [
            reading_sd_m(r.value_m)
            if r.kind in LENGTHS
            else TAPE_M
            if r.kind is ReadingKind.ON_LINE
            else angle
            for r in readings
        ]

    def corners(self, free: FloatArray) -> FloatArray:
        """Return (n, 2) corners: the first at the origin, the second on +x."""
        flat = np.concatenate([[0.0, 0.0, free[0], 0.0], free[1:]])
        return flat.reshape(self.count, 2)

    def free(self, corners: FloatArray) -> FloatArray:
        """Return the free coordinates of corners in the datum."""
        return np.concatenate([[corners[1, 0]], corners[2:].ravel()])

    def misfits(self, free: FloatArray) -> FloatArray:
        """Return (m,) misfits over their standard deviations."""
        points = self._points(free)
        return np.array(
            [
                misfit(points, r, self._turn_sign(r))[0] / sd
                for r, sd in zip(self.readings, self.sds, strict=True)
            ]
        )

    def jacobian(self, free: FloatArray) -> FloatArray:
        """Return (m, u) derivatives of the misfits."""
        points = self._points(free)
        full = np.zeros((len(self.readings), 2 * self.count))
        for row, (reading, sd) in enumerate(zip(self.readings, self.sds, strict=True)):
            for corner, x, y in misfit(points, reading, self._turn_sign(reading))[1]:
                full[row, 2 * corner] += x / sd
                full[row, 2 * corner + 1] += y / sd
        # The first corner and the second's height are fixed by the datum.
        return np.delete(full, [0, 1, 3], axis=1)

    def _points(self, free: FloatArray) -> list[tuple[float, float]]:
        return [(float(x), float(y)) for x, y in self.corners(free)]

    def _turn_sign(self, reading: Reading) -> float:
        return self.turn_signs[reading.at[0]]

    def solve(self) -> FloatArray:
        """Return the best simple outline that turns as the sketch does.

        Other starts are tried only when the sketch leads to readings that do not fit.
        """
        if not self.readings:
            return self.free(self.start)
        chosen = np.random.default_rng(1)
        size = float(np.ptp(self.start, axis=0).max())
        best, best_cost = None, math.inf
        enough = chi2.ppf(GLOBAL_LEVEL, max(len(self.readings) - len(self.free(self.start)), 1))
        for attempt in range(STARTS + 1):
            start = self.start.copy()
            if attempt:
                start += chosen.normal(0, 0.08 * size, start.shape)
            found = least_squares(
                self.misfits, self.free(start), self.jacobian,
                xtol=1e-11, ftol=1e-11, gtol=1e-11, max_nfev=MOST_STEPS,
            )  # fmt: skip
            corners = self.corners(found.x)
            right_way = (area_m2(corners) < 0) is self.clockwise and corners[1, 0] > 0
            sound = right_way and not crosses_itself(corners)
            # A second start that ends where the best one did says that no better is to be had.
            again = sound and math.isclose(found.cost, best_cost, rel_tol=1e-4)
            if sound and found.cost < best_cost:
                best, best_cost = found.x, float(found.cost)
            if again or (best is not None and 2 * best_cost < enough):
                break
        if best is None:
            raise BadGeometry(
                "Outline", "no outline of this shape meets the readings", "Re-measure the sides."
            )
        return np.asarray(best)

    def moved_by(self, null: FloatArray) -> tuple[int, ...]:
        """Return the corners that the directions of no resistance move."""
        moved: set[int] = set()
        for direction in null:
            shifts = self.corners(direction)
            size = np.hypot(shifts[:, 0], shifts[:, 1])
            moved.update(int(i) for i in np.flatnonzero(size > 1e-3 * size.max()))
        return tuple(sorted(moved))

    def corner_sds(self, jacobian: FloatArray) -> tuple[float, ...]:
        """Return the larger semi-axis of each corner's standard ellipse, metres."""
        cofactors = np.linalg.pinv(jacobian.T @ jacobian)
        place = np.full((self.count, 2), -1)
        place[1, 0] = 0
        place[2:] = np.arange(1, jacobian.shape[1]).reshape(-1, 2)
        found = []
        for pair in place:
            known = [int(i) for i in pair if i >= 0]
            block = cofactors[np.ix_(known, known)]
            found.append(math.sqrt(float(np.linalg.eigvalsh(block)[-1])) if known else 0.0)
        return tuple(found)

    def area_sd_m2(self, jacobian: FloatArray, corners: FloatArray) -> float:
        """Return the area's standard deviation: sqrt(g' Q g), g its pull by each coordinate."""
        across = np.roll(corners, -1, axis=0) - np.roll(corners, 1, axis=0)
        pull = self.free(np.column_stack([across[:, 1], -across[:, 0]]) / 2)
        cofactors = np.linalg.pinv(jacobian.T @ jacobian)
        return math.sqrt(max(float(pull @ cofactors @ pull), 0.0))

    def fixing_diagonals(
        self, null: FloatArray, corners: FloatArray
    ) -> tuple[tuple[int, int], ...]:
        """Return the diagonals any one of which would take away a loose direction.

        A reading does so if some direction of no resistance would change it.
        """
        shifts = np.array([self.corners(direction) for direction in null])
        found = []
        for a, b in combinations(range(self.count), 2):
            if b - a in (1, self.count - 1):
                continue
            run = corners[b] - corners[a]
            change = (shifts[:, b] - shifts[:, a]) @ (run / max(float(np.hypot(*run)), 1e-9))
            if np.abs(change).max() > LOOSE_M:
                found.append((a, b))
        return tuple(found)


def _rank_and_null(jacobian: FloatArray) -> tuple[int, FloatArray]:
    _, sizes, directions = np.linalg.svd(jacobian, full_matrices=True)
    # A misfit moves by 200 standard deviations a metre; a thousandth of one is no resistance.
    rank = int(np.sum(sizes > 1e-5 * max(float(sizes.max(initial=0.0)), 1.0)))
    return rank, directions[rank:]


def _local_redundancy(jacobian: FloatArray) -> FloatArray:
    """Return (m,) how much of each reading the others know: 0 not at all, 1 wholly."""
    return np.asarray(1 - np.diag(jacobian @ np.linalg.pinv(jacobian)))


def _suspect(local: FloatArray, scaled: FloatArray, redundancy: int) -> int | None:
    if redundancy < 2:
        return None
    standard = np.where(local > CONTROLLED, np.abs(scaled) / np.sqrt(np.maximum(local, 1e-12)), 0.0)
    worst, second = np.argsort(-standard)[:2]
    tie = standard[worst] - standard[second] < 1e-3 * standard[worst]
    return int(worst) if standard[worst] > SUSPECT_AT and not tie else None


def _predicted(
    sketch: FloatArray, readings: tuple[Reading, ...], square_sd_deg: float, suspect: int | None
) -> float | None:
    """Return what the suspect length should have read, by the readings without it."""
    if suspect is None or readings[suspect].kind not in LENGTHS:
        return None
    others = readings[:suspect] + readings[suspect + 1 :]
    problem = _Problem(sketch, others, square_sd_deg)
    solution = problem.solve()
    if _rank_and_null(problem.jacobian(solution))[0] < len(solution):
        return None
    # A misfit against nothing is the length itself.
    bare = replace(readings[suspect], value_m=0.0)
    return misfit([(x, y) for x, y in problem.corners(solution).tolist()], bare, 1.0)[0]


def _fits_together(weighted: float, redundancy: int) -> bool | None:
    if redundancy == 0:
        return None
    tail = (1 - GLOBAL_LEVEL) / 2
    return bool(weighted <= chi2.ppf(1 - tail, redundancy))


def _laid_out(sketch: FloatArray, readings: tuple[Reading, ...]) -> FloatArray:
    """Return the sketch turned and scaled onto the datum: a start for the search."""
    count = len(sketch)
    first = sketch[1] - sketch[0]
    angle = -math.atan2(first[1], first[0])
    turn = np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])
    shape = (sketch - sketch[0]) @ turn.T
    scales = [
        r.value_m / _length(shape, r.at[0], (r.at[0] + 1) % count)
        for r in readings
        if r.kind is ReadingKind.SIDE
    ]
    return np.asarray(shape * (float(np.median(scales)) if scales else 1.0))


def _length(corners: FloatArray, a: int, b: int) -> float:
    return float(np.hypot(*(corners[b] - corners[a])))
