"""Weather files: real typical years of the reference library, and files broken on purpose.

The two TMY3 files travel with the reference library; their label is the end of the hour by
the format's manual (NREL/TP-581-43156).  The EPW files here are written by the test, hour by
hour, from one of them.
"""

import csv
import json
from importlib.resources import files

import numpy as np
import pytest
from click.testing import CliRunner

from ridge_tally.cli.program import main
from ridge_tally.core.errors import FormatError, OutOfRange, RidgeTallyError
from ridge_tally.core.sky.sun import sun_path
from ridge_tally.formats.weather_file import WeatherFormat, read_weather

SHIPPED = files("pvlib").joinpath("data")
CAROLINA = SHIPPED.joinpath("723170TYA.CSV").read_bytes()
ALASKA = SHIPPED.joinpath("703165TY.csv").read_bytes()
DAYS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)


def rows_of(content: bytes) -> tuple[list[str], list[list[str]]]:
    lines = content.decode().splitlines()
    return lines[:2], list(csv.reader(lines[2:]))


def tmy3(head: list[str], rows: list[list[str]]) -> bytes:
    return "\n".join([*head, *(",".join(r) for r in rows)]).encode()


def epw(
    latitude: float = 36.1, shift_h: int = 0, light: float = 1.0, mirror: bool = False
) -> bytes:
    """The Carolina year as EPW; ``mirror`` swaps the seasons for a southern place."""
    _, rows = rows_of(CAROLINA)
    half = len(rows) // 2
    rows = [*rows[half:], *rows[:half]] if mirror else rows
    rows = [*rows[shift_h:], *rows[:shift_h]]
    head = [
        f"LOCATION,Testville,XX,XXX,TMY3,0,{latitude},-79.95,-5.0,273.0",
        *["DESIGN CONDITIONS,0", "TYPICAL/EXTREME PERIODS,0", "GROUND TEMPERATURES,0"],
        *["HOLIDAYS/DAYLIGHT SAVINGS,No,0,0,0", "COMMENTS 1,x", "COMMENTS 2,x"],
        "DATA PERIODS,1,1,Data,Sunday, 1/ 1,12/31",
    ]
    lines = []
    hours = ((m + 1, d + 1, h + 1) for m, n in enumerate(DAYS) for d in range(n) for h in range(24))
    for (month, day, hour), row in zip(hours, rows, strict=True):
        ghi, dni, dhi = (float(row[i]) * light for i in (4, 7, 10))
        cells = [1999, month, day, hour, 60, "x", row[31], row[34], row[37], 98000, 0, 0, 300]
        lines.append(",".join(map(str, [*cells, ghi, dni, dhi, *[0] * 5, row[46], *[0] * 13])))
    return "\n".join([*head, *lines]).encode()


@pytest.mark.parametrize(("content", "best_rms"), [(CAROLINA, 1.5), (ALASKA, 0.9)])
def test_tmy3_hours_close_half_an_hour_before_their_label(content: bytes, best_rms: float) -> None:
    found = read_weather(content, "x.csv")
    assert found.written_as is WeatherFormat.TMY3
    assert found.closure is not None
    assert found.closure.offset_min == -30
    assert found.closure.best_rms_w_per_m2 == pytest.approx(best_rms, abs=0.2)
    # At the label itself the three irradiances part by many times that.
    at_label = dict(zip(found.closure.offsets_min, found.closure.rms_w_per_m2, strict=True))[0]
    assert at_label > 8 * found.closure.best_rms_w_per_m2


def test_monthly_sums_are_those_of_the_file_read_by_hand() -> None:
    _, rows = rows_of(CAROLINA)
    july = [r for r in rows if r[0].startswith("07/")]
    found = read_weather(CAROLINA, "x.csv").months[6]
    assert found.ghi_kwh_per_m2 == pytest.approx(sum(float(r[4]) for r in july) / 1000, rel=2e-3)
    assert found.dni_kwh_per_m2 == pytest.approx(sum(float(r[7]) for r in july) / 1000, rel=2e-3)
    assert found.air_degc == pytest.approx(np.mean([float(r[31]) for r in july]), abs=0.05)


