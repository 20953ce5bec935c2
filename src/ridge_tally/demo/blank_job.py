"""A new job: one plane, piece of ground or carport, round in its own unit, to be measured over."""

from dataclasses import replace
from datetime import date

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.job.document import CodePack, DesignTemperature, Equipment, Job, Site
from ridge_tally.core.job.edits.survey.planes import AddPlane, PlaneShape
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.survey import Survey
from ridge_tally.core.units import LengthUnit
from ridge_tally.editing.strings.planned import thread_option
from ridge_tally.editing.survey.planes import planes_changed


def blank_job(
    shelf: Shelf, name: str, unit: LengthUnit, day: date, begins: PlaneShape = PlaneShape.GABLE
) -> Job:
    """Return a job that begins with a plane of that shape, to be typed over."""
    module, inverter = shelf.modules[1], shelf.inverters[3]
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
            survey_day=day,
            climate_given=False,
        ),
        survey=Survey(()),
        equipment=Equipment((module,), (inverter,)),
        options=(Option(OptionId("a"), "first draft", module.id, inverter.id),),
    )
    job = planes_changed(job, AddPlane(begins))
    return replace(job, options=tuple(thread_option(job, o) for o in job.options))
