"""Routes of Proving: a moment, commissioning, searches, production, practice, simulated meters."""

from datetime import date

from flask import Response
from pydantic import BaseModel, Field

from ridge_tally.core.brief.typed import parse_day_of_year
from ridge_tally.core.job.document import month_first
from ridge_tally.core.job.proving import Practice, ProductionFile
from ridge_tally.core.proving.rig import Kind
from ridge_tally.core.sky.given_sky import Sky
from ridge_tally.core.units import parse_number, parse_temperature_degc
from ridge_tally.formats.csv_file import csv_file
from ridge_tally.formats.tester_file import TestedRows, read_tester
from ridge_tally.rules.design import Design
from ridge_tally.services.proving import (
    Shown,
    commissioning_of,
    commissioning_pdf,
    commissioning_rows,
    hunt_of,
    hunt_pdf,
    hunt_rows,
    meters_show,
    production_pdf,
    production_rows,
    simulated_log,
)
from ridge_tally.services.taken_in import take_in_production
from ridge_tally.simulation.moment import Asked
from ridge_tally.studies.proving.at_moment import (
    MomentView,
    TypedReading,
    at_moment,
    parse_minute,
)
from ridge_tally.studies.proving.commissioning import Commissioning
from ridge_tally.studies.proving.hunt import HuntView
from ridge_tally.studies.proving.production import (
    DayCourse,
    ProductionView,
    day_course,
    production_view,
)
from ridge_tally.studies.proving.yard import YardView, yard_view
from ridge_tally.views.proving.records import RecordsView, records_view, serial_rows
from ridge_tally.views.proving.serial_svg import serial_svg
from ridge_tally.web.at import OPTION, design_at, given_up, set_at, workspace
from ridge_tally.web.models import Found, OptionPath
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out, sent_file

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


def _named(path: OptionPath, what: str) -> str:
    return f"{path.job_id}-{path.option_id}-r{path.revision}-{what}"


@bp.get(
    f"{OPTION}/commissioning", operation_id="commissioning", responses={200: Found[Commissioning]}
)
def get_commissioning(path: OptionPath) -> Found[Commissioning]:
    """The steps of commissioning with what was read."""
    return Found[Commissioning](found=commissioning_of(design_at(path)))


@bp.get(f"{OPTION}/commissioning.csv", operation_id="commissioning_csv")
def get_commissioning_csv(path: OptionPath) -> Response:
    """The same as a table."""
    return handed_out(
        commissioning_rows(design_at(path)), "text/csv", _named(path, "commissioning.csv")
    )


@bp.post(
    f"{OPTION}/commissioning/read",
    operation_id="read_tester",
    responses={200: Found[list[TestedRows]]},
)
def post_tester(path: OptionPath) -> Found[list[TestedRows]]:
    """What a tester's file sent as the body holds; the job records it by the edits that follow."""
    tags = [s.tag for s in design_at(path).option.strings]
    return Found[list[TestedRows]](found=list(read_tester(*sent_file("tester file"), tags)))


@bp.get(f"{OPTION}/records", operation_id="records", responses={200: Found[RecordsView]})
def get_records(path: OptionPath) -> Found[RecordsView]:
    """What stands beside what was drawn, serial numbers, and the slots of the records."""
    return Found[RecordsView](found=records_view(design_at(path)))


@bp.get(f"{OPTION}/serials.csv", operation_id="serials_csv")
def get_serials_csv(path: OptionPath) -> Response:
    """The serial numbers in mounting order."""
    return handed_out(
        csv_file(serial_rows(design_at(path))), "text/csv", _named(path, "serials.csv")
    )


@bp.get(f"{OPTION}/serials.svg", operation_id="serials_svg")
def get_serials_svg(path: OptionPath) -> Response:
    """The serial numbers of the modules where they are on the roof."""
    return handed_out(serial_svg(design_at(path)), "image/svg+xml", _named(path, "serials.svg"))


@bp.get(f"{OPTION}/hunt", operation_id="hunt", responses={200: Found[HuntView]})
def get_hunt(path: OptionPath) -> Found[HuntView]:
    """The search for a fault as it stands."""
    here, design = workspace(), design_at(path)
    return Found[HuntView](found=here.aside.do(lambda: hunt_of(here, design), given_up()))


