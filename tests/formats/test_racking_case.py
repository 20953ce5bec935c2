"""Racking case files: answers in the case's own unit, and bad input by its place."""

import json
from typing import Any

import pytest

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.formats.racking_case import solve_racking_case

RAIL = {"L": 250, "first": 7, "step": 24, "span": 72, "cant": 36}
LINE = {"L": 100, "mounts": [10, 50, 90]}
CUT = {"lines": [LINE], "stock": [{"len": 168}], "rules": {"kerf": 0.125, "min_piece": 24}}


def solved(op: str, case: dict[str, Any], unit: str = "in") -> dict[str, Any]:
    text = json.dumps({"units": unit, "steps": [{"op": op, "input": case}]})
    (answer,) = solve_racking_case(text, "case.json", op)
    return answer


def test_mounts_stand_on_the_supports_named_in_the_cases_own_unit() -> None:
    answer = solved("mounts", {"rails": [{**RAIL, "unusable": [103]}, RAIL]})
    assert answer["feasible"]
    assert (answer["total"], answer["per_rail"], answer["shared"]) == (8, [4, 4], 0)
    assert all(x != 103 and (x - 7) % 24 == 0 for x in answer["positions"][0])


def test_what_cannot_be_mounted_names_its_hole_and_its_bare_end() -> None:
    rail = {"L": 200, "supports": [30, 54, 130, 154, 190], "span": 48, "cant": 12}
    answer = solved("mounts", {"rails": [rail, rail]})
    assert not answer["feasible"]
    assert answer["holes"] == [[54, 130]]
    assert answer["cantilevers"][0] == {"rail": 0, "end": "left", "nearest": 30, "limit": 12}


def test_a_cut_answers_with_its_sticks() -> None:
    answer = solved("cut", CUT)
    assert answer["by_stock"] == {"168": 1}
    # 168 less 100 less the saw: nothing is lost to rounding.
    assert answer["left"] == [67.875]
    assert answer["proven"]


@pytest.mark.parametrize(
    ("op", "case", "told"),
    [
        ("mounts", {"rails": []}, "steps[0].input.rails: there are none"),
        ("mounts", {"rails": [{"L": 100, "first": 7, "step": 24, "cant": 3}]}, "rails[0].span"),
        ("mounts", {"rails": [{**RAIL, "span": 0}]}, "span[0]"),
        ("mounts", {"rails": [{**RAIL, "span": [[0, 1]]}]}, "Give [from, to, limit]"),
        ("mounts", {"rails": [{**RAIL, "step": 0}]}, "rails[0].step"),
        ("mounts", {"rails": [{**RAIL, "L": -1}]}, "rails[0].L"),
        ("mounts", {"rails": [{**RAIL, "L": 1e400}]}, "rails[0].L"),
        ("mounts", {"rails": [{**RAIL, "min_mounts": "two"}]}, "Give a whole number"),
        ("mounts", {"rails": [{"L": 10, "supports": [1] * 500, "span": 4, "cant": 1}]}, "at most 400"),
        ("cut", {**CUT, "stock": [{"len": 20}]}, "a stick longer than the least piece"),
        ("cut", {**CUT, "stock": [{"len": 168, "have": 10_000}]}, "from 0 to 500"),
        ("cut", {**CUT, "stock": [{"len": 168, "have": 400}] * 2}, "pieces at hand"),
        ("cut", {**CUT, "lines": [{"L": 100}]}, "lines[0].mounts"),
        ("cut", {**CUT, "rules": {"reuse": 1}}, "Write true or false"),
    ],
)  # fmt: skip
def test_bad_input_names_its_place_and_the_remedy(op: str, case: dict[str, Any], told: str) -> None:
    with pytest.raises(RidgeTallyError) as caught:
        solved(op, case)
    assert told in str(caught.value)


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("{", "this is not JSON"),
        ("[]", "there is no list of them"),
        ('{"steps": []}', "Write mm, m, in or ft"),
        ('{"units": "mm", "steps": [{"op": "cut"}]}', "none asks for mounts"),
        ('{"units": "mm", "steps": [{"op": "mounts", "input": 3}]}', "Give an object"),
    ],
)
def test_a_file_that_is_no_case_says_so(text: str, told: str) -> None:
    with pytest.raises(RidgeTallyError) as caught:
        solve_racking_case(text, "case.json", "mounts")
    assert told in str(caught.value)
