"""What to buy for this roof: module, way to the grid and inverter, each combination with its year."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.equipment import InverterSheet, ModuleSheet
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import Job, option_of, present_ids, strung_count
from ridge_tally.core.job.edits.any_edit import RemedyStep, TakeRemedy
from ridge_tally.core.job.edits.array.kinds import ChooseModule
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.option import Option
from ridge_tally.core.number_format import spaced
from ridge_tally.core.strings.parts import ac_makers, counted_names
from ridge_tally.core.working import LimitKind
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_in
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.rules.strings.plans import plan_space, why_no_plan
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import require_year, year_or_problem
from ridge_tally.studies.money.saved import saved_of
from ridge_tally.studies.parts import Bill, bill_of
from ridge_tally.studies.rule_status import RuleStatus, standing_of
from ridge_tally.studies.strings.plans import best_plans
from ridge_tally.studies.strings.proposals import RemedyKind, at_modules

# Optimizers and microinverters are tried on each module's best few string inverters.
TRIED_ON = 2
SHOWN, SHOWN_REFUSED = 60, 12
WAYS = {
    Architecture.STRINGS: "strings",
    Architecture.ADD_ON: "a few optimizers",
    Architecture.SYSTEM: "optimizers on all",
    Architecture.MICRO: "microinverters",
}


@dataclass(frozen=True, slots=True)
class Purchase:
    """A combination that breaks no Stop; ``edit`` makes the option so.

    ``kwh_per_100``: kWh a year for each 100 of its parts, ``None`` where a price is missing.
    ``margin_frac``: the least margin under a Stop.  ``outside``: what its makers, the rebate or the
    grid do not stand behind.
    """

    module_id: str
    module: str
    architecture: Architecture
    way: str
    made_of: str
    modules: int
    dc_kw: float
    ac_kw: float
    ratio: float
    energy_kwh: float
    clipped_frac: float
    cents: int | None
    kwh_per_100: float | None
    years_to_pay: float | None
    margin_frac: float
    outside: tuple[str, ...]
    costs: int
    now: bool
    edit: TakeRemedy


@dataclass(frozen=True, slots=True)
class Refused:
    """A sentence that refuses combinations, how many, and one of them."""

    why: str
    count: int
    example: str


@dataclass(frozen=True, slots=True)
class WhatToBuy:
    """Combinations so far, best first; ``looked_at`` of ``of`` modules with every inverter.

    ``by_cost``: ranked by kWh for the money; by kWh and margin where prices are missing.
    """

    found: tuple[Purchase, ...]
    count: int
    refused: tuple[Refused, ...]
    refused_count: int
    looked_at: int
    of: int
    by_cost: bool
    sample_prices: bool
    unknown_prices: tuple[str, ...]
    told: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Candidate:
    design: Design
    steps: tuple[RemedyStep, ...]
    standing: RuleStatus


class _Found:
    """What is found while the search goes on."""

    def __init__(self, design: Design, modules: int) -> None:
        self.job, self.option, self.of = design.job, design.option, modules
        self.purchases: list[Purchase] = []
        self.why: Counter[str] = Counter()
        self.examples: dict[str, str] = {}
        self.unknown: dict[str, None] = {}
        self.sample, self.looked_at = False, 0

    def refuse(self, why: str, example: str) -> None:
        self.why[why] += 1
        self.examples.setdefault(why, example)

    def take(self, purchase: Purchase, bill: Bill) -> None:
        self.purchases.append(purchase)
        self.unknown.update(dict.fromkeys(bill.unknown))
        self.sample = self.sample or bill.sample

    def report(self, *, done: bool = False) -> WhatToBuy:
        by_cost = all(p.kwh_per_100 is not None for p in self.purchases)
        ranked = sorted(self.purchases, key=lambda p: _rank(p, by_cost=by_cost))
        refused = tuple(
            Refused(why, n, self.examples[why]) for why, n in self.why.most_common(SHOWN_REFUSED)
        )
        return WhatToBuy(
            found=tuple(ranked[:SHOWN]),
            count=len(ranked),
            refused=refused,
            refused_count=self.why.total(),
            looked_at=self.looked_at,
            of=self.of,
            by_cost=by_cost,
            sample_prices=self.sample,
            unknown_prices=tuple(self.unknown),
            told=_told(ranked, by_cost=by_cost, done=done),
        )


def what_to_buy(desk: Desk, design: Design) -> Iterator[WhatToBuy]:
    """Yield what to buy for a roof as it is found: the option's own module first.

    Every module of the shelf fills the planes as they are filled now; each is tried on every
    inverter with its best legal plan, and with optimizers and microinverters.

    Raises
    ------
    MissingDatum
        While no module is in a string.
    """
    require_year(design)
    shelf = desk.shelf
    own = [m for m in shelf.modules if m.id == design.option.module_id]
    rest = sorted(
        (m for m in shelf.modules if m.id != design.option.module_id), key=lambda m: -m.p_max_w
    )
    found = _Found(design, len(shelf.modules))
    yield found.report()
    for module in (*own, *rest):
        for _ in _on_module(desk, found, module):
            yield found.report()
        found.looked_at += 1
        yield found.report()
    yield found.report(done=True)


def _on_module(desk: Desk, found: _Found, module: ModuleSheet) -> Iterator[None]:
    """Fill ``found`` with a module's combinations; yields after each."""
    job, option = found.job, found.option
    steps: tuple[RemedyStep, ...] = ()
    if option.electronics.architecture is not Architecture.STRINGS:
        steps = (ChooseElectronics(option.id, Architecture.STRINGS),)
    if module.id != option.module_id:
        steps = (*steps, ChooseModule(option.id, module.id))
    try:
        laid = apply_edits(job, steps, desk.shelf)
    except RidgeTallyError as error:
        found.refuse(str(error), module.name)
        return
    if not present_ids(option_of(laid, option.id)):
        found.refuse("The roof takes none of them.", module.name)
        return
    strung: list[tuple[Purchase, _Candidate]] = []
    for sheet in desk.shelf.inverters:
        candidate = _strung(desk, found, laid, steps, module, sheet)
        if candidate is not None:
            bought = _bought(desk, found, candidate)
            if bought is not None:
                strung.append((bought, candidate))
        yield
    best = sorted(strung, key=lambda pc: _rank(pc[0], by_cost=pc[0].kwh_per_100 is not None))
    bases = [(c.design.job, c.steps) for _, c in best[:TRIED_ON]]
    # A module that strings on nothing may still have an inverter, or a converter, of its own.
    for base, before in bases or [(laid, steps)]:
        yield from _at_modules(desk, found, base, before, micro=False)
    yield from _at_modules(desk, found, laid, steps, micro=True)


