"""Applying an edit to a job: a pure function from document to document.

Each edit is validated as a whole; a refused edit leaves the document as it was.
"""

from collections.abc import Iterable
from dataclasses import replace
from functools import reduce
from typing import Any, assert_never

from ridge_tally.catalogue.gazetteer import zone_at
from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.equipment import ModuleSheet, with_renewed
from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job import (
    array_edits,
    battery_edits,
    bench_edits,
    edits,
    household_edits,
    string_edits,
    survey_edits,
    weather_edits,
)
from ridge_tally.core.job.array import WAYS_TOLD, ways_of_array
from ridge_tally.core.job.document import (
    CodePack,
    DesignTemperature,
    Job,
    ModuleString,
    Option,
    module_on,
    option_of,
    plane_of,
    present_ids,
    with_option,
)
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.strings.plan import StringLimits, plan_planes
from ridge_tally.core.strings.thread import thread_strings
from ridge_tally.core.units import (
    parse_coordinates_deg,
    parse_length_m,
    parse_number,
    parse_temperature_degc,
)
from ridge_tally.rules.bounds import require_bounded
from ridge_tally.rules.design import Design, design_of
from ridge_tally.rules.document import require_sound
from ridge_tally.rules.string_limits import string_limits
from ridge_tally.services.array_editing import array_changed, array_of, filled, with_array
from ridge_tally.services.bill_editing import month_first
from ridge_tally.services.brief_editing import apply_brief_edit
from ridge_tally.services.code_editing import code_rule_changed, held_to
from ridge_tally.services.electronics_editing import electronics_changed
from ridge_tally.services.house_editing import battery_changed, bench_changed, household_changed
from ridge_tally.services.inverter_editing import inverters_changed, with_sheet
from ridge_tally.services.obstruction_editing import plane_parts_changed
from ridge_tally.services.outline_editing import outline_changed
from ridge_tally.services.plane_editing import planes_changed, with_true_azimuths
from ridge_tally.services.string_editing import string_changed
from ridge_tally.services.surroundings_editing import surroundings_changed
from ridge_tally.services.weather_editing import weather_changed
from ridge_tally.services.wiring_editing import wiring_changed
from ridge_tally.simulators.weather_service import climate

MOST_OPTIONS = 8
# The family of rules a country's code is of; elsewhere the international one is nearest.
CODE_PACKS = {
    "United States": CodePack.US,
    "Australia": CodePack.AU_NZ,
    "New Zealand": CodePack.AU_NZ,
    "United Kingdom": CodePack.UK,
}
SITE_NAMES = {
    edits.SiteField.ELEVATION: "Elevation",
    edits.SiteField.UTC_OFFSET: "Hours from UTC",
    edits.SiteField.SURVEY_DAY: "Day of the survey",
    edits.SiteField.COLDEST: "Coldest air",
    edits.SiteField.RECORD_LOW: "Record low",
    edits.SiteField.HOTTEST: "Hottest air",
}


def apply_edit(job: Job, edit: edits.Edit, shelf: Shelf) -> Job:
    """Return the job after the edit, its strings threaded again where they depend on it.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound
        Naming the field, the value and the remedy; the job given in is untouched.
    """
    require_bounded(edit)
    changed = _changed(job, edit, shelf)
    if changed.site != job.site:
        changed = with_true_azimuths(changed)
    rethreaded = replace(changed, options=tuple(thread_option(changed, o) for o in changed.options))
    require_sound(rethreaded, job)
    return rethreaded


def apply_edits(job: Job, steps: Iterable[edits.Edit], shelf: Shelf) -> Job:
    """Return the job after one edit after another; raises as ``apply_edit`` does."""
    return reduce(lambda made, step: apply_edit(made, step, shelf), steps, job)


