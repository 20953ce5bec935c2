"""Strings with faults against an independent solution of their circuit.

The circuit is solved module by module with the single diode of pvlib 0.11 and scipy's brentq; the
five parameters at a moment are De Soto et al. 2006, by the same library.  How a fault changes the
circuit is a fact of the trade: common practice, no source.
"""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from pvlib import pvsystem
from scipy.optimize import brentq

from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.proving.faults import Fault, Planted, candidates, planted
from ridge_tally.core.proving.rig import (
    Bench,
    Display,
    Input,
    Inverter,
    Kind,
    Lit,
    Probe,
    Rig,
    Warmth,
    sound_string,
)
from ridge_tally.formats.readings_case import CaseModule, sheet_of

SHEET = sheet_of(
    CaseModule(
        p_max_w=400, voc_v=37.0, isc_a=13.7, vmp_v=31.0, imp_a=12.9,
        beta_voc_pct_per_k=-0.27, alpha_isc_pct_per_k=0.05, gamma_pmax_pct_per_k=-0.35,
    )
)  # fmt: skip
BYPASS_V = 0.5


def rig(*lengths: int, together: bool = False) -> Rig:
    """Strings of so many modules, each on an input of its own or all on one."""
    strings = tuple(
        sound_string(chr(65 + n), SHEET, many, 0, 0 if together else n)
        for n, many in enumerate(lengths)
    )
    inputs = 1 if together else len(lengths)
    return Rig(strings, ("the roof",), (Input(60, 600, 40, 80),) * inputs, Inverter(p_ac_w=20_000))


def module_v(amps: float, light: float, cell: float, turned: bool = False) -> float:
    """A whole module by the reference library: its three substrings share one light here."""
    model = fit_diode(SHEET)
    five = pvsystem.calcparams_desoto(
        light, cell, model.alpha_isc_a_per_degc, model.thermal_v, model.light_current_a,
        model.saturation_current_a, model.shunt_ohm, model.series_ohm, EgRef=model.gap_ev,
    )  # fmt: skip
    if turned:
        return -float(pvsystem.v_from_i(-amps, *five))
    if amps >= five[0]:
        return -3 * BYPASS_V
    return max(float(pvsystem.v_from_i(amps, *five)), -3 * BYPASS_V)


# What hangs otherwise: how many modules, of them how many turned round or dull, and ohms.
CIRCUITS: list[tuple[Fault, float, dict[str, Any]]] = [
    (Fault.HEALTHY, 1, {}),
    (Fault.MODULE_MISSING, 1, {"many": 9}),
    (Fault.MODULE_MISSING, 2, {"many": 8}),
    (Fault.MODULE_EXTRA, 1, {"many": 11}),
    (Fault.MODULE_TURNED, 1, {"turned": 1}),
    (Fault.JOINT, 2.0, {"ohm": 2.0}),
    (Fault.LEAD, 3.0, {"ohm": 3.0}),
    (Fault.SHADE, 0.35, {"dull": 0.35}),
    (Fault.WEAK_MODULE, 0.75, {"dull": 0.75}),
    (Fault.DULL_STRING, 0.6, {"all": 0.6}),
]


@pytest.mark.parametrize(("fault", "much", "circuit"), CIRCUITS)
@pytest.mark.parametrize(("light", "cell"), [(820.0, 48.0), (450.0, 12.0)])
def test_a_faulty_string_reads_what_its_circuit_gives(
    fault: Fault, much: float, circuit: dict[str, Any], light: float, cell: float
) -> None:
    many, turned = circuit.get("many", 10), circuit.get("turned", 0)
    ohm, dull, every = circuit.get("ohm", 0.0), circuit.get("dull"), circuit.get("all", 1.0)

    def volts(amps: float) -> float:
        plain = many - turned - (1 if dull else 0)
        whole = plain * module_v(amps, light * every, cell)
        if turned:
            whole += module_v(amps, light, cell, turned=True)
        if dull:
            whole += module_v(amps, light * dull, cell)
        return whole - amps * ohm

    bench = Bench(planted(rig(10), Planted(fault, 0, 0, much)), Lit((light,), (cell,)))
    most = 13.7 * light / 1000 * 1.05
    shorted = brentq(volts, 0.0, most)
    amps = np.linspace(0.02 * shorted, shorted, 3000)
    power = [a * volts(a) for a in amps]
    best = int(np.argmax(power))
    assert bench.read(Probe(Kind.VOC)) == pytest.approx(volts(0.0), rel=1e-4)
    assert bench.read(Probe(Kind.ISC)) == pytest.approx(shorted, rel=2e-3)
    assert bench.read(Probe(Kind.POWER)) == pytest.approx(power[best], rel=2e-3)


