"""Which way to face: every tilt and azimuth on this site's weather, and an array split in two."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from pvlib import irradiance
from scipy.optimize import brentq

from ridge_tally.core.array.stances import positions_of, tilt_by_day
from ridge_tally.core.energy.even_year import even_power_frac, power_table
from ridge_tally.core.energy.inverter import AcSide, ac_side, ac_year
from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.job.array import Mounting, PlaneArray, present_of
from ridge_tally.core.job.document import Job, Option, plane_of, present_ids
from ridge_tally.core.loading.weights import WHOLE_YEAR, Season, Weighing, counted
from ridge_tally.core.nominal_year import day_name
from ridge_tally.core.sky.plane_irradiance import plane_light
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.sky_bins import SkyBins, behind_glass_wh_per_m2, sky_bins
from ridge_tally.core.sky.sun import SunPath, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear, by_step, clearest_day, steps_of_day
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.core.sun.shading import glass_of
from ridge_tally.editing.design import design_for
from ridge_tally.rules.design import Design, dc_ac_ratio, dc_limit_given, dc_watts
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.plant import heat_loss, losses_of, own_point_of, usual_warming
from ridge_tally.simulation.weather import weather_of

FloatArray = NDArray[np.float64]
TILTS_DEG = tuple(float(t) for t in range(0, 91, 5))
AZIMUTHS_DEG = tuple(float(a) for a in range(0, 361, 10))
SPLITS_DEG = tuple(float(a) for a in range(0, 91, 5))
# Lower suns give little; our own line.
LOW_SUN_DEG = 10.0
EVENING = Weighing(Season.HOURS, 16, 21)
EQUATOR_NORTH, EQUATOR_SOUTH = 180.0, 0.0
SHOWN_DAYS = (("March equinox", 79), ("June solstice", 171), ("December solstice", 354))
MOST_EXTRA = 2.5


@dataclass(frozen=True, slots=True)
class OwnPlane:
    """A plane of the site on the map: light behind its glass, free of shade, against the best.

    Tables tilted with the seasons are there at each tilt, on the days it is held against the best
    of those days.
    """

    name: str
    tilt_deg: float
    azimuth_deg: float
    kwh_per_m2: float
    loss_frac: float
    modules: int


@dataclass(frozen=True, slots=True)
class AngleMap:
    """``kwh_per_m2`` (tilts, azimuths): light behind the glass of free planes, weighed."""

    weighed: str
    tilts_deg: tuple[float, ...]
    azimuths_deg: tuple[float, ...]
    kwh_per_m2: tuple[tuple[float, ...], ...]
    best_tilt_deg: float
    best_azimuth_deg: float
    best_kwh_per_m2: float
    planes: tuple[OwnPlane, ...]


@dataclass(frozen=True, slots=True)
class SplitPoint:
    """Half the array turned each way by an angle; kWh AC of the year, winter half and evenings.

    ``behind_hours``: the sun is up above the low sun and behind the glass of one half.
    """

    split_deg: float
    year_kwh: float
    winter_kwh: float
    evening_kwh: float
    clipped_kwh: float
    clipped_frac: float
    behind_hours: float


@dataclass(frozen=True, slots=True)
class SplitDay:
    """A clear day near a date: AC kW by hour, of the array all one way, split best, east-west."""

    title: str
    equator_kw: tuple[float, ...]
    best_kw: tuple[float, ...]
    east_west_kw: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class SplitStudy:
    """An unshaded array of this size, tilt and inverter, split by angles.

    ``best_*_deg``: by year, winter half, evenings.  ``east_west_more``: how many more modules
    east-west needs to give what all to the equator does, ``None`` where no count does;
    ``east_west_taken`` whether the inverter's maker stands behind so many, ``None`` where its sheet
    is silent.
    """

    tilt_deg: float
    ratio: float
    limit_kw: float
    modules: int
    points: tuple[SplitPoint, ...]
    best_year_deg: float
    best_winter_deg: float
    best_evening_deg: float
    east_west_more: int | None
    east_west_taken: bool | None
    days: tuple[SplitDay, ...]
    told: tuple[str, ...]


def angle_map(desk: Desk, job: Job, option: Option, weighing: Weighing = WHOLE_YEAR) -> AngleMap:
    """Return what every tilt and azimuth gets of this site's weather, its own planes marked."""
    weather, sun = _sky(desk, job)
    mine = counted(weather.time, weighing, southern=job.site.latitude_deg < 0)
    tilts, azimuths = np.meshgrid(TILTS_DEG, AZIMUTHS_DEG, indexing="ij")

    def everywhere(bins: SkyBins) -> FloatArray:
        return behind_glass_wh_per_m2(bins, tilts.ravel(), azimuths.ravel()) / 1000

    bins = sky_bins(weather, sun, mine)
    light = everywhere(bins)
    best = int(np.argmax(light))
    top = float(light[best])
    planes = []
    for array in option.arrays:
        if not present_of(array):
            continue
        plane = plane_of(job, array.plane_id)
        tilt_by_step = by_step(tilt_by_day(positions_of(array)), len(weather.time))
        for tilt_deg, days in _held(array):
            theirs, most = bins, top
            if days:
                theirs = sky_bins(weather, sun, mine & (tilt_by_step == tilt_deg))
                most = float(everywhere(theirs).max())
            glass = glass_of(plane, tilt_deg)
            got = float(
                behind_glass_wh_per_m2(
                    theirs, np.array([glass.slope_deg]), np.array([glass.azimuth_deg])
                )[0]
                / 1000
            )
            planes.append(
                OwnPlane(
                    f"{plane.name}{days}", glass.slope_deg, glass.azimuth_deg, got,
                    1 - got / most if most > 0 else 0.0, len(present_of(array)),
                )
            )  # fmt: skip
    return AngleMap(
        weighed=weighing.title,
        tilts_deg=TILTS_DEG,
        azimuths_deg=AZIMUTHS_DEG,
        kwh_per_m2=tuple(tuple(float(v) for v in row) for row in light.reshape(tilts.shape)),
        best_tilt_deg=float(tilts.ravel()[best]),
        best_azimuth_deg=float(azimuths.ravel()[best]),
        best_kwh_per_m2=top,
        planes=tuple(planes),
    )


