"""Tables: every one loads, says where it comes from, and refuses what it does not hold."""

from importlib.resources import files

import pytest

from ridge_tally.core.errors import NotFound
from ridge_tally.rules import tables
from ridge_tally.rules.practice import Practice, practice

TABLES = [
    p.name.removesuffix(".toml") for p in files("ridge_tally.rules").joinpath("data").iterdir()
]


@pytest.mark.parametrize("table_id", TABLES)
def test_every_table_names_its_source(table_id: str) -> None:
    table = tables.load(table_id)
    assert table.id == table_id
    assert table.source.document
    assert all(len(row) == len(table.columns) for row in table.rows)


def test_nothing_is_interpolated_or_invented() -> None:
    rear = tables.load("rear-gain")
    assert rear.number("factor", mounting="open-rack") == 1.1
    with pytest.raises(NotFound, match="rear-gain"):
        rear.number("factor", mounting="moon")
    with pytest.raises(NotFound, match="table"):
        tables.load("no-such-table")


def test_allowances_are_shares_below_a_tenth() -> None:
    shares = [float(share) for _, share in tables.load("usual-losses").rows]
    assert all(0 < share < 0.1 for share in shares)


def test_each_figure_of_practice_is_a_row_and_each_row_a_figure() -> None:
    rows = [row[0] for row in tables.load("design-practice").rows]
    assert sorted(rows) == sorted(p.value for p in Practice)
    assert [practice(p) for p in Practice if p is Practice.PAYS_YEARS] == [12.0]
