"""The figures of each kind of datasheet, once: as they are typed, kept in a table, and told.

One line a figure drives the form, the columns of a table and the page of a datasheet on the
shelf; a test holds that every field of a datasheet has its line.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from ridge_tally.core.equipment import (
    AnySheet,
    InverterId,
    InverterSheet,
    MicroinverterId,
    MicroinverterSheet,
    ModuleId,
    ModuleSheet,
    NominalOperating,
    OptimizerId,
    OptimizerKind,
    OptimizerSheet,
    Origin,
    TrackerSheet,
    Warming,
)
from ridge_tally.core.errors import MissingDatum, NotUnderstood
from ridge_tally.core.mounting_sheet import (
    MountBase,
    MountingId,
    MountingSheet,
    RailLay,
    RailMetal,
)
from ridge_tally.formats.equipment_row import Column, Row
from ridge_tally.rules.bounds import MOST_LINES_ON_SHEET

Value = float | str | bool | None


class SheetKind(StrEnum):
    """The kinds of equipment on the shelf."""

    MODULE = "module"
    INVERTER = "inverter"
    OPTIMIZER = "optimizer"
    MICROINVERTER = "microinverter"
    MOUNTING = "mounting"


@dataclass(frozen=True, slots=True)
class Field:
    """A figure of a datasheet.

    ``attribute``: the datasheet's field it fills, or is a part of.  ``read``: how its text becomes
    that field's value; ``None`` for a part, which is read with its whole.  ``told``: the value in
    the column's unit; ``None`` for a part that is told with its whole.
    """

    column: Column
    attribute: str
    read: Callable[[Row], object] | None
    told: Callable[[Any], Value] | None


def _number(
    name: str,
    label: str,
    unit: str = "",
    *,
    needed: bool = False,
    hint: str = "",
    per: float = 1.0,
    attribute: str = "",
) -> Field:
    """A number; so many of its unit are one of its field's."""
    field = attribute or name
    return Field(
        Column(name, label, unit, needed, hint),
        field,
        lambda row: _over(row.number(name) if needed else row.maybe(name), per),
        lambda sheet: _times(getattr(sheet, field), per),
    )


def _over(value: float | None, per: float) -> float | None:
    return None if value is None else value / per


def _times(value: float | None, per: float) -> float | None:
    return None if value is None else value * per


def _share(name: str, label: str, attribute: str, *, needed: bool = False) -> Field:
    """Per cent, kept as a fraction."""
    return Field(
        Column(name, label, "%", needed),
        attribute,
        lambda row: (row.number(name) / 100) if needed else row.share(name),
        lambda sheet: _times(getattr(sheet, attribute), 100),
    )


def _whole(
    name: str, label: str, *, needed: bool = False, hint: str = "", estimate: int | None = None
) -> Field:
    """A whole number; ``estimate`` where its sheet is silent."""

    def read(row: Row) -> int | None:
        found = row.whole(name)
        if found is None and estimate is not None:
            row.note(name, Origin.ESTIMATED)
        return estimate if found is None else found

    return Field(
        Column(name, label, "", needed, hint), name, read, lambda sheet: getattr(sheet, name)
    )


def _yes(name: str, label: str, *, otherwise: bool | None = None) -> Field:
    """Yes or no."""

    def read(row: Row) -> bool | None:
        found = row.yes(name)
        return otherwise if found is None else found

    column = Column(name, label, hint="yes or no")
    return Field(column, name, read, lambda sheet: getattr(sheet, name))


def _cents(name: str, label: str, hint: str = "") -> Field:
    """Money, kept in cents."""
    field = f"{name}_cents"
    return Field(
        Column(name, label, hint=hint),
        field,
        lambda row: row.cents(name),
        lambda sheet: _over(getattr(sheet, field), 100),
    )


