"""Ways out of a broken limit or a heavy loss: each judged anew by every rule and by its year."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.edits.any_edit import TakeRemedy
from ridge_tally.core.working import LimitKind
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.rules.design import Design, makes_ac
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.report import KINDS
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import require_strings, year_or_problem
from ridge_tally.studies.parts import Bill, bill_of, changed_parts
from ridge_tally.studies.rule_status import (
    Broken,
    RuleStatus,
    keeps_all,
    standing_of,
    stops_and_outside,
)
from ridge_tally.studies.strings.proposals import Proposal, RemedyKind, proposals
from ridge_tally.studies.strings.tracker_losses import TrackerLosses, tracker_losses

# Of a kind with many variants so many are followed through the year, the rest judged by rules.
FOLLOWED = {
    RemedyKind.SPLIT: 4,
    RemedyKind.IN_SERIES: 1,
    RemedyKind.SYSTEM: 1,
    RemedyKind.MICRO: 3,
    RemedyKind.INVERTER: 4,
    RemedyKind.SECOND_INVERTER: 1,
}


# Ways out that take the modules and the input as they are.
WIRING = {RemedyKind.SPLIT, RemedyKind.OTHER_LENGTH, RemedyKind.IN_SERIES, RemedyKind.FEWER}


@dataclass(frozen=True, slots=True)
class Trouble:
    """What asks for a way out: a broken limit, or a tracker's heavy loss (a kind of Costs)."""

    kind: LimitKind
    told: str


@dataclass(frozen=True, slots=True)
class Remedy:
    """A way out with what it gains, costs and breaks; ``edit`` takes it.

    ``energy_kwh`` by the hour; ``over_hours``: how long trackers are over their current in the
    year; ``extra_cents`` of the parts alone.  ``mends`` what was broken and
    is not any more, ``breaks`` what was not and now is, ``left`` what stays.  ``cold``: the string
    or unit nearest to its cold-voltage limit.  ``year_to_come``: judged by the rules alone so far.
    """

    kind: RemedyKind
    title: str
    plan: str
    year_to_come: bool
    energy_kwh: float | None
    gain_kwh: float | None
    over_hours: float
    extra_cents: int | None
    parts: str
    mends: tuple[str, ...]
    breaks: tuple[Broken, ...]
    left: tuple[Broken, ...]
    cold: str
    problem: str
    edit: TakeRemedy

    @property
    def legal(self) -> bool:
        """Whether no Stop and no Outside limit is broken after it."""
        return keeps_all((*self.breaks, *self.left))


@dataclass(frozen=True, slots=True)
class RemediesReport:
    """Ways out so far, best first; ``best`` and ``cheapest`` are places in them.

    ``looked_at`` of ``of`` proposals.  ``sample_prices``: some are invented.
    """

    troubles: tuple[Trouble, ...]
    energy_kwh: float | None
    cold: str
    remedies: tuple[Remedy, ...]
    best: int | None
    cheapest: int | None
    looked_at: int
    of: int
    sample_prices: bool


@dataclass(frozen=True, slots=True)
class _Tried:
    design: Design
    standing: RuleStatus
    bill: Bill
    remedy: Remedy


def remedies(desk: Desk, design: Design) -> Iterator[RemediesReport]:
    """Yield the ways out found so far, ranked, until all are judged: by the rules, then by the year.

    Those that break nothing come first, then by the year's energy; where nothing makes AC, what
    changes series and parallel alone comes before other parts.

    Raises
    ------
    MissingDatum
        While no module is in a string.
    """
    require_strings(design)
    before, bill = standing_of(design), bill_of(design)
    energy = _energy(desk, design)[0]
    troubles = _troubles(before, _losses(desk, design))
    found: list[Remedy] = []
    seen, of = 0, 0

    def report() -> RemediesReport:
        ranked = _shown(found, wiring_first=not makes_ac(design))
        return RemediesReport(
            troubles, energy, before.cold, tuple(ranked),
            _best(ranked, by_year=makes_ac(design)), _cheapest(ranked),
            seen, of, bill.sample,
        )  # fmt: skip

    yield report()
    tried: list[_Tried] = []
    for proposal in proposals(desk, design):
        attempt = _tried(desk, design, proposal, before, bill)
        if attempt is not None:
            tried.append(attempt)
            found = [one.remedy for one in _followed(tried, design.p_ac_w)]
        yield report()
    followed = _followed(tried, design.p_ac_w)
    of = len(followed)
    for place, one in enumerate(followed):
        found[place] = _with_year(desk, one, energy)
        seen += 1
        yield report()


def _tried(
    desk: Desk, design: Design, proposal: Proposal, before: RuleStatus, bill: Bill
) -> _Tried | None:
    """Return a proposal carried out; nothing where it cannot be or changes nothing."""
    edit = proposal.edit(design.option)
    try:
        changed = apply_edit(design.job, edit, desk.shelf)
    except RidgeTallyError:
        return None
    after = design_in(changed, design.option.id)
    if after.option == design.option:
        return None
    standing, parts = standing_of(after), bill_of(after)
    remedy = _by_rules(proposal, edit, standing, parts, before, bill)
    return _Tried(after, standing, parts, remedy)


