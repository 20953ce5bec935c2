"""What a conductor carries where it lies, by each family's tables: AWG and mm² behind one face."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import takewhile

from ridge_tally.core.build.circuits.sums import conductors_mm2, warm_ohm_per_km
from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.wiring import ConduitKind, Insulation, Lie
from ridge_tally.core.working import Given, Source, SourceStatus
from ridge_tally.rules import tables
from ridge_tally.rules.build.circuits.legs import Leg, Piece
from ridge_tally.rules.standard_sizes import standard_breakers_a

# NEC 310.15(B)(2), 2020 on: nearer to a roof in the sun a raceway is taken as so much warmer.
NEAR_ROOF_M, NEAR_ROOF_K = 0.0191, 33.0
# Cables for modules behind them in the sun; copper at work; soil in Australia: common practice.
BEHIND_MODULES_K, AT_WORK_DEGC, WARM_SOIL_DEGC = 30.0, 70.0, 25.0
# Thinner is not put on a roof; common practice, no source.
LEAST_DC = {True: "10", False: "4"}
TERMINALS = (60, 75)


@dataclass(frozen=True, slots=True)
class Wire:
    """What a circuit's conductors are: by the family's gauge, in which insulation, for what."""

    pack: CodePack
    insulation: Insulation
    dc: bool
    loaded: int
    circuits: int
    terminals_degc: int

    @property
    def us(self) -> bool:
        """Whether sizes are by gauge and the two-sided test holds."""
        return self.pack is CodePack.US


@dataclass(frozen=True, slots=True)
class Carries:
    """The worst place of a conductor's way: what it carries there, and how that comes about.

    ``bare_a`` by the table; ``warm`` and ``bundled`` the factors on it, 0 where no table goes so far.
    """

    bare_a: float
    warm: float
    bundled: float
    place: str

    @property
    def amps(self) -> float:
        """What it carries there, A."""
        return self.bare_a * self.warm * self.bundled


def usual_insulation(pack: CodePack, *, dc: bool) -> Insulation:
    """Return what conductors are insulated with where nobody said."""
    if pack is CodePack.US:
        return Insulation.THWN_2
    return Insulation.XLPE if dc else Insulation.PVC


def insulations(pack: CodePack) -> tuple[Insulation, ...]:
    """Return what a family's conductors may be insulated with."""
    if pack is CodePack.US:
        return Insulation.THWN_2, Insulation.XHHW_2
    return Insulation.PVC, Insulation.XLPE


def sizes(wire: Wire) -> tuple[str, ...]:
    """Return the sizes there are, the thinnest first, from the least that is usual for it."""
    rows = sizes_of(wire.pack)
    return rows[rows.index(LEAST_DC[wire.us]) :] if wire.dc else rows


def sizes_of(pack: CodePack) -> tuple[str, ...]:
    """Return every size of a family's table, the thinnest first."""
    return tuple(str(row[0]) for row in tables.load(_table(pack)).rows)


def size_unit(pack: CodePack) -> str:
    """Return what a family's sizes are counted in."""
    return "AWG" if pack is CodePack.US else "mm²"


def size_told(pack: CodePack, size: str) -> str:
    """Return a size as people write it: ``10 AWG``, ``6 mm²``."""
    return f"{size} {size_unit(pack)}"


def size_meant(pack: CodePack, told: str) -> str:
    """Return the size of a family's table that is meant; empty where it is of another family."""
    return next((size for size in sizes_of(pack) if size_told(pack, size) == told), "")


def _table(pack: CodePack) -> str:
    return "conductors-awg" if pack is CodePack.US else "conductors-mm2"


def figure(wire: Wire, size: str, column: str) -> float:
    """Return a figure of a size from its family's table; NotFound if it has no such size."""
    return tables.load(_table(wire.pack)).number(column, size=size)


def ohm_per_km(wire: Wire, size: str) -> float:
    """Return the resistance of a conductor at work, ohm/km: at 75 °C by gauge, at 70 °C in mm²."""
    if wire.us:
        return figure(wire, size, "ohm_per_km")
    made = "ohm_per_km_fine" if wire.dc else "ohm_per_km_stranded"
    return warm_ohm_per_km(figure(wire, size, made), AT_WORK_DEGC)


def ohm_source(wire: Wire) -> str:
    """Return where its resistance comes from."""
    return "NEC chapter 9 table 8, 75 °C" if wire.us else "IEC 60228, copper at 70 °C"


def over_all_mm2(wire: Wire, size: str) -> float:
    """Return the area of one conductor over its insulation, mm²."""
    if wire.us:
        xhhw = wire.insulation is Insulation.XHHW_2
        return figure(wire, size, "xhhw_2_mm2" if xhhw else "thwn_2_mm2")
    return conductors_mm2(figure(wire, size, "pv_outer_mm" if wire.dc else "outer_mm"))


