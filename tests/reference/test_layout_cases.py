"""Fill counts against published worked layouts whose optimum was proven by a second route.

The cases (invented roofs) and their proven counts come with the project's design pages; the
second route there was an integer programme over the same rule.  Without rows the published
count is the best found, and the published ceiling was a relaxed integer programme.
"""

import json
from pathlib import Path

import numpy as np
import pytest
from click.testing import CliRunner

from core.roofs import legal_by_shapely
from ridge_tally.cli.program import main
from ridge_tally.core.array.fill import fill
from ridge_tally.core.array.lay import Place, after_steps
from ridge_tally.core.array.legal import shortfalls
from ridge_tally.core.job.array import Orientation, RowRule, Ways
from ridge_tally.formats.layout_case import read_layout_case
from ridge_tally.formats.outline_case import solve_outline_case

DATA = Path(__file__).parent / "data"
CASES = ("gable_plain", "dormer_notch", "ground_table")


def published(name: str) -> dict:
    return json.loads((DATA / f"{name}.json").read_text())["results"]


@pytest.mark.parametrize("name", CASES)
@pytest.mark.parametrize("ways", list(Ways))
@pytest.mark.parametrize("rule", [RowRule.INDEPENDENT, RowRule.ALIGNED])
def test_counts_with_rows_are_the_proven_ones(name: str, ways: Ways, rule: RowRule) -> None:
    case = read_layout_case((DATA / f"{name}.json").read_text(), name)
    found = fill(case.ground, case.lay, ways, rule)
    proven = published(name)[rule][ways]
    assert (found.count, found.at_most) == (proven["best"], proven["upper"])
    assert legal_by_shapely(case.ground, case.lay, found.places)


@pytest.mark.parametrize("name", CASES)
def test_without_rows_no_fewer_are_found_under_no_higher_ceiling(name: str) -> None:
    case = read_layout_case((DATA / f"{name}.json").read_text(), name)
    found = fill(case.ground, case.lay, Ways.MIXED, RowRule.FREE, after_steps(2000))
    known = published(name)["free"]["PL"]
    assert found.count >= known["best"]
    assert known["best"] <= found.at_most <= known["upper"]
    assert legal_by_shapely(case.ground, case.lay, found.places)


def test_the_command_line_answers_a_case_file() -> None:
    ask = ["fill", str(DATA / "dormer_notch.json"), "--rule", "aligned", "--orientation", "PL"]
    answer = json.loads(CliRunner().invoke(main, [*ask, "--steps", "50", "--json"]).output)
    assert (answer["count"], answer["bound"], answer["proven"]) == (17, 17, True)
    places = tuple(Place(x, y, Orientation(way)) for x, y, way in answer["placements"])
    case = read_layout_case((DATA / "dormer_notch.json").read_text(), "dormer_notch")
    assert legal_by_shapely(case.ground, case.lay, places)
    moved = (Place(places[0].x_m - 0.05, places[0].y_m, places[0].orientation), *places[1:])
    assert any(shortfalls(case.ground, case.lay, moved)) is not legal_by_shapely(
        case.ground, case.lay, moved
    )


@pytest.mark.parametrize("name", ["outline_rectangle", "outline_underdetermined"])
def test_taped_outlines_come_out_as_published(name: str) -> None:
    text = (DATA / f"{name}.json").read_text()
    expected = json.loads(text)["expected"]
    found = solve_outline_case(text, name)
    assert found["status"] == expected["status"]
    assert found["missing"] == expected.get("missing", 0)
    if "vertices" in expected:
        assert np.abs(np.array(found["vertices"]) - expected["vertices"]).max() < expected["tol"]
        assert found["misclosure_m"] == pytest.approx(expected["traverse"]["misclosure"])
        assert found["ratio"] == pytest.approx(expected["traverse"]["ratio"], abs=0.05)
        assert (found["suspect"] is None) is expected["no_suspects"]
