"""Applying the edits of an option's racking and of what the site is designed for."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.brief.typed import parse_quantity
from ridge_tally.core.equipment import with_renewed
from ridge_tally.core.errors import NotUnderstood, OutOfRange
from ridge_tally.core.job.document import Job, option_of, plane_of, with_option
from ridge_tally.core.job.edits.build.racking import (
    ChooseMounting,
    ClearPins,
    DesignLoadField,
    PinMount,
    RackingEdit,
    SetBlocking,
    SetCrewRate,
    SetDesignLoad,
    SetMountAim,
    SetOffcuts,
    SetRackingField,
    SetRailsARow,
    SetRunOn,
    SetTrenchLay,
)
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.racking import (
    CrewRate,
    CrewTask,
    DesignLoads,
    Exposure,
    MountPin,
    PlaneRacking,
    racking_on,
)
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.core.survey.taping import each_typed, typed_length
from ridge_tally.core.units import M_PER_FT, LengthUnit, parse_number
from ridge_tally.rules.build.typed_limits import (
    LENGTHS,
    LONGEST_RAIL_M,
    require_length,
    require_load,
)

SPEEDS = {"": 1.0, "m/s": 1.0, "km/h": 1 / 3.6, "mph": 0.44704}
SPEEDS_IN_FEET = {**SPEEDS, "": 0.44704}
PRESSURES = {"": 1000.0, "kpa": 1000.0, "pa": 1.0, "psf": 47.880259}
PRESSURES_IN_FEET = {**PRESSURES, "": 47.880259}
FORCES = {"": 1.0, "n": 1.0, "kn": 1000.0, "lb": 4.4482216, "lbf": 4.4482216}
FORCES_IN_FEET = {**FORCES, "": 4.4482216}
# Mounts nearer than this are one.
SAME_M = 0.005
MOST_OFFCUTS, MOST_PINS, MOST_BLOCKING = 200, 400, 100
LONGEST_SOURCE = 200


def racking_changed(job: Job, edit: RackingEdit, shelf: Shelf) -> Job:  # noqa: PLR0911, PLR0912 - one return an edit
    """Return the job with another racking.

    Raises
    ------
    NotFound
        If the system is not on the shelf, or the plane not in the survey.
    NotUnderstood, OutOfRange
        If a figure cannot be read or cannot be.
    """
    if isinstance(edit, SetDesignLoad):
        return replace(job, design_loads=_loads(job, edit))
    option = option_of(job, edit.option_id)
    match edit:
        case SetMountAim():
            return _with(job, option, aim=edit.aim)
        case SetOffcuts():
            return _with(job, option, offcuts=_lengths(edit.lengths, job.unit))
        case SetCrewRate():
            return _with(job, option, rates=_rates(job, option, edit))
        case ChooseMounting():
            if edit.mounting_id is None:
                return _on(job, option, edit.plane_id, mounting_id=None, pins=())
            sheet = shelf.mounting(edit.mounting_id)
            return _on(_carrying(job, sheet), option, edit.plane_id, mounting_id=sheet.id, pins=())
        case SetRackingField():
            return _on(job, option, edit.plane_id, **{edit.field.value: _length(job, edit)})
        case PinMount():
            return _on(job, option, edit.plane_id, pins=_pins(option, edit))
        case SetBlocking():
            return _on(job, option, edit.plane_id, blocking_m=_blocking(option, edit))
        case SetRunOn():
            return _on(job, option, edit.plane_id, run_on=edit.on)
        case SetRailsARow():
            # Rails are numbered from the eave: what was held on one is held on none now.
            return _on(job, option, edit.plane_id, rails_a_row=edit.count, pins=())
        case SetTrenchLay():
            return _on(job, option, edit.plane_id, trench_lay=edit.lay)
        case ClearPins():
            return _on(job, option, edit.plane_id, pins=())
        case _:
            assert_never(edit)


def _carrying(job: Job, sheet: MountingSheet) -> Job:
    mountings = with_renewed(job.equipment.mountings, sheet)
    return replace(job, equipment=replace(job.equipment, mountings=mountings))


def _with(job: Job, option: Option, **parts: object) -> Job:
    racking = replace(option.racking, **parts)  # type: ignore[arg-type]
    return with_option(job, replace(option, racking=racking))


def _on(job: Job, option: Option, plane_id: PlaneId, **parts: object) -> Job:
    """Return the job with parts of one plane's racking changed; NotFound if there is no such plane."""
    plane_of(job, plane_id)
    changed: PlaneRacking = replace(racking_on(option.racking, plane_id), **parts)  # type: ignore[arg-type]
    others = tuple(p for p in option.racking.planes if p.plane_id != plane_id)
    return _with(job, option, planes=(*others, changed))


def _length(job: Job, edit: SetRackingField) -> Taped | None:
    if not edit.typed.strip():
        return None
    length = typed_length(edit.typed, job.unit, LENGTHS[edit.field][0])
    require_length(edit.field, length.value_m)
    return length


