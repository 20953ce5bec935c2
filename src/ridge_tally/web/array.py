"""Routes of a plane's layouts: alternatives, proofs, one more; spacing, seasons, brackets."""

from flask import Response

from ridge_tally.core.brief.typed import parse_share_frac
from ridge_tally.studies.array.brackets import SeatReport, seat_report
from ridge_tally.studies.array.exact_count import exactly
from ridge_tally.studies.array.layouts import Alternative, alternatives, prove, squeezed
from ridge_tally.studies.array.module_choice import ModuleChoice, module_choice
from ridge_tally.studies.array.one_more import OneMore, one_more
from ridge_tally.studies.array.rows_light import RowsLight, rows_light
from ridge_tally.studies.array.seasonal_tilt import SeasonalTilt, calendar_of, seasonal_tilt
from ridge_tally.web.at import OPTION, PLANE, plane_at, workspace
from ridge_tally.web.models import (
    ExactlyQuery,
    Found,
    OptionPath,
    PlanePath,
    ProofAnswer,
    RowsLightQuery,
    Running,
    Study,
)
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out
from ridge_tally.web.studies import running

bp = Routes("array", __name__, url_prefix="/api")


@bp.get(
    f"{PLANE}/alternatives", operation_id="alternatives", responses={200: Found[list[Alternative]]}
)
def get_alternatives(path: PlanePath) -> Found[list[Alternative]]:
    """The layouts of a plane with rows, as first found, best first."""
    return Found[list[Alternative]](found=list(alternatives(workspace().desk, *plane_at(path))))


@bp.post(f"{PLANE}/proof", operation_id="proof", responses={200: ProofAnswer})
def post_proof(path: PlanePath) -> ProofAnswer:
    """How the proof of the layouts stands; begun if it is not going on yet."""
    here, asked = workspace(), plane_at(path)
    content = (path.revision, path.option_id, path.plane_id)
    seen = here.runs.look(_place(path), content, lambda: prove(here.desk, *asked))
    return ProofAnswer(
        proof=seen.step, running=seen.running, cancelled=seen.cancelled, problem=seen.problem
    )


@bp.delete(f"{PLANE}/proof", operation_id="cancel_proof", responses={200: Found[list[Alternative]]})
def delete_proof(path: PlanePath) -> Found[list[Alternative]]:
    """Stop the proof; what is known stays."""
    workspace().runs.cancel(_place(path))
    return Found[list[Alternative]](found=[])


def _place(path: PlanePath) -> tuple[str, str]:
    return "proof", path.job_id


@bp.get(f"{PLANE}/squeeze", operation_id="squeeze", responses={200: Found[list[Alternative]]})
def get_squeeze(path: PlanePath) -> Found[list[Alternative]]:
    """The fullest layout found with no rows asked for."""
    return Found[list[Alternative]](found=[squeezed(workspace().desk, *plane_at(path))])


@bp.get(f"{PLANE}/exactly", operation_id="exactly", responses={200: Found[list[Alternative]]})
def get_exactly(path: PlanePath, query: ExactlyQuery) -> Found[list[Alternative]]:
    """The best layouts of exactly so many modules."""
    found = exactly(workspace().desk, *plane_at(path), query.modules, query.arrangement)
    return Found[list[Alternative]](found=list(found))


@bp.get(f"{PLANE}/one-more", operation_id="one_more", responses={200: Found[OneMore]})
def get_one_more(path: PlanePath) -> Found[OneMore]:
    """What blocks the next module, and what would let it in."""
    return Found[OneMore](found=one_more(workspace().desk, *plane_at(path)))


@bp.get(f"{PLANE}/rows-light", operation_id="rows_light", responses={200: Found[RowsLight]})
def get_rows_light(path: PlanePath, query: RowsLightQuery) -> Found[RowsLight]:
    """What rows take of each other's light at their gap and at others; the gap for a typed loss."""
    asked = parse_share_frac(query.most_loss, "Light rows take") if query.most_loss else None
    light = rows_light(workspace().desk, *plane_at(path), asked)
    return Found[RowsLight](found=light)


@bp.get(f"{PLANE}/brackets", operation_id="bracket_seats", responses={200: Found[SeatReport]})
def get_brackets(path: PlanePath) -> Found[SeatReport]:
    """Where brackets can sit under the modules of a metal roof or a carport."""
    return Found[SeatReport](found=seat_report(*plane_at(path)))


@bp.get(f"{PLANE}/seasons", operation_id="seasonal_tilt", responses={200: Found[SeasonalTilt]})
def get_seasons(path: PlanePath) -> Found[SeasonalTilt]:
    """What other tilts and tilts changed with the seasons are worth."""
    study = seasonal_tilt(workspace().desk, *plane_at(path))
    return Found[SeasonalTilt](found=study)


@bp.get(f"{PLANE}/seasons.ics", operation_id="seasonal_calendar")
def get_calendar(path: PlanePath) -> Response:
    """The changes of the tilt as a calendar file."""
    return handed_out(calendar_of(*plane_at(path)), "text/calendar", f"{path.job_id}-tilt.ics")


@bp.get(
    f"{OPTION}/module-choice", operation_id="module_choice", responses={200: Running[ModuleChoice]}
)
def get_module_choice(path: OptionPath) -> Running[ModuleChoice]:
    """Every module of the shelf on this roof and inverter."""
    return running(Study.MODULES, path, module_choice)
