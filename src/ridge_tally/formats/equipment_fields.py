"""A datasheet as a row of texts: the columns of each kind, as typed in a form or kept in a table."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.equipment import (
    AnySheet,
    EfficiencyPoint,
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
    ValueOrigin,
)
from ridge_tally.core.errors import MissingDatum, NotUnderstood
from ridge_tally.rules.bounds import MOST_LINES_ON_SHEET


class SheetKind(StrEnum):
    """The kinds of equipment on the shelf."""

    MODULE = "module"
    INVERTER = "inverter"
    OPTIMIZER = "optimizer"
    MICROINVERTER = "microinverter"


@dataclass(frozen=True, slots=True)
class Column:
    """A figure of a datasheet as a column: its name there, its label for people, its unit."""

    name: str
    label: str
    unit: str = ""
    needed: bool = False
    hint: str = ""


_COEFFICIENT = "with its unit: %/K, mV/K or V/K"
_PRICE = Column("price", "Price of one", hint="as 124.50")
COLUMNS: dict[SheetKind, tuple[Column, ...]] = {
    SheetKind.MODULE: (
        Column("name", "Maker’s name and type", needed=True),
        Column("p_max_w", "Pmax", "W", hint="empty: Vmp × Imp"),
        Column("voc_v", "Voc", "V", needed=True),
        Column("isc_a", "Isc", "A", needed=True),
        Column("vmp_v", "Vmp", "V", needed=True),
        Column("imp_a", "Imp", "A", needed=True),
        Column("beta_voc", "Voc coefficient", hint=_COEFFICIENT),
        Column("alpha_isc", "Isc coefficient", hint="with its unit: %/K, mA/K or A/K"),
        Column("gamma_pmp", "Pmax coefficient", hint="with its unit: %/K or W/K"),
        Column("cells_in_series", "Cells in series", needed=True, hint="half-cut: half its cells"),
        Column("bypass_diodes", "Bypass diodes", hint="empty: 3, an estimate"),
        Column("half_cut", "Half-cut cells", hint="yes or no"),
        Column("long_mm", "Long side", "mm", needed=True),
        Column("short_mm", "Short side", "mm", needed=True),
        Column("mass_kg", "Weight", "kg", needed=True),
        Column("max_system_v", "Largest system voltage", "V"),
        Column("max_series_fuse_a", "Largest series fuse", "A"),
        Column("bifaciality", "Bifaciality", "%"),
        Column("nominal_w", "Nominal operating watts", "W"),
        Column("nominal_cell_degc", "Nominal cell temperature", "°C"),
        Column("nominal_conditions", "At", hint="light, air, wind: 800 / 20 / 1"),
        Column("lead_m", "Length of a lead", "m"),
        Column("first_year_loss", "Granted loss, first year", "%"),
        Column("yearly_loss", "Granted loss, each later year", "%"),
        _PRICE,
        Column("freight", "Freight for one"),
    ),
    SheetKind.INVERTER: (
        Column("name", "Maker’s name and type", needed=True),
        Column("p_ac_w", "AC rating", "W", needed=True),
        Column("p_dc_max_w", "Maker’s DC limit", "W"),
        Column("v_dc_max_v", "Largest DC voltage", "V", needed=True),
        Column("v_start_v", "Start voltage", "V", hint="empty: the lowest it tracks, an estimate"),
        Column("phases", "Phases", hint="1 or 3"),
        Column("efficiency", "Efficiency", hint="97.2 or 10:94 20:96 50:97.5 100:97"),
        Column("night_w", "Draw at night", "W", hint="empty: 1 W, an estimate"),
        Column("trackers", "Trackers", needed=True, hint="alike ones; others by a JSON file"),
        Column("v_min_v", "Tracks from", "V", needed=True),
        Column("v_max_v", "Tracks to", "V", needed=True),
        Column("i_max_a", "Operating current by tracker", "A", needed=True),
        Column("isc_max_a", "Short-circuit current by tracker", "A"),
        Column("inputs", "Terminal pairs by tracker", hint="empty: 1"),
        Column("battery_ready", "Takes a battery on its DC side", hint="yes or no"),
        _PRICE,
    ),
    SheetKind.OPTIMIZER: (
        Column("name", "Maker’s name and type", needed=True),
        Column("sort", "System or add-on", needed=True, hint="system or add-on"),
        Column("p_max_w", "Largest module", "W", needed=True),
        Column("v_in_min_v", "Lowest input", "V", needed=True),
        Column("v_in_max_v", "Highest input", "V", needed=True),
        Column("i_in_max_a", "Largest input current", "A"),
        Column("v_out_max_v", "Highest output", "V", needed=True),
        Column("i_out_max_a", "Largest output current", "A", needed=True),
        Column("efficiency", "Efficiency", "%", needed=True),
        Column("string_v", "Voltage the inverter holds", "V"),
        Column("least_in_string", "Fewest in a string"),
        Column("most_in_string", "Most in a string"),
        Column("most_string_w", "Most watts of a string", "W"),
        Column("safe_v", "Left by each when off", "V"),
        _PRICE,
    ),
    SheetKind.MICROINVERTER: (
        Column("name", "Maker’s name and type", needed=True),
        Column("inputs", "Modules on one", needed=True),
        Column("p_ac_w", "The most it gives", "W", needed=True),
        Column("va_continuous", "Without end, for its branch", "VA"),
        Column("ac_v", "AC voltage", "V", hint="empty: 240, an estimate"),
        Column("v_min_v", "Tracks from", "V", needed=True),
        Column("v_max_v", "Tracks to", "V", needed=True),
        Column("v_start_v", "Start voltage", "V", hint="empty: the lowest it tracks, an estimate"),
        Column("v_dc_max_v", "Highest input", "V", needed=True),
        Column("i_max_a", "Operating current by input", "A", needed=True),
        Column("isc_max_a", "Short-circuit current by input", "A"),
        Column("efficiency", "Efficiency", hint="96.5 or 10:93 20:95 50:96.5 100:96"),
        Column("night_w", "Draw at night", "W", hint="empty: 0.05 W, an estimate"),
        Column("most_on_branch", "Most on a branch, by its listing"),
        Column("module_least_w", "Smallest module", "W"),
        Column("module_most_w", "Largest module", "W"),
        Column("cells", "Cells of its modules", hint="in series: 54 60 66"),
        Column("trunk_pitch_m", "Trunk connectors apart", "m"),
        Column("trunk_ohm_per_m", "Trunk, each metre one way", "ohm/m"),
        _PRICE,
    ),
}
_NUMBER = r"[-+−]?\d{1,15}(?:[.,]\d{1,15})?"
_WITH_UNIT = re.compile(rf"({_NUMBER})\s{{0,9}}([^\d\s].*)?")
LONGEST_CELL = 300
FLAT_AT = (0.1, 0.5, 1.0)
# How many of a quantity's own unit a coefficient's unit is.
_ABSOLUTE = {"v": 1.0, "mv": 1e-3, "a": 1.0, "ma": 1e-3, "w": 1.0}
_OWN = {"beta_voc": ("v", "mv"), "alpha_isc": ("a", "ma"), "gamma_pmp": ("w",)}


def sheet_from(kind: SheetKind, texts: Mapping[str, str], sheet_id: str) -> AnySheet:
    """Return the datasheet of a row of texts.

    Raises
    ------
    MissingDatum, NotUnderstood
        Naming the column that lacks a figure or is not one.
    """
    row = _Row(kind, texts)
    match kind:
        case SheetKind.MODULE:
            return _module(row, sheet_id)
        case SheetKind.INVERTER:
            return _inverter(row, sheet_id)
        case SheetKind.OPTIMIZER:
            return _optimizer(row, sheet_id)
        case SheetKind.MICROINVERTER:
            return _microinverter(row, sheet_id)


class _Row:
    """The texts of a row, read by column; notes which values it had to work out or estimate."""

    def __init__(self, kind: SheetKind, texts: Mapping[str, str]) -> None:
        self.columns = {c.name: c for c in COLUMNS[kind]}
        self.texts = {name: text.strip() for name, text in texts.items()}
        for name, text in self.texts.items():
            if len(text) > LONGEST_CELL:
                label = self.columns[name].label if name in self.columns else name
                raise NotUnderstood(label, text, f"at most {LONGEST_CELL} characters")
        self.origins: list[ValueOrigin] = []
        self.name = self.texts.get("name", "")
        self.provenance = self.texts.get("source", "") or "typed from its datasheet"

    def text(self, name: str) -> str:
        found = self.texts.get(name, "")
        if not found and self.columns[name].needed:
            owner = self.name or "This datasheet"
            raise MissingDatum(self.columns[name].label, owner, "Copy it from the datasheet.")
        return found

    def note(self, field: str, origin: Origin) -> None:
        self.origins.append(ValueOrigin(field, origin))

    def maybe(self, name: str) -> float | None:
        column, text = self.columns[name], self.text(name)
        if not text:
            return None
        found = _WITH_UNIT.fullmatch(text)
        unit = (found[2] or "").strip().lower() if found else ""
        if not found or unit not in ("", column.unit.lower()):
            told = f"a number{f' in {column.unit}' if column.unit else ''}"
            raise NotUnderstood(column.label, text, told)
        return _float(found[1])

    def number(self, name: str) -> float:
        value = self.maybe(name)
        assert value is not None, name
        return value

    def share(self, name: str) -> float | None:
        value = self.maybe(name)
        return None if value is None else value / 100

    def whole(self, name: str, estimate: int | None = None) -> int | None:
        value = self.maybe(name)
        if value is None:
            return estimate
        if value != int(value):
            raise NotUnderstood(self.columns[name].label, self.text(name), "a whole number")
        return int(value)

    def estimated(self, name: str, field: str, estimate: float) -> float:
        value = self.maybe(name)
        if value is not None:
            return value
        self.note(field, Origin.ESTIMATED)
        return estimate

    def yes(self, name: str) -> bool | None:
        text = self.text(name).lower()
        if text in ("yes", "y", "true", "1"):
            return True
        if text in ("no", "n", "false", "0"):
            return False
        if text:
            raise NotUnderstood(self.columns[name].label, text, "yes or no")
        return None

    def cents(self, name: str) -> int | None:
        value = self.maybe(name)
        return None if value is None else round(value * 100)

    def coefficient(self, name: str, field: str, whole: float) -> float | None:
        """Return a coefficient as a fraction per °C; an absolute one over its quantity at STC."""
        column, text = self.columns[name], self.text(name)
        if not text:
            return None
        found = _WITH_UNIT.fullmatch(text)
        unit = _over_degree((found[2] or "").lower()) if found else ""
        if found and unit == "%":
            return _float(found[1]) / 100
        if found and unit in _OWN[name] and whole > 0:
            self.note(field, Origin.COMPUTED)
            return _float(found[1]) * _ABSOLUTE[unit] / whole
        expected = "a number " + column.hint.replace("with its unit: ", "in ")
        raise NotUnderstood(column.label, text, expected)

    def efficiency(self) -> tuple[EfficiencyPoint, ...]:
        """Return efficiency by load: ``97.2`` for all loads, or ``10:94 50:97.5 100:97``."""
        text, label = self.text("efficiency"), self.columns["efficiency"].label
        if not text:
            return ()
        points = []
        for part in re.split(r"[\s;]+", text.replace("%", "")):
            load, colon, percent = part.partition(":")
            if not re.fullmatch(_NUMBER, percent if colon else load):
                raise NotUnderstood(label, text, "per cent such as 97.2 or 10:94 50:97.5 100:97")
            value = _float(percent if colon else load) / 100
            if colon:
                points.append(EfficiencyPoint(_float(load) / 100, value))
                continue
            # One figure for every load: a sheet's best, which a year flatters a little.
            self.note("efficiency", Origin.ESTIMATED)
            points += [EfficiencyPoint(at, value) for at in FLAT_AT]
        return tuple(points)


def _float(text: str) -> float:
    return float(text.replace(",", ".").replace("−", "-"))


def _over_degree(unit: str) -> str:
    """Return what a coefficient's unit has above its stroke: ``mv`` of ``mV / °C``."""
    above, _, below = unit.partition("/")
    return above.rstrip() if below.strip() in ("k", "°c", "°", "c", "degc") else unit


