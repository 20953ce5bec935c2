"""The edits of other firms' offers, as data; figures travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.money import OfferId


class OfferField(StrEnum):
    """What an offer's paper says."""

    NAME = "name"
    KW = "p_dc_kw"
    PRICE = "price_cents"
    MODULES = "modules"
    CLAIMED = "claimed_kwh"
    WARRANTY = "warranty_years"
    FREE = "free_modules"


@dataclass(frozen=True, slots=True)
class AddOffer:
    """A new offer: what it is called, its kW and its price."""

    name: str
    kw: str
    price: str
    kind: Literal["add-offer"] = "add-offer"


@dataclass(frozen=True, slots=True)
class SetOfferField:
    offer_id: OfferId
    field: OfferField
    typed: str
    kind: Literal["set-offer-field"] = "set-offer-field"


@dataclass(frozen=True, slots=True)
class RemoveOffer:
    offer_id: OfferId
    kind: Literal["remove-offer"] = "remove-offer"


OfferEdit = AddOffer | SetOfferField | RemoveOffer
