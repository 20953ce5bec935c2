"""Datasheets of modules and inverters, and all kinds of them: values only, each optional number may be missing.

A number that is ``None`` was not on the datasheet.  Rules that need it answer
"not checked"; nothing is assumed in its place.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import chain
from typing import NewType, TypeVar

from ridge_tally.core.errors import NotFound
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.core.sheet_origins import Origin, ValueOrigin

INVENTED = "Invented sample"

ModuleId = NewType("ModuleId", str)
InverterId = NewType("InverterId", str)
OptimizerId = NewType("OptimizerId", str)
MicroinverterId = NewType("MicroinverterId", str)


@dataclass(frozen=True, slots=True)
class NominalOperating:
    """What a module gives in the field, where its sheet says so: watts and cell temperature.

    Neither means anything without the conditions: usually 800 W/m², 20 °C air, 1 m/s of wind.
    """

    p_w: float | None = None
    cell_degc: float | None = None
    light_w_per_m2: float | None = None
    air_degc: float | None = None
    wind_m_per_s: float | None = None


@dataclass(frozen=True, slots=True)
class ModuleSheet:
    """A module's datasheet at standard test conditions (1000 W/m², 25 °C cell, AM 1.5).

    ``first_year_loss_frac`` and ``yearly_loss_frac`` are what its warranty grants: the share of
    the rating lost in the first year, and in each later one.  ``lead_m``: how long each of its
    two cables is.  ``frame_m``: how high its frame is.  ``price_cents`` and ``freight_cents`` for one.
    """

    id: ModuleId
    name: str
    provenance: str
    p_max_w: float
    voc_v: float
    isc_a: float
    vmp_v: float
    imp_a: float
    beta_voc_frac_per_degc: float | None
    alpha_isc_frac_per_degc: float | None
    gamma_pmp_frac_per_degc: float | None
    cells_in_series: int
    bypass_diodes: int
    half_cut: bool
    long_m: float
    short_m: float
    mass_kg: float
    max_system_v: float | None
    max_series_fuse_a: float | None
    all_black: bool | None = None
    bifacial_frac: float | None = None
    first_year_loss_frac: float | None = None
    yearly_loss_frac: float | None = None
    lead_m: float | None = None
    nominal: NominalOperating | None = None
    price_cents: int | None = None
    freight_cents: int | None = None
    gamma_vmp_frac_per_degc: float | None = None
    frame_m: float | None = None
    origins: tuple[ValueOrigin, ...] = ()


def module_area_m2(sheet: ModuleSheet) -> float:
    """Return the area of a module."""
    return sheet.long_m * sheet.short_m


@dataclass(frozen=True, slots=True)
class TrackerSheet:
    """One MPPT input of an inverter; ``p_max_w`` where its sheet limits watts by input."""

    v_min_v: float
    v_max_v: float
    i_max_a: float
    isc_max_a: float | None
    inputs: int
    p_max_w: float | None = None


@dataclass(frozen=True, slots=True)
class EfficiencyPoint:
    """Conversion efficiency at one load, both as fractions; ``dc_v`` where the sheet names it."""

    load_frac: float
    efficiency_frac: float
    dc_v: float | None = None


@dataclass(frozen=True, slots=True)
class DeratingPoint:
    """The share of its AC rating an inverter gives without end at an air temperature."""

    air_degc: float
    power_frac: float


@dataclass(frozen=True, slots=True)
class Warming:
    """How far the cabinet stands above the air at the rating, and how fast it follows."""

    rise_at_rating_k: float
    lag_min: float


@dataclass(frozen=True, slots=True)
class InverterSheet:
    """A grid-tied string inverter's datasheet.

    ``bare_isc``: its short-circuit limit is meant for Isc without a factor.  ``arc_fault`` and
    ``ground_fault``: it detects and interrupts them.  ``full_power_to_m``: how high it gives its rating.
    ``dc_only``: a generic DC input, which makes no AC; ``p_ac_w`` is then the DC watts it takes.
    ``ac_a``: the most it gives a phase without end; ``breaker_most_a``: the largest breaker it may stand behind.
    """

    id: InverterId
    name: str
    provenance: str
    p_ac_w: float
    p_dc_max_w: float | None
    v_dc_max_v: float
    v_start_v: float
    night_w: float
    phases: int
    efficiency: tuple[EfficiencyPoint, ...]
    trackers: tuple[TrackerSheet, ...]
    battery_ready: bool | None = None
    backup_ready: bool | None = None
    derating: tuple[DeratingPoint, ...] = ()
    warming: Warming | None = None
    bare_isc: bool = False
    arc_fault: bool | None = None
    ground_fault: bool | None = None
    full_power_to_m: float | None = None
    price_cents: int | None = None
    origins: tuple[ValueOrigin, ...] = ()
    dc_only: bool = False
    ac_a: float | None = None
    breaker_most_a: float | None = None


class OptimizerKind(StrEnum):
    """On every module with an inverter that holds the string's voltage, or on a few alone."""

    SYSTEM = "system"
    ADD_ON = "add-on"


