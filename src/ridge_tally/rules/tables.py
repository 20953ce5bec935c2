"""Limits and tables as data: read once, returned immutable, each with its source."""

import tomllib
from dataclasses import dataclass, field
from functools import cache
from importlib.resources import files

from ridge_tally.core.errors import NotFound
from ridge_tally.core.working import Source, SourceStatus

Cell = str | float | bool


@dataclass(frozen=True, slots=True)
class Table:
    """Rows of values under named columns, and where they come from."""

    id: str
    title: str
    columns: tuple[str, ...]
    rows: tuple[tuple[Cell, ...], ...]
    source: Source
    _records: tuple[dict[str, Cell], ...] = field(init=False, compare=False, repr=False)

    def __post_init__(self) -> None:
        records = tuple(dict(zip(self.columns, row, strict=True)) for row in self.rows)
        object.__setattr__(self, "_records", records)

    def number(self, column: str, **keys: Cell) -> float:
        """Return the number in `column` of the row whose other columns equal `keys`.

        Raises
        ------
        NotFound
            If no row has these keys; nothing is interpolated.
        """
        return float(self._cell(column, keys))

    def text(self, column: str, **keys: Cell) -> str:
        """Return the words in `column` of the row whose other columns equal `keys`.

        Raises
        ------
        NotFound
            If no row has these keys.
        """
        return str(self._cell(column, keys))

    def reaching(self, column: str, value: float) -> Cell | None:
        """Return the cell of the first row whose first column reaches a value; none past the last."""
        at = self.columns.index(column)
        return next((row[at] for row in self.rows if float(row[0]) >= value - 1e-9), None)

    def _cell(self, column: str, keys: dict[str, Cell]) -> Cell:
        for cells in self._records:
            if all(cells[name] == value for name, value in keys.items()):
                return cells[column]
        raise NotFound(f"row of table {self.id}", str(keys))


@cache
def load(table_id: str) -> Table:
    """Return a shipped table.

    Raises
    ------
    NotFound
        If none has that id.
    """
    path = files("ridge_tally.rules").joinpath(f"data/{table_id}.toml")
    if not path.is_file():
        raise NotFound("table", table_id)
    data = tomllib.loads(path.read_text("utf-8"))
    source = data["source"]
    return Table(
        id=data["id"],
        title=data["title"],
        columns=tuple(data["columns"]),
        rows=tuple(tuple(row) for row in data["rows"]),
        source=Source(source["document"], source["clause"], SourceStatus(source["status"])),
    )
