"""What must hold inside an option: its arrays, its strings, its inverters and boxes."""

from itertools import pairwise

from ridge_tally.core.array.stances import steepest_deg
from ridge_tally.core.equipment import sheet_among
from ridge_tally.core.errors import MissingDatum, NotFound, OutOfRange
from ridge_tally.core.job.array import Position
from ridge_tally.core.job.document import Job, plane_of, present_ids
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import LaidArray, System, system_of
from ridge_tally.core.job.wiring import Wiring
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.rules.build.circuits.wire import TERMINALS
from ridge_tally.rules.build.typed_limits import LONGEST_RAIL_M, require_sound_racking
from ridge_tally.rules.distinct import require_distinct
from ridge_tally.rules.ranges import require_ranges

LONGEST_NAME = 80
LARGEST_FUSE_A = 100.0
MOST_MODULES = 500
WIDEST_GAP_M = 20.0
LONGEST_RUN = 20
MOST_TIERS = 4
MOST_POSITIONS = 6
STEEPEST_LEG_DEG, UPRIGHT_DEG = 75.0, 90.0
MOST_INVERTERS, FURTHEST_BOX_M = 4, 100.0
LONGEST_CABLE_M, LARGEST_BREAKER_A, LARGEST_FAULT_A = 1000.0, 400.0, 200_000.0
MOST_ROUTES, FURTHEST_POINT_M = 200, 2000.0


def require_name(name: str) -> None:
    """Raise OutOfRange if a name is empty or too long."""
    if not 0 < len(name.strip()) <= LONGEST_NAME:
        raise OutOfRange("Length of the name", len(name), f"1 to {LONGEST_NAME} characters")


def require_sound_option(job: Job, option: Option) -> None:
    """Raise on the first thing in an option that contradicts itself.

    Raises
    ------
    OutOfRange, BadGeometry, MissingDatum, NotFound
        Naming the field, the value and what to do.
    """
    require_name(option.name)
    # Every plane and datasheet it names is there, or this says which is not.
    system = system_of(job, option)
    require_distinct(f"planes of option {option.name}", [a.plane_id for a in option.arrays])
    for laid in system.arrays:
        _require_array(option, laid)
    placed = [m.id for array in option.arrays for m in array.modules]
    if len(placed) > MOST_MODULES:
        raise OutOfRange(f"Modules in option {option.name}", len(placed), f"at most {MOST_MODULES}")
    require_distinct(f"modules of option {option.name}", placed)
    _require_strings(system)
    _require_boxes(job, option)
    _require_battery(option)
    _require_fuse(option)
    _require_racking(job, option)
    require_sound_wiring(option.wiring)


def _require_array(option: Option, laid: LaidArray) -> None:
    plane, array = laid.plane, laid.array
    for gap in (array.gap_in_row, array.gap_between_rows):
        if not 0 <= gap.value_m <= WIDEST_GAP_M:
            raise OutOfRange(
                f"Gap in option {option.name}", gap.value_m, f"between 0 and {WIDEST_GAP_M:g} m"
            )
    if not 0 <= array.leg_tilt_deg <= STEEPEST_LEG_DEG:
        raise OutOfRange(
            "Tilt of the legs in degrees",
            array.leg_tilt_deg,
            f"between 0 and {STEEPEST_LEG_DEG:g}",
        )
    if array.table is not None and not 1 <= array.table.rows <= MOST_TIERS:
        raise OutOfRange("Module rows on a table", array.table.rows, f"1 to {MOST_TIERS}")
    if array.table is not None and array.table.seasons:
        require_sound_seasons(array.table.seasons)
        steepest = steepest_deg(array.table.seasons)
        if len(array.table.seasons) < 2 or array.leg_tilt_deg != steepest:
            raise OutOfRange(
                "Tilt of tables changed with the seasons", array.leg_tilt_deg,
                f"{steepest:g}, the steepest of two positions or more",
            )  # fmt: skip
    if plane.slope_deg + array.leg_tilt_deg > UPRIGHT_DEG:
        raise OutOfRange(
            "Tilt of the legs in degrees",
            array.leg_tilt_deg,
            "with the plane's slope at most 90",
        )
    if not 1 <= array.shortest_run <= LONGEST_RUN:
        raise OutOfRange(
            f"Shortest run in option {option.name}",
            array.shortest_run,
            f"between 1 and {LONGEST_RUN}",
        )


def require_sound_seasons(positions: tuple[Position, ...]) -> None:
    """Raise OutOfRange if days or tilts of a year cannot be."""
    if not 1 <= len(positions) <= MOST_POSITIONS:
        raise OutOfRange("Positions a year", len(positions), f"1 to {MOST_POSITIONS}")
    days = [p.from_day for p in positions]
    for position in positions:
        if not 0 <= position.from_day < DAYS:
            raise OutOfRange("Day of the change", position.from_day, f"between 0 and {DAYS - 1}")
        if not 0 <= position.tilt_deg <= STEEPEST_LEG_DEG:
            raise OutOfRange(
                "Tilt in degrees", position.tilt_deg, f"between 0 and {STEEPEST_LEG_DEG:g}"
            )
    for before, after in pairwise(days):
        if before >= after:
            raise OutOfRange("Day of the change", after, "a day of its own, in order of the year")


