"""Options of a job over a year, and a design as it was before: curves, months, what makes them differ."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ridge_tally.core.energy.difference import StepDifference, differences
from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.errors import NotUnderstood, OutOfRange
from ridge_tally.core.job.document import Job, battery_joined, present_ids
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.number_format import signed
from ridge_tally.core.sky.weather_year import clearest_day, steps_of_day
from ridge_tally.core.strings.parts import ac_makers, counted_names
from ridge_tally.core.working import LimitKind
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.simulation.batteries import told as battery_told
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import house_load
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import year_or_problem
from ridge_tally.studies.loading.household import house_of, lived
from ridge_tally.studies.parts import bill_of
from ridge_tally.studies.rule_status import standing_of

MOST_COMPARED = 4
SHOWN_DAYS = (
    ("Clear day near June’s solstice", 171),
    ("near the equinox", 79),
    ("near December’s", 354),
)


@dataclass(frozen=True, slots=True)
class Pick:
    """An option at a revision of its job."""

    option_id: OptionId
    revision: int

    @property
    def key(self) -> str:
        """How it is asked for: ``a@12``."""
        return f"{self.option_id}@{self.revision}"


@dataclass(frozen=True, slots=True)
class OptionYear:
    """An option's year; energy and what follows from it ``None`` where ``problem`` says why.

    ``days_kw``: kW by hour of the days shown.  ``own_use_kwh``: what the house takes of it, its
    battery with it; ``None`` while no use is known.  ``differences`` to the first, by step.
    """

    key: str
    title: str
    made_of: str
    earlier: bool
    modules: int
    dc_kw: float
    ac_kw: float
    energy_kwh: float | None
    specific_kwh_per_kw: float | None
    clipped_kwh: float | None
    clipped_frac: float | None
    tracker_loss_kwh: float | None
    own_use_kwh: float | None
    monthly_kwh: tuple[float, ...]
    days_kw: tuple[tuple[float, ...], ...]
    cents: int | None
    stops: int
    outside: int
    costs: int
    first_broken: str
    differences: tuple[StepDifference, ...]
    problem: str


@dataclass(frozen=True, slots=True)
class OptionsCompared:
    """Years side by side; the others are held against the first.  ``day_titles`` of the curves."""

    years: tuple[OptionYear, ...]
    day_titles: tuple[str, ...]
    told: tuple[str, ...]


def parse_picks(typed: str, revision: int) -> tuple[Pick, ...]:
    """Return the options of ``a,b,a@12``; without a revision they are of the one at hand.

    Raises
    ------
    NotUnderstood, OutOfRange
        If it is no such list, or more than can be laid over each other.
    """
    picks = []
    for part in filter(None, (p.strip() for p in typed.split(","))):
        option_id, _, number = part.partition("@")
        if not option_id.isalnum() or (number and not number.isdigit()):
            raise NotUnderstood("Options", typed, "their letters, such as a,b, or a@12 for earlier")
        picks.append(Pick(OptionId(option_id), int(number) if number else revision))
    found = tuple(dict.fromkeys(picks))
    if not 0 < len(found) <= MOST_COMPARED:
        raise OutOfRange("Options compared", len(found), f"1 to {MOST_COMPARED}")
    return found


def options_compared(
    desk: Desk, revision: int, there: Sequence[tuple[Pick, Design]]
) -> OptionsCompared:
    """Return the years of options, the first one being what the others are held against.

    ``revision`` is the one at hand; what is of another was so before.
    """
    years: list[OptionYear] = []
    first: YearResult | None = None
    for number, (pick, design) in enumerate(there):
        year, problem = year_or_problem(desk, design)
        first = year if number == 0 else first
        told = _told_of(desk, design, pick, year, problem)
        told = replace(told, earlier=pick.revision != revision)
        if year is not None and first is not None and number > 0:
            told = replace(told, differences=differences(first.stages, year.stages))
        years.append(told)
    return OptionsCompared(tuple(years), tuple(t for t, _ in SHOWN_DAYS), _words(years))


def _told_of(
    desk: Desk,
    design: Design,
    pick: Pick,
    year: YearResult | None,
    problem: str,
) -> OptionYear:
    standing = standing_of(design)
    dc_w = dc_watts(design)[2]
    worst = sorted(standing.broken.values(), key=lambda b: list(LimitKind).index(b.kind))
    own_use = None
    load = house_load(desk, design.job)
    if year is not None and load is not None:
        there = lived(design, house_of(desk, design.job, load), year, battery_joined(design.option))
        own_use = kwh_of(there.own_use_w, there.hours)
    return OptionYear(
        key=pick.key,
        title=f"{str(design.option.id).upper()} {design.option.name}",
        made_of=_made_of(design),
        earlier=False,
        modules=len(present_ids(design.option)),
        dc_kw=dc_w / 1000,
        ac_kw=design.p_ac_w / 1000,
        energy_kwh=None if year is None else year.energy_kwh,
        specific_kwh_per_kw=None if year is None or not dc_w else year.energy_kwh / (dc_w / 1000),
        clipped_kwh=None if year is None else year.clipped_kwh,
        clipped_frac=None if year is None else year.clipped_frac,
        tracker_loss_kwh=None if year is None else year.lost_kwh(Step.TRACKER),
        own_use_kwh=own_use,
        monthly_kwh=() if year is None else year.monthly_kwh,
        days_kw=() if year is None else _days(desk, design.job, year),
        cents=_cents(design),
        stops=standing.count(LimitKind.STOP),
        outside=standing.count(LimitKind.OUTSIDE),
        costs=standing.count(LimitKind.COSTS),
        first_broken=worst[0].told if worst else "",
        differences=(),
        problem=problem,
    )


def _made_of(design: Design) -> str:
    units = counted_names(ac_makers(design))
    return (
        units
        if design.option.battery is None
        else f"{units}, battery {battery_told(design.option.battery)}"
    )


def _cents(design: Design) -> int | None:
    """Return what an option's parts cost, its battery with them; ``None`` where one is not known."""
    parts, battery = bill_of(design).cents, design.option.battery
    if battery is None or parts is None:
        return parts
    return None if battery.price_cents is None else parts + battery.price_cents


def _days(desk: Desk, job: Job, year: YearResult) -> tuple[tuple[float, ...], ...]:
    ghi = weather_of(desk, job).ghi_w_per_m2
    found = []
    for _, around in SHOWN_DAYS:
        mine = steps_of_day(clearest_day(ghi, around), len(year.ac_w))
        found.append(tuple((year.ac_w[mine] / 1000).tolist()))
    return tuple(found)


def _words(years: Sequence[OptionYear]) -> tuple[str, ...]:
    first, found = years[0], []
    for other in years[1:]:
        if first.energy_kwh is None or other.energy_kwh is None:
            continue
        more = other.energy_kwh - first.energy_kwh
        share = more / first.energy_kwh * 100 if first.energy_kwh else 0.0
        sentence = f"{_name(other)} gives {signed(more)} kWh a year ({signed(share, 1)} %)"
        if first.earlier:
            sentence += " against what was before"
        if first.cents is not None and other.cents is not None and first.cents != other.cents:
            sentence += f", its parts {signed((other.cents - first.cents) / 100)}"
        found.append(f"{sentence}.")
    return tuple(found)


def _name(year: OptionYear) -> str:
    return f"{year.title}, as it was," if year.earlier else year.title
