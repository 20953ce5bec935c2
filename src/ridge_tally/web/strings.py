"""Routes of an option's strings: plans, ways out, ways to the grid, what trackers lose."""

from functools import partial

from ridge_tally.studies.strings.asked_plan import PlanVerdict, plan_verdict
from ridge_tally.studies.strings.comparison import Comparison, comparison
from ridge_tally.studies.strings.inverters import (
    InverterPlans,
    NoPlan,
    inverter_plans,
    no_plan,
)
from ridge_tally.studies.strings.own_point import OwnPointReport, helped_ids, own_point_report
from ridge_tally.studies.strings.pairing import PairingStudy, pairing_study
from ridge_tally.studies.strings.plans import PlansReport, plans_report
from ridge_tally.studies.strings.remedies import RemediesReport, remedies
from ridge_tally.studies.strings.tracker_currents import SharedTracker, shared_trackers
from ridge_tally.studies.strings.tracker_losses import TrackerLosses, tracker_losses
from ridge_tally.web.at import OPTION, design_at, workspace
from ridge_tally.web.models import (
    Found,
    OptionPath,
    OwnPointQuery,
    PlansQuery,
    Running,
    Study,
    TypedPlan,
)
from ridge_tally.web.routes import Routes
from ridge_tally.web.studies import running

bp = Routes("strings", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/string-plans", operation_id="string_plans", responses={200: Found[PlansReport]})
def get_string_plans(path: OptionPath, query: PlansQuery) -> Found[PlansReport]:
    """The legal string plans, best first, and what each length in series comes to."""
    return Found[PlansReport](found=plans_report(workspace().desk, design_at(path), query.first))


@bp.get(
    f"{OPTION}/inverter-plans",
    operation_id="inverter_plans",
    responses={200: Running[InverterPlans]},
)
def get_inverter_plans(path: OptionPath) -> Running[InverterPlans]:
    """The shelf's inverters with their best plans for this array, as far as they are looked at."""
    steps = partial(inverter_plans, inverters=workspace().desk.shelf.inverters)
    return running(Study.INVERTERS, path, steps)


@bp.get(f"{OPTION}/no-plan", operation_id="no_plan", responses={200: Found[NoPlan]})
def get_no_plan(path: OptionPath) -> Found[NoPlan]:
    """Why no plan strings all modules, and the nearest inverter on which one does."""
    return Found[NoPlan](found=no_plan(workspace().desk, design_at(path)))


@bp.get(f"{OPTION}/plan-verdict", operation_id="plan_verdict", responses={200: Found[PlanVerdict]})
def get_plan_verdict(path: OptionPath, query: TypedPlan) -> Found[PlanVerdict]:
    """Whether a plan typed in words is legal, or why it is not."""
    return Found[PlanVerdict](found=plan_verdict(design_at(path), query.typed))


@bp.get(
    f"{OPTION}/tracker-losses",
    operation_id="tracker_losses",
    responses={200: Found[list[TrackerLosses]]},
)
def get_tracker_losses(path: OptionPath) -> Found[list[TrackerLosses]]:
    """What each tracker loses in a year: to uneven light, to mixing, to its limits."""
    return Found[list[TrackerLosses]](found=list(tracker_losses(workspace().desk, design_at(path))))


@bp.get(f"{OPTION}/own-point", operation_id="own_point", responses={200: Found[OwnPointReport]})
def get_own_point(path: OptionPath, query: OwnPointQuery) -> Found[OwnPointReport]:
    """The year with optimizers on some modules or all, and with microinverters."""
    helped = helped_ids(query.helped)
    return Found[OwnPointReport](found=own_point_report(workspace().desk, design_at(path), helped))


@bp.get(f"{OPTION}/remedies", operation_id="remedies", responses={200: Running[RemediesReport]})
def get_remedies(path: OptionPath) -> Running[RemediesReport]:
    """Ways out of what is broken or costs much, each judged anew, best first."""
    return running(Study.REMEDIES, path, remedies)


@bp.get(
    f"{OPTION}/shared-trackers",
    operation_id="shared_trackers",
    responses={200: Found[list[SharedTracker]]},
)
def get_shared_trackers(path: OptionPath) -> Found[list[SharedTracker]]:
    """The currents of strings that share a tracker, and when their sum passes its limit."""
    return Found[list[SharedTracker]](
        found=list(shared_trackers(workspace().desk, design_at(path)))
    )


@bp.get(f"{OPTION}/comparison", operation_id="comparison", responses={200: Running[Comparison]})
def get_comparison(path: OptionPath) -> Running[Comparison]:
    """The ways to the grid of this array point by point, which one and why."""
    return running(Study.COMPARISON, path, comparison)


@bp.get(f"{OPTION}/pairing", operation_id="pairing", responses={200: Running[PairingStudy]})
def get_pairing(path: OptionPath) -> Running[PairingStudy]:
    """The module against every microinverter: what is clipped here, in the cold, in the heat."""
    return running(Study.PAIRING, path, pairing_study)