def _coefficient(name: str, label: str, attribute: str, whole: str, units: str) -> Field:
    """A temperature coefficient, kept as a fraction per °C of its quantity at STC."""

    def read(row: Row) -> float | None:
        at_stc = _p_max(row, note=False) if whole == "p_max_w" else row.number(whole)
        return row.coefficient(name, attribute, at_stc)

    return Field(
        Column(name, label, hint=f"with its unit: {units}"),
        attribute,
        read,
        lambda sheet: _times(getattr(sheet, attribute), 100),
    )


def _part(
    name: str, label: str, unit: str, attribute: str, *, hint: str = "", needed: bool = False
) -> Field:
    """A figure that is read and told with the whole it belongs to."""
    return Field(Column(name, label, unit, needed, hint), attribute, None, None)


def _estimated(
    name: str, label: str, unit: str, hint: str, estimate: Callable[[Row], float]
) -> Field:
    """A number with an estimate of ours where its sheet is silent."""
    return Field(
        Column(name, label, unit, hint=hint),
        name,
        lambda row: row.estimated(name, name, estimate(row)),
        lambda sheet: getattr(sheet, name),
    )


def _p_max(row: Row, *, note: bool = True) -> float:
    found = row.maybe("p_max_w")
    if found is not None:
        return found
    if note:
        row.note("p_max_w", Origin.COMPUTED)
    return row.number("vmp_v") * row.number("imp_a")


def _nominal(row: Row) -> NominalOperating | None:
    watts, cell = row.maybe("nominal_w"), row.maybe("nominal_cell_degc")
    at = row.three("nominal_conditions", "light, air and wind such as 800 / 20 / 1")
    return None if watts is None and cell is None else NominalOperating(watts, cell, *at)


def _trackers(row: Row) -> tuple[TrackerSheet, ...]:
    tracker = TrackerSheet(
        v_min_v=row.number("v_min_v"),
        v_max_v=row.number("v_max_v"),
        i_max_a=row.number("i_max_a"),
        isc_max_a=row.maybe("isc_max_a"),
        inputs=row.whole("inputs", 1) or 0,
        p_max_w=row.maybe("tracker_w"),
    )
    return (tracker,) * min(row.whole("trackers") or 0, MOST_LINES_ON_SHEET + 1)


def _trackers_told(sheet: InverterSheet) -> str:
    return "; ".join(
        f"{sheet.trackers.count(t)} × {t.v_min_v:g} to {t.v_max_v:g} V, {t.i_max_a:g} A"
        + ("" if t.isc_max_a is None else f", Isc {t.isc_max_a:g} A")
        + ("" if t.p_max_w is None else f", {t.p_max_w:g} W")
        + f", {t.inputs} in"
        for t in dict.fromkeys(sheet.trackers)
    )


def _warming(row: Row) -> Warming | None:
    rise, lag = row.maybe("cabinet_rise_k"), row.maybe("cabinet_lag_min")
    if rise is None and lag is None:
        return None
    if rise is None or lag is None:
        missing = row.columns["cabinet_rise_k" if rise is None else "cabinet_lag_min"].label
        raise MissingDatum(missing, row.name, "Type both figures of the cabinet, or neither.")
    return Warming(rise, lag)


def _warming_told(sheet: InverterSheet | MicroinverterSheet) -> str | None:
    warming = sheet.warming
    if warming is None:
        return None
    return f"{warming.rise_at_rating_k:g} K over the air, after {warming.lag_min:g} minutes"


def _curve_told(sheet: InverterSheet | MicroinverterSheet) -> str | None:
    """Return efficiencies by load: ``93.5 at 10, 96.8 at 75 % load``."""
    at = [f"{p.efficiency_frac * 100:.1f} at {p.load_frac * 100:g}" for p in sheet.efficiency]
    return ", ".join(at) + " % load" if at else None


def _derating_told(sheet: InverterSheet | MicroinverterSheet) -> str | None:
    at = [f"{p.power_frac * 100:g} % at {p.air_degc:g} °C" for p in sheet.derating]
    return ", ".join(at) or None


