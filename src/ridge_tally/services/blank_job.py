"""A new job: one rectangular plane, round in its own unit, to be measured over."""

from dataclasses import replace

from ridge_tally.core.job.document import CodePack, DesignTemperature, Equipment, Job, Option, Site
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.survey import Survey
from ridge_tally.core.units import LengthUnit
from ridge_tally.services.editing import thread_option
from ridge_tally.services.plane_editing import blank_plane
from ridge_tally.services.workspace import Workspace


def blank_job(workspace: Workspace, name: str, unit: LengthUnit) -> Job:
    """Return a job with one rectangular plane, round in its own unit, to be typed over."""
    plane = blank_plane(PlaneId("plane-1"), "Roof plane 1", unit)
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
