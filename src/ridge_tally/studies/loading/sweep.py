"""How much array an inverter should carry: by adding modules, best light first, and by its size."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ridge_tally.core.loading.weights import WHOLE_YEAR, Weighing
from ridge_tally.core.number_format import loss_share
from ridge_tally.core.working import number_of
from ridge_tally.rules.brief.ceilings import REBATE_SIZE, rebate_ceilings
from ridge_tally.rules.design import Design, p_max_given
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.simulation.batteries import told as told_of
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import house_load
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import hourly_year, require_year
from ridge_tally.studies.loading.household import house_of
from ridge_tally.studies.loading.sweep_points import (
    Scale,
    SweepPoint,
    counts_tried,
    point_of_count,
    point_of_size,
    ratios_tried,
    roof_of,
    sized_to_ratio,
    under_the_caps,
)
from ridge_tally.studies.parts import price_of
from ridge_tally.studies.rule_status import forbids

# How many sizes are told together, and how much of the work they are.
AT_ONCE, SIZES_FRAC = 5, 0.3


SCHOOLS = (
    (
        1.0,
        "one to one: an old rule; for hot or high sites with cool clear sky, and for later modules",
    ),
    (1.2, "usual: real arrays rarely pass 80 to 85 % of their laboratory watts"),
    (1.33, "as far as a common rebate stands behind"),
    (1.5, "east-west roofs, low pay at noon, capped export, cheap modules"),
    (2.0, "a battery on the DC side, or a hard export cap, where the maker permits it"),
)


@dataclass(frozen=True, slots=True)
class SchoolView:
    """A school's loading here: what such an inverter gives on this array, and why the school is."""

    ratio: float
    ac_kw: float
    energy_kwh: float
    clipped_frac: float
    why: str


@dataclass(frozen=True, slots=True)
class SweepReport:
    """The sweeps so far.  ``by_modules``: modules, best light first, on the inverter there is.
    ``by_size``: an inverter of other sizes, its curve the same, under the strings there are.

    ``sweet`` and ``sweet_money``: places in ``by_modules``; ``largest_kept`` the largest that keeps
    every Stop and Outside.  ``battery``: the option's, in words.  ``told``: which, and why.
    """

    weighed: str
    battery: str
    by_modules: tuple[SweepPoint, ...]
    by_size: tuple[SweepPoint, ...]
    schools: tuple[SchoolView, ...]
    sweet: int | None
    sweet_money: int | None
    largest_kept: int | None
    told: tuple[str, ...]
    done_frac: float


def loading_sweep(
    desk: Desk, design: Design, weighing: Weighing = WHOLE_YEAR
) -> Iterator[SweepReport]:
    """Yield the sweep as it grows: inverter sizes first, then modules from few to many.

    Each point is a full hourly year of the design it stands for.

    Raises
    ------
    MissingDatum
        While no module is in a string, or a datasheet lacks what the year needs.
    """
    require_year(design)
    weather, cents = weather_of(desk, design.job), price_of(design.module)
    load = house_load(desk, design.job)
    house = None if load is None else house_of(desk, design.job, load)
    scale = Scale(desk, design.job, weather, weighing, house)
    battery = "" if design.option.battery is None else told_of(design.option.battery)
    sizes: list[SweepPoint] = []
    schools: list[SchoolView] = []
    points: list[SweepPoint] = []

    def report(done: float, *, whole: bool = False) -> SweepReport:
        sweet, money, kept = (
            _sweet(points),
            _sweet_money(points, cents),
            _largest_kept(points),
        )
        return SweepReport(
            weighing.title, battery, tuple(points), tuple(sizes), tuple(schools), sweet, money, kept,
            (
                *_told(points, sweet, money, kept, cents),
                *_rebate_told(design),
                *_house_told(points, sizes, battery),
            )
            if whole
            else (),
            done,
        )  # fmt: skip

    yield report(0.0)
    for number, ratio in enumerate(ratios := ratios_tried(design), start=1):
        sizes.append(point_of_size(desk, design, scale, ratio))
        if number % AT_ONCE == 0:
            yield report(SIZES_FRAC * number / len(ratios))
    schools += [_school(desk, design, scale, r, why) for r, why in SCHOOLS]
    yield report(SIZES_FRAC)
    roof, whole = roof_of(desk, design), roof_of(desk, design, anew=True)
    counts = counts_tried(design, max(len(roof.by_light), len(whole.by_light)))
    for number, count in enumerate(counts, start=1):
        before = points[-1] if points else None
        # What is laid stays where it is as long as it holds so many.
        places = roof if count <= len(roof.by_light) else whole
        points.append(point_of_count(desk, design, places, scale, count, before))
        yield report(SIZES_FRAC + (1 - SIZES_FRAC) * number / len(counts))
    if _largest_kept(points) is None:
        points[:0] = under_the_caps(desk, design, roof, scale, points[0].modules)
    yield report(1.0, whole=True)


def _school(desk: Desk, design: Design, scale: Scale, ratio: float, why: str) -> SchoolView:
    sized = sized_to_ratio(design, ratio)
    year = hourly_year(desk, sized)
    return SchoolView(ratio, sized.p_ac_w / 1000, scale.kwh(year), year.clipped_frac, why)