@bp.get(f"{OPTION}/hunt.csv", operation_id="hunt_csv")
def get_hunt_csv(path: OptionPath) -> Response:
    """The readings of the search as a table."""
    here, design = workspace(), design_at(path)
    found = here.aside.do(lambda: hunt_rows(hunt_of(here, design)), given_up())
    return handed_out(found, "text/csv", _named(path, "search.csv"))


@bp.get(f"{OPTION}/hunt.pdf", operation_id="hunt_pdf")
def get_hunt_pdf(path: OptionPath) -> Response:
    """The search as a report."""
    here, at = workspace(), set_at(path)
    found = here.aside.do(lambda: hunt_pdf(here, at), given_up())
    return handed_out(found, "application/pdf", _named(path, "search.pdf"), shown=True)


@bp.get(f"{OPTION}/commissioning.pdf", operation_id="commissioning_pdf")
def get_commissioning_pdf(path: OptionPath) -> Response:
    """Commissioning as a report."""
    here, at = workspace(), set_at(path)
    found = here.aside.do(lambda: commissioning_pdf(here, at), given_up())
    return handed_out(found, "application/pdf", _named(path, "commissioning.pdf"), shown=True)


class LogPath(OptionPath):
    """A gateway's file of the job by its number from 0, seen by an option."""

    number: int = Field(ge=0, le=100)


class DayQuery(BaseModel):
    """A day of the file."""

    day: date


@bp.post(
    f"{OPTION}/production", operation_id="take_production", responses={201: Found[ProductionFile]}
)
def post_production(path: OptionPath) -> tuple[Found[ProductionFile], int]:
    """Keep the gateway's log sent as the body; its name comes encoded."""
    here, design = workspace(), design_at(path)
    content, name = sent_file("log")
    kept = here.aside.do(lambda: take_in_production(here, design, content, name), given_up())
    return Found[ProductionFile](found=kept), 201


class GatewayRequest(BaseModel):
    """Which stand-in of a gateway is asked: by its number."""

    number: int = Field(0, ge=0, le=2**31 - 1)


@bp.post(f"{OPTION}/gateway", operation_id="ask_gateway", responses={201: Found[ProductionFile]})
def post_gateway(path: OptionPath, body: GatewayRequest) -> tuple[Found[ProductionFile], int]:
    """Keep the log of a simulated gateway; the job records it by the edit that follows."""
    here, design = workspace(), design_at(path)

    def taken() -> ProductionFile:
        return take_in_production(here, design, *simulated_log(here, design, body.number))

    return Found[ProductionFile](found=here.aside.do(taken, given_up())), 201


LOG = f"{OPTION}/production/<int:number>"


@bp.get(LOG, operation_id="production", responses={200: Found[ProductionView]})
def get_production(path: LogPath) -> Found[ProductionView]:
    """A gateway's log beside what was due: months, days, signs, modules."""
    here, design = workspace(), design_at(path)
    found = here.aside.do(lambda: production_view(here.desk, design, path.number), given_up())
    return Found[ProductionView](found=found)


@bp.get(f"{LOG}/day", operation_id="production_day", responses={200: Found[DayCourse]})
def get_production_day(path: LogPath, query: DayQuery) -> Found[DayCourse]:
    """A day of it, step by step."""
    here, design = workspace(), design_at(path)
    found = here.aside.do(lambda: day_course(here.desk, design, path.number, query.day), given_up())
    return Found[DayCourse](found=found)


@bp.get(f"{LOG}/days.csv", operation_id="production_csv")
def get_production_csv(path: LogPath) -> Response:
    """Its days as a table."""
    here, design = workspace(), design_at(path)
    found = here.aside.do(
        lambda: production_rows(production_view(here.desk, design, path.number)), given_up()
    )
    return handed_out(found, "text/csv", _named(path, "production.csv"))


@bp.get(f"{LOG}/report.pdf", operation_id="production_pdf")
def get_production_pdf(path: LogPath) -> Response:
    """Its report."""
    here, at = workspace(), set_at(path)
    found = here.aside.do(lambda: production_pdf(here, at, path.number), given_up())
    return handed_out(found, "application/pdf", _named(path, "production.pdf"), shown=True)


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
