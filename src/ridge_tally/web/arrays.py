"""Routes of a plane's layouts: alternatives, their proofs, exactly so many, why not one more."""

from flask_openapi import APIBlueprint

from ridge_tally.core.job.document import Job, Option
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.studies.array.layouts import alternatives, exactly, prove, squeezed
from ridge_tally.studies.array.one_more import one_more
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    AlternativesAnswer,
    ExactlyQuery,
    OneMoreAnswer,
    PlanePath,
    ProofAnswer,
)
from ridge_tally.web.options import PLANE, option_at

bp = APIBlueprint("arrays", __name__, url_prefix="/api")


def _asked(path: PlanePath) -> tuple[Job, Option, PlaneId]:
    return *option_at(path), PlaneId(path.plane_id)


@bp.get(f"{PLANE}/alternatives", operation_id="alternatives", responses={200: AlternativesAnswer})
def get_alternatives(path: PlanePath) -> AlternativesAnswer:
    """The layouts of a plane with rows, as first found, best first."""
    return AlternativesAnswer(alternatives=list(alternatives(workspace().desk, *_asked(path))))


@bp.post(f"{PLANE}/proof", operation_id="proof", responses={200: ProofAnswer})
def post_proof(path: PlanePath) -> ProofAnswer:
    """How the proof of the layouts stands; begun if it is not going on yet."""
    here, asked = workspace(), _asked(path)
    content = (path.revision, path.option_id, path.plane_id)
    seen = here.runs.look(_place(path), content, lambda: prove(here.desk, *asked))
    return ProofAnswer(
        proof=seen.step, running=seen.running, cancelled=seen.cancelled, problem=seen.problem
    )


@bp.delete(f"{PLANE}/proof", operation_id="cancel_proof", responses={200: AlternativesAnswer})
def delete_proof(path: PlanePath) -> AlternativesAnswer:
    """Stop the proof; what is known stays."""
    workspace().runs.cancel(_place(path))
    return AlternativesAnswer(alternatives=[])


def _place(path: PlanePath) -> tuple[str, str]:
    return "proof", path.job_id


@bp.get(f"{PLANE}/squeeze", operation_id="squeeze", responses={200: AlternativesAnswer})
def get_squeeze(path: PlanePath) -> AlternativesAnswer:
    """The fullest layout found with no rows asked for."""
    return AlternativesAnswer(alternatives=[squeezed(workspace().desk, *_asked(path))])


@bp.get(f"{PLANE}/exactly", operation_id="exactly", responses={200: AlternativesAnswer})
def get_exactly(path: PlanePath, query: ExactlyQuery) -> AlternativesAnswer:
    """The best layouts of exactly so many modules."""
    found = exactly(workspace().desk, *_asked(path), query.modules, query.give_up_frac)
    return AlternativesAnswer(alternatives=list(found))


@bp.get(f"{PLANE}/one-more", operation_id="one_more", responses={200: OneMoreAnswer})
def get_one_more(path: PlanePath) -> OneMoreAnswer:
    """What blocks the next module, and what would let it in."""
    return OneMoreAnswer(answer=one_more(workspace().desk, *_asked(path)))
