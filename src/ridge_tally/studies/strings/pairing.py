"""A module against every microinverter: what is clipped in a year here, in the cold, in the heat."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.nominal import NominalWatts, nominal_watts
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import MicroinverterSheet, ModuleSheet, with_renewed
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import Orientation, PlacedModule, PlaneArray, empty_array
from ridge_tally.core.job.brief import Brief
from ridge_tally.core.job.document import Job, present_ids, with_option
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.ids import OptionId, PlacedId, PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.survey import ReadingKind, Survey
from ridge_tally.core.job.weather import JobWeather
from ridge_tally.core.strings.parts import modules_in
from ridge_tally.core.units import LengthUnit
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.editing.survey.planes import blank_plane
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.microinverters import kept_by_unit_frac
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.scenario import OwnPoint, Scenario
from ridge_tally.simulation.year import hourly_year, require_strings
from ridge_tally.simulators.weather_service import climate
from ridge_tally.studies.strings.own_point import unfit

# Enough for the unit with most inputs.
LAID = 4


@dataclass(frozen=True, slots=True)
class StudySite:
    """A place of the study besides the job's own: stand-in weather, a roof to the equator."""

    title: str
    climate_id: str
    latitude_deg: float
    elevation_m: float
    slope_deg: float


COLD_BRIGHT = StudySite("Cold and bright", "high-desert", 38.0, 2000.0, 35.0)
HOT = StudySite("Hot", "hot-lowland", 32.0, 300.0, 20.0)


@dataclass(frozen=True, slots=True)
class Clipped:
    """What a unit takes of each module in a year, and what it leaves.

    ``hours`` at its AC limit; ``kwh_per_module`` that this cuts off, ``input_kwh_per_module`` that
    its input cannot take; ``frac``: both, of what the module would give without.
    ``net_kwh_per_module`` at the meter.
    """

    hours: float
    kwh_per_module: float
    input_kwh_per_module: float
    frac: float
    net_kwh_per_module: float


Place = Literal["here", "cold", "hot"]


@dataclass(frozen=True, slots=True)
class Pairing:
    """A module on a unit.  ``unfit``: which limits of the unit it breaks, empty where it suits.

    ``here``, ``cold`` and ``hot`` are ``None`` until they are worked out.
    """

    unit_id: str
    unit: str
    inputs: int
    p_ac_w: float
    stc_ratio: float
    nominal_w: float | None
    unfit: str
    here: Clipped | None
    cold: Clipped | None
    hot: Clipped | None
    chosen: bool


@dataclass(frozen=True, slots=True)
class PairingStudy:
    """The pairings so far, in the order of the shelf; ``done_frac`` of the work.

    ``told``: what laboratory watts and nominal ones are, in this module's own numbers.
    """

    module: str
    p_max_w: float
    nominal: NominalWatts | None
    told: str
    sites: tuple[str, ...]
    pairings: tuple[Pairing, ...]
    done_frac: float


def pairing_study(desk: Desk, design: Design) -> Iterator[PairingStudy]:
    """Yield the study as it grows: limits at once, then each unit here, in the cold, in the heat.

    Raises
    ------
    MissingDatum
        While no module is laid.
    """
    require_strings(design)
    sheet = max(modules_in(design), key=lambda counted: counted[1])[0]
    assert isinstance(sheet, ModuleSheet)
    nominal = _nominal(sheet)
    units = desk.shelf.microinverters
    rows = [
        Pairing(
            unit_id=unit.id,
            unit=unit.name,
            inputs=unit.inputs,
            p_ac_w=unit.p_ac_w,
            stc_ratio=unit.inputs * sheet.p_max_w / unit.p_ac_w,
            nominal_w=None if nominal is None else nominal.p_w * kept_by_unit_frac() * unit.inputs,
            unfit=unfit(design, unit),
            here=None,
            cold=None,
            hot=None,
            chosen=unit.id == design.option.electronics.microinverter_id,
        )
        for unit in units
    ]

    def study(done: int) -> PairingStudy:
        return PairingStudy(
            module=sheet.name,
            p_max_w=sheet.p_max_w,
            nominal=nominal,
            told=_told(sheet, nominal),
            sites=("Here", *(f"{s.title}: {_place(s)}" for s in (COLD_BRIGHT, HOT))),
            pairings=tuple(rows),
            done_frac=done / (3 * len(units)),
        )

    yield study(0)
    places: dict[Place, Design] = {
        "here": design,
        "cold": design_for(*_one_roof(design.job, sheet, COLD_BRIGHT, desk.shelf)),
        "hot": design_for(*_one_roof(design.job, sheet, HOT, desk.shelf)),
    }
    done = 0
    for name, there in places.items():
        for i, unit in enumerate(units):
            rows[i] = _with(rows[i], name, _clipped(desk, there, unit))
            done += 1
            yield study(done)


