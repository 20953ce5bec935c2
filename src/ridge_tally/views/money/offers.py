"""Other firms' offers beside ours: per watt, per kWh over a warranty, and what their claims would take."""

from dataclasses import dataclass

from ridge_tally.core.job.money import Offer, OfferId
from ridge_tally.core.money.told import money_told
from ridge_tally.core.number_format import spaced
from ridge_tally.rules.design import Design
from ridge_tally.studies.money.option_money import OptionMoney, expected_of

# Of ours or of an offer that names no warranty; common practice, no source.
USUAL_WARRANTY_YEARS = 25


@dataclass(frozen=True, slots=True)
class OfferView:
    """An offer as typed and as it compares; ``id`` empty for ours.

    ``kwh_cents``: its price over the kWh of its warranty, aged as ours are; ``our_kwh``: what its kW
    would give here by our year.  ``told``: what its paper would need to be true.
    """

    id: OfferId | None
    name: str
    p_dc_kw: float
    price_cents: int
    modules: int | None
    claimed_kwh: float | None
    warranty_years: int | None
    free_modules: int
    w_cents: float
    kwh_cents: float | None
    our_kwh: float | None
    told: tuple[str, ...]


def offer_views(design: Design, money: OptionMoney | None, currency: str) -> tuple[OfferView, ...]:
    """Return our own offer and the others, by what the option's year gives a kW."""
    if money is None:
        return ()
    kw, gross = money.quote.bought.dc_kw, money.quote.gross_cents
    per_kw = money.energy_kwh / kw if kw else 0.0
    expected = expected_of(design)
    ageing, years = expected.ageing_frac or 0.0, expected.years
    ours = OfferView(
        None, "Ours", kw, gross, None, money.energy_kwh, years, 0, gross / kw / 1000,
        _kwh_cents(gross, money.energy_kwh, years, ageing), money.energy_kwh, (),
    )  # fmt: skip
    return (ours, *(_view(o, per_kw, ageing, ours, currency) for o in design.job.money.offers))


def _kwh_cents(cents: float, kwh: float, years: int, ageing: float) -> float | None:
    """Return a price over the kWh of so many years, not discounted."""
    whole = kwh * sum((1 - ageing) ** n for n in range(years))
    return cents / whole if whole > 0 else None


def _view(offer: Offer, per_kw: float, ageing: float, ours: OfferView, currency: str) -> OfferView:
    here = per_kw * offer.p_dc_kw
    years = offer.warranty_years or USUAL_WARRANTY_YEARS
    told = []
    if offer.claimed_kwh is not None:
        claimed = offer.claimed_kwh / offer.p_dc_kw
        off = claimed / per_kw - 1 if per_kw else 0.0
        told.append(
            f"It claims {spaced(claimed)} kWh a kW; this roof gives {spaced(per_kw)} by our year, so "
            f"{abs(off) * 100:.0f} % {'more' if off > 0 else 'less'} would have to be true"
        )
    else:
        told.append("Its paper names no kWh: ours for its kW stand here")
    if offer.modules:
        each = offer.p_dc_kw * 1000 / offer.modules
        told.append(f"{offer.modules} modules of {each:.0f} W")
    if offer.free_modules and offer.modules:
        paid = offer.modules - offer.free_modules
        if paid > 0:
            told.append(
                f"{offer.free_modules} “free”: the {paid} others cost "
                f"{money_told(offer.price_cents / paid, currency)} each, all of them "
                f"{money_told(offer.price_cents / offer.modules, currency)}"
            )
    if offer.warranty_years is None:
        told.append(f"No warranty named: {USUAL_WARRANTY_YEARS} years taken")
    fair = ours.w_cents * offer.p_dc_kw * 1000
    more = offer.price_cents - fair
    told.append(
        f"By our price a watt it would cost {money_told(round(fair), currency)}: it asks "
        f"{money_told(abs(round(more)), currency)} {'more' if more > 0 else 'less'}"
    )
    return OfferView(
        offer.id, offer.name, offer.p_dc_kw, offer.price_cents, offer.modules, offer.claimed_kwh,
        offer.warranty_years, offer.free_modules, offer.price_cents / offer.p_dc_kw / 1000,
        _kwh_cents(offer.price_cents, here, years, ageing), here, tuple(told),
    )  # fmt: skip
