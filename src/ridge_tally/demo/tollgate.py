"""The fifth sample job: Tollgate, an invented house that is built, with two faults its meters find."""

from dataclasses import replace
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
from ridge_tally.core.job.edits.proving.built import MarkBuilt
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
from ridge_tally.core.proving.practice import FIRST_SEED
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.juniper_survey import rectangle
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.survey.planes import blank_plane

SOUTH, WEST = PlaneId("south"), PlaneId("plane-1")
MODULE, INVERTER = ModuleId("sample-390"), InverterId("sample-i10")


def tollgate(shelf: Shelf) -> Job:
    """Return the sample job: two strings on one roof, one on the other, and simulated meters."""
    a = OptionId("a")
    job = Job(
        name="Tollgate",
        unit=LengthUnit.METRE,
        site=Site(
            place="Tollgate, river plain",
            latitude_deg=51.4,
            longitude_deg=4.9,
            elevation_m=12.0,
            utc_offset_h=1.0,
            climate_id="mild-plain",
            code_pack=CodePack.IEC,
            dwelling=True,
            coldest=DesignTemperature(-12.0, "invented extreme annual mean minimum of this sample"),
            hottest=DesignTemperature(30.0, "invented 2 % design temperature of this sample"),
            time_zone="Europe/Brussels",
            survey_day=date(2026, 4, 14),
        ),
        survey=Survey((blank_plane(SOUTH, "South roof", LengthUnit.METRE),)),
        equipment=Equipment((shelf.module(MODULE),), (shelf.inverter(INVERTER),)),
        options=(Option(a, "as built in May", MODULE, INVERTER),),
    )
    steps: tuple[Edit, ...] = (
        *rectangle(SOUTH, "11.30", "4.30", "38", "178", "4.6"),
        AddPlane(PlaneShape.SHED),
        RenamePlane(WEST, "West roof"),
        *rectangle(WEST, "8.10", "4.30", "38", "268", "4.6"),
        MovePlane(WEST, -10.5, 6.0),
        SetUse("5200"),
        *(FillPlane(a, plane, Ways.PORTRAIT) for plane in (SOUTH, WEST)),
    )
    laid = apply_edits(job, steps, shelf)
    by_plane = {
        array.plane_id: tuple(m.id for m in array.modules if m.present)
        for array in option_of(laid, a).arrays
    }
    south, half = by_plane[SOUTH], len(by_plane[SOUTH]) // 2
    wired: tuple[Edit, ...] = (
        ThreadString(a, 1, south[:half]),
        ThreadString(a, 2, south[half:]),
        ThreadString(a, 3, by_plane[WEST]),
        MarkBuilt(a, 1, "2026-05-22", "the crew of this sample"),
    )
    built = apply_edits(laid, wired, shelf)
    return replace(built, proving=replace(built.proving, meters_seed=FIRST_SEED))