def _module(row: _Row, sheet_id: str) -> ModuleSheet:
    voc, isc = row.number("voc_v"), row.number("isc_a")
    vmp, imp = row.number("vmp_v"), row.number("imp_a")
    p_max = row.maybe("p_max_w")
    if p_max is None:
        p_max = vmp * imp
        row.note("p_max_w", Origin.COMPUTED)
    cells, diodes = row.whole("cells_in_series"), row.whole("bypass_diodes")
    if diodes is None:
        diodes = 3
        row.note("bypass_diodes", Origin.ESTIMATED)
    return ModuleSheet(
        id=ModuleId(sheet_id),
        name=row.text("name"),
        provenance=row.provenance,
        p_max_w=p_max,
        voc_v=voc,
        isc_a=isc,
        vmp_v=vmp,
        imp_a=imp,
        beta_voc_frac_per_degc=row.coefficient("beta_voc", "beta_voc_frac_per_degc", voc),
        alpha_isc_frac_per_degc=row.coefficient("alpha_isc", "alpha_isc_frac_per_degc", isc),
        gamma_pmp_frac_per_degc=row.coefficient("gamma_pmp", "gamma_pmp_frac_per_degc", p_max),
        cells_in_series=cells or 0,
        bypass_diodes=diodes,
        half_cut=row.yes("half_cut") or False,
        long_m=row.number("long_mm") / 1000,
        short_m=row.number("short_mm") / 1000,
        mass_kg=row.number("mass_kg"),
        max_system_v=row.maybe("max_system_v"),
        max_series_fuse_a=row.maybe("max_series_fuse_a"),
        bifacial_frac=row.share("bifaciality"),
        first_year_loss_frac=row.share("first_year_loss"),
        yearly_loss_frac=row.share("yearly_loss"),
        lead_m=row.maybe("lead_m"),
        nominal=_nominal(row),
        price_cents=row.cents("price"),
        freight_cents=row.cents("freight"),
        origins=tuple(row.origins),
    )


