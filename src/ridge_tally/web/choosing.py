"""Routes of what is weighed against what: ways out and to the grid, pairings, sizes, angles."""

from functools import partial

from flask_openapi import APIBlueprint

from ridge_tally.core.loading.weights import parse_weighing
from ridge_tally.studies.array.module_choice import module_choice
from ridge_tally.studies.loading.sweep import loading_sweep
from ridge_tally.studies.loading.what_to_buy import what_to_buy
from ridge_tally.studies.loading.which import which
from ridge_tally.studies.strings.comparison import comparison
from ridge_tally.studies.strings.pairing import pairing_study
from ridge_tally.studies.strings.remedies import remedies
from ridge_tally.studies.strings.tracker_currents import shared_trackers
from ridge_tally.studies.sun.angles import angle_map, split_study
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
    Study,
    SweepAnswer,
    Weighed,
    WhatToBuyAnswer,
    WhichAnswer,
)
from ridge_tally.web.options import OPTION, option_at
from ridge_tally.web.studies import seen

bp = APIBlueprint("choosing", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/remedies", operation_id="remedies", responses={200: RemediesAnswer})
def get_remedies(path: OptionPath) -> RemediesAnswer:
    """Ways out of what is broken or costs much, each judged anew, best first."""
    found = seen(Study.REMEDIES, path, remedies)
    return RemediesAnswer(report=found.step, running=found.running, problem=found.problem)


@bp.get(
    f"{OPTION}/shared-trackers",
    operation_id="shared_trackers",
    responses={200: SharedTrackersAnswer},
)
def get_shared_trackers(path: OptionPath) -> SharedTrackersAnswer:
    """The currents of strings that share a tracker, and when their sum passes its limit."""
    return SharedTrackersAnswer(trackers=list(shared_trackers(workspace().desk, *option_at(path))))


@bp.get(f"{OPTION}/comparison", operation_id="comparison", responses={200: ComparisonAnswer})
def get_comparison(path: OptionPath) -> ComparisonAnswer:
    """The ways to the grid of this array point by point, which one and why."""
    found = seen(Study.COMPARISON, path, comparison)
    return ComparisonAnswer(comparison=found.step, running=found.running, problem=found.problem)


@bp.get(f"{OPTION}/loading-sweep", operation_id="loading_sweep", responses={200: SweepAnswer})
def get_loading_sweep(path: OptionPath, query: Weighed) -> SweepAnswer:
    """More and fewer modules on this inverter, and inverters of other sizes under this array."""
    weighing = parse_weighing(query.by)
    steps = partial(loading_sweep, weighing=weighing)
    found = seen(Study.SWEEP, path, steps, weighing)
    return SweepAnswer(sweep=found.step, running=found.running, problem=found.problem)


@bp.get(f"{OPTION}/angles", operation_id="angle_map", responses={200: AngleMapAnswer})
def get_angles(path: OptionPath, query: Weighed) -> AngleMapAnswer:
    """What every tilt and azimuth gets of this site's weather, the site's planes marked."""
    return AngleMapAnswer(
        angles=angle_map(workspace().desk, *option_at(path), parse_weighing(query.by))
    )


@bp.get(f"{OPTION}/split", operation_id="split_study", responses={200: SplitAnswer})
def get_split(path: OptionPath, query: SplitQuery) -> SplitAnswer:
    """Half the modules turned each way, by an angle from none to a quarter turn."""
    here, at = workspace(), option_at(path)
    return SplitAnswer(study=split_study(here.desk, *at, query.tilt_deg, query.ratio))


@bp.get(f"{OPTION}/pairing", operation_id="pairing", responses={200: PairingAnswer})
def get_pairing(path: OptionPath) -> PairingAnswer:
    """The module against every microinverter: what is clipped here, in the cold, in the heat."""
    found = seen(Study.PAIRING, path, pairing_study)
    return PairingAnswer(study=found.step, running=found.running, problem=found.problem)


@bp.get(
    f"{OPTION}/module-choice", operation_id="module_choice", responses={200: ModuleChoiceAnswer}
)
def get_module_choice(path: OptionPath) -> ModuleChoiceAnswer:
    """Every module of the shelf on this roof and inverter."""
    found = seen(Study.MODULES, path, module_choice)
    return ModuleChoiceAnswer(choice=found.step, running=found.running, problem=found.problem)


@bp.get(f"{OPTION}/what-to-buy", operation_id="what_to_buy", responses={200: WhatToBuyAnswer})
def get_what_to_buy(path: OptionPath) -> WhatToBuyAnswer:
    """Module, way to the grid and inverter for this roof: every combination that breaks no Stop."""
    found = seen(Study.WHAT_TO_BUY, path, what_to_buy)
    return WhatToBuyAnswer(choice=found.step, running=found.running, problem=found.problem)


@bp.get(f"{OPTION}/which", operation_id="which", responses={200: WhichAnswer})
def get_which(path: OptionPath) -> WhichAnswer:
    """Which inverter, how many modules and which way, each with its why."""
    found = seen(Study.WHICH, path, which)
    return WhichAnswer(which=found.step, running=found.running, problem=found.problem)
