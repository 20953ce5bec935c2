"""Sample grid rules to start from: invented operators, one for each family of rules."""

import tomllib
from datetime import date
from functools import cache
from importlib.resources import files
from types import MappingProxyType
from typing import Any

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.grid import (
    ApprovalRoute,
    GridRules,
    Metering,
    RateTier,
    Rebate,
    RouteKind,
    SizeCap,
    SizeCapKind,
    Tariff,
    TariffPeriod,
)


@cache
def grid_packs() -> MappingProxyType[str, GridRules]:
    """Return the shipped packs by id."""
    text = files("ridge_tally.catalogue").joinpath("data/grid-packs.toml").read_text("utf-8")
    return MappingProxyType({key: _pack(key, row) for key, row in tomllib.loads(text).items()})


def grid_pack(pack_id: str) -> GridRules:
    """Return one pack.

    Raises
    ------
    NotFound
        If none has that id.
    """
    try:
        return grid_packs()[pack_id]
    except KeyError:
        raise NotFound("set of sample grid rules", pack_id) from None


def _pack(pack_id: str, row: dict[str, Any]) -> GridRules:
    dated: date = row["dated"]
    tariff, rebate = row["tariff"], row.get("rebate")
    return GridRules(
        pack_id=pack_id,
        operator=row["operator"],
        source=row["source"],
        dated=dated,
        sample=True,
        edited=(),
        currency=row["currency"],
        volts_per_phase_v=row["volts_per_phase_v"],
        size_cap=SizeCap(SizeCapKind(row["size_cap"]["kind"]), row["size_cap"].get("value")),
        ac_cap_kw_per_phase=row.get("ac_cap_kw_per_phase"),
        export_limit_kw=row.get("export_limit_kw"),
        metering=Metering(row["metering"]),
        export_cents_per_kwh=row["export_cents_per_kwh"],
        tariff=Tariff(
            TariffPeriod(tariff["per"]),
            tariff["fixed_cents"],
            tariff["minimum_cents"],
            # A bound of 0 stands for "all that is left": TOML has no null.
            tuple(RateTier(bound or None, rate) for bound, rate in tariff["tiers"]),
            tariff["tax_frac"],
        ),
        disconnect=row["disconnect"],
        insurance=row["insurance"],
        rebate=Rebate(
            rebate["name"],
            rebate.get("most_dc_kw"),
            rebate.get("most_dc_ac_ratio"),
            rebate["pays_cents_per_dc_w"],
        )
        if rebate
        else None,
        routes=tuple(
            ApprovalRoute(
                RouteKind(route["kind"]),
                route.get("most_kw_per_phase"),
                route.get("weeks"),
                route.get("fee_cents"),
                route["notice"],
                route.get("imposed_export_kw"),
            )
            for route in row["routes"]
        ),
        trueup_month=row.get("trueup_month"),
    )
