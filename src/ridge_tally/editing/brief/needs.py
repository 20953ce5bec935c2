"""Applying the edits of loads to come, the target, what is there already and wishes."""

from dataclasses import replace
from typing import Any, assert_never

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.brief.typed import (
    parse_energy_kwh,
    parse_money_cents,
    parse_quantity,
    parse_share_frac,
)
from ridge_tally.core.errors import (
    NotFound,
    NotUnderstood,
    OutOfRange,
)
from ridge_tally.core.job.brief import (
    AlreadyThere,
    Brief,
    CarLoad,
    ExistingArray,
    Fuel,
    HeatPumpLoad,
    Load,
    OtherLoad,
    Target,
    TargetKind,
    Wishes,
)
from ridge_tally.core.job.document import Job, plane_of
from ridge_tally.core.job.edits.brief.needs import (
    AddExisting,
    AddLoad,
    AlreadyField,
    ExistingField,
    ImportStock,
    LoadField,
    LoadKind,
    NeedEdit,
    RemoveExisting,
    RemoveLoad,
    ServiceField,
    SetAlreadyField,
    SetExistingField,
    SetExistingPlane,
    SetGrowth,
    SetLoadField,
    SetNoGo,
    SetServiceField,
    SetSubPanel,
    SetTarget,
    SetTargetField,
    SetWish,
    TargetField,
    WishFlag,
)
from ridge_tally.core.job.ids import ExistingId, LoadId, PlaneId
from ridge_tally.core.job.service import SourceBreaker, SubPanel
from ridge_tally.core.survey.taping import typed_length
from ridge_tally.core.units import KM_PER_MI, LengthUnit, parse_number
from ridge_tally.editing.brief.stock import read_stock
from ridge_tally.editing.rows import next_id, require_room, with_row

MOST_LOADS, MOST_EXISTING, MOST_BOARDS = 8, 4, 3
TEMPLATES: dict[LoadKind, Load] = {
    LoadKind.CAR: CarLoad(LoadId(""), "Electric car", 12000.0, 0.18, 0.10, 0.9, 7.0),
    LoadKind.HEAT_PUMP: HeatPumpLoad(LoadId(""), "Heat pump", Fuel.GAS_KWH, 12000.0, 0.85, 3.0),
    LoadKind.OTHER: OtherLoad(LoadId(""), "Other load", 500.0, 1, 12),
}


def needs_changed(job: Job, edit: NeedEdit, shelf: Shelf) -> Job:  # noqa: PLR0911, PLR0912 - one arm an edit
    """Return the job after an edit of loads to come, the target, what is there or wishes.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound, FormatError
        Naming the field, the value and the remedy; the job given in is untouched.
    """
    brief = job.brief
    match edit:
        case AddLoad():
            require_room("Loads to come", len(brief.loads), MOST_LOADS)
            new_id = LoadId(next_id("load", [x.id for x in brief.loads]))
            return _with(
                job,
                replace(brief, loads=(*brief.loads, replace(TEMPLATES[edit.load_kind], id=new_id))),
            )
        case SetLoadField():
            return _with(job, replace(brief, loads=_load_set(job, edit)))
        case RemoveLoad():
            return _with(
                job, replace(brief, loads=tuple(x for x in brief.loads if x.id != edit.load_id))
            )
        case SetTarget():
            return _with(job, replace(brief, target=replace(brief.target, kind=edit.target_kind)))
        case SetTargetField():
            return _with(job, replace(brief, target=_target_set(brief.target, edit)))
        case RemoveExisting():
            without = _with(job, replace(brief, already=_already_changed(brief.already, edit)))
            return _undrawn(without, edit.existing_id)
        case AddExisting() | SetAlreadyField():
            return _with(job, replace(brief, already=_already_changed(brief.already, edit)))
        case SetExistingField() | SetExistingPlane():
            return _with(job, replace(brief, already=_existing_set(job, edit)))
        case SetServiceField():
            return _service_set(job, edit)
        case SetSubPanel():
            return _sub_panel_set(job, edit)
        case SetWish():
            return _with(job, replace(brief, wishes=_wish_set(brief.wishes, edit)))
        case SetGrowth():
            count = parse_number(
                edit.typed or "0", "Modules to grow by", "a whole number such as 6"
            )
            return _with(
                job, replace(brief, wishes=replace(brief.wishes, growth_modules=round(count)))
            )
        case SetNoGo():
            plane_of(job, edit.plane_id)
            return _with(
                job, replace(brief, wishes=_no_go(brief.wishes, edit.plane_id, on=edit.on))
            )
        case ImportStock():
            return _with(
                job, replace(brief, stock=read_stock(edit.text, edit.file or "stock list", shelf))
            )
        case _:
            assert_never(edit)


