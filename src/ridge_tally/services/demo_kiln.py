"""The fourth sample job: Kiln Yard, three short rows on a gentle slope before a kiln shed."""

from datetime import date

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import InverterId, ModuleId
from ridge_tally.core.job import brief_edits, edits
from ridge_tally.core.job import survey_edits as survey
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.array_edits import (
    ArrayField,
    FillPlane,
    SetArrayField,
    SetTableField,
    SpaceRows,
    TableField,
    ToggleModules,
)
from ridge_tally.core.job.document import (
    CodePack,
    DesignTemperature,
    Equipment,
    Job,
    Option,
    Site,
    option_of,
)
from ridge_tally.core.job.ids import OptionId, PlaneId, ShadeId
from ridge_tally.core.job.survey import ReadingKind, ShadeKind, SitePoint, Survey
from ridge_tally.core.units import LengthUnit
from ridge_tally.services.editing import apply_edits
from ridge_tally.services.plane_editing import blank_plane

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
    return apply_edits(job, (ToggleModules(a, tuple(m.id for m in top[-BAYS:])),), shelf)


def _survey() -> tuple[edits.Edit, ...]:
    field, ground = survey.PlaneField, survey.GroundField
    shed = ShadeId("s1")
    return (
        survey.SetReading(SHED, ReadingKind.SIDE, (0,), "9.20"),
        survey.SetReading(SHED, ReadingKind.SIDE, (3,), "4.10"),
        survey.SetPlaneField(SHED, field.SLOPE, "18"),
        survey.SetPlaneField(SHED, field.AZIMUTH, "92"),
        survey.SetPlaneField(SHED, field.EAVE_HEIGHT, "2.6"),
        survey.MovePlane(SHED, -12.0, 2.0),
        survey.AddPlane(survey.PlaneShape.GROUND),
        survey.RenamePlane(YARD, "Yard"),
        survey.SetReading(YARD, ReadingKind.SIDE, (0,), "10.60"),
        survey.SetReading(YARD, ReadingKind.SIDE, (3,), "13.00"),
        survey.SetPlaneField(YARD, field.AZIMUTH, "186"),
        survey.MovePlane(YARD, 2.0, -6.0),
        survey.SetGroundField(YARD, ground.FALL, "4"),
        survey.SetGroundField(YARD, ground.FALLS_TO, "170"),
        survey.SetGroundField(
            YARD, ground.SOIL, "loam over slate; posts driven to 1.2 m in a trial"
        ),
        survey.SetGroundField(YARD, ground.LOT_DISTANCE, "3.0"),
        survey.SetGroundField(YARD, ground.SNOW_DEPTH, "0.2"),
        survey.SetGroundField(YARD, ground.TRENCH_DEPTH, "0.6"),
        survey.AddLotLine((SitePoint(18.5, -16.0), SitePoint(16.0, 22.0)), closed=False),
        survey.PlaceGear(survey.Gear.METER, SitePoint(-8.0, 1.0)),
        survey.PlaceGear(survey.Gear.PANEL, SitePoint(-7.6, 2.4)),
        survey.PlaceGear(survey.Gear.INVERTER, SitePoint(-7.4, 3.6)),
        survey.AddShade(ShadeKind.TREE, SitePoint(-6.0, -14.0)),
        survey.SetShadeField(shed, survey.ShadeField.NAME, "Chestnut"),
        survey.SetShadeField(shed, survey.ShadeField.HEIGHT, "7.5"),
        survey.SetShadeField(shed, survey.ShadeField.WIDTH, "5"),
        survey.SetShadeField(shed, survey.ShadeField.BASE, "1.8"),
        survey.SetShadeField(shed, survey.ShadeField.LEAF, "deciduous"),
    )


def _brief() -> tuple[edits.Edit, ...]:
    return (
        brief_edits.TakeGridPack("sample-iec-surplus"),
        brief_edits.SetUse("6100"),
        brief_edits.SetServiceField(brief_edits.ServiceField.PHASES, "3"),
        brief_edits.SetServiceField(brief_edits.ServiceField.MAIN_BREAKER, "40"),
        brief_edits.SetServiceField(brief_edits.ServiceField.BUSBAR, "63"),
        brief_edits.SetServiceField(brief_edits.ServiceField.SPACES, "4"),
        brief_edits.SetNoGo(SHED, on=True),
        brief_edits.SetGrowth(f"{BAYS}"),
    )


def _array(a: OptionId) -> tuple[edits.Edit, ...]:
    return (
        SetArrayField(a, YARD, ArrayField.LEG_TILT, "30"),
        SetTableField(a, YARD, TableField.CLEARANCE, "0.6"),
        SetTableField(a, YARD, TableField.APART, "1.2"),
        SpaceRows(a, YARD),
        FillPlane(a, YARD, Ways.PORTRAIT),
    )
