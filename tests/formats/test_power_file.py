"""A logger's table of one module: whole days are found, halves and words are refused."""

from datetime import date, datetime, timedelta

import numpy as np
import pytest

from ridge_tally.core.errors import FormatError
from ridge_tally.formats.power_file import read_power


def rows(days: int = 1, step_min: int = 5, until_h: float = 24.0) -> list[str]:
    found, start = ["Time,Module power W"], datetime(2026, 4, 17)  # noqa: DTZ001 - a logger's clock
    for i in range(int(days * 1440 // step_min)):
        moment = start + timedelta(minutes=step_min * i)
        hour = moment.hour + moment.minute / 60
        watts = max(0.0, 300 * np.sin((hour - 6) / 12 * np.pi)) if hour < until_h else None
        found.append(f"{moment:%Y-%m-%d %H:%M},{'' if watts is None else round(watts, 1)}")
    return found


def read(lines: list[str]):
    return read_power("\n".join(lines).encode(), "logger.csv", month_first=False)


def test_each_whole_day_is_found_with_its_energy() -> None:
    days = read(rows(3))
    assert [d.day for d in days] == [date(2026, 4, 17 + n) for n in range(3)]
    # By hand: a half sine of 300 W over 12 h is 300 * 12 * 2/pi Wh.
    assert days[0].power_w.sum() * 5 / 60 == pytest.approx(300 * 12 * 2 / np.pi, rel=1e-3)
    assert days[0].missing == 0


def test_a_few_missing_steps_are_drawn_between_their_neighbours() -> None:
    lines = rows()
    whole = read(lines)[0].power_w
    del lines[150:153]
    (day,) = read(lines)
    assert day.missing == 3
    assert day.power_w == pytest.approx(whole, abs=1.0)


def test_a_day_that_breaks_off_is_none_and_said_so() -> None:
    gone = [r for i, r in enumerate(rows()) if not 100 < i < 140]
    with pytest.raises(FormatError, match="no day in it has its power from morning to evening"):
        read(gone)
    with pytest.raises(FormatError, match="W, kW, Wh or kWh"):
        read(["Time,Module power", *rows()[1:]])
