"""Simulated meters of a job; its commissioning, search and production as tables and reports."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date

from ridge_tally.core.proving.practice import planted_by
from ridge_tally.core.proving.rig import Kind
from ridge_tally.core.working import number_of
from ridge_tally.formats.csv_file import Row, csv_file
from ridge_tally.formats.report_pdf import write_report_pdf
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.busbar import service_volts
from ridge_tally.services.papers import SetAt, design_at
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulators.instruments import shown
from ridge_tally.studies.proving.commissioning import Commissioning, commissioning
from ridge_tally.studies.proving.gateway import Gateway, gateway_csv
from ridge_tally.studies.proving.hunt import HuntView, hunt_view, test_named
from ridge_tally.studies.proving.production import (
    SIMULATED,
    ProductionView,
    production_view,
    reporting_units,
)
from ridge_tally.studies.proving.string_tests import BACK_TO_CELL_K_PER_W_PER_M2
from ridge_tally.studies.proving.yard import yard_rig
from ridge_tally.views.proving.reports import (
    commissioning_content,
    hunt_content,
    production_content,
)

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


def hunt_of(workspace: Workspace, design: Design) -> HuntView:
    """Return the search of a job; raises as ``hunt_view`` does."""
    return hunt_view(workspace.desk, design, design.job.proving.hunt)


def hunt_rows(found: HuntView) -> bytes:
    """Return a search as a table, one row a reading in the order they were taken."""
    rows: list[Row] = [
        {
            "step": n,
            "reading": s.title,
            "of": s.place,
            "read": s.typed,
            "unit": s.unit,
            "problem": s.problem,
            "told": s.told,
            "ruled_out": "; ".join(s.ruled_out),
            "practice": "practice" if s.practice else "",
        }
        for n, s in enumerate(found.trail, 1)
    ]
    return csv_file(rows)


def production_rows(found: ProductionView) -> bytes:
    """Return a log of production as a table, one row a day."""
    return csv_file(
        [
            {
                "day": d.day.isoformat(),
                "made_kwh": round(d.made_kwh, 3),
                "due_kwh": round(d.due_kwh, 3),
                "ratio_of_judged": None if d.ratio is None else round(d.ratio, 4),
                "standing": d.standing.value,
                "left_out": d.left_out,
            }
            for d in found.days
        ]
    )


def commissioning_pdf(workspace: Workspace, at: SetAt) -> bytes:
    """Return the report of a commissioning; NotFound if the option is not there."""
    design, stamp = design_at(workspace, at)
    return write_report_pdf(commissioning_content(design, stamp, commissioning_of(design)))


def hunt_pdf(workspace: Workspace, at: SetAt) -> bytes:
    """Return the report of a search; raises as ``hunt_view`` does."""
    design, stamp = design_at(workspace, at)
    return write_report_pdf(hunt_content(design, stamp, hunt_of(workspace, design)))


def production_pdf(workspace: Workspace, at: SetAt, number: int) -> bytes:
    """Return the report of a gateway's file, by its number from 0; raises as its view does."""
    design, stamp = design_at(workspace, at)
    found = production_view(workspace.desk, design, number)
    return write_report_pdf(production_content(design, stamp, found))


# A stand-in of a gateway logs so many days, up to a day of the job's own.
SIMULATED_DAYS = 120


def simulated_log(workspace: Workspace, design: Design, number: int) -> tuple[bytes, str]:
    """Return the file a stand-in of a gateway writes of an option, and its name.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If no module is in a string, or a datasheet lacks what the model needs.
    """
    log = design.job.proving
    first = log.built.day if log.built else date(workspace.clock().year - 1, 4, 1)
    gateway = Gateway(first, SIMULATED_DAYS, number, zone=design.job.site.time_zone)
    content = gateway_csv(workspace.desk, design, gateway, list(reporting_units(design)))
    return content.encode(), f"{SIMULATED}-{number}.csv"
