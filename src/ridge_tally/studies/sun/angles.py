"""Which way to face: every tilt and azimuth on this site's weather, and an array split in two."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from pvlib import irradiance
from scipy.optimize import brentq

from ridge_tally.core.array.stances import positions_of, tilt_by_day
from ridge_tally.core.energy.lit import Direct, joined, kwh_of
from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.job.array import Mounting, PlaneArray, present_of
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.loading.weights import WHOLE_YEAR, Season, Weighing, counted
from ridge_tally.core.nominal_year import day_name
from ridge_tally.core.number_format import loss_share, signed
from ridge_tally.core.sky.passing_beam import turning
from ridge_tally.core.sky.plane_irradiance import plane_light
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.sky_bins import SkyBins, behind_glass_wh_per_m2, sky_bins
from ridge_tally.core.sky.sun import SunPath, sun_path
from ridge_tally.core.sky.weather_year import (
    WeatherYear,
    by_step,
    clearest_day,
    month_of,
    steps_of_day,
)
from ridge_tally.core.sun.shading import STAND_OFF_M, glass_of
from ridge_tally.rules.design import Design, dc_ac_ratio, dc_limit_given, dc_watts
from ridge_tally.simulation.array_light import Slope, slope_of
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.even import covered, even_array, even_year, power_frac
from ridge_tally.simulation.plant import heat_loss
from ridge_tally.simulation.weather import passing_beam_of, reflected_frac, weather_of

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
    """An unshaded array of this size, tilt and inverter, split by angles, by the year's own chain.

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


