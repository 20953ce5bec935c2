"""Fill counts against published worked layouts whose optimum was proven by a second route.

The cases (invented roofs) and their proven counts come with the project's design pages;
the second route there was an integer programme over the same rule.
"""

import json
from pathlib import Path

import numpy as np
import pytest

from ridge_tally.core.array.blockers import Ground
from ridge_tally.core.array.fill import Footprint, fill_rows
from ridge_tally.formats.outline_case import solve_outline_case

CASE = json.loads((Path(__file__).parent / "data" / "gable_plain.json").read_text())


@pytest.mark.parametrize("orientation", ["P", "L"])
def test_plain_gable_count_is_the_proven_one(orientation: str) -> None:
    corners = np.array(CASE["polygon"], dtype=float)
    capsules = [
        [*corners[i], *corners[(i + 1) % len(corners)], CASE["setbacks"][edge["kind"]]]
        for i, edge in enumerate(CASE["edges"])
    ]
    long_m, short_m = CASE["module"]["long"], CASE["module"]["short"]
    width_m, height_m = (short_m, long_m) if orientation == "P" else (long_m, short_m)
    footprint = Footprint(width_m, height_m, CASE["gap_in_row"], CASE["gap_between_rows"])
    fill = fill_rows(Ground(corners, np.array(capsules), ()), footprint)
    proven = CASE["results"]["independent"][orientation]
    assert len(fill.places_m) == proven["best"]
    assert fill.at_most == proven["upper"]


@pytest.mark.parametrize("name", ["outline_rectangle", "outline_underdetermined"])
def test_taped_outlines_come_out_as_published(name: str) -> None:
    text = (Path(__file__).parent / "data" / f"{name}.json").read_text()
    expected = json.loads(text)["expected"]
    found = solve_outline_case(text, name)
    assert found["status"] == expected["status"]
    assert found["missing"] == expected.get("missing", 0)
    if "vertices" in expected:
        assert np.abs(np.array(found["vertices"]) - expected["vertices"]).max() < expected["tol"]
        assert found["misclosure_m"] == pytest.approx(expected["traverse"]["misclosure"])
        assert found["ratio"] == pytest.approx(expected["traverse"]["ratio"], abs=0.05)
        assert (found["suspect"] is None) is expected["no_suspects"]
