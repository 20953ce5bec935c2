"""Applying the edits of prices, lines, the loan and what the years are expected to bring."""

from dataclasses import replace
from typing import Any, assert_never

from ridge_tally.core.brief.typed import (
    parse_choice,
    parse_day,
    parse_money_cents,
    parse_quantity,
)
from ridge_tally.core.errors import FormatError
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.edits.money.prices import (
    MoneyField,
    PriceEdit,
    RemoveOwnLine,
    SetCounted,
    SetFuelPrice,
    SetMoneyField,
    SetOwnLine,
    SetPrices,
    TakeCurrency,
    TakePrices,
    TypedPrice,
)
from ridge_tally.core.job.money import (
    FuelPrice,
    LineId,
    Loan,
    Money,
    Owner,
    OwnLine,
    OwnPrice,
    PriceRule,
    counted_of,
)
from ridge_tally.core.units import one_line, parse_number, whole
from ridge_tally.editing.rows import next_id, row_of, with_row
from ridge_tally.formats.table import read_table

NAMES = {
    MoneyField.RULE: "Price from cost by",
    MoneyField.RULE_FRAC: "Markup or margin",
    MoneyField.SALES_TAX: "Sales tax",
    MoneyField.HOUR: "An hour of work",
    MoneyField.ELECTRICAL: "Electrical hours a kW",
    MoneyField.EACH_JOB: "Hours each job takes besides",
    MoneyField.OWNER: "Owner",
    MoneyField.TAX: "Tax rate",
    MoneyField.TAX_OWED: "Tax owed in a year",
    MoneyField.YEARS: "Years of the table",
    MoneyField.DISCOUNT: "Discount rate",
    MoneyField.ENERGY_RISE: "Energy prices rise",
    MoneyField.FIXED_RISE: "Fixed charges rise",
    MoneyField.EXPORT_RISE: "Export prices rise",
    MoneyField.AGEING: "Modules lose a year",
    MoneyField.UPKEEP: "Upkeep a year",
    MoneyField.UPKEEP_RISE: "Upkeep rises",
    MoneyField.INVERTER_YEAR: "Inverter replaced in year",
    MoneyField.INVERTER_PRICE: "Replacing the inverter",
    MoneyField.CONTRACT: "Day of the contract",
    MoneyField.IN_SERVICE: "Day it goes live",
    MoneyField.PRICE_CHANGE: "Prices of arrays change",
    MoneyField.STAGE_YEAR: "The rest is built in year",
    MoneyField.TILT_CHANGE: "Changing a table’s tilt, each time",
    MoneyField.LOAN_SHARE: "Share on loan",
    MoneyField.LOAN_RATE: "Interest of the loan",
    MoneyField.LOAN_YEARS: "Years of the loan",
    MoneyField.LOAN_FEE: "Fee of the loan",
}
_EXPECTED = frozenset(
    {
        MoneyField.YEARS, MoneyField.DISCOUNT, MoneyField.ENERGY_RISE, MoneyField.FIXED_RISE,
        MoneyField.EXPORT_RISE, MoneyField.AGEING, MoneyField.UPKEEP, MoneyField.UPKEEP_RISE,
        MoneyField.INVERTER_YEAR, MoneyField.INVERTER_PRICE, MoneyField.CONTRACT,
        MoneyField.IN_SERVICE, MoneyField.PRICE_CHANGE, MoneyField.STAGE_YEAR,
        MoneyField.TILT_CHANGE,
    }
)  # fmt: skip
_LOAN = {
    MoneyField.LOAN_SHARE: "share_frac",
    MoneyField.LOAN_RATE: "rate_frac",
    MoneyField.LOAN_YEARS: "years",
    MoneyField.LOAN_FEE: "fee_frac",
}
_FRACS = frozenset(
    {
        MoneyField.RULE_FRAC, MoneyField.SALES_TAX, MoneyField.TAX, MoneyField.DISCOUNT,
        MoneyField.ENERGY_RISE, MoneyField.FIXED_RISE, MoneyField.EXPORT_RISE, MoneyField.AGEING,
        MoneyField.UPKEEP_RISE, MoneyField.PRICE_CHANGE, MoneyField.LOAN_SHARE, MoneyField.LOAN_RATE, MoneyField.LOAN_FEE,
    }
)  # fmt: skip
_CENTS = frozenset(
    {
        MoneyField.HOUR,
        MoneyField.TAX_OWED,
        MoneyField.UPKEEP,
        MoneyField.INVERTER_PRICE,
        MoneyField.TILT_CHANGE,
    }
)
LINE = "line of the list"
_HOURS = {"": 1.0, "h": 1.0, "hours": 1.0, "h/kw": 1.0}


