"""Invented prices of the sample firm: what its wire, gear and work cost it, in every sample job alike."""

from collections.abc import Iterator

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.money.prices import (
    MoneyField,
    SetMoneyField,
    SetOwnLine,
    SetPrices,
    TypedPrice,
)
from ridge_tally.core.job.money import LineKind
from ridge_tally.core.units import LengthUnit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.build.circuits.conductors import circuits_sized
from ridge_tally.rules.build.circuits.conduits import drawn_in
from ridge_tally.rules.build.circuits.takeoff import taken_off

# By how a line's name begins, in the currency's own unit, each or a metre; all invented.
PRICES = {
    "Copper 14 AWG": "0.62",
    "Copper 12 AWG": "0.80",
    "Copper 10 AWG": "1.05",
    "Copper 8 AWG": "1.70",
    "Copper 6 AWG": "2.60",
    "Copper 4 AWG": "4.10",
    "Copper 3 AWG": "5.00",
    "Copper 1.5 mm²": "0.55",
    "Copper 2.5 mm²": "0.80",
    "Copper 4 mm²": "1.20",
    "Copper 6 mm²": "1.75",
    "Copper 10 mm²": "2.80",
    "Copper 16 mm²": "4.30",
    "Conduit 1/2": "7.40",
    "Conduit 3/4": "9.90",
    "Conduit": "8.20",
    "Elbow": "3.10",
    "Gland": "4.50",
    "Breaker": "38",
    "Box": "46",
    "AC disconnect": "145",
    "Connectors": "6.20",
    "Trunk cable": "9.50",
    "Trunk drop": "11",
    "Cap for": "2.40",
    "End cap of a trunk": "8.50",
}


def price_edits(
    job: Job,
    *,
    hour: str,
    permits: str,
    office: str,
    share: str,
    racking: tuple[tuple[str, str], ...] = (),
) -> tuple[Edit, ...]:
    """Return the edits that price a sample job: wire and gear of all its options, work, permits.

    ``racking``: what a roofer asks for planes without a mounting system, by plane.
    """
    names: dict[str, None] = {}
    for option in job.options:
        try:
            design = design_for(job, option)
        except RidgeTallyError:
            continue
        sized = circuits_sized(design)
        names |= dict.fromkeys(t.name for t in taken_off(design, sized, drawn_in(design, sized)))
    names |= dict.fromkeys(_usual(feet=job.unit is LengthUnit.FOOT))
    prices = [TypedPrice(name, _price(name)) for name in names if _price(name)]
    prices += [TypedPrice(f"Racking of {plane}", price) for plane, price in racking]
    return (
        SetPrices(tuple(prices)),
        SetMoneyField(MoneyField.HOUR, hour),
        SetMoneyField(MoneyField.RULE_FRAC, share),
        SetOwnLine(None, "Permit and inspection", LineKind.PERMITS, "1", permits),
        SetOwnLine(None, "Design, sales and office", LineKind.OTHER, "1", office),
        SetMoneyField(MoneyField.UPKEEP, "60"),
    )


def _usual(*, feet: bool) -> Iterator[str]:
    """Yield what the firm keeps at hand besides, so that a change is priced too."""
    sizes = ("14", "12", "10", "8", "6", "4", "3") if feet else ("1.5", "2.5", "4", "6", "10", "16")
    kinds = ("THWN-2, DC", "THWN-2") if feet else ("cable for modules", "PVC 70 °C", "XLPE 90 °C")
    for size in sizes:
        told = f"Copper {size} {'AWG' if feet else 'mm²'}"
        yield from (f"{told}, {kind}" for kind in (*kinds, "to earth"))
    conduits = ('1/2"', '3/4"', '1"') if feet else ("16 mm", "20 mm", "25 mm", "32 mm")
    stick = "3.048" if feet else "4"
    for conduit in conduits:
        yield f"Conduit {conduit} metal, sticks of {stick} m"
        yield f"Elbow {conduit} metal"
    ratings = (15, 20, 25, 30, 35, 40, 45, 50, 60) if feet else (10, 13, 16, 20, 25, 32, 40, 50, 63)
    for rating in ratings:
        poles = ("two-pole",) if feet else ("one-pole with neutral", "three-pole")
        yield from (f"Breaker {rating} A, {p}" for p in poles)
    yield from ("Trunk cable", "Trunk drop with connector", "End cap of a trunk")
    yield from ("Cap for a drop that is skipped", "Box on the roof", "Connectors, mating pairs")


def _price(name: str) -> str:
    return next((price for begins, price in PRICES.items() if name.startswith(begins)), "")