def _followed(tried: list[_Tried], ac_w: float) -> list[_Tried]:
    """Return what is worth a year: of each kind the first few by its limits and its price."""

    least, most = practice(Practice.LIKE_SIZE_LEAST), practice(Practice.LIKE_SIZE_MOST)

    def order(one: _Tried) -> tuple[float, ...]:
        standing = one.standing
        cents = one.bill.cents if one.bill.cents is not None else 1 << 40
        unlike = not least * ac_w <= one.design.p_ac_w <= most * ac_w
        return (*(standing.count(kind) for kind in KINDS[:3]), unlike, cents)

    chosen: list[_Tried] = []
    for kind in RemedyKind:
        mine = sorted((t for t in tried if t.remedy.kind is kind), key=order)
        chosen += mine[: FOLLOWED.get(kind, len(mine))]
    return chosen


def _by_rules(
    proposal: Proposal,
    edit: TakeRemedy,
    standing: RuleStatus,
    parts: Bill,
    before: RuleStatus,
    bill: Bill,
) -> Remedy:
    new, old = standing.broken, before.broken
    cents = None if parts.cents is None or bill.cents is None else parts.cents - bill.cents
    return Remedy(
        kind=proposal.kind,
        title=proposal.title,
        plan=proposal.plan,
        year_to_come=True,
        energy_kwh=None,
        gain_kwh=None,
        over_hours=0.0,
        extra_cents=cents,
        parts=changed_parts(bill, parts),
        mends=tuple(b.told for key, b in old.items() if key not in new),
        breaks=tuple(b for key, b in new.items() if key not in old),
        left=tuple(b for key, b in new.items() if key in old),
        cold=standing.cold,
        problem="",
        edit=edit,
    )


def _with_year(desk: Desk, one: _Tried, before_kwh: float | None) -> Remedy:
    energy, problem = _energy(desk, one.design)
    return replace(
        one.remedy,
        year_to_come=False,
        energy_kwh=energy,
        gain_kwh=None if energy is None or before_kwh is None else energy - before_kwh,
        over_hours=sum(t.over_hours for t in _losses(desk, one.design)),
        problem=problem if makes_ac(one.design) else "",
    )


def _shown(found: list[Remedy], *, wiring_first: bool) -> list[Remedy]:
    """Return what is worth showing, ranked: what helps, and of each other kind one with why not."""

    def rank(remedy: Remedy) -> tuple[float, ...]:
        stops = stops_and_outside((*remedy.breaks, *remedy.left))
        parts = wiring_first and remedy.kind not in WIRING
        return (*stops, parts, -(remedy.energy_kwh or 0.0))

    ranked = sorted(found, key=rank)
    helps = [
        r for r in ranked if r.legal and (r.mends or r.year_to_come or (r.gain_kwh or 0.0) > 0)
    ]
    served = {r.kind for r in helps}
    refused = {r.kind: r for r in reversed(ranked) if not r.legal and r.kind not in served}
    return sorted((*helps, *refused.values()), key=rank)


def _best(ranked: list[Remedy], *, by_year: bool) -> int | None:
    """Return the first legal way: the one of most energy where there is a year to go by."""
    rated = (i for i, r in enumerate(ranked) if r.legal and (r.energy_kwh or not by_year))
    return next(rated, None)


def _cheapest(ranked: list[Remedy]) -> int | None:
    """Return the legal way that mends most for least: of those alike the one with more energy."""
    legal = [(i, r) for i, r in enumerate(ranked) if r.legal and r.extra_cents is not None]
    if not legal:
        return None
    fewest = min(len(r.left) for _, r in legal)
    whole = [(i, r) for i, r in legal if len(r.left) == fewest]
    return min(whole, key=lambda ir: (ir[1].extra_cents or 0, -(ir[1].energy_kwh or 0.0)))[0]


def _energy(desk: Desk, design: Design) -> tuple[float | None, str]:
    year, problem = year_or_problem(desk, design)
    return None if year is None else year.energy_kwh, problem


def _losses(desk: Desk, design: Design) -> tuple[TrackerLosses, ...]:
    try:
        return tracker_losses(desk, design)
    except RidgeTallyError:
        return ()


def _troubles(before: RuleStatus, losses: tuple[TrackerLosses, ...]) -> tuple[Trouble, ...]:
    found = [Trouble(b.kind, b.told) for b in before.broken.values()]
    for tracker in losses:
        parts = (
            ("its limits", tracker.limits_kwh),
            ("uneven light in its strings", tracker.uneven_kwh),
        )
        for what, lost_kwh in parts:
            share = lost_kwh / tracker.own_kwh if tracker.own_kwh else 0.0
            if share > practice(Practice.HEAVY_FRAC):
                told = (
                    f"Tracker {tracker.number} loses {lost_kwh:.0f} kWh DC a year "
                    f"({share * 100:.1f} %) to {what}"
                )
                if what == "its limits" and tracker.over_hours:
                    told += f": over its current for {tracker.over_hours:.0f} h"
                found.append(Trouble(LimitKind.COSTS, told))
    return tuple(found)
