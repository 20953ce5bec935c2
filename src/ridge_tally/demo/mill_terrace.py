"""The third sample job: Mill Terrace, an invented house whose strings overrun a tracker."""

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
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.brief.bills import SetUse
from ridge_tally.core.job.edits.build.circuits import (
    DrawnSegment,
    SetRoute,
    SetWiringField,
    WiringField,
)
from ridge_tally.core.job.edits.strings.threading import ThreadString
from ridge_tally.core.job.edits.survey.planes import (
    AddPlane,
    MovePlane,
    PlaneShape,
    RenamePlane,
)
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.survey import Survey
from ridge_tally.core.job.wiring import Lie
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.juniper_survey import rectangle
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.survey.planes import blank_plane

SOUTH_EAST, SOUTH_WEST, EAST = PlaneId("south-east"), PlaneId("plane-1"), PlaneId("plane-2")
MODULE, INVERTER = ModuleId("sample-390"), InverterId("sample-i7")

WAYS = ((SOUTH_EAST, "4 m"), (SOUTH_WEST, "4 m"), (EAST, "6 m"))


def mill_terrace(shelf: Shelf) -> Job:
    """Return the sample job: three roofs, the first two in parallel on one tracker."""
    a = OptionId("a")
    job = Job(
        name="Mill Terrace",
        unit=LengthUnit.METRE,
        site=Site(
            place="Mill Terrace, northern inland valley",
            latitude_deg=47.3,
            longitude_deg=13.6,
            elevation_m=640.0,
            utc_offset_h=1.0,
            climate_id="inland-four-seasons",
            code_pack=CodePack.IEC,
            dwelling=True,
            coldest=DesignTemperature(-18.0, "invented extreme annual mean minimum of this sample"),
            hottest=DesignTemperature(32.0, "invented 2 % design temperature of this sample"),
            time_zone="Europe/Vienna",
            survey_day=date(2026, 10, 5),
        ),
        survey=Survey((blank_plane(SOUTH_EAST, "South-east roof", LengthUnit.METRE),)),
        equipment=Equipment((shelf.module(MODULE),), (shelf.inverter(INVERTER),)),
        options=(Option(a, "two roofs on one tracker", MODULE, INVERTER),),
    )
    steps: tuple[Edit, ...] = (
        *rectangle(SOUTH_EAST, "9.10", "3.05", "35", "147", "4.2"),
        AddPlane(PlaneShape.SHED),
        RenamePlane(SOUTH_WEST, "South-west roof"),
        *rectangle(SOUTH_WEST, "9.10", "3.05", "35", "225", "4.2"),
        MovePlane(SOUTH_WEST, -11.5, 6.0),
        AddPlane(PlaneShape.SHED),
        RenamePlane(EAST, "East lean-to"),
        *rectangle(EAST, "9.10", "2.95", "15", "62", "2.6"),
        MovePlane(EAST, 12.0, 7.0),
        SetUse("7400"),
        *(FillPlane(a, plane, Ways.PORTRAIT) for plane in (SOUTH_EAST, SOUTH_WEST, EAST)),
    )
    laid = apply_edits(job, steps, shelf)
    by_plane = {
        array.plane_id: tuple(m.id for m in array.modules if m.present)
        for array in option_of(laid, a).arrays
    }
    wired: tuple[Edit, ...] = (
        ThreadString(a, 1, by_plane[SOUTH_EAST]),
        ThreadString(a, 1, by_plane[SOUTH_WEST]),
        ThreadString(a, 2, by_plane[EAST]),
        # Nobody drew the gear: the ways were paced off.
        *(_way(a, f"array {plane}", roof, "7 m") for plane, roof in WAYS),
        SetRoute(a, "panel", (DrawnSegment(Lie.INSIDE, length="5 m"),)),
        SetWiringField(a, WiringField.FAULT, "4 kA"),
        SetWiringField(a, WiringField.INTERRUPTS, "6 kA"),
    )
    return apply_edits(laid, wired, shelf)


def _way(option: OptionId, leg: str, roof: str, inside: str) -> SetRoute:
    on_roof = DrawnSegment(Lie.ROOF, length=roof, above_roof="50 mm")
    return SetRoute(option, leg, (on_roof, DrawnSegment(Lie.ATTIC, length=inside)))
