"""Which pieces are cut from which sticks, with splices only where the rules allow them.

Lengths are whole ticks: a job's are tenths of a millimetre, a case's sixteenths of an inch or
tenths of a millimetre.  Nothing here is rounded.
"""

from bisect import bisect_left, bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from random import Random

# Orders tried before a first plan is shown, and in all.
FIRST_TRIES, MOST_TRIES = 60, 1500
# Sticks of a length bought that the bound weighs at most.
MOST_STICKS = 400


@dataclass(frozen=True, slots=True)
class CutLine:
    """A rail to be made, with the mounts under it, from its left end; ``whole``: of one piece."""

    length: int
    mounts: tuple[int, ...]
    whole: bool = False


@dataclass(frozen=True, slots=True)
class Stock:
    """A length sold at a cost each, ``None`` where none is; ``at_hand``: pieces that cost nothing."""

    length: int
    cost: int | None
    at_hand: int = 0


@dataclass(frozen=True, slots=True)
class CutRules:
    """What a cut and a splice must keep.

    A splice lies within ``splice_frac`` of a span from a mount (0.5: anywhere in it) and ``clear``
    of the mount; each piece rests on ``least_mounts`` of its own.  ``reuse``: whether an offcut of
    one line may serve another; ``in_end_spans``: whether the outermost spans may hold a splice.
    ``splice_cost``: what each costs, weighed against sticks.
    """

    kerf: int
    least_piece: int
    splice_frac: float
    clear: int
    least_mounts: int = 1
    reuse: bool = True
    in_end_spans: bool = True
    splice_cost: int = 0


@dataclass(frozen=True, slots=True)
class Piece:
    """Piece ``number`` of a line, both from 0; ``start`` on the line."""

    line: int
    number: int
    start: int
    length: int


@dataclass(frozen=True, slots=True)
class Stick:
    """A stick with what is cut from it, in order."""

    length: int
    bought: bool
    pieces: tuple[Piece, ...]

    def left(self, kerf: int) -> int:
        """Return what is left of it after its last cut."""
        used = sum(p.length for p in self.pieces) + kerf * (len(self.pieces) - 1)
        return max(self.length - used - kerf, 0) if used < self.length else 0


@dataclass(frozen=True, slots=True)
class CutPlan:
    """Sticks with their pieces; ``cost`` of those bought and of all ``splices``.

    ``bound``: no plan costs less.  ``least_sticks``: no plan has fewer, known for one length.
    """

    sticks: tuple[Stick, ...]
    cost: int
    splices: int
    bound: int
    least_sticks: int | None

    @property
    def bought(self) -> int:
        """The length bought."""
        return sum(s.length for s in self.sticks if s.bought)

    @property
    def proven(self) -> bool:
        """Whether nothing cheaper exists."""
        return self.cost == self.bound


@dataclass(frozen=True, slots=True)
class NoCut:
    """A line nobody can make of these sticks under these rules, and how far a piece reaches."""

    line: int
    reached: int


def windows(line: CutLine, rules: CutRules) -> list[tuple[int, int, int]]:
    """Return where a line may be spliced: ``(from, to, span)``, ascending, ends included."""
    found: list[tuple[int, int, int]] = []
    if line.whole:
        return found
    last = len(line.mounts) - 2
    for span, (left, right) in enumerate(zip(line.mounts, line.mounts[1:], strict=False)):
        if not rules.in_end_spans and span in (0, last):
            continue
        reach = int(rules.splice_frac * (right - left) + 1e-9)
        if 2 * reach >= right - left:
            pairs = [(left + rules.clear, right - rules.clear)]
        else:
            pairs = [
                (left + rules.clear, left + reach),
                (right - reach, right - rules.clear),
            ]
        found += [(low, high, span) for low, high in pairs if low <= high]
    return found


