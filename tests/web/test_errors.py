"""The table from error to answer: complete, and every sentence says value and remedy."""

import pytest

from ridge_tally.core import errors
from ridge_tally.web.errors import STATUS, from_core

EXAMPLES = [
    (errors.OutOfRange("Slope", 95.0, "below 90", "Read it again."), 422, "Slope reads 95, but it must be below 90. Read it again."),
    (errors.NotUnderstood("Eave", "x", "a length"), 422, "Eave: “x” was not understood. Type a length."),
    (errors.BadGeometry("Ridge", "the rakes cross", "Measure again."), 422, "Ridge: the rakes cross. Measure again."),
    (errors.AnswerWanted("Rows", "all is laid anew", "Say so."), 422, "Rows: all is laid anew. Say so."),
    (errors.MissingDatum("Voc", "Module", "Add it."), 422, "Module has no Voc. Add it."),
    (errors.OutsideModelRange("Module", "no curve", "Compare."), 422, "Module: no curve. Compare."),
    (errors.FormatError("a.json", "job.name", "missing", "Add it."), 422, "a.json at job.name: missing. Add it."),
    (errors.NotFound("job", "x"), 404, "There is no job “x” here"),
    (errors.Conflict("Roof", 1, 2, "Roof (other tab)", "roof-2"), 409, "Your version is kept as the job “Roof (other tab)”"),
    (errors.NotWorkedOut("fill P", "Option A could not be worked out."), 422, "“fill P” was not saved: Option A could not be worked out. The job is as it was"),
    (errors.GivenUp(), 408, "Nobody waited"),
    (errors.StorageFailed("database or disk is full"), 507, "disk is full. Everything saved before it is intact"),
]  # fmt: skip


@pytest.mark.parametrize(("error", "status", "says"), EXAMPLES, ids=lambda e: type(e).__name__)
def test_each_error_has_its_status_and_sentence(error, status: int, says: str) -> None:
    answer = from_core(error)
    assert answer.status_code == status
    assert says in answer.get_json()["message"]
    assert answer.get_json()["code"] == error.code


def test_no_error_is_left_out_of_the_table() -> None:
    own = set(errors.RidgeTallyError.__subclasses__())
    assert own == set(STATUS) == {type(error) for error, _, _ in EXAMPLES}
    assert len({kind.code for kind in own}) == len(own)
