"""What would better an option most: one change at a time, each worked out whole and held against it."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.edits.any_edit import TakeRemedy
from ridge_tally.core.job.edits.survey.surroundings import RemoveShade
from ridge_tally.core.job.survey import ShadeKind
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.loading.sweep_points import edit_for_count, roof_of
from ridge_tally.studies.money.option_money import OptionMoney, option_money
from ridge_tally.studies.rule_status import Broken, keeps_all, standing_of
from ridge_tally.studies.strings.proposals import RemedyKind, proposals

# Of a kind of change so many are followed through the year.
FOLLOWED = {
    RemedyKind.SPLIT: 1,
    RemedyKind.OTHER_LENGTH: 2,
    RemedyKind.IN_SERIES: 1,
    RemedyKind.ADD_ON: 1,
    RemedyKind.SYSTEM: 1,
    RemedyKind.MICRO: 2,
    RemedyKind.INVERTER: 6,
    RemedyKind.SECOND_INVERTER: 1,
    RemedyKind.PLAIN: 1,
}
WORK = {
    RemedyKind.SPLIT: "wiring on paper",
    RemedyKind.OTHER_LENGTH: "wiring on paper",
    RemedyKind.IN_SERIES: "wiring on paper",
    RemedyKind.ADD_ON: "a unit at some modules, at height",
    RemedyKind.SYSTEM: "a unit at every module, at height",
    RemedyKind.MICRO: "a unit at every module, at height",
    RemedyKind.INVERTER: "another inverter ordered",
    RemedyKind.SECOND_INVERTER: "a second inverter hung and joined",
    RemedyKind.PLAIN: "no units at the modules",
}
UNTRIED = (
    "other modules (Loading, Buy, fills the roof with each)",
    "another tilt or way round (Sun, Angles)",
    "another tariff or a battery of another size",
    "this year or next: prices and incentives of later years are not known",
)


@dataclass(frozen=True, slots=True)
class Move:
    """A change and what it does: differences of two complete runs, the change less what there is.

    ``breaks``: limits it does not keep and the design does; ``unpriced``: lines it brings that have
    no price, so that its money is not whole.  ``edit`` puts it into a new option; ``None`` where
    the change is not the design's.
    """

    title: str
    work: str
    npv_cents: int
    gross_cents: int
    net_cents: int
    energy_kwh: float
    saved_cents: int
    years: float | None
    breaks: tuple[Broken, ...]
    unpriced: tuple[str, ...]
    edit: TakeRemedy | None

    @property
    def sound(self) -> bool:
        """Whether it breaks no Stop and no Outside limit and all of it is priced."""
        return keeps_all(self.breaks) and not self.unpriced


@dataclass(frozen=True, slots=True)
class NextMoves:
    """Moves so far, best first; ``looked_at`` changes tried; ``untried`` in words, when it ends."""

    npv_cents: int
    years: float | None
    moves: tuple[Move, ...]
    looked_at: int
    trying: str
    untried: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Change:
    title: str
    work: str
    job: Job
    edit: TakeRemedy | None


def next_moves(desk: Desk, design: Design) -> Iterator[NextMoves]:
    """Yield what would better an option, as it is found.

    Raises
    ------
    MissingDatum
        As ``option_money`` does.
    """
    # All by the list: a price a watt would make a change look as dear as the watts it brings.
    design = design_in(_by_list(design.job), design.option.id)
    now, standing = option_money(desk, design), standing_of(design)
    found: list[Move] = []
    looked_at = 0

    def report(trying: str, untried: tuple[str, ...] = ()) -> NextMoves:
        ranked = sorted(found, key=lambda m: (not m.sound, -m.npv_cents))
        return NextMoves(
            now.worth.npv_cents, now.worth.paid.lasting, tuple(ranked), looked_at, trying, untried
        )

    yield report("one module more")
    for change in _changes(desk, design):
        yield report(change.title)
        looked_at += 1
        move = _judged(desk, design, change, now, set(standing.broken))
        if move is not None:
            found.append(move)
    yield report("", UNTRIED)


def _by_list(job: Job) -> Job:
    target = replace(job.brief.target, price_cents_per_w=None)
    return replace(job, brief=replace(job.brief, target=target))


def _changes(desk: Desk, design: Design) -> Iterator[_Change]:
    yield from _counts(desk, design)
    followed: Counter[RemedyKind] = Counter()
    for proposal in proposals(desk, design):
        if followed[proposal.kind] >= FOLLOWED.get(proposal.kind, 0):
            continue
        edit = proposal.edit(design.option)
        changed = _applied(desk, design, edit)
        if changed is not None:
            followed[proposal.kind] += 1
            yield _Change(proposal.title, WORK.get(proposal.kind, ""), changed, edit)
    for source in design.job.survey.shade_sources:
        if source.kind is ShadeKind.TREE:
            without = apply_edit(design.job, RemoveShade(source.id), desk.shelf)
            yield _Change(
                f"Without {source.name}",
                "felled or trimmed, not priced here; ask its owner",
                without,
                None,
            )


def _counts(desk: Desk, design: Design) -> Iterator[_Change]:
    """Yield one module more and one less, and all there is room for."""
    roof, count = roof_of(desk, design), len(present_ids(design.option))
    room = len(roof.by_light)
    for wanted in dict.fromkeys((count + 1, count - 1, room)):
        if not 0 < wanted <= room or wanted == count:
            continue
        more = wanted - count
        title = f"{abs(more)} module{'s' if abs(more) > 1 else ''} {'more' if more > 0 else 'less'}"
        edit = replace(edit_for_count(design.option, roof, wanted), told=title)
        changed = _applied(desk, design, edit)
        if changed is not None:
            yield _Change(title, "the same inverter, strung anew", changed, edit)


def _applied(desk: Desk, design: Design, edit: TakeRemedy) -> Job | None:
    """Return the job after an edit; nothing where it cannot be or changes nothing."""
    try:
        changed = apply_edit(design.job, edit, desk.shelf)
    except RidgeTallyError:
        return None
    return None if design_in(changed, design.option.id).option == design.option else changed


def _judged(
    desk: Desk, design: Design, change: _Change, now: OptionMoney, broken: set[tuple[str, str]]
) -> Move | None:
    """Return a change with what it does; nothing where it leaves modules unstrung or has no year."""
    after = design_in(change.job, design.option.id)
    try:
        money = option_money(desk, after)
    except RidgeTallyError:
        return None
    standing = standing_of(after)
    known = set(now.quote.priced.unknown)
    return Move(
        title=change.title,
        work=change.work,
        npv_cents=money.worth.npv_cents - now.worth.npv_cents,
        gross_cents=money.quote.gross_cents - now.quote.gross_cents,
        net_cents=money.quote.net_cents - now.quote.net_cents,
        energy_kwh=money.energy_kwh - now.energy_kwh,
        saved_cents=money.rows[1].saved_cents - now.rows[1].saved_cents,
        years=money.worth.paid.lasting,
        breaks=tuple(b for key, b in standing.broken.items() if key not in broken),
        unpriced=tuple(x for x in money.quote.priced.unknown if x not in known),
        edit=None
        if change.edit is None
        else replace(change.edit, told=change.title, into=change.title),
    )
