"""The fourth sample job: Kiln Yard, three short rows on a gentle slope before a kiln shed."""

from datetime import date

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import InverterId, ModuleId
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.document import (
    CodePack,
    DesignTemperature,
    Equipment,
    Job,
    Site,
    option_of,
)
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.fills import ArrayField, FillPlane, SetArrayField
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.array.tables import SetTableField, SpaceRows, TableField
from ridge_tally.core.job.edits.brief.bills import SetUse
from ridge_tally.core.job.edits.brief.grid import TakeGridPack
from ridge_tally.core.job.edits.brief.needs import ServiceField, SetGrowth, SetNoGo, SetServiceField
from ridge_tally.core.job.edits.build.circuits import SetWiringField, WiringField
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import (
    AddPlane,
    GroundField,
    MovePlane,
    PlaneField,
    PlaneShape,
    RenamePlane,
    SetGroundField,
    SetPlaneField,
)
from ridge_tally.core.job.edits.survey.surroundings import (
    AddLotLine,
    AddShade,
    Gear,
    PlaceGear,
    SetShadeField,
    ShadeField,
)
from ridge_tally.core.job.ids import OptionId, PlaneId, ShadeId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import ReadingKind, ShadeKind, Survey
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.prices import price_edits
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.survey.planes import blank_plane

MODULE, INVERTER = ModuleId("sample-450"), InverterId("sample-i8p")
SHED, YARD = PlaneId("shed"), PlaneId("plane-1")
# So many modules are laid now; the rest of the tables are bays for later.
BAYS = 3


def kiln_yard(shelf: Shelf) -> Job:
    """Return the sample job: a yard of three short rows, bays for later, a lot line close by."""
    a = OptionId("a")
    job = Job(
        name="Kiln Yard",
        unit=LengthUnit.METRE,
        site=Site(
            place="Kiln Yard, green Atlantic hills",
            latitude_deg=43.1,
            longitude_deg=-8.2,
            elevation_m=310.0,
            utc_offset_h=1.0,
            climate_id="green-atlantic",
            code_pack=CodePack.IEC,
            dwelling=True,
            coldest=DesignTemperature(-3.0, "invented extreme annual mean minimum of this sample"),
            hottest=DesignTemperature(28.0, "invented 2 % design temperature of this sample"),
            time_zone="Europe/Madrid",
            survey_day=date(2026, 10, 20),
        ),
        survey=Survey((blank_plane(SHED, "Kiln shed", LengthUnit.METRE),)),
        equipment=Equipment((shelf.module(MODULE),), (shelf.inverter(INVERTER),)),
        options=(Option(a, "three rows", MODULE, INVERTER),),
    )
    job = apply_edits(job, (*_survey(), *_brief(), *_array(a)), shelf)
    top = sorted(option_of(job, a).arrays[-1].modules, key=lambda m: (m.y_m, m.x_m))
    designed = apply_edits(job, (ToggleModules(a, tuple(m.id for m in top[-BAYS:])),), shelf)
    racking = (("Yard", "5200"),)
    prices = price_edits(
        designed, hour="44", permits="150", office="600", share="25 %", racking=racking
    )
    return apply_edits(designed, prices, shelf)


def _survey() -> tuple[Edit, ...]:
    field, ground = PlaneField, GroundField
    shed = ShadeId("s1")
    return (
        SetReading(SHED, ReadingKind.SIDE, (0,), "9.20"),
        SetReading(SHED, ReadingKind.SIDE, (3,), "4.10"),
        SetPlaneField(SHED, field.SLOPE, "18"),
        SetPlaneField(SHED, field.AZIMUTH, "92"),
        SetPlaneField(SHED, field.EAVE_HEIGHT, "2.6"),
        MovePlane(SHED, -12.0, 2.0),
        AddPlane(PlaneShape.GROUND),
        RenamePlane(YARD, "Yard"),
        SetReading(YARD, ReadingKind.SIDE, (0,), "10.60"),
        SetReading(YARD, ReadingKind.SIDE, (3,), "13.00"),
        SetPlaneField(YARD, field.AZIMUTH, "186"),
        MovePlane(YARD, 2.0, -6.0),
        SetGroundField(YARD, ground.FALL, "4"),
        SetGroundField(YARD, ground.FALLS_TO, "170"),
        SetGroundField(YARD, ground.SOIL, "loam over slate; posts driven to 1.2 m in a trial"),
        SetGroundField(YARD, ground.LOT_DISTANCE, "3.0"),
        SetGroundField(YARD, ground.SNOW_DEPTH, "0.2"),
        SetGroundField(YARD, ground.TRENCH_DEPTH, "0.6"),
        AddLotLine((SitePoint(18.5, -16.0), SitePoint(16.0, 22.0)), closed=False),
        PlaceGear(Gear.METER, SitePoint(-8.0, 1.0)),
        PlaceGear(Gear.PANEL, SitePoint(-7.6, 2.4)),
        PlaceGear(Gear.INVERTER, SitePoint(-7.4, 3.6)),
        AddShade(ShadeKind.TREE, SitePoint(-6.0, -14.0)),
        SetShadeField(shed, ShadeField.NAME, "Chestnut"),
        SetShadeField(shed, ShadeField.HEIGHT, "7.5"),
        SetShadeField(shed, ShadeField.WIDTH, "5"),
        SetShadeField(shed, ShadeField.BASE, "1.8"),
        SetShadeField(shed, ShadeField.LEAF, "deciduous"),
    )


def _brief() -> tuple[Edit, ...]:
    return (
        TakeGridPack("sample-iec-surplus"),
        SetUse("6100"),
        SetServiceField(ServiceField.PHASES, "3"),
        SetServiceField(ServiceField.MAIN_BREAKER, "40"),
        SetServiceField(ServiceField.BUSBAR, "63"),
        SetServiceField(ServiceField.SPACES, "4"),
        SetNoGo(SHED, on=True),
        SetGrowth(f"{BAYS}"),
    )


def _array(a: OptionId) -> tuple[Edit, ...]:
    return (
        SetArrayField(a, YARD, ArrayField.LEG_TILT, "30"),
        SetTableField(a, YARD, TableField.CLEARANCE, "0.6"),
        SetTableField(a, YARD, TableField.APART, "1.2"),
        SpaceRows(a, YARD),
        FillPlane(a, YARD, Ways.PORTRAIT),
        SetWiringField(a, WiringField.FAULT, "4 kA"),
        SetWiringField(a, WiringField.INTERRUPTS, "6 kA"),
    )
