"""The measured-curve bench: a test module's day made into an array, laid over the model's day."""

from dataclasses import dataclass, replace
from datetime import date

import numpy as np

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.bench import Bench
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.loading.measured_day import BenchSum, DayJudged, judged, moved, summed
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.sun import sun_path
from ridge_tally.core.sky.weather_year import clearest_day, moments_of_day, steps_of_day
from ridge_tally.formats.power_file import MeasuredDay, read_power
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.kept import meter_file
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import year_or_problem

# A curve whose middle lies further than this from solar noon has another clock, or is no half of
# an east-west pair; our own line.
CLOCK_OFF_H = 0.75

PICKING = (
    "A clear day from sunrise to sunset, no cloud before the sun: the curve rises once, falls once.",
    "The test module faces and tilts as one half of the array will; nothing shades it all day.",
    "Log it in steps of 5 minutes or less, by a clock you know: standard or daylight time.",
)

FREEING = (
    "Its inverter’s limit must be above the module’s watts, or the top is cut off: pair it with "
    "one that is larger, or have a licensed person free a limit that is set.",
    "A module by itself on a rated resistor or meter is live as long as light falls on it: never "
    "pull its connectors under load; cover it first.",
    "On a roof, fall protection comes first. Local code and licensed people decide.",
)


@dataclass(frozen=True, slots=True)
class DayTold:
    """A day of the file and how fit it is."""

    day: date
    energy_kwh_per_kw: float
    clear: bool
    limited: bool
    missing: int
    roughness: float


@dataclass(frozen=True, slots=True)
class BenchReport:
    """What stands on the bench.

    ``minutes``: middles of its steps in standard time.  ``per_w`` what the module gave for each
    watt; ``model_kw`` the option's clear day nearest, in steps of its own.  ``noon_h``: solar noon
    of that day in standard time.
    """

    bench: Bench
    days: tuple[DayTold, ...]
    step_min: int
    noon_h: float
    per_w: tuple[float, ...]
    mirrored_per_w: tuple[float, ...]
    whole_kw: tuple[float, ...]
    given_kw: tuple[float, ...]
    whole_kwh: float
    clipped_kwh: float
    most_kw: float
    model_kw: tuple[float, ...]
    model_kwh: float | None
    model_told: str
    caveats: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class BenchView:
    """The bench as it stands, or how to fill it."""

    report: BenchReport | None
    problem: str
    picking: tuple[str, ...]
    freeing: tuple[str, ...]


def bench_view(desk: Desk, design: Design) -> BenchView:
    """Return what stands on a job's bench."""
    if design.job.bench is None:
        return BenchView(None, "", PICKING, FREEING)
    try:
        days = kept_power(desk, design.job, design.job.bench)
    except NotFound:
        problem = f"The file {design.job.bench.file.file} is not kept here: choose it again."
        return BenchView(None, problem, PICKING, FREEING)
    return BenchView(_report(desk, design, design.job.bench, days), "", PICKING, FREEING)


def kept_power(desk: Desk, job: Job, bench: Bench) -> tuple[MeasuredDay, ...]:
    """Return the days of the bench's file; NotFound where it is not kept here."""
    place, first = meter_file(desk, bench.file.sha256), month_first(job)
    return desk.weather.get(
        ("power file", bench.file.sha256, first),
        lambda: read_power(place.read_bytes(), bench.file.file, month_first=first),
    )