def _lengths(typed: str, unit: LengthUnit) -> tuple[Taped, ...]:
    parts = each_typed(typed)
    if len(parts) > MOST_OFFCUTS:
        raise OutOfRange("Pieces of rail at hand", len(parts), f"at most {MOST_OFFCUTS}")
    found = tuple(typed_length(p, unit, "Pieces of rail at hand") for p in parts)
    for piece in found:
        if not 0 < piece.value_m <= LONGEST_RAIL_M:
            raise OutOfRange(
                "A piece of rail in metres", piece.value_m, f"above 0, at most {LONGEST_RAIL_M:g}"
            )
    return found


def _rates(job: Job, option: Option, edit: SetCrewRate) -> tuple[CrewRate, ...]:
    others = tuple(r for r in option.racking.rates if r.task is not edit.task)
    if not edit.typed.strip():
        return others
    field = f"Crew, {edit.task} an hour"
    rate = parse_number(edit.typed, field, "a number such as 8")
    if not 0.1 <= rate <= 1000:
        raise OutOfRange(field, rate, "from 0.1 to 1000")
    if edit.task is CrewTask.RAILS and job.unit is LengthUnit.FOOT:
        rate *= M_PER_FT
    return (*others, CrewRate(edit.task, rate))


def _blocking(option: Option, edit: SetBlocking) -> tuple[float, ...]:
    there = racking_on(option.racking, edit.plane_id).blocking_m
    others = tuple(x for x in there if all(abs(x - at) > SAME_M for at in edit.at_m))
    if not edit.on:
        return others
    put = {round(at, 4) for at in edit.at_m}
    if len(others) + len(put) > MOST_BLOCKING:
        raise OutOfRange("Blocking", len(others) + len(put), f"at most {MOST_BLOCKING}")
    return tuple(sorted((*others, *put)))


def _pins(option: Option, edit: PinMount) -> tuple[MountPin, ...]:
    let_go = {m for m in (edit.at_m, edit.instead_of_m) if m is not None}
    pins = tuple(
        p
        for p in racking_on(option.racking, edit.plane_id).pins
        if p.rail != edit.rail or all(abs(p.at_m - m) > SAME_M for m in let_go)
    )
    if edit.at_m is None:
        return pins
    if len(pins) >= MOST_PINS or not 0 <= edit.rail < MOST_PINS:
        raise OutOfRange("Mounts held in place", len(pins) + 1, f"at most {MOST_PINS}")
    return (*pins, MountPin(edit.rail, round(edit.at_m, 4)))


def _loads(job: Job, edit: SetDesignLoad) -> DesignLoads:  # noqa: PLR0911 - one return a field
    loads, typed, feet = job.design_loads, edit.typed.strip(), job.unit is LengthUnit.FOOT
    source = edit.source.strip()[:LONGEST_SOURCE] if typed else ""
    match edit.field:
        case DesignLoadField.WIND:
            units = SPEEDS_IN_FEET if feet else SPEEDS
            wind = _quantity(edit, "Wind", units, "a speed such as 115 mph or 45 m/s")
            return replace(loads, wind_m_per_s=wind, wind_source=source)
        case DesignLoadField.SNOW:
            units = PRESSURES_IN_FEET if feet else PRESSURES
            snow = _quantity(edit, "Ground snow", units, "a pressure such as 30 psf or 1.4 kPa")
            return replace(loads, ground_snow_pa=snow, snow_source=source)
        case DesignLoadField.EXPOSURE:
            word = typed.upper()
            if word and word not in set(Exposure):
                raise NotUnderstood("Exposure", typed, "B, C or D")
            return replace(loads, exposure=Exposure(word) if word else None, exposure_source=source)
        case DesignLoadField.ROOF_HEIGHT:
            height = typed_length(typed, job.unit, "Roof height") if typed else None
            if height is not None:
                require_load(edit.field, height.value_m)
            return replace(loads, roof_height=height, height_source=source)
        case DesignLoadField.GCP_FIELD:
            return replace(loads, gcp_field=_gcp(typed), gcp_source=source or loads.gcp_source)
        case DesignLoadField.GCP_EDGE:
            return replace(loads, gcp_edge=_gcp(typed), gcp_source=source or loads.gcp_source)
        case DesignLoadField.WOOD:
            gravity = None
            if typed:
                gravity = parse_number(
                    typed, "Specific gravity of the wood", "a number such as 0.42"
                )
                require_load(edit.field, gravity)
            return replace(loads, wood_gravity=gravity, wood_source=source)
        case DesignLoadField.MOUNT_CAP:
            units = FORCES_IN_FEET if feet else FORCES
            told = "a force such as 250 lb or 1.1 kN"
            cap = _quantity(edit, "City’s limit for a mount", units, told)
            return replace(loads, mount_cap_n=cap, mount_cap_source=source)
        case _:
            assert_never(edit.field)


def _quantity(edit: SetDesignLoad, name: str, units: dict[str, float], told: str) -> float | None:
    """Return a load typed with or without its unit; ``None`` where it is emptied."""
    if not edit.typed.strip():
        return None
    value = parse_quantity(edit.typed.strip(), name, units, told)
    require_load(edit.field, value)
    return value


def _gcp(typed: str) -> float | None:
    if not typed:
        return None
    found = parse_number(typed, "GCp for uplift", "a negative number such as -1.8")
    require_load(DesignLoadField.GCP_FIELD, found)
    return found
