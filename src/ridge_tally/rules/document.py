"""What must hold inside a job document before anything is computed from it."""

from collections.abc import Iterable

from ridge_tally.core.equipment import AnySheet
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.document import (
    Job,
    Site,
    alike_but_options,
)
from ridge_tally.core.survey.possible import require_possible
from ridge_tally.rules.bounds import require_bounded
from ridge_tally.rules.brief.document import require_sound_brief
from ridge_tally.rules.build.typed_limits import require_sound_loads
from ridge_tally.rules.code import require_own_rules
from ridge_tally.rules.distinct import require_distinct
from ridge_tally.rules.equipment.sheet import require_sheet
from ridge_tally.rules.loading.bench_document import require_sound_bench
from ridge_tally.rules.money.document import require_sound_money
from ridge_tally.rules.option_document import require_name, require_sound_option
from ridge_tally.rules.proving.document import require_sound_proving
from ridge_tally.rules.ranges import Range, require_ranges
from ridge_tally.rules.sheets.document import require_sound_paperwork
from ridge_tally.rules.sun.weather_document import require_sound_weather
from ridge_tally.rules.survey.document import require_sound_survey


def require_sound(job: Job, before: Job | None = None) -> None:
    """Raise on the first thing in the document that contradicts itself.

    Parameters
    ----------
    before : Job, optional
        The document it was made from, sound already: parts it shares are not looked at again.

    Raises
    ------
    OutOfRange, BadGeometry, MissingDatum, NotFound
        Naming the field, the value and what to do.
    """
    require_bounded(job, before)
    require_name(job.name)
    if before is None or job.money is not before.money:
        require_sound_money(job.money)
    if before is None or job.paperwork is not before.paperwork:
        require_sound_paperwork(job.paperwork)
    if before is None or job.proving is not before.proving:
        require_sound_proving(job)
    alike = before is not None and alike_but_options(job, before)
    if not alike:
        _require_sound_site(job)
        require_sound_loads(job.design_loads)
    if not job.options:
        raise MissingDatum("option", f"The job “{job.name}”", "A job holds at least one option.")
    require_distinct("options", [o.id for o in job.options])
    sound = {id(o) for o in before.options} if before is not None and alike else set()
    for option in job.options:
        if id(option) not in sound:
            require_sound_option(job, option)


def _require_sound_site(job: Job) -> None:
    """Raise on the first thing that contradicts itself in what the options share."""
    _require_site(job.site)
    require_sound_brief(job)
    require_sound_survey(job)
    require_sound_weather(job)
    require_sound_bench(job.bench)
    for plane in job.survey.planes:
        require_name(plane.name)
        require_possible(plane)
        require_distinct(f"obstructions of {plane.name}", [o.id for o in plane.obstructions])
    require_distinct("roof planes", [p.id for p in job.survey.planes])
    there = job.equipment
    sheets: tuple[AnySheet, ...] = (*there.modules, *there.inverters)
    for sheet in (*sheets, *there.optimizers, *there.microinverters, *there.mountings):
        require_sheet(sheet)


def _require_site(site: Site) -> None:
    ranges: Iterable[Range] = (
        ("Latitude in degrees", site.latitude_deg, -66.0, 66.0),
        ("Longitude in degrees", site.longitude_deg, -180.0, 180.0),
        ("Elevation in metres", site.elevation_m, -430.0, 6000.0),
        ("Hours from UTC", site.utc_offset_h, -12.0, 14.0),
        ("Coldest air in °C", site.coldest.value_degc, -60.0, 25.0),
        ("Record low in °C", site.record_low.value_degc, -70.0, 25.0),
        ("Hottest air in °C", site.hottest.value_degc, 5.0, 55.0),
    )
    require_ranges(ranges)
    require_own_rules(site.own_rules)
