"""Weather files: EPW and TMY3 through the reference library's readers, judged before use."""

import io
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
import pandas as pd
from numpy.typing import NDArray
from pvlib import iotools

from ridge_tally.core.errors import FormatError, OutOfRange
from ridge_tally.core.sky.closure import Closure, scan_closure
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sky.weather_year import HOURS, WeatherYear, hour_middles, month_of
from ridge_tally.formats.holes import MOST_HOLES, filled

FloatArray = NDArray[np.float64]
LARGEST_FILE_BYTES = 16 * 1024 * 1024
POLAR_DEG = 66.0
# Below this closure the label is settled; above it the three irradiances do not belong together.
CLOSES_WITHIN_W_PER_M2 = 20.0
# Light stays under the sun's own outside the air, give or take a bad sensor.
MOST_W_PER_M2 = 1500.0
RETRY = "Choose another file."


class WeatherFormat(StrEnum):
    """How a file is written."""

    EPW = "epw"
    TMY3 = "tmy3"


@dataclass(frozen=True, slots=True)
class Gap:
    """A quantity with values missing or impossible: how many, and the first hour's number."""

    quantity: str
    missing: int
    impossible: int
    first_hour: int


@dataclass(frozen=True, slots=True)
class MonthSum:
    """Light on the level in a month, kWh/m², and mean air."""

    ghi_kwh_per_m2: float
    dni_kwh_per_m2: float
    dhi_kwh_per_m2: float
    air_degc: float


@dataclass(frozen=True, slots=True)
class WeatherFile:
    """A file's year with where it is for, its true label, and what was put right in it."""

    file: str
    written_as: WeatherFormat
    place: str
    location: Location
    year: WeatherYear
    closure: Closure | None
    gaps: tuple[Gap, ...]
    months: tuple[MonthSum, ...]
    notes: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Quantity:
    """A column of the readers, what it is called, and what it can be."""

    column: str
    name: str
    low: float
    high: float


QUANTITIES = (
    _Quantity("ghi", "global light", 0.0, MOST_W_PER_M2),
    _Quantity("dni", "beam", 0.0, MOST_W_PER_M2),
    _Quantity("dhi", "diffuse light", 0.0, MOST_W_PER_M2),
    _Quantity("temp_air", "air", -70.0, 60.0),
    _Quantity("wind_speed", "wind", 0.0, 60.0),
)


def read_weather(content: bytes, file: str) -> WeatherFile:
    """Return the year of an EPW or TMY3 file.

    Raises
    ------
    FormatError
        Naming the file, the place and the remedy: not such a file, cut short, in other steps
        than hours, or with more holes than a year can have.
    OutOfRange
        For a place beyond the polar circles.
    """
    if len(content) > LARGEST_FILE_BYTES:
        raise FormatError(file, "", f"{len(content) / 1e6:.0f} MB is no hourly year", RETRY)
    text = content.decode("utf-8", errors="replace").lstrip("\ufeff")
    written_as = WeatherFormat.EPW if text.startswith("LOCATION") else WeatherFormat.TMY3
    data, meta = _read(text, written_as, file)
    location = _location(meta, file)
    data = data[~((data.index.month == 2) & (data.index.day == 29))]
    _require_hours(data, file)
    values, gaps = _judged(data, file)
    label = data.index.tz_localize(None).to_numpy().astype("datetime64[s]")
    closure = scan_closure(label, location, values["ghi"], values["dni"], values["dhi"])
    offset_min = closure.offset_min if closure is not None else 0
    year = _year(label, offset_min, values, file)
    return WeatherFile(
        file=file,
        written_as=written_as,
        place=_place(meta, file),
        location=location,
        year=year,
        closure=closure,
        gaps=gaps,
        months=_months(year),
        notes=_notes(closure, values, location, year),
    )


def _read(
    text: str, written_as: WeatherFormat, file: str
) -> tuple[pd.DataFrame, dict[str, object]]:
    source = io.StringIO(text)
    try:
        if written_as is WeatherFormat.EPW:
            data, meta = iotools.read_epw(source, coerce_year=1999)
        else:
            data, meta = iotools.read_tmy3(source, coerce_year=1999, map_variables=True)
    except (
        ValueError,
        KeyError,
        IndexError,
        TypeError,
        AttributeError,
        StopIteration,
        OverflowError,
    ) as error:
        raise FormatError(
            file,
            "",
            f"it does not read as {written_as.value.upper()} ({str(error).strip()[:80]})",
            "Choose an hourly EPW or TMY3 file, whole and as it was downloaded.",
        ) from None
    lacking = [q.name for q in QUANTITIES if q.column not in data.columns]
    if lacking:
        raise FormatError(file, "columns", f"no {', '.join(lacking)} in it", RETRY)
    return data, meta


