"""Tables of a power or an energy against time, as meters and loggers write them."""

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, time, timedelta
from enum import StrEnum
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.errors import FormatError, RidgeTallyError
from ridge_tally.core.units import finite_number
from ridge_tally.formats.table import read_table

FloatArray = NDArray[np.float64]
LARGEST_FILE_BYTES = 24 * 1024 * 1024
STEPS_MIN = (1, 2, 5, 10, 15, 20, 30, 60)
RETRY = "Choose another file."
_UNIT = re.compile(r"(?<![A-Za-z])(kWh|Wh|kW|W)(?![A-Za-z])", re.IGNORECASE)
_BALANCE = re.compile(r"export|feed|net|balance|generation|solar", re.IGNORECASE)
_CLOCK = re.compile(r"(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*([ap]m)?", re.IGNORECASE)


class Unit(StrEnum):
    """What a column is in."""

    WH = "Wh"
    KWH = "kWh"
    W = "W"
    KW = "kW"

    @property
    def is_energy(self) -> bool:
        """Whether each row is what flowed in its step."""
        return self in (Unit.WH, Unit.KWH)

    @property
    def scale(self) -> float:
        """Factor to W or Wh."""
        return 1000.0 if self in (Unit.KWH, Unit.KW) else 1.0


@dataclass(frozen=True, slots=True, eq=False)
class TimedTable:
    """Rows in the file's order: the start of each step, and its mean power in W.

    ``power_w`` is NaN where a row has no number.  ``zoned``: the stamps named their offset and
    stand in UTC.  ``first_line``: the line of the file the first row stands on, from 1.
    """

    start: tuple[datetime, ...]
    power_w: FloatArray
    step_min: int
    unit: Unit
    column: str
    zoned: bool
    notes: tuple[str, ...]


def read_timed(content: bytes, file: str, *, month_first: bool) -> TimedTable:
    """Return a table of power or energy against time.

    Parameters
    ----------
    month_first : bool
        How ``3/4/2025`` is read.

    Raises
    ------
    FormatError
        Naming the file, the line or column, and the remedy.
    """
    if len(content) > LARGEST_FILE_BYTES:
        raise FormatError(file, "", f"{len(content) / 1e6:.0f} MB is more than a year", RETRY)
    lines = read_table(decoded(content), file)
    head = next((i for i, line in enumerate(lines) if _value_columns(line)), None)
    if head is None or head > 30:
        raise FormatError(
            file,
            "heading",
            "no column says in its heading whether it is in W, kW, Wh or kWh",
            "Write the unit into the heading of the column, as in “Used, kWh”.",
        )
    names, rows = lines[head], lines[head + 1 :]
    column, notes = _value_column(names)
    if len(rows) < 2:
        raise FormatError(file, "rows", "there are no rows under the heading", RETRY)
    stamp = _stamp_columns(names, column)
    unit = _unit_of(names[column])
    stamps, zoned = _stamps(rows, stamp, file, head, month_first=month_first)
    step_min = _step_min(stamps, file)
    values = np.array([number_at(row, column, file, head + n) for n, row in enumerate(rows, 2)])
    watts = values * unit.scale * (60 / step_min if unit.is_energy else 1.0)
    ends = _stamped_at_ends(stamps, step_min)
    if ends:
        notes.append("Its stamps are the ends of the steps")
        stamps = [s - timedelta(minutes=step_min) for s in stamps]
    return TimedTable(tuple(stamps), watts, step_min, unit, names[column], zoned, tuple(notes))


def decoded(content: bytes) -> str:
    """Return a file's text in whichever of the usual encodings it is."""
    for encoding in (
        "utf-8-sig",
        "utf-16" if content[:2] in (b"\xff\xfe", b"\xfe\xff") else "cp1252",
    ):
        try:
            return content.decode(encoding)
        except UnicodeDecodeError:
            continue
    return content.decode("latin-1")


def _value_columns(names: Sequence[str]) -> list[int]:
    return [i for i, name in enumerate(names) if _UNIT.search(name) and not _CLOCK.search(name)]


