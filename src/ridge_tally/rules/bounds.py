"""What holds of every number and every text of a document or an edit, whatever it stands for.

Each figure has a range of its own elsewhere; this is the net under them: no number that sums
overflow with, none a database or a browser cannot keep, no text that cannot be written down.
"""

import math
from dataclasses import fields, is_dataclass
from typing import Any

from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.units import LARGEST_NUMBER, LONGEST_TYPED

# Exact in every program.
LARGEST_COUNT = 2**53 - 1
# No site reaches farther, wherever a drawing was clicked.
FARTHEST_M = 100_000.0
LONGEST_TEXT = 2_000
# Columns pasted whole: bills, a horizon, a stock list.
LONGEST_PASTED = 1_000_000
MOST_PARTS = 20_000
PASTED = frozenset({"text", "SetHorizon.typed"})
# Past any part that is made, by the unit a figure's name ends in; counts have none.
LARGEST_ON_SHEET = {
    "v": 10_000.0, "a": 10_000.0, "w": 10e6, "va": 10e6, "m": 10_000.0, "kg": 10_000.0,
    "degc": 1000.0, "frac": 100.0, "cents": 1e11, "k": 1000.0, "min": 100_000.0,
    "n": 1e6, "nm": 1000.0, "pa": 50_000.0, "s": 200.0,
}  # fmt: skip
LARGEST_COUNT_ON_SHEET = 10_000
MOST_LINES_ON_SHEET = 100


def require_bounded(value: object, before: object = None, place: str = "") -> None:
    """Raise on the first number or text that nothing can be done with.

    Parameters
    ----------
    value, before
        A document or an edit; of ``before``, parts it still holds are not looked at again.
    place : str
        Where it stands, for the message.

    Raises
    ------
    OutOfRange, BadGeometry
        Naming the place and the value.
    """
    if value is before or value is None or isinstance(value, bool):
        return
    if isinstance(value, str):
        _require_text(value, place)
    elif isinstance(value, int | float):
        _require_number(value, place)
    elif isinstance(value, tuple):
        _require_parts(value, before, place)
    elif is_dataclass(value):
        kind = type(value).__name__
        same: Any = before if type(before) is type(value) else None
        for part in fields(value):
            name = part.name
            inner, was = getattr(value, name), getattr(same, name, None)
            if isinstance(inner, str) and f"{kind}.{name}" in PASTED:
                name = "text"
            require_bounded(inner, was, f"{place}.{name}" if place else name)


def require_physical(sheet: object, owner: str) -> None:
    """Raise OutOfRange on the first figure of a datasheet that no part has, naming it."""
    if not is_dataclass(sheet):
        return
    for part in fields(sheet):
        value = getattr(sheet, part.name)
        if isinstance(value, bool):
            continue
        if isinstance(value, int | float):
            unit = part.name.rpartition("_")[2]
            most = LARGEST_ON_SHEET.get(unit, LARGEST_COUNT_ON_SHEET)
            if not abs(value) <= most:
                raise OutOfRange(f"{owner}, {part.name}", value, f"at most {most:g}")
        elif isinstance(value, tuple):
            if len(value) > MOST_LINES_ON_SHEET:
                raise OutOfRange(
                    f"{owner}, {part.name}", len(value), f"at most {MOST_LINES_ON_SHEET}"
                )
            for inner in value:
                require_physical(inner, owner)
        else:
            require_physical(value, owner)


def _require_parts(value: tuple[object, ...], before: object, place: str) -> None:
    if len(value) > MOST_PARTS:
        raise OutOfRange(f"{place}, parts", len(value), f"at most {MOST_PARTS}")
    was = before if isinstance(before, tuple) else ()
    for number, inner in enumerate(value):
        require_bounded(inner, was[number] if number < len(was) else None, f"{place}.{number}")


def _require_number(value: float, place: str) -> None:
    if isinstance(value, int) and abs(value) > LARGEST_COUNT:
        raise BadGeometry(place, "this number is too large to count with", "Type it again.")
    most = FARTHEST_M if place.endswith("_m") else LARGEST_NUMBER
    if not math.isfinite(value) or abs(value) > most:
        raise OutOfRange(place, value, f"between −{most:g} and {most:g}")


def _require_text(value: str, place: str) -> None:
    last = place.rpartition(".")[2]
    most = LONGEST_TYPED if last == "typed" else LONGEST_PASTED if last in PASTED else LONGEST_TEXT
    if len(value) > most:
        raise OutOfRange(f"{place}, characters", len(value), f"at most {most}")
    if not value.isascii() and any("\ud800" <= c <= "\udfff" for c in value):
        raise BadGeometry(
            place, "there is half a character in it, which no file can hold", "Type it again."
        )
    if "\x00" in value:
        raise BadGeometry(place, "there is a zero byte in it", "Type it again.")