def thread_option(job: Job, option: Option) -> Option:
    """Return the option with its strings planned and threaded anew, but for locked ones.

    A locked string keeps its order and its tracker, without modules that are gone; no other
    string is planned onto its tracker.
    """
    design = design_for(job, option)
    strings = _locked(option, len(design.trackers))
    wired = {m for s in strings for m in s.module_ids}
    free = {
        a.plane_id: tuple(m for m in a.modules if m.present and m.id not in wired)
        for a in option.arrays
    }
    free = {plane_id: modules for plane_id, modules in free.items() if modules}
    if free:
        taken = {s.tracker_number for s in strings}
        limits = [
            _with_room(string_limits(design, module_on(job, option, plane_id)), taken)
            for plane_id in free
        ]
        counts = tuple(len(modules) for modules in free.values())
        plans = plan_planes(counts, limits, option.series_wish)
        for modules, plan in zip(free.values(), plans, strict=True):
            strings += thread_strings(modules, plan, strings)
    # By tag, so that a string keeps its place and its colour whoever else is wired.
    ordered = sorted(strings, key=lambda s: (len(s.tag), s.tag))
    there = set(present_ids(option))
    fitted = tuple(m for m in option.electronics.fitted if m in there)
    electronics = replace(option.electronics, fitted=fitted)
    return replace(option, strings=tuple(ordered), electronics=electronics)


def _with_room(limits: StringLimits, taken: set[int]) -> StringLimits:
    """Return limits without the trackers that are taken."""
    room = tuple(
        0 if number in taken else most for number, most in enumerate(limits.strings_max, start=1)
    )
    return replace(limits, strings_max=room)


def _locked(option: Option, trackers: int) -> tuple[ModuleString, ...]:
    """Return the locked strings, without modules that are gone; none of trackers that are gone."""
    there = set(present_ids(option))
    kept = (
        replace(s, module_ids=tuple(m for m in s.module_ids if m in there))
        for s in option.strings
        if s.locked and s.tracker_number <= trackers
    )
    return tuple(s for s in kept if s.module_ids)


def design_for(job: Job, option: Option) -> Design:
    """Return the rules' shared numbers, with the climate's stand-in temperatures."""
    stand_in = climate(job.site.climate_id)
    return design_of(job, option, stand_in.coldest_degc, stand_in.hottest_degc)


