"""Routes of what is weighed against what: ways out and to the grid, pairings, sizes, angles."""

from collections.abc import Callable, Hashable, Iterator
from functools import partial
from typing import TypeVar

from flask_openapi import APIBlueprint

from ridge_tally.core.job.document import Job, Option
from ridge_tally.core.loading.weights import parse_weighing
from ridge_tally.services.angles import angle_map, split_study
from ridge_tally.services.comparing import comparison
from ridge_tally.services.loading_sweep import loading_sweep
from ridge_tally.services.module_choice import module_choice
from ridge_tally.services.pairing import pairing_study
from ridge_tally.services.remedies import remedies
from ridge_tally.services.runs import Seen
from ridge_tally.services.tracker_currents import shared_trackers
from ridge_tally.services.workspace import Workspace
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    AngleMapAnswer,
    ComparisonAnswer,
    ModuleChoiceAnswer,
    OptionPath,
    PairingAnswer,
    RemediesAnswer,
    SharedTrackersAnswer,
    SplitAnswer,
    SplitQuery,
    Stopped,
    SweepAnswer,
    Weighed,
)
from ridge_tally.web.options import OPTION, option_at

bp = APIBlueprint("choosing", __name__, url_prefix="/api")
Step = TypeVar("Step")


def _seen(
    what: str,
    path: OptionPath,
    steps: Callable[[Workspace, Job, Option], Iterator[Step]],
    content: Hashable = None,
) -> Seen[Step]:
    """Return how a study of an option stands, begun if it is not going on yet with that content."""
    here, (job, option) = workspace(), option_at(path)
    place = (what, path.job_id, path.option_id, path.revision)
    return here.runs.look(place, content, lambda: steps(here, job, option))


@bp.get(f"{OPTION}/remedies", operation_id="remedies", responses={200: RemediesAnswer})
def get_remedies(path: OptionPath) -> RemediesAnswer:
    """Ways out of what is broken or costs much, each judged anew, best first."""
    seen = _seen("remedies", path, remedies)
    return RemediesAnswer(report=seen.step, running=seen.running, problem=seen.problem)


@bp.delete(f"{OPTION}/remedies", operation_id="cancel_remedies", responses={200: Stopped})
def delete_remedies(path: OptionPath) -> Stopped:
    """Stop looking; what is found stays."""
    workspace().runs.cancel(("remedies", path.job_id, path.option_id, path.revision))
    return Stopped(option_id=path.option_id)


@bp.get(
    f"{OPTION}/shared-trackers",
    operation_id="shared_trackers",
    responses={200: SharedTrackersAnswer},
)
def get_shared_trackers(path: OptionPath) -> SharedTrackersAnswer:
    """The currents of strings that share a tracker, and when their sum passes its limit."""
    return SharedTrackersAnswer(trackers=list(shared_trackers(workspace(), *option_at(path))))


@bp.get(f"{OPTION}/comparison", operation_id="comparison", responses={200: ComparisonAnswer})
def get_comparison(path: OptionPath) -> ComparisonAnswer:
    """The ways to the grid of this array point by point, which one and why."""
    seen = _seen("comparison", path, comparison)
    return ComparisonAnswer(comparison=seen.step, running=seen.running, problem=seen.problem)


@bp.get(f"{OPTION}/loading-sweep", operation_id="loading_sweep", responses={200: SweepAnswer})
def get_loading_sweep(path: OptionPath, query: Weighed) -> SweepAnswer:
    """More and fewer modules on this inverter, and inverters of other sizes under this array."""
    weighing = parse_weighing(query.by)
    steps = partial(loading_sweep, weighing=weighing)
    seen = _seen("loading sweep", path, steps, weighing)
    return SweepAnswer(sweep=seen.step, running=seen.running, problem=seen.problem)


@bp.delete(f"{OPTION}/loading-sweep", operation_id="cancel_loading_sweep", responses={200: Stopped})
def delete_loading_sweep(path: OptionPath) -> Stopped:
    """Stop sweeping; what is found stays."""
    workspace().runs.cancel(("loading sweep", path.job_id, path.option_id, path.revision))
    return Stopped(option_id=path.option_id)


@bp.get(f"{OPTION}/angles", operation_id="angle_map", responses={200: AngleMapAnswer})
def get_angles(path: OptionPath, query: Weighed) -> AngleMapAnswer:
    """What every tilt and azimuth gets of this site's weather, the site's planes marked."""
    return AngleMapAnswer(angles=angle_map(workspace(), *option_at(path), parse_weighing(query.by)))


@bp.get(f"{OPTION}/split", operation_id="split_study", responses={200: SplitAnswer})
def get_split(path: OptionPath, query: SplitQuery) -> SplitAnswer:
    """Half the modules turned each way, by an angle from none to a quarter turn."""
    here, at = workspace(), option_at(path)
    return SplitAnswer(study=split_study(here, *at, query.tilt_deg, query.ratio))


@bp.get(f"{OPTION}/pairing", operation_id="pairing", responses={200: PairingAnswer})
def get_pairing(path: OptionPath) -> PairingAnswer:
    """The module against every microinverter: what is clipped here, in the cold, in the heat."""
    seen = _seen("pairing", path, pairing_study)
    return PairingAnswer(study=seen.step, running=seen.running, problem=seen.problem)


@bp.get(
    f"{OPTION}/module-choice", operation_id="module_choice", responses={200: ModuleChoiceAnswer}
)
def get_module_choice(path: OptionPath) -> ModuleChoiceAnswer:
    """Every module of the shelf on this roof and inverter."""
    seen = _seen("module choice", path, module_choice)
    return ModuleChoiceAnswer(choice=seen.step, running=seen.running, problem=seen.problem)
