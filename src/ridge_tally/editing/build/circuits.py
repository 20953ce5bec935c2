"""Applying the edits of the way cables go and of what circuits are made of."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.brief.typed import parse_quantity, parse_yes
from ridge_tally.core.errors import NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job.document import Job, option_of, with_option
from ridge_tally.core.job.edits.build.circuits import (
    CircuitEdit,
    CircuitField,
    DrawnSegment,
    SetCircuit,
    SetRoute,
    SetWiringField,
    TakeRoutes,
    WiringField,
)
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.wiring import (
    CableRoute,
    CableSegment,
    CircuitChoice,
    ConduitKind,
    Insulation,
    Lie,
    Wiring,
    choice_of,
)
from ridge_tally.core.survey.taping import typed_length
from ridge_tally.editing.design import design_for
from ridge_tally.rules.build.circuits.circuits import circuits_of
from ridge_tally.rules.build.circuits.legs import legs_of
from ridge_tally.rules.build.circuits.wire import (
    TERMINALS,
    insulations,
    size_told,
    size_unit,
    sizes_of,
)
from ridge_tally.rules.option_document import require_cable_length, require_sound_wiring

AMPS = {"": 1.0, "a": 1.0, "ka": 1000.0}
MOST_SEGMENTS = 30


def circuits_changed(job: Job, edit: CircuitEdit) -> Job:
    """Return the job with another way of its cables, or other circuits.

    Raises
    ------
    NotFound
        If the option has no such leg or circuit.
    NotUnderstood, OutOfRange
        If a figure cannot be read or cannot be.
    """
    option = option_of(job, edit.option_id)
    wiring = option.wiring
    match edit:
        case SetRoute():
            wiring = replace(wiring, routes=_routes(job, option, edit))
        case TakeRoutes():
            legs = legs_of(design_for(job, option))
            routes = tuple(
                CableRoute(leg.id, tuple(p.segment for p in leg.pieces))
                for leg in legs
                if leg.pieces
            )
            wiring = replace(wiring, routes=routes)
        case SetCircuit():
            wiring = replace(wiring, choices=_choices(job, option, edit))
        case SetWiringField():
            wiring = _with_field(job, wiring, edit)
        case _:
            assert_never(edit)
    require_sound_wiring(wiring)
    return with_option(job, replace(option, wiring=wiring))


def _routes(job: Job, option: Option, edit: SetRoute) -> tuple[CableRoute, ...]:
    legs = {leg.id for leg in legs_of(design_for(job, option))}
    if edit.leg not in legs:
        raise NotFound("cable's way", edit.leg)
    others = tuple(r for r in option.wiring.routes if r.leg != edit.leg)
    if not edit.segments:
        return others
    if len(edit.segments) > MOST_SEGMENTS:
        raise OutOfRange("Pieces of a cable's way", len(edit.segments), f"at most {MOST_SEGMENTS}")
    return (*others, CableRoute(edit.leg, tuple(_segment(job, s) for s in edit.segments)))


def _segment(job: Job, drawn: DrawnSegment) -> CableSegment:
    length = _length(job, drawn.length, "Length of the cable")
    if drawn.to is None and length is None:
        raise NotUnderstood(
            "Length of the cable", drawn.length, "a length, or a point of the site plan it goes to"
        )
    above = _length(job, drawn.above_roof, "Height over the roof")
    return CableSegment(
        drawn.lie,
        drawn.to,
        length,
        _length(job, drawn.drop, "Fall or rise of the cable"),
        above if drawn.lie is Lie.ROOF else None,
    )


def _length(job: Job, typed: str, field: str) -> Taped | None:
    if not typed.strip():
        return None
    length = typed_length(typed, job.unit, field)
    require_cable_length(field, length.value_m)
    return length


def _choices(job: Job, option: Option, edit: SetCircuit) -> tuple[CircuitChoice, ...]:
    if all(c.id != edit.circuit for c in circuits_of(design_for(job, option))):
        raise NotFound("circuit", edit.circuit)
    before, typed = choice_of(option.wiring, edit.circuit), edit.typed.strip()
    match edit.field:
        case CircuitField.SIZE:
            after = replace(before, size=_size(job, typed))
        case CircuitField.BREAKER:
            amps = parse_quantity(typed, "Breaker", AMPS, "amperes such as 40 A") if typed else None
            after = replace(before, breaker_a=amps)
        case CircuitField.LENGTH:
            after = replace(before, length=_length(job, typed, "Length of the cable"))
        case _:
            assert_never(edit.field)
    others = tuple(c for c in option.wiring.choices if c.circuit != edit.circuit)
    return others if after == CircuitChoice(edit.circuit) else (*others, after)


def _size(job: Job, typed: str) -> str:
    """Return a conductor's size with its unit, as another family's 10 is another size.

    Raises
    ------
    NotUnderstood
        If the table of the job's family has none such.
    """
    pack = job.site.code_pack
    size = typed.lower().removesuffix("awg").removesuffix("mm²").removesuffix("mm2").strip()
    known = sizes_of(pack)
    if size and size not in known:
        told = f"one of {', '.join(known)} {size_unit(pack)}"
        raise NotUnderstood("Conductor", typed, told)
    return size_told(pack, size) if size else ""


def _with_field(job: Job, wiring: Wiring, edit: SetWiringField) -> Wiring:
    typed = edit.typed.strip().lower()
    match edit.field:
        case WiringField.CONDUIT:
            if typed not in set(ConduitKind):
                raise NotUnderstood("Conduit", edit.typed, "metal or plastic")
            return replace(wiring, conduit=ConduitKind(typed))
        case WiringField.TERMINALS:
            if typed not in {str(t) for t in TERMINALS}:
                raise NotUnderstood("Terminals", edit.typed, "60 or 75")
            return replace(wiring, terminals_degc=int(typed))
        case WiringField.INSULATION:
            known = insulations(job.site.code_pack)
            if typed and typed not in known:
                raise NotUnderstood("Insulation", edit.typed, " or ".join(known))
            return replace(wiring, insulation=Insulation(typed) if typed else None)
        case WiringField.FAULT | WiringField.INTERRUPTS:
            name = "Fault current" if edit.field is WiringField.FAULT else "The breaker breaks"
            told = "amperes such as 10 kA"
            amps = parse_quantity(edit.typed.strip(), name, AMPS, told) if typed else None
            if edit.field is WiringField.FAULT:
                return replace(wiring, fault_a=amps)
            return replace(wiring, interrupts_a=amps)
        case WiringField.METER:
            return replace(wiring, meter=parse_yes(typed, "Production meter"))
        case _:
            assert_never(edit.field)
