"""Outlines from tape readings: hand-worked rectangles, truth by construction, planted blunders."""

import math
from itertools import combinations

import numpy as np
import pytest

from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.survey.adjustment import (
    Reading,
    ReadingKind,
    adjust_outline,
    reading_sd_m,
    walk_traverse,
)

SIDE, DIAGONAL, SQUARE = ReadingKind.SIDE, ReadingKind.DIAGONAL, ReadingKind.RIGHT_ANGLE
OBLONG = np.array([[0.0, 0.0], [12.0, 0.0], [12.0, 6.0], [0.0, 6.0]])
HIP = np.array([[0.0, 0.0], [12.4, 0.0], [9.4, 6.2], [3.1, 6.2]])
ELL = np.array([[0, 0], [11.0, 0], [11.0, 4.2], [6.3, 4.2], [6.3, 8.9], [0, 8.9]], dtype=float)


def sides(corners: np.ndarray) -> list[Reading]:
    ends = np.roll(corners, -1, axis=0)
    return [
        Reading(SIDE, (i,), float(np.hypot(*(b - a))))
        for i, (a, b) in enumerate(zip(corners, ends, strict=True))
    ]


def diagonals(corners: np.ndarray, *pairs: tuple[int, int]) -> list[Reading]:
    return [
        Reading(DIAGONAL, (a, b), float(np.hypot(*(corners[b] - corners[a])))) for a, b in pairs
    ]


def every_diagonal(corners: np.ndarray) -> list[Reading]:
    n = len(corners)
    return diagonals(
        corners, *[(a, b) for a, b in combinations(range(n), 2) if b - a not in (1, n - 1)]
    )


def taped(readings: list[Reading], seed: int) -> list[Reading]:
    chosen = np.random.default_rng(seed)
    return [
        Reading(r.kind, r.at, r.value_m + chosen.normal(0, reading_sd_m(r.value_m)))
        for r in readings
    ]


@pytest.mark.parametrize("truth", [OBLONG, HIP, ELL])
def test_true_readings_give_the_true_outline(truth: np.ndarray) -> None:
    rough = truth * 0.3 + np.random.default_rng(3).normal(0, 0.15, truth.shape)
    found = adjust_outline(rough, tuple(sides(truth) + every_diagonal(truth)))
    assert found.corners_m == pytest.approx(truth, abs=1e-6)
    assert found.sigma0 == pytest.approx(0, abs=1e-4)
    assert (found.missing, found.suspect, found.global_test) == (0, None, True)


def test_a_mirrored_sketch_gives_the_mirrored_outline() -> None:
    mirrored = HIP * [1, -1]
    found = adjust_outline(mirrored, tuple(sides(HIP) + every_diagonal(HIP)))
    assert found.corners_m == pytest.approx(mirrored, abs=1e-6)


def test_a_rectangle_worked_by_hand() -> None:
    # Opposite sides read 10.00 and 10.02, 6.00 and 6.00, all corners locked square: the
    # means are the best lengths, 10.01 and 6.00, and the residuals ten millimetres each.
    readings = [Reading(SIDE, (i,), v) for i, v in enumerate((10.00, 6.00, 10.02, 6.00))]
    readings += [Reading(SQUARE, (i,)) for i in range(4)]
    found = adjust_outline(OBLONG, tuple(readings), square_sd_deg=0.001)
    assert found.corners_m[2] == pytest.approx((10.01, 6.00), abs=5e-4)
    assert found.residuals_m[0] == pytest.approx(0.010, abs=5e-4)
    assert found.residuals_m[2] == pytest.approx(-0.010, abs=5e-4)
    assert found.redundancy == 3


def test_corners_lie_within_three_standard_deviations_as_often_as_statistics_says() -> None:
    within, coordinates = 0, 0
    for seed in range(60):
        found = adjust_outline(HIP, tuple(taped(sides(HIP) + every_diagonal(HIP), seed)))
        error = np.hypot(*(found.corners_m - HIP)[1:].T)
        within += int(np.sum(error <= 3 * np.array(found.sd_m[1:])))
        coordinates += 3
    # Along the larger axis three standard deviations hold 99.7 %, over both axes more than 98.9 %.
    assert within / coordinates > 0.98


