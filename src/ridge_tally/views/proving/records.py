"""What stands and what was written of it: the built option beside its drawing, serials, slots of the records."""

from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.proving import Built, SiteNote
from ridge_tally.formats.csv_file import Row
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.serials import SerialMap, carried, serial_map
from ridge_tally.rules.proving.slots import SlotSeen, SlotState, slots_seen


@dataclass(frozen=True, slots=True)
class BuiltView:
    """The built option: when it was marked, by whom, and what is otherwise than drawn then."""

    option_id: str
    name: str
    revision: int
    day: str
    who: str
    otherwise: tuple[str, ...]
    notes: tuple[SiteNote, ...]


@dataclass(frozen=True, slots=True)
class RecordsView:
    """The records of an option; ``here``: whether it is the one that was built."""

    built: BuiltView | None
    here: bool
    serials: tuple[SerialMap, ...]
    slots: tuple[SlotSeen, ...]
    told: str


def records_view(design: Design) -> RecordsView:
    """Return the records of an option."""
    log = design.job.proving
    slots = slots_seen(design, log)
    left = sum(s.state is SlotState.OPEN for s in slots)
    amiss = sum(s.state in (SlotState.AMISS, SlotState.DOUBTFUL) for s in slots)
    told = f"{left} of {len(slots)} slots are open"
    if amiss:
        told += f", {amiss} amiss"
    return RecordsView(
        built=None if log.built is None else _built(design, log.built),
        here=log.built is not None and log.built.option_id == design.option.id,
        serials=tuple(serial_map(design, log, kind) for kind in carried(design)),
        slots=slots,
        told=told,
    )


def _built(design: Design, built: Built) -> BuiltView:
    stands = next((o for o in design.job.options if o.id == built.option_id), None)
    otherwise: tuple[str, ...] = ("the option that was built is no longer there",)
    if stands is not None:
        otherwise = tuple(_otherwise(built.drawn, stands))
    return BuiltView(
        built.option_id, built.drawn.name, built.revision, built.day.isoformat(), built.who,
        otherwise, built.notes,
    )  # fmt: skip


def _otherwise(drawn: Option, stands: Option) -> Iterator[str]:
    """Yield what stands otherwise than it was drawn when it was marked."""
    before, now = set(present_ids(drawn)), set(present_ids(stands))
    if before - now:
        yield f"{len(before - now)} modules left out"
    if now - before:
        yield f"{len(now - before)} modules more"
    strung = {s.tag: s for s in drawn.strings}
    for string in stands.strings:
        old = strung.pop(string.tag, None)
        if old is None:
            yield f"string {string.tag} was not drawn"
        elif old.module_ids != string.module_ids:
            yield (
                f"string {string.tag} threaded otherwise: {len(string.module_ids)} modules, "
                f"drawn {len(old.module_ids)}"
            )
        elif old.tracker_number != string.tracker_number:
            yield f"string {string.tag} on input {string.tracker_number}, drawn on {old.tracker_number}"
    yield from (f"string {tag} is not there" for tag in strung)
    if (drawn.inverter_id, drawn.more_inverters) != (stands.inverter_id, stands.more_inverters):
        yield "another inverter"


def serial_rows(design: Design) -> list[Row]:
    """Return the serial numbers as rows in mounting order."""
    return [
        {
            "bears": cell.carries.value,
            "plane": cell.plane,
            "row": cell.row,
            "place": cell.column,
            "serial": cell.text,
            "ports": " ".join(cell.ports),
            "doubt": cell.problem,
        }
        for kind in carried(design)
        for cell in serial_map(design, design.job.proving, kind).cells
    ]


def record_rows(design: Design) -> list[Row]:
    """Return the slots of the records with what was written last in each, in their order."""
    return [
        {
            "kind": seen.slot.kind.value,
            "slot": seen.slot.title,
            "due": seen.slot.due,
            "unit": seen.slot.unit,
            "typed": seen.entry.typed if seen.entry else "",
            "state": seen.state.value,
            "told": seen.told,
            "who": seen.entry.who if seen.entry else "",
            "day": seen.entry.day.isoformat() if seen.entry else "",
            "picture": seen.entry.picture if seen.entry else "",
        }
        for seen in slots_seen(design, design.job.proving)
    ]