def _unit_of(name: str) -> Unit:
    found = _UNIT.search(name)
    assert found is not None
    return next(u for u in Unit if u.value.lower() == found[1].lower())


def _value_column(names: Sequence[str]) -> tuple[int, list[str]]:
    """Return the column read, and a note where there are several: what was used, not sent out."""
    found = _value_columns(names)
    plain = [i for i in found if not _BALANCE.search(names[i])] or found
    if len(found) == 1:
        return plain[0], []
    return plain[0], [f"Of its {len(found)} columns “{names[plain[0]].strip()}” is read"]


def _stamp_columns(names: Sequence[str], column: int) -> tuple[int, ...]:
    """Return where the day and the clock stand: together in one column, or in two."""
    words = [name.strip().lower() for name in names]
    day = next((i for i, w in enumerate(words) if i != column and "date" in w), None)
    clock = next(
        (
            i
            for i, w in enumerate(words)
            if i not in (column, day) and "time" in w and "date" not in w
        ),
        None,
    )
    if day is not None and clock is not None:
        return day, clock
    if day is not None:
        return (day,)
    return (clock if clock is not None else (0 if column != 0 else 1),)


def _stamps(
    rows: Sequence[Sequence[str]], at: tuple[int, ...], file: str, head: int, *, month_first: bool
) -> tuple[list[datetime], bool]:
    stamps, zoned = list[datetime](), None
    for number, row in enumerate(rows, head + 2):
        text = " ".join(row[i].strip() for i in at if i < len(row))
        try:
            stamp = _stamp(text, month_first=month_first)
        except (ValueError, RidgeTallyError):
            raise FormatError(
                file,
                f"row {number}",
                f"“{text[:40]}” is no day with a clock",
                "Write days as 2025-03-04 17:30.",
            ) from None
        if zoned is None:
            zoned = stamp.tzinfo is not None
        if (stamp.tzinfo is not None) != zoned:
            raise FormatError(file, f"row {number}", "only some stamps name their zone", RETRY)
        stamps.append(stamp.astimezone(UTC).replace(tzinfo=None) if zoned else stamp)
    return stamps, bool(zoned)


def _stamp(text: str, *, month_first: bool) -> datetime:
    try:
        return datetime.fromisoformat(text.replace("Z", "+00:00"))
    except ValueError:
        pass
    found = _CLOCK.search(text)
    if not found:
        raise ValueError(text)
    day = parse_day(text[: found.start()].strip(" T,"), "Day", month_first=month_first)
    hour, minute = int(found[1]), int(found[2])
    if found[4]:
        hour = hour % 12 + (12 if found[4].lower() == "pm" else 0)
    extra = 1 if (hour, minute) == (24, 0) else 0
    return datetime.combine(day, time(hour % 24 if extra else hour, minute)) + timedelta(days=extra)


def _step_min(stamps: Sequence[datetime], file: str) -> int:
    steps = Counter(round((b - a).total_seconds() / 60) for a, b in pairwise(stamps) if b > a)
    step = steps.most_common(1)[0][0] if steps else 0
    if step not in STEPS_MIN:
        told = ", ".join(str(s) for s in STEPS_MIN)
        raise FormatError(
            file, "rows", f"their step is {step} minutes", f"Choose steps of {told} minutes."
        )
    return step


def number_at(row: Sequence[str], column: int, file: str, number: int) -> float:
    text = row[column].strip().replace("−", "-") if column < len(row) else ""
    if not text or text.lower() in {"nan", "null", "n/a", "-", "na"}:
        return float("nan")
    try:
        return finite_number(text)
    except ValueError:
        pass
    try:
        return finite_number(text.replace(" ", "").replace(",", "."))
    except ValueError:
        raise FormatError(
            file, f"row {number}", f"“{text[:40]}” is no number", "Correct it, or leave it empty."
        ) from None


def _stamped_at_ends(stamps: Sequence[datetime], step_min: int) -> bool:
    """Whether stamps are the ends of steps: a first one a step after midnight and a last at it."""
    return stamps[0].time() == time(step_min // 60, step_min % 60) and stamps[-1].time() == time()