def _changed(job: Job, edit: edits.Edit, shelf: Shelf) -> Job:  # noqa: PLR0911, PLR0912 - one arm an edit
    if isinstance(edit, array_edits.ArrayEdit):
        return array_changed(job, edit)
    if isinstance(edit, survey_edits.PlaneEdit):
        return planes_changed(job, edit)
    if isinstance(edit, survey_edits.OutlineEdit):
        return outline_changed(job, edit)
    if isinstance(edit, survey_edits.ObstructionEdit):
        return plane_parts_changed(job, edit)
    if isinstance(edit, survey_edits.SurroundingsEdit):
        return surroundings_changed(job, edit)
    if isinstance(edit, weather_edits.WeatherEdit):
        return weather_changed(job, edit)
    if isinstance(edit, string_edits.ThreadEdit):
        return string_changed(job, edit)
    if isinstance(edit, string_edits.InverterEdit):
        return inverters_changed(job, edit, shelf)
    if isinstance(edit, string_edits.ElectronicsEdit):
        return electronics_changed(job, edit, shelf)
    if isinstance(edit, string_edits.WiringEdit):
        return wiring_changed(job, edit)
    if isinstance(edit, household_edits.HouseholdEdit):
        return household_changed(job, edit)
    if isinstance(edit, battery_edits.BatteryEdit):
        return battery_changed(job, edit)
    if isinstance(edit, bench_edits.BenchEdit):
        return bench_changed(job, edit)
    match edit:
        case edits.SetSiteField():
            return _site_field(job, edit)
        case edits.SetColdSchool():
            return replace(job, site=replace(job.site, cold_school=edit.school))
        case edits.SetCodeRule():
            return code_rule_changed(job, edit)
        case edits.SetPlace():
            climate(edit.climate_id)
            site = replace(
                held_to(job.site, edit.code_pack),
                place=edit.place.strip(),
                climate_id=edit.climate_id,
                dwelling=edit.dwelling,
            )
            return replace(job, site=site)
        case edits.SetCoordinates():
            latitude, longitude = parse_coordinates_deg(edit.typed, "Latitude, longitude")
            return _moved_to(job, latitude, longitude)
        case edits.PickPlace():
            moved = _moved_to(job, edit.latitude_deg, edit.longitude_deg)
            # The list knows no elevations, and one of another place would be wrong in silence.
            country = edit.place.rsplit(", ", 1)[-1]
            pack = CODE_PACKS.get(country, CodePack.IEC)
            site = replace(held_to(moved.site, pack), place=edit.place.strip(), elevation_m=None)
            return replace(moved, site=site)
        case edits.RenameJob():
            return replace(job, name=edit.name.strip())
        case edits.SetUnit():
            return replace(job, unit=edit.unit)
        case edits.ChooseModule():
            return _with_module(job, edit, shelf)
        case edits.ChoosePlaneModule():
            return _with_plane_module(job, edit, shelf)
        case edits.ChooseInverter():
            option = option_of(job, edit.option_id)
            option = replace(option, inverter_id=edit.inverter_id, more_inverters=())
            return with_option(with_sheet(job, shelf.inverter(edit.inverter_id)), option)
        case edits.WishSeriesLength():
            option = option_of(job, edit.option_id)
            wish = edit.modules_in_series
            if wish is not None and not 1 <= wish <= 60:
                raise BadGeometry(
                    "Modules in series",
                    f"{wish} cannot be wired",
                    "Type 1 to 60, or leave it empty.",
                )
            return with_option(job, replace(option, series_wish=wish))
        case edits.TakeRemedy():
            return reduce(lambda made, step: _changed(made, step, shelf), edit.steps, job)
        case edits.CopyOption():
            return _copied(job, edit)
        case edits.RenameOption():
            option = replace(option_of(job, edit.option_id), name=edit.name.strip())
            return with_option(job, option)
        case edits.RemoveOption():
            return _without_option(job, edit.option_id)
        case _:
            return apply_brief_edit(job, edit, shelf)


def _moved_to(job: Job, latitude_deg: float, longitude_deg: float) -> Job:
    """Return the job at another position, in the standard time of its zone."""
    zone = zone_at(latitude_deg, longitude_deg)
    site = replace(
        job.site,
        latitude_deg=latitude_deg,
        longitude_deg=longitude_deg,
        time_zone=zone.name,
        utc_offset_h=zone.utc_offset_h,
    )
    return replace(job, site=site)


def _site_field(job: Job, edit: edits.SetSiteField) -> Job:
    kind, name, typed = edits.SiteField, SITE_NAMES[edit.field], edit.typed.strip()
    value: object
    match edit.field:
        case kind.COLDEST | kind.RECORD_LOW | kind.HOTTEST:
            degc = parse_temperature_degc(typed, name) if typed else None
            source = edit.source.strip() or "typed for this site"
            value = DesignTemperature(degc, source if degc is not None else "")
        case kind.ELEVATION:
            value = parse_length_m(typed, job.unit, name) if typed else None
        case kind.SURVEY_DAY:
            value = parse_day(typed, name, month_first=month_first(job)) if typed else None
        case kind.UTC_OFFSET:
            value = parse_number(typed, name, "a number such as -7")
        case _:
            assert_never(edit.field)
    attributes = {kind.ELEVATION: "elevation_m", kind.UTC_OFFSET: "utc_offset_h"}
    change: dict[str, Any] = {attributes.get(edit.field, edit.field.value): value}
    return replace(job, site=replace(job.site, **change))


def _with_module(job: Job, edit: edits.ChooseModule, shelf: Shelf) -> Job:
    """Take another module; planes with one of their own keep it."""
    old = option_of(job, edit.option_id)
    job = _with_sheet(job, shelf.module(edit.module_id))
    changed = with_option(job, replace(old, module_id=edit.module_id))
    planes = [a.plane_id for a in old.arrays if a.module_id is None]
    return _filled_again(job, changed, edit.option_id, planes)


