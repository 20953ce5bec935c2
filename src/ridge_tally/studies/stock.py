"""What an option needs beside what the firm's shelf holds."""

from dataclasses import dataclass

from ridge_tally.core.equipment import kind_of
from ridge_tally.core.job.brief import StockKind
from ridge_tally.core.job.document import (
    Job,
)
from ridge_tally.core.strings.parts import parts_of
from ridge_tally.rules.design import Design


@dataclass(frozen=True, slots=True)
class ToBuy:
    """What an option needs of a thing, and what the shelf holds of it."""

    kind: StockKind
    name: str
    needed: int
    on_shelf: int


def to_buy(design: Design) -> tuple[ToBuy, ...]:
    """Return what the option needs beside what the shelf holds; nothing without a stock list."""
    if not design.job.brief.stock:
        return ()
    return tuple(
        ToBuy(kind, sheet.name, needed, on_shelf(design.job, kind, sheet.id))
        for sheet, needed in parts_of(design)
        for kind in (StockKind(kind_of(sheet)),)
    )


def on_shelf(job: Job, kind: StockKind, item_id: str) -> int:
    """Return how many of a thing the stock list holds."""
    return sum(s.count for s in job.brief.stock if s.kind is kind and s.item_id == item_id)