def _one_of(
    name: str,
    label: str,
    attribute: str,
    choices: type[StrEnum],
    otherwise: StrEnum | None = None,
) -> Field:
    """One word of a few."""
    words = f"{', '.join(list(choices)[:-1])} or {list(choices)[-1]}"

    def read(row: Row) -> StrEnum:
        word = row.text(name).lower()
        if not word and otherwise is not None:
            return otherwise
        if word not in set(choices):
            raise NotUnderstood(row.columns[name].label, word, words)
        return choices(word)

    hint = words if otherwise is None else f"{words}; empty: {otherwise}"
    column = Column(name, label, needed=otherwise is None, hint=hint)
    return Field(column, attribute, read, lambda sheet: str(getattr(sheet, attribute).value))


def _mm(name: str, label: str, attribute: str, otherwise: float | None = None) -> Field:
    """A length in millimetres, kept in metres."""
    hint = "" if otherwise is None else f"empty: {otherwise * 1000:g}"

    def read(row: Row) -> float | None:
        found = row.maybe(name)
        return otherwise if found is None else found / 1000

    column = Column(name, label, "mm", hint=hint)
    return Field(column, attribute, read, lambda sheet: _times(getattr(sheet, attribute), 1000))


def _percent(name: str, label: str, attribute: str, otherwise: float) -> Field:
    """Per cent, kept as a fraction, with what is taken where the sheet is silent."""

    def read(row: Row) -> float:
        found = row.share(name)
        return otherwise if found is None else found

    column = Column(name, label, "%", hint=f"empty: {otherwise * 100:g}")
    return Field(column, attribute, read, lambda sheet: getattr(sheet, attribute) * 100)


def _count(name: str, label: str, otherwise: int) -> Field:
    column = Column(name, label, hint=f"empty: {otherwise}")
    return Field(
        column, name, lambda row: row.whole(name, otherwise), lambda sheet: getattr(sheet, name)
    )


def _stock_told(sheet: MountingSheet) -> str:
    return ", ".join(
        f"{s.length_m * 1000:.0f} mm"
        + ("" if s.price_cents is None else f" at {s.price_cents / 100:.2f}")
        for s in sheet.stock
    )


def _spans_told(sheet: MountingSheet) -> str:
    return ", ".join(
        f"{s.span_m * 1000:.0f} mm to {s.wind_m_per_s:g} m/s and {s.snow_pa:g} Pa"
        + (" at an edge" if s.at_edge else "")
        for s in sheet.spans
    )


_NAME = Field(
    Column("name", "Maker’s name and type", needed=True), "name", lambda row: row.text("name"), None
)
_PRICE = _cents("price", "Price of one", "as 124.50")
_START_HINT = "empty: the lowest it tracks, an estimate"
_START = _estimated(
    "v_start_v", "Start voltage", "V", _START_HINT, lambda row: row.number("v_min_v")
)
# What inverters of either size derate by, in the air and in their own cabinet.
_HEAT = (
    Field(
        Column("derating", "Gives by the air", hint="°C and per cent: 45:100 50:90 60:70"),
        "derating",
        lambda row: row.derating("derating"),
        _derating_told,
    ),
    Field(
        Column("cabinet_rise_k", "Cabinet over the air at its rating", "K"),
        "warming",
        _warming,
        _warming_told,
    ),
    _part("cabinet_lag_min", "Cabinet follows after", "min", "warming"),
)


def _efficiency(hint: str) -> Field:
    return Field(
        Column("efficiency", "Efficiency", hint=hint),
        "efficiency",
        lambda row: row.efficiency("efficiency"),
        _curve_told,
    )


