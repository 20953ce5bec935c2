"""Logs of gateways: the same made-up days in every kind of table are the same energy, or refused in words."""

from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np
import pytest

from ridge_tally.core.errors import FormatError
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.formats.logged_columns import bare
from ridge_tally.formats.production_file import LogTerms, ProductionLog, read_production

TERMS = LogTerms(utc_offset_h=1.0, rated_w=6000.0, modules=2, month_first=False, called={})
FIRST = datetime(2025, 5, 20, tzinfo=UTC)
DAYS = 6
# By hand: an hour rises by 0.5 kW to 3 kW at noon and falls alike, 18 kWh a day.
HOURLY_KW = [max(0.0, 3.0 - 0.5 * abs(h - 12)) for h in range(24)]
DAY_KWH = 18.0


def steps(
    step_min: int = 15, days: int = DAYS, first: datetime = FIRST
) -> Iterator[tuple[datetime, float]]:
    """Each step's start by standard time, and its kW."""
    for n in range(days * 24 * 60 // step_min):
        when = first + timedelta(minutes=n * step_min)
        yield when, HOURLY_KW[when.hour]


def table(
    heading: str, row: Callable[[datetime, float], str], step_min: int = 15, days: int = DAYS
) -> bytes:
    return "\n".join([heading, *(row(t, kw) for t, kw in steps(step_min, days))]).encode()


def counter(step_min: int, reset: Callable[[datetime], bool]) -> bytes:
    """A counter read at the end of each step."""
    total, lines = 700.0, ["Time,Total energy kWh"]
    for when, kw in steps(step_min):
        lines.append(f"{when:%Y-%m-%d %H:%M},{total:.4f}")
        total = (0.0 if reset(when) else total) + kw * step_min / 60
    last = FIRST + timedelta(days=DAYS)
    return "\n".join([*lines, f"{last:%Y-%m-%d %H:%M},{total:.4f}"]).encode()


def read(content: bytes, terms: LogTerms = TERMS) -> ProductionLog:
    return read_production(content, "log.csv", terms)


def daily_kwh(log: ProductionLog) -> list[float]:
    return (np.nansum(log.power_w, axis=1) * log.step_min / 60 / 1000).round(2).tolist()


KINDS: dict[str, bytes] = {
    "kW, comma": table("Time,AC power [kW]", lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw}"),
    "W, semicolon and decimal comma": table(
        "Zeit;Solar production W", lambda t, kw: f"{t:%d.%m.%Y %H:%M};{kw * 1000:.1f}".replace(".1;", ".1;")
    ),
    "decimal comma": table(
        "Date;Time;PV power (kW)",
        lambda t, kw: f"{t:%d/%m/%Y};{t:%H:%M};{str(kw).replace('.', ',')}",
    ),
    "Wh in each step": table("Time,Energy Wh", lambda t, kw: f"{t:%Y-%m-%dT%H:%M:%S},{kw * 250}"),
    "kWh by the hour": table("Time,Yield kWh", lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw}", 60),
    "five minutes": table("Time,Power W", lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw * 1000}", 5),
    "ten minutes": table("Time,Power W", lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw * 1000}", 10),
    "half a day’s clock": table(
        "Date and time\tProduction kW", lambda t, kw: f"{t:%Y-%m-%d %I:%M %p}\t{kw}"
    ),
    "no unit, watts by its size": table(
        "measured_on,ac_power", lambda t, kw: f"{t:%Y-%m-%d %H:%M:%S},{kw * 1000}"
    ),
    "no unit, kilowatts by its size": table(
        "measured_on,ac_power", lambda t, kw: f"{t:%Y-%m-%d %H:%M:%S},{kw}"
    ),
    "units in a row of their own": table(
        "Stamp,Power\n,W", lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw * 1000}"
    ),
    "a title above": table(
        "Invented gateway\nTime;Power kW", lambda t, kw: f"{t:%Y-%m-%d %H:%M};{kw}"
    ),
    "UTC": table("Time,Power kW", lambda t, kw: f"{t - timedelta(hours=1):%Y-%m-%dT%H:%M:%SZ},{kw}"),
    "its own offset": table("Time,Power kW", lambda t, kw: f"{t:%Y-%m-%dT%H:%M:%S}+01:00,{kw}"),
    "nights below nothing": table(
        "Time,Power W", lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw * 1000 if kw else -4}"
    ),
    "use beside it": table(
        "Time,House load kW,Export kW,Solar kW", lambda t, kw: f"{t:%Y-%m-%d %H:%M},9,8,{kw}"
    ),
    "a lifetime counter": counter(15, lambda _: False),
    "a counter of the day": counter(15, lambda t: t.hour == 0 and t.minute == 0),
    "the newest first": b"\n".join(
        [b"Time,Power kW", *table("", lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw}").split(b"\n")[:0:-1]]
    ),
    "each row twice": b"\n".join(
        [b"Time,Power kW"]
        + [r for r in table("", lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw}").split(b"\n")[1:] for _ in "ab"]
    ),
    "by the day": ("Day,Energy kWh\n" + "\n".join(f"2025-05-{20 + n},18" for n in range(DAYS))).encode(),
}  # fmt: skip


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_of_table_is_the_same_energy(kind: str) -> None:
    log = read(KINDS[kind])
    # A counter's own last reading begins a day with nothing in it.
    assert daily_kwh(log)[:DAYS] == pytest.approx([DAY_KWH] * DAYS, abs=0.02)
    assert log.first_day == FIRST.date()
    if log.power_w.shape[1] > 1:
        assert int(np.argmax(np.nan_to_num(log.power_w[0]))) * log.step_min / 60 == 12.0


@pytest.mark.parametrize(
    ("zone", "offset_h", "first"),
    [
        (ZoneInfo("Europe/Brussels"), 1, datetime(2025, 3, 28, tzinfo=UTC)),
        (ZoneInfo("Europe/Brussels"), 1, datetime(2025, 10, 24, tzinfo=UTC)),
        (ZoneInfo("Australia/Hobart"), 10, datetime(2025, 4, 4, tzinfo=UTC)),
        (ZoneInfo("Australia/Hobart"), 10, datetime(2025, 10, 3, tzinfo=UTC)),
    ],
)
def test_one_change_of_the_clock_alone_is_taken_off(
    zone: ZoneInfo, offset_h: int, first: datetime
) -> None:
    # By hand: 30 March and 26 October 2025 in Brussels, 6 April and 5 October in Hobart; noon of
    # standard time stays the middle of every day on either side.
    lines = ["Time,Power kW"]
    for when, kw in steps(15, 6, first):
        local = (when - timedelta(hours=offset_h)).astimezone(zone)
        lines.append(f"{local:%Y-%m-%d %H:%M},{kw}")
    log = read("\n".join(lines).encode(), replace(TERMS, utc_offset_h=float(offset_h)))
    assert daily_kwh(log)[1:5] == pytest.approx([DAY_KWH] * 4)
    tops = [int(np.argmax(np.nan_to_num(day))) / 4 for day in log.power_w[1:5]]
    assert tops == [12.0] * 4
    assert any("Daylight time is taken off" in told for told in log.corrections)


def test_holes_are_missing_and_a_counter_says_what_ran_through_them() -> None:
    rows = KINDS["a lifetime counter"].decode().split("\n")
    # By hand: from 10:00 to 14:00 run 2 + 2.5 + 3 + 2.5 kWh.
    log = read("\n".join(rows[:1] + rows[1:42] + rows[57:]).encode())
    assert np.isnan(log.power_w[0, 40:56]).all()
    assert daily_kwh(log)[0] == pytest.approx(8.0, abs=0.02)
    assert any("10.0 kWh ran through holes" in told for told in log.corrections)


def test_words_of_a_logger_are_no_reading_and_are_told() -> None:
    rows = KINDS["kW, comma"].decode().split("\n")
    rows[45] = rows[45].rsplit(",", 1)[0] + ",offline"
    log = read("\n".join(rows).encode())
    assert np.isnan(log.power_w[0, 44])
    assert any("1 cells" in told and "offline" in told for told in log.corrections)


def test_modules_are_found_by_their_numbers_wide_or_long() -> None:
    one, two = (PlacedId("a"),), (PlacedId("b"),)
    terms = replace(TERMS, called={bare("SN-01"): one, bare("South row 1 place 2"): two})
    wide = table(
        "Time,SN-01 [W],South row 1 place 2 [W]",
        lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw * 400},{kw * 600}",
    )
    long = table(
        "Time,Module,Power W",
        lambda t, kw: f"{t:%Y-%m-%d %H:%M},SN-01,{kw * 400}\n{t:%Y-%m-%d %H:%M},South row 1 place 2,{kw * 600}",
    )  # fmt: skip
    for content in (wide, long):
        log = read(content, terms)
        kwh = {ids: float(np.nansum(w)) / 4000 / DAYS for ids, w in log.modules}
        assert kwh == {one: pytest.approx(0.4 * DAY_KWH), two: pytest.approx(0.6 * DAY_KWH)}
        assert daily_kwh(log) == pytest.approx([DAY_KWH] * DAYS)