def _held(array: PlaneArray) -> list[tuple[float, str]]:
    """Return the tilts of a year, each with the days it begins on; in words, none for all year."""
    begins: dict[float, list[str]] = {}
    for position in positions_of(array):
        begins.setdefault(position.tilt_deg, []).append(day_name(position.from_day))
    if len(begins) < 2:
        return [(array.leg_tilt_deg, "")]
    return [(tilt, f" from {' and '.join(days)}") for tilt, days in begins.items()]


def split_study(
    desk: Desk,
    job: Job,
    option: Option,
    tilt_deg: float | None = None,
    ratio: float | None = None,
) -> SplitStudy:
    """Return what splitting an array gives on this site's weather, unshaded.

    Parameters
    ----------
    tilt_deg, ratio : float, optional
        The glass and DC:AC; left out, those of the option's largest array and its inverters.

    Raises
    ------
    MissingDatum, OutsideModelRange
        If a datasheet lacks what the year needs.
    """
    design = design_for(job, option)
    dc_w, count = dc_watts(design)[2], len(present_ids(option))
    if count == 0:
        dc_w, count = design.module.p_max_w, 1
    if tilt_deg is None:
        arrays = [a for a in option.arrays if present_of(a)]
        most = max(arrays, key=lambda a: len(present_of(a)), default=None)
        tilt_deg = 30.0
        if most is not None:
            tilt_deg = glass_of(plane_of(job, most.plane_id), most.leg_tilt_deg).slope_deg
    if ratio is None:
        # With no unit yet, an array as large as what makes its AC.
        ratio = dc_ac_ratio(design) or 1.0
    study = _Split(desk, job, option, design, tilt_deg, dc_w, dc_w / ratio)
    points = tuple(study.point(angle) for angle in SPLITS_DEG)
    year, winter, evening = (
        max(points, key=lambda p, w=which: (round(getattr(p, w), 6), -p.split_deg)).split_deg  # type: ignore[misc]
        for which in ("year_kwh", "winter_kwh", "evening_kwh")
    )
    more = study.more_frac(90.0, points[0].year_kwh)
    extra = None if more is None else math.ceil(count * (more - 1) - 1e-9)
    limit_w = dc_limit_given(design).value
    taken = None
    if extra is not None and limit_w is not None:
        taken = dc_w * (1 + extra / count) <= limit_w * (1 + 1e-9)
    return SplitStudy(
        tilt_deg=tilt_deg,
        ratio=ratio,
        limit_kw=dc_w / ratio / 1000,
        modules=count,
        points=points,
        best_year_deg=year,
        best_winter_deg=winter,
        best_evening_deg=evening,
        east_west_more=extra,
        east_west_taken=taken,
        days=study.days(year),
        told=_told(points, year, winter, evening, extra, taken),
    )


