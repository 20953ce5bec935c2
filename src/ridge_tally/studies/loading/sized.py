"""An option's inverters as if they were of another size, their curves the same."""

from dataclasses import replace
from typing import TypeVar

from ridge_tally.core.equipment import InverterSheet, MicroinverterSheet
from ridge_tally.core.job.document import Job, Option
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.editing.design import design_for

Maker = TypeVar("Maker", InverterSheet, MicroinverterSheet)


def sized_to(job: Job, option: Option, ac_w: float) -> Job:
    """Return the job with what makes an option's AC scaled to so many watts together."""
    factor = ac_w / design_for(job, option).p_ac_w
    makers = {str(sheet.id) for sheet, _ in ac_makers(job, option)}
    equipment = job.equipment
    return replace(
        job,
        equipment=replace(
            equipment,
            inverters=tuple(_scaled(s, factor, makers) for s in equipment.inverters),
            microinverters=tuple(_scaled(s, factor, makers) for s in equipment.microinverters),
        ),
    )


def _scaled(sheet: Maker, factor: float, makers: set[str]) -> Maker:
    if sheet.id not in makers:
        return sheet
    return replace(sheet, p_ac_w=sheet.p_ac_w * factor, night_w=sheet.night_w * factor)