def _with(row: Pairing, place: Place, clipped: Clipped | None) -> Pairing:
    match place:
        case "here":
            return replace(row, here=clipped)
        case "cold":
            return replace(row, cold=clipped)
        case "hot":
            return replace(row, hot=clipped)


def _nominal(sheet: ModuleSheet) -> NominalWatts | None:
    try:
        return nominal_watts(sheet)
    except RidgeTallyError:
        return None


def _told(sheet: ModuleSheet, nominal: NominalWatts | None) -> str:
    lab = (
        f"{sheet.p_max_w:g} W are laboratory watts: 1000 W/m² on a cell held at 25 °C, which no "
        "roof keeps for long."
    )
    if nominal is None:
        return lab
    share = nominal.p_w / sheet.p_max_w
    return (
        f"{lab} At 800 W/m², 20 °C air and a light wind its cell is at {nominal.cell_degc:g} °C "
        f"and it gives {nominal.p_w:.0f} W, {share * 100:.0f} % ({nominal.origin.value}); after "
        f"the unit’s own loss {nominal.p_w * kept_by_unit_frac():.0f} W. A unit that small clips only in the "
        "hours above."
    )


def _place(site: StudySite) -> str:
    return (
        f"{climate(site.climate_id).title.lower()}, {site.latitude_deg:g}° N, "
        f"{site.elevation_m:g} m, {site.slope_deg:g}° to the south"
    )


def _one_roof(job: Job, sheet: ModuleSheet, site: StudySite, shelf: Shelf) -> tuple[Job, Option]:
    """Return a job of four such modules on an unshaded roof at a place of the study."""
    plane_id = PlaneId("study")
    plane = replace(
        blank_plane(plane_id, "study", LengthUnit.METRE),
        slope_deg=site.slope_deg,
        azimuth_deg=180.0,
    )
    modules = tuple(
        PlacedModule(
            PlacedId(f"study-{n}"), 0.5 + n * (sheet.short_m + 0.02), 0.5, Orientation.PORTRAIT,
            present=True,
        )
        for n in range(LAID)
    )  # fmt: skip
    array: PlaneArray = replace(empty_array(plane_id), modules=modules)
    option = Option(OptionId("a"), "study", sheet.id, job.options[0].inverter_id, (array,))
    place = replace(
        job.site,
        latitude_deg=site.latitude_deg,
        longitude_deg=0.0,
        elevation_m=site.elevation_m,
        utc_offset_h=0.0,
        climate_id=site.climate_id,
    )
    equipment = replace(job.equipment, modules=with_renewed(job.equipment.modules, sheet))
    bare = replace(
        job, site=place, survey=Survey((plane,)), weather=JobWeather(), equipment=equipment,
        options=(replace(option, arrays=()),), brief=Brief(),
    )  # fmt: skip
    taped = (SetReading(plane_id, ReadingKind.SIDE, (n,), m) for n, m in ((0, "12 m"), (3, "5 m")))
    return with_option(apply_edits(bare, taped, shelf), option), option


def _clipped(desk: Desk, design: Design, unit: MicroinverterSheet) -> Clipped | None:
    try:
        year = hourly_year(desk, design, Scenario(own_point=OwnPoint(unit)))
    except RidgeTallyError:
        return None
    modules = len(present_ids(design.option))
    # The input is cut in DC, the limit in AC: a share of what comes after the input's is the limit's.
    at_input_kwh = year.lost_kwh(Step.TRACKER)
    before_kwh = at_input_kwh + kwh_of(year.dc_w, year.hours)
    left = (1 - at_input_kwh / before_kwh if before_kwh else 1.0) * (1 - year.clipped_frac)
    return Clipped(
        year.clipped_hours,
        year.clipped_kwh / modules,
        at_input_kwh / modules,
        1 - left,
        year.energy_kwh / modules,
    )