def _at_modules(
    desk: Desk, found: _Found, base: Job, before: tuple[RemedyStep, ...], *, micro: bool
) -> Iterator[None]:
    """Fill ``found`` with microinverters, or with optimizers; yields after each."""
    design = design_in(base, found.option.id)
    for proposal in at_modules(desk, design):
        if (proposal.kind is RemedyKind.MICRO) != micro:
            continue
        example = f"{design.module.name}, {proposal.title}"
        try:
            changed = apply_edits(base, proposal.steps, desk.shelf)
        except RidgeTallyError as error:
            found.refuse(str(error), example)
            continue
        candidate = _unstopped(found, changed, (*before, *proposal.steps), example)
        if candidate is not None:
            _bought(desk, found, candidate)
        yield


def _strung(
    desk: Desk,
    found: _Found,
    laid: Job,
    steps: tuple[RemedyStep, ...],
    module: ModuleSheet,
    sheet: InverterSheet,
) -> _Candidate | None:
    """Return a module's array on an inverter with its best plan, where no Stop is broken."""
    option_id, example = found.option.id, f"{module.name} on {sheet.name}"
    phases = laid.survey.service.phases
    if sheet.phases > phases:
        found.refuse(f"Needs {sheet.phases} phases; the service has {phases}.", example)
        return None
    choose = ChooseInverter(option_id, sheet.id)
    on_it = apply_edit(laid, choose, desk.shelf)
    design = design_in(on_it, option_id)
    plan = next(iter(best_plans(design, 1)), None)
    if plan is None:
        found.refuse(why_no_plan(design, plan_space(design)), example)
        return None
    made = apply_edit(on_it, plan[1], desk.shelf)
    return _unstopped(found, made, (*steps, choose, plan[1]), example)


