"""Every module of the shelf on this roof and inverter: how many fit, how they string, what they cost."""

from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.equipment import ModuleSheet, Origin, module_area_m2, origin_of
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.edits.array.kinds import ChooseModule
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.rules.strings.plans import plan_space, why_no_plan
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.parts import price_of


@dataclass(frozen=True, slots=True)
class ModuleOnRoof:
    """A module as it would fill the roof; ``told``: its lengths in series, or why none is legal.

    ``cents_per_w`` with freight where that is known (``with_freight``), ``None`` without a price.
    """

    module_id: str
    name: str
    p_max_w: float
    count: int
    dc_kw: float
    plans: int
    told: str
    mass_kg: float
    whole_kg: float
    kg_per_m2: float
    long_m: float
    short_m: float
    w_per_m2: float
    cents_per_w: float | None
    with_freight: bool
    sample_price: bool
    problem: str
    chosen: bool


@dataclass(frozen=True, slots=True)
class ModuleChoice:
    """Modules looked at so far, of how many."""

    found: tuple[ModuleOnRoof, ...]
    of: int


def module_choice(desk: Desk, design: Design) -> Iterator[ModuleChoice]:
    """Yield each module of the shelf, planes filled anew with it as they are filled now."""
    modules, found = desk.shelf.modules, list[ModuleOnRoof]()
    yield ModuleChoice((), len(modules))
    for sheet in modules:
        found.append(_on_roof(desk, design, sheet))
        yield ModuleChoice(tuple(found), len(modules))


def _on_roof(desk: Desk, design: Design, sheet: ModuleSheet) -> ModuleOnRoof:
    count, dc_w, plans, told, problem = 0, 0.0, 0, "", ""
    try:
        changed = apply_edit(design.job, ChooseModule(design.option.id, sheet.id), desk.shelf)
        laid = design_in(changed, design.option.id)
        space = plan_space(laid)
        count, dc_w = len(present_ids(laid.option)), dc_watts(laid)[2]
        plans = space.plans().total
        low, high = space.span(0) if space.parts else (0, 0)
        told = f"{low} to {high} in series" if plans else why_no_plan(laid, space)
        if laid.microinverter is not None:
            told = "each on an inverter of its own"
    except RidgeTallyError as error:
        problem = str(error)
    price, area = price_of(sheet), module_area_m2(sheet)
    return ModuleOnRoof(
        module_id=sheet.id,
        name=sheet.name,
        p_max_w=sheet.p_max_w,
        count=count,
        dc_kw=dc_w / 1000,
        plans=plans,
        told=told,
        mass_kg=sheet.mass_kg,
        whole_kg=count * sheet.mass_kg,
        kg_per_m2=sheet.mass_kg / area,
        long_m=sheet.long_m,
        short_m=sheet.short_m,
        w_per_m2=sheet.p_max_w / area,
        cents_per_w=None if price is None else price / sheet.p_max_w,
        with_freight=sheet.freight_cents is not None,
        sample_price=price is not None and origin_of(sheet, "price_cents") is Origin.SAMPLE,
        problem=problem,
        chosen=sheet.id == design.option.module_id,
    )
