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
    Origin,
    Priced,
    kind_of,
    module_area_m2,
    origin_of,
    sheet_among,
)
from ridge_tally.core.errors import NotFound, RidgeTallyError
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.formats.equipment_fields import FIELDS, SheetKind
from ridge_tally.formats.equipment_file import OWN
from ridge_tally.rules.equipment.caveats import SheetCaveat, caveats_of
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
    """A datasheet in the list; ``cells`` in the order of the columns, ``caveats`` how many."""

    id: str
    name: str
    own: bool
    cells: tuple[Cell, ...]
    caveats: int


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
    caveats: tuple[SheetCaveat, ...]
    fit: FitView | None
    fit_problem: str


# Typed with a unit of one's choice; told in this one.
UNITS = dict.fromkeys(("beta_voc", "alpha_isc", "gamma_pmp", "gamma_vmp"), "%/K")
Getter = Callable[[Any], float | int | str | None]


def _price(sheet: Priced) -> Cell:
    cents = price_of(sheet)
    return None if cents is None else cents / 100


def _per_w(sheet: ModuleSheet) -> Cell:
    cents = price_of(sheet)
    return None if cents is None else cents / 100 / sheet.p_max_w


def _best_efficiency(sheet: InverterSheet | MicroinverterSheet) -> Cell:
    return max((p.efficiency_frac * 100 for p in sheet.efficiency), default=None)


def _longest_span(sheet: MountingSheet) -> Cell:
    return max((s.span_m for s in sheet.spans), default=None)


def _money(cents: int | None) -> Cell:
    return None if cents is None else cents / 100


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
    SheetKind.MOUNTING: (
        (ShelfColumn("base", "On", "", 0), lambda s: s.base.value),
        (ShelfColumn("coverings", "For", "", 0), lambda s: ", ".join(s.coverings)),
        (ShelfColumn("rails", "Rails", "", 0), lambda s: s.rails.value),
        (ShelfColumn("stock", "Longest rail", "m", 2), lambda s: max(r.length_m for r in s.stock)),
        (ShelfColumn("span", "Span to", "m", 2), _longest_span),
        (ShelfColumn("limit", "Mount to", "N", 0), lambda s: s.mount_limit_n),
        (ShelfColumn("mount", "Mount", "", 2), lambda s: _money(s.mount_cents)),
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
                caveats=len(caveats_of(s)),
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
        values=values_of(sheet),
        caveats=caveats_of(sheet),
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


def values_of(sheet: AnySheet, *, prices: bool = True) -> tuple[SheetValue, ...]:
    """Return the values of a datasheet in the order people read it; without ``prices`` for strangers."""
    found = []
    for field in FIELDS[SheetKind(kind_of(sheet))]:
        if not prices and field.attribute.endswith("_cents"):
            continue
        value = None if field.told is None else field.told(sheet)
        if value is not None:
            text = _text(value, field.column.unit or UNITS.get(field.column.name, ""))
            found.append(SheetValue(field.column.label, text, origin_of(sheet, field.attribute)))
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
