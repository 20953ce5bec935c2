"""The year of an option: from what its modules draw to energy at the meter, step by step."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.inverter import (
    AcYear,
    InverterModel,
    Within,
    ac_year,
    summed,
)
from ridge_tally.core.energy.lit import Bank, DcOutput, kwh_of
from ridge_tally.core.energy.waterfall import Stage, Step, waterfall
from ridge_tally.core.sky.passing_beam import within_hour
from ridge_tally.core.sky.weather_year import WeatherYear, month_of

FloatArray = NDArray[np.float64]
# Warranties run so long.
YEARS = 25


@dataclass(frozen=True, slots=True)
class Losses:
    """Shares lost besides what is simulated.

    ``first_year_frac`` and ``yearly_frac`` are ageing: of the rating, in the first year and in
    each later one.  ``outage_frac`` is time the plant stands still.
    """

    mismatch_frac: float = 0.0
    wiring_frac: float = 0.0
    ac_wiring_frac: float = 0.0
    first_year_frac: float = 0.0
    yearly_frac: float = 0.0
    outage_frac: float = 0.0

    def aged_frac(self, year: int) -> float:
        """Return what is left of a module's power in a year, counted from 1."""
        return 1 - self.first_year_frac - (year - 1) * self.yearly_frac


@dataclass(frozen=True, slots=True, eq=False)
class Plant:
    """What the year needs to know of an option.

    ``sides``: the inverters of each bank, in its order.  ``export_w``: the most that may leave the
    house; ``house_w`` (n,): what it uses meanwhile, ``None`` where nobody is at home.
    ``cloud`` and ``cloud_most`` (n, s): see ``core.sky.passing_beam``; ``None`` where each step is
    taken as even.
    """

    drawn: DcOutput
    sides: tuple[InverterModel, ...]
    losses: Losses
    export_w: float | None = None
    house_w: FloatArray | None = None
    cloud: FloatArray | None = None
    cloud_most: FloatArray | None = None

    def within(self, cloud: FloatArray | None) -> Within | None:
        """Return how its power comes and goes within each step, under such clouds."""
        direct = self.drawn.direct
        return None if cloud is None else Within(direct.frac, within_hour(direct.turn, cloud))


@dataclass(frozen=True, slots=True, eq=False)
class YearResult:
    """Steps in W, and twelve months in kWh.

    ``dc_w`` is what reaches the inverters; ``ac_unlimited_w`` what they would give without a
    limit, ``ac_rated_w`` at their rating; ``before_export_w`` what would reach the meter without an
    export limit and ``ac_w`` what does, night draw negative.  ``ac_kept_frac``: what wires and
    outages leave of it on the way.
    ``limited_frac``: the share of each step at the rating; ``within``: how each step's power comes
    and goes, ``None`` where it is taken as even; ``held_within_w`` (n,): what the export limit
    keeps back beyond what the steps' means tell, of bright parts and of days without outage.
    """

    hours: float
    dc_w: FloatArray
    ac_unlimited_w: FloatArray
    ac_rated_w: FloatArray
    before_export_w: FloatArray
    ac_w: FloatArray
    ac_kept_frac: float
    tracker_dc_w: tuple[FloatArray, ...]
    cabinet_degc: FloatArray
    monthly_kwh: tuple[float, ...]
    stages: tuple[Stage, ...]
    limit_w: float
    limited_frac: FloatArray
    within: Within | None
    held_within_w: FloatArray

    @property
    def energy_kwh(self) -> float:
        """Energy at the meter in the year."""
        return kwh_of(self.ac_w, self.hours)

    @property
    def clipped_w(self) -> FloatArray:
        """What the AC limit cuts off, step by step."""
        return self.ac_unlimited_w - self.ac_rated_w

    @property
    def clipped_kwh(self) -> float:
        """What the AC limit cuts off in the year."""
        return kwh_of(self.clipped_w, self.hours)

    @property
    def clipped_frac(self) -> float:
        """Share of the unlimited energy that is cut off."""
        whole = kwh_of(np.maximum(self.ac_unlimited_w, 0), self.hours)
        return self.clipped_kwh / whole if whole > 0 else 0.0

    @property
    def clipped_hours(self) -> float:
        """Hours of the year at the limit."""
        return float(self.limited_frac.sum()) * self.hours

    @property
    def parts_w(self) -> FloatArray:
        """(n, q): what would be given without a limit in equal parts of each step."""
        if self.within is None:
            return self.ac_unlimited_w[:, None]
        return np.asarray(self.ac_unlimited_w[:, None] * self.within.coming)

    def lost_kwh(self, step: Step) -> float:
        """Return what a step takes; 0 where the year has no such step."""
        return sum((-s.change_kwh for s in self.stages if s.step is step), start=0.0)


