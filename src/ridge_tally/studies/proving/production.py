"""What an array made beside what was due: months, days, signs, modules beside their siblings."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import NotFound, OutOfRange
from ridge_tally.core.job.document import month_first, taking_part
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.proving import Carries, ProductionFile
from ridge_tally.core.nominal_year import DAYS_IN_MONTH
from ridge_tally.core.proving.logged.days import (
    BANDS,
    LEAST_DAYS_OF_MONTH,
    Days,
    LogStanding,
    Month,
    judged_days,
    months_of,
    standing_of,
)
from ridge_tally.core.proving.logged.siblings import beside_siblings
from ridge_tally.core.proving.logged.signatures import Seen, signs_of
from ridge_tally.core.proving.logged.steps import Sorted, What, sorted_steps
from ridge_tally.formats.production_file import (
    DAY_MIN,
    LogTerms,
    ProductionLog,
    called_modules,
    read_production,
)
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.rules.proving.serials import carried, serial_map
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.kept import meter_file
from ridge_tally.simulation.logged_due import LoggedDue, logged_due
from ridge_tally.simulation.weather import weather_key
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.proving.production_words import (
    SignTold,
    Tone,
    clocks_told,
    headline,
    left_out_told,
    sign_told,
)

FloatArray = NDArray[np.float64]
# What the files of the stand-in of a gateway are called.
SIMULATED = "simulated-gateway"


@dataclass(frozen=True, slots=True)
class MonthMade:
    """A month; ``usual_kwh``: the design's year for the days that were logged."""

    name: str
    logged_days: int
    judged_days: int
    made_kwh: float
    due_kwh: float
    usual_kwh: float
    ratio: float | None
    performance_frac: float | None
    at_25_frac: float | None
    light_kwh_per_m2: float | None
    left_out: str
    standing: LogStanding


@dataclass(frozen=True, slots=True)
class DayMade:
    """A day; ``ratio``: of its judged steps, nothing where it is not judged."""

    day: date
    made_kwh: float
    due_kwh: float
    ratio: float | None
    standing: LogStanding
    left_out: str


@dataclass(frozen=True, slots=True)
class ModuleMade:
    """A module, or the modules of a unit, beside siblings of the same light."""

    modules: tuple[PlacedId, ...]
    name: str
    kwh: float
    ratio: float | None
    siblings: int
    tone: Tone


@dataclass(frozen=True, slots=True)
class ProductionView:
    """A log judged.

    ``corrections``: what was put right in it; ``doubts``: what the judgement rests on that is no
    measurement.
    """

    file: str
    column: str
    columns: tuple[str, ...]
    step_min: int
    first: date
    last: date
    told: str
    standing: LogStanding
    ratio: float | None
    fine_band: float
    look_band: float
    light_measured: bool
    corrections: tuple[str, ...]
    doubts: tuple[str, ...]
    months: tuple[MonthMade, ...]
    days: tuple[DayMade, ...]
    signs: tuple[SignTold, ...]
    modules: tuple[ModuleMade, ...]


@dataclass(frozen=True, slots=True)
class DayCourse:
    """A day's steps: W made and due, nothing where not logged; what each step is."""

    day: date
    step_min: int
    made_w: tuple[float | None, ...]
    due_w: tuple[float, ...]
    free_w: tuple[float, ...]
    left_out: tuple[str, ...]
    told: str


@dataclass(frozen=True, slots=True, eq=False)
class Judged:
    """A log as it is judged, before any words."""

    log: ProductionLog
    due: LoggedDue
    sorted: Sorted
    days: Days
    months: tuple[Month, ...]
    signs: tuple[Seen, ...]