def _told(
    points: tuple[SplitPoint, ...],
    year_deg: float,
    winter_deg: float,
    evening_deg: float,
    extra: int | None,
    taken: bool | None,
) -> tuple[str, ...]:
    one_way, east_west = points[0], points[-1]
    best = next(p for p in points if p.split_deg == year_deg)
    gain = (best.year_kwh / one_way.year_kwh - 1) * 100 if one_way.year_kwh else 0.0
    loss = (1 - east_west.year_kwh / one_way.year_kwh) * 100 if one_way.year_kwh else 0.0
    found = [
        "All to the equator gives most in the year."
        if year_deg == 0
        else f"Turned {year_deg:g}° each way it gives most in the year: {gain:+.1f} %.",
        f"By the winter half {winter_deg:g}°, by evenings (16 to 21 h) {evening_deg:g}°.",
        f"East and west give {loss:.1f} % less than all to the equator, clipping "
        f"{east_west.clipped_frac * 100:.1f} % instead of {one_way.clipped_frac * 100:.1f} %.",
    ]
    if extra is None:
        found.append("No count of modules turned east and west gives as much on this inverter.")
    elif extra > 0:
        stands = {True: "its maker stands behind them", False: "past its maker’s DC limit"}
        word = "" if taken is None else f"; {stands[taken]}"
        plural = "module" if extra == 1 else "modules"
        found.append(f"{extra} more {plural} east and west would equal it{word}.")
    return tuple(found)