@dataclass(frozen=True, slots=True)
class OptimizerSheet:
    """A converter at one module.

    ``string_v``: the voltage the inverter holds a string of them at; ``least_in_string``,
    ``most_in_string`` and ``most_string_w`` what a string of them may be; a system's alone.
    ``safe_v``: what each leaves on the string when shut down.
    """

    id: OptimizerId
    name: str
    provenance: str
    kind: OptimizerKind
    p_max_w: float
    v_in_min_v: float
    v_in_max_v: float
    v_out_max_v: float
    i_out_max_a: float
    efficiency_frac: float
    string_v: float | None = None
    i_in_max_a: float | None = None
    least_in_string: int | None = None
    most_in_string: int | None = None
    most_string_w: float | None = None
    safe_v: float | None = None
    price_cents: int | None = None
    origins: tuple[ValueOrigin, ...] = ()


@dataclass(frozen=True, slots=True)
class MicroinverterSheet:
    """An inverter of one module, or of a few that each have their own tracker in it.

    ``p_ac_w`` is the most it gives: where it clips; ``va_continuous`` what its branch carries
    without end at ``ac_v``.  ``module_least_w`` to ``module_most_w``: the modules it is meant for.
    The trunk cable has a connector each ``trunk_pitch_m`` and ``trunk_ohm_per_m`` one way.
    ``cells``: the counts of cells in series its modules may have; empty where its list is silent.
    """

    id: MicroinverterId
    name: str
    provenance: str
    inputs: int
    p_ac_w: float
    v_min_v: float
    v_max_v: float
    v_start_v: float
    v_dc_max_v: float
    i_max_a: float
    night_w: float
    efficiency: tuple[EfficiencyPoint, ...]
    derating: tuple[DeratingPoint, ...] = ()
    warming: Warming | None = None
    va_continuous: float | None = None
    ac_v: float = 240.0
    isc_max_a: float | None = None
    most_on_branch: int | None = None
    module_least_w: float | None = None
    module_most_w: float | None = None
    trunk_pitch_m: float | None = None
    trunk_ohm_per_m: float | None = None
    cells: tuple[int, ...] = ()
    price_cents: int | None = None
    origins: tuple[ValueOrigin, ...] = ()


# What is bought by the piece; a mounting system is bought by its parts.
Priced = ModuleSheet | InverterSheet | OptimizerSheet | MicroinverterSheet
AnySheet = Priced | MountingSheet
# Each kind of datasheet by its word, in the order of a shelf.
SHEETS: dict[str, type[AnySheet]] = {
    "module": ModuleSheet,
    "inverter": InverterSheet,
    "optimizer": OptimizerSheet,
    "microinverter": MicroinverterSheet,
    "mounting": MountingSheet,
}
Sheet = TypeVar(
    "Sheet", ModuleSheet, InverterSheet, OptimizerSheet, MicroinverterSheet, MountingSheet
)


Maker = TypeVar("Maker", bound="InverterSheet | MicroinverterSheet")


def of_size(maker: Maker, ac_w: float) -> Maker:
    """Return the datasheet as if it were rated at so many AC watts, its night draw with it."""
    return replace(maker, p_ac_w=ac_w, night_w=maker.night_w * ac_w / maker.p_ac_w)


def sheet_among(sheets: Iterable[Sheet], wanted: str, kind: str) -> Sheet:
    """Return the datasheet with that id; NotFound, naming the kind, if there is none."""
    for sheet in sheets:
        if sheet.id == wanted:
            return sheet
    raise NotFound(kind, wanted)


def with_renewed(sheets: Iterable[Sheet], sheet: Sheet) -> tuple[Sheet, ...]:
    """Return datasheets with one more, in the place of an older copy of it."""
    others = (s for s in sheets if s.id != sheet.id)
    return tuple(chain(others, (sheet,)))


def origin_of(sheet: AnySheet, field: str) -> Origin:
    """Return where a value of a datasheet comes from."""
    named = next((o.origin for o in sheet.origins if o.field == field), None)
    if named is not None:
        return named
    return Origin.SAMPLE if sheet.provenance.startswith(INVENTED) else Origin.DATASHEET


def kind_of(sheet: AnySheet) -> str:
    """Return the word for the kind of a datasheet: ``module``."""
    return next(kind for kind, cls in SHEETS.items() if isinstance(sheet, cls))