def test_place_and_zone_are_the_file_s_own() -> None:
    found = read_weather(CAROLINA, "x.csv")
    assert found.place == "Greensboro Piedmont Triad Int"
    at = found.location
    assert (at.latitude_deg, at.longitude_deg, at.utc_offset_h) == (36.1, -79.95, -5)
    assert found.notes == ()
    assert not found.year.stand_in


def test_an_epw_of_the_same_year_gives_the_same_light_at_the_same_minutes() -> None:
    one, other = read_weather(CAROLINA, "a.csv"), read_weather(epw(), "b.epw")
    assert other.written_as is WeatherFormat.EPW
    assert other.closure is not None
    # The reader labels an EPW hour by its beginning.
    assert other.closure.offset_min == 30
    assert (one.year.time == other.year.time).all()
    assert one.year.ghi_w_per_m2 == pytest.approx(other.year.ghi_w_per_m2)
    noon = sun_path(one.year.time, one.location).zenith_deg
    assert one.year.ghi_w_per_m2[noon > 96].sum() == 0


def test_an_hour_of_daylight_time_in_the_label_is_found_out() -> None:
    found = read_weather(epw(shift_h=1), "x.epw")
    assert found.closure is not None
    assert (found.closure.offset_min, found.closure.edge) == (60, True)
    assert any("further off" in note for note in found.notes)


def test_a_southern_place_closes_alike() -> None:
    found = read_weather(epw(latitude=-36.1, mirror=True), "x.epw")
    june, december = found.months[5], found.months[11]
    assert december.ghi_kwh_per_m2 > 1.5 * june.ghi_kwh_per_m2


def holed(column: int, hours: range, value: str) -> bytes:
    head, rows = rows_of(CAROLINA)
    for hour in hours:
        rows[hour][column] = value
    return tmy3(head, rows)


def test_holes_are_filled_from_the_days_beside_and_told() -> None:
    found = read_weather(holed(4, range(4000, 4006), "-9900"), "x.csv")
    (gap,) = found.gaps
    assert (gap.quantity, gap.missing + gap.impossible, gap.first_hour) == ("global light", 6, 4001)
    assert found.year.ghi_w_per_m2.min() >= 0


HEAD, ROWS = rows_of(CAROLINA)


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (tmy3(HEAD, ROWS[:5000]), "5000 hours, a year has 8760. .*cut short"),
        (tmy3(HEAD, ROWS[:1]), "a year has 8760|does not read"),
        (b"hello", "does not read as TMY3"),
        (b"", "does not read as TMY3"),
        (epw(light=3.6), "hours are missing or impossible. .*units"),
        (holed(4, range(300, 700), "9999"), "global light.*400 of 8760"),
        (holed(31, range(0, 400), "99.9"), "air.*400 of 8760"),
        (b"x" * (17 * 1024 * 1024), "17|18 MB is no hourly year"),
    ],
)
def test_a_file_that_is_no_year_is_refused_in_words(content: bytes, says: str) -> None:
    with pytest.raises(FormatError, match=says):
        read_weather(content, "x.csv")


def test_a_place_beyond_the_polar_circle_is_refused() -> None:
    with pytest.raises(OutOfRange, match=r"latitude in degrees reads 70"):
        read_weather(epw(latitude=70.0), "x.epw")


def test_a_year_of_another_zone_says_so() -> None:
    head = [HEAD[0].replace(",-5.0,", ",3.0,").replace(",-5,", ",3,"), HEAD[1]]
    try:
        notes = read_weather(tmy3(head, ROWS), "x.csv").notes
    except RidgeTallyError as error:
        notes = (str(error),)
    assert any("at night" in note or "disagree" in note for note in notes)


def test_the_command_line_tells_label_offset_gaps_and_months(tmp_path) -> None:
    file = tmp_path / "carolina.csv"
    file.write_bytes(CAROLINA)
    answer = CliRunner().invoke(main, ["weather", str(file), "--json"])
    told = json.loads(answer.output)
    assert (told["format"], told["label_offset_min"], told["gaps"]) == ("tmy3", -30, [])
    assert len(told["months"]) == 12
    words = CliRunner().invoke(main, ["weather", str(file)]).output
    assert "middle of the hour -30 min from the label" in words
    broken = CliRunner().invoke(main, ["weather", __file__])
    assert broken.exit_code == 2
