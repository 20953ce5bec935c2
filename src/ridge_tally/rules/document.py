"""What must hold inside a job document before anything is computed from it."""

from collections.abc import Iterable
from itertools import pairwise

from ridge_tally.core.equipment import InverterSheet, ModuleSheet
from ridge_tally.core.errors import MissingDatum, OutOfRange
from ridge_tally.core.job.document import (
    Job,
    Site,
)
from ridge_tally.core.survey.possible import require_possible
from ridge_tally.rules.brief_document import require_sound_brief
from ridge_tally.rules.code import require_own_rules
from ridge_tally.rules.distinct import require_distinct
from ridge_tally.rules.option_document import require_name, require_sound_option
from ridge_tally.rules.survey_document import require_sound_survey
from ridge_tally.rules.weather_document import require_sound_weather

# More is no ageing but a fault; loads are shares of the AC rating.
MOST_AGEING_FRAC, MOST_LOAD_FRAC = 0.1, 1.5
LONGEST_LEAD_M = 5.0


def require_sound(job: Job) -> None:
    """Raise on the first thing in the document that contradicts itself.

    Raises
    ------
    OutOfRange, BadGeometry, MissingDatum, NotFound
        Naming the field, the value and what to do.
    """
    require_name(job.name)
    _require_site(job.site)
    require_sound_brief(job)
    require_sound_survey(job)
    require_sound_weather(job)
    for plane in job.survey.planes:
        require_name(plane.name)
        require_possible(plane)
        require_distinct(f"obstructions of {plane.name}", [o.id for o in plane.obstructions])
    require_distinct("roof planes", [p.id for p in job.survey.planes])
    for module in job.equipment.modules:
        require_module_sheet(module)
    for inverter in job.equipment.inverters:
        require_inverter_sheet(inverter)
    if not job.options:
        raise MissingDatum("option", f"The job “{job.name}”", "A job holds at least one option.")
    require_distinct("options", [o.id for o in job.options])
    for option in job.options:
        require_sound_option(job, option)


def _require_site(site: Site) -> None:
    ranges: Iterable[tuple[str, float | None, float, float]] = (
        ("Latitude in degrees", site.latitude_deg, -66.0, 66.0),
        ("Longitude in degrees", site.longitude_deg, -180.0, 180.0),
        ("Elevation in metres", site.elevation_m, -430.0, 6000.0),
        ("Hours from UTC", site.utc_offset_h, -12.0, 14.0),
        ("Coldest air in °C", site.coldest.value_degc, -60.0, 25.0),
        ("Record low in °C", site.record_low.value_degc, -70.0, 25.0),
        ("Hottest air in °C", site.hottest.value_degc, 5.0, 55.0),
    )
    for field, value, low, high in ranges:
        if value is not None and not low <= value <= high:
            raise OutOfRange(field, value, f"between {low:g} and {high:g}")
    require_own_rules(site.own_rules)


def require_module_sheet(sheet: ModuleSheet) -> None:
    """Raise if a module's figures contradict each other.

    Raises
    ------
    OutOfRange
        Naming the module and the figure.
    """
    positive = ("p_max_w", "voc_v", "isc_a", "vmp_v", "imp_a", "long_m", "short_m", "mass_kg")
    _require_positive(sheet.name, sheet, positive)
    pairs = ((sheet.vmp_v, sheet.voc_v, "Vmp", "Voc"), (sheet.imp_a, sheet.isc_a, "Imp", "Isc"))
    for low, high, low_name, high_name in pairs:
        if low >= high:
            raise OutOfRange(f"{sheet.name}, {low_name}", low, f"below {high_name} ({high:g})")
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
                "Sheets print per cent: divide by 100.",
            )
    if sheet.lead_m is not None and not 0 < sheet.lead_m <= LONGEST_LEAD_M:
        raise OutOfRange(
            f"{sheet.name}, length of a lead in metres",
            sheet.lead_m,
            f"above 0, at most {LONGEST_LEAD_M:g}",
        )
    beta = sheet.beta_voc_frac_per_degc
    if beta is not None and not -0.006 <= beta < 0:
        raise OutOfRange(
            f"{sheet.name}, Voc coefficient as a fraction per °C",
            beta,
            "negative and no steeper than −0.006",
            "Sheets print %/°C (divide by 100) or V/°C (divide by Voc).",
        )


def require_inverter_sheet(sheet: InverterSheet) -> None:
    """Raise if an inverter's figures contradict each other.

    Raises
    ------
    OutOfRange, MissingDatum
        Naming the inverter and the figure.
    """
    _require_positive(sheet.name, sheet, ("p_ac_w", "v_dc_max_v", "v_start_v"))
    if not sheet.trackers:
        raise MissingDatum("tracker", sheet.name, "Give it at least one MPPT input.")
    for number, tracker in enumerate(sheet.trackers, start=1):
        _require_positive(f"{sheet.name}, tracker {number}", tracker, ("i_max_a", "inputs"))
        if not 0 < tracker.v_min_v < tracker.v_max_v <= sheet.v_dc_max_v:
            raise OutOfRange(
                f"{sheet.name}, tracker {number}, lowest tracking voltage",
                tracker.v_min_v,
                f"above 0 and below its highest ({tracker.v_max_v:g} V), both within the input limit",
            )

    for point in sheet.efficiency:
        if not 0 < point.efficiency_frac < 1:
            raise OutOfRange(
                f"{sheet.name}, efficiency at {point.load_frac * 100:g} % load, as a fraction",
                point.efficiency_frac,
                "above 0 and below 1",
                "No inverter gives more than it takes; sheets print per cent: divide by 100.",
            )
        if not 0 < point.load_frac <= MOST_LOAD_FRAC:
            raise OutOfRange(
                f"{sheet.name}, load of an efficiency, as a fraction",
                point.load_frac,
                f"above 0, at most {MOST_LOAD_FRAC:g}",
            )
    _require_sound_derating(sheet)


def _require_sound_derating(sheet: InverterSheet) -> None:
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