def test_the_global_test_passes_about_as_often_as_it_should() -> None:
    passed = sum(
        adjust_outline(ELL, tuple(taped(sides(ELL) + every_diagonal(ELL), seed))).global_test
        is True
        for seed in range(40)
    )
    assert passed >= 35


@pytest.mark.parametrize("wrong", range(4))
def test_a_planted_blunder_is_named_with_what_it_should_have_read(wrong: int) -> None:
    readings = taped(sides(ELL) + every_diagonal(ELL), 11)
    true_m = sides(ELL)[wrong].value_m
    readings[wrong] = Reading(SIDE, (wrong,), true_m + 0.30)
    found = adjust_outline(ELL, tuple(readings))
    assert found.suspect == wrong
    assert found.global_test is False
    assert found.predicted_m == pytest.approx(true_m, abs=0.03)


def test_with_one_reading_to_spare_none_is_blamed() -> None:
    readings = sides(HIP) + diagonals(HIP, (0, 2), (1, 3))
    readings[1] = Reading(SIDE, (1,), readings[1].value_m + 0.30)
    found = adjust_outline(HIP, tuple(readings))
    assert (found.redundancy, found.suspect, found.global_test) == (1, None, False)


def test_four_sides_are_a_hinge_and_either_diagonal_fixes_it() -> None:
    found = adjust_outline(HIP, tuple(sides(HIP)))
    assert (found.missing, found.loose, found.redundancy) == (1, (2, 3), 0)
    assert found.would_fix == ((0, 2), (1, 3))
    assert found.global_test is None
    fixed = adjust_outline(HIP, tuple(sides(HIP) + diagonals(HIP, (0, 2))))
    assert (fixed.missing, fixed.loose) == (0, ())


def test_a_missing_side_is_as_loose_as_it_is() -> None:
    found = adjust_outline(ELL, tuple(sides(ELL)[:-1]))
    assert found.missing == 4
    assert 5 in found.loose


def test_offsets_parallels_and_corners_on_a_line_count_as_readings() -> None:
    readings = [
        Reading(SIDE, (0,), 12.0),
        Reading(ReadingKind.OFFSET, (2, 0), 6.0),
        Reading(ReadingKind.OFFSET, (3, 0), 6.0),
        Reading(SIDE, (1,), 6.0),
        Reading(SIDE, (3,), 6.0),
    ]
    found = adjust_outline(OBLONG * 0.9, tuple(readings))
    assert found.corners_m == pytest.approx(OBLONG, abs=2e-3)
    parallel = Reading(ReadingKind.PARALLEL, (0, 2))
    assert adjust_outline(OBLONG, (*readings, parallel)).redundancy == found.redundancy + 1


@pytest.mark.parametrize(
    ("sketch", "readings", "error", "says"),
    [
        (OBLONG[:2], (), BadGeometry, "2 corners"),
        (OBLONG[[0, 2, 1, 3]], (), BadGeometry, "crosses itself"),
        (OBLONG, (Reading(SIDE, (0,), 0.0),), OutOfRange, "Reading 1, length in metres reads 0"),
        (OBLONG, (Reading(SIDE, (0,), -3.0),), OutOfRange, "more than 0"),
        (OBLONG, (Reading(SIDE, (9,), 3.0),), OutOfRange, "corner or edge reads 9"),
    ],
)
def test_what_cannot_be_is_refused(sketch, readings, error, says) -> None:
    with pytest.raises(error, match=says):
        adjust_outline(sketch, readings)


def test_a_walk_along_drawn_headings() -> None:
    walked = walk_traverse((10.02, 5.48, 9.97, 5.51), (0, 90, 180, 270))
    assert walked.misclosure_m == pytest.approx((0.05, -0.03))
    assert walked.ratio == pytest.approx(30.98 / math.hypot(0.05, 0.03))
    assert walk_traverse((3, 4, 3, 4), (0, 90, 180, 270)).ratio == math.inf