def _with(job: Job, brief: Brief) -> Job:
    return replace(job, brief=brief)


FIELD_NAMES = {
    LoadField.DISTANCE: "Distance in a year",
    LoadField.USE: "Use for the distance",
    LoadField.CHARGING_LOSS: "Charging loss",
    LoadField.AT_HOME: "Charged at home",
    LoadField.DISPLACED: "Fuel it displaces",
    LoadField.FUEL_PER_YEAR: "Fuel in a year",
    LoadField.BURNER: "Burner efficiency",
    LoadField.COP: "Seasonal COP",
    LoadField.ENERGY: "Energy in a year",
    LoadField.FIRST_MONTH: "First month",
    LoadField.LAST_MONTH: "Last month",
}
L_PER_100KM_AT_1_MPG = 235.214583


def _load_set(job: Job, edit: SetLoadField) -> tuple[Load, ...]:
    old = next((x for x in job.brief.loads if x.id == edit.load_id), None)
    if old is None:
        raise NotFound("load", edit.load_id)
    if not hasattr(old, edit.field.value):
        raise NotFound(f"figure of {old.name}", edit.field.value)
    change: dict[str, Any] = {edit.field.value: _load_value(job, edit)}
    return with_row(job.brief.loads, replace(old, **change))


def _load_value(job: Job, edit: SetLoadField) -> object:  # noqa: PLR0911 - one arm a field
    kind, typed = LoadField, edit.typed.strip()
    if edit.field is kind.NAME:
        return typed
    name = FIELD_NAMES.get(edit.field, "Fuel")
    miles = job.unit is LengthUnit.FOOT
    match edit.field:
        case kind.FUEL:
            try:
                return Fuel(typed)
            except ValueError:
                raise NotFound("fuel", typed) from None
        case kind.DISTANCE:
            units = {
                "km": 1.0,
                "mi": KM_PER_MI,
                "miles": KM_PER_MI,
                "": KM_PER_MI if miles else 1.0,
            }
            return parse_quantity(typed, name, units, "a distance such as 12 000 km or 7500 mi")
        case kind.USE:
            per_mile = 1 / KM_PER_MI
            units = {
                "kwh/km": 1.0,
                "kwh/100km": 0.01,
                "kwh/mi": per_mile,
                "": per_mile if miles else 1.0,
            }
            return parse_quantity(typed, name, units, "0.18 kWh/km or 0.29 kWh/mi")
        case kind.DISPLACED:
            if typed.lower().endswith("mpg"):
                per_gallon = parse_number(typed[:-3], name, "28 mpg")
                if per_gallon <= 0:
                    raise NotUnderstood(name, typed, "28 mpg or 7.2 l/100km")
                return L_PER_100KM_AT_1_MPG / per_gallon
            return parse_quantity(typed, name, {"": 1.0, "l/100km": 1.0}, "28 mpg or 7.2 l/100km")
        case kind.CHARGING_LOSS | kind.AT_HOME | kind.BURNER:
            return parse_share_frac(typed, name)
        case kind.FIRST_MONTH | kind.LAST_MONTH:
            return round(parse_number(typed, name, "a month from 1 to 12"))
        case kind.ENERGY:
            return parse_quantity(typed, name, {"": 1.0, "kwh": 1.0}, "energy such as 1800 kWh")
        case _:
            return parse_number(typed, name, "a number such as 3.2")


