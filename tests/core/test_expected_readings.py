"""What a string should read: against the reference library's single diode, bands and deficits by hand."""

from math import sqrt

import pytest
from pvlib import pvsystem

from jobs import SHELF
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.proving.expected import MeterErrors, deficit_told, modules_short, string_due

MODULE = SHELF.modules[0]
NO_ERRORS = MeterErrors(0.0, 0.0, 0.0, 0.0)


@pytest.mark.parametrize("light", [50.0, 200.0, 740.0, 1000.0, 1500.0])
@pytest.mark.parametrize("cell", [-40.0, 0.0, 25.0, 61.5, 110.0])
def test_it_reads_what_the_reference_library_says(light: float, cell: float) -> None:
    """pvlib's De Soto parameters and its Lambert-W solution of the single diode."""
    fit = fit_diode(MODULE)
    reference = pvsystem.calcparams_desoto(
        light, cell, fit.alpha_isc_a_per_degc, fit.thermal_v, fit.light_current_a,
        fit.saturation_current_a, fit.shunt_ohm, fit.series_ohm, EgRef=fit.gap_ev, dEgdT=-0.0002677,
    )  # fmt: skip
    told = pvsystem.singlediode(*reference)
    due = string_due(MODULE, 14, light, cell, NO_ERRORS)
    assert due.voc_v.due == pytest.approx(14 * told["v_oc"], rel=1e-5)
    assert due.isc_a.due == pytest.approx(told["i_sc"], rel=1e-6)
    assert due.vmp_v.due == pytest.approx(14 * told["v_mp"], rel=1e-5)
    assert due.imp_a.due == pytest.approx(told["i_mp"], rel=1e-5)
    assert due.voc_v.band == 0


def test_at_standard_conditions_it_is_the_datasheet() -> None:
    due = string_due(MODULE, 10, 1000.0, 25.0)
    assert due.voc_v.due == pytest.approx(10 * MODULE.voc_v, rel=2e-3)
    assert due.isc_a.due == pytest.approx(MODULE.isc_a, rel=2e-3)


def test_a_band_is_the_root_of_the_sum_of_squares() -> None:
    """By hand: 1 % of the meter, 5 % of the light, 2 K by the datasheet's coefficients."""
    due = string_due(MODULE, 14, 800.0, 45.0)
    beta, alpha = MODULE.beta_voc_frac_per_degc, MODULE.alpha_isc_frac_per_degc
    assert beta is not None
    assert alpha is not None
    warm = 14 * MODULE.voc_v * beta * 2
    only_warm = string_due(MODULE, 14, 800.0, 45.0, MeterErrors(0.0, 0.0, 0.0, 2.0)).voc_v.band
    assert only_warm == pytest.approx(abs(warm), rel=0.02)
    parts = [
        string_due(MODULE, 14, 800.0, 45.0, MeterErrors(*(e if k == n else 0.0 for k, e in enumerate((0.01, 0.01, 0.05, 2.0)))))
        for n in range(4)
    ]  # fmt: skip
    for name in ("voc_v", "isc_a", "vmp_v", "imp_a"):
        squares = sum(getattr(p, name).band ** 2 for p in parts)
        assert getattr(due, name).band == pytest.approx(sqrt(squares))
    # A twentieth more light is a twentieth more current: with the meter's own 5.1 %.
    assert due.isc_a.band / due.isc_a.due == pytest.approx(
        sqrt(0.05**2 + 0.01**2 + (2 * alpha) ** 2), rel=0.01
    )


@pytest.mark.parametrize(
    ("field", "args"),
    [
        ("Modules in series", (0, 800.0, 25.0)), ("Modules in series", (101, 800.0, 25.0)),
        ("Light", (10, 49.9, 25.0)), ("Light", (10, 1500.1, 25.0)), ("Light", (10, float("nan"), 25.0)),
        ("Cell temperature", (10, 800.0, -40.1)), ("Cell temperature", (10, 800.0, 110.1)),
    ],
)  # fmt: skip
def test_what_no_string_is_measured_at_is_refused(field: str, args: tuple[float, ...]) -> None:
    with pytest.raises(OutOfRange, match=field):
        string_due(MODULE, *args)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("short", "told"),
    [
        (0.0, "as it should be"), (0.15, "as it should be"), (-0.15, "as it should be"),
        (0.151, "0.15 of a module short"), (1 / 3, "one substring short"), (0.333 + 0.14, "one substring short"),
        (2 / 3, "2 substrings short"), (1.0, "one module short"), (2.0, "two modules short, or one turned round"),
        (3.0, "3 modules short"), (4 / 3, "4 substrings short"), (-1.0, "1.00 of a module too much"),
    ],
)  # fmt: skip
def test_a_deficit_is_told_in_modules(short: float, told: str) -> None:
    assert told in deficit_told(short, 0.15, 3)


def test_a_deficit_is_counted_by_the_share_of_one_module() -> None:
    assert modules_short(560.0, 520.0, 14) == pytest.approx(1.0)
    assert modules_short(560.0, 480.0, 14) == pytest.approx(2.0)
    assert modules_short(560.0, 560.0, 14) == 0.0
