"""Studies of an option that go on beside the requests: begun when asked for, stopped on request."""

from collections.abc import Callable, Hashable, Iterator
from typing import TypeVar

from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.web.at import OPTION, design_at, workspace
from ridge_tally.web.models import OptionPath, Running, Stopped, Study, StudyPath
from ridge_tally.web.routes import Routes

bp = Routes("studies", __name__, url_prefix="/api")
Step = TypeVar("Step")


def running(
    study: Study,
    path: OptionPath,
    steps: Callable[[Desk, Design], Iterator[Step]],
    content: Hashable = None,
    *,
    first_here: bool = False,
    apart: tuple[Hashable, ...] = (),
) -> Running[Step]:
    """Return how a study of an option stands, begun if it is not going on yet with that content.

    ``first_here``: its first step is short, and a drawing waits for it.  ``apart``: what two people
    may look at side by side, so that neither ends the other's.
    """
    here, design = workspace(), design_at(path)
    seen = here.runs.look(
        (*_place(study, path), *apart),
        content,
        lambda: steps(here.desk, design),
        first_here=first_here,
        kin=(study, path.job_id, path.option_id),
    )
    return Running[Step](found=seen.step, running=seen.running, problem=seen.problem)


@bp.delete(f"{OPTION}/studies/<study>", operation_id="stop_study", responses={200: Stopped})
def delete_study(path: StudyPath) -> Stopped:
    """Stop a study; what it has found stays."""
    workspace().runs.cancel(_place(path.study, path))
    return Stopped(option_id=path.option_id)


def _place(study: Study, path: OptionPath) -> tuple[Hashable, ...]:
    return study, path.job_id, path.option_id, path.revision