def simulate_year(plant: Plant, weather: WeatherYear) -> YearResult:
    """Return the year of a plant in the weather's steps.

    Parameters
    ----------
    plant : Plant
        Drawing nothing, its year is the inverters' night draw.
    weather : WeatherYear
        The same steps as the light it was drawn from.
    """
    drawn, losses, hours = plant.drawn, plant.losses, weather.step_h
    kept = kept_frac(losses, 1)
    within = plant.within(plant.cloud)
    ac, wired, exported, at_meter = _to_meter(plant, weather, 1, within)
    before = _after_outages(wired, losses)
    limit_w = _limit_w(plant)
    dc_w = drawn.whole_w * kept
    monthly = np.bincount(month_of(weather.time), weights=at_meter, minlength=12) * hours / 1000
    taken = kwh_of(drawn.whole_w, hours)
    matched = taken * (1 - losses.mismatch_frac)
    aged = matched * losses.aged_frac(1)
    stages = (
        *drawn.left,
        *(((Step.MISMATCH, matched),) if losses.mismatch_frac else ()),
        (Step.AGE, aged),
        *(((Step.WIRING, kwh_of(dc_w, hours)),) if losses.wiring_frac else ()),
        (Step.CONVERSION, kwh_of(np.maximum(ac.unlimited_w, 0), hours)),
        (Step.NIGHT, kwh_of(ac.unlimited_w, hours)),
        (Step.LIMIT, kwh_of(ac.rated_w, hours)),
        *(
            ((Step.HOT, kwh_of(ac.given_w, hours)),)
            if any(len(s.airs_degc) for s in plant.sides)
            else ()
        ),
        (Step.AC_WIRING, kwh_of(wired, hours)),
        *(((Step.EXPORT, kwh_of(exported, hours)),) if plant.export_w is not None else ()),
        (Step.OUTAGE, kwh_of(at_meter, hours)),
    )
    return YearResult(
        hours=hours,
        dc_w=dc_w,
        ac_unlimited_w=ac.unlimited_w,
        ac_rated_w=ac.rated_w,
        before_export_w=before,
        ac_w=at_meter,
        ac_kept_frac=(1 - losses.ac_wiring_frac) * (1 - losses.outage_frac),
        tracker_dc_w=tuple(w * kept for w in drawn.sources_w),
        cabinet_degc=ac.cabinet_degc,
        monthly_kwh=tuple(float(m) for m in monthly),
        stages=waterfall(stages),
        limit_w=limit_w,
        limited_frac=ac.limited_frac,
        within=within,
        held_within_w=np.maximum(before - at_meter - np.maximum(before - _room_w(plant), 0.0), 0.0),
    )


def energy_by_age_kwh(plant: Plant, weather: WeatherYear) -> tuple[float, ...]:
    """Return the energy at the meter of the first year and each later one, kWh.

    Older modules clip less: the inverter's part is worked out anew for each year.
    """
    within = plant.within(plant.cloud)
    return tuple(
        kwh_of(_to_meter(plant, weather, year, within)[-1], weather.step_h)
        for year in range(1, YEARS + 1)
    )


def _to_meter(
    plant: Plant, weather: WeatherYear, year: int, within: Within | None
) -> tuple[AcYear, FloatArray, FloatArray, FloatArray]:
    """Return the inverters' part in a year from 1, and (n,) W after wires, export and outages."""
    losses = plant.losses
    kept = kept_frac(losses, year)
    ac = _ac(plant, kept, weather, within)
    # What is drawn at night is too little to lose any of it.
    wired = np.where(ac.given_w > 0, ac.given_w * (1 - losses.ac_wiring_frac), ac.given_w)
    exported = wired
    if plant.export_w is not None:
        room_w = _room_w(plant)
        exported = _exported(wired, ac, within, _limit_w(plant), room_w)
    return ac, wired, exported, _after_outages(exported, losses)


def _after_outages(power_w: FloatArray, losses: Losses) -> FloatArray:
    """Return what days of standing still leave; the night draw goes on."""
    return np.where(power_w > 0, power_w * (1 - losses.outage_frac), power_w)


def kept_frac(losses: Losses, year: int) -> float:
    """Return what mismatch, ageing and wires leave of the DC power in a year, from 1."""
    return (1 - losses.mismatch_frac) * losses.aged_frac(year) * (1 - losses.wiring_frac)


def _ac(plant: Plant, kept_frac: float, weather: WeatherYear, within: Within | None) -> AcYear:
    """Return what all inverters give of what is kept of their DC power."""
    return summed(
        [
            ac_year(
                bank.units_w * kept_frac,
                bank.volts_v,
                weather.air_degc,
                side,
                weather.step_h,
                within,
            )
            for bank, side in _banks(plant)
        ]
    )


def _limit_w(plant: Plant) -> float:
    """Return the rating of all inverters together."""
    return sum(s.rating_w * len(b.units_w) for b, s in _banks(plant))


def _room_w(plant: Plant) -> FloatArray | float:
    """Return what the house and its way out take at most."""
    if plant.export_w is None:
        return np.inf
    return plant.export_w if plant.house_w is None else plant.export_w + plant.house_w


def _exported(
    wired: FloatArray, ac: AcYear, within: Within | None, limit_w: float, room_w: FloatArray | float
) -> FloatArray:
    """Return what of (n,) W leaves where no more than the room may: bright minutes are cut too."""
    if within is None:
        return np.minimum(wired, room_w)
    room = np.broadcast_to(room_w, wired.shape)
    coming = within.coming
    near = (wired > 0) & (wired * coming.max(axis=1) > room)
    # Each part of the step as the rating leaves it, in all as much as the wires bring.
    parts = np.minimum(ac.unlimited_w[near, None] * coming[near], limit_w)
    parts *= (wired[near] / parts.mean(axis=1))[:, None]
    out = wired.copy()
    out[near] = np.minimum(parts, room[near, None]).mean(axis=1)
    return out


def clipping_band_kwh(plant: Plant, weather: WeatherYear) -> tuple[float, float]:
    """Return what the limit cuts off even hours, and off hours of sun and cloud almost alone."""
    kept, hours = kept_frac(plant.losses, 1), weather.step_h
    found = []
    for within in (None, plant.within(plant.cloud_most)):
        ac = _ac(plant, kept, weather, within)
        found.append(kwh_of(ac.unlimited_w - ac.rated_w, hours))
    least, most = found
    return least, most


def _banks(plant: Plant) -> Iterable[tuple[Bank, InverterModel]]:
    return zip(plant.drawn.banks, plant.sides, strict=True)
