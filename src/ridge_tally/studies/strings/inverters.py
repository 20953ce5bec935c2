"""Every inverter of the shelf on an option's array, each with its best plan and its year."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import log

from ridge_tally.core.equipment import InverterId, InverterSheet
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.document import present_ids, with_option
from ridge_tally.core.job.edits.any_edit import TakeRemedy
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for, design_in
from ridge_tally.editing.strings.inverters import with_sheet
from ridge_tally.editing.strings.threading import threading_changed
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.rules.strings.plans import (
    plan_space,
    why_no_plan,
)
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import year_or_problem
from ridge_tally.studies.money.saved import saved_of
from ridge_tally.studies.rule_status import Broken, forbids, keeps_all, standing_of
from ridge_tally.studies.strings.asked_plan import told_plan
from ridge_tally.studies.strings.plans import ORDER, best_plans, ranked_plans


@dataclass(frozen=True, slots=True)
class InverterPlan:
    """An inverter with its best plan in words, or with why it has none.

    ``energy_kwh`` by the hour, of its best plan threaded row by row; ``None`` until it is worked
    out, and without a plan.  ``saved_cents``: what the first year's bills are less by; ``None`` while
    no use or tariff is known.  ``broken``: Stops and Outside limits that this plan does not keep.
    """

    inverter_id: InverterId
    name: str
    p_ac_w: float
    loading: float
    total: int
    told: str
    legal: bool
    price_cents: int | None
    energy_kwh: float | None = None
    clipped_frac: float | None = None
    saved_cents: int | None = None
    broken: tuple[Broken, ...] = ()

    @property
    def kept(self) -> bool:
        """Whether it has a year and keeps every Stop and every Outside limit."""
        return self.energy_kwh is not None and keeps_all(self.broken)


@dataclass(frozen=True, slots=True)
class InverterPlans:
    """Inverters looked at so far, of how many; ``years`` worked out of those with a plan."""

    found: tuple[InverterPlan, ...]
    of: int
    years: int = 0


def inverter_plans(
    desk: Desk, design: Design, inverters: tuple[InverterSheet, ...]
) -> Iterator[InverterPlans]:
    """Yield each inverter with its best plan as it is found, or why it has none; then their years."""
    found: list[InverterPlan] = []
    yield InverterPlans((), len(inverters))
    for sheet in inverters:
        found.append(_on(design, sheet))
        yield InverterPlans(tuple(found), len(inverters))
    years = 0
    for number, (sheet, plan) in enumerate(zip(inverters, found, strict=True)):
        if not plan.legal:
            continue
        found[number] = _with_year(desk, design, sheet, plan)
        years += 1
        yield InverterPlans(tuple(found), len(inverters), years)


def _alone(design: Design, sheet: InverterSheet) -> Design:
    """Return the design with its modules on one inverter, not strung yet."""
    alone = replace(design.option, inverter_id=sheet.id, more_inverters=(), strings=())
    return design_for(with_option(with_sheet(design.job, sheet), alone), alone)


def _with_year(
    desk: Desk, design: Design, sheet: InverterSheet, plan: InverterPlan
) -> InverterPlan:
    alone = _alone(design, sheet)
    (_, edit), *_ = best_plans(alone, 1)
    strung = design_in(threading_changed(alone.job, edit), design.option.id)
    year, problem = year_or_problem(desk, strung)
    if year is None:
        return replace(plan, told=f"{plan.told}. {problem}")
    return replace(
        plan,
        energy_kwh=year.energy_kwh,
        clipped_frac=year.clipped_frac,
        saved_cents=saved_of(desk, strung, year),
        broken=_broken(strung),
    )


def on_inverter(design: Design, sheet: InverterSheet) -> TakeRemedy:
    """Return the edit that hangs an inverter alone, strung by its best plan.

    Raises
    ------
    MissingDatum
        If it has no legal plan.
    """
    plan = next(iter(best_plans(_alone(design, sheet), 1)), None)
    if plan is None:
        raise MissingDatum("legal plan", sheet.name, "Choose another inverter.")
    steps = (ChooseInverter(design.option.id, sheet.id), plan[1])
    return TakeRemedy(design.option.id, sheet.name, steps)


@dataclass(frozen=True, slots=True)
class NoPlan:
    """Why no plan strings all modules, empty where one does, and the nearest inverter on which one does.

    ``edit`` hangs that inverter, strung by its best plan; ``None`` where the shelf has none.
    """

    why: str
    nearest: InverterPlan | None = None
    edit: TakeRemedy | None = None


def no_plan(desk: Desk, design: Design) -> NoPlan:
    """Return why nothing strings all modules of a design, and what would.

    Nearest in AC power, above or below alike; one whose best plan breaks a Stop or a maker's
    limit serves only where no other does.
    """
    if design.microinverter is not None or not present_ids(design.option):
        return NoPlan("")
    space = plan_space(design)
    if space.plans().total:
        return NoPlan("")
    why, second = why_no_plan(design, space), None
    # Of a generic DC input the watts it takes stand for its size.
    now_w = sum(i.p_ac_w for i in design.inverters)
    for sheet in sorted(desk.shelf.inverters, key=lambda i: abs(log(i.p_ac_w / now_w))):
        plan = _on(design, sheet)
        if not plan.legal:
            continue
        edit = on_inverter(design, sheet)
        if keeps_all(
            _broken(design_in(apply_edit(design.job, edit, desk.shelf), design.option.id))
        ):
            return NoPlan(why, plan, edit)
        second = second or NoPlan(why, plan, edit)
    return second or NoPlan(why)


def _broken(design: Design) -> tuple[Broken, ...]:
    """Return the Stops and Outside limits that a design does not keep."""
    return tuple(b for b in standing_of(design).broken.values() if forbids(b))


def _on(design: Design, sheet: InverterSheet) -> InverterPlan:
    alone = _alone(design, sheet)
    space = plan_space(alone)
    plans, service = space.plans(), design.job.survey.service.phases
    fits = plans.total > 0 and sheet.phases <= service
    if sheet.phases > service:
        told = f"Needs {sheet.phases} phases; the service has {service}."
    elif fits:
        told = told_plan(ranked_plans(plans, space, list(ORDER))[0].plan, space)
    else:
        told = why_no_plan(alone, space)
    dc_w = dc_watts(alone)[2]
    return InverterPlan(
        sheet.id,
        sheet.name,
        sheet.p_ac_w,
        dc_w / sheet.p_ac_w,
        plans.total,
        told,
        fits,
        sheet.price_cents,
    )
