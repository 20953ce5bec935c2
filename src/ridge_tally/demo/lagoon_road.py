"""The second sample job: Lagoon Road, an invented house with dormers on a southern island."""

from datetime import date

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import InverterId, ModuleId
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.document import CodePack, DesignTemperature, Equipment, Job, Site
from ridge_tally.core.job.edits.any_edit import Edit, SurveyEdit
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.brief.bills import SetUse
from ridge_tally.core.job.edits.brief.grid import TakeGridPack
from ridge_tally.core.job.edits.brief.needs import (
    AddExisting,
    ExistingField,
    ServiceField,
    SetExistingField,
    SetExistingPlane,
    SetNoGo,
    SetServiceField,
)
from ridge_tally.core.job.edits.build.circuits import SetWiringField, WiringField
from ridge_tally.core.job.edits.options import CopyOption
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics, FitOptimizers
from ridge_tally.core.job.edits.survey.obstructions import (
    DrawExisting,
    ExistingRowsField,
    SetExistingRows,
)
from ridge_tally.core.job.edits.survey.outlines import MarkOutline, SetEdgeKind, SketchOutline
from ridge_tally.core.job.edits.survey.planes import (
    AddPlane,
    JoinEdges,
    MovePlane,
    PlaneField,
    PlaneShape,
    RenamePlane,
    SetPlaneField,
)
from ridge_tally.core.job.edits.survey.surroundings import (
    AddAttachment,
    AddLotLine,
    AddShade,
    Gear,
    PlaceGear,
    SetHorizon,
    SetShadeField,
    ShadeField,
    SightShade,
)
from ridge_tally.core.job.ids import ExistingId, OptionId, PlacedId, PlaneId, ShadeId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.places import PlanePoint, SitePoint
from ridge_tally.core.job.survey import EdgeKind, ObstructionKind, ReadingKind, ShadeKind, Survey
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.juniper_survey import diagonal, obstruction, side, structure
from ridge_tally.demo.prices import price_edits
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.survey.planes import blank_plane

FRONT, BACK, LEAN_TO = PlaneId("front"), PlaneId("plane-1"), PlaneId("plane-2")
DORMERS = (PlaneId("plane-3"), PlaneId("plane-4"))
MODULE, INVERTER = ModuleId("sample-405"), InverterId("sample-i6p")
MICROINVERTER, OPTIMIZER = "sample-micro-330", "sample-add-on-500"
# The modules a dormer's cheek or the neighbour's gable takes most from.
BESIDE_DORMERS = tuple(PlacedId(f"front-{n}") for n in (2, 4, 5))
_OLD = ExistingId("existing1")
_FIELD = PlaneField


def lagoon_road(shelf: Shelf) -> Job:
    """Return the sample job: a dormered roof, its back, a lean-to, poplars and a neighbour."""
    a, b, c = (OptionId(option) for option in "abc")
    job = Job(
        name="Lagoon Road",
        unit=LengthUnit.METRE,
        site=_site(),
        survey=Survey((blank_plane(FRONT, "North front", LengthUnit.METRE),)),
        equipment=Equipment((shelf.module(MODULE),), (shelf.inverter(INVERTER),)),
        options=(Option(a, "string inverter", MODULE, INVERTER),),
    )
    steps: tuple[Edit, ...] = (
        *_front(),
        *_others(),
        *_around(),
        TakeGridPack("sample-au-capped"),
        SetUse("6900"),
        SetServiceField(ServiceField.PHASES, "3"),
        SetServiceField(ServiceField.MAIN_BREAKER, "63"),
        SetServiceField(ServiceField.SPACES, "3"),
        SetNoGo(BACK, on=True),
        *(SetNoGo(d, on=True) for d in DORMERS),
        AddExisting(),
        *_old_array(),
        FillPlane(a, FRONT, Ways.PORTRAIT),
        SetWiringField(a, WiringField.FAULT, "4 kA"),
        SetWiringField(a, WiringField.INTERRUPTS, "6 kA"),
        CopyOption(a, "microinverters"),
        ChooseElectronics(b, Architecture.MICRO, MICROINVERTER),
        CopyOption(a, "add-on optimizers"),
        ChooseElectronics(c, Architecture.ADD_ON, OPTIMIZER),
        FitOptimizers(c, BESIDE_DORMERS, on=True),
    )
    designed = apply_edits(job, steps, shelf)
    racking = (("North front", "1150"),)
    prices = price_edits(
        designed, hour="58", permits="220", office="450", share="28 %", racking=racking
    )
    return apply_edits(designed, prices, shelf)