def cut_plans(
    lines: Sequence[CutLine], stock: Sequence[Stock], rules: CutRules, tries: int = MOST_TRIES
) -> Iterator[CutPlan | NoCut]:
    """Yield a first plan, then each better one, until nothing cheaper can be or the tries end.

    Better: cheaper, then fewer sticks, fewer splices, a longer single offcut.

    Notes
    -----
    Greedy over seeded orders: a line is finished from the tightest stick that holds its rest,
    else cut at the farthest legal splice.  The bound is the cheapest set of sticks as long as all
    lines; for one length its kerfs count too.  Source: geometry; one-dimensional cutting stock.
    """
    makers = [_Maker(line, rules) for line in lines]
    for number, maker in enumerate(makers):
        reached = _reach(maker, stock)
        if reached < maker.line.length:
            yield NoCut(number, reached)
            return
    bound, least_sticks = _bound(lines, stock, rules)
    least_splices = _least_splices(lines, stock)
    bound += least_splices * rules.splice_cost
    best: CutPlan | None = None
    for attempt in range(tries):
        chance = Random(attempt)  # noqa: S311 - orders to try, no secret
        yard = _Yard(stock, rules, chance, greedy=attempt == 0)
        if not yard.make_all(makers):
            continue
        plan = _plan_of(yard.sticks, stock, rules, (len(lines), bound, least_sticks))
        better = best is None or _order(plan, rules) < _order(best, rules)
        if better:
            best = plan
        assert best is not None
        if attempt >= FIRST_TRIES - 1 and (better or attempt == FIRST_TRIES - 1):
            yield best
        if attempt >= FIRST_TRIES - 1 and best.proven and best.splices <= least_splices:
            return
    if best is None:
        yield NoCut(0, 0)
    elif tries < FIRST_TRIES:
        yield best


def _order(plan: CutPlan, rules: CutRules) -> tuple[int, int, int, int]:
    longest = max((s.left(rules.kerf) for s in plan.sticks), default=0)
    return plan.cost, len(plan.sticks), plan.splices, -longest