def _target_set(target: Target, edit: SetTargetField) -> Target:
    kind, typed = TargetField, edit.typed.strip()
    match edit.field:
        case kind.SHARE:
            # Who types a share wants that share.
            share_frac = parse_share_frac(typed, "Share of the use")
            return replace(target, share_frac=share_frac, kind=TargetKind.SHARE)
        case kind.YIELD:
            units = {"": 1.0, "kwh/kw": 1.0, "kwh/kwp": 1.0}
            yield_ = parse_quantity(typed, "Yield", units, "1450 kWh/kW") if typed else None
            return replace(target, yield_kwh_per_kw=yield_)
        case kind.BUDGET:
            budget = round(parse_money_cents(typed, "Budget")) if typed else None
            return replace(target, budget_cents=budget)
        case kind.FIXED_PRICE:
            fixed = round(parse_money_cents(typed or "0", "Fixed part of the price"))
            return replace(target, fixed_price_cents=fixed)
        case kind.PRICE:
            price = parse_money_cents(typed, "Price of a watt") if typed else None
            return replace(target, price_cents_per_w=price)
        case _:
            assert_never(edit.field)


def _undrawn(job: Job, existing_id: ExistingId) -> Job:
    """Return the job without the rows of an old array on its roofs."""
    planes = tuple(
        replace(p, existing=tuple(r for r in p.existing if r.existing_id != existing_id))
        for p in job.survey.planes
    )
    return replace(job, survey=replace(job.survey, planes=planes))


def _already_changed(
    already: AlreadyThere,
    edit: AddExisting | RemoveExisting | SetAlreadyField,
) -> AlreadyThere:
    match edit:
        case AddExisting():
            require_room("Arrays already there", len(already.arrays), MOST_EXISTING)
            new_id = ExistingId(next_id("existing", [a.id for a in already.arrays]))
            new = ExistingArray(new_id, "Old array", 3.0, 3.0, 2015, None, "", ())
            return replace(already, arrays=(*already.arrays, new))
        case RemoveExisting():
            kept = tuple(a for a in already.arrays if a.id != edit.existing_id)
            return replace(already, arrays=kept)
        case SetAlreadyField():
            return _already_set(already, edit)


def _already_set(already: AlreadyThere, edit: SetAlreadyField) -> AlreadyThere:
    kind, typed = AlreadyField, edit.typed.strip()
    names = {kind.BATTERY_ENERGY: "Battery", kind.BATTERY_POWER: "Battery power"}
    name, units = names.get(edit.field, "Generator"), {"": 1.0, "kwh": 1.0, "kw": 1.0}
    value = parse_quantity(typed, name, units, "10, or nothing") if typed else None
    match edit.field:
        case kind.BATTERY_ENERGY:
            return replace(already, battery_kwh=value)
        case kind.BATTERY_POWER:
            return replace(already, battery_kw=value)
        case kind.GENERATOR:
            return replace(already, generator_kw=value)
        case _:
            assert_never(edit.field)


def _existing_set(job: Job, edit: SetExistingField | SetExistingPlane) -> AlreadyThere:
    already = job.brief.already
    old = next((a for a in already.arrays if a.id == edit.existing_id), None)
    if old is None:
        raise NotFound("array already there", edit.existing_id)
    if isinstance(edit, SetExistingPlane):
        plane_of(job, edit.plane_id)
        others = tuple(p for p in old.plane_ids if p != edit.plane_id)
        changed = replace(old, plane_ids=(*others, edit.plane_id) if edit.on else others)
    else:
        changed = _existing_field(old, edit)
    return replace(already, arrays=with_row(already.arrays, changed))


def _existing_field(old: ExistingArray, edit: SetExistingField) -> ExistingArray:
    kind, typed = ExistingField, edit.typed.strip()

    def power_kw() -> float:
        units = {"": 1.0, "kw": 1.0, "kwp": 1.0, "w": 0.001}
        return parse_quantity(typed, f"{old.name}, power", units, "3.2 kW")

    match edit.field:
        case kind.NAME:
            return replace(old, name=typed)
        case kind.PAID:
            return replace(old, paid=typed)
        case kind.BUILT_YEAR:
            year = parse_number(typed, f"{old.name}, built in", "a year such as 2016")
            return replace(old, built_year=round(year))
        case kind.ENERGY:
            energy_kwh = parse_energy_kwh(typed, f"{old.name}, kWh a year") if typed else None
            return replace(old, energy_kwh_per_year=energy_kwh)
        case kind.P_DC:
            return replace(old, p_dc_kw=power_kw())
        case kind.P_AC:
            return replace(old, p_ac_kw=power_kw())
        case _:
            assert_never(edit.field)


