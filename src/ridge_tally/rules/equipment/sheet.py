"""What must hold inside a datasheet before anything is computed from it."""

from collections.abc import Iterable
from itertools import pairwise
from typing import assert_never

from ridge_tally.core.equipment import (
    AnySheet,
    InverterSheet,
    MicroinverterSheet,
    ModuleSheet,
    OptimizerSheet,
)
from ridge_tally.core.errors import MissingDatum, NotUnderstood, OutOfRange
from ridge_tally.core.job.survey import Covering
from ridge_tally.core.mounting_sheet import MountBase, MountingSheet
from ridge_tally.rules.bounds import require_bounded, require_physical

# More is no ageing but a fault; loads are shares of the AC rating.
MOST_AGEING_FRAC, MOST_LOAD_FRAC = 0.1, 1.5
LONGEST_LEAD_M = 5.0
PER_CENT = "Sheets print per cent: divide by 100."


def require_sheet(sheet: AnySheet) -> None:
    """Raise if a datasheet's figures contradict each other.

    Raises
    ------
    OutOfRange, MissingDatum
        Naming the equipment, the figure, and often the likely slip.
    """
    if not sheet.name.strip():
        raise MissingDatum("name", "This datasheet", "Give it maker's name and type.")
    require_bounded(sheet)
    require_physical(sheet, sheet.name)
    for told in ("price_cents", "freight_cents"):
        cents = getattr(sheet, told, None)
        if cents is not None and cents < 0:
            raise OutOfRange(f"{sheet.name}, {told}", cents, "0 or more")
    match sheet:
        case ModuleSheet():
            _require_module(sheet)
        case InverterSheet():
            _require_inverter(sheet)
        case OptimizerSheet():
            _require_optimizer(sheet)
        case MicroinverterSheet():
            _require_microinverter(sheet)
        case MountingSheet():
            _require_mounting(sheet)
        case _:
            assert_never(sheet)


def _require_module(sheet: ModuleSheet) -> None:
    positive = ("p_max_w", "voc_v", "isc_a", "vmp_v", "imp_a", "long_m", "short_m", "mass_kg")
    _require_positive(sheet.name, sheet, positive)
    pairs = ((sheet.vmp_v, sheet.voc_v, "Vmp", "Voc"), (sheet.imp_a, sheet.isc_a, "Imp", "Isc"))
    for low, high, low_name, high_name in pairs:
        if low >= high:
            raise OutOfRange(
                f"{sheet.name}, {low_name}",
                low,
                f"below {high_name} ({high:g})",
                f"Are {low_name} and {high_name} swapped?",
            )
    if sheet.cells_in_series < 1 or sheet.bypass_diodes < 1 or sheet.short_m > sheet.long_m:
        raise OutOfRange(
            f"{sheet.name}, cells, diodes or sides", sheet.cells_in_series, "positive, long ≥ short"
        )
    if sheet.bifacial_frac is not None and not 0 < sheet.bifacial_frac <= 1:
        raise OutOfRange(
            f"{sheet.name}, bifaciality as a fraction", sheet.bifacial_frac, "above 0, at most 1"
        )
    for told, lost in (
        ("loss in the first year", sheet.first_year_loss_frac),
        ("loss in each later year", sheet.yearly_loss_frac),
    ):
        if lost is not None and not 0 <= lost <= MOST_AGEING_FRAC:
            raise OutOfRange(
                f"{sheet.name}, {told} as a fraction",
                lost,
                f"between 0 and {MOST_AGEING_FRAC:g}",
                PER_CENT,
            )
    if sheet.lead_m is not None and not 0 < sheet.lead_m <= LONGEST_LEAD_M:
        raise OutOfRange(
            f"{sheet.name}, length of a lead in metres",
            sheet.lead_m,
            f"above 0, at most {LONGEST_LEAD_M:g}",
        )
    for told, share, low, high in (
        ("Voc", sheet.beta_voc_frac_per_degc, -0.006, -1e-9),
        ("Pmax", sheet.gamma_pmp_frac_per_degc, -0.008, -1e-9),
        ("Isc", sheet.alpha_isc_frac_per_degc, -0.002, 0.002),
        ("Vmp", sheet.gamma_vmp_frac_per_degc, -0.008, -1e-9),
    ):
        if share is not None and not low <= share <= high:
            allowed = "negative, " if high < 0 else f"at most {high:g}, "
            raise OutOfRange(
                f"{sheet.name}, {told} coefficient as a fraction per °C",
                share,
                f"{allowed}no lower than {low:g}",
                f"Sheets print %/°C (divide by 100) or an absolute figure (divide by {told}).",
            )


GROUND = "ground"


