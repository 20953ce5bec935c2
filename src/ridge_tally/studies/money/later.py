"""Now or later: the same roof bought today, next year or in stages, each a complete run to the same year."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.edits.any_edit import RemedyStep, TakeRemedy
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.edits.strings.threading import PlanAnew
from ridge_tally.core.job.money import Expected, LineKind
from ridge_tally.core.money.cents import half_up
from ridge_tally.core.money.incentives import Granted, arriving_cents, granted
from ridge_tally.core.money.stages import Stage, staged_flows
from ridge_tally.core.money.years import payback
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.loading.sweep_points import edit_for_count, roof_of
from ridge_tally.studies.money.costs import EACH_JOB
from ridge_tally.studies.money.option_money import (
    OptionMoney,
    expected_of,
    option_money,
    renewed_cents,
)
from ridge_tally.studies.money.quote import incentives_of
from ridge_tally.studies.rule_status import Broken, keeps_all, standing_of
from ridge_tally.studies.strings.proposals import Proposal, RemedyKind, proposals

# Of the shelf's inverters so many are followed, those that hold the full roof first.
FOLLOWED = 3
HUNG = (RemedyKind.INVERTER, RemedyKind.SECOND_INVERTER)


@dataclass(frozen=True, slots=True)
class PaidIn:
    """What is paid for a stage, and what of it incentives bring back, in which year from today."""

    year: int
    what: str
    price_cents: int
    incentives_cents: int


@dataclass(frozen=True, slots=True)
class LaterPlan:
    """A way to buy it; ``npv_cents`` over the table's years from today, ``years`` paid back from today.

    ``breaks``: limits the design it ends with does not keep; ``unpriced``: lines without a price.
    """

    title: str
    npv_cents: int
    years: float | None
    paid: tuple[PaidIn, ...]
    breaks: tuple[Broken, ...]
    unpriced: tuple[str, ...]

    @property
    def sound(self) -> bool:
        """Whether it breaks no Stop and no Outside limit and all of it is priced."""
        return keeps_all(self.breaks) and not self.unpriced


@dataclass(frozen=True, slots=True)
class NowOrLater:
    """Plans so far; the first is all of the design as drawn, today.  ``told`` what they rest on."""

    plans: tuple[LaterPlan, ...]
    trying: str
    told: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Priced:
    """A design with its money."""

    design: Design
    money: OptionMoney


def now_or_later(desk: Desk, design: Design) -> Iterator[NowOrLater]:
    """Yield ways to buy an option, as they are worked out; no loan in any of them.

    Raises
    ------
    MissingDatum
        As ``option_money`` does.
    """
    expected = expected_of(design)
    drawn = _Priced(design, option_money(desk, design))
    found = [_plan("As drawn, today", [(0, drawn, None)], expected)]
    told = _told(expected)

    def so_far(trying: str) -> NowOrLater:
        return NowOrLater(tuple(found), trying, told)

    yield so_far("a year later")
    found.append(_plan("As drawn, a year later", [(1, drawn, None)], expected))
    yield so_far("the roof full")
    for title, stages in _stages(desk, drawn, expected.stage_year):
        found.append(_plan(title, stages, expected))
        yield so_far(title)
    yield so_far("")


Stages = list[tuple[int, _Priced, _Priced | None]]


def _stages(desk: Desk, drawn: _Priced, stage_year: int) -> Iterator[tuple[str, Stages]]:
    """Yield what else the roof has room for, today or later; each stage with the one before it."""
    design, option = drawn.design, drawn.design.option
    roof, count = roof_of(desk, design), len(present_ids(option))
    room = len(roof.by_light)
    if room <= count:
        return
    full_job = apply_edit(design.job, edit_for_count(option, roof, room), desk.shelf)
    filled = design_in(full_job, option.id)
    full = _priced(desk, filled)
    more = f"{room - count} more"
    if full is not None:
        yield f"All {room} modules today", [(0, full, None)]
        yield (
            f"As drawn today, {more} in year {stage_year}",
            [
                (0, drawn, None),
                (stage_year, full, drawn),
            ],
        )
    best = _best_by_kind(desk, filled)
    for kind in HUNG:
        if kind not in best:
            continue
        ended, proposal = best[kind]
        if kind is RemedyKind.SECOND_INVERTER:
            yield (
                f"As drawn today, {more} and a second inverter in year {stage_year}",
                [
                    (0, drawn, None),
                    (stage_year, ended, drawn),
                ],
            )
            continue
        begun = _with_inverter(desk, design, proposal)
        if begun is not None:
            yield (
                f"The bigger inverter today, {more} in year {stage_year}",
                [
                    (0, begun, None),
                    (stage_year, ended, begun),
                ],
            )


def _best_by_kind(desk: Desk, full: Design) -> dict[RemedyKind, tuple[_Priced, Proposal]]:
    """Return the full roof with the bigger and the second inverter worth most of the first that hold it."""
    best: dict[RemedyKind, tuple[_Priced, Proposal]] = {}
    followed = Counter[RemedyKind]()
    for proposal in proposals(desk, full):
        kind = proposal.kind
        if kind not in HUNG or followed[kind] >= FOLLOWED:
            continue
        job = _applied(desk, full.job, proposal.edit(full.option))
        held = None if job is None else design_in(job, full.option.id)
        if held is None or not keeps_all(standing_of(held).broken.values()):
            continue
        followed[kind] += 1
        ended = _priced(desk, held)
        if ended is not None and (
            kind not in best or ended.money.worth.npv_cents > best[kind][0].money.worth.npv_cents
        ):
            best[kind] = ended, proposal
    return best


def _with_inverter(desk: Desk, design: Design, proposal: Proposal) -> _Priced | None:
    """Return the design as drawn on the inverter that will hold the full roof."""
    chosen = tuple(s for s in proposal.steps if isinstance(s, ChooseInverter))
    steps: tuple[RemedyStep, ...] = (*chosen, PlanAnew(design.option.id))
    job = _applied(desk, design.job, TakeRemedy(design.option.id, proposal.title, steps))
    return None if job is None else _priced(desk, design_in(job, design.option.id))


def _applied(desk: Desk, job: Job, edit: TakeRemedy) -> Job | None:
    try:
        return apply_edit(job, edit, desk.shelf)
    except RidgeTallyError:
        return None


def _priced(desk: Desk, design: Design) -> _Priced | None:
    try:
        return _Priced(design, option_money(desk, design))
    except RidgeTallyError:
        return None


def _plan(title: str, stages: Stages, expected: Expected) -> LaterPlan:
    """Return a plan; each stage is (year, design, design before it)."""
    paid, flows_of = [], []
    for at, ends, before in stages:
        price = _price_cents(ends, before, at, expected)
        arrives = _arrives(ends, before, at, expected)
        renewed = renewed_cents(ends.design, ends.money.quote)
        if before is not None:
            renewed = max(0, renewed - renewed_cents(before.design, before.money.quote))
        flows_of.append(Stage(at, price, arrives, renewed, ends.money.bills))
        first = present_ids(before.design.option) if before is not None else ()
        modules = len(present_ids(ends.design.option)) - len(first)
        what = f"{modules} modules{'' if before is None else ' more'}{_hung(ends, before)}"
        paid.append(PaidIn(at, what, price, sum(arrives.values())))
    flows = staged_flows(flows_of, expected)
    rate = 1 + expected.discount_frac
    last = stages[-1][1]
    return LaterPlan(
        title=title,
        npv_cents=half_up(sum(cents / rate**n for n, cents in enumerate(flows))),
        years=payback(flows).lasting,
        paid=tuple(paid),
        breaks=tuple(standing_of(last.design).broken.values()),
        unpriced=last.money.quote.priced.unknown if last.money.quote.by_list else (),
    )


def _hung(ends: _Priced, before: _Priced | None) -> str:
    """Return the inverters that a stage brings, by their names."""
    names = [sheet.name for sheet, _ in ac_makers(ends.design)]
    for sheet, _ in () if before is None else ac_makers(before.design):
        if sheet.name in names:
            names.remove(sheet.name)
    return "".join(f", {name}" for name in dict.fromkeys(names))


def _price_cents(ends: _Priced, before: _Priced | None, at: int, expected: Expected) -> int:
    """Return what a stage costs when it is bought; coming again costs what each job does."""
    price = ends.money.quote.gross_cents
    if before is not None:
        lines = ends.money.quote.priced.lines if ends.money.quote.by_list else ()
        again = sum(
            (x.price_cents or 0) + x.tax_cents
            for x in lines
            if x.costed.kind in (LineKind.PERMITS, LineKind.TRAVEL) or x.costed.name == EACH_JOB
        )
        price = max(0, price - before.money.quote.gross_cents) + again
    return half_up(price * (1 + expected.price_change_frac) ** at)


def _arrives(ends: _Priced, before: _Priced | None, at: int, expected: Expected) -> dict[int, int]:
    """Return what incentives bring for a stage bought then: those of all of it less those before."""
    found = arriving_cents(_granted(ends, at, expected))
    if before is not None:
        for year, cents in arriving_cents(_granted(before, at, expected)).items():
            found[year] = found.get(year, 0) - cents
    return found


def _granted(priced: _Priced, at: int, expected: Expected) -> tuple[Granted, ...]:
    then = replace(
        expected,
        contract=_years_on(expected.contract, at),
        in_service=_years_on(expected.in_service, at),
    )
    design = priced.design
    bought = priced.money.quote.bought
    change = (1 + expected.price_change_frac) ** at
    scaled = replace(
        bought,
        gross_cents=half_up(bought.gross_cents * change),
        credit_cents=half_up(bought.credit_cents * change),
        rebate_cents=half_up(bought.rebate_cents * change),
    )
    return granted(incentives_of(design), scaled, design.job.money.payer, then)


def _years_on(day: date | None, years: int) -> date | None:
    """Return the same day so many years later; the last of February where there is no such day."""
    if day is None:
        return None
    try:
        return day.replace(year=day.year + years)
    except ValueError:
        return day.replace(year=day.year + years, day=28)


def _told(expected: Expected) -> tuple[str, ...]:
    change = expected.price_change_frac * 100
    return (
        f"All to the end of year {expected.years} from today, without a loan; what an array is worth "
        "after that is left out, so that a later one is told a little too dear",
        f"Prices of arrays change by {change:g} % a year, incentives by the day each stage goes live",
        "Coming again costs permits, travel and the work each job takes once more",
    )