def _service_set(job: Job, edit: SetServiceField) -> Job:
    typed, kind, service = edit.typed.strip(), ServiceField, job.survey.service

    def amps(name: str) -> float | None:
        return parse_quantity(typed, name, {"": 1.0, "a": 1.0}, "200 A") if typed else None

    match edit.field:
        case kind.PHASES:
            service = replace(service, phases=round(parse_number(typed, "Phases", "1 or 3")))
        case kind.SPACES:
            spaces = round(parse_number(typed, "Free spaces", "a number")) if typed else None
            service = replace(service, spaces=spaces)
        case kind.DISCONNECT_WITHIN:
            field = "Disconnect within, of the meter"
            within = typed_length(typed, job.unit, field) if typed else None
            service = replace(service, disconnect_within=within)
        case kind.MAIN_BREAKER:
            service = replace(service, main_breaker_a=amps("Main breaker"))
        case kind.BUSBAR:
            service = replace(service, busbar_a=amps("Busbar"))
        case kind.LOAD_BREAKERS:
            service = replace(service, load_breakers_a=amps("Load breakers together"))
        case kind.FEEDER:
            service = replace(service, feeder_a=amps("Feeder"))
        case kind.SOURCE_BREAKER:
            service = replace(service, source_breaker=_place_of(typed))
        case _:
            assert_never(edit.field)
    return replace(job, survey=replace(job.survey, service=service))


def _sub_panel_set(job: Job, edit: SetSubPanel) -> Job:
    """Return the job with a board between the sources and the main panel set, added or taken off."""
    service = job.survey.service
    boards = list(service.subpanels)
    if not 0 <= edit.place <= len(boards) or edit.place >= MOST_BOARDS:
        told = f"at most {MOST_BOARDS}, one after another"
        raise OutOfRange("Boards between", edit.place + 1, told)
    old = boards[edit.place] if edit.place < len(boards) else SubPanel("")
    name = old.name if edit.name is None else edit.name.strip()

    def amps(typed: str | None, before: float | None, what: str) -> float | None:
        if typed is None:
            return before
        field, text = f"{name}, {what}", typed.strip()
        return parse_quantity(text, field, {"": 1.0, "a": 1.0}, "60 A") if text else None

    board = SubPanel(
        name,
        amps(edit.main, old.main_breaker_a, "main breaker"),
        amps(edit.bus, old.busbar_a, "busbar"),
        amps(edit.feeder, old.feeder_a, "breaker of its feeder"),
    )
    boards[edit.place : edit.place + 1] = [board] if name else []
    service = replace(service, subpanels=tuple(boards))
    return replace(job, survey=replace(job.survey, service=service))


def _place_of(typed: str) -> SourceBreaker:
    try:
        return SourceBreaker(typed or SourceBreaker.NOT_SAID)
    except ValueError:
        known = ", ".join(SourceBreaker)
        raise NotUnderstood("Source breaker", typed, f"one of {known}") from None


def _wish_set(wishes: Wishes, edit: SetWish) -> Wishes:
    match edit.wish:
        case WishFlag.BATTERY_LATER:
            return replace(wishes, battery_later=edit.on)
        case WishFlag.BACKUP:
            return replace(wishes, backup=edit.on)
        case WishFlag.SYMMETRIC:
            return replace(wishes, symmetric=edit.on)
        case WishFlag.ALL_BLACK:
            return replace(wishes, all_black=edit.on)
        case _:
            assert_never(edit.wish)


def _no_go(wishes: Wishes, plane_id: PlaneId, *, on: bool) -> Wishes:
    others = tuple(p for p in wishes.no_go_planes if p != plane_id)
    return replace(wishes, no_go_planes=(*others, plane_id) if on else others)
