"""Routes of an option's strings: legal plans, every inverter's best, what trackers lose."""

from functools import partial

from flask_openapi import APIBlueprint

from ridge_tally.studies.strings.asked_plan import plan_verdict
from ridge_tally.studies.strings.plans import inverter_plans, plans_report
from ridge_tally.studies.strings.tracker_losses import tracker_losses
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    InverterPlansAnswer,
    OptionPath,
    PlansAnswer,
    PlansQuery,
    PlanVerdictAnswer,
    Study,
    TrackerLossesAnswer,
    TypedPlan,
)
from ridge_tally.web.options import OPTION, option_at
from ridge_tally.web.studies import seen

bp = APIBlueprint("strings", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/string-plans", operation_id="string_plans", responses={200: PlansAnswer})
def get_string_plans(path: OptionPath, query: PlansQuery) -> PlansAnswer:
    """The legal string plans, best first, and what each length in series comes to."""
    return PlansAnswer(report=plans_report(workspace().desk, *option_at(path), query.first))


@bp.get(
    f"{OPTION}/inverter-plans", operation_id="inverter_plans", responses={200: InverterPlansAnswer}
)
def get_inverter_plans(path: OptionPath) -> InverterPlansAnswer:
    """The shelf's inverters with their best plans for this array, as far as they are looked at."""
    steps = partial(inverter_plans, inverters=workspace().desk.shelf.inverters)
    found = seen(Study.INVERTERS, path, steps)
    return InverterPlansAnswer(plans=found.step, running=found.running, problem=found.problem)


@bp.get(f"{OPTION}/plan-verdict", operation_id="plan_verdict", responses={200: PlanVerdictAnswer})
def get_plan_verdict(path: OptionPath, query: TypedPlan) -> PlanVerdictAnswer:
    """Whether a plan typed in words is legal, or why it is not."""
    return PlanVerdictAnswer(verdict=plan_verdict(*option_at(path), query.typed))


@bp.get(
    f"{OPTION}/tracker-losses", operation_id="tracker_losses", responses={200: TrackerLossesAnswer}
)
def get_tracker_losses(path: OptionPath) -> TrackerLossesAnswer:
    """What each tracker loses in a year: to uneven light, to mixing, to its limits."""
    return TrackerLossesAnswer(losses=list(tracker_losses(workspace().desk, *option_at(path))))
