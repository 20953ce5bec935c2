"""The shelf to look through: rows filtered and sorted, and a datasheet value by value."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from ridge_tally.catalogue.shelf import LeftOut, Shelf
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.nominal import nominal_watts
from ridge_tally.core.equipment import (
    AnySheet,
    InverterSheet,
    MicroinverterSheet,
    ModuleSheet,
    OptimizerSheet,
    Origin,
    module_area_m2,
    origin_of,
    sheet_among,
)
from ridge_tally.core.errors import NotFound, RidgeTallyError
from ridge_tally.formats.equipment_fields import SheetKind
from ridge_tally.formats.equipment_file import OWN
from ridge_tally.rules.equipment.doubts import SheetDoubt, doubts_of
from ridge_tally.studies.parts import price_of

PAGE = 100
Cell = float | str | None


@dataclass(frozen=True, slots=True)
class ShelfColumn:
    """A column of the shelf: a figure with its unit, told with so many decimals."""

    id: str
    label: str
    unit: str
    digits: int


@dataclass(frozen=True, slots=True)
class ShelfRow:
    """A datasheet in the list; ``cells`` in the order of the columns, ``doubts`` how many."""

    id: str
    name: str
    own: bool
    cells: tuple[Cell, ...]
    doubts: int


@dataclass(frozen=True, slots=True)
class ShelfPage:
    """A page of the shelf: ``found`` of ``of`` datasheets of the kind pass the filter.

    ``left_out``: own datasheets of any kind that cannot be used.
    """

    columns: tuple[ShelfColumn, ...]
    rows: tuple[ShelfRow, ...]
    start: int
    found: int
    of: int
    left_out: tuple[LeftOut, ...]


@dataclass(frozen=True, slots=True)
class ShelfQuestion:
    """What is asked of the shelf: words of the name, a column to sort and narrow by."""

    words: str = ""
    sort: str = ""
    down: bool = False
    least: float | None = None
    most: float | None = None
    start: int = 0


@dataclass(frozen=True, slots=True)
class SheetValue:
    """A value of a datasheet with where it is from."""

    label: str
    text: str
    origin: Origin


@dataclass(frozen=True, slots=True)
class FitView:
    """The single diode of a module and how well it meets its sheet."""

    fitted_by: str
    worst_point_frac: float
    beta_error_frac: float
    gamma_error_per_degc: float | None
    light_current_a: float
    saturation_current_a: float
    series_ohm: float
    shunt_ohm: float
    thermal_v: float
    gap_ev: float


@dataclass(frozen=True, slots=True)
class SheetView:
    """A datasheet value by value, what looks wrong in it, and a module's diode."""

    id: str
    name: str
    own: bool
    provenance: str
    values: tuple[SheetValue, ...]
    doubts: tuple[SheetDoubt, ...]
    fit: FitView | None
    fit_problem: str


Getter = Callable[[Any], float | int | str | None]


def _price(sheet: AnySheet) -> Cell:
    cents = price_of(sheet)
    return None if cents is None else cents / 100


def _per_w(sheet: ModuleSheet) -> Cell:
    cents = price_of(sheet)
    return None if cents is None else cents / 100 / sheet.p_max_w


def _best_efficiency(sheet: InverterSheet | MicroinverterSheet) -> Cell:
    return max((p.efficiency_frac * 100 for p in sheet.efficiency), default=None)


def _percent(share: float | None) -> Cell:
    return None if share is None else share * 100