def test_a_bridged_substring_takes_a_third_of_a_module() -> None:
    lit = Lit((820.0,), (48.0,))
    sound = float(Bench(rig(10), lit).read(Probe(Kind.VOC)))
    bridged = Bench(planted(rig(10), Planted(Fault.BYPASS_SHORTED)), lit)
    assert bridged.read(Probe(Kind.VOC)) == pytest.approx(sound * (1 - 1 / 30), rel=1e-6)
    assert bridged.read(Probe(Kind.WARMTH)) == Warmth.SUBSTRING.value


def test_strings_side_by_side_stand_at_one_voltage_and_add_their_currents() -> None:
    lit = Lit((820.0,), (48.0,))
    alone, two = Bench(rig(10), lit), Bench(rig(10, 10, together=True), lit)
    assert two.read(Probe(Kind.V_AT_WORK, 0)) == pytest.approx(
        float(alone.read(Probe(Kind.V_AT_WORK))), rel=4e-3
    )
    assert two.read(Probe(Kind.AC_W)) == pytest.approx(
        2 * float(alone.read(Probe(Kind.AC_W))), rel=1e-3
    )


def test_an_earth_fault_divides_the_volts_where_it_touches() -> None:
    # Eight of ten modules lie between it and plus: by the chain of equal sources.
    one = Planted(Fault.EARTH, 0, 2)
    bench = Bench(planted(rig(10), one), Lit((820.0,), (48.0,)))
    opens = float(bench.read(Probe(Kind.VOC)))
    assert bench.read(Probe(Kind.EARTH_PLUS)) == pytest.approx(0.8 * opens)
    assert bench.read(Probe(Kind.EARTH_MINUS)) == pytest.approx(-0.2 * opens)
    assert bench.read(Probe(Kind.DISPLAY)) == Display.EARTH.value


@pytest.mark.parametrize(
    ("fault", "test", "shows"),
    [
        (Planted(Fault.POLARITY), Probe(Kind.VOC), -1.0),
        (Planted(Fault.PARTED), Probe(Kind.VOC), 0.0),
        (Planted(Fault.FUSE), Probe(Kind.V_FUSED), 0.0),
        (Planted(Fault.SWITCH_OFF), Probe(Kind.I_AT_WORK), 0.0),
        (Planted(Fault.BREAKER_OFF), Probe(Kind.AC_V), 0.0),
        (Planted(Fault.BREAKER_OFF), Probe(Kind.DISPLAY), "no grid"),
        (Planted(Fault.GRID_HIGH, much=1.115), Probe(Kind.DISPLAY), "grid too high"),
        (Planted(Fault.DERATING, much=0.1), Probe(Kind.DISPLAY), "held back by heat"),
        (Planted(Fault.SETTING, much=0.1), Probe(Kind.SETTING), "otherwise"),
        (Planted(Fault.CLOCK, much=1.0), Probe(Kind.CLOCK), 1.0),
        (Planted(Fault.SOILING, much=0.8), Probe(Kind.LOOK), "dirty"),
        (Planted(Fault.SNOW, much=0.5), Probe(Kind.LOOK), "snow on some"),
        (Planted(Fault.JOINT, much=2.0), Probe(Kind.WARMTH), "a joint hot"),
        (Planted(Fault.JOINT, much=2.0), Probe(Kind.SWAP), "string"),
        (Planted(Fault.INPUT_WEAK, much=0.5), Probe(Kind.SWAP), "input"),
        (Planted(Fault.SOILING, much=0.8), Probe(Kind.SWAP), "none"),
    ],
)
def test_what_instruments_and_eyes_show_of_a_fault(
    fault: Planted, test: Probe, shows: float | str
) -> None:
    lit = Lit((820.0,), (48.0,))
    read = Bench(planted(rig(10, 10), fault), lit).read(test)
    if shows == -1.0:
        assert read == -float(Bench(rig(10, 10), lit).read(test))
    else:
        assert read == shows


def test_every_fault_shows_itself_to_some_instrument() -> None:
    whole = rig(10, 9, 10)
    whole = replace(whole, strings=(*whole.strings[:2], replace(whole.strings[2], input=0)))
    lit = Lit((820.0,), (48.0,))
    sound = Bench(whole, lit)
    seen: set[Fault] = set()
    for one in candidates(whole):
        there = Bench(planted(whole, one), lit)
        for kind in Kind:
            for n in range(len(whole.strings) if kind not in (Kind.LOOK, Kind.LIGHT) else 1):
                test = Probe(kind, n)
                try:
                    if there.read(test) != sound.read(test):
                        seen.add(one.fault)
                except IndexError:
                    continue
    waits_for_optimizers = {Fault.HEALTHY, Fault.UNPAIRED}
    assert set(Fault) - seen == waits_for_optimizers
