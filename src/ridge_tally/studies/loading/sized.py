"""An option's inverters as if they were of another size, their curves the same."""

from dataclasses import replace

from ridge_tally.core.equipment import Maker, of_size
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.editing.design import design_for
from ridge_tally.rules.design import Design


def sized_to(design: Design, ac_w: float) -> Design:
    """Return the design with what makes its AC scaled to so many watts together."""
    factor = ac_w / design.p_ac_w
    makers = {str(sheet.id) for sheet, _ in ac_makers(design)}
    equipment = design.job.equipment
    sized = replace(
        design.job,
        equipment=replace(
            equipment,
            inverters=tuple(_scaled(s, factor, makers) for s in equipment.inverters),
            microinverters=tuple(_scaled(s, factor, makers) for s in equipment.microinverters),
        ),
    )
    return design_for(sized, design.option)


def _scaled(sheet: Maker, factor: float, makers: set[str]) -> Maker:
    if sheet.id not in makers:
        return sheet
    return of_size(sheet, sheet.p_ac_w * factor)