def _nominal(row: _Row) -> NominalOperating | None:
    watts, cell = row.maybe("nominal_w"), row.maybe("nominal_cell_degc")
    typed = row.text("nominal_conditions")
    if watts is None and cell is None:
        return None
    conditions: tuple[float | None, ...] = (None, None, None)
    if typed:
        found = [_float(n) for n in re.findall(_NUMBER, typed)]
        if len(found) != 3:
            label = row.columns["nominal_conditions"].label
            raise NotUnderstood(label, typed, "light, air and wind such as 800 / 20 / 1")
        conditions = tuple(found)
    return NominalOperating(watts, cell, *conditions)


def _inverter(row: _Row, sheet_id: str) -> InverterSheet:
    low = row.number("v_min_v")
    tracker = TrackerSheet(
        v_min_v=low,
        v_max_v=row.number("v_max_v"),
        i_max_a=row.number("i_max_a"),
        isc_max_a=row.maybe("isc_max_a"),
        inputs=row.whole("inputs", 1) or 0,
    )
    return InverterSheet(
        id=InverterId(sheet_id),
        name=row.text("name"),
        provenance=row.provenance,
        p_ac_w=row.number("p_ac_w"),
        p_dc_max_w=row.maybe("p_dc_max_w"),
        v_dc_max_v=row.number("v_dc_max_v"),
        v_start_v=row.estimated("v_start_v", "v_start_v", low),
        night_w=row.estimated("night_w", "night_w", 1.0),
        phases=row.whole("phases", 1) or 1,
        efficiency=row.efficiency(),
        trackers=(tracker,) * min(row.whole("trackers") or 0, MOST_LINES_ON_SHEET + 1),
        battery_ready=row.yes("battery_ready"),
        price_cents=row.cents("price"),
        origins=tuple(row.origins),
    )


