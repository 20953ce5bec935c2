"""Datasheets of modules and inverters: values only, each optional number may be missing.

A number that is ``None`` was not on the datasheet.  Rules that need it answer
"not checked"; nothing is assumed in its place.
"""

from dataclasses import dataclass
from typing import NewType

ModuleId = NewType("ModuleId", str)
InverterId = NewType("InverterId", str)


@dataclass(frozen=True, slots=True)
class ModuleSheet:
    """A module's datasheet at standard test conditions (1000 W/m², 25 °C cell, AM 1.5)."""

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


@dataclass(frozen=True, slots=True)
class TrackerSheet:
    """One MPPT input of an inverter."""

    v_min_v: float
    v_max_v: float
    i_max_a: float
    isc_max_a: float | None
    inputs: int


@dataclass(frozen=True, slots=True)
class EfficiencyPoint:
    """Conversion efficiency at one load, both as fractions."""

    load_frac: float
    efficiency_frac: float


@dataclass(frozen=True, slots=True)
class InverterSheet:
    """A grid-tied string inverter's datasheet."""

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