LISTED: dict[SheetKind, tuple[tuple[ShelfColumn, Getter], ...]] = {
    SheetKind.MODULE: (
        (ShelfColumn("p_max_w", "Pmax", "W", 0), lambda s: s.p_max_w),
        (ShelfColumn("voc_v", "Voc", "V", 1), lambda s: s.voc_v),
        (ShelfColumn("isc_a", "Isc", "A", 1), lambda s: s.isc_a),
        (ShelfColumn("cells", "Cells", "", 0), lambda s: s.cells_in_series * (1 + s.half_cut)),
        (ShelfColumn("beta", "Voc by K", "%", 2), lambda s: _percent(s.beta_voc_frac_per_degc)),
        (ShelfColumn("long_m", "Long", "m", 2), lambda s: s.long_m),
        (ShelfColumn("short_m", "Short", "m", 2), lambda s: s.short_m),
        (ShelfColumn("mass_kg", "Weight", "kg", 1), lambda s: s.mass_kg),
        (ShelfColumn("by_area", "By area", "W/m²", 0), lambda s: s.p_max_w / module_area_m2(s)),
        (ShelfColumn("price", "Delivered", "a W", 2), _per_w),
    ),
    SheetKind.INVERTER: (
        (ShelfColumn("p_ac_w", "AC", "W", 0), lambda s: s.p_ac_w),
        (ShelfColumn("p_dc_max_w", "DC limit", "W", 0), lambda s: s.p_dc_max_w),
        (ShelfColumn("v_dc_max_v", "Input", "V", 0), lambda s: s.v_dc_max_v),
        (ShelfColumn("phases", "Phases", "", 0), lambda s: s.phases),
        (ShelfColumn("trackers", "Trackers", "", 0), lambda s: len(s.trackers)),
        (ShelfColumn("i_max_a", "Imp", "A", 1), lambda s: max(t.i_max_a for t in s.trackers)),
        (ShelfColumn("best", "Best", "%", 1), _best_efficiency),
        (ShelfColumn("hybrid", "Battery", "", 0), lambda s: "yes" if s.battery_ready else ""),
        (ShelfColumn("price", "Price", "", 0), _price),
    ),
    SheetKind.OPTIMIZER: (
        (ShelfColumn("sort", "Kind", "", 0), lambda s: s.kind.value),
        (ShelfColumn("p_max_w", "Module", "W", 0), lambda s: s.p_max_w),
        (ShelfColumn("v_in_max_v", "Input", "V", 0), lambda s: s.v_in_max_v),
        (ShelfColumn("i_in_max_a", "Input", "A", 1), lambda s: s.i_in_max_a),
        (ShelfColumn("i_out_max_a", "Output", "A", 1), lambda s: s.i_out_max_a),
        (ShelfColumn("string_v", "Held", "V", 0), lambda s: s.string_v),
        (ShelfColumn("least", "Fewest", "", 0), lambda s: s.least_in_string),
        (ShelfColumn("most", "Most", "", 0), lambda s: s.most_in_string),
        (ShelfColumn("price", "Price", "", 0), _price),
    ),
    SheetKind.MICROINVERTER: (
        (ShelfColumn("inputs", "Modules", "", 0), lambda s: s.inputs),
        (ShelfColumn("p_ac_w", "Peak", "W", 0), lambda s: s.p_ac_w),
        (ShelfColumn("va", "Without end", "VA", 0), lambda s: s.va_continuous),
        (ShelfColumn("least", "Module from", "W", 0), lambda s: s.module_least_w),
        (ShelfColumn("most", "to", "W", 0), lambda s: s.module_most_w),
        (ShelfColumn("v_dc_max_v", "Input", "V", 0), lambda s: s.v_dc_max_v),
        (ShelfColumn("on_branch", "On a branch", "", 0), lambda s: s.most_on_branch),
        (ShelfColumn("best", "Best", "%", 1), _best_efficiency),
        (ShelfColumn("price", "Price", "", 0), _price),
    ),
}


def shelf_page(shelf: Shelf, kind: SheetKind, asked: ShelfQuestion) -> ShelfPage:
    """Return a page of the datasheets of a kind, filtered by words and a range, sorted.

    Raises
    ------
    NotFound
        If the column to sort by is none of the kind's.
    """
    columns = LISTED[kind]
    by_id = {column.id: getter for column, getter in columns}
    if asked.sort and asked.sort not in by_id:
        raise NotFound("column", asked.sort)
    sheets = shelf.of_kind(kind.value)
    words = asked.words.lower().split()
    found = [s for s in sheets if all(w in s.name.lower() for w in words)]
    if asked.sort:
        cell = by_id[asked.sort]
        found = [s for s in found if _within(cell(s), asked.least, asked.most)]
        found.sort(key=lambda s: _order(cell(s), down=asked.down), reverse=asked.down)
    page = found[asked.start : asked.start + PAGE]
    return ShelfPage(
        columns=tuple(column for column, _ in columns),
        rows=tuple(
            ShelfRow(
                id=s.id,
                name=s.name,
                own=s.id.startswith(OWN),
                cells=tuple(_cell(getter(s)) for _, getter in columns),
                doubts=len(doubts_of(s)),
            )
            for s in page
        ),
        left_out=shelf.left_out,
        start=asked.start,
        found=len(found),
        of=len(sheets),
    )


def _cell(value: float | int | str | None) -> Cell:
    return float(value) if isinstance(value, int) else value


def _within(cell: Cell, least: float | None, most: float | None) -> bool:
    if least is None and most is None:
        return True
    if not isinstance(cell, int | float):
        return False
    return (least is None or cell >= least) and (most is None or cell <= most)


def _order(cell: Cell, *, down: bool) -> tuple[bool, float, str]:
    """Return what sorts a cell; those without a figure come last either way."""
    missing = cell is None or cell == ""
    number = float(cell) if isinstance(cell, int | float) else 0.0
    return (missing != down, number, cell if isinstance(cell, str) else "")