def _optimizer(row: _Row, sheet_id: str) -> OptimizerSheet:
    sort = row.text("sort").lower()
    if sort not in set(OptimizerKind):
        raise NotUnderstood(row.columns["sort"].label, sort, "system or add-on")
    return OptimizerSheet(
        id=OptimizerId(sheet_id),
        name=row.text("name"),
        provenance=row.provenance,
        kind=OptimizerKind(sort),
        p_max_w=row.number("p_max_w"),
        v_in_min_v=row.number("v_in_min_v"),
        v_in_max_v=row.number("v_in_max_v"),
        v_out_max_v=row.number("v_out_max_v"),
        i_out_max_a=row.number("i_out_max_a"),
        efficiency_frac=row.number("efficiency") / 100,
        string_v=row.maybe("string_v"),
        i_in_max_a=row.maybe("i_in_max_a"),
        least_in_string=row.whole("least_in_string"),
        most_in_string=row.whole("most_in_string"),
        most_string_w=row.maybe("most_string_w"),
        safe_v=row.maybe("safe_v"),
        price_cents=row.cents("price"),
        origins=tuple(row.origins),
    )


def _microinverter(row: _Row, sheet_id: str) -> MicroinverterSheet:
    low, cells = row.number("v_min_v"), row.text("cells")
    if cells and not re.fullmatch(r"\d{1,4}(?:[\s,;/]{1,3}\d{1,4})*", cells):
        raise NotUnderstood(row.columns["cells"].label, cells, "counts such as 54 60 66")
    return MicroinverterSheet(
        id=MicroinverterId(sheet_id),
        name=row.text("name"),
        provenance=row.provenance,
        inputs=row.whole("inputs") or 0,
        p_ac_w=row.number("p_ac_w"),
        v_min_v=low,
        v_max_v=row.number("v_max_v"),
        v_start_v=row.estimated("v_start_v", "v_start_v", low),
        v_dc_max_v=row.number("v_dc_max_v"),
        i_max_a=row.number("i_max_a"),
        night_w=row.estimated("night_w", "night_w", 0.05),
        efficiency=row.efficiency(),
        va_continuous=row.maybe("va_continuous"),
        ac_v=row.estimated("ac_v", "ac_v", 240.0),
        isc_max_a=row.maybe("isc_max_a"),
        most_on_branch=row.whole("most_on_branch"),
        module_least_w=row.maybe("module_least_w"),
        module_most_w=row.maybe("module_most_w"),
        trunk_pitch_m=row.maybe("trunk_pitch_m"),
        trunk_ohm_per_m=row.maybe("trunk_ohm_per_m"),
        cells=tuple(int(n) for n in re.findall(r"\d+", cells)),
        price_cents=row.cents("price"),
        origins=tuple(row.origins),
    )
