"""Sample tariffs to start from: invented, several for each family of rules."""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from types import MappingProxyType
from typing import Any

from ridge_tally.core.brief.rate_periods import parse_days, typed_period
from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.grid import (
    Metering,
    PriceDays,
    RateTier,
    Tariff,
    TariffPeriod,
)


@dataclass(frozen=True, slots=True)
class SampleTariff:
    """A sample tariff with how it meters; ``family``: whose rules it goes with."""

    id: str
    name: str
    family: CodePack
    currency: str
    tariff: Tariff
    metering: Metering
    trueup_month: int | None
    export_cents_per_kwh: float


@cache
def sample_tariffs() -> Mapping[str, SampleTariff]:
    """Return the shipped tariffs by id."""
    text = files("ridge_tally.catalogue").joinpath("data/tariffs.toml").read_text("utf-8")
    return MappingProxyType({key: _tariff(key, row) for key, row in tomllib.loads(text).items()})


def sample_tariff(tariff_id: str) -> SampleTariff:
    """Return one tariff.

    Raises
    ------
    NotFound
        If none has that id.
    """
    try:
        return sample_tariffs()[tariff_id]
    except KeyError:
        raise NotFound("sample tariff", tariff_id) from None


def _tariff(key: str, row: dict[str, Any]) -> SampleTariff:
    periods = tuple(
        typed_period(name, months, PriceDays(days), hours, f"{buy:g}", sell)
        for name, months, days, hours, buy, sell in row.get("periods", [])
    )
    tariff = Tariff(
        TariffPeriod(row["per"]),
        row["fixed_cents"],
        row["minimum_cents"],
        tuple(RateTier(bound or None, rate) for bound, rate in row["tiers"]),
        row["tax_frac"],
        periods,
        parse_days(row.get("holidays", ""), "Holidays", month_first=False),
    )
    return SampleTariff(
        key, row["name"], CodePack(row["family"]), row["currency"], tariff,
        Metering(row["metering"]), row.get("trueup_month"), row["export_cents_per_kwh"],
    )  # fmt: skip
