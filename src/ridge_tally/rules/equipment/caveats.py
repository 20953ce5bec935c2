"""What in a datasheet may be true but looks like a slip: told beside it, never refused."""

from dataclasses import dataclass

from ridge_tally.core.equipment import (
    AnySheet,
    InverterSheet,
    MicroinverterSheet,
    ModuleSheet,
    module_area_m2,
)
from ridge_tally.core.working import shown
from ridge_tally.rules import tables


def _usual(quantity: str) -> tuple[float, float]:
    """Return what a figure of crystalline modules usually lies between."""
    table = tables.load("datasheet-ranges")
    return table.number("low", quantity=quantity), table.number("high", quantity=quantity)


@dataclass(frozen=True, slots=True)
class SheetCaveat:
    """A figure that looks wrong, why, and what to look up."""

    field: str
    told: str


def caveats_of(sheet: AnySheet) -> tuple[SheetCaveat, ...]:
    """Return what to look up again in a datasheet that is otherwise sound."""
    if isinstance(sheet, ModuleSheet):
        return _of_module(sheet)
    if isinstance(sheet, InverterSheet | MicroinverterSheet):
        return _of_converter(sheet)
    return ()


def _of_module(sheet: ModuleSheet) -> tuple[SheetCaveat, ...]:
    found = list(_outside_usual(sheet))
    at_mpp_w = sheet.vmp_v * sheet.imp_a
    low, high = _usual("Vmp × Imp over Pmax")
    if not low <= at_mpp_w / sheet.p_max_w <= high:
        found.append(
            SheetCaveat(
                "p_max_w",
                f"Vmp × Imp is {shown(at_mpp_w, 4)} W, but Pmax reads {sheet.p_max_w:g} W: "
                "one of the three is from another column",
            )
        )
    nominal = sheet.nominal
    if nominal is not None:
        conditions = (nominal.light_w_per_m2, nominal.air_degc, nominal.wind_m_per_s)
        named = nominal.p_w is not None or nominal.cell_degc is not None
        if named and None in conditions:
            found.append(
                SheetCaveat(
                    "nominal",
                    "Nominal operating figures without their light, air and wind mean nothing: "
                    "copy the conditions too (usually 800 W/m², 20 °C, 1 m/s)",
                )
            )
    if sheet.max_series_fuse_a is not None and sheet.max_series_fuse_a < sheet.isc_a:
        found.append(
            SheetCaveat(
                "max_series_fuse_a",
                f"The largest series fuse, {sheet.max_series_fuse_a:g} A, is below Isc "
                f"({sheet.isc_a:g} A): it would blow in the sun",
            )
        )
    return tuple(found)


def _outside_usual(sheet: ModuleSheet) -> tuple[SheetCaveat, ...]:
    area = module_area_m2(sheet)
    told = [
        ("cells_in_series", "Voc by cell in series", sheet.voc_v / sheet.cells_in_series, "V",
         _usual("Voc by cell in series, V"), "half-cut modules have half their cells in series"),
        ("imp_a", "The fill factor", sheet.vmp_v * sheet.imp_a / sheet.voc_v / sheet.isc_a, "",
         _usual("fill factor"), "compare Voc, Isc, Vmp and Imp"),
        ("long_m", "The efficiency", sheet.p_max_w / 1000 / area, "",
         _usual("efficiency"), "compare Pmax and the sides"),
        ("mass_kg", "The weight by area", sheet.mass_kg / area, "kg/m²",
         _usual("kg/m²"), "compare weight and sides"),
    ]  # fmt: skip
    nominal = sheet.nominal
    if nominal is not None and nominal.p_w is not None:
        told.append(
            ("nominal", "Nominal operating watts over Pmax", nominal.p_w / sheet.p_max_w, "",
             _usual("nominal operating power over Pmax"), "they are given at 800 W/m², not at 1000")
        )  # fmt: skip
    return tuple(
        SheetCaveat(
            field,
            f"{what} comes to {shown(value, 3)}{f' {unit}' if unit else ''}, usually "
            f"{low:g} to {high:g}: {look}",
        )
        for field, what, value, unit, (low, high), look in told
        if not low <= value <= high
    )


def _of_converter(sheet: InverterSheet | MicroinverterSheet) -> tuple[SheetCaveat, ...]:
    found = []
    if isinstance(sheet, InverterSheet):
        for number, t in enumerate(sheet.trackers, start=1):
            if t.isc_max_a is not None and t.isc_max_a < t.i_max_a:
                found.append(
                    SheetCaveat(
                        "trackers",
                        f"Tracker {number}: the short-circuit limit ({t.isc_max_a:g} A) is below "
                        f"the operating one ({t.i_max_a:g} A): are the two swapped?",
                    )
                )
        if sheet.p_dc_max_w is not None and sheet.p_dc_max_w < sheet.p_ac_w:
            found.append(
                SheetCaveat(
                    "p_dc_max_w",
                    f"The maker's DC limit ({sheet.p_dc_max_w:g} W) is below the AC rating "
                    f"({sheet.p_ac_w:g} W): kilowatts for watts, or AC for DC?",
                )
            )
    if not sheet.efficiency:
        found.append(
            SheetCaveat("efficiency", "No efficiency is given: no year can be worked out with it")
        )
    return tuple(found)
