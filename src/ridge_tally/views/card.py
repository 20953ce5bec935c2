"""A job as a card in the list of jobs: where it is, how far it has come, what it looks like."""

from dataclasses import dataclass

import numpy as np

from ridge_tally.core.array.tables import raised
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import Job
from ridge_tally.core.steps import WorkStep
from ridge_tally.core.sun.shading import glass_corners_m
from ridge_tally.core.survey.outline import corners_m, is_closed
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.editing.design import design_for
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.views.brief.report import BriefReport
from ridge_tally.views.option import OptionReport
from ridge_tally.views.step_state import StepState

Ring = tuple[tuple[float, ...], ...]


@dataclass(frozen=True, slots=True)
class CardPlan:
    """Outlines on the site, metres east and north: of planes, and of the modules of one option."""

    planes: tuple[Ring, ...]
    modules: tuple[Ring, ...]


@dataclass(frozen=True, slots=True)
class JobCard:
    """What a card tells of a job; its figures are those of one option.

    ``energy_kwh``: of the last revision whose year was worked out, ``None`` where none was;
    ``year_is_newest``: that is the newest one.  ``steps``: the state of each that has one.
    """

    revision: int
    place: str
    options: int
    option_id: str
    option: str
    modules: int
    p_dc_w: float
    p_ac_w: float
    makes_ac: bool
    energy_kwh: float | None
    year_is_newest: bool
    steps: dict[WorkStep, StepState]
    plan: CardPlan
    problem: str


def plan_of(job: Job) -> CardPlan:
    """Return the outlines of a job's planes that close, and of its first option's modules."""
    design = design_for(job, job.options[0])
    planes = tuple(_ring(to_site(p, corners_m(p))) for p in job.survey.planes if is_closed(p))
    modules: list[Ring] = []
    for laid in design.arrays:
        if not is_closed(laid.plane):
            continue
        lay = lay_of(laid)
        places = raised(laid.plane, laid.array, lay, present_of(laid.array))
        modules += [_ring(glass_corners_m(laid.plane, lay, place)) for place in places]
    return CardPlan(planes, tuple(modules))


def steps_of(brief: BriefReport | None, report: OptionReport | None) -> dict[WorkStep, StepState]:
    """Return the state of each step: the brief is of the job, the others are of the option."""
    found = {} if report is None else dict(report.steps)
    return found if brief is None else {WorkStep.BRIEF: brief.step, **found}


def _ring(corners: np.ndarray) -> Ring:
    return tuple((round(float(p[0]), 2), round(float(p[1]), 2)) for p in corners)
