"""Applying an edit to a job: a pure function from document to document.

Each edit is validated as a whole; a refused edit leaves the document as it was.
"""

import math
import re
from dataclasses import dataclass, replace
from typing import Any, assert_never

from ridge_tally.catalogue.gazetteer import site_declination_deg, zone_at
from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.array.blockers import ground_of
from ridge_tally.core.array.fill import fill_rows
from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotFound, OutOfRange
from ridge_tally.core.job import edits
from ridge_tally.core.job.document import (
    ROUND_KINDS,
    CodePack,
    DesignTemperature,
    Job,
    ModuleString,
    Obstruction,
    ObstructionId,
    ObstructionKind,
    Option,
    OptionId,
    Orientation,
    PlacedId,
    PlacedModule,
    PlaneArray,
    PlaneId,
    RoofPlane,
    Taped,
    Trapezoid,
    module_sheet_of,
    option_of,
    plane_of,
    with_option,
    with_plane,
)
from ridge_tally.core.strings.plan import plan_planes
from ridge_tally.core.strings.thread import thread_strings
from ridge_tally.core.units import (
    LengthUnit,
    format_length,
    parse_coordinates_deg,
    parse_length_m,
    parse_number,
    parse_slope_deg,
    parse_temperature_degc,
    with_unit_written,
)
from ridge_tally.rules.array import footprint_of
from ridge_tally.rules.design import Design, design_of
from ridge_tally.rules.document import require_sound
from ridge_tally.rules.strings import string_limits
from ridge_tally.services.bill_editing import month_first
from ridge_tally.services.brief_editing import apply_brief_edit
from ridge_tally.services.plane_editing import planes_changed
from ridge_tally.simulators.weather_service import climate


@dataclass(frozen=True, slots=True)
class NewSize:
    """What a new obstruction starts as, to be typed over."""

    name: str
    width_m: float
    depth_m: float
    height_m: float
    clearance_m: float