def sheet_view(shelf: Shelf, kind: SheetKind, sheet_id: str) -> SheetView:
    """Return a datasheet value by value; NotFound if there is none."""
    sheet = sheet_among(shelf.of_kind(kind.value), sheet_id, kind.value)  # type: ignore[type-var]
    fit, problem = _fit(sheet)
    return SheetView(
        id=sheet.id,
        name=sheet.name,
        own=sheet.id.startswith(OWN),
        provenance=sheet.provenance,
        values=_values(sheet),
        doubts=doubts_of(sheet),
        fit=fit,
        fit_problem=problem,
    )


def _fit(sheet: AnySheet) -> tuple[FitView | None, str]:
    if not isinstance(sheet, ModuleSheet):
        return None, ""
    try:
        model = fit_diode(sheet)
    except RidgeTallyError as error:
        return None, str(error)
    gamma = model.gamma_error_per_degc
    return FitView(
        fitted_by=model.fitted_by,
        worst_point_frac=model.worst_point_frac,
        beta_error_frac=model.beta_error_frac,
        gamma_error_per_degc=None if gamma != gamma else gamma,  # noqa: PLR0124 - NaN: not on it
        light_current_a=model.light_current_a,
        saturation_current_a=model.saturation_current_a,
        series_ohm=model.series_ohm,
        shunt_ohm=model.shunt_ohm,
        thermal_v=model.thermal_v,
        gap_ev=model.gap_ev,
    ), ""


def _values(sheet: AnySheet) -> tuple[SheetValue, ...]:
    rows: list[tuple[str, str, float | str | bool | None, str]] = list(_told(sheet))
    found = [
        SheetValue(label, _text(value, unit), origin_of(sheet, field))
        for label, field, value, unit in rows
        if value is not None
    ]
    if isinstance(sheet, ModuleSheet):
        found += _nominal(sheet)
    return tuple(found)


def _nominal(sheet: ModuleSheet) -> list[SheetValue]:
    try:
        nominal = nominal_watts(sheet)
    except RidgeTallyError:
        return []
    return [
        SheetValue("Nominal operating watts", f"{nominal.p_w:.0f} W", nominal.origin),
        SheetValue("Cell at nominal conditions", f"{nominal.cell_degc:g} °C", nominal.cell_origin),
    ]


def _text(value: float | str | bool, unit: str) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, str):
        return value
    return f"{value:,.6g} {unit}".replace(",", " ").replace("-", "−").strip()


def _told(sheet: AnySheet) -> tuple[tuple[str, str, float | str | bool | None, str], ...]:
    """Return (label, field, value, unit) of a datasheet in the order people read it."""
    price = (
        "Price of one", "price_cents",
        None if sheet.price_cents is None else sheet.price_cents / 100, "",
    )  # fmt: skip
    match sheet:
        case ModuleSheet():
            return (*_of_module(sheet), price)
        case InverterSheet():
            return (*_of_inverter(sheet), price)
        case OptimizerSheet():
            return (*_of_optimizer(sheet), price)
        case MicroinverterSheet():
            return (*_of_microinverter(sheet), price)


Told = tuple[str, str, float | str | bool | None, str]


def _of_module(s: ModuleSheet) -> tuple[Told, ...]:
    return (
        ("Pmax", "p_max_w", s.p_max_w, "W"),
        ("Voc", "voc_v", s.voc_v, "V"),
        ("Isc", "isc_a", s.isc_a, "A"),
        ("Vmp", "vmp_v", s.vmp_v, "V"),
        ("Imp", "imp_a", s.imp_a, "A"),
        ("Voc coefficient", "beta_voc_frac_per_degc", _percent(s.beta_voc_frac_per_degc), "%/K"),
        ("Isc coefficient", "alpha_isc_frac_per_degc", _percent(s.alpha_isc_frac_per_degc), "%/K"),
        ("Pmax coefficient", "gamma_pmp_frac_per_degc", _percent(s.gamma_pmp_frac_per_degc), "%/K"),
        ("Cells in series", "cells_in_series", s.cells_in_series, ""),
        ("Half-cut", "half_cut", s.half_cut, ""),
        ("Bypass diodes", "bypass_diodes", s.bypass_diodes, ""),
        ("Long side", "long_m", s.long_m * 1000, "mm"),
        ("Short side", "short_m", s.short_m * 1000, "mm"),
        ("Weight", "mass_kg", s.mass_kg, "kg"),
        ("Largest system voltage", "max_system_v", s.max_system_v, "V"),
        ("Largest series fuse", "max_series_fuse_a", s.max_series_fuse_a, "A"),
        ("Bifaciality", "bifacial_frac", _percent(s.bifacial_frac), "%"),
        ("Granted loss, first year", "first_year_loss_frac", _percent(s.first_year_loss_frac), "%"),
        ("Granted loss, later years", "yearly_loss_frac", _percent(s.yearly_loss_frac), "%"),
        ("Length of a lead", "lead_m", s.lead_m, "m"),
        (
            "Freight for one", "freight_cents",
            None if s.freight_cents is None else s.freight_cents / 100, "",
        ),
    )  # fmt: skip


