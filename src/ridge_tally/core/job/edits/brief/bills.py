"""The edits of bills and of a use given at once, as data; figures travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import BillId


class BillField(StrEnum):
    """A column of the bills."""

    FIRST_DAY = "first_day"
    LAST_DAY = "last_day"
    ENERGY = "energy"
    COST = "cost"


@dataclass(frozen=True, slots=True)
class AddBills:
    """Rows pasted from a table or read from a CSV file, after those already there."""

    text: str
    file: str = ""
    kind: Literal["add-bills"] = "add-bills"


@dataclass(frozen=True, slots=True)
class LayOutBills:
    """Twelve empty rows, a month each, from a first day on."""

    first_day: str
    kind: Literal["lay-out-bills"] = "lay-out-bills"


@dataclass(frozen=True, slots=True)
class SetBill:
    """One cell.

    Without a ``bill_id`` it is of the row at the place ``row``, and starts a new one where there
    is none: two cells of a new row typed before the first is answered are of one row.
    """

    bill_id: BillId | None
    field: BillField
    typed: str
    row: int | None = None
    kind: Literal["set-bill"] = "set-bill"


@dataclass(frozen=True, slots=True)
class FillBillColumn:
    """Cells pasted into one column, from a row downwards; rows are added while there is room."""

    bill_id: BillId | None
    field: BillField
    values: tuple[str, ...]
    kind: Literal["fill-bill-column"] = "fill-bill-column"


@dataclass(frozen=True, slots=True)
class SwapBillColumns:
    bill_id: BillId
    kind: Literal["swap-bill-columns"] = "swap-bill-columns"


@dataclass(frozen=True, slots=True)
class RemoveBills:
    """Rows to take away; none named takes all."""

    bill_ids: tuple[BillId, ...]
    kind: Literal["remove-bills"] = "remove-bills"


@dataclass(frozen=True, slots=True)
class SetUse:
    """The yearly figure, where there are no bills; empty clears it."""

    typed: str
    kind: Literal["set-use"] = "set-use"


BillEdit = (
    AddBills | LayOutBills | SetBill | FillBillColumn | SwapBillColumns | RemoveBills | SetUse
)