def _sweet(points: Sequence[SweepPoint]) -> int | None:
    """Return the last point whose modules still give nearly what early ones do."""
    gains = [p.next_kwh for p in points if p.next_kwh is not None]
    if not gains:
        return None
    worth = practice(Practice.STILL_WORTH_FRAC)
    early, found = max(gains[: max(1, len(gains) // 3)]), None
    for i, point in enumerate(points):
        if not point.kept:
            continue
        if point.next_kwh is None or point.next_kwh >= worth * early:
            found = i
    return found


def _sweet_money(points: Sequence[SweepPoint], cents: int | None) -> int | None:
    """Return the last point whose modules pay themselves back; ``None`` without prices.

    What they spare is the difference of the bills with them and without.
    """
    if cents is None or all(p.saved_cents is None for p in points):
        return None
    found, years = None, practice(Practice.PAYS_YEARS)
    for i, point in enumerate(points):
        before = points[i - 1] if i else None
        pays = True
        if before is not None and before.saved_cents is not None and point.saved_cents is not None:
            more = point.saved_cents - before.saved_cents
            pays = more * years >= cents * (point.modules - before.modules)
        if point.kept and pays:
            found = i
    return found


def _largest_kept(points: Sequence[SweepPoint]) -> int | None:
    return max((i for i, p in enumerate(points) if p.kept), default=None)


def _told(
    points: Sequence[SweepPoint],
    sweet: int | None,
    money: int | None,
    kept: int | None,
    cents: int | None,
) -> tuple[str, ...]:
    found = []
    if sweet is not None:
        p = points[sweet]
        found.append(
            f"By energy: {p.modules} modules, DC:AC {p.ratio:.2f}, clipping "
            f"{loss_share(p.clipped_frac or 0)}; up to there the next module still gives "
            f"{practice(Practice.STILL_WORTH_FRAC) * 100:.0f} % of what an early one does."
        )
    if money is not None:
        p = points[money]
        found.append(
            f"By money: {p.modules} modules, DC:AC {p.ratio:.2f}; the last one, at "
            f"{(cents or 0) / 100:.0f}, is paid back by lower bills within {practice(Practice.PAYS_YEARS):.0f} years."
        )
    elif sweet is not None:
        found.append("By money: a price of the module, a tariff or the house’s use is missing.")
    if kept is None and points:
        least = points[0]
        forbidden = [b.told for b in least.broken if forbids(b)]
        why = least.problem.rstrip(".") or "; ".join(forbidden[:2])
        found.append(f"Every count breaks a Stop or an Outside limit: at {least.modules}, {why}.")
    if kept is not None:
        p = points[kept]
        above = next(iter(points[kept + 1 :]), None)
        wall = ""
        if above is not None:
            wall = above.problem.rstrip(".") or next((b.told for b in above.broken), "")
        found.append(
            f"The largest that breaks no Stop and no Outside limit: {p.modules} modules"
            + (
                f"; at {above.modules}: {wall}"
                if above is not None and wall
                else ", all there is room for"
            )
            + "."
        )
    return tuple(found)


def _rebate_told(design: Design) -> tuple[str, ...]:
    """Return what the first module past the rebate costs: all of it by its ratio, its own by its size."""
    grid = design.job.brief.grid
    rebate = None if grid is None else grid.rebate
    if grid is None or rebate is None:
        return ()
    each_w = number_of(p_max_given(design))
    found = []
    for limit in rebate_ceilings(design, grid):
        if limit.modules is None:
            continue
        holds, whole = limit.modules, limit.title != REBATE_SIZE
        # A size pays for what lies under it; past a ratio the array is not the rebate's any more.
        lost = rebate.pays_cents_per_dc_w * each_w * (holds if whole else 1) / 100
        what = (
            f"loses all of it, {lost:.0f}"
            if whole
            else f"earns none, {lost:.0f} less than those before"
        )
        if rebate.pays_cents_per_dc_w == 0:
            what = "loses all of it" if whole else "earns none"
            what += " (what it pays is not typed)"
        found.append(
            f"{limit.title}, {rebate.name}: module {holds + 1} is the first past it and {what}."
        )
    return tuple(found)


def _house_told(
    points: Sequence[SweepPoint], sizes: Sequence[SweepPoint], battery: str
) -> tuple[str, ...]:
    """Return what the export limit and the battery do along the sweep."""
    found = []
    held = [p for p in points if (p.held_kwh or 0.0) >= 1]
    if held:
        first, last = held[0], held[-1]
        found.append(
            f"The export limit keeps back {first.held_kwh:.0f} kWh a year at {first.modules} modules"
            + (f", {last.held_kwh:.0f} at {last.modules}." if last is not first else ".")
        )
    if battery:
        gains = [p for p in sizes if (p.with_battery_kwh or 0.0) > (p.energy_kwh or math.inf)]
        found.append(
            f"The battery ({battery}) takes back more than its conversions lose from DC:AC "
            f"{gains[0].ratio:.2f} on."
            if gains
            else f"At no size here does the battery ({battery}) take back more than its conversions "
            "lose: it moves energy, it makes none."
        )
    return tuple(found)