def prices_changed(job: Job, edit: PriceEdit) -> Job:
    """Return the job with other prices, lines or expectations.

    Raises
    ------
    NotUnderstood, OutOfRange, NotFound
        Naming the field, the value and the remedy.
    """
    money = job.money
    match edit:
        case SetMoneyField():
            money = _with_field(job, edit)
        case SetPrices():
            typed = {p.name: p.typed.strip() for p in edit.prices}
            kept = tuple(p for p in money.prices if p.name not in typed)
            new = tuple(
                OwnPrice(_named(name), parse_money_cents(text, f"Price of {name}"))
                for name, text in typed.items()
                if text
            )
            money = replace(money, prices=(*kept, *new))
        case TakePrices():
            prices = _read(edit.text, edit.file or "price list")
            return prices_changed(job, SetPrices(prices))
        case SetOwnLine():
            money = _with_line(money, edit)
        case RemoveOwnLine():
            row_of(money.lines, edit.line_id, LINE)
            left = tuple(x for x in money.lines if x.id != edit.line_id)
            money = replace(money, lines=left)
        case TakeCurrency():
            money = replace(
                money, currency="" if job.brief.grid is None else job.brief.grid.currency
            )
        case SetFuelPrice():
            row_of(job.brief.loads, edit.load_id, "load to come")
            fuels = tuple(p for p in money.fuel_prices if p.load_id != edit.load_id)
            if edit.typed.strip():
                price = FuelPrice(edit.load_id, parse_money_cents(edit.typed, "Price of the fuel"))
                fuels = (*fuels, price)
            money = replace(money, fuel_prices=fuels)
        case SetCounted():
            change: dict[str, Any] = {edit.counts_for.value: edit.counts}
            one = replace(counted_of(money, edit.line_kind), **change)
            others = tuple(c for c in money.counted if c.kind is not edit.line_kind)
            money = replace(money, counted=(*others, one))
        case _:
            assert_never(edit)
    return replace(job, money=money)


def _read(text: str, file: str) -> tuple[TypedPrice, ...]:
    """Return the prices of a table by the names of its columns.

    Raises
    ------
    FormatError
        If it has no such columns, or a row has no name.
    """
    head, *rows = read_table(text, file)
    columns = [c.strip().lower() for c in head]
    if not {"name", "each"} <= set(columns):
        raise FormatError(
            file,
            "row 1",
            "there is no column name, or none each",
            "Save the list here and fill it in.",
        )
    at_name, at_price = columns.index("name"), columns.index("each")
    found = []
    for n, row in enumerate(rows, start=2):
        name = row[at_name].strip() if at_name < len(row) else ""
        if not name:
            raise FormatError(
                file, f"row {n}", "it has no name", "Name the line as it is named here."
            )
        found.append(TypedPrice(name, row[at_price].strip() if at_price < len(row) else ""))
    return tuple(p for p in found if p.typed)


def _named(name: str) -> str:
    return one_line(name, "Name of the line", "what the line is for")


def _with_line(money: Money, edit: SetOwnLine) -> Money:
    if edit.line_id is not None:
        row_of(money.lines, edit.line_id, LINE)
    line = OwnLine(
        edit.line_id or LineId(next_id("line", [x.id for x in money.lines])),
        _named(edit.name),
        edit.line_kind,
        parse_number(edit.count or "1", "Count", "a count such as 1"),
        parse_money_cents(edit.price or "0", f"Price of {edit.name}"),
    )
    if edit.line_id is None:
        return replace(money, lines=(*money.lines, line))
    return replace(money, lines=with_row(money.lines, line))


def _value(job: Job, edit: SetMoneyField) -> Any:  # noqa: PLR0911 - one return a kind
    """Return what was typed as its field has it; ``None`` for nothing."""
    field, typed, name = edit.field, edit.typed.strip(), NAMES[edit.field]
    if field is MoneyField.RULE:
        return parse_choice(PriceRule, typed, name)
    if field is MoneyField.OWNER:
        return parse_choice(Owner, typed, name)
    if field is MoneyField.AGEING and not typed:
        return None
    if field in _FRACS:
        # Rates of a few per cent: a bare number is per cent, never a fraction.
        return parse_number(typed.removesuffix("%") or "0", name, "per cent such as 2.5 %") / 100
    if field in _CENTS:
        return parse_money_cents(typed, name) if typed else None
    if field in (MoneyField.CONTRACT, MoneyField.IN_SERVICE):
        return parse_day(typed, name, month_first=month_first(job)) if typed else None
    if field in (MoneyField.ELECTRICAL, MoneyField.EACH_JOB):
        return parse_quantity(typed, name, _HOURS, "hours such as 8")
    years = parse_quantity(typed, name, {"": 1.0, "years": 1.0, "a": 1.0}, "years such as 25")
    return whole(years, name, edit.typed, "whole years such as 25")


def _with_field(job: Job, edit: SetMoneyField) -> Money:
    money, field, value = job.money, edit.field, _value(job, edit)
    if field in _LOAN:
        if field is MoneyField.LOAN_SHARE and not value:
            return replace(money, loan=None)
        loan = money.loan or Loan(0.0, 0.05, 15)
        change: dict[str, Any] = {_LOAN[field]: value}
        return replace(money, loan=replace(loan, **change))
    if field in _CENTS and value is not None and field is not MoneyField.HOUR:
        value = round(value)
    if field in (MoneyField.UPKEEP, MoneyField.TILT_CHANGE):
        value = value or 0
    change = {field.value: value}
    if field in _EXPECTED:
        return replace(money, expected=replace(money.expected, **change))
    if field in (MoneyField.HOUR, MoneyField.ELECTRICAL, MoneyField.EACH_JOB):
        return replace(money, work=replace(money.work, **change))
    if field in (MoneyField.OWNER, MoneyField.TAX, MoneyField.TAX_OWED):
        return replace(money, payer=replace(money.payer, **change))
    return replace(money, **change)