def angle_map(desk: Desk, design: Design, weighing: Weighing = WHOLE_YEAR) -> AngleMap:
    """Return what every tilt and azimuth gets of this site's weather, its own planes marked."""
    weather, sun = _sky(desk, design.job)
    mine = counted(weather.time, weighing, southern=design.job.site.latitude_deg < 0)
    tilts, azimuths = np.meshgrid(TILTS_DEG, AZIMUTHS_DEG, indexing="ij")

    def everywhere(bins: SkyBins) -> FloatArray:
        return behind_glass_wh_per_m2(bins, tilts.ravel(), azimuths.ravel()) / 1000

    bins = sky_bins(weather, sun, mine)
    light = everywhere(bins)
    best = int(np.argmax(light))
    top = float(light[best])
    planes = []
    for laid in design.arrays:
        plane, array = laid.plane, laid.array
        if not present_of(array):
            continue
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
    design: Design,
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
    dc_w, count = dc_watts(design)[2], len(present_ids(design.option))
    if count == 0:
        dc_w, count = design.module.p_max_w, 1
    if tilt_deg is None:
        most, tilt_deg = _largest(design), 30.0
        if most is not None:
            tilt_deg = glass_of(most.plane, most.array.leg_tilt_deg).slope_deg
    if ratio is None:
        # With no unit yet, an array as large as what makes its AC.
        ratio = dc_ac_ratio(design) or 1.0
    study = _Split(desk, design, tilt_deg, dc_w, dc_w / ratio)
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
        else f"Turned {year_deg:g}° each way it gives most in the year: {signed(gain, 1)} %.",
        f"By the winter half {winter_deg:g}°, by evenings (16 to 21 h) {evening_deg:g}°.",
        f"East and west give {loss:.1f} % less than all to the equator, clipping "
        f"{loss_share(east_west.clipped_frac)} instead of {loss_share(one_way.clipped_frac)}.",
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
        self, desk: Desk, design: Design, tilt_deg: float, dc_w: float, ac_w: float
    ) -> None:
        self.desk, self.job = desk, design.job
        self.weather, self.sun = _sky(desk, self.job)
        self.tilt_deg, self.dc_w = tilt_deg, dc_w
        self.southern = self.job.site.latitude_deg < 0
        self.equator_deg = EQUATOR_SOUTH if self.southern else EQUATOR_NORTH
        laid = _largest(design)
        heat = heat_loss(laid.array.mounting if laid else Mounting.STAND_OFF)
        self.array = even_array(design, design.module, heat, ac_w)
        self.slope = Slope(tilt_deg, design.module.long_m, STAND_OFF_M)
        if laid is not None:
            self.slope = replace(slope_of(laid), tilt_deg=tilt_deg)
        reflected = reflected_frac(self.job, self.weather)
        self.reflected_frac = reflected[month_of(self.weather.time)]
        self.by_azimuth: dict[float, tuple[FloatArray, Direct]] = {}

    def half(self, azimuth_deg: float) -> tuple[FloatArray, Direct]:
        """Return (n,): power over the rating of modules turned one way, and what of it is beam's."""
        found = self.by_azimuth.get(azimuth_deg)
        if found is None:
            free = plane_light(
                self.weather, self.sun, self.tilt_deg, azimuth_deg % 360, self.reflected_frac
            )
            light = covered(self.job, self.weather, free, self.slope)
            turn = turning(passing_beam_of(self.desk, self.job), self.tilt_deg, azimuth_deg % 360)
            found = (
                power_frac(self.array, light, self.weather), Direct(light.direct_frac, turn),
            )  # fmt: skip
            self.by_azimuth[azimuth_deg] = found
        return found

    def year(self, split_deg: float, more: float = 1.0) -> YearResult:
        """Return the year of the array, half of it turned each way, so many times its size."""
        each_w = self.dc_w * more / 2
        halves = [
            (frac * each_w, direct)
            for frac, direct in (self.half(self.equator_deg + by) for by in (-split_deg, split_deg))
        ]
        offered_w = halves[0][0] + halves[1][0]
        return even_year(self.desk, self.job, self.array, offered_w, joined(halves))

    def kwh(self, power_w: FloatArray, weighing: Weighing) -> float:
        mine = counted(self.weather.time, weighing, southern=self.southern)
        return kwh_of(power_w[mine], self.weather.step_h)

    def point(self, split_deg: float) -> SplitPoint:
        year = self.year(split_deg)
        incidence = irradiance.aoi(
            self.tilt_deg, self.equator_deg + split_deg, self.sun.zenith_deg, self.sun.azimuth_deg
        )
        behind = (self.sun.zenith_deg < 90 - LOW_SUN_DEG) & (np.asarray(incidence) > 90)
        return SplitPoint(
            split_deg=split_deg,
            year_kwh=year.energy_kwh,
            winter_kwh=self.kwh(year.ac_w, Weighing(Season.WINTER)),
            evening_kwh=self.kwh(year.ac_w, EVENING),
            clipped_kwh=year.clipped_kwh,
            clipped_frac=year.clipped_frac,
            behind_hours=float(behind.sum()) * self.weather.step_h,
        )

    def more_frac(self, split_deg: float, wanted_kwh: float) -> float | None:
        """Return how many times the modules, split so, give a year's energy; ``None``: none do."""

        def short(more: float) -> float:
            return self.year(split_deg, more).energy_kwh - wanted_kwh

        if short(1.0) >= 0:
            return 1.0
        if short(MOST_EXTRA) < 0:
            return None
        return float(brentq(short, 1.0, MOST_EXTRA, xtol=1e-3))

    def days(self, best_deg: float) -> tuple[SplitDay, ...]:
        """Return clear days near the equinox and the solstices, three ways."""
        curves = [self.year(angle).ac_w / 1000 for angle in (0.0, best_deg, 90.0)]
        found = []
        for title, around in SHOWN_DAYS:
            day = clearest_day(self.weather.ghi_w_per_m2, around)
            mine = steps_of_day(day, len(self.weather.time))
            found.append(SplitDay(title, *(tuple(c[mine].tolist()) for c in curves)))
        return tuple(found)


def _largest(design: Design) -> LaidArray | None:
    """Return the array with most modules; none while nothing is laid."""
    laid = (a for a in design.arrays if present_of(a.array))
    return max(laid, key=lambda a: len(present_of(a.array)), default=None)


def _sky(desk: Desk, job: Job) -> tuple[WeatherYear, SunPath]:
    weather = weather_of(desk, job)
    return weather, sun_path(weather.time, location_of(job.site))