def _unstopped(
    found: _Found, made: Job, steps: tuple[RemedyStep, ...], example: str
) -> _Candidate | None:
    design = design_in(made, found.option.id)
    if strung_count(design.option) < len(present_ids(design.option)):
        found.refuse("No legal plan holds them all.", example)
        return None
    standing = standing_of(design)
    stop = next((b for b in standing.broken.values() if b.kind is LimitKind.STOP), None)
    if stop is not None:
        found.refuse(f"Stop: {stop.told.split(',')[0]}", f"{example}: {stop.told}")
        return None
    return _Candidate(design, steps, standing)


def _bought(desk: Desk, found: _Found, candidate: _Candidate) -> Purchase | None:
    """Return a combination with its year; nothing where it has none, or stands there already."""
    design, standing = candidate.design, candidate.standing
    option, bill = design.option, bill_of(design)
    year, problem = year_or_problem(desk, design)
    made_of = counted_names(ac_makers(design))
    if year is None or year.energy_kwh <= 0:
        found.refuse(problem or "It never runs all year.", made_of)
        return None
    dc_w = dc_watts(design)[2]
    per_100 = years = None
    if bill.cents:
        per_100 = year.energy_kwh / (bill.cents / 10_000)
        saved = saved_of(desk, design, year)
        if saved is not None and saved > 0:
            years = bill.cents / saved
    way, module = option.electronics.architecture, design.module
    title = f"{module.name}, {made_of}"
    purchase = Purchase(
        module_id=module.id,
        module=module.name,
        architecture=way,
        way=WAYS[way],
        made_of=made_of,
        modules=len(present_ids(option)),
        dc_kw=dc_w / 1000,
        ac_kw=design.p_ac_w / 1000,
        ratio=dc_w / design.p_ac_w,
        energy_kwh=year.energy_kwh,
        clipped_frac=year.clipped_frac,
        cents=bill.cents,
        kwh_per_100=per_100,
        years_to_pay=years,
        margin_frac=standing.margin_frac,
        outside=tuple(b.told for b in standing.broken.values() if b.kind is LimitKind.OUTSIDE),
        costs=standing.count(LimitKind.COSTS),
        now=_is_now(found.option, option),
        edit=TakeRemedy(option.id, title, candidate.steps),
    )
    found.take(purchase, bill)
    return purchase


def _is_now(there: Option, option: Option) -> bool:
    return (
        there.module_id == option.module_id
        and there.electronics == option.electronics
        and (there.inverter_id, there.more_inverters) == (option.inverter_id, option.more_inverters)
    )


def _rank(purchase: Purchase, *, by_cost: bool) -> tuple[float, ...]:
    worth = purchase.kwh_per_100 if by_cost else purchase.energy_kwh
    return (float(len(purchase.outside) > 0), -(worth or 0.0), -purchase.margin_frac)


def _told(ranked: list[Purchase], *, by_cost: bool, done: bool) -> tuple[str, ...]:
    if not ranked:
        return ("No combination of the shelf breaks no Stop on this roof.",) if done else ()
    best = ranked[0]
    most = max(ranked, key=lambda p: (not p.outside, p.energy_kwh))
    found = [
        f"{'Most kWh for the money' if by_cost else 'Most kWh'}"
        f"{'' if done else ' so far'}: {_named(best)}."
    ]
    if by_cost and most is not best:
        more = most.energy_kwh - best.energy_kwh
        cents = (most.cents or 0) - (best.cents or 0)
        found.append(
            f"Most kWh: {_named(most)}, {spaced(more)} kWh a year more for {spaced(cents / 100)}."
        )
    now = next((p for p in ranked if p.now), None)
    if now is not None and now is not best:
        place = ranked.index(now) + 1
        found.append(f"What stands there is number {place} of {len(ranked)}.")
    return tuple(found)


def _named(purchase: Purchase) -> str:
    cost = "" if purchase.cents is None else f" for {spaced(purchase.cents / 100)}"
    return (
        f"{purchase.modules} × {purchase.module}, {purchase.way}, {purchase.made_of}: "
        f"{spaced(purchase.energy_kwh)} kWh a year{cost}"
    )