def _site() -> Site:
    return Site(
        place="Lagoon Road, southern island hills",
        latitude_deg=-42.4,
        longitude_deg=146.9,
        elevation_m=410.0,
        utc_offset_h=10.0,
        climate_id="cool-island",
        code_pack=CodePack.AU_NZ,
        dwelling=True,
        coldest=DesignTemperature(-5.0, "invented extreme annual mean minimum of this sample"),
        hottest=DesignTemperature(30.0, "invented 2 % design temperature of this sample"),
        time_zone="Australia/Hobart",
        survey_day=date(2026, 9, 21),
    )


def _front() -> tuple[SurveyEdit, ...]:
    """Two dormers stand in the eave; the sketch is rough, the readings are a crew's."""
    sketch = (
        (0, 0), (2.5, 0), (2.5, 2.4), (4.7, 2.4), (4.7, 0), (9, 0), (9, 2.4), (11.2, 2.4),
        (11.2, 0), (14, 0), (14, 6), (0, 6),
    )  # fmt: skip
    sides = {
        0: "2.50", 1: "2.40", 2: "2.20", 4: "4.305", 5: "2.395", 6: "2.20", 8: "2.80",
        9: "6.005", 10: "14.01", 11: "5.995",
    }  # fmt: skip
    cheeks = (1, 2, 3, 5, 6, 7)
    return (
        SketchOutline(FRONT, tuple(PlanePoint(float(x), float(y)) for x, y in sketch)),
        *(SetEdgeKind(FRONT, edge, EdgeKind.WALL) for edge in cheeks),
        *(side(FRONT, edge, typed) for edge, typed in sides.items()),
        *(MarkOutline(FRONT, ReadingKind.ON_LINE, (c, 0), on=True) for c in (4, 5, 8, 9)),
        diagonal(FRONT, 0, 10, "15.235"),
        SetPlaneField(FRONT, _FIELD.SLOPE, "30"),
        SetPlaneField(FRONT, _FIELD.AZIMUTH, "352.5 compass"),
        SetPlaneField(FRONT, _FIELD.EAVE_HEIGHT, "3.1"),
        *obstruction(
            FRONT, 1, ObstructionKind.FLUE, (7.0, 5.2),
            name="Wood heater flue", left="6.95", bottom="5.20", width="0.18", height="0.9",
        ),
        *obstruction(
            FRONT, 2, ObstructionKind.SKYLIGHT, (12.0, 2.6), left="12.10", bottom="2.60",
        ),
        *structure(
            FRONT, covering="tile", framing="rafters", rafter_spacing="600mm",
            first_rafter="320mm", rafter_size="90 × 45",
        ),
    )  # fmt: skip