def test_light_and_heat_are_read_beside_the_power() -> None:
    log = read(
        table(
            "Time,AC power W,POA irradiance W/m²,Ambient temp °C,Module temp 1,Module temp 2",
            lambda t, kw: f"{t:%Y-%m-%d %H:%M},{kw * 1000},{kw * 300},20,30,34",
        )
    )
    assert log.light_w_per_m2 is not None
    assert log.light_w_per_m2[0].max() == pytest.approx(900)
    assert log.air_degc is not None
    assert log.cell_degc is not None
    assert np.nanmean(log.air_degc) == 20
    assert np.nanmean(log.cell_degc) == 32


@pytest.mark.parametrize(
    ("content", "told"),
    [
        (b"Time,Power kW\nsoon,3\n", "no row begins with a day"),
        (b"2025-05-20 00:00,3\n2025-05-20 00:15,3\n", "there is none over the first row"),
        (b"Time,Remark\n2025-05-20 00:00,wet\n2025-05-20 00:15,dry\n", "“wet” is no number"),
        (b"Time,Power kW\n2025-05-20 00:00,0\n2025-05-20 00:15,0\n", "it is nothing all the time"),
        (b"Time,Power kW\n2025-05-20 00:00,1\n2025-05-20 00:07,1\n", "their step is 7 minutes"),
        (
            b"Time,Power kW\n2025-05-20T00:00Z,1\n2025-05-20T00:15,1\n",
            "only some stamps name their zone",
        ),
        (
            b"Time,Power kW\n13/05/2025 00:00,1\n05/13/2025 00:15,1\n",
            "some days are written day first, some month first",
        ),
    ],
)
def test_what_cannot_be_read_is_refused_in_words(content: bytes, told: str) -> None:
    with pytest.raises(FormatError, match=told):
        read(content)