def _least_splices(lines: Sequence[CutLine], stock: Sequence[Stock]) -> int:
    """Return how many splices no plan does without: each line of as few sticks as it is long."""
    longest = max(s.length for s in stock)
    return sum(-(-line.length // longest) - 1 for line in lines)


def _plan_of(
    sticks: list["_Open"],
    stock: Sequence[Stock],
    rules: CutRules,
    known: tuple[int, int, int | None],
) -> CutPlan:
    """Return what was cut as a plan; ``known``: how many lines, the bound, the least sticks."""
    lines, bound, least_sticks = known
    costs = {s.length: s.cost or 0 for s in stock}
    numbered = _numbered([Stick(s.length, s.bought, tuple(s.pieces)) for s in sticks if s.pieces])
    splices = sum(len(s.pieces) for s in numbered) - lines
    cost = sum(costs[s.length] for s in numbered if s.bought) + splices * rules.splice_cost
    return CutPlan(tuple(numbered), cost, splices, bound, least_sticks)


def _numbered(sticks: list[Stick]) -> list[Stick]:
    """Return the sticks with each line's pieces numbered from its left end."""
    starts: dict[int, list[int]] = {}
    for stick in sticks:
        for piece in stick.pieces:
            starts.setdefault(piece.line, []).append(piece.start)
    places = {
        (line, start): n for line, found in starts.items() for n, start in enumerate(sorted(found))
    }
    return [
        replace(s, pieces=tuple(replace(p, number=places[p.line, p.start]) for p in s.pieces))
        for s in sticks
    ]


class _Maker:
    """A line with where it may be spliced."""

    def __init__(self, line: CutLine, rules: CutRules) -> None:
        self.line, self.rules = line, rules
        self.windows = windows(line, rules)
        self.lows = [low for low, _, _ in self.windows]

    def mirrored(self) -> "_Maker":
        mounts = tuple(self.line.length - m for m in reversed(self.line.mounts))
        return _Maker(CutLine(self.line.length, mounts, self.line.whole), self.rules)

    def _mounts_within(self, start: int, end: int) -> int:
        return bisect_left(self.line.mounts, end) - bisect_right(self.line.mounts, start)

    def whole(self, start: int) -> bool:
        """Return whether what is left from there is a piece that may be."""
        length = self.line.length
        # A line shorter than the least piece is one piece all the same.
        return start == 0 or (
            length - start >= self.rules.least_piece
            and self._mounts_within(start, length) >= self.rules.least_mounts
        )

    def cuts(self, start: int, after_span: int, room: int) -> int | None:
        """Return the farthest legal splice a piece of that room reaches."""
        reach, nearest = start + room, start + self.rules.least_piece
        # Windows and their spans ascend: those past the reach are not looked at, nor those before.
        for n in range(bisect_right(self.lows, reach) - 1, -1, -1):
            low, high, span = self.windows[n]
            cut = min(high, reach)
            if span <= after_span or cut < nearest:
                break
            while cut >= low:
                if self._legal(start, cut):
                    return cut
                # Nearer by what the rest is short of.
                short = self.rules.least_piece - (self.line.length - cut)
                if short <= 0:
                    break
                cut -= short
        return None

    def nearest(self, start: int, after_span: int, at_least: int) -> int | None:
        """Return the nearest legal splice at or past a place: all the rest then fits an offcut."""
        for low, high, span in self.windows:
            cut = max(low, at_least, start + self.rules.least_piece)
            if span > after_span and cut <= high and self._legal(start, cut):
                return cut
        return None

    def _legal(self, start: int, cut: int) -> bool:
        return (
            cut - start >= self.rules.least_piece
            and self._mounts_within(start, cut) >= self.rules.least_mounts
            and self.whole(cut)
        )

    def span_at(self, cut: int) -> int:
        """Return the span a splice lies in."""
        return bisect_right(self.line.mounts, cut) - 1


class _Open:
    """A stick being cut."""

    __slots__ = ("bought", "length", "line", "pieces", "room")

    def __init__(self, length: int, *, bought: bool) -> None:
        self.length, self.bought, self.room = length, bought, length
        self.line = -1
        self.pieces: list[Piece] = []

    def take(self, piece: Piece, kerf: int) -> None:
        self.pieces.append(piece)
        self.room -= piece.length + kerf
        self.line = piece.line


def _reach(maker: _Maker, stock: Sequence[Stock]) -> int:
    """Return how far a line gets with every piece from a stick of its own, the longest there is."""
    longest = max((s.length for s in stock), default=0)
    start, span = 0, -1
    # Farthest first is no loss: a nearer splice never lets the next reach farther.
    while maker.line.length - start > longest:
        cut = maker.cuts(start, span, longest)
        if cut is None:
            return start + longest
        start, span = cut, maker.span_at(cut)
    return maker.line.length


class _Yard:
    """The sticks of one attempt, opened as lines need them; ``greedy`` takes no chances."""

    def __init__(
        self, stock: Sequence[Stock], rules: CutRules, chance: Random, *, greedy: bool
    ) -> None:
        self.sticks = [_Open(s.length, bought=False) for s in stock for _ in range(s.at_hand)]
        self._sold = [s for s in stock if s.cost is not None]
        self._rules, self._chance, self._greedy = rules, chance, greedy

    def make_all(self, makers: list[_Maker]) -> bool:
        """Cut every line; false where one cannot be finished on this way."""
        order = sorted(range(len(makers)), key=lambda n: -makers[n].line.length)
        if not self._greedy:
            self._chance.shuffle(order)
        return all(self._make_either_way(n, makers[n]) for n in order)

    def _make_either_way(self, number: int, maker: _Maker) -> bool:
        if self._greedy or self._chance.random() < 0.5:
            return self._make(number, maker)
        made, length = self._make(number, maker.mirrored()), maker.line.length
        for stick in self.sticks:
            stick.pieces = [
                replace(p, start=length - p.start - p.length) if p.line == number else p
                for p in stick.pieces
            ]
        return made

    def _make(self, number: int, maker: _Maker) -> bool:
        start, span, length = 0, -1, maker.line.length
        while start < length:
            usable = [s for s in self.sticks if self._rules.reuse or s.line in (-1, number)]
            holding = [s for s in usable if s.room >= length - start]
            options = (
                [] if holding and self._finishes() else self._options(maker, start, span, usable)
            )
            if options:
                stick, cut = self._chosen(options, length)
            elif holding:
                stick, cut = min(holding, key=lambda s: s.room), length
            else:
                return False
            if stick not in self.sticks:
                self.sticks.append(stick)
            stick.take(Piece(number, 0, start, cut - start), self._rules.kerf)
            start, span = cut, maker.span_at(cut)
        return True

    def _finishes(self) -> bool:
        """Return whether a line is finished from what holds its rest, as it nearly always should."""
        return self._greedy or self._chance.random() < 0.9

    def _options(
        self, maker: _Maker, start: int, span: int, usable: list[_Open]
    ) -> list[tuple[int, _Open, int]]:
        """Return what may be cut next: what it leaves of the stick, the stick, where it ends."""
        found: list[tuple[int, _Open, int]] = []
        length = maker.line.length
        for stick in usable:
            cut = maker.cuts(start, span, stick.room)
            if cut is not None:
                found.append((stick.room - (cut - start), stick, cut))
        longest = max((s.room for s in usable), default=0)
        for kind in self._sold:
            cut = length if kind.length >= length - start else maker.cuts(start, span, kind.length)
            if cut is not None:
                found.append((kind.length - (cut - start), _Open(kind.length, bought=True), cut))
            # Only so much of it that an offcut holds the rest.
            near = maker.nearest(start, span, length - longest) if cut == length else None
            if longest and near is not None and near - start <= kind.length:
                found.append((0, _Open(kind.length, bought=True), near))
        return found

    def _chosen(self, options: list[tuple[int, _Open, int]], length: int) -> tuple[_Open, int]:
        if self._greedy:
            # Whole from a new stick before it is spliced from offcuts.
            _, stick, cut = min(options, key=lambda o: (o[2] < length, o[0]))
        else:
            options.sort(key=lambda o: o[0])
            late = min(int(self._chance.expovariate(0.8)), len(options) - 1)
            _, stick, cut = options[late]
        return stick, cut


def _bound(
    lines: Sequence[CutLine], stock: Sequence[Stock], rules: CutRules
) -> tuple[int, int | None]:
    """Return the least cost any plan can have, and the least sticks where one length is sold."""
    needed = sum(line.length for line in lines)
    free = sum(s.length * s.at_hand for s in stock)
    sold = [s for s in stock if s.cost is not None]
    if len(stock) == 1 and free == 0 and sold:
        length = sold[0].length
        pieces = sum(-(-line.length // length) for line in lines)
        sticks = 0
        while sticks * length - rules.kerf * max(0, pieces - sticks) < needed:
            sticks += 1
        if not rules.reuse:
            sticks = max(sticks, sum(-(-line.length // length) for line in lines))
        return sticks * (sold[0].cost or 0), sticks
    return _cheapest(needed - free, sold), None


def _cheapest(needed: int, sold: Sequence[Stock]) -> int:
    """Return the cost of the cheapest sticks that are as long together."""
    if needed <= 0 or not sold:
        return 0
    by_worth = sorted(sold, key=lambda s: (s.cost or 0) / s.length)
    best = min(-(-needed // s.length) * (s.cost or 0) for s in sold)

    def search(kind: int, still: int, cost: int) -> None:
        nonlocal best
        if still <= 0:
            best = min(best, cost)
            return
        if kind == len(by_worth):
            return
        rate = (by_worth[kind].cost or 0) / by_worth[kind].length
        if cost + still * rate >= best:
            return
        most = min(-(-still // by_worth[kind].length), MOST_STICKS)
        for count in range(most, -1, -1):
            search(
                kind + 1,
                still - count * by_worth[kind].length,
                cost + count * (by_worth[kind].cost or 0),
            )

    search(0, needed, 0)
    return best