class _Split:
    """An array of one size and tilt, turned about, on an inverter of one size."""

    def __init__(
        self,
        desk: Desk,
        job: Job,
        option: Option,
        design: Design,
        tilt_deg: float,
        dc_w: float,
        ac_w: float,
    ) -> None:
        self.weather, self.sun = _sky(desk, job)
        self.job, self.tilt_deg, self.dc_w = job, tilt_deg, dc_w
        self.southern = job.site.latitude_deg < 0
        self.equator_deg = EQUATOR_SOUTH if self.southern else EQUATOR_NORTH
        self.table = power_table(design.module)
        laid = (a.mounting for a in option.arrays if present_of(a))
        self.heat = heat_loss(next(laid, Mounting.STAND_OFF))
        self.side = _side_of(job, option, ac_w)
        own = own_point_of(job, option)
        losses = losses_of(design.module, own.unit if own else None)
        self.kept_frac = (1 - losses.mismatch_frac) * losses.aged_frac(1) * (1 - losses.wiring_frac)
        self.ac_kept_frac = 1 - losses.ac_wiring_frac
        self.by_azimuth: dict[float, FloatArray] = {}

    def half_frac(self, azimuth_deg: float) -> FloatArray:
        """Return (n,): power over the rating of modules turned one way."""
        found = self.by_azimuth.get(azimuth_deg)
        if found is None:
            light = plane_light(self.weather, self.sun, self.tilt_deg, azimuth_deg % 360)
            found = even_power_frac(self.table, light, self.weather, self.heat)
            self.by_azimuth[azimuth_deg] = found
        return found

    def ac_w(self, split_deg: float, more: float = 1.0) -> tuple[FloatArray, FloatArray]:
        """Return (n,) W at the inverter's terminals and what its limit cuts off."""
        mean = (
            self.half_frac(self.equator_deg - split_deg)
            + self.half_frac(self.equator_deg + split_deg)
        ) / 2
        offered = mean * self.dc_w * self.kept_frac * more
        volts = np.full(len(offered), float(self.side.curve_v[len(self.side.curve_v) // 2]))
        year = ac_year(offered[None], volts, self.weather.air_degc, self.side, self.weather.step_h)
        return year.given_w * self.ac_kept_frac, year.unlimited_w - year.rated_w

    def kwh(self, power_w: FloatArray, weighing: Weighing) -> float:
        mine = counted(self.weather.time, weighing, southern=self.southern)
        return kwh_of(power_w[mine], self.weather.step_h)

    def point(self, split_deg: float) -> SplitPoint:
        given, cut = self.ac_w(split_deg)
        clipped = kwh_of(cut, self.weather.step_h)
        whole = kwh_of(given, self.weather.step_h) + clipped
        incidence = irradiance.aoi(
            self.tilt_deg, self.equator_deg + split_deg, self.sun.zenith_deg, self.sun.azimuth_deg
        )
        behind = (self.sun.zenith_deg < 90 - LOW_SUN_DEG) & (np.asarray(incidence) > 90)
        return SplitPoint(
            split_deg=split_deg,
            year_kwh=self.kwh(given, WHOLE_YEAR),
            winter_kwh=self.kwh(given, Weighing(Season.WINTER)),
            evening_kwh=self.kwh(given, EVENING),
            clipped_kwh=clipped,
            clipped_frac=clipped / whole if whole > 0 else 0.0,
            behind_hours=float(behind.sum()) * self.weather.step_h,
        )

    def more_frac(self, split_deg: float, wanted_kwh: float) -> float | None:
        """Return how many times the modules, split so, give a year's energy; ``None``: none do."""

        def short(more: float) -> float:
            return self.kwh(self.ac_w(split_deg, more)[0], WHOLE_YEAR) - wanted_kwh

        if short(1.0) >= 0:
            return 1.0
        if short(MOST_EXTRA) < 0:
            return None
        return float(brentq(short, 1.0, MOST_EXTRA, xtol=1e-3))

    def days(self, best_deg: float) -> tuple[SplitDay, ...]:
        """Return clear days near the equinox and the solstices, three ways."""
        curves = [self.ac_w(angle)[0] / 1000 for angle in (0.0, best_deg, 90.0)]
        found = []
        for title, around in SHOWN_DAYS:
            day = clearest_day(self.weather.ghi_w_per_m2, around)
            mine = steps_of_day(day, len(self.weather.time))
            found.append(SplitDay(title, *(tuple(c[mine].tolist()) for c in curves)))
        return tuple(found)


def _side_of(job: Job, option: Option, ac_w: float) -> AcSide:
    """Return the AC side of what the option has, of another size."""
    (sheet, _), *_ = ac_makers(job, option)
    sized = replace(sheet, p_ac_w=ac_w, night_w=sheet.night_w * ac_w / sheet.p_ac_w)
    return ac_side(sized, usual_warming())


def _sky(desk: Desk, job: Job) -> tuple[WeatherYear, SunPath]:
    weather = weather_of(desk, job)
    return weather, sun_path(weather.time, location_of(job.site))
