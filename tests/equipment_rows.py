"""Datasheets as rows of texts, invented, for tests of forms, tables and the shelf."""

from ridge_tally.formats.equipment_fields import COLUMNS, SheetKind

MODULE = {
    "name": "Hill 410", "p_max_w": "410", "voc_v": "37.6", "isc_a": "13.9", "vmp_v": "31.4",
    "imp_a": "13.06", "beta_voc": "-0.26 %/K", "alpha_isc": "0.05 %/K", "gamma_pmp": "-0.34 %/K",
    "cells_in_series": "54", "long_mm": "1722", "short_mm": "1134", "mass_kg": "21.3",
}  # fmt: skip
INVERTER = {
    "name": "Hill 5", "p_ac_w": "5000", "v_dc_max_v": "600", "trackers": "2", "v_min_v": "90",
    "v_max_v": "520", "i_max_a": "16", "efficiency": "97.4",
}  # fmt: skip
OPTIMIZER = {
    "name": "Hill opt", "sort": "system", "p_max_w": "500", "v_in_min_v": "10",
    "v_in_max_v": "60", "v_out_max_v": "60", "i_out_max_a": "15", "efficiency": "99",
    "string_v": "380", "least_in_string": "8", "most_in_string": "25",
}  # fmt: skip
MICRO = {
    "name": "Hill micro", "inputs": "2", "p_ac_w": "700", "v_min_v": "22", "v_max_v": "48",
    "v_dc_max_v": "60", "i_max_a": "14", "cells": "54 60 66", "va_continuous": "690 VA",
}  # fmt: skip

MOUNTING = {
    "name": "Hill rail", "base": "rafter", "coverings": "shingle tile", "rails": "two",
    "stock": "4267:52.00 3300", "spans": "42/1000/field:1800 42/1000/edge:1200", "cantilever": "33",
}  # fmt: skip


def table(*rows: dict[str, str], kind: SheetKind = SheetKind.MODULE) -> str:
    """A CSV table of some rows of a kind."""
    names = [c.name for c in COLUMNS[kind]]
    lines = [",".join(row.get(n, "") for n in names) for row in rows]
    return "\n".join((",".join(names), *lines))
