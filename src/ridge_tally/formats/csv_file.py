"""Tables out as CSV: a heading with units, and nothing in a cell that a spreadsheet would run."""

import csv
import io
from collections.abc import Sequence

# What makes a spreadsheet take a cell for a formula (OWASP, CSV injection); numbers keep their sign.
_RUNS = ("=", "+", "-", "@", "\t", "\r")
# By this a spreadsheet knows the letters.
MARK = "\ufeff"

Row = dict[str, object]


def csv_text(rows: Sequence[Row]) -> str:
    """Return rows as CSV, the first one's names over them."""
    text = io.StringIO(newline="")
    writer = csv.DictWriter(text, list(rows[0]) if rows else [], lineterminator="\n")
    writer.writeheader()
    writer.writerows({k: _guarded(v) for k, v in row.items()} for row in rows)
    return text.getvalue()


def csv_file(rows: Sequence[Row]) -> bytes:
    """Return rows as a CSV file in UTF-8 with its mark."""
    return (MARK + csv_text(rows)).encode()


def _guarded(cell: object) -> object:
    """Return a cell as it is, or with an apostrophe before what would be run."""
    if isinstance(cell, str) and cell.startswith(_RUNS) and not _is_number(cell):
        return f"'{cell}"
    return cell


def _is_number(cell: str) -> bool:
    try:
        float(cell)
    except ValueError:
        return False
    return True
