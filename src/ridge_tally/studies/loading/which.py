"""Which inverter, how many modules and which way: the answer of Loading, each with its why."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.edits.any_edit import TakeRemedy
from ridge_tally.core.job.option import Option
from ridge_tally.core.number_format import spaced
from ridge_tally.core.strings.parts import ac_makers, counted_names
from ridge_tally.rules.design import Design
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import require_year
from ridge_tally.studies.loading.sweep import SweepReport, loading_sweep
from ridge_tally.studies.strings.inverters import (
    InverterPlan,
    InverterPlans,
    inverter_plans,
    on_inverter,
)
from ridge_tally.studies.sun.angles import OwnPlane, SplitStudy, angle_map, split_study

# How much of the work the inverters are; the sweep is the rest.
INVERTERS_FRAC = 0.4


@dataclass(frozen=True, slots=True)
class Answer:
    """A question with its answer, its why in sentences, and the edit that takes it where one does.

    ``answer`` is empty until there is one.  ``so_far`` tells how much of the work it stands on,
    empty once it stands on all of it.
    """

    question: str
    answer: str
    why: tuple[str, ...]
    edit: TakeRemedy | None
    so_far: str = ""


@dataclass(frozen=True, slots=True)
class Which:
    """The three answers so far."""

    inverter: Answer
    modules: Answer
    way: Answer
    done_frac: float


INVERTER, MODULES, WAY = "Which inverter?", "How many modules?", "Orientation"


def which(desk: Desk, design: Design) -> Iterator[Which]:
    """Yield the answers as they are worked out.

    Raises
    ------
    MissingDatum
        While no module is in a string, or a datasheet lacks what a year needs.
    """
    require_year(design)
    inverter, modules = Answer(INVERTER, "", (), None), Answer(MODULES, "", (), None)
    way = Answer(WAY, "", (), None)
    yield Which(inverter, modules, way, 0.0)
    plans: InverterPlans | None = None
    if design.microinverter is None:
        for plans in inverter_plans(desk, design, desk.shelf.inverters):
            if plans.years:
                inverter = _so_far(_inverter(desk, design, plans), plans)
            yield Which(inverter, modules, way, 0.05 + INVERTERS_FRAC * _frac(plans))
            # The light of every direction takes seconds: a first inverter is told before it.
            if plans.years and not way.answer:
                way = _way(angle_map(desk, design).planes, split_study(desk, design))
    inverter = _inverter(desk, design, plans)
    if not way.answer:
        way = _way(angle_map(desk, design).planes, split_study(desk, design))
    yield Which(inverter, modules, way, 0.05 + INVERTERS_FRAC)
    report: SweepReport | None = None
    for report in loading_sweep(desk, design):
        done = 0.05 + INVERTERS_FRAC + (0.95 - INVERTERS_FRAC) * report.done_frac
        yield Which(inverter, modules, way, min(done, 0.99))
    assert report is not None
    yield Which(inverter, _modules(design.option, report), way, 1.0)


def _frac(plans: InverterPlans) -> float:
    legal = sum(p.legal for p in plans.found)
    return (len(plans.found) + plans.years) / (plans.of + legal) if plans.of else 1.0


def _so_far(answer: Answer, plans: InverterPlans) -> Answer:
    """Return an answer that more years may still turn, with how many it stands on; not to be taken."""
    legal = sum(p.legal for p in plans.found)
    return replace(
        answer, edit=None, so_far=f"Best of {plans.years} so far, of {legal} that string it."
    )


def _inverter(desk: Desk, design: Design, plans: InverterPlans | None) -> Answer:
    """Return the inverter worth most over the years its parts are given to pay themselves back."""
    if plans is None:
        units = counted_names(ac_makers(design))
        why = ("Each module has an inverter of its own: Strings, Pairing, tells which one.",)
        return Answer(INVERTER, units, why, None)
    kept = [p for p in plans.found if p.kept]
    if not kept:
        why = ("No inverter of the shelf carries this array within every Stop and Outside limit.",)
        return Answer(INVERTER, "none of the shelf", why, None)
    priced = [p for p in kept if p.price_cents is not None and p.saved_cents is not None]
    by_money = bool(priced)

    years = practice(Practice.PAYS_YEARS)

    def worth(plan: InverterPlan) -> float:
        if not by_money:
            return plan.energy_kwh or 0.0
        return (plan.saved_cents or 0) * years - (plan.price_cents or 0)

    ranked = sorted(priced if by_money else kept, key=lambda p: -worth(p))
    best = ranked[0]
    line = (
        f"worth most over {years:.0f} years of bills as low as the first"
        if by_money
        else "most kWh: a price, a use or a tariff is missing"
    )
    told = [f"{_told(best)}: {line}, of {len(kept)} that break none."]
    if len(ranked) > 1:
        told.append(f"Next: {ranked[1].name}, {_told(ranked[1])}.")
    hanging = _hanging(design, plans)
    if hanging is not None and hanging is not best:
        told.append(f"What hangs there, {hanging.name}: {_stands(hanging)}.")
    sheet = desk.shelf.inverter(best.inverter_id)
    edit = None if hanging is best else on_inverter(design, sheet)
    return Answer(INVERTER, best.name, tuple(told), edit)


def _stands(plan: InverterPlan) -> str:
    """Return how an inverter stands that is not the one recommended."""
    if not plan.legal:
        return f"no legal plan: {plan.told.rstrip('.')}"
    broken = "; ".join(b.told for b in plan.broken)
    return f"breaks {broken}" if broken else _told(plan)


def _hanging(design: Design, plans: InverterPlans) -> InverterPlan | None:
    there = design.inverters
    if len(there) != 1:
        return None
    return next((p for p in plans.found if p.inverter_id == there[0].id), None)


def _told(plan: InverterPlan) -> str:
    price = "price not known" if plan.price_cents is None else spaced(plan.price_cents / 100)
    clipped = (plan.clipped_frac or 0.0) * 100
    energy = spaced(plan.energy_kwh or 0.0)
    return f"{energy} kWh a year, clips {clipped:.1f} %, DC:AC {plan.loading:.2f}, {price}"


def _modules(option: Option, sweep: SweepReport) -> Answer:
    """Return the sweet spot by money, else by energy, else the most that keeps every limit."""
    place = next(
        (p for p in (sweep.sweet_money, sweep.sweet, sweep.largest_kept) if p is not None), None
    )
    if place is None:
        return Answer(MODULES, "every count breaks a limit", sweep.told, None)
    point = sweep.by_modules[place]
    now = len(present_ids(option))
    answer = f"{point.modules}, DC:AC {point.ratio:.2f}"
    if point.modules == now:
        answer += ", as it is"
    return Answer(MODULES, answer, sweep.told, point.edit)


def _way(planes: tuple[OwnPlane, ...], split: SplitStudy) -> Answer:
    why = [
        f"{p.name}, {p.modules} modules: {p.loss_frac * 100:.1f} % less light than the best angle here."
        for p in planes
    ]
    best = split.best_year_deg
    answer = "all to the equator" if best == 0 else f"half each way, {best:.0f}° from the equator"
    if best == 90.0:
        answer = "half east, half west"
    far = [p for p in planes if p.loss_frac > practice(Practice.FAR_FRAC)]
    if far:
        why.append(
            f"{far[-1].name} is far from it: fill it last, or where its hours are worth more."
        )
    return Answer(WAY, answer, (*split.told, *why), None)