def _of_inverter(s: InverterSheet) -> tuple[Told, ...]:
    trackers = "; ".join(
        f"{s.trackers.count(t)} × {t.v_min_v:g} to {t.v_max_v:g} V, {t.i_max_a:g} A"
        + ("" if t.isc_max_a is None else f", Isc {t.isc_max_a:g} A")
        + f", {t.inputs} in"
        for t in dict.fromkeys(s.trackers)
    )
    return (
        ("AC rating", "p_ac_w", s.p_ac_w, "W"),
        ("Maker’s DC limit", "p_dc_max_w", s.p_dc_max_w, "W"),
        ("Largest DC voltage", "v_dc_max_v", s.v_dc_max_v, "V"),
        ("Start voltage", "v_start_v", s.v_start_v, "V"),
        ("Phases", "phases", s.phases, ""),
        ("Trackers", "trackers", trackers, ""),
        ("Efficiency", "efficiency", _curve(s), ""),
        ("Draw at night", "night_w", s.night_w, "W"),
        ("Takes a battery", "battery_ready", s.battery_ready, ""),
        ("Arc fault detection", "arc_fault", s.arc_fault, ""),
        ("Full power up to", "full_power_to_m", s.full_power_to_m, "m"),
    )


def _of_optimizer(s: OptimizerSheet) -> tuple[Told, ...]:
    return (
        ("Kind", "kind", s.kind.value, ""),
        ("Largest module", "p_max_w", s.p_max_w, "W"),
        ("Input", "v_in_max_v", f"{s.v_in_min_v:g} to {s.v_in_max_v:g} V", ""),
        ("Largest input current", "i_in_max_a", s.i_in_max_a, "A"),
        ("Highest output", "v_out_max_v", s.v_out_max_v, "V"),
        ("Largest output current", "i_out_max_a", s.i_out_max_a, "A"),
        ("Efficiency", "efficiency_frac", s.efficiency_frac * 100, "%"),
        ("Voltage the inverter holds", "string_v", s.string_v, "V"),
        ("Fewest in a string", "least_in_string", s.least_in_string, ""),
        ("Most in a string", "most_in_string", s.most_in_string, ""),
        ("Most watts of a string", "most_string_w", s.most_string_w, "W"),
        ("Left by each when off", "safe_v", s.safe_v, "V"),
    )


def _of_microinverter(s: MicroinverterSheet) -> tuple[Told, ...]:
    return (
        ("Modules on one", "inputs", s.inputs, ""),
        ("The most it gives", "p_ac_w", s.p_ac_w, "W"),
        ("Without end, for its branch", "va_continuous", s.va_continuous, "VA"),
        ("AC voltage", "ac_v", s.ac_v, "V"),
        ("Tracks", "v_min_v", f"{s.v_min_v:g} to {s.v_max_v:g} V", ""),
        ("Highest input", "v_dc_max_v", s.v_dc_max_v, "V"),
        ("Operating current by input", "i_max_a", s.i_max_a, "A"),
        ("Short-circuit current by input", "isc_max_a", s.isc_max_a, "A"),
        ("Smallest module", "module_least_w", s.module_least_w, "W"),
        ("Largest module", "module_most_w", s.module_most_w, "W"),
        ("Cells of its modules", "cells", ", ".join(map(str, s.cells)) or None, ""),
        ("Most on a branch", "most_on_branch", s.most_on_branch, ""),
        ("Efficiency", "efficiency", _curve(s), ""),
        ("Trunk connectors apart", "trunk_pitch_m", s.trunk_pitch_m, "m"),
        ("Trunk, each metre one way", "trunk_ohm_per_m", s.trunk_ohm_per_m, "ohm/m"),
    )


def _curve(sheet: InverterSheet | MicroinverterSheet) -> str | None:
    """Return efficiencies by load: ``93.5 % at 10 %, 96.8 % at 75 %``."""
    at = [f"{p.efficiency_frac * 100:.1f} at {p.load_frac * 100:g}" for p in sheet.efficiency]
    return ", ".join(at) + " % load" if at else None
