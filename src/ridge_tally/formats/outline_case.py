"""Outline case files: a sketch with its readings in, the adjusted outline out, both JSON."""

from typing import Any

import numpy as np

from ridge_tally.core.errors import FormatError
from ridge_tally.core.survey.adjustment import (
    LENGTHS,
    SQUARE_DEG,
    Adjusted,
    Reading,
    ReadingKind,
    Traverse,
    adjust_outline,
    walk_traverse,
)
from ridge_tally.formats.case_file import read_case

# How a reading may name what it joins; the first spelling present is taken.
PLACES = {
    ReadingKind.SIDE: (("edge",), ("side",)),
    ReadingKind.DIAGONAL: (("vertices",), ("from", "to"), ("a", "b"), ("i", "j")),
    ReadingKind.OFFSET: (("vertex", "edge"),),
    ReadingKind.RIGHT_ANGLE: (("vertex",),),
    ReadingKind.PARALLEL: (("edges",), ("edge", "other"), ("a", "b")),
    ReadingKind.ON_LINE: (("vertex", "edge"),),
}
KINDS = {
    "perpendicular_offset": ReadingKind.OFFSET,
    "perp_offset": ReadingKind.OFFSET,
    "point_on_line": ReadingKind.ON_LINE,
}


def solve_outline_case(text: str, file: str) -> dict[str, Any]:
    """Return the adjusted outline of a case file as plain values.

    Raises
    ------
    FormatError
        Naming the place in the file.
    BadGeometry, OutOfRange
        If the readings cannot be.
    """
    case = _object(text, file)
    sketch = _sketch(case, file)
    readings = tuple(
        _reading(row, file, number) for number, row in enumerate(case.get("observations", []))
    )
    adjusted = adjust_outline(sketch, readings, float(case.get("angle_deg", SQUARE_DEG)))
    return _answer(adjusted, readings, _traverse(case, readings, len(sketch)))


def _object(text: str, file: str) -> dict[str, Any]:
    case = read_case(text, file)
    if not isinstance(case, dict):
        raise FormatError(file, "", "this is no outline case", "It holds sketch and observations.")
    return case


def _sketch(case: dict[str, Any], file: str) -> np.ndarray:
    try:
        sketch = np.array(case["sketch"], dtype=float)
    except (KeyError, TypeError, ValueError):
        raise FormatError(file, "sketch", "no list of corners", "Give [[x, y], …].") from None
    if sketch.ndim != 2 or sketch.shape[1] != 2 or not np.isfinite(sketch).all():
        raise FormatError(file, "sketch", "corners are not pairs of numbers", "Give [[x, y], …].")
    return sketch


def _reading(row: Any, file: str, number: int) -> Reading:
    place = f"observations.{number}"
    try:
        name = str(row["type"]).replace("-", "_").replace(" ", "_")
        kind = KINDS.get(name) or ReadingKind(name)
    except (KeyError, TypeError, ValueError):
        kinds = ", ".join(ReadingKind)
        raise FormatError(file, place, "no kind of reading", f"The kinds are {kinds}.") from None
    for names in PLACES[kind]:
        if all(name in row for name in names):
            values = [row[name] for name in names]
            break
    else:
        wanted = " and ".join(PLACES[kind][0])
        raise FormatError(file, place, f"{kind} names no {wanted}", "Add it, counted from 0.")
    joined = values[0] if isinstance(values[0], list) else values
    value = row.get("value", 0.0)
    if kind in LENGTHS and (isinstance(value, bool) or not isinstance(value, int | float)):
        raise FormatError(file, f"{place}.value", "no length in metres", "Type the reading.")
    try:
        return Reading(kind, tuple(int(v) for v in joined), float(value))
    except (TypeError, ValueError):
        raise FormatError(file, place, "a corner is no whole number", "Count from 0.") from None


def _traverse(case: dict[str, Any], readings: tuple[Reading, ...], count: int) -> Traverse | None:
    """Return the walk along drawn headings, where each side is read and has one."""
    headings = case.get("headings_deg")
    sides = {r.at[0]: r.value_m for r in readings if r.kind is ReadingKind.SIDE}
    if not isinstance(headings, list) or len(headings) != count or len(sides) != count:
        return None
    return walk_traverse(tuple(sides[i] for i in range(count)), tuple(float(h) for h in headings))


def _answer(
    adjusted: Adjusted, readings: tuple[Reading, ...], traverse: Traverse | None
) -> dict[str, Any]:
    suspect = adjusted.suspect
    ratio = traverse.ratio if traverse is not None and np.isfinite(traverse.ratio) else None
    tests = {None: "not possible", True: "passed", False: "rejected"}
    return {
        "status": "underdetermined" if adjusted.missing else "ok",
        # What the readings leave loose is not given as a shape.
        "vertices": None
        if adjusted.missing
        else [[round(float(x), 5), round(float(y), 5)] for x, y in adjusted.corners_m],
        "misclosure_m": [round(e, 6) for e in traverse.misclosure_m] if traverse else None,
        "ratio": ratio,
        "residuals_m": [None if v is None else round(v, 6) for v in adjusted.residuals_m],
        "sigma0": adjusted.sigma0,
        "global_test": tests[adjusted.global_test],
        "suspect": None
        if suspect is None
        else {"index": suspect, "type": readings[suspect].kind.value, "at": readings[suspect].at},
        "predicted": adjusted.predicted_m,
        "missing": adjusted.missing,
        "loose_vertices": list(adjusted.loose),
        "would_fix": [list(pair) for pair in adjusted.would_fix],
        "sd_m": list(adjusted.sd_m),
    }
