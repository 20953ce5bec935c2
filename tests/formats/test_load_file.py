"""Metered use: units, steps, zones, daylight time, other years, holes, and what is refused."""

from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np
import pytest

from ridge_tally.core.errors import FormatError
from ridge_tally.formats.load_file import LoadFile, read_load

MADRID, HOBART = ZoneInfo("Europe/Madrid"), ZoneInfo("Australia/Hobart")
# Every hour of a day uses so much, kWh: 0.1 at midnight to 2.4 before it.
HOURLY_KWH = (np.arange(24) + 1) / 10


def table(
    year: int = 2025,
    *,
    heading: str = "time;use kWh",
    step_min: int = 60,
    zone: ZoneInfo | None = None,
    offset_h: int = 1,
    written: Callable[[datetime], str] = lambda t: t.strftime("%Y-%m-%d %H:%M"),
    days: int = 365,
    lead_h: int = 0,
    scale: float = 1.0,
) -> list[str]:
    """A year of rows, each hour's use in its steps, the stamps in a zone's own clock."""
    first = datetime(year, 1, 1, tzinfo=UTC) - timedelta(hours=offset_h + lead_h)
    rows = [heading]
    for i in range(days * 1440 // step_min):
        moment = first + timedelta(minutes=step_min * i)
        standard = moment + timedelta(hours=offset_h)
        shown = moment.astimezone(zone) if zone else standard
        energy = HOURLY_KWH[standard.hour] * scale
        rows.append(f"{written(shown)};{energy:.4f}")
    return rows


def read(rows: list[str], offset_h: float = 1.0, *, month_first: bool = False) -> LoadFile:
    return read_load("\n".join(rows).encode(), "meter.csv", offset_h, month_first=month_first)


def is_whole(found: LoadFile) -> bool:
    return bool(np.allclose(found.power_w.reshape(365, 24), HOURLY_KWH * 1000))


@pytest.mark.parametrize(
    ("heading", "step_min", "scale"),
    [
        ("time;use kWh", 60, 1.0),
        ("time;Energy (Wh)", 60, 1000.0),
        ("time;Power [W]", 15, 1000.0),
        ("time;mean kW", 30, 1.0),
        ("time;kWh", 15, 0.25),
    ],
)
def test_power_and_energy_in_any_step_are_the_same_year(
    heading: str, step_min: int, scale: float
) -> None:
    found = read(table(heading=heading, step_min=step_min, scale=scale))
    assert is_whole(found)
    # By hand: 0.1 to 2.4 in tenths are 30 kWh a day.
    assert found.energy_kwh == pytest.approx(365 * 30)


@pytest.mark.parametrize(
    ("zone", "offset_h", "year"),
    [(MADRID, 1, 2025), (MADRID, 1, 2024), (HOBART, 10, 2025)],
)
@pytest.mark.parametrize("step_min", [15, 60])
def test_daylight_time_is_taken_off_in_both_hemispheres(
    zone: ZoneInfo, offset_h: int, year: int, step_min: int
) -> None:
    # More than the year, as such files have: the last twelve months are read.
    rows = table(
        year,
        zone=zone,
        offset_h=offset_h,
        step_min=step_min,
        scale=step_min / 60,
        days=367,
        lead_h=5,
    )
    found = read(rows, float(offset_h))
    assert is_whole(found)
    assert found.holes == 0
    assert any("Daylight time" in note for note in found.notes)


def test_stamps_with_their_zone_need_no_guess() -> None:
    rows = table(zone=MADRID, written=lambda t: t.isoformat(), heading="when;kWh")
    found = read(rows)
    assert is_whole(found)
    assert not any("Daylight" in note for note in found.notes)


def test_another_year_is_laid_on_its_dates_its_leap_day_left_out() -> None:
    found = read(table(2024, days=366))
    assert is_whole(found)
    assert any("It is of 2024" in note for note in found.notes)


def test_days_and_clocks_in_two_columns_and_other_orders_of_a_day() -> None:
    written = [
        (lambda t: f"{t:%d/%m/%Y};{t:%H:%M}", False),
        (lambda t: f"{t:%m/%d/%Y};{t:%I:%M %p}", True),
    ]
    for write, month_first in written:
        rows = table(heading="Date;Start time;kWh", written=write)
        assert is_whole(read(rows, month_first=month_first))


def test_stamps_at_the_ends_of_steps_are_told_and_moved() -> None:
    rows = table(written=lambda t: (t + timedelta(hours=1)).strftime("%Y-%m-%d %H:%M"))
    found = read(rows)
    assert is_whole(found)
    assert "Its stamps are the ends of the steps" in found.notes


def test_holes_are_filled_from_the_days_beside_and_told() -> None:
    rows = table()
    gone = [*rows[:1000], *rows[1030:]]
    gone[2000] = f"{gone[2000].split(';')[0]};"
    found = read(gone)
    assert found.holes == 31
    assert is_whole(found)
    assert any("31 hours are missing" in note for note in found.notes)


def test_the_column_of_use_is_read_not_the_one_sent_out() -> None:
    rows = [f"{row};{'Export kWh' if i == 0 else '9'}" for i, row in enumerate(table())]
    found = read(rows)
    assert is_whole(found)
    assert any("“use kWh” is read" in note for note in found.notes)


def no_unit(rows: list[str]) -> list[str]:
    return ["time;value", *rows[1:]]


def wrong_unit(rows: list[str]) -> list[str]:
    return ["time;MWh? W", *rows[1:]]


def half_a_year(rows: list[str]) -> list[str]:
    return rows[:4000]


def a_balance(rows: list[str]) -> list[str]:
    return [
        rows[0],
        *(f"{r.split(';')[0]};-1.5" if i % 9 == 0 else r for i, r in enumerate(rows[1:])),
    ]


def full_of_holes(rows: list[str]) -> list[str]:
    return [r for i, r in enumerate(rows) if i % 20 or i == 0]


def a_word(rows: list[str]) -> list[str]:
    return [*rows[:50], "2025-01-03 01:00;many", *rows[51:]]


def no_day(rows: list[str]) -> list[str]:
    return [*rows[:50], "soon;1.5", *rows[51:]]


@pytest.mark.parametrize(
    ("spoiled", "place", "remedy"),
    [
        (no_unit, "heading", "Write the unit into the heading"),
        (wrong_unit, "MWh? W", "correct the heading"),
        (half_a_year, "from 1 Jan 2025 to 16 Jun 2025", "Choose twelve months"),
        (a_balance, "below 0", "Choose the column of what was bought"),
        (full_of_holes, "8322 of a year's 8760 hours", "at most 240 hours missing"),
        (a_word, "row 51", "“many” is no number"),
        (no_day, "row 51", "Write days as 2025-03-04 17:30"),
    ],
)
def test_what_cannot_be_read_is_told_by_place_and_remedy(
    spoiled: Callable[[list[str]], list[str]], place: str, remedy: str
) -> None:
    with pytest.raises(FormatError) as told:
        read(spoiled(table()))
    assert "meter.csv" in str(told.value)
    assert place in str(told.value)
    assert remedy in str(told.value)


@pytest.mark.parametrize("content", [b"", b"\n\n", b"\xff\xfe\x00", b"time;kWh\n"])
def test_nothing_at_all_is_refused_in_words(content: bytes) -> None:
    with pytest.raises(FormatError):
        read_load(content, "meter.csv", 0.0, month_first=False)
