"""Edits, numbers and texts at and past every edge, drawn from the annotations of the edits.

What does damage is rarely the value somebody thought of: fields are filled by their type, with
what people type, what programs send and what neither should.
"""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import MISSING, fields, is_dataclass
from datetime import date
from enum import Enum
from functools import cache
from types import UnionType
from typing import Any, Literal, NewType, Union, get_args, get_origin, get_type_hints

from hypothesis import strategies as st

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import SHEETS
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import Edit

# What is typed into a field on a good day.
USUAL = (
    "0", "1", "2", "3.5", "12.19", "4500mm", "40'", "39' 11 3/4\"", "6:12", "180", "26.6", "-10", "95 F",
    "2025-03-04", "20 Mar", "80 %", "South", "36.2, -105.6", "300", "5.2 kWh", "120", "7' 6\" over 15'",
    "1,240.50", "168.6 compass", "5 kW", "0.3", "12", "10-14", "50 ft", "200",
)  # fmt: skip
# What is typed, pasted or sent on a bad one.
BAD = (
    "", " ", "\n", "-0", "0.0000001", "1e308", "1e-320", "-1e308", "1e999999", "nan", "inf", "-inf",
    "9" * 310, "1/0", "0/0", "5\n6", "5\n", "\x00", "\ud800", "½", "٣", "²", "1_000", "0x10", "é" * 90,
    "'", "\"", "1 1 1 1/2", "-" * 40, "<b>&amp;</b>", "=1+1", "1e5' 2\"", "12.19" + " " * 60, "10000000000000000",
    "null", "1:0", "0:12", "0001-01-01", "9999-12-31", "99/99/9999",
)  # fmt: skip
FLOATS = (0.0, -0.0, 1.0, -1.0, 0.3, 2.0, 5.0, 1e-9, -1e-320, 1e7, 1e16, 1e154, 1e308, -1e308)
INTS = (0, 1, 2, 3, -1, 7, 60, 365, 2**31, 2**53, 2**63, 2**64, -(2**63) - 1, 10**30)
DATES = (date(1, 1, 1), date(2025, 3, 4), date(2024, 2, 29), date(9999, 12, 31))
NOBODYS = ("", "no-such", "a", "é\n")
# Fields that name what they stand in.
NAMING = frozenset({"id", "tag", "climate_id"})


def texts() -> st.SearchStrategy[str]:
    """Texts of fields: usual, bad and any."""
    usual = st.sampled_from(USUAL)
    return st.one_of(usual, usual, st.sampled_from(BAD), st.text(max_size=12))


Ids = Mapping[Any, tuple[str, ...]]


def ids_in(job: Job, shelf: Shelf) -> Ids:
    """Return the ids of a job and its shelf by their type, and every id there is under ``str``."""
    found: dict[Any, set[str]] = {}

    def walk(value: object) -> None:
        if is_dataclass(value):
            hints = _hints(type(value))
            for part in fields(value):
                inner = getattr(value, part.name)
                if part.name in NAMING:
                    for kind in (hints[part.name], str):
                        found.setdefault(kind, set()).add(str(inner))
                walk(inner)
        elif isinstance(value, tuple):
            for inner in value[:40]:
                walk(inner)

    walk(job)
    for kind in SHEETS:
        for sheet in shelf.of_kind(kind)[:6]:
            walk(sheet)
    return {kind: tuple(sorted(ids)) for kind, ids in found.items()}


def edits_of(
    job: Job, shelf: Shelf, kinds: Iterable[type] | None = None
) -> st.SearchStrategy[dict[str, Any]]:
    """Edits as JSON would bring them, of every kind or of some, of things that are in the job."""
    wanted = tuple(kinds or flattened(Edit))
    ids = ids_in(job, shelf)
    return st.sampled_from(wanted).flatmap(lambda kind: drawn(kind, ids))


@cache
def flattened(union: Any) -> tuple[type, ...]:
    """Return the members of a union of unions, each once."""
    if get_origin(union) in {Union, UnionType}:
        return tuple(dict.fromkeys(m for part in get_args(union) for m in flattened(part)))
    return (union,)


def drawn(kind: Any, ids: Ids) -> st.SearchStrategy[Any]:
    """Return what fills a place of that type, as plain JSON values."""
    if isinstance(kind, NewType):
        there = st.sampled_from(ids.get(kind) or ("",))
        return st.one_of(there, there, there, st.sampled_from(NOBODYS))
    origin = get_origin(kind)
    if origin is Literal:
        return st.sampled_from(get_args(kind))
    if origin in {Union, UnionType}:
        return st.one_of(*(drawn(part, ids) for part in get_args(kind)))
    if origin is tuple:
        inner = get_args(kind)
        if inner[-1] is Ellipsis:
            return st.lists(drawn(inner[0], ids), max_size=4)
        return st.tuples(*(drawn(part, ids) for part in inner)).map(list)
    if is_dataclass(kind):
        hints = _hints(kind)
        parts = {f.name: _part(f.name, hints[f.name], ids) for f in fields(kind)}
        required = {f.name: parts[f.name] for f in fields(kind) if _wanted(f)}
        optional = {f.name: parts[f.name] for f in fields(kind) if not _wanted(f)}
        return st.fixed_dictionaries(required, optional=optional)
    return _plain(kind)


@cache
def _hints(kind: type) -> dict[str, Any]:
    return get_type_hints(kind)


def _part(name: str, kind: Any, ids: Ids) -> st.SearchStrategy[Any]:
    if kind is str and name in {"tag", "other_tag", "climate_id", "unit_id", "pack_id"}:
        return st.one_of(st.sampled_from(ids.get(str, ("",))), texts())
    return drawn(kind, ids)


def _wanted(part: Any) -> bool:
    return part.name == "kind" or (part.default is MISSING and part.default_factory is MISSING)


def _plain(kind: Any) -> st.SearchStrategy[Any]:
    plain: dict[Any, Callable[[], st.SearchStrategy[Any]]] = {
        str: texts,
        int: lambda: (
            st.integers(0, 5) | st.integers(0, 5) | st.integers(-2, 40) | st.sampled_from(INTS)
        ),
        float: lambda: st.floats(0.5, 8) | st.floats(-5, 30) | st.sampled_from(FLOATS),
        bool: st.booleans,
        date: lambda: st.sampled_from(DATES).map(date.isoformat),
        type(None): st.none,
    }
    if isinstance(kind, type) and issubclass(kind, Enum):
        return st.sampled_from([member.value for member in kind])
    return plain[kind]()
