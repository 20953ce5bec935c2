"""A new job: one rectangular plane, round in its own unit, to be measured over."""

from dataclasses import replace

from ridge_tally.core.job.document import (
    CodePack,
    DesignTemperature,
    Equipment,
    Job,
    Option,
    OptionId,
    PlaneId,
    RoofPlane,
    Setbacks,
    Site,
    Survey,
    Taped,
    Trapezoid,
)
from ridge_tally.core.units import LengthUnit, parse_length_m
from ridge_tally.services.editing import thread_option
from ridge_tally.services.workspace import Workspace

FIRST_PLANE = PlaneId("plane-1")


def _taped(metric: str, feet: str, unit: LengthUnit) -> Taped:
    typed = metric if unit is LengthUnit.METRE else feet
    return Taped(parse_length_m(typed, unit), typed)


def _outline(unit: LengthUnit) -> Trapezoid:
    eave = _taped("10", "33'", unit)
    return Trapezoid(eave, eave, _taped("6", "20'", unit), _taped("0", "0", unit))


def is_unmeasured(plane: RoofPlane) -> bool:
    """Return whether a plane still has the outline of a new job."""
    return plane.id == FIRST_PLANE and any(plane.outline == _outline(u) for u in LengthUnit)


def blank_job(workspace: Workspace, name: str, unit: LengthUnit) -> Job:
    """Return a job with one rectangular plane, round in its own unit, to be typed over."""
    plane = RoofPlane(
        id=FIRST_PLANE,
        name="Roof plane 1",
        outline=_outline(unit),
        slope_deg=25.0,
        slope_typed="25",
        azimuth_deg=180.0,
        setbacks=Setbacks(
            _taped("0.15", '6"', unit), _taped("0.45", '18"', unit), _taped("0.3", '12"', unit)
        ),
        obstructions=(),
    )
    module, inverter = workspace.shelf.modules[1], workspace.shelf.inverters[3]
    job = Job(
        name=name,
        unit=unit,
        site=Site(
            place="",
            latitude_deg=40.0,
            longitude_deg=-100.0 if unit is LengthUnit.FOOT else 0.0,
            elevation_m=None,
            utc_offset_h=-7.0 if unit is LengthUnit.FOOT else 0.0,
            climate_id="inland-four-seasons",
            code_pack=CodePack.US if unit is LengthUnit.FOOT else CodePack.IEC,
            dwelling=True,
            coldest=DesignTemperature(None, ""),
            hottest=DesignTemperature(None, ""),
            survey_day=workspace.clock().date(),
        ),
        survey=Survey((plane,)),
        equipment=Equipment((module,), (inverter,)),
        options=(Option(OptionId("a"), "first draft", module.id, inverter.id),),
    )
    return replace(job, options=tuple(thread_option(job, o) for o in job.options))