def _require_mounting(sheet: MountingSheet) -> None:
    surfaces = {c.value for c in Covering} | {GROUND}
    for word in sheet.coverings:
        if word not in surfaces:
            raise NotUnderstood(f"{sheet.name}, roofs it is for", word, ", ".join(sorted(surfaces)))
    if (GROUND in sheet.coverings) != (sheet.base is MountBase.PILE):
        raise NotUnderstood(
            f"{sheet.name}, mounts go on", sheet.base, "pile for ground, and for ground alone"
        )
    if not sheet.stock:
        raise MissingDatum("length rails are sold at", sheet.name, "Give at least one.")
    longest = max(s.length_m for s in sheet.stock)
    if not 0 < sheet.least_piece_m <= longest:
        raise OutOfRange(
            f"{sheet.name}, shortest piece in metres",
            sheet.least_piece_m,
            f"above 0, at most its longest rail, {longest:g}",
        )
    for span in sheet.spans:
        _require_positive(f"{sheet.name}, spans", span, ("wind_m_per_s", "span_m"))
    if not 0 <= sheet.clamp_from_frac < sheet.clamp_to_frac <= 0.5:
        raise OutOfRange(
            f"{sheet.name}, clamped from as a fraction",
            sheet.clamp_from_frac,
            f"from 0, below what it is clamped to, {sheet.clamp_to_frac:g}, at most 0.5",
            PER_CENT,
        )
    if not 0 < sheet.splice_frac <= 0.5:
        raise OutOfRange(
            f"{sheet.name}, splice within as a fraction of the span",
            sheet.splice_frac,
            "above 0, at most 0.5",
            PER_CENT,
        )
    thin, thick = sheet.frame_least_m, sheet.frame_most_m
    if thin is not None and thick is not None and not 0 < thin <= thick:
        raise OutOfRange(
            f"{sheet.name}, thinnest frame in metres", thin, f"above 0, at most {thick:g}"
        )


def _require_inverter(sheet: InverterSheet) -> None:
    _require_positive(sheet.name, sheet, ("p_ac_w", "v_dc_max_v", "v_start_v"))
    if not sheet.trackers:
        raise MissingDatum("tracker", sheet.name, "Give it at least one MPPT input.")
    for number, tracker in enumerate(sheet.trackers, start=1):
        _require_positive(f"{sheet.name}, tracker {number}", tracker, ("i_max_a", "inputs"))
        owner = f"{sheet.name}, tracker {number}"
        _require_window(owner, tracker.v_min_v, tracker.v_max_v, sheet.v_dc_max_v)
    _require_efficiency(sheet)
    _require_sound_derating(sheet)


def _require_optimizer(sheet: OptimizerSheet) -> None:
    positive = ("p_max_w", "v_in_min_v", "v_out_max_v", "i_out_max_a")
    _require_positive(sheet.name, sheet, positive)
    _require_window(f"{sheet.name}, input", sheet.v_in_min_v, sheet.v_in_max_v, sheet.v_in_max_v)
    if not 0 < sheet.efficiency_frac < 1:
        raise OutOfRange(
            f"{sheet.name}, efficiency as a fraction",
            sheet.efficiency_frac,
            "above 0 and below 1",
            PER_CENT,
        )
    least, most = sheet.least_in_string, sheet.most_in_string
    if least is not None and most is not None and not 0 < least <= most:
        raise OutOfRange(
            f"{sheet.name}, fewest in a string", least, f"1 to {most}, the most in a string"
        )


def _require_microinverter(sheet: MicroinverterSheet) -> None:
    _require_positive(
        sheet.name, sheet, ("inputs", "p_ac_w", "ac_v", "i_max_a", "v_start_v", "v_dc_max_v")
    )
    _require_window(f"{sheet.name}, tracking", sheet.v_min_v, sheet.v_max_v, sheet.v_dc_max_v)
    least, most = sheet.module_least_w, sheet.module_most_w
    if least is not None and most is not None and not 0 < least <= most:
        raise OutOfRange(
            f"{sheet.name}, smallest module in watts", least, f"above 0, at most {most:g}"
        )
    _require_efficiency(sheet)
    _require_sound_derating(sheet)


def _require_window(owner: str, low_v: float, high_v: float, limit_v: float) -> None:
    if not 0 < low_v < high_v <= limit_v:
        raise OutOfRange(
            f"{owner}, lowest voltage",
            low_v,
            f"above 0 and below its highest ({high_v:g} V), both within the input limit "
            f"({limit_v:g} V)",
        )


def _require_efficiency(sheet: InverterSheet | MicroinverterSheet) -> None:
    for point in sheet.efficiency:
        if not 0 < point.efficiency_frac < 1:
            raise OutOfRange(
                f"{sheet.name}, efficiency at {point.load_frac * 100:g} % load, as a fraction",
                point.efficiency_frac,
                "above 0 and below 1",
                f"No inverter gives more than it takes; {PER_CENT[0].lower()}{PER_CENT[1:]}",
            )
        if not 0 < point.load_frac <= MOST_LOAD_FRAC:
            raise OutOfRange(
                f"{sheet.name}, load of an efficiency, as a fraction",
                point.load_frac,
                f"above 0, at most {MOST_LOAD_FRAC:g}",
            )


def _require_sound_derating(sheet: InverterSheet | MicroinverterSheet) -> None:
    points = sorted(sheet.derating, key=lambda p: p.air_degc)
    for cooler, hotter in pairwise(points):
        if hotter.power_frac > cooler.power_frac or hotter.air_degc == cooler.air_degc:
            raise OutOfRange(
                f"{sheet.name}, derated power at {hotter.air_degc:g} °C, as a fraction",
                hotter.power_frac,
                f"at most {cooler.power_frac:g}, what it gives at {cooler.air_degc:g} °C",
            )
    for point in points:
        if not 0 <= point.power_frac <= 1:
            raise OutOfRange(
                f"{sheet.name}, derated power at {point.air_degc:g} °C, as a fraction",
                point.power_frac,
                "between 0 and 1",
                "Sheets print per cent of the rating: divide by 100.",
            )
    if sheet.warming is not None:
        _require_positive(f"{sheet.name}, cabinet", sheet.warming, ("rise_at_rating_k", "lag_min"))


def _require_positive(owner: str, values: object, names: Iterable[str]) -> None:
    for name in names:
        value = getattr(values, name)
        if not value > 0:
            raise OutOfRange(f"{owner}, {name}", value, "more than 0")