def _others() -> tuple[SurveyEdit, ...]:
    west, east = DORMERS
    found: list[SurveyEdit] = [
        AddPlane(),
        RenamePlane(BACK, "South back"),
        side(BACK, 0, "14.00"),
        side(BACK, 3, "6.00"),
        SetPlaneField(BACK, _FIELD.SLOPE, "30"),
        SetPlaneField(BACK, _FIELD.AZIMUTH, "172.5 compass"),
        JoinEdges(BACK, 2, FRONT, 10),
        AddPlane(PlaneShape.SHED),
        RenamePlane(LEAN_TO, "West lean-to"),
        side(LEAN_TO, 0, "7.20"),
        side(LEAN_TO, 3, "3.40"),
        side(LEAN_TO, 1, "3.405"),
        diagonal(LEAN_TO, 0, 2, "7.965"),
        SetPlaneField(LEAN_TO, _FIELD.SLOPE, "0.59 over 3.35"),
        SetPlaneField(LEAN_TO, _FIELD.AZIMUTH, "262.5 compass"),
        SetPlaneField(LEAN_TO, _FIELD.EAVE_HEIGHT, "2.25"),
        MovePlane(LEAN_TO, -18.25, -0.55),
        *structure(
            LEAN_TO, covering="ribbed-metal", rib_spacing="190mm", rib_height="29mm",
            cover_width="760mm", purlin_spacing="900mm", first_purlin="200mm",
        ),
    ]  # fmt: skip
    for dormer, name, notch in ((west, "Dormer east", 2), (east, "Dormer west", 6)):
        found += [
            AddPlane(PlaneShape.SHED),
            RenamePlane(dormer, name),
            side(dormer, 0, "2.20"),
            side(dormer, 3, "2.10"),
            SetPlaneField(dormer, _FIELD.SLOPE, "8"),
            SetPlaneField(dormer, _FIELD.AZIMUTH, "352.5 compass"),
            JoinEdges(dormer, 2, FRONT, notch),
        ]
    return tuple(found)


def _around() -> tuple[SurveyEdit, ...]:
    found: list[SurveyEdit] = []
    tops = ("27.5", "29", "30.5", "28", "26")
    for i, top in enumerate(tops, start=1):
        poplar = ShadeId(f"s{i}")
        found += [
            AddShade(ShadeKind.TREE, SitePoint(-25.0, 2.0 + 3.2 * i)),
            SetShadeField(poplar, ShadeField.NAME, f"Poplar {i}"),
            SightShade(
                poplar, SitePoint(-14.0, 1.7), f"{271 + 9.5 * i:.1f}", f"{18.5 + 0.6 * i:.1f}",
                top, "1.6",
            ),
            SetShadeField(poplar, ShadeField.WIDTH, "2.8"),
            SetShadeField(poplar, ShadeField.BASE, "1.2"),
            SetShadeField(poplar, ShadeField.LEAF, "deciduous"),
            SetShadeField(poplar, ShadeField.LEAF_MONTHS, "10-4"),
        ]  # fmt: skip
    gable = ShadeId("s6")
    found += [
        AddShade(ShadeKind.HOUSE, SitePoint(-1.0, 17.0)),
        SetShadeField(gable, ShadeField.NAME, "Neighbour’s gable"),
        SetShadeField(gable, ShadeField.WIDTH, "11.5"),
        SetShadeField(gable, ShadeField.DEPTH, "8.2"),
        SetShadeField(gable, ShadeField.HEIGHT, "7.4"),
        SetShadeField(gable, ShadeField.BASE, "4.6"),
        SetShadeField(gable, ShadeField.TURNED, "97"),
        SetHorizon("20,4\n50,6\n80,5\n110,3\n250,4\n290,8\n320,9\n350,6"),
        AddLotLine(
            (SitePoint(-33.0, -18.0), SitePoint(8.0, -18.0), SitePoint(8.0, 9.6),
             SitePoint(-33.0, 9.6)),
            closed=True,
        ),
        PlaceGear(Gear.METER, SitePoint(0.2, -1.8)),
        PlaceGear(Gear.PANEL, SitePoint(-0.4, -4.4)),
        PlaceGear(Gear.INVERTER, SitePoint(-0.6, -7.0)),
        AddAttachment("Two cracked tiles beside the flue.", None, FRONT, None),
    ]  # fmt: skip
    return tuple(found)


def _old_array() -> tuple[Edit, ...]:
    field, rows = ExistingField, ExistingRowsField
    return (
        SetExistingField(_OLD, field.NAME, "Old array"),
        SetExistingField(_OLD, field.P_DC, "1.5"),
        SetExistingField(_OLD, field.P_AC, "1.5"),
        SetExistingField(_OLD, field.BUILT_YEAR, "2012"),
        SetExistingPlane(_OLD, LEAN_TO, on=True),
        DrawExisting(LEAN_TO, _OLD, 0.6, 0.7),
        SetExistingRows(LEAN_TO, _OLD, rows.COLUMNS, "6"),
    )