def _location(meta: dict[str, object], file: str) -> Location:
    try:
        latitude, longitude = float(str(meta["latitude"])), float(str(meta["longitude"]))
        elevation, offset = float(str(meta["altitude"])), float(str(meta["TZ"]))
    except (KeyError, ValueError):
        raise FormatError(file, "heading", "it names no place and zone", RETRY) from None
    if not np.isfinite([latitude, longitude, elevation, offset]).all():
        raise FormatError(file, "heading", "its place is not a number", RETRY)
    if abs(latitude) > POLAR_DEG:
        raise OutOfRange(
            f"{file}, latitude in degrees", latitude, f"between −{POLAR_DEG:g} and {POLAR_DEG:g}"
        )
    if not (-180 <= longitude <= 180 and -12 <= offset <= 14):
        raise OutOfRange(f"{file}, longitude in degrees", longitude, "of its time zone")
    return Location(latitude, longitude, elevation, offset)


def _place(meta: dict[str, object], file: str) -> str:
    words = [str(meta.get(name, "")).strip(' "').title() for name in ("Name", "city")]
    return next((w for w in words if w), file)


def _require_hours(data: pd.DataFrame, file: str) -> None:
    if len(data) == 2 * HOURS or len(data) == 4 * HOURS:
        minutes = 60 * HOURS // len(data)
        raise FormatError(
            file, "rows", f"its steps are {minutes} minutes", "Choose the hourly file of the place."
        )
    if len(data) != HOURS:
        raise FormatError(
            file,
            "rows",
            f"{len(data)} hours, a year has {HOURS}",
            "The file was cut short or holds more than a year: download it again.",
        )


def _judged(data: pd.DataFrame, file: str) -> tuple[dict[str, FloatArray], tuple[Gap, ...]]:
    """Return the columns with holes filled from beside, and what was filled."""
    values: dict[str, FloatArray] = {}
    gaps = []
    for q in QUANTITIES:
        column = pd.to_numeric(data[q.column], errors="coerce").to_numpy(dtype=float)
        missing = ~np.isfinite(column)
        wrong = ~missing & ((column < q.low) | (column > q.high))
        holes = missing | wrong
        if holes.sum() > MOST_HOLES:
            raise FormatError(
                file,
                q.name,
                f"{int(holes.sum())} of {HOURS} hours are missing or impossible",
                "Its units may be others, or the station was out: choose another file.",
            )
        if holes.any():
            first = int(np.argmax(holes))
            gaps.append(Gap(q.name, int(missing.sum()), int(wrong.sum()), first + 1))
            column = filled(column, holes)
        values[q.column] = column
    return values, tuple(gaps)


def _year(
    label: NDArray[np.datetime64], offset_min: int, values: dict[str, FloatArray], file: str
) -> WeatherYear:
    """Return the hours in the order of the nominal year, each at its true middle."""
    seconds = (label - label.astype("datetime64[Y]")).astype("timedelta64[s]").astype(np.int64)
    middle = (seconds + offset_min * 60) % (HOURS * 3600)
    order = np.argsort(middle, kind="stable")
    start = hour_middles()[0].astype("datetime64[D]").astype("datetime64[s]")
    return WeatherYear(
        time=start + middle[order].astype("timedelta64[s]"),
        ghi_w_per_m2=values["ghi"][order],
        dni_w_per_m2=values["dni"][order],
        dhi_w_per_m2=values["dhi"][order],
        air_degc=values["temp_air"][order],
        wind_m_per_s=values["wind_speed"][order],
        name=file,
        stand_in=False,
    )


def _months(year: WeatherYear) -> tuple[MonthSum, ...]:
    month = month_of(year.time)
    return tuple(
        MonthSum(
            float(year.ghi_w_per_m2[month == m].sum() / 1000),
            float(year.dni_w_per_m2[month == m].sum() / 1000),
            float(year.dhi_w_per_m2[month == m].sum() / 1000),
            float(year.air_degc[month == m].mean()),
        )
        for m in range(12)
    )


def _notes(
    closure: Closure | None, values: dict[str, FloatArray], location: Location, year: WeatherYear
) -> tuple[str, ...]:
    notes = []
    if closure is None:
        notes.append("Beam or diffuse light is missing throughout: the label cannot be checked")
    elif closure.best_rms_w_per_m2 > CLOSES_WITHIN_W_PER_M2:
        notes.append(
            f"Global, beam and diffuse light disagree by {closure.best_rms_w_per_m2:.0f} W/m² at "
            "the best label: they may not belong together"
        )
    if closure is not None and closure.edge:
        notes.append("The best label lies at the end of what was tried: it may be further off")
    dark = sun_path(year.time, location).zenith_deg > 96
    lit = float(values["ghi"].sum() and year.ghi_w_per_m2[dark].sum() / values["ghi"].sum())
    if lit > 0.005:
        notes.append(
            f"{lit * 100:.1f} % of the light falls at night: longitude or hours from UTC are "
            "those of another place"
        )
    return tuple(notes)
