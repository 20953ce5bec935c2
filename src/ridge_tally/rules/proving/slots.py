"""The slots of the work's records that a design asks for, and how what was written in them comes out."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.proving import ProvingLog, Record
from ridge_tally.core.mounting_sheet import MountBase
from ridge_tally.core.units import parse_number
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.design import Design

# Tilt of a roof may be off by this, and of a table on the ground; common practice, no source.
ROOF_TILT_DEG, GROUND_TILT_DEG = 1.0, 0.5
# A driver that clicks within this of its target is set right; its own error, common practice.
TORQUE_FRAC = 0.1


class SlotKind(StrEnum):
    """What a slot wants."""

    TORQUE = "torque"
    TILT = "tilt"
    INSPECTION = "inspection"
    PHOTO = "photo"


class SlotState(StrEnum):
    """How a slot stands."""

    OPEN = "open"
    FINE = "fine"
    AMISS = "amiss"
    DOUBTFUL = "doubtful"


@dataclass(frozen=True, slots=True)
class Slot:
    """A slot: what it is called, what is due in which unit and how far off it may be.

    ``before``: when, where it is covered or closed afterwards.
    """

    id: str
    kind: SlotKind
    title: str
    due: float | None = None
    unit: str = ""
    off: float | None = None
    before: str = ""


@dataclass(frozen=True, slots=True)
class SlotSeen:
    """A slot with the newest entry in it, where that stands among the records, and how it comes out."""

    slot: Slot
    state: SlotState
    told: str
    entry: Record | None
    at: int | None
    older: int


def slots_seen(design: Design, log: ProvingLog) -> tuple[SlotSeen, ...]:
    """Return every slot of a design with what was written in it; those of no slot come last."""
    slots = tuple(slots_of(design))
    by_slot: dict[str, list[tuple[int, Record]]] = {}
    for n, record in enumerate(log.records):
        by_slot.setdefault(record.slot, []).append((n, record))
    known = {s.id for s in slots}
    lost = [
        Slot(r.slot, SlotKind.INSPECTION, f"{r.slot} (no longer asked for)")
        for r in log.records
        if r.slot not in known
    ]
    return tuple(_seen(s, by_slot.get(s.id, [])) for s in (*slots, *dict.fromkeys(lost)))


def _seen(slot: Slot, entries: list[tuple[int, Record]]) -> SlotSeen:
    if not entries:
        return SlotSeen(slot, SlotState.OPEN, "", None, None, 0)
    at, entry = entries[-1]
    state, told = _judged(slot, entry)
    return SlotSeen(slot, state, told, entry, at, len(entries) - 1)


def _judged(slot: Slot, entry: Record) -> tuple[SlotState, str]:
    if entry.fine is False:
        return SlotState.AMISS, "marked amiss"
    if slot.due is None or not entry.typed:
        fine = entry.fine is True or bool(entry.picture) or bool(entry.typed)
        return (SlotState.FINE if fine else SlotState.OPEN), ""
    try:
        read = parse_number(entry.typed, slot.title, f"a number in {slot.unit}")
    except RidgeTallyError as error:
        return SlotState.DOUBTFUL, str(error)
    off = read - slot.due
    if slot.off is None or abs(off) <= slot.off:
        return SlotState.FINE, f"{off:+.1f} {slot.unit} off"
    return SlotState.AMISS, f"{off:+.1f} {slot.unit} off, at most {slot.off:.1f} {slot.unit}"


def slots_of(design: Design) -> Iterator[Slot]:
    """Yield the slots in the order of the work."""
    racked = {p.laid.plane.id: p for p in racked_planes(design)}
    arrays = [a for a in design.arrays if present_of(a.array)]
    for laid in arrays:
        plane, found = laid.plane, racked.get(laid.plane.id)
        yield from _mounts(plane.name, plane.id, found)
    for laid in arrays:
        yield from _fixings(laid.plane.name, laid.plane.id, racked.get(laid.plane.id))
        tilt = laid.plane.slope_deg + laid.array.leg_tilt_deg
        off = ROOF_TILT_DEG if laid.plane.ground is None else GROUND_TILT_DEG
        for n in (1, 2):
            yield Slot(
                f"tilt:{laid.plane.id}:{n}", SlotKind.TILT,
                f"{laid.plane.name}: tilt on module {'one' if n == 1 else 'two'}, the tool turned end for end",
                round(tilt, 1), "°", off,
            )  # fmt: skip
        yield Slot(
            f"photo:array:{laid.plane.id}",
            SlotKind.PHOTO,
            f"{laid.plane.name}: the array from its side",
        )
    yield from (Slot(f"look:{key}", SlotKind.INSPECTION, words) for key, words in LOOKED_AT)
    for box in _boxes(design):
        yield Slot(
            f"torque:{box}",
            SlotKind.TORQUE,
            f"{box}: terminals at their maker’s torque",
            unit="N·m",
        )
        yield Slot(
            f"photo:{box}", SlotKind.PHOTO, f"{box}: open, inside", before="before it is closed"
        )
    for key, words, before in PICTURED:
        yield Slot(f"photo:{key}", SlotKind.PHOTO, words, before=before)


LOOKED_AT = (
    ("layout", "The layout is the plan’s; what differs is noted as built"),
    ("cables", "Leads clipped off the roof, no sharp edge, drip loops"),
    ("connectors", "Connectors of one make, clicked"),
    ("bonding", "Rails and frames bonded as drawn"),
    ("labels", "Labels where the label sheet has them"),
    ("roof", "Flashings, tiles and seals whole; nothing left on the roof"),
    ("clearances", "Free strips, setbacks and room before the gear kept"),
)
PICTURED = (
    ("labels", "Labels in place", ""),
    ("panel", "Panel with the source breaker", "before its cover goes on"),
    ("meter", "Meter and disconnect together", ""),
    ("serials", "The serial map as it was kept on the roof", ""),
)


def _mounts(name: str, key: str, plane: RackedPlane | None) -> Iterator[Slot]:
    if plane is None or plane.sheet is None or not plane.mounts:
        yield Slot(
            f"photo:mounts:{key}",
            SlotKind.PHOTO,
            f"{name}: each mount, flashed",
            before="before it is covered",
        )
        return
    covered = "flashing" if plane.sheet.base is MountBase.RAFTER else "fixing"
    for n in range(1, plane.mounts + 1):
        yield Slot(
            f"photo:mount:{key}:{n}", SlotKind.PHOTO, f"{name}: {covered} of mount {n}",
            before="before it is covered",
        )  # fmt: skip


def _fixings(name: str, key: str, plane: RackedPlane | None) -> Iterator[Slot]:
    if plane is None or plane.sheet is None:
        return
    sheet = plane.sheet
    for joint, target in (
        ("mounts", sheet.torque_mount_nm), ("splices", sheet.torque_splice_nm),
        ("mid clamps", sheet.torque_mid_nm), ("end clamps", sheet.torque_end_nm),
    ):  # fmt: skip
        off = None if target is None else TORQUE_FRAC * target
        yield Slot(f"torque:{key}:{joint}", SlotKind.TORQUE, f"{name}: {joint}", target, "N·m", off)


def _boxes(design: Design) -> Iterator[str]:
    yield from (f"Roof box {n}" for n in range(1, len(design.option.boxes) + 1))
    if design.option.electronics.architecture is Architecture.MICRO:
        yield "Branch box"
    else:
        many = len(design.inverters)
        yield from (f"Inverter{f' {n}' if many > 1 else ''}" for n in range(1, many + 1))
    yield "AC disconnect"