def _with_plane_module(job: Job, edit: edits.ChoosePlaneModule, shelf: Shelf) -> Job:
    """Take another module on one plane."""
    if edit.module_id is not None:
        job = _with_sheet(job, shelf.module(edit.module_id))
    plane_of(job, edit.plane_id)
    option = option_of(job, edit.option_id)
    own = None if edit.module_id == option.module_id else edit.module_id
    array = replace(array_of(option, edit.plane_id), module_id=own)
    changed = with_option(job, with_array(option, array))
    return _filled_again(job, changed, option.id, [edit.plane_id])


def _with_sheet(job: Job, module: ModuleSheet) -> Job:
    modules = with_renewed(job.equipment.modules, module)
    return replace(job, equipment=replace(job.equipment, modules=modules))


def _filled_again(job: Job, changed: Job, option_id: OptionId, planes: list[PlaneId]) -> Job:
    """Return the changed job, planes filled anew whose modules are of another size: every place
    depends on it."""
    before, after = option_of(job, option_id), option_of(changed, option_id)
    for plane_id in planes:
        old, new = module_on(job, before, plane_id), module_on(changed, after, plane_id)
        array = array_of(before, plane_id)
        if array.modules and (old.long_m, old.short_m) != (new.long_m, new.short_m):
            changed = filled(changed, option_id, plane_id, ways_of_array(array))
    return changed


def _copied(job: Job, edit: edits.CopyOption) -> Job:
    if len(job.options) >= MOST_OPTIONS:
        raise BadGeometry(
            "Options", f"a job holds at most {MOST_OPTIONS}", "Remove one, or duplicate the job."
        )
    taken = {o.id for o in job.options}
    new_id = next(c for c in "abcdefghijklmnop" if c not in taken)
    copy = replace(option_of(job, edit.option_id), id=OptionId(new_id), name=edit.name.strip())
    return replace(job, options=(*job.options, copy))


def _without_option(job: Job, option_id: OptionId) -> Job:
    option_of(job, option_id)
    if len(job.options) == 1:
        raise BadGeometry("Options", "the last one cannot be removed", "Delete the job instead.")
    return replace(job, options=tuple(o for o in job.options if o.id != option_id))


def describe_edit(edit: edits.Edit) -> str:  # noqa: PLR0911, PLR0912 - one return an edit
    """Return what the edit did, for the history: ``eave 12.19``."""
    match edit:
        case survey_edits.SetPlaneField():
            return f"{edit.field.value.replace('_', ' ')} {edit.typed}"
        case survey_edits.SetReading():
            return f"{edit.reading.value} {'–'.join(str(i + 1) for i in edit.at)} {edit.typed}"
        case survey_edits.SetObstructionField():
            return f"obstruction {edit.field.value} {edit.typed}"
        case edits.SetSiteField():
            return f"{SITE_NAMES[edit.field].lower()} {edit.typed}"
        case weather_edits.SetMonthly():
            return f"{edit.quantity.value.replace('_', ' ')} {edit.typed}"
        case weather_edits.UseWeatherFile():
            return f"weather of {edit.file.place}"
        case household_edits.UseLoadFile() | bench_edits.UsePowerFile():
            return f"{edit.kind.replace('-', ' ')} {edit.file.file}"
        case battery_edits.SetBattery():
            return f"battery {edit.usable} kWh"
        case array_edits.FillPlane():
            return f"fill {WAYS_TOLD[edit.ways]}"
        case array_edits.LayModules():
            return f"lay {len(edit.places)} module(s)"
        case edits.TakeRemedy():
            return edit.told
        case array_edits.ToggleModules() | array_edits.MoveModules() | array_edits.TurnModules():
            return f"{edit.kind.split('-')[0]} {len(edit.module_ids)} module(s)"
        case _:
            return f"{edit.kind.replace('-', ' ')} {getattr(edit, 'typed', '')}".strip()
