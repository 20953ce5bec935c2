"""What the columns of a gateway's table hold, told by their headings and by how their numbers run."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.ids import PlacedId

FloatArray = NDArray[np.float64]


class Quantity(StrEnum):
    """What a column is."""

    POWER = "power"
    ENERGY = "energy of each step"
    COUNTER = "counter"
    LIGHT = "light in the array’s plane"
    LEVEL_LIGHT = "light on the level"
    AIR = "air"
    CELL = "module temperature"
    OTHER = "not read"


@dataclass(frozen=True, slots=True)
class Column:
    """A column by its place; ``scale``: its numbers times it are W, Wh, W/m² or °C.

    ``modules``: those that its heading names, by serial number or place.  ``sure``: whether the
    heading says the unit.
    """

    at: int
    name: str
    quantity: Quantity
    scale: float
    modules: tuple[PlacedId, ...] = ()
    sure: bool = True


_UNIT = re.compile(
    r"(?<![a-z])(mwh|kwh|wh|mw|kw|w)(?![a-z²/])(?!\s*/\s*m)(?:\s*/\s*(?:5|10|15|30|60)\s*min)?",
    re.IGNORECASE,
)
_SCALE = {"mwh": 1e6, "kwh": 1e3, "wh": 1.0, "mw": 1e6, "kw": 1e3, "w": 1.0}
_LIGHT = re.compile(
    r"w\s*/\s*m|irradian|insolation|pyranom|\bpoa\b|\bghi\b|sunlight", re.IGNORECASE
)
_LEVEL = re.compile(r"\bghi\b|horizontal|global|\blevel\b", re.IGNORECASE)
_HEAT = re.compile(r"temp|°\s*c|deg\s*c", re.IGNORECASE)
_FAHRENHEIT = re.compile(r"°\s*f|deg\s*f|fahrenheit", re.IGNORECASE)
_OF_AIR = re.compile(r"ambient|\bair\b|outdoor|outside", re.IGNORECASE)
_OF_CELL = re.compile(r"module|cell|panel|back", re.IGNORECASE)
_MADE = re.compile(r"power|energy|yield|production|generation|output|solar|\bpv\b", re.IGNORECASE)
_OTHERWISE = re.compile(
    r"consum|import|export|feed|bought|sold|grid|battery|load|house|purchas|reactive|apparent|factor|"
    r"volt|current|frequen",
    re.IGNORECASE,
)
# What a column of production is called, the likeliest first.
_LIKELIEST = (
    re.compile(r"\bac\b", re.IGNORECASE),
    re.compile(r"production|generation|yield|solar|\bpv\b", re.IGNORECASE),
    re.compile(r"power", re.IGNORECASE),
)
# Numbers that hardly ever fall and end far above their usual rise are a counter's.
SELDOM_FALLS_FRAC, COUNTED_STEPS = 0.9, 5.0


def columns_of(
    names: Sequence[str], apart: Sequence[int], called: Mapping[str, tuple[PlacedId, ...]]
) -> list[Column]:
    """Return the columns under a heading.

    Parameters
    ----------
    apart : sequence of int
        Columns that hold the stamps.
    called : mapping
        Modules by what they are called, see ``bare``.
    """
    return [_column(i, name, called) for i, name in enumerate(names) if i not in apart]


def bare(name: str) -> str:
    """Return a name without its unit, marks, blanks and capitals, to find it by."""
    return re.sub(r"[^0-9a-z]", "", _UNIT.sub("", name.replace("_", " ")).casefold())


def _words(name: str) -> str:
    """Return a heading with a blank between its words, however they are joined."""
    return re.sub(r"([a-z]{2})([A-Z][a-z])", r"\1 \2", name.replace("_", " "))


def _column(at: int, name: str, called: Mapping[str, tuple[PlacedId, ...]]) -> Column:
    words = _words(name)
    modules = called.get(bare(name), ())
    if _LIGHT.search(words):
        level = bool(_LEVEL.search(words))
        return Column(at, name, Quantity.LEVEL_LIGHT if level else Quantity.LIGHT, 1.0)
    if _HEAT.search(words) and not _FAHRENHEIT.search(words):
        heat = (
            Quantity.AIR if _OF_AIR.search(words)
            else Quantity.CELL if _OF_CELL.search(words)
            else Quantity.OTHER
        )  # fmt: skip
        return Column(at, name, heat, 1.0)
    unit = _UNIT.search(words)
    if unit is None and not modules and (not _MADE.search(words) or _OTHERWISE.search(words)):
        return Column(at, name, Quantity.OTHER, 1.0)
    if unit is None:
        energy = bool(re.search(r"energy|yield", words, re.IGNORECASE))
        return Column(
            at, name, Quantity.ENERGY if energy else Quantity.POWER, 1.0, modules, sure=False
        )
    code = unit[1].lower()
    return Column(
        at, name, Quantity.ENERGY if code.endswith("h") else Quantity.POWER, _SCALE[code], modules
    )


def likeliest(columns: Sequence[Column]) -> list[Column]:
    """Return the columns that may be what the whole array makes, the likeliest first."""
    found = [
        c for c in columns
        if c.quantity in (Quantity.POWER, Quantity.ENERGY, Quantity.COUNTER) and not c.modules
    ]  # fmt: skip

    def unlikely(one: Column) -> tuple[bool, bool, int, int]:
        words = _words(one.name)
        rank = next((n for n, mark in enumerate(_LIKELIEST) if mark.search(words)), 9)
        dc = bool(re.search(r"\bdc\b", words, re.IGNORECASE))
        return bool(_OTHERWISE.search(words)), dc, rank, one.at

    return sorted(found, key=unlikely)


def counts_up(values: FloatArray) -> bool:
    """Return whether numbers are a counter's: they hardly ever fall, and come to far more than a step."""
    seen = values[np.isfinite(values)]
    if len(seen) < 8:
        return False
    rise = np.diff(seen)
    moves = rise[rise != 0]
    if len(moves) < 4:
        return False
    rises = float((moves > 0).mean())
    usual = float(np.median(moves[moves > 0])) if np.any(moves > 0) else 0.0
    # Counters of the day fall once a day, to nothing.
    to_nothing = seen[1:][rise < 0] <= max(usual, 0.05 * float(seen.max()))
    falls_to_nothing = bool(np.all(to_nothing)) if len(to_nothing) else True
    high = float(seen.max()) > COUNTED_STEPS * usual > 0
    return rises >= SELDOM_FALLS_FRAC and falls_to_nothing and high
