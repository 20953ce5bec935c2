"""Applying the edits of where the house stands and which rules hold there."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.catalogue.gazetteer import ground_guess_m, sea_km, zone_at
from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.job.document import (
    CodePack,
    DesignTemperature,
    Job,
    Site,
    month_first,
)
from ridge_tally.core.job.edits.brief.site import (
    PickPlace,
    SetCodeRule,
    SetColdSchool,
    SetCoordinates,
    SetPlace,
    SetSiteField,
    SiteEdit,
    SiteField,
)
from ridge_tally.core.units import (
    parse_coordinates_deg,
    parse_length_m,
    parse_number,
    parse_temperature_degc,
)
from ridge_tally.editing.brief.code_rules import code_rule_changed, held_to
from ridge_tally.editing.survey.planes import facing_equator
from ridge_tally.simulators.weather_service import climate, nearest_climate

# The family of rules a country's code is of; elsewhere the international one is nearest.
CODE_PACKS = {
    "United States": CodePack.US,
    "Australia": CodePack.AU_NZ,
    "New Zealand": CodePack.AU_NZ,
    "United Kingdom": CodePack.UK,
}

SITE_NAMES = {
    SiteField.ELEVATION: "Elevation",
    SiteField.UTC_OFFSET: "Hours from UTC",
    SiteField.SURVEY_DAY: "Day of the survey",
    SiteField.COLDEST: "Coldest air",
    SiteField.RECORD_LOW: "Record low",
    SiteField.HOTTEST: "Hottest air",
}


def site_changed(job: Job, edit: SiteEdit) -> Job:
    """Return the job after an edit of its site.

    Raises
    ------
    NotUnderstood, OutOfRange, NotFound
        Naming the field, the value and the remedy.
    """
    match edit:
        case SetSiteField():
            return replace(job, site=_field_set(job, edit))
        case SetColdSchool():
            return replace(job, site=replace(job.site, cold_school=edit.school))
        case SetCodeRule():
            return code_rule_changed(job, edit)
        case SetPlace():
            site = replace(
                held_to(job.site, edit.code_pack), place=edit.place.strip(), dwelling=edit.dwelling
            )
            return replace(job, site=_with_chosen_climate(site, edit.climate_id))
        case SetCoordinates():
            latitude, longitude = parse_coordinates_deg(edit.typed, "Latitude, longitude")
            return _moved_to(job, latitude, longitude)
        case PickPlace():
            moved = _moved_to(job, edit.latitude_deg, edit.longitude_deg)
            # The list knows no elevations, and one of another place would be wrong in silence.
            country = edit.place.rsplit(", ", 1)[-1]
            pack = CODE_PACKS.get(country, CodePack.IEC)
            site = replace(held_to(moved.site, pack), place=edit.place.strip(), elevation_m=None)
            return replace(moved, site=with_climate(site))
        case _:
            assert_never(edit)


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
    return facing_equator(replace(job, site=with_climate(site)))


def _with_chosen_climate(site: Site, climate_id: str) -> Site:
    """Return a site with the climate somebody chose; none chosen, it is guessed."""
    if not climate_id:
        return with_climate(replace(site, climate_given=False))
    # Which climate it is must be known before it is kept.
    climate(climate_id)
    return replace(site, climate_id=climate_id, climate_given=True)


def with_climate(site: Site) -> Site:
    """Return a site whose climate, where nobody chose one, is that most like its place."""
    if site.climate_given:
        return site
    at = site.latitude_deg, site.longitude_deg
    up_m = ground_guess_m(*at) if site.elevation_m is None else site.elevation_m
    return replace(site, climate_id=nearest_climate(at[0], up_m, sea_km(*at)).id)


def _field_set(job: Job, edit: SetSiteField) -> Site:
    kind, name, typed = SiteField, SITE_NAMES[edit.field], edit.typed.strip()
    match edit.field:
        case kind.COLDEST:
            return replace(job.site, coldest=_air(edit, name))
        case kind.RECORD_LOW:
            return replace(job.site, record_low=_air(edit, name))
        case kind.HOTTEST:
            return replace(job.site, hottest=_air(edit, name))
        case kind.ELEVATION:
            elevation_m = parse_length_m(typed, job.unit, name) if typed else None
            return with_climate(replace(job.site, elevation_m=elevation_m))
        case kind.SURVEY_DAY:
            day = parse_day(typed, name, month_first=month_first(job)) if typed else None
            return replace(job.site, survey_day=day)
        case kind.UTC_OFFSET:
            offset_h = parse_number(typed, name, "a number such as -7")
            return replace(job.site, utc_offset_h=offset_h)
        case _:
            assert_never(edit.field)


def _air(edit: SetSiteField, name: str) -> DesignTemperature:
    typed = edit.typed.strip()
    if not typed:
        return DesignTemperature(None, "")
    source = edit.source.strip() or "typed for this site"
    return DesignTemperature(parse_temperature_degc(typed, name), source)