def _require_strings(system: System) -> None:
    option, inverters = system.option, system.inverters
    if len(inverters) > MOST_INVERTERS:
        raise OutOfRange(
            f"Inverters of option {option.name}", len(inverters), f"at most {MOST_INVERTERS}"
        )
    trackers, present = len(system.trackers), set(present_ids(option))
    strung = [m for string in option.strings for m in string.module_ids]
    require_distinct(f"strings of option {option.name}", strung)
    for module_id in strung:
        if module_id not in present:
            raise NotFound(f"module of a string in option {option.name}:", module_id)
    for string in option.strings:
        if not string.module_ids:
            raise MissingDatum(
                "module", f"String {string.tag} of option {option.name}", "Take it out or fill it."
            )
        if not 1 <= string.tracker_number <= trackers:
            raise OutOfRange(
                f"Tracker of string {string.tag}",
                string.tracker_number,
                f"between 1 and {trackers}",
            )


def _require_boxes(job: Job, option: Option) -> None:
    require_distinct(f"boxes of option {option.name}", [b.id for b in option.boxes])
    for box in option.boxes:
        plane_of(job, box.plane_id)
        for at in (box.x_m, box.y_m):
            if not abs(at) <= FURTHEST_BOX_M:
                raise OutOfRange(
                    f"Place of box {box.id} in metres",
                    at,
                    f"within {FURTHEST_BOX_M:g} of the eave's left end",
                )


def _require_battery(option: Option) -> None:
    battery = option.battery
    if battery is None:
        return
    ranges = (
        ("Battery, usable kWh", battery.usable_kwh, 0.1, 200.0),
        ("Battery, kW", battery.power_kw, 0.1, 100.0),
        ("Price of the battery, cents", battery.price_cents, 0, 100_000_000),
    )
    require_ranges(ranges)


def _require_racking(job: Job, option: Option) -> None:
    planes = option.racking.planes
    require_distinct(f"racked planes of option {option.name}", [p.plane_id for p in planes])
    for racked in planes:
        plane_of(job, racked.plane_id)
        if racked.mounting_id is not None:
            sheet_among(job.equipment.mountings, racked.mounting_id, "mounting datasheet")
        require_sound_racking(racked)
    for piece in option.racking.offcuts:
        if not 0 < piece.value_m <= LONGEST_RAIL_M:
            raise OutOfRange(
                "A piece of rail in metres", piece.value_m, f"above 0, at most {LONGEST_RAIL_M:g}"
            )


def _require_fuse(option: Option) -> None:
    fuse_a = option.safety.string_fuse_a
    if fuse_a is not None and not 0 < fuse_a <= LARGEST_FUSE_A:
        raise OutOfRange("String fuse in amperes", fuse_a, f"above 0, at most {LARGEST_FUSE_A:g}")


def require_cable_length(field: str, length_m: float) -> None:
    """Raise OutOfRange if no piece of a house's cable is so long, or it is nothing."""
    if not 0 < length_m <= LONGEST_CABLE_M:
        raise OutOfRange(f"{field} in metres", length_m, f"above 0, at most {LONGEST_CABLE_M:g}")


def require_sound_wiring(wiring: Wiring) -> None:
    """Raise OutOfRange on the first figure of the wiring that cannot be."""
    require_distinct("ways of cables", [r.leg for r in wiring.routes])
    require_distinct("circuits", [c.circuit for c in wiring.choices])
    if len(wiring.routes) + len(wiring.choices) > MOST_ROUTES:
        raise OutOfRange("Ways of cables", len(wiring.routes), f"at most {MOST_ROUTES}")
    if wiring.terminals_degc not in TERMINALS:
        raise OutOfRange("Terminals in °C", wiring.terminals_degc, "60 or 75")
    for route in wiring.routes:
        for segment in route.segments:
            for length in filter(None, (segment.length, segment.drop, segment.above_roof)):
                require_cable_length("Length of a cable", length.value_m)
            at = segment.to
            if at is not None and max(abs(at.east_m), abs(at.north_m)) > FURTHEST_POINT_M:
                raise OutOfRange("A point of a cable's way", FURTHEST_POINT_M, "near the house")
    for choice in wiring.choices:
        if choice.breaker_a is not None and not 1 <= choice.breaker_a <= LARGEST_BREAKER_A:
            raise OutOfRange("Breaker in A", choice.breaker_a, f"1 to {LARGEST_BREAKER_A:g}")
        if choice.length is not None:
            require_cable_length("Length of a circuit", choice.length.value_m)
    for name, amps in (
        ("Fault current in A", wiring.fault_a),
        ("The breaker breaks, in A", wiring.interrupts_a),
    ):
        if amps is not None and not 100 <= amps <= LARGEST_FAULT_A:
            raise OutOfRange(name, amps, f"100 to {LARGEST_FAULT_A:g}")
