"""Outline case files: spellings read, faults named with their place, the command in words."""

import json
from pathlib import Path

import numpy as np
import pytest
from click.testing import CliRunner

from ridge_tally.cli.program import main
from ridge_tally.core.errors import FormatError
from ridge_tally.formats.outline_case import solve_outline_case

SKETCH = [[0, 0], [12, 0], [12, 6], [0, 6]]
SIDES = [{"type": "side", "edge": i, "value": v} for i, v in enumerate((12.0, 6.0, 12.0, 6.0))]


def case(*more: dict, **change: object) -> str:
    return json.dumps({"sketch": SKETCH, "observations": [*SIDES, *more], **change})


@pytest.mark.parametrize("names", [{"vertices": [0, 2]}, {"from": 0, "to": 2}, {"a": 0, "b": 2}])
def test_a_diagonal_may_name_its_corners_in_any_usual_way(names: dict) -> None:
    found = solve_outline_case(case({"type": "diagonal", "value": 13.416, **names}), "c.json")
    assert (found["status"], found["missing"]) == ("ok", 0)
    assert found["vertices"][2] == pytest.approx([12, 6], abs=0.01)


def test_a_leaning_plane_told_by_offset_and_parallel() -> None:
    # Rakes of 6.5 m, 6 m square off the eave: the ridge stands sqrt(6.5² - 6²) = 2.5 m to the side.
    text = json.dumps(
        {
            "sketch": [[0, 0], [12, 0], [14, 6], [2, 6]],
            "observations": [
                {"type": "side", "edge": 0, "value": 12.0},
                {"type": "side", "edge": 1, "value": 6.5},
                {"type": "side", "edge": 3, "value": 6.5},
                {"type": "offset", "vertex": 3, "edge": 0, "value": 6.0},
                {"type": "parallel", "edges": [0, 2]},
            ],
        }
    )
    found = solve_outline_case(text, "c.json")
    assert found["vertices"] == pytest.approx(
        np.array([[0, 0], [12, 0], [14.5, 6], [2.5, 6]]), abs=1e-3
    )
    assert found["misclosure_m"] is None


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{", "this is not JSON"),
        ("[]", "no outline case"),
        ("{}", "c.json at sketch"),
        (json.dumps({"sketch": [[0, 0], [1], [2, 2]]}), "at sketch"),
        (json.dumps({"sketch": [[0, 0, 1]] * 4}), "pairs of numbers"),
        (case({"type": "guess"}), "observations.4.*The kinds are side, diagonal"),
        (case({"type": "diagonal", "value": 13.4}), "names no vertices"),
        (case({"type": "side", "edge": 0, "value": "long"}), "observations.4.value"),
        (case({"type": "right_angle", "vertex": "x"}), "no whole number"),
    ],
)
def test_faults_are_named_with_their_place(text: str, says: str) -> None:
    with pytest.raises(FormatError, match=says):
        solve_outline_case(text, "c.json")


def run(tmp_path: Path, text: str, *words: str):
    file = tmp_path / "case.json"
    file.write_text(text)
    return CliRunner().invoke(main, ["outline", str(file), *words])


def test_the_command_prints_json_with_every_answer(tmp_path: Path) -> None:
    answer = json.loads(run(tmp_path, case(), "--json").stdout)
    assert set(answer) >= {
        "vertices", "misclosure_m", "ratio", "residuals_m", "sigma0", "global_test", "suspect",
        "predicted", "missing", "loose_vertices",
    }  # fmt: skip


def test_the_command_speaks(tmp_path: Path) -> None:
    hinge = run(tmp_path, case()).stdout
    assert "1 more reading(s) needed: corners 2 and 3 can still move" in hinge
    assert "a diagonal from 0 to 2 would fix one" in hinge
    square = [{"type": "right_angle", "vertex": i} for i in range(4)]
    wide = run(tmp_path, case(*square, headings_deg=[0, 90, 180, 270])).stdout
    assert "corner 2: 12.000 6.000 m" in wide
    refused = run(tmp_path, case({"type": "side", "edge": 0, "value": -1}))
    assert refused.exit_code == 2
    assert "Reading 5" in refused.output
