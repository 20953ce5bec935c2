"""What a bill costs under a tariff, and what energy a bill's cost means."""

import math
import re
from dataclasses import replace
from itertools import pairwise

from ridge_tally.core.brief.tariff_hours import mean_price_cents
from ridge_tally.core.errors import NotUnderstood, OutOfRange, OutsideModelRange
from ridge_tally.core.job.grid import RateTier, Tariff, TariffPeriod
from ridge_tally.core.units import one_line

_EXPECTED = "a price in cents such as 14.2, or tiers such as 11.2 to 500; 14.8"
_PRICE = r"\d{1,9}(?:\.\d{1,9})?"
_TIER = re.compile(rf"({_PRICE}) ?(?:c|ct|¢|p)?(?: ?to ?({_PRICE}) ?(?:kwh)?)?", re.IGNORECASE)


def bill_cents(tariff: Tariff, energy_kwh: float, days: int) -> float:
    """Return what a bill comes to, in cents, not rounded.

    Parameters
    ----------
    tariff : Tariff
        Its bounds and charges count per bill or per day.
    energy_kwh : float
        Energy bought, 0 or more.
    days : int
        Days the bill covers.

    Notes
    -----
    cost = (1 + tax) * max(minimum, fixed + sum of energy in a tier * its price).  With prices by the
    hour the energy is taken evenly over all hours, as a bill's kWh do not say when.
    Source: the way household tariffs are printed; common practice, no source.
    """
    tariff = _by_energy(tariff)
    scale = _scale(tariff, days)
    charged = tariff.fixed_cents * scale + sum(
        kwh * tier.rate_cents_per_kwh
        for tier, kwh in zip(tariff.tiers, by_tier(tariff, energy_kwh, scale), strict=True)
    )
    return max(tariff.minimum_cents * scale, charged) * (1 + tariff.tax_frac)


def energy_for_bill_kwh(tariff: Tariff, cost_cents: float, days: int) -> float:
    """Return the energy that a bill's cost means.

    Raises
    ------
    OutsideModelRange
        Where one cost has no single energy: at or below the minimum or the fixed charge, or
        in a tier that costs nothing.
    """
    tariff = _by_energy(tariff)
    scale = _scale(tariff, days)
    before_tax = cost_cents / (1 + tariff.tax_frac)
    fixed, minimum = tariff.fixed_cents * scale, tariff.minimum_cents * scale
    half_a_cent = 0.5
    if minimum > fixed and before_tax <= minimum + half_a_cent:
        raise OutsideModelRange(
            "Cost",
            f"{cost_cents / 100:,.2f} is the minimum charge, which pays for anything from 0 to "
            f"{_energy_at(tariff, minimum - fixed, scale):,.0f} kWh",
            "Type the kWh of this bill",
        )
    if before_tax < fixed - half_a_cent:
        raise OutsideModelRange(
            "Cost",
            f"{cost_cents / 100:,.2f} is less than the fixed charge of "
            f"{fixed * (1 + tariff.tax_frac) / 100:,.2f}",
            "Type the kWh of this bill, or correct the tariff",
        )
    return _energy_at(tariff, max(0.0, before_tax - fixed), scale)


def _by_energy(tariff: Tariff) -> Tariff:
    """Return a tariff that asks only for energy: one price, the mean, in the place of prices by the hour."""
    if not tariff.periods:
        return tariff
    return replace(tariff, periods=(), tiers=(RateTier(None, mean_price_cents(tariff)),))


def _scale(tariff: Tariff, days: int) -> float:
    return float(days) if tariff.per is TariffPeriod.DAY else 1.0


def _bounds(tariff: Tariff, scale: float) -> list[float]:
    return [math.inf if t.up_to_kwh is None else t.up_to_kwh * scale for t in tariff.tiers]


def by_tier(tariff: Tariff, energy_kwh: float, scale: float) -> list[float]:
    """Return the energy that falls in each tier; ``scale``: what their bounds are times."""
    shares, below = [], 0.0
    for bound in _bounds(tariff, scale):
        shares.append(max(0.0, min(energy_kwh, bound) - below))
        below = bound
    return shares


def _energy_at(tariff: Tariff, energy_cents: float, scale: float) -> float:
    """Return the energy whose tiers cost so much, fixed charge and tax left out."""
    left, energy_kwh, below = energy_cents, 0.0, 0.0
    for tier, bound in zip(tariff.tiers, _bounds(tariff, scale), strict=True):
        if tier.rate_cents_per_kwh <= 0:
            raise OutsideModelRange(
                "Cost",
                f"energy above {below:,.0f} kWh costs nothing in this tariff, so the cost does "
                "not tell the energy",
                "Type the kWh of this bill",
            )
        width = (bound - below) * tier.rate_cents_per_kwh
        if left <= width:
            return energy_kwh + left / tier.rate_cents_per_kwh
        left -= width
        energy_kwh, below = bound, bound
    return energy_kwh


def parse_tiers(typed: str, field: str) -> tuple[RateTier, ...]:
    """Return the tiers of ``14.2`` or ``11.2 to 500; 14.8`` (cents per kWh, bounds in kWh).

    Raises
    ------
    NotUnderstood, OutOfRange
        If the text is not tiers, or the bounds do not rise.
    """
    tiers = []
    text = one_line(typed, field, _EXPECTED)
    parts = [part.strip() for part in re.split(r";|\bthen\b", text) if part.strip()]
    for index, part in enumerate(parts):
        found = _TIER.fullmatch(part.replace(",", "."))
        last = index == len(parts) - 1
        if not found or (found[2] is None) != last:
            raise NotUnderstood(field, typed, _EXPECTED)
        tiers.append(RateTier(float(found[2]) if found[2] else None, float(found[1])))
    if not tiers:
        raise NotUnderstood(field, typed, _EXPECTED)
    bounds = [t.up_to_kwh for t in tiers if t.up_to_kwh is not None]
    for lower, upper in pairwise(bounds):
        if upper <= lower:
            raise OutOfRange(field, upper, f"above the bound before it ({lower:g} kWh)")
    return tuple(tiers)


def write_tiers(tiers: tuple[RateTier, ...]) -> str:
    """Return tiers as they are typed: ``11.2 to 500; 14.8``."""
    return "; ".join(
        f"{t.rate_cents_per_kwh:g}" + ("" if t.up_to_kwh is None else f" to {t.up_to_kwh:g}")
        for t in tiers
    )
