"""Applying the edits of other firms' offers."""

from dataclasses import replace
from typing import Any, assert_never

from ridge_tally.core.brief.typed import parse_energy_kwh, parse_money_cents, parse_quantity
from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.money.offers import (
    AddOffer,
    OfferEdit,
    OfferField,
    RemoveOffer,
    SetOfferField,
)
from ridge_tally.core.job.money import Offer, OfferId
from ridge_tally.core.units import one_line, parse_number, whole
from ridge_tally.editing.rows import next_id, row_of, with_row

_KW = {"": 1.0, "kw": 1.0, "w": 0.001, "kwp": 1.0}
# A module below or above does not exist: count and kW on the paper are of different arrays.
LEAST_MODULE_W, MOST_MODULE_W = 50.0, 1000.0


def offers_changed(job: Job, edit: OfferEdit) -> Job:
    """Return the job with other offers.

    Raises
    ------
    NotUnderstood, OutOfRange, NotFound
        Naming the field, the value and the remedy.
    BadGeometry
        If an offer's kW and its count of modules disagree.
    """
    there = job.money.offers
    match edit:
        case AddOffer():
            new = Offer(
                OfferId(next_id("offer", [o.id for o in there])),
                one_line(edit.name, "Name of the offer", "whose it is"),
                parse_quantity(edit.kw, "kW of the offer", _KW, "kW such as 8.2"),
                round(parse_money_cents(edit.price, "Price of the offer")),
            )
            found = (*there, new)
        case SetOfferField():
            one = row_of(there, edit.offer_id, "offer")
            change: dict[str, Any] = {edit.field.value: _value(edit)}
            found = with_row(there, replace(one, **change))
        case RemoveOffer():
            row_of(there, edit.offer_id, "offer")
            found = tuple(o for o in there if o.id != edit.offer_id)
        case _:
            assert_never(edit)
    for offer in found:
        _require_agreeing(offer)
    return replace(job, money=replace(job.money, offers=found))


def _require_agreeing(offer: Offer) -> None:
    if not offer.modules:
        return
    each_w = offer.p_dc_kw * 1000 / offer.modules
    if not LEAST_MODULE_W <= each_w <= MOST_MODULE_W:
        raise BadGeometry(
            f"Offer of {offer.name}",
            f"{offer.p_dc_kw:g} kW of {offer.modules} modules would be {each_w:,.0f} W each",
            "Look again at kW and count on its paper.",
        )
    if offer.free_modules > offer.modules:
        raise BadGeometry(
            f"Offer of {offer.name}",
            f"{offer.free_modules} of its {offer.modules} modules are called free",
            "Type those that are free among all of them.",
        )


def _value(edit: SetOfferField) -> Any:
    typed, kind = edit.typed.strip(), OfferField
    match edit.field:
        case kind.NAME:
            return one_line(typed, "Name of the offer", "whose it is")
        case kind.KW:
            return parse_quantity(typed, "kW of the offer", _KW, "kW such as 8.2")
        case kind.PRICE:
            return round(parse_money_cents(typed, "Price of the offer"))
        case kind.CLAIMED:
            return parse_energy_kwh(typed, "kWh it claims") if typed else None
        case kind.MODULES | kind.WARRANTY | kind.FREE:
            if not typed:
                return 0 if edit.field is kind.FREE else None
            names = {kind.MODULES: "Modules", kind.WARRANTY: "Years of warranty"}
            name = f"{names.get(edit.field, 'Free modules')} of the offer"
            number = parse_number(typed.removesuffix("years").strip(), name, "a count such as 20")
            return whole(number, name, edit.typed, "a whole number such as 20")
        case _:
            assert_never(edit.field)
