"""A check's sum as a person writes it: with symbols, with numbers, with its result."""

import re
from dataclasses import dataclass
from functools import lru_cache

from ridge_tally.core.units import M_PER_FT, LengthUnit, format_length
from ridge_tally.core.working import Check, Given, Relation, shown, shown_against, verdict_of

SIGNS = {"<=": "≤", ">=": "≥"}
WRITTEN = {
    "beta": "β",
    "gamma_v": "γv",
    "t_min": "Tmin",
    "t_low": "Tlow",
    "t_hot": "Thot",
    "voc": "Voc",
    "vmp": "Vmp",
    "isc": "Isc",
    "imp": "Imp",
    "p_max": "Pmax",
    "p_ac": "Pac",
}
# What is counted, and one of it.
COUNTED = {
    many: many.removesuffix("s")
    for many in ("modules", "planes", "strings", "trackers", "inverters", "cells", "rows")
} | {"branches": "branch"}
# Beyond it a length is told in whole feet.
MOST_TAPED_FT = 100.0
_SYMBOL = re.compile(r"[a-z_]+")


@dataclass(frozen=True, slots=True)
class WorkingLines:
    """Four lines: ``symbols``, ``numbers``, ``result`` against ``limit``."""

    symbols: str
    numbers: str
    result: str
    limit: str


def working_lines(check: Check) -> WorkingLines:
    """Return the sum of a check; a number nobody gave shows as “?”."""
    symbols, numbers = sum_lines(check.formula, check.givens)
    value, limit = value_and_limit(check)
    return WorkingLines(symbols, numbers, value, f"{SIGNS[check.relation]} {limit}")


def sum_lines(formula: str, givens: tuple[Given, ...]) -> tuple[str, str]:
    """Return a formula with its symbols as written by hand, and the same with numbers."""
    by_symbol = {given.symbol: given for given in givens}

    def number(found: re.Match[str]) -> str:
        given = by_symbol.get(found[0])
        if given is None:
            return found[0]
        text = with_unit(given)
        return f"({text})" if text.startswith("−") else text

    return _in_symbols(formula), _typeset(_SYMBOL.sub(number, formula))


# A formula stands in the program: there are as many as rules.
@lru_cache(maxsize=1024)
def _in_symbols(formula: str) -> str:
    symbols = _SYMBOL.sub(lambda found: WRITTEN.get(found[0], found[0].replace("_", " ")), formula)
    return _typeset(symbols)


def value_and_limit(check: Check) -> tuple[str, str]:
    """Return value and limit with units, rounded so that the verdict still reads true."""
    value, limit = check.value.value, check.limit.value
    if value is not None and limit is not None and check.value.unit == "ft":
        as_taped = _as_taped(value, limit, check.relation)
        if as_taped:
            return as_taped
    if value is not None and limit is not None:
        left, right = shown_against(value, limit, check.relation)
    else:
        left = "?" if value is None else shown(value)
        right = "?" if limit is None else shown(limit, 4)
    return _joined(left, check.value.unit), _joined(right, check.limit.unit)


def _as_taped(value_ft: float, limit_ft: float, relation: Relation) -> tuple[str, str] | None:
    """Return two lengths in feet and inches, unless rounding would turn the verdict or they are heights
    above the sea."""
    if max(abs(value_ft), abs(limit_ft)) >= MOST_TAPED_FT:
        return None
    eighths = [round(length_ft * 96) for length_ft in (value_ft, limit_ft)]
    if verdict_of(eighths[0], relation, eighths[1]) is not verdict_of(value_ft, relation, limit_ft):
        return None
    left, right = (
        format_length(length_ft * M_PER_FT, LengthUnit.FOOT) for length_ft in (value_ft, limit_ft)
    )
    return left, right


def with_unit(given: Given) -> str:
    """Return a given as text with its unit, to six figures."""
    if given.value is None:
        return "?"
    return _joined(shown(given.value, 6), given.unit)


def _joined(number: str, unit: str) -> str:
    if number == "1" and unit in COUNTED:
        return f"1 {COUNTED[unit]}"
    return f"{number} {unit}" if unit and unit != "1/°C" else number


def _typeset(text: str) -> str:
    return text.replace(" * ", " · ").replace(" - ", " − ")