def air_degc(wire: Wire, piece: Piece, hottest_degc: float) -> tuple[float, str]:
    """Return how warm it is round a piece of cable, °C, and why."""
    row = tables.load("cable-surroundings")
    lie = piece.segment.lie
    fixed = row.number("fixed_degc", lie=lie.value)
    if lie is Lie.BURIED:
        soil = WARM_SOIL_DEGC if wire.pack is CodePack.AU_NZ else fixed
        return soil, f"buried, soil {soil:g} °C"
    if fixed >= 0:
        return fixed, f"{lie.value}, {fixed:g} °C"
    air = hottest_degc + row.number("over_air_k", lie=lie.value)
    if lie is not Lie.ROOF:
        return air, f"{lie.value}, {air:g} °C"
    if not wire.us:
        air += BEHIND_MODULES_K
        return air, f"on the roof behind modules, {air:g} °C"
    above = piece.segment.above_roof
    near = above is None or above.value_m < NEAR_ROOF_M
    if near and wire.insulation is not Insulation.XHHW_2:
        air += NEAR_ROOF_K
        told = "height over the roof not given" if above is None else f"{above.typed} over the roof"
        return air, f"in the sun, {told}: {air:g} °C with {NEAR_ROOF_K:g} K for the roof"
    return air, f"in the sun on the roof, {air:g} °C"


def carries(wire: Wire, size: str, legs: Sequence[Leg], hottest_degc: float) -> Carries | None:
    """Return what a conductor carries where it carries least; ``None`` without a way."""
    pieces = [p for leg in legs for p in leg.pieces]
    found = [_at(wire, size, p, hottest_degc) for p in pieces]
    return min(found, key=lambda c: c.amps, default=None)


def _at(wire: Wire, size: str, piece: Piece, hottest_degc: float) -> Carries:
    air, told = air_degc(wire, piece, hottest_degc)
    if wire.us:
        return Carries(
            figure(wire, size, "a90"),
            _up_to("ambient-us", "factor", air),
            _up_to("bundling-us", "factor", wire.loaded * wire.circuits),
            told,
        )
    lie = piece.segment.lie
    grouped = _up_to("grouping-iec", "factor", wire.circuits)
    if lie is Lie.ROOF and wire.dc:
        bare = tables.load("pv-cable").number("amps", size=size)
        return Carries(bare, _up_to("pv-cable-ambient", "factor", air), grouped, told)
    method = {Lie.BURIED: "d1", Lie.ROOF: "c"}.get(lie, "b1")
    kind = "xlpe" if wire.insulation is Insulation.XLPE else "pvc"
    column = f"{method}_{kind}_{wire.loaded}"
    warm = _up_to("soil-iec" if lie is Lie.BURIED else "ambient-iec", kind, air)
    return Carries(figure(wire, size, column), warm, grouped, f"{told}, method {method.upper()}")


def _up_to(table_id: str, column: str, value: float) -> float:
    """Return the factor of the first row that reaches so far; 0 past the last."""
    return float(tables.load(table_id).reaching(column, value) or 0.0)


def at_terminals_a(wire: Wire, size: str) -> float:
    """Return what a conductor by gauge may carry by its terminals' column, A."""
    return figure(wire, size, "a75" if wire.terminals_degc == TERMINALS[1] else "a60")


def largest_breaker_a(wire: Wire, size: str, amps: float) -> float:
    """Return the largest breaker that protects a conductor that carries so much, A.

    By gauge the next standard size above what it carries will do, but for small conductors; in
    mm² none above it.
    """
    if not wire.us:
        return amps
    small = figure(wire, size, "small_a")
    carried = min(amps, at_terminals_a(wire, size))
    ratings = standard_breakers_a(wire.pack)
    below = list(takewhile(lambda r: r < carried * (1 - 1e-9), ratings))
    next_a = ratings[len(below)] if len(below) < len(ratings) else carried
    return min(small, next_a) if small else next_a


def earth_size(wire: Wire, size: str, breaker_a: float | None) -> str:
    """Return the size of the conductor to earth; empty where no table holds for it."""
    if not wire.us:
        return tables.load("earth-metric").text("earth", pack=wire.pack.value, size=size)
    if breaker_a is None:
        return ""
    return str(tables.load("earth-us").reaching("size", breaker_a) or "")


def conduit_for(
    pack: CodePack, kind: ConduitKind, filled_mm2: float, conductors: int
) -> tuple[str, Given] | None:
    """Return the smallest conduit that takes conductors, and its inside with the share allowed."""
    share = fill_share(pack, conductors)
    for name, inside in conduits(pack, kind):
        if filled_mm2 <= share * inside * (1 + 1e-9):
            return name, Given("inside", f"inside of a {name} conduit", inside, "mm²", "table")
    return None


def fill_share(pack: CodePack, conductors: int) -> float:
    """Return the largest share of a conduit's inside that so many conductors may take."""
    column = {1: "one", 2: "two"}.get(conductors, "more")
    return tables.load("conduit-fill").number(column, pack=pack.value)


def conduits(pack: CodePack, kind: ConduitKind) -> tuple[tuple[str, float], ...]:
    """Return the conduits of a kind with their inside, mm², the smallest first."""
    table = tables.load("conduit-us" if pack is CodePack.US else "conduit-metric")
    return tuple((str(n), float(a)) for k, n, a in table.rows if k == kind.value)


def ampacity_source(wire: Wire) -> Source:
    """Return where the family's currents come from."""
    if wire.us:
        return Source("NEC 690.8(B) and table 310.16", "2023", SourceStatus.FROM_MEMORY)
    document = {
        CodePack.UK: "BS 7671 appendix 4, values of IEC 60364-5-52",
        CodePack.AU_NZ: "AS/NZS 3008.1.1, reckoned by the tables of IEC 60364-5-52",
    }.get(wire.pack, "IEC 60364-5-52 tables B.52.2 to B.52.17")
    return Source(document, "", SourceStatus.FROM_MEMORY)
