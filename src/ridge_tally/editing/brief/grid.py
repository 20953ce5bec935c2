"""The grid rules of a job, field by field."""

import re
from dataclasses import replace
from typing import Any, assert_never

from ridge_tally.catalogue.grid_packs import grid_pack
from ridge_tally.catalogue.tariffs import SampleTariff, sample_tariff
from ridge_tally.core.brief.rate_periods import parse_days, parse_months, typed_period
from ridge_tally.core.brief.tariff import parse_tiers
from ridge_tally.core.brief.typed import (
    parse_choice,
    parse_day,
    parse_kwh_price_cents,
    parse_money_cents,
    parse_quantity,
    parse_share_frac,
)
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotUnderstood, OutOfRange
from ridge_tally.core.job.brief import Brief
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.edits.brief.grid import (
    GridEdit,
    GridField,
    RouteField,
    SetGridField,
    SetRatePeriods,
    SetRouteField,
    TakeGridPack,
    TakeTariff,
)
from ridge_tally.core.job.grid import (
    ApprovalRoute,
    GridRules,
    Metering,
    Rebate,
    RouteKind,
    SizeCap,
    SizeCapKind,
    TariffPeriod,
)
from ridge_tally.core.units import one_line


def grid_changed(job: Job, edit: GridEdit) -> Job:
    """Return the job after an edit of its grid rules.

    Raises
    ------
    NotUnderstood, OutOfRange, MissingDatum, NotFound
        Naming the field, the value and the remedy.
    """
    match edit:
        case TakeGridPack():
            grid = grid_pack(edit.pack_id) if edit.pack_id else None
        case TakeTariff():
            grid = _with_tariff(_grid_of(job.brief), sample_tariff(edit.tariff_id))
        case SetGridField():
            grid = _field_set(_grid_of(job.brief), edit, month_first=month_first(job))
            grid = _marked(grid, edit.field)
        case SetRatePeriods():
            grid = _grid_of(job.brief)
            periods = tuple(
                typed_period(p.name, p.months, p.days, p.hours, p.buy, p.sell) for p in edit.periods
            )
            grid = _marked(replace(grid, tariff=replace(grid.tariff, periods=periods)), "periods")
        case SetRouteField():
            grid = _marked(_route_set(_grid_of(job.brief), edit), f"{edit.route}.{edit.field}")
        case _:
            assert_never(edit)
    return replace(job, brief=replace(job.brief, grid=grid))


def _grid_of(brief: Brief) -> GridRules:
    """Return the grid rules; MissingDatum while none are chosen."""
    if brief.grid is None:
        raise MissingDatum("grid rules", "The brief", "Choose a sample set to start from.")
    return brief.grid


def _with_tariff(grid: GridRules, sample: SampleTariff) -> GridRules:
    """Return the rules with a sample's tariff; the rest of them stays."""
    if sample.currency != grid.currency:
        raise BadGeometry(
            "Tariff",
            f"“{sample.name}” is in {sample.currency}, these grid rules are in {grid.currency}",
            f"Choose one in {grid.currency}, or other grid rules first.",
        )
    return replace(
        grid,
        tariff=sample.tariff,
        metering=sample.metering,
        trueup_month=sample.trueup_month,
        export_cents_per_kwh=sample.export_cents_per_kwh,
    )


def _marked(grid: GridRules, field: str) -> GridRules:
    """Return the rules with a field told as typed over."""
    edited = grid.edited if field in grid.edited else (*grid.edited, str(field))
    return replace(grid, edited=edited)


def _kw(typed: str, name: str) -> float | None:
    """Return kW; empty or “none” is no limit."""
    if typed.lower() in {"", "none", "no", "-"}:
        return None
    return parse_quantity(
        typed, name, {"": 1.0, "kw": 1.0, "w": 0.001, "kva": 1.0}, "5 kW, or none"
    )


def _rebate_ratio(typed: str) -> float:
    """Return DC over AC from ``133 %``, ``1.33``, or the other wording, ``AC at least 75 %``."""
    name = "DC over AC for the rebate"
    text = one_line(typed, name, "133 %, or AC at least 75 %")
    found = re.fullmatch(r"(?:ac|inverter)\D*(\d{1,4}(?:[.,]\d{1,4})?) ?%.*", text, re.IGNORECASE)
    if found is None:
        return parse_share_frac(text, name)
    share = float(found[1].replace(",", ".")) / 100
    if not 0 < share <= 2:
        raise OutOfRange("AC over DC for the rebate", share * 100, "a per cent up to 200")
    return 1 / share


