"""What would better an option most: one change at a time, each worked out whole and held against it."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import TakeRemedy
from ridge_tally.core.money.cents import half_up
from ridge_tally.editing.design import design_in
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.money.changes import Change, changes_of
from ridge_tally.studies.money.option_money import OptionMoney, expected_of, option_money
from ridge_tally.studies.rule_status import Broken, keeps_all, standing_of

UNTRIED = (
    "other modules (Loading, Buy, fills the roof with each)",
    "batteries of other sizes",
    "two changes at once",
)


@dataclass(frozen=True, slots=True)
class Move:
    """A change and what it does: differences of two complete runs, the change less what there is.

    ``npv_cents`` is of all the house pays, its bills too: another tariff changes them without an
    array as well.

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


def next_moves(desk: Desk, design: Design) -> Iterator[NextMoves]:
    """Yield what would better an option, as it is found.

    Raises
    ------
    MissingDatum
        As ``option_money`` does.
    """
    # All by the list: a price a watt would make a change look as dear as the watts it brings.
    design = design_in(_by_list(design.job), design.option.id)
    now, broken = option_money(desk, design), set(standing_of(design).broken)
    now_npv_cents = _house_npv_cents(design, now)
    found: list[Move] = []
    looked_at = 0

    def report(trying: str, untried: tuple[str, ...] = ()) -> NextMoves:
        ranked = sorted(found, key=lambda m: (not m.sound, -m.npv_cents))
        return NextMoves(
            now.worth.npv_cents, now.worth.paid.lasting, tuple(ranked), looked_at, trying, untried
        )

    yield report("what leaves the array alone")
    for change in changes_of(desk, design):
        yield report(change.title)
        looked_at += 1
        move = _judged(desk, design, change, now, now_npv_cents, broken)
        if move is not None:
            found.append(move)
    yield report("", UNTRIED)


def _by_list(job: Job) -> Job:
    target = replace(job.brief.target, price_cents_per_w=None)
    return replace(job, brief=replace(job.brief, target=target))


def _judged(
    desk: Desk,
    design: Design,
    change: Change,
    now: OptionMoney,
    now_npv_cents: int,
    broken: set[tuple[str, str]],
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
        npv_cents=_house_npv_cents(after, money) - now_npv_cents,
        gross_cents=money.quote.gross_cents - now.quote.gross_cents,
        net_cents=money.quote.net_cents - now.quote.net_cents,
        energy_kwh=money.energy_kwh - now.energy_kwh,
        saved_cents=now.rows[1].after_cents - money.rows[1].after_cents,
        years=money.worth.paid.lasting,
        breaks=tuple(b for key, b in standing.broken.items() if key not in broken),
        unpriced=tuple(x for x in money.quote.priced.unknown if x not in known),
        edit=None
        if change.edit is None
        else replace(change.edit, told=change.title, into=change.title),
    )


def _house_npv_cents(design: Design, money: OptionMoney) -> int:
    """Return what all a house pays over the years is worth today: less than nothing, as it pays."""
    rate = 1 + expected_of(design).discount_frac
    before = sum(row.before_cents / rate**row.year for row in money.rows)
    return money.worth.npv_cents - half_up(before)
