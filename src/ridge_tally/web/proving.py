"""Routes of Proving: a moment and whether it is normal, commissioning, searches, practice, simulated meters."""

from flask import Response
from pydantic import BaseModel, Field

from ridge_tally.core.brief.typed import parse_day_of_year
from ridge_tally.core.job.document import month_first
from ridge_tally.core.job.proving import Practice
from ridge_tally.core.proving.rig import Kind
from ridge_tally.core.sky.given_sky import Sky
from ridge_tally.core.units import parse_number, parse_temperature_degc
from ridge_tally.formats.csv_file import csv_file
from ridge_tally.rules.design import Design
from ridge_tally.services.proving import Shown, commissioning_of, commissioning_rows, meters_show
from ridge_tally.simulation.moment import Asked
from ridge_tally.studies.proving.at_moment import (
    MomentView,
    TypedReading,
    at_moment,
    parse_minute,
)
from ridge_tally.studies.proving.commissioning import Commissioning
from ridge_tally.studies.proving.hunt import HuntView, hunt_view
from ridge_tally.studies.proving.yard import YardView, yard_view
from ridge_tally.views.proving.records import RecordsView, records_view, serial_rows
from ridge_tally.web.at import OPTION, design_at, given_up, set_at, workspace
from ridge_tally.web.models import Found, OptionPath
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out

bp = Routes("proving", __name__, url_prefix="/api")
LONGEST, MOST_READINGS = 60, 120


class ReadingTyped(BaseModel):
    """A reading as it is typed: of which kind, of which string or array from 0."""

    kind: Kind
    at: int = Field(ge=0, le=500)
    typed: str = Field(max_length=LONGEST)


class MomentRequest(BaseModel):
    """A moment as it is typed; nothing: the model says it."""

    day: str = Field("21 Jun", max_length=LONGEST)
    time: str = Field("12:00", max_length=LONGEST)
    sky: Sky = Sky.CLEAR
    measured: str = Field("", max_length=LONGEST)
    measured_on: int = Field(0, ge=0, le=100)
    air: str = Field("", max_length=LONGEST)
    cell: str = Field("", max_length=LONGEST)
    readings: list[ReadingTyped] = Field(default_factory=list, max_length=MOST_READINGS)


class MeterRequest(BaseModel):
    """What simulated instruments are held to: a reading and the name of what it is of."""

    reading: str = Field(max_length=LONGEST)
    place: str = Field("", max_length=LONGEST)
    turn: int = Field(0, ge=0, le=1000)


class MetersRequest(BaseModel):
    """Several of them at once."""

    wanted: list[MeterRequest] = Field(max_length=MOST_READINGS)


def _asked(design: Design, body: MomentRequest) -> Asked:
    measured, air, cell = body.measured.strip(), body.air.strip(), body.cell.strip()
    return Asked(
        day=parse_day_of_year(body.day, "Day", month_first=month_first(design.job)),
        minute=parse_minute(body.time),
        sky=body.sky,
        measured_w_per_m2=parse_number(measured, "Light", "W/m²") if measured else None,
        measured_on=body.measured_on,
        air_degc=parse_temperature_degc(air, "Air") if air else None,
        cell_degc=parse_temperature_degc(cell, "Cells") if cell else None,
    )


@bp.post(f"{OPTION}/moment", operation_id="moment", responses={200: Found[MomentView]})
def post_moment(path: OptionPath, body: MomentRequest) -> Found[MomentView]:
    """What everything should read at a moment, and whether what was read is normal."""
    here, design = workspace(), design_at(path)
    asked = _asked(design, body)
    typed = [TypedReading(r.kind, r.at, r.typed) for r in body.readings]
    found = here.aside.do(lambda: at_moment(here.desk, design, asked, typed), given_up())
    return Found[MomentView](found=found)


@bp.get(
    f"{OPTION}/commissioning", operation_id="commissioning", responses={200: Found[Commissioning]}
)
def get_commissioning(path: OptionPath) -> Found[Commissioning]:
    """The steps of commissioning with what was read."""
    return Found[Commissioning](found=commissioning_of(design_at(path)))


@bp.get(f"{OPTION}/commissioning.csv", operation_id="commissioning_csv")
def get_commissioning_csv(path: OptionPath) -> Response:
    """The same as a table."""
    name = f"{path.job_id}-{path.option_id}-r{path.revision}-commissioning.csv"
    return handed_out(commissioning_rows(design_at(path)), "text/csv", name)


@bp.get(f"{OPTION}/records", operation_id="records", responses={200: Found[RecordsView]})
def get_records(path: OptionPath) -> Found[RecordsView]:
    """What stands beside what was drawn, serial numbers, and the slots of the records."""
    return Found[RecordsView](found=records_view(design_at(path)))


@bp.get(f"{OPTION}/serials.csv", operation_id="serials_csv")
def get_serials_csv(path: OptionPath) -> Response:
    """The serial numbers in mounting order."""
    name = f"{path.job_id}-{path.option_id}-r{path.revision}-serials.csv"
    return handed_out(csv_file(serial_rows(design_at(path))), "text/csv", name)


@bp.get(f"{OPTION}/hunt", operation_id="hunt", responses={200: Found[HuntView]})
def get_hunt(path: OptionPath) -> Found[HuntView]:
    """The search for a fault as it stands."""
    here, design = workspace(), design_at(path)
    hunt = design.job.proving.hunt
    return Found[HuntView](
        found=here.aside.do(lambda: hunt_view(here.desk, design, hunt), given_up())
    )


@bp.get(f"{OPTION}/yard", operation_id="yard", responses={200: Found[YardView | None]})
def get_yard(path: OptionPath) -> Found[YardView | None]:
    """The practice as it stands; nothing while none is begun."""
    here, design = workspace(), design_at(path)
    practice: Practice | None = design.job.proving.practice
    if practice is None:
        return Found[YardView | None](found=None)
    found = here.aside.do(lambda: yard_view(here.desk, design, practice), given_up())
    return Found[YardView | None](found=found)


@bp.post(f"{OPTION}/meters", operation_id="meters", responses={200: Found[list[Shown]]})
def post_meters(path: OptionPath, body: MetersRequest) -> Found[list[Shown]]:
    """What simulated instruments show; the job records it by the edit that follows."""
    here, at = workspace(), set_at(path)
    wanted = [(w.reading, w.place, w.turn) for w in body.wanted]
    return Found[list[Shown]](
        found=here.aside.do(lambda: list(meters_show(here, at, wanted)), given_up())
    )