FIELDS: dict[SheetKind, tuple[Field, ...]] = {
    SheetKind.MODULE: (
        _NAME,
        Field(
            Column("p_max_w", "Pmax", "W", hint="empty: Vmp × Imp"),
            "p_max_w",
            _p_max,
            lambda sheet: sheet.p_max_w,
        ),
        _number("voc_v", "Voc", "V", needed=True),
        _number("isc_a", "Isc", "A", needed=True),
        _number("vmp_v", "Vmp", "V", needed=True),
        _number("imp_a", "Imp", "A", needed=True),
        _coefficient(
            "beta_voc", "Voc coefficient", "beta_voc_frac_per_degc", "voc_v", "%/K, mV/K or V/K"
        ),
        _coefficient(
            "alpha_isc", "Isc coefficient", "alpha_isc_frac_per_degc", "isc_a", "%/K, mA/K or A/K"
        ),
        _coefficient(
            "gamma_pmp", "Pmax coefficient", "gamma_pmp_frac_per_degc", "p_max_w", "%/K or W/K"
        ),
        _coefficient(
            "gamma_vmp", "Vmp coefficient", "gamma_vmp_frac_per_degc", "vmp_v", "%/K, mV/K or V/K"
        ),
        _whole("cells_in_series", "Cells in series", needed=True, hint="half-cut: half its cells"),
        _whole("bypass_diodes", "Bypass diodes", hint="empty: 3, an estimate", estimate=3),
        _yes("half_cut", "Half-cut cells", otherwise=False),
        _yes("all_black", "All black"),
        _number("long_mm", "Long side", "mm", needed=True, per=1000.0, attribute="long_m"),
        _number("short_mm", "Short side", "mm", needed=True, per=1000.0, attribute="short_m"),
        _number("mass_kg", "Weight", "kg", needed=True),
        _mm("frame_mm", "Height of the frame", "frame_m"),
        _number("max_system_v", "Largest system voltage", "V"),
        _number("max_series_fuse_a", "Maximum series fuse", "A"),
        _share("bifaciality", "Bifaciality", "bifacial_frac"),
        Field(Column("nominal_w", "Nominal operating watts", "W"), "nominal", _nominal, None),
        _part("nominal_cell_degc", "Nominal cell temperature", "°C", "nominal"),
        _part("nominal_conditions", "At", "", "nominal", hint="light, air, wind: 800 / 20 / 1"),
        _number("lead_m", "Length of a lead", "m"),
        _share("first_year_loss", "Warranted degradation, year 1", "first_year_loss_frac"),
        _share("yearly_loss", "Warranted degradation, each later year", "yearly_loss_frac"),
        _PRICE,
        _cents("freight", "Freight for one"),
    ),
    SheetKind.INVERTER: (
        _NAME,
        _number("p_ac_w", "AC rating", "W", needed=True),
        _number("p_dc_max_w", "Maker’s DC limit", "W"),
        _number("v_dc_max_v", "Largest DC voltage", "V", needed=True),
        _START,
        _whole("phases", "Phases", hint="1 or 3; empty: 1, an estimate", estimate=1),
        _efficiency("97.2 or 10:94 20:96 50:97.5 100:97"),
        _estimated("night_w", "Night consumption", "W", "empty: 1 W, an estimate", lambda _: 1.0),
        Field(
            Column("trackers", "Trackers", needed=True, hint="alike ones; others by a JSON file"),
            "trackers",
            _trackers,
            _trackers_told,
        ),
        _part("v_min_v", "Tracks from", "V", "trackers", needed=True),
        _part("v_max_v", "Tracks to", "V", "trackers", needed=True),
        _part("i_max_a", "Operating current by tracker", "A", "trackers", needed=True),
        _part("isc_max_a", "Short-circuit current by tracker", "A", "trackers"),
        _part("inputs", "Terminal pairs by tracker", "", "trackers", hint="empty: 1"),
        _part("tracker_w", "Most watts by tracker", "W", "trackers"),
        _yes("bare_isc", "Its Isc limit is meant without a factor", otherwise=False),
        *_HEAT,
        _number("full_power_to_m", "Full power up to", "m"),
        _number("ac_a", "Most output current of a phase", "A"),
        _number("breaker_most_a", "Largest breaker before it", "A"),
        _yes("arc_fault", "Interrupts arc faults"),
        _yes("ground_fault", "Interrupts ground faults"),
        _yes("battery_ready", "Takes a battery on its DC side"),
        _yes("backup_ready", "Runs a house without the grid"),
        _PRICE,
    ),
    SheetKind.OPTIMIZER: (
        _NAME,
        _one_of("sort", "System or add-on", "kind", OptimizerKind),
        _number("p_max_w", "Largest module", "W", needed=True),
        _number("v_in_min_v", "Lowest input", "V", needed=True),
        _number("v_in_max_v", "Highest input", "V", needed=True),
        _number("i_in_max_a", "Largest input current", "A"),
        _number("v_out_max_v", "Highest output", "V", needed=True),
        _number("i_out_max_a", "Largest output current", "A", needed=True),
        _share("efficiency", "Efficiency", "efficiency_frac", needed=True),
        _number("string_v", "Fixed string voltage", "V"),
        _whole("least_in_string", "Fewest in a string"),
        _whole("most_in_string", "Most in a string"),
        _number("most_string_w", "Most watts of a string", "W"),
        _number("safe_v", "Shutdown voltage of each", "V"),
        _PRICE,
    ),
    SheetKind.MICROINVERTER: (
        _NAME,
        _whole("inputs", "Modules on one", needed=True),
        _number("p_ac_w", "Peak AC output", "W", needed=True),
        _number("va_continuous", "Continuous rating", "VA"),
        _estimated("ac_v", "AC voltage", "V", "empty: 240, an estimate", lambda _: 240.0),
        _number("v_min_v", "Tracks from", "V", needed=True),
        _number("v_max_v", "Tracks to", "V", needed=True),
        _START,
        _number("v_dc_max_v", "Highest input", "V", needed=True),
        _number("i_max_a", "Operating current by input", "A", needed=True),
        _number("isc_max_a", "Short-circuit current by input", "A"),
        _efficiency("96.5 or 10:93 20:95 50:96.5 100:96"),
        _estimated(
            "night_w", "Night consumption", "W", "empty: 0.05 W, an estimate", lambda _: 0.05
        ),
        *_HEAT,
        _whole("most_on_branch", "Most on a branch, by its listing"),
        _number("module_least_w", "Smallest module", "W"),
        _number("module_most_w", "Largest module", "W"),
        Field(
            Column("cells", "Cells of its modules", hint="in series: 54 60 66"),
            "cells",
            lambda row: row.counts("cells"),
            lambda sheet: ", ".join(map(str, sheet.cells)) or None,
        ),
        _number("trunk_pitch_m", "Trunk connectors apart", "m"),
        _number("trunk_ohm_per_m", "Trunk, each metre one way", "ohm/m"),
        _PRICE,
    ),
    SheetKind.MOUNTING: (
        _NAME,
        _one_of("base", "Mounts go on", "base", MountBase),
        Field(
            Column("coverings", "Roofs it is for", needed=True, hint="shingle tile standing-seam"),
            "coverings",
            lambda row: tuple(row.text("coverings").lower().replace(",", " ").split()),
            lambda sheet: ", ".join(sheet.coverings),
        ),
        _one_of("rails", "Rails", "rails", RailLay),
        Field(
            Column("stock", "Rails sold at", needed=True, hint="mm:price, such as 4267:52 3300:41"),
            "stock",
            lambda row: row.stock("stock"),
            _stock_told,
        ),
        Field(
            Column("spans", "Longest spans", hint="m/s/Pa/zone:mm, such as 42/1000/field:1800"),
            "spans",
            lambda row: row.spans("spans"),
            _spans_told,
        ),
        _mm("clamp_gap_mm", "Between modules", "clamp_gap_m", 0.02),
        _mm("overhang_mm", "Rail past the last module", "overhang_m", 0.05),
        _yes("hidden_clamps", "End clamps hide under the module", otherwise=False),
        _mm("cantilever_mm", "Longest bare end", "cantilever_m"),
        _share("cantilever", "Bare end, of the span", "cantilever_frac"),
        _yes("cantilever_of_actual", "Of the actual span beside it", otherwise=False),
        _percent("splice_in", "Splice within, of the span", "splice_frac", 0.5),
        _mm("splice_clear_mm", "Splice off a mount", "splice_clear_m", 0.0),
        _yes("splice_in_end_spans", "Splices in end spans", otherwise=True),
        _count("mounts_per_piece", "Mounts under each piece", 1),
        _mm("least_piece_mm", "Shortest piece", "least_piece_m", 0.6),
        _number("longest_run_m", "Longest run", "m"),
        _mm("run_gap_mm", "Gap between runs", "run_gap_m"),
        _percent("clamp_from", "Clamped from, of the long side", "clamp_from_frac", 0.125),
        _percent("clamp_to", "Clamped to, of the long side", "clamp_to_frac", 0.25),
        _yes("short_sides", "Clamps may hold short sides"),
        _mm("frame_least_mm", "Thinnest frame", "frame_least_m"),
        _mm("frame_most_mm", "Thickest frame", "frame_most_m"),
        _one_of("rail_metal", "Rails are of", "rail_metal", RailMetal, RailMetal.ALUMINIUM),
        _number("rail_kg_per_m", "Rail", "kg/m"),
        _number("mount_kg", "Weight of a mount", "kg"),
        _number("mount_limit_n", "A mount may be pulled with", "N"),
        _number("slide_limit_n", "A mount may be pushed down the roof with", "N"),
        _count("lags", "Lags in a mount", 0),
        _mm("lag_diameter_mm", "Diameter of a lag", "lag_diameter_m"),
        _mm("thread_mm", "Thread in the wood", "thread_m"),
        _cents("mount", "Price of a mount"),
        _cents("splice", "Price of a splice"),
        _cents("mid_clamp", "Price of a mid clamp"),
        _cents("end_clamp", "Price of an end clamp"),
        _cents("cap", "Price of an end cap"),
        _whole("box_of", "Clamps and caps in a box"),
        _number("torque_mid_nm", "Torque, mid clamp", "Nm"),
        _number("torque_end_nm", "Torque, end clamp", "Nm"),
        _number("torque_splice_nm", "Torque, splice", "Nm"),
        _number("torque_mount_nm", "Torque, mount", "Nm"),
        Field(
            Column("goes_with", "What goes with what"),
            "goes_with",
            lambda row: row.text("goes_with"),
            lambda sheet: sheet.goes_with or None,
        ),
    ),
}
COLUMNS: dict[SheetKind, tuple[Column, ...]] = {
    kind: tuple(f.column for f in fields) for kind, fields in FIELDS.items()
}


def sheet_from(kind: SheetKind, texts: Mapping[str, str], sheet_id: str) -> AnySheet:
    """Return the datasheet of a row of texts.

    Raises
    ------
    MissingDatum, NotUnderstood
        Naming the column that lacks a figure or is not one.
    """
    row = Row(COLUMNS[kind], texts)
    values: dict[str, Any] = {f.attribute: f.read(row) for f in FIELDS[kind] if f.read is not None}
    values["provenance"], values["origins"] = row.provenance, tuple(row.origins)
    match kind:
        case SheetKind.MODULE:
            return ModuleSheet(id=ModuleId(sheet_id), **values)
        case SheetKind.INVERTER:
            return InverterSheet(id=InverterId(sheet_id), **values)
        case SheetKind.OPTIMIZER:
            return OptimizerSheet(id=OptimizerId(sheet_id), **values)
        case SheetKind.MICROINVERTER:
            return MicroinverterSheet(id=MicroinverterId(sheet_id), **values)
        case SheetKind.MOUNTING:
            return MountingSheet(id=MountingId(sheet_id), **values)
