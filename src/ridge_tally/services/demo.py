"""The first sample job: Juniper Bench, an invented house in the high desert."""

from datetime import date

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import InverterId, ModuleId
from ridge_tally.core.job import edits
from ridge_tally.core.job.document import (
    CodePack,
    DesignTemperature,
    Equipment,
    Job,
    Obstruction,
    ObstructionId,
    ObstructionKind,
    Option,
    OptionId,
    Orientation,
    PlaneId,
    RoofPlane,
    Setbacks,
    Site,
    Survey,
    Taped,
    Trapezoid,
)
from ridge_tally.core.units import LengthUnit, parse_length_m
from ridge_tally.services.demo_brief import BRIEF
from ridge_tally.services.editing import apply_edit

SOUTH = PlaneId("south")
MODULE, INVERTER = ModuleId("sample-405"), InverterId("sample-i7-6")


def juniper_bench(shelf: Shelf) -> Job:
    """Return the sample job: one plane, two options, the second with a string too long."""
    a, b = OptionId("a"), OptionId("b")
    job = Job(
        name="Juniper Bench",
        unit=LengthUnit.FOOT,
        site=_site(),
        survey=Survey((_south_plane(),)),
        equipment=Equipment((shelf.module(MODULE),), (shelf.inverter(INVERTER),)),
        options=(Option(a, "two trackers", MODULE, INVERTER),),
    )
    steps: tuple[edits.Edit, ...] = (
        *BRIEF,
        edits.FillPlane(a, SOUTH, Orientation.PORTRAIT),
        edits.CopyOption(a, "one longer string"),
        edits.WishSeriesLength(b, 15),
    )
    for step in steps:
        job = apply_edit(job, step, shelf)
    return job


def _site() -> Site:
    return Site(
        place="Juniper Bench, high desert",
        latitude_deg=36.2,
        longitude_deg=-105.6,
        elevation_m=2150.0,
        utc_offset_h=-7.0,
        climate_id="high-desert",
        code_pack=CodePack.US,
        dwelling=True,
        coldest=DesignTemperature(-28.0, "invented extreme annual mean minimum of this sample"),
        hottest=DesignTemperature(31.0, "invented 2 % design temperature of this sample"),
        time_zone="America/Denver",
        survey_day=date(2026, 10, 12),
    )


def _taped(typed: str) -> Taped:
    return Taped(parse_length_m(typed, LengthUnit.FOOT), typed)


def _south_plane() -> RoofPlane:
    return RoofPlane(
        id=SOUTH,
        name="South roof",
        outline=Trapezoid(_taped("40'"), _taped("40'"), _taped("21' 3\""), _taped("0")),
        slope_deg=26.565051177077994,
        slope_typed="6:12",
        azimuth_deg=176.0,
        setbacks=Setbacks(_taped('6"'), _taped('18"'), _taped('12"')),
        obstructions=(
            Obstruction(
                ObstructionId("o1"),
                ObstructionKind.CHIMNEY,
                "Chimney",
                left=_taped("23' 6\""),
                bottom=_taped("15'"),
                width=_taped("2' 8\""),
                depth=_taped("2' 8\""),
                height=_taped("4' 6\""),
                clearance=_taped('12"'),
            ),
            Obstruction(
                ObstructionId("o2"),
                ObstructionKind.VENT,
                "Vent",
                left=_taped("33' 4\""),
                bottom=_taped("13' 6\""),
                width=_taped('3"'),
                depth=_taped('3"'),
                height=_taped('14"'),
                clearance=_taped('4"'),
            ),
        ),
    )