def judged_log(desk: Desk, design: Design, log: ProductionLog) -> Judged:
    """Return a log judged against what was due of a design.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If no module is in a string, or a datasheet lacks what the model needs.
    """
    due = logged_due(desk, design, log)
    steps = sorted_steps(due.steps)
    days = judged_days(steps)
    gamma = design.module.gamma_pmp_frac_per_degc or 0.0
    months = months_of(steps, days, log.first_day, gamma)
    noon = due.steps.air_degc[:, due.steps.air_degc.shape[1] // 2]
    signs = signs_of(steps, days, due.shares, float(np.median(noon)))
    return Judged(log, due, steps, days, months, signs)


def log_of(desk: Desk, design: Design, at: int) -> tuple[ProductionFile, Judged]:
    """Return a gateway's file of the job and it judged, remembered.

    Raises
    ------
    OutOfRange, NotFound, FormatError, MissingDatum
        If there is no such file, it is not kept here, cannot be read, or nothing is strung.
    """
    files = design.job.proving.production
    if not 0 <= at < len(files):
        raise OutOfRange("Number of the file", at + 1, f"between 1 and {len(files)}")
    file = files[at]
    terms = terms_of(design, file.column)
    key = (
        file, design.option, design.job.survey, design.job.site, design.array_sheets,
        design.inverters, weather_key(design.job), tuple(sorted(terms.called)),
    )  # fmt: skip

    def judge() -> Judged:
        content = meter_file(desk, file.sha256).read_bytes()
        return judged_log(desk, design, read_production(content, file.file, terms))

    return file, desk.logs.get(key, judge)


def terms_of(design: Design, column: str = "") -> LogTerms:
    """Return what a reader must know of a design."""
    strung = taking_part(design.option)
    return LogTerms(
        utc_offset_h=design.job.site.utc_offset_h,
        rated_w=dc_watts(design)[2],
        modules=len(strung),
        month_first=month_first(design.job),
        called=called_modules(_named(design)),
        column=column,
    )


def _named(design: Design) -> Iterator[tuple[str, tuple[PlacedId, ...]]]:
    """Yield what a log may call modules: serial numbers, and their places."""
    alone = len({laid.plane.id for laid in design.arrays if laid.array.modules}) == 1
    for kind in carried(design):
        for cell in serial_map(design, design.job.proving, kind).cells:
            place = f"row {cell.row} place {cell.column}"
            yield f"{cell.plane} {place}", cell.modules
            if alone:
                yield place, cell.modules
            if cell.text:
                yield cell.text, cell.modules


def reporting_units(design: Design) -> Iterator[tuple[str, tuple[PlacedId, ...]]]:
    """Yield the units that report by themselves, by their number or place; none behind strings."""
    kinds = carried(design)
    if len(kinds) == 1:
        return
    for cell in serial_map(design, design.job.proving, Carries.UNIT).cells:
        yield cell.text or f"{cell.plane} row {cell.row} place {cell.column}", cell.modules


def production_view(desk: Desk, design: Design, at: int) -> ProductionView:
    """Return a gateway's file judged; raises as ``log_of`` does."""
    file, judged = log_of(desk, design, at)
    return production_of(desk, design, judged, file.file)


def production_of(desk: Desk, design: Design, judged: Judged, file: str) -> ProductionView:
    """Return a judged log in words, by the name of its file."""
    log, days, steps = judged.log, judged.days, judged.due.steps
    measured = steps.light_measured
    told = [sign_told(s, log.first_day, measured=measured) for s in judged.signs]
    signs = tuple(sorted(told, key=lambda s: list(Tone).index(s.tone), reverse=True))
    there = np.isfinite(days.ratio)
    ratio = None
    enough = int(there.sum()) >= min(LEAST_DAYS_OF_MONTH, log.days)
    if enough and not any(s.sign == "unit" for s in judged.signs):
        ratio = float(days.judged_made_kwh[there].sum() / days.judged_due_kwh[there].sum())
    standing = standing_of(ratio, in_plane=steps.in_plane)
    modules = tuple(_modules(design, judged))
    fine, look = BANDS[steps.in_plane]
    last = log.first_day + timedelta(days=log.days - 1)
    return ProductionView(
        file=file, column=log.column, columns=log.columns, step_min=log.own_step_min,
        first=log.first_day, last=last,
        told=headline(ratio, standing, signs, int(there.sum()), log.days, measured=measured,
                      odd=sum(m.tone is Tone.ACT for m in modules)),
        standing=standing, ratio=ratio, fine_band=fine, look_band=look, light_measured=measured,
        corrections=(*log.corrections, *clocks_told(judged.due.offs, log.first_day)),
        doubts=tuple(_doubts(judged, file)),
        months=tuple(_months(desk, design, judged)),
        days=tuple(_days(judged)), signs=signs, modules=modules,
    )  # fmt: skip


def _doubts(judged: Judged, file: str) -> Iterator[str]:
    log = judged.log
    if file.startswith(SIMULATED):
        yield "A simulated gateway wrote it: practice, no measurement"
    if not judged.due.steps.light_measured:
        yield (
            "No light was measured: cloudless days alone are judged, against a usual cloudless sky "
            "(estimated), in wider bands; months stand beside the design’s own year"
        )
    elif log.level_light:
        yield "Light on the level is turned into the arrays’ planes by a model (estimated): the bands are wider"
    else:
        yield f"The light is taken as measured in the plane of {judged.due.light_on}, clean"
    if judged.due.unlit:
        yield f"{judged.due.unlit} steps have power and no light: not judged"
    if log.air_degc is None and log.cell_degc is None:
        yield "No temperature was measured: the air is the month’s mean of each hour (estimated)"
    if log.step_min == DAY_MIN:
        yield "One figure a day: its course, its stops and its limits are not seen"


def _months(desk: Desk, design: Design, judged: Judged) -> Iterator[MonthMade]:
    usual = hourly_year(desk, design).monthly_kwh
    for m in judged.months:
        share = min(1.0, m.logged_days / DAYS_IN_MONTH[m.month - 1])
        yield MonthMade(
            f"{date(m.year, m.month, 1):%b %Y}", m.logged_days, m.judged_days, m.made_kwh,
            m.due_kwh, usual[m.month - 1] * share, m.ratio, m.performance_frac, m.at_25_frac,
            m.light_kwh_per_m2, left_out_told(m.left_out_h), m.standing,
        )  # fmt: skip


def _days(judged: Judged) -> Iterator[DayMade]:
    days, what = judged.days, judged.sorted.what
    in_plane, step_h = judged.due.steps.in_plane, judged.due.steps.step_h
    for n, value in enumerate(days.ratio):
        ratio = float(value) if np.isfinite(value) else None
        hours = tuple((w, float((what[n] == w).sum()) * step_h) for w in What if w > What.KEPT)
        yield DayMade(
            judged.log.first_day + timedelta(days=n), float(days.made_kwh[n]),
            float(days.due_kwh[n]), ratio, standing_of(ratio, in_plane=in_plane),
            left_out_told(tuple(h for h in hours if h[1] > 0)),
        )  # fmt: skip


def _modules(design: Design, judged: Judged) -> Iterator[ModuleMade]:
    log, due = judged.log, judged.due
    if not log.modules:
        return
    plane_of = {m.id: n for n, laid in enumerate(design.arrays) for m in laid.array.modules}
    names = {
        i: f"{c.plane}, row {c.row}, place {c.column}"
        for kind in carried(design)
        for c in serial_map(design, design.job.proving, kind).cells
        for i in c.modules
    }
    group = np.array([plane_of.get(ids[0], -1) for ids, _ in log.modules])
    found = beside_siblings(due.module_kwh, due.module_light, group)
    tones = (Tone.KNOWN, Tone.LOOK, Tone.ACT)
    for k, (ids, _) in enumerate(log.modules):
        ratio = float(found.ratio[k]) if np.isfinite(found.ratio[k]) else None
        yield ModuleMade(
            ids, names.get(ids[0], ids[0]), float(due.module_kwh[k]), ratio, int(found.siblings[k]),
            tones[int(found.odd[k])],
        )  # fmt: skip


def day_course(desk: Desk, design: Design, at: int, day: date) -> DayCourse:
    """Return a day of a gateway's file, step by step; raises as ``log_of`` does.

    Raises
    ------
    NotFound
        If the day is not in the file.
    """
    _, judged = log_of(desk, design, at)
    n = (day - judged.log.first_day).days
    if not 0 <= n < judged.log.days:
        raise NotFound("day", day.isoformat())
    steps, what = judged.due.steps, judged.sorted.what[n]
    ratio = judged.days.ratio[n]
    made, due = judged.days.made_kwh[n], judged.days.due_kwh[n]
    told = f"{made:.1f} kWh made, {due:.1f} due"
    told += (
        f", {ratio * 100:.0f} % of it in what is judged" if np.isfinite(ratio) else ", not judged"
    )
    return DayCourse(
        day, judged.log.step_min,
        tuple(None if np.isnan(v) else float(v) for v in steps.made_w[n]),
        tuple(steps.due_w[n].tolist()), tuple(steps.free_w[n].tolist()),
        tuple(left_out_told(((What(w), 0.0),)) if w > What.KEPT else "" for w in what.tolist()),
        told,
    )  # fmt: skip
