"""Simulated meters of a job, and its commissioning as a table."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ridge_tally.core.proving.practice import planted_by
from ridge_tally.core.proving.rig import Kind
from ridge_tally.core.working import number_of
from ridge_tally.formats.csv_file import csv_file
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.busbar import service_volts
from ridge_tally.services.papers import SetAt, design_at
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulators.instruments import shown
from ridge_tally.studies.proving.commissioning import Commissioning, commissioning
from ridge_tally.studies.proving.hunt import test_named
from ridge_tally.studies.proving.string_tests import BACK_TO_CELL_K_PER_W_PER_M2
from ridge_tally.studies.proving.yard import yard_rig

# A thermometer on a module's back, beside the readings of the bench.
BACK = "back_degc"


@dataclass(frozen=True, slots=True)
class Shown:
    """What a simulated instrument shows, as it would be typed."""

    reading: str
    place: str
    typed: str


def meters_show(
    workspace: Workspace, at: SetAt, wanted: Sequence[tuple[str, str, int]]
) -> Iterator[Shown]:
    """Yield what simulated instruments show of an option: a sound one, or with its number's faults.

    Raises
    ------
    NotFound
        If the option is not there, or has no such string, array or reading.
    MissingDatum
        If no module is in a string.
    """
    design, _ = design_at(workspace, at)
    seed = design.job.proving.meters_seed
    rig, lit = yard_rig(workspace.desk, design)
    faults = () if seed is None else planted_by(rig, lit, seed)
    for reading, place, turn in wanted:
        kind = Kind.CELL.value if reading == BACK else reading
        where = place or (rig.planes[0] if reading in (BACK, Kind.LIGHT.value) else "")
        test = test_named(rig, kind, where)
        value = shown(rig, lit, faults, test, seed or 0, turn)
        if reading == BACK and isinstance(value, float):
            value -= BACK_TO_CELL_K_PER_W_PER_M2 * lit.light_w_per_m2[test.at]
        yield Shown(reading, place, value if isinstance(value, str) else f"{value:.2f}")


def commissioning_of(design: Design) -> Commissioning:
    """Return the steps of commissioning of an option with what its log holds."""
    return commissioning(design, number_of(service_volts(design)))


def commissioning_rows(design: Design) -> bytes:
    """Return commissioning as a table with units, one row a reading."""
    return csv_file(
        [
            {
                "step": step.title,
                "what": row.title,
                "unit": row.unit,
                "due": row.came_out.due,
                "band": row.came_out.band,
                "read": row.typed,
                "outcome": row.came_out.outcome.value,
                "told": row.came_out.told,
                "who": row.who,
                "practice": "practice" if row.practice else "",
            }
            for step in commissioning_of(design).steps
            for row in step.rows
        ]
    )