def _report(desk: Desk, design: Design, bench: Bench, days: tuple[MeasuredDay, ...]) -> BenchReport:
    chosen = next((d for d in days if d.day == bench.file.day), days[0])
    power = moved(chosen.power_w, -1.0) if bench.daylight else chosen.power_w
    noon_h, per_w = solar_noon_h(design.job, chosen.day), power / bench.module_w
    terms = tuple((t.p_dc_w, t.mirrored) for t in bench.terms)
    made = summed(per_w, terms, noon_h, bench.limit_kw)
    other = summed(per_w, ((1000.0, True),), noon_h, None).whole_kw
    model_kw, told = _model(desk, design, chosen.day)
    fit = judged(chosen.power_w)
    return BenchReport(
        bench=replace(bench, file=replace(bench.file, day=chosen.day)),
        days=tuple(_day_told(d, bench) for d in days),
        step_min=chosen.step_min,
        noon_h=noon_h,
        per_w=tuple(per_w.tolist()),
        mirrored_per_w=tuple(other.tolist()),
        whole_kw=tuple(made.whole_kw.tolist()),
        given_kw=tuple(made.given_kw.tolist()),
        whole_kwh=made.whole_kwh,
        clipped_kwh=made.clipped_kwh,
        most_kw=float(made.whole_kw.max()),
        model_kw=model_kw,
        model_kwh=sum(model_kw) * 24 / len(model_kw) if model_kw else None,
        model_told=told,
        caveats=tuple(_caveats(bench, fit, chosen, power, noon_h, made)),
    )


def _day_told(day: MeasuredDay, bench: Bench) -> DayTold:
    fit = judged(day.power_w)
    kwh = float(day.power_w.sum()) * day.step_min / 60
    return DayTold(
        day.day, kwh / bench.module_w, fit.clear, fit.limited, day.missing, fit.roughness
    )


def solar_noon_h(job: Job, day: date) -> float:
    """Return the hour of standard time at which the sun stands highest on a day."""
    minutes = np.arange(0, 24 * 60)
    number = min(364, (day - date(day.year, 1, 1)).days)
    zenith = sun_path(moments_of_day(number, minutes), location_of(job.site)).zenith_deg
    return float(minutes[int(np.argmin(zenith))]) / 60


def _model(desk: Desk, design: Design, day: date) -> tuple[tuple[float, ...], str]:
    year, problem = year_or_problem(desk, design)
    if year is None:
        return (), problem
    around = min(364, (day - date(day.year, 1, 1)).days)
    clear = clearest_day(weather_of(desk, design.job).ghi_w_per_m2, around)
    power = year.ac_rated_w[steps_of_day(clear, len(year.ac_rated_w))] / 1000
    return tuple(
        np.maximum(power, 0.0).tolist()
    ), f"Option {str(design.option.id).upper()}, its clearest day near"


def _caveats(
    bench: Bench,
    fit: DayJudged,
    day: MeasuredDay,
    power: np.ndarray,
    noon_h: float,
    made: BenchSum,
) -> list[str]:
    found = []
    if not fit.clear:
        found.append(
            f"Clouds passed: the curve goes up and down {fit.roughness * 100:.0f} % beyond one rise "
            "and one fall. Take a clearer day"
        )
    if fit.limited:
        found.append(
            f"Its top is flat for {fit.flat_h:.1f} h: an inverter's limit held the module back, "
            "and the sum is too low at noon"
        )
    if day.missing:
        found.append(f"{day.missing} of its steps are missing and drawn between their neighbours")
    if day.step_min > 15:
        found.append(f"Steps of {day.step_min} minutes hide what a limit cuts")
    hours = (np.arange(len(power)) + 0.5) * 24 / len(power)
    centre_h = float((hours * power).sum() / power.sum())
    if abs(centre_h - noon_h) > CLOCK_OFF_H:
        found.append(
            f"Half of its energy lies {abs(centre_h - noon_h):.1f} h "
            f"{'after' if centre_h > noon_h else 'before'} solar noon: the module faces "
            f"{'west' if centre_h > noon_h else 'east'}, or the file's clock is another"
        )
    if any(t.mirrored for t in bench.terms):
        found.append(
            "Mirrored about solar noon: afternoons are hotter than mornings, so the mirrored half "
            "is a little too high or too low"
        )
    if made.whole_kw.max() <= 0:
        found.append("Nothing is summed: type the watts of at least one group")
    return found
