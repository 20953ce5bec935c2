"""Tables as people paste or save them: tabs, semicolons or commas between cells."""

import csv
import io

from ridge_tally.core.errors import FormatError


def read_table(text: str, file: str) -> list[list[str]]:
    """Return the filled lines of a table, cell by cell.

    Raises
    ------
    FormatError
        If there is none.
    """
    marks = ("\t", ";", ",")
    # A title above the heading has no marks: what most of the first lines have counts.
    first = [line for line in text.strip().split("\n", 30)[:30] if line.strip()]
    mark = next((m for m in marks if 2 * sum(m in line for line in first) >= len(first)), ",")
    try:
        lines = list(csv.reader(io.StringIO(text.strip()), delimiter=mark))
    except csv.Error as error:
        raise FormatError(
            file, "", f"this is no table ({error})", "Choose a table with one row a line."
        ) from None
    filled = [line for line in lines if any(cell.strip() for cell in line)]
    if not filled:
        raise FormatError(file, "", "there is nothing in it", "Choose a table with one row a line.")
    return filled
