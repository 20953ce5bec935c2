"""What an option is made of by piece, and what that costs where prices are known."""

from collections import Counter
from dataclasses import dataclass

from ridge_tally.core.equipment import Origin, Priced, origin_of
from ridge_tally.core.strings.parts import parts_of
from ridge_tally.rules.design import Design


@dataclass(frozen=True, slots=True)
class Part:
    """So many of a thing; ``price_cents`` for one, with its freight, where it is known."""

    sheet: Priced
    count: int
    price_cents: int | None


@dataclass(frozen=True, slots=True)
class Bill:
    """Parts with their sum; ``cents`` is ``None`` where ``unknown`` names what has no price.

    ``sample``: a price in it is invented.
    """

    parts: tuple[Part, ...]
    cents: int | None
    unknown: tuple[str, ...]
    sample: bool


def bill_of(design: Design) -> Bill:
    """Return modules, inverters and what stands at the modules, with what they cost.

    Mounting, cable and work are not in it.
    """
    parts = tuple(Part(sheet, n, price_of(sheet)) for sheet, n in parts_of(design) if n)
    unknown = tuple(p.sheet.name for p in parts if p.price_cents is None)
    return Bill(
        parts,
        None if unknown else sum(p.count * (p.price_cents or 0) for p in parts),
        unknown,
        any(origin_of(p.sheet, "price_cents") is Origin.SAMPLE for p in parts),
    )


def price_of(sheet: Priced) -> int | None:
    """Return the price of one, its freight with it where that is known."""
    if sheet.price_cents is None:
        return None
    return sheet.price_cents + (getattr(sheet, "freight_cents", None) or 0)


def changed_parts(before: Bill, after: Bill) -> str:
    """Return what comes and what goes: ``+ 7 × Sample optimizer``; empty where nothing does."""
    names = {p.sheet.id: p.sheet.name for p in (*before.parts, *after.parts)}
    old = Counter({p.sheet.id: p.count for p in before.parts})
    new = Counter({p.sheet.id: p.count for p in after.parts})
    more, less = new - old, old - new
    told = [f"+ {n} × {names[part]}" for part, n in more.items()]
    told += [f"− {n} × {names[part]}" for part, n in less.items()]
    return ", ".join(told)
