"""Bills as rows: cells typed, tables pasted, twelve months laid out."""

from dataclasses import replace
from datetime import date, timedelta
from typing import Any, assert_never

from ridge_tally.core.brief.typed import parse_day, parse_energy_kwh
from ridge_tally.core.errors import FormatError, NotFound, NotUnderstood
from ridge_tally.core.job.brief import MOST_BILLS, BillRow, Brief
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.edits.brief.bills import (
    AddBills,
    BillEdit,
    BillField,
    FillBillColumn,
    LayOutBills,
    RemoveBills,
    SetBill,
    SetUse,
    SwapBillColumns,
)
from ridge_tally.core.job.ids import BillId
from ridge_tally.editing.rows import next_id, require_room, with_row
from ridge_tally.formats.table import read_table

BILL_COLUMNS = {
    "from": BillField.FIRST_DAY,
    "start": BillField.FIRST_DAY,
    "to": BillField.LAST_DAY,
    "end": BillField.LAST_DAY,
    "kwh": BillField.ENERGY,
    "energy": BillField.ENERGY,
    "money": BillField.COST,
    "cost": BillField.COST,
    "amount": BillField.COST,
}


def bills_changed(job: Job, edit: BillEdit) -> Job:
    """Return the job after an edit of its bills, or with a use given at once.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, NotFound, FormatError
        Naming the row, the value and the remedy.
    """
    brief = job.brief
    match edit:
        case AddBills():
            brief = replace(brief, bills=(*brief.bills, *_pasted(job, edit)))
        case LayOutBills():
            brief = replace(brief, bills=_laid_out(job, edit.first_day))
        case SetBill():
            at = edit.bill_id
            if at is None and edit.row is not None and 0 <= edit.row < len(brief.bills):
                at = brief.bills[edit.row].id
            brief = replace(brief, bills=_cells_set(job, at, edit.field, (edit.typed,)))
        case FillBillColumn():
            brief = replace(brief, bills=_cells_set(job, edit.bill_id, edit.field, edit.values))
        case SwapBillColumns():
            old = _bill_of(brief, edit.bill_id)
            swapped = replace(old, energy=old.cost, cost=old.energy)
            brief = replace(brief, bills=with_row(brief.bills, swapped))
        case RemoveBills():
            gone = edit.bill_ids or tuple(b.id for b in brief.bills)
            brief = replace(brief, bills=tuple(b for b in brief.bills if b.id not in gone))
        case SetUse():
            typed = edit.typed.strip()
            use_kwh = parse_energy_kwh(typed, "Use in a year") if typed else None
            brief = replace(brief, use_kwh_per_year=use_kwh)
        case _:
            assert_never(edit)
    return replace(job, brief=brief)


def _bill_of(brief: Brief, bill_id: BillId) -> BillRow:
    """Return one row; NotFound if there is none."""
    for row in brief.bills:
        if row.id == bill_id:
            return row
    raise NotFound("bill", bill_id)


def _day_or_text(typed: str, job: Job) -> str:
    """Return the day as ISO text where it can be read; otherwise what was typed, to be mended."""
    try:
        return parse_day(typed, "Day", month_first=month_first(job)).isoformat()
    except NotUnderstood:
        return typed.strip()


def _cells_set(
    job: Job, bill_id: BillId | None, field: BillField, values: tuple[str, ...]
) -> tuple[BillRow, ...]:
    """Return the rows with cells of one column typed, from a row downwards.

    Raises
    ------
    NotFound, BadGeometry
        If the row is not there, or more rows would be needed than are kept.
    """
    rows = job.brief.bills
    start = len(rows)
    if bill_id is not None:
        start = rows.index(_bill_of(job.brief, bill_id))
    missing = max(0, start + len(values) - len(rows))
    require_room("Bills", len(rows), MOST_BILLS, missing)
    for _ in range(missing):
        rows = (*rows, BillRow(BillId(next_id("bill", [r.id for r in rows])), "", "", "", ""))
    days = (BillField.FIRST_DAY, BillField.LAST_DAY)
    for row, typed in zip(rows[start : start + len(values)], values, strict=True):
        text = _day_or_text(typed, job) if field in days else typed.strip()
        change: dict[str, Any] = {field.value: text}
        rows = with_row(rows, replace(row, **change))
    return rows


def _laid_out(job: Job, typed: str) -> tuple[BillRow, ...]:
    """Return twelve empty rows, a month each; NotUnderstood if no day was typed."""
    first = parse_day(typed, "First day of the bills", month_first=month_first(job))
    require_room("Bills", len(job.brief.bills), MOST_BILLS, MOST_BILLS)
    rows = []
    for index in range(MOST_BILLS):
        begin = _months_later(first, index)
        end = _months_later(first, index + 1) - timedelta(days=1)
        bill_id = BillId(f"bill{index + 1}")
        rows.append(BillRow(bill_id, begin.isoformat(), end.isoformat(), "", ""))
    return tuple(rows)


def _months_later(day: date, months: int) -> date:
    """Return the same day some months later, or the month's last day where it is shorter."""
    year, month = divmod(day.month - 1 + months, 12)
    first_of_next = date(day.year + year + (month + 1) // 12, (month + 1) % 12 + 1, 1)
    last = (first_of_next - timedelta(days=1)).day
    return date(day.year + year, month + 1, min(day.day, last))


def _pasted(job: Job, edit: AddBills) -> tuple[BillRow, ...]:
    """Return rows of a table: with a header in any order, or from, to, kWh, money.

    Raises
    ------
    FormatError, BadGeometry
        If it is no such table, or longer than the rows that are left.
    """
    file = edit.file or "pasted bills"
    lines = read_table(edit.text, file)
    header = [cell.strip().lower() for cell in lines[0]]
    if any(cell in BILL_COLUMNS for cell in header):
        columns = {BILL_COLUMNS[cell]: i for i, cell in enumerate(header) if cell in BILL_COLUMNS}
        lines = lines[1:]
    else:
        columns = {field: i for i, field in enumerate(BillField)}
    if BillField.FIRST_DAY not in columns or BillField.LAST_DAY not in columns:
        raise FormatError(
            file,
            "line 1",
            "no column from or no column to",
            "Head the columns from, to, kWh, money.",
        )
    require_room("Bills", len(job.brief.bills), MOST_BILLS, len(lines))
    start = int(next_id("", [b.id.removeprefix("bill") for b in job.brief.bills]))

    def cell(line: list[str], field: BillField) -> str:
        at = columns.get(field, len(line))
        return line[at].strip() if at < len(line) else ""

    return tuple(
        BillRow(
            BillId(f"bill{start + i}"),
            _day_or_text(cell(line, BillField.FIRST_DAY), job),
            _day_or_text(cell(line, BillField.LAST_DAY), job),
            cell(line, BillField.ENERGY),
            cell(line, BillField.COST),
        )
        for i, line in enumerate(lines)
    )
