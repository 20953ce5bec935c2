"""Lengths and slopes as people write them; the table is shared with the browser's tests."""

import json
import math
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from extremes import BAD
from ridge_tally.core.brief.tariff import parse_tiers
from ridge_tally.core.brief.typed import (
    parse_day,
    parse_energy_kwh,
    parse_money_cents,
    parse_quantity,
)
from ridge_tally.core.errors import NotUnderstood, OutOfRange
from ridge_tally.core.units import (
    LengthUnit,
    format_length,
    parse_coordinates_deg,
    parse_length_m,
    parse_number,
    parse_slope_deg,
    parse_temperature_degc,
    with_unit_written,
)

SHARED = json.loads((Path(__file__).parents[1] / "shared" / "lengths.json").read_text())


@pytest.mark.parametrize(("typed", "unit", "metres"), SHARED["readings"])
def test_length_is_read_as_written(typed: str, unit: str, metres: float) -> None:
    assert parse_length_m(typed, LengthUnit(unit)) == pytest.approx(metres, abs=1e-9)


@pytest.mark.parametrize(("typed", "unit"), SHARED["refused"])
def test_text_that_is_no_length_is_refused_by_name(typed: str, unit: str) -> None:
    with pytest.raises(NotUnderstood, match="Eave"):
        parse_length_m(typed, LengthUnit(unit), "Eave")


@pytest.mark.parametrize(("metres", "unit", "text"), SHARED["written"])
def test_length_is_written_as_a_carpenter_does(metres: float, unit: str, text: str) -> None:
    assert format_length(metres, LengthUnit(unit)) == text


@given(st.floats(-80, 80), st.sampled_from(LengthUnit))
def test_what_is_written_reads_back(metres: float, unit: LengthUnit) -> None:
    step_m = 0.01 if unit is LengthUnit.METRE else 0.0254 / 8
    again = parse_length_m(format_length(metres, unit), LengthUnit.METRE)
    assert again == pytest.approx(metres, abs=step_m / 2 + 1e-9)


@pytest.mark.parametrize(
    ("typed", "degrees"),
    [
        ("26.6", 26.6),
        ("26,6°", 26.6),
        ("6:12", 26.565051),
        ("6/12", 26.565051),
        ("12:12", 45.0),
        ("100%", 45.0),
    ],
)
def test_slope(typed: str, degrees: float) -> None:
    assert parse_slope_deg(typed) == pytest.approx(degrees, abs=1e-6)


@pytest.mark.parametrize("typed", ["steep", "6:0", "", "inf"])
def test_slope_refused(typed: str) -> None:
    with pytest.raises(NotUnderstood, match="6:12"):
        parse_slope_deg(typed)


@pytest.mark.parametrize(
    ("typed", "celsius"),
    [("−24", -24), ("-24 °C", -24), ("-24c", -24), ("14 °F", -10), ("-4F", -20), ("32 f", 0)],
)
def test_temperature_in_either_scale(typed: str, celsius: float) -> None:
    assert parse_temperature_degc(typed, "Coldest") == pytest.approx(celsius)


def test_plain_number_takes_true_minus_and_comma() -> None:
    assert parse_number("−24,5°", "Azimuth", "degrees") == -24.5
    with pytest.raises(NotUnderstood, match="Coldest: “cold”"):
        parse_temperature_degc("cold", "Coldest")


@pytest.mark.parametrize(
    ("typed", "unit", "degrees"),
    [
        ("7' 6\" over 15'", LengthUnit.METRE, 26.565051),
        ("2.1 over 4.2", LengthUnit.METRE, 26.565051),
        ("18 in over 12 in", LengthUnit.FOOT, 56.309932),
    ],
)
def test_a_slope_from_measured_rise_and_run(typed: str, unit: LengthUnit, degrees: float) -> None:
    assert parse_slope_deg(typed, "Slope", unit) == pytest.approx(degrees, abs=1e-6)


@pytest.mark.parametrize(
    ("typed", "unit", "written"),
    [("18", "ft", "18'"), ("18.5", "m", "18.5 m"), ("3/4", "ft", '3/4"'), ("40'", "m", "40'")],
)
def test_a_unit_is_written_where_it_was_taken_for_granted(
    typed: str, unit: str, written: str
) -> None:
    text = with_unit_written(typed, LengthUnit(unit))
    assert text == written
    for other in LengthUnit:
        assert parse_length_m(text, other) == pytest.approx(parse_length_m(typed, LengthUnit(unit)))


# Texts that make a careless pattern try one split after another, far longer than anybody types.
LONG = (
    "1" * 300,
    " " * 299 + "1",
    "1 " * 150,
    "1'" * 150,
    "36.2" + " " * 290 + "x",
    "((" * 149 + "))",
)
READERS = [
    lambda typed: parse_length_m(typed, LengthUnit.FOOT),
    parse_slope_deg,
    lambda typed: parse_coordinates_deg(typed, "Place"),
    lambda typed: parse_temperature_degc(typed, "Air"),
    lambda typed: parse_number(typed, "Count", "a number"),
    lambda typed: parse_day(typed, "Day", month_first=True),
    lambda typed: parse_energy_kwh(typed, "Energy"),
    lambda typed: parse_money_cents(typed, "Cost"),
    lambda typed: parse_quantity(typed, "Power", {"": 1.0, "kw": 1000.0}, "5 kW"),
    lambda typed: parse_tiers(typed, "Price"),
]


@pytest.mark.parametrize("read", READERS)
@given(typed=st.one_of(st.sampled_from(LONG), st.sampled_from(BAD), st.text(max_size=320)))
def test_any_text_is_a_finite_figure_or_not_understood(read, typed: str) -> None:
    try:
        found = read(typed)
    except (NotUnderstood, OutOfRange):
        return
    figures = found if isinstance(found, tuple) else (found,)
    assert all(math.isfinite(f) for f in figures if isinstance(f, float))
    # A hundred thousand characters are refused at once, not read.
    with pytest.raises((NotUnderstood, OutOfRange)):
        read(typed + " " * 100_000 + "x")
