"""A shelf of what the samples use and the tests choose from."""

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import SHEETS

# What the samples use and the tests choose from: a study of the whole shelf takes minutes.
SMALL_SHELF = frozenset({
    "Sample module 250 W, older full-cell", "Sample module 330 W, full-cell",
    "Sample module 390 W, half-cut", "Sample module 405 W, half-cut",
    "Sample module 450 W, n-type large", "Sample module 500 W, 132 half cells, large",
    "Sample module 600 W, 132 half cells, wide, two-sided",
    "Sample inverter 3.0 kW, one tracker",
    "Sample inverter 5.0 kW, two trackers", "Sample inverter 6.0 kW, two trackers",
    "Sample inverter 7.0 kW, paired inputs", "Sample inverter 7.6 kW, two trackers",
    "Sample inverter 6.0 kW, three trackers", "Sample inverter 7.6 kW, three trackers, hybrid",
    "Sample inverter 8.2 kW, three trackers", "Sample inverter 10.0 kW, three trackers",
    "Sample inverter 6.0 kW, two trackers, three phase, 1000 V",
    "Sample inverter 8.0 kW, two trackers, three phase, 1100 V",
    "Sample microinverter 245 W", "Sample microinverter 330 W",
    "Sample microinverter 700 W, two inputs",
    "Sample add-on optimizer 500 W", "Sample system optimizer 440 W",
    "Sample system optimizer 500 W, three phase",
    "Sample flashed foot, two rails", "Sample tile hook, two rails",
    "Sample rib bracket, short rails", "Sample purlin clamp for a carport",
})  # fmt: skip


def small_shelf(whole: Shelf) -> Shelf:
    """The shelf with only what the tests choose from."""
    kinds = {
        f"{kind}s": tuple(s for s in whole.of_kind(kind) if s.name in SMALL_SHELF)
        for kind in SHEETS
    }
    assert sum(map(len, kinds.values())) == len(SMALL_SHELF)
    return Shelf(**kinds)