def _field_set(grid: GridRules, edit: SetGridField, *, month_first: bool) -> GridRules:  # noqa: PLR0911, PLR0912 - one arm a field
    """Return the rules with one field as typed; NotUnderstood if it cannot be read."""
    kind, typed = GridField, edit.typed.strip()
    rebate = grid.rebate or Rebate("", None, None, 0.0)
    match edit.field:
        case kind.OPERATOR | kind.DISCONNECT | kind.INSURANCE:
            words: dict[str, Any] = {edit.field.value: typed}
            return replace(grid, **words)
        case kind.SOURCE:
            # A source of one's own is what makes the rules more than a sample.
            return replace(grid, source=typed, sample=False)
        case kind.DATED:
            return replace(
                grid, dated=parse_day(typed, "Date of the rules", month_first=month_first)
            )
        case kind.SIZE_CAP_KIND:
            cap = SizeCapKind(parse_choice(SizeCapKind, typed, "Kind of size cap"))
            return replace(grid, size_cap=SizeCap(cap, None))
        case kind.SIZE_CAP:
            share = grid.size_cap.kind is SizeCapKind.SHARE_OF_USE
            value = (
                parse_share_frac(typed, "Size cap") if share and typed else _kw(typed, "Size cap")
            )
            return replace(grid, size_cap=replace(grid.size_cap, value=value))
        case kind.AC_CAP:
            return replace(grid, ac_cap_kw_per_phase=_kw(typed, "Inverter cap for a phase"))
        case kind.EXPORT_LIMIT:
            return replace(grid, export_limit_kw=_kw(typed, "Export limit"))
        case kind.METERING:
            return replace(grid, metering=parse_choice(Metering, typed, "Metering"))
        case kind.EXPORT_RATE:
            return replace(
                grid,
                export_cents_per_kwh=parse_kwh_price_cents(
                    typed or "0", "Paid for export", "cents such as 6.5"
                ),
            )
        case kind.TARIFF_PER:
            per = parse_choice(TariffPeriod, typed, "Charges count for each")
            return replace(grid, tariff=replace(grid.tariff, per=per))
        case kind.FIXED:
            fixed = parse_money_cents(typed or "0", "Fixed charge")
            return replace(grid, tariff=replace(grid.tariff, fixed_cents=fixed))
        case kind.MINIMUM:
            least = parse_money_cents(typed or "0", "Minimum charge")
            return replace(grid, tariff=replace(grid.tariff, minimum_cents=least))
        case kind.TIERS:
            tiers = parse_tiers(typed, "Price of a kWh")
            return replace(grid, tariff=replace(grid.tariff, tiers=tiers))
        case kind.TAX:
            tax = parse_share_frac(f"{typed.removesuffix('%') or '0'}%", "Tax")
            return replace(grid, tariff=replace(grid.tariff, tax_frac=tax))
        case kind.HOLIDAYS:
            days = parse_days(typed, "Holidays", month_first=month_first)
            return replace(grid, tariff=replace(grid.tariff, holidays=days))
        case kind.DEMAND:
            demand = parse_money_cents(typed or "0", "Price of the month’s highest kW")
            return replace(grid, tariff=replace(grid.tariff, demand_cents_per_kw=demand))
        case kind.TRUEUP:
            months = parse_months(typed, "True-up after") if typed else ()
            if len(months) > 1:
                raise NotUnderstood("True-up after", typed, "one month such as Apr, or nothing")
            return replace(grid, trueup_month=months[0] if months else None)
        case kind.REBATE_NAME:
            return replace(grid, rebate=replace(rebate, name=typed) if typed else None)
        case kind.REBATE_DC:
            return replace(grid, rebate=replace(rebate, most_dc_kw=_kw(typed, "Rebate up to")))
        case kind.REBATE_RATIO:
            ratio = _rebate_ratio(typed) if typed else None
            return replace(grid, rebate=replace(rebate, most_dc_ac_ratio=ratio))
        case kind.REBATE_PAYS:
            pays = parse_money_cents(typed or "0", "Rebate for a watt")
            return replace(grid, rebate=replace(rebate, pays_cents_per_dc_w=pays))
        case _:
            assert_never(edit.field)


def _route_set(grid: GridRules, edit: SetRouteField) -> GridRules:
    """Return the rules with one field of a route as typed; NotUnderstood if it cannot be read."""
    kind, typed = RouteField, edit.typed.strip()
    names = {RouteKind.NOTIFY: "notify afterwards", RouteKind.APPLY: "apply first"}
    owner = names[edit.route]
    value: object
    match edit.field:
        case kind.NOTICE:
            value = typed
        case kind.FEE:
            value = round(parse_money_cents(typed, f"Fee, {owner}")) if typed else None
        case kind.WEEKS:
            units = {"": 1.0, "weeks": 1.0, "week": 1.0, "days": 1 / 7, "day": 1 / 7}
            value = parse_quantity(typed, f"Time, {owner}", units, "8 weeks") if typed else None
        case _:
            value = _kw(typed, f"Limit, {owner}")
    change: dict[str, Any] = {edit.field.value: value}
    old = next((r for r in grid.routes if r.kind is edit.route), None)
    old = old or ApprovalRoute(edit.route, None, None, None, "", None)
    others = tuple(r for r in grid.routes if r.kind is not edit.route)
    routes = sorted((*others, replace(old, **change)), key=lambda r: list(RouteKind).index(r.kind))
    return replace(grid, routes=tuple(routes))