# Usual sizes, common practice, no source; a flue runs hot and wants more room.
NEW_SIZES = {
    ObstructionKind.VENT: NewSize("Vent", 0.08, 0.08, 0.4, 0.1),
    ObstructionKind.FLUE: NewSize("Flue", 0.2, 0.2, 0.9, 0.5),
    ObstructionKind.DISH: NewSize("Dish", 0.6, 0.6, 0.6, 0.1),
    ObstructionKind.CHIMNEY: NewSize("Chimney", 0.6, 0.6, 1.0, 0.3),
    ObstructionKind.SKYLIGHT: NewSize("Skylight", 0.78, 1.18, 0.12, 0.15),
    ObstructionKind.BOX_VENT: NewSize("Box vent", 0.3, 0.3, 0.2, 0.1),
    ObstructionKind.HATCH: NewSize("Hatch", 0.6, 0.6, 0.15, 0.6),
    ObstructionKind.OTHER: NewSize("Obstruction", 0.3, 0.3, 0.3, 0.1),
}
GAP_M = 0.02
MOST_OPTIONS = 8
# The family of rules a country's code is of; elsewhere the international one is nearest.
CODE_PACKS = {
    "United States": CodePack.US,
    "Australia": CodePack.AU_NZ,
    "New Zealand": CodePack.AU_NZ,
}
PLANE_NAMES = {
    edits.PlaneField.EAVE: "Eave",
    edits.PlaneField.RIDGE: "Ridge",
    edits.PlaneField.HEIGHT: "Height up the slope",
    edits.PlaneField.RIDGE_LEFT: "Ridge inset",
    edits.PlaneField.SETBACK_EAVE: "Free strip along the eave",
    edits.PlaneField.SETBACK_RIDGE: "Free strip along the ridge",
    edits.PlaneField.SETBACK_RAKE: "Free strip along the rakes",
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
    changed = _changed(job, edit, shelf)
    if changed.site != job.site:
        changed = _with_true_azimuths(changed)
    rethreaded = replace(changed, options=tuple(thread_option(changed, o) for o in changed.options))
    require_sound(rethreaded)
    return rethreaded


def thread_option(job: Job, option: Option) -> Option:
    """Return the option with its strings planned and threaded anew."""
    design = design_for(job, option)
    arrays = tuple(a for a in option.arrays if any(m.present for m in a.modules))
    counts = tuple(sum(m.present for m in array.modules) for array in arrays)
    strings: tuple[ModuleString, ...] = ()
    if arrays:
        plans = plan_planes(counts, string_limits(design), option.series_wish)
        for array, plan in zip(arrays, plans, strict=True):
            strings += thread_strings(array.modules, plan, len(strings))
    return replace(option, strings=strings)


def design_for(job: Job, option: Option) -> Design:
    """Return the rules' shared numbers, with the climate's stand-in temperatures."""
    stand_in = climate(job.site.climate_id)
    return design_of(job, option, stand_in.coldest_degc, stand_in.hottest_degc)


def _changed(job: Job, edit: edits.Edit, shelf: Shelf) -> Job:  # noqa: PLR0911, PLR0912 - one arm an edit
    match edit:
        case edits.SetPlaneField():
            return with_plane(job, _plane_field(job, edit))
        case edits.AddPlane() | edits.AddOtherSide() | edits.RemovePlane() | edits.RenamePlane():
            return planes_changed(job, edit)
        case edits.AddObstruction():
            return with_plane(job, _with_new_obstruction(job, edit))
        case edits.SetObstructionField():
            return with_plane(job, _obstruction_field(job, edit))
        case edits.MoveObstruction():
            return with_plane(job, _moved(job, edit))
        case edits.RemoveObstruction():
            return with_plane(job, _without(job, edit.plane_id, edit.obstruction_id))
        case edits.SetSiteField():
            return _site_field(job, edit)
        case edits.SetPlace():
            climate(edit.climate_id)
            site = replace(
                job.site,
                place=edit.place.strip(),
                climate_id=edit.climate_id,
                code_pack=edit.code_pack,
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
            site = replace(moved.site, place=edit.place.strip(), elevation_m=None, code_pack=pack)
            return replace(moved, site=site)
        case edits.RenameJob():
            return replace(job, name=edit.name.strip())
        case edits.SetUnit():
            return replace(job, unit=edit.unit)
        case edits.FillPlane():
            return _filled(job, edit.option_id, edit.plane_id, edit.orientation)
        case edits.ToggleModules():
            return with_option(job, _toggled(option_of(job, edit.option_id), edit.module_ids))
        case edits.ChooseModule():
            return _with_module(job, edit, shelf)
        case edits.ChooseInverter():
            inverter = shelf.inverter(edit.inverter_id)
            known = tuple(i for i in job.equipment.inverters if i.id != inverter.id)
            equipment = replace(job.equipment, inverters=(*known, inverter))
            option = replace(option_of(job, edit.option_id), inverter_id=inverter.id)
            return with_option(replace(job, equipment=equipment), option)
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


def _taped(typed: str, job: Job, field: str) -> Taped:
    return Taped(parse_length_m(typed, job.unit, field), typed.strip())


def _measured(value_m: float, job: Job) -> Taped:
    return Taped(round(value_m, 4), format_length(value_m, job.unit))


def _plane_field(job: Job, edit: edits.SetPlaneField) -> RoofPlane:
    plane = plane_of(job, edit.plane_id)
    kind = edits.PlaneField
    if edit.field is kind.SLOPE:
        field = f"{plane.name}, slope"
        slope_deg = parse_slope_deg(edit.typed, field, job.unit)
        sloped = replace(plane, slope_deg=slope_deg, slope_typed=edit.typed.strip())
        return replace(sloped, outline=_with_height_on_plan(sloped))
    if edit.field is kind.AZIMUTH:
        field = f"{plane.name}, azimuth"
        return _facing(job, plane, edit.typed, field)
    if edit.field is kind.HEIGHT and (on_plan := _ON_PLAN.fullmatch(edit.typed.strip())):
        text = with_unit_written(on_plan[1], job.unit)
        plan_m = parse_length_m(text, job.unit, f"{plane.name}, height on plan")
        height = Taped(plan_m, f"{text} plan")
        flat = replace(plane, outline=replace(plane.outline, height=height))
        return replace(flat, outline=_with_height_on_plan(flat))
    taped = _taped(edit.typed, job, f"{plane.name}, {PLANE_NAMES[edit.field].lower()}")
    if edit.field in (kind.SETBACK_EAVE, kind.SETBACK_RIDGE, kind.SETBACK_RAKE):
        name = edit.field.value.removeprefix("setback_")
        return replace(plane, setbacks=replace(plane.setbacks, **{name: taped}))
    outline = replace(plane.outline, **{edit.field.value: taped})
    if edit.field is kind.EAVE and plane.outline.ridge == plane.outline.eave:
        # A rectangle stays one: the ridge was never taped apart from the eave.
        outline = replace(outline, ridge=taped)
    return replace(plane, outline=outline)


_ON_PLAN = re.compile(r"(.+?)\s*(?:on\s+)?plan", re.IGNORECASE)
_COMPASS = re.compile(r"(.+?)\s*(?:by\s+)?(?:compass|magnetic|mag)\.?", re.IGNORECASE)


def _with_height_on_plan(plane: RoofPlane) -> Trapezoid:
    """Return the outline with a height that was taken from a plan made longer by the slope."""
    height = plane.outline.height
    found = _ON_PLAN.fullmatch(height.typed)
    if found is None:
        return plane.outline
    # Its unit is written with it, so that a later change of the job's unit moves nothing.
    plan_m = parse_length_m(found[1], LengthUnit.METRE, plane.name)
    return replace(
        plane.outline,
        height=Taped(plan_m / math.cos(math.radians(plane.slope_deg)), height.typed),
    )


def _facing(job: Job, plane: RoofPlane, typed: str, field: str) -> RoofPlane:
    """Return the plane turned to a true azimuth, or to a compass reading made true."""
    expected = "degrees from true north such as 176, or as read: 168.6 compass"
    if found := _COMPASS.fullmatch(typed.strip()):
        compass_deg = parse_number(found[1], field, expected)
        if not 0 <= compass_deg <= 360:
            raise OutOfRange(f"{field} by compass", compass_deg, "between 0 and 360")
        if job.site.survey_day is None:
            raise MissingDatum("day of the survey", "The brief", "A compass drifts: type the day.")
        return replace(
            plane,
            compass_deg=compass_deg,
            azimuth_deg=_true_deg(job, compass_deg, plane.azimuth_deg),
        )
    azimuth = parse_number(re.sub(r"\s*true$", "", typed.strip()), field, expected)
    return replace(
        plane, compass_deg=None, azimuth_deg=azimuth % 360 if azimuth == 360 else azimuth
    )


def _true_deg(job: Job, compass_deg: float, otherwise_deg: float) -> float:
    """Return a compass reading turned by the declination of place and day.

    Without a day, or outside the years of the magnetic model, the azimuth stays as it was.
    """
    east_deg = site_declination_deg(job.site)
    return otherwise_deg if east_deg is None else round((compass_deg + east_deg) % 360, 2)


def _with_true_azimuths(job: Job) -> Job:
    """Return the job with every compass reading made true for its place and day."""
    planes = tuple(
        plane
        if plane.compass_deg is None
        else replace(plane, azimuth_deg=_true_deg(job, plane.compass_deg, plane.azimuth_deg))
        for plane in job.survey.planes
    )
    return replace(job, survey=replace(job.survey, planes=planes))


def _with_new_obstruction(job: Job, edit: edits.AddObstruction) -> RoofPlane:
    plane = plane_of(job, edit.plane_id)
    size = NEW_SIZES[edit.obstruction_kind]
    numbers = [int(o.id.removeprefix("o")) for o in plane.obstructions if o.id[1:].isdigit()]
    number = max(numbers, default=0) + 1
    same = sum(o.kind is edit.obstruction_kind for o in plane.obstructions) + 1
    new = Obstruction(
        id=ObstructionId(f"o{number}"),
        kind=edit.obstruction_kind,
        name=f"{size.name} {same}",
        left=_measured(edit.left_m, job),
        bottom=_measured(edit.bottom_m, job),
        width=_measured(size.width_m, job),
        depth=_measured(size.depth_m, job),
        height=_measured(size.height_m, job),
        clearance=_measured(size.clearance_m, job),
    )
    return replace(plane, obstructions=(*plane.obstructions, new))


def _obstruction(plane: RoofPlane, obstruction_id: ObstructionId) -> Obstruction:
    for obstruction in plane.obstructions:
        if obstruction.id == obstruction_id:
            return obstruction
    raise NotFound("obstruction", obstruction_id)


def _with_obstruction(plane: RoofPlane, changed: Obstruction) -> RoofPlane:
    return replace(
        plane,
        obstructions=tuple(changed if o.id == changed.id else o for o in plane.obstructions),
    )


def _obstruction_field(job: Job, edit: edits.SetObstructionField) -> RoofPlane:
    plane = plane_of(job, edit.plane_id)
    old = _obstruction(plane, edit.obstruction_id)
    taped = _taped(edit.typed, job, f"{old.name}, {edit.field.value}")
    change: dict[str, Any] = {edit.field.value: taped}
    changed = replace(old, **change)
    if old.kind in ROUND_KINDS and edit.field is edits.ObstructionField.WIDTH:
        changed = replace(changed, depth=taped)
    return _with_obstruction(plane, changed)


def _moved(job: Job, edit: edits.MoveObstruction) -> RoofPlane:
    plane = plane_of(job, edit.plane_id)
    old = _obstruction(plane, edit.obstruction_id)
    left, bottom = _measured(edit.left_m, job), _measured(edit.bottom_m, job)
    return _with_obstruction(plane, replace(old, left=left, bottom=bottom))


def _without(job: Job, plane_id: PlaneId, obstruction_id: ObstructionId) -> RoofPlane:
    plane = plane_of(job, plane_id)
    _obstruction(plane, obstruction_id)
    kept = tuple(o for o in plane.obstructions if o.id != obstruction_id)
    return replace(plane, obstructions=kept)


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


def _filled(job: Job, option_id: OptionId, plane_id: PlaneId, orientation: Orientation) -> Job:
    option, plane = option_of(job, option_id), plane_of(job, plane_id)
    array = PlaneArray(plane_id, orientation, GAP_M, GAP_M, ())
    design = design_for(job, option)
    fill = fill_rows(ground_of(plane), footprint_of(design, array))
    if not fill.places_m:
        sheet = module_sheet_of(job, option)
        raise BadGeometry(
            plane.name,
            f"no module of {sheet.long_m:g} × {sheet.short_m:g} m fits inside the free strips",
            "Turn the modules, choose a smaller one, or narrow a strip.",
        )
    others = tuple(a for a in option.arrays if a.plane_id != plane_id)
    array = replace(
        array,
        modules=tuple(
            PlacedModule(PlacedId(f"{plane_id}-{i}"), round(x, 5), round(y, 5), present=True)
            for i, (x, y) in enumerate(fill.places_m, start=1)
        ),
    )
    return with_option(job, replace(option, arrays=(*others, array)))


def _toggled(option: Option, module_ids: tuple[PlacedId, ...]) -> Option:
    known = {m.id for array in option.arrays for m in array.modules}
    for module_id in module_ids:
        if module_id not in known:
            raise NotFound("module", module_id)
    arrays = tuple(
        replace(
            array,
            modules=tuple(
                replace(m, present=not m.present) if m.id in module_ids else m
                for m in array.modules
            ),
        )
        for array in option.arrays
    )
    return replace(option, arrays=arrays)


def _with_module(job: Job, edit: edits.ChooseModule, shelf: Shelf) -> Job:
    """Take another module; arrays are filled again, since every place depends on its size."""
    module = shelf.module(edit.module_id)
    known = tuple(m for m in job.equipment.modules if m.id != module.id)
    job = replace(job, equipment=replace(job.equipment, modules=(*known, module)))
    option = option_of(job, edit.option_id)
    old = module_sheet_of(job, option)
    job = with_option(job, replace(option, module_id=module.id))
    if (old.long_m, old.short_m) != (module.long_m, module.short_m):
        for array in option.arrays:
            job = _filled(job, option.id, array.plane_id, array.orientation)
    return job


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


def describe_edit(edit: edits.Edit) -> str:
    """Return what the edit did, for the history: ``eave 12.19``."""
    match edit:
        case edits.SetPlaneField():
            return f"{edit.field.value.replace('_', ' ')} {edit.typed}"
        case edits.SetObstructionField():
            return f"obstruction {edit.field.value} {edit.typed}"
        case edits.SetSiteField():
            return f"{SITE_NAMES[edit.field].lower()} {edit.typed}"
        case edits.FillPlane():
            way = "portrait" if edit.orientation is Orientation.PORTRAIT else "landscape"
            return f"fill {way}"
        case edits.ToggleModules():
            return f"toggle {len(edit.module_ids)} module(s)"
        case _:
            return f"{edit.kind.replace('-', ' ')} {getattr(edit, 'typed', '')}".strip()
