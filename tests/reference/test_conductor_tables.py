"""The conductor tables against physics and worked examples.

Sources: IEC 60228 (resistance at 20 °C), NEC chapter 9 tables 1, 4, 5 and 8, 310.16 and 690.8 (2023);
the examples are those of the code's own handbook kind, worked by hand; all from memory.
"""

import math
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest

from jobs import FULL, option_a
from ridge_tally.core.build.circuits.sums import ALPHA_PER_K, drop_v, lost_w, warm_ohm_per_km
from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.wiring import ConduitKind, Insulation
from ridge_tally.core.working import Verdict
from ridge_tally.editing.design import design_for
from ridge_tally.rules import tables
from ridge_tally.rules.build.circuits.wire import (
    Wire,
    conduit_for,
    earth_size,
    fill_share,
    largest_breaker_a,
)
from ridge_tally.rules.loading.busbar import busbar
from ridge_tally.rules.standard_sizes import next_breaker_a

AWG = Wire(CodePack.US, Insulation.THWN_2, dc=False, loaded=2, circuits=1, terminals_degc=60)
RISING = ["a60", "a75", "a90"]
METRIC = [c for c in tables.load("conductors-mm2").columns if c[:2] in ("b1", "c_", "d1")]


def column(table_id: str, name: str) -> list[float]:
    table = tables.load(table_id)
    at = table.columns.index(name)
    return [float(row[at]) for row in table.rows]


@pytest.mark.parametrize(
    ("table_id", "ohm"),
    [
        ("conductors-awg", "ohm_per_km"),
        ("conductors-mm2", "ohm_per_km_stranded"),
        ("conductors-mm2", "ohm_per_km_fine"),
    ],
)
def test_resistance_times_area_is_that_of_copper(table_id: str, ohm: str) -> None:
    areas, ohms = column(table_id, "metal_mm2"), column(table_id, ohm)
    product = np.array(areas) * np.array(ohms)
    assert product.max() / product.min() < 1.13
    # 17.24 ohm mm2/km of annealed copper at 20 °C, some more by stranding and at 75 °C.
    assert 17.0 < product.min() <= product.max() < 23.0


@pytest.mark.parametrize(
    ("table_id", "name"),
    [("conductors-awg", c) for c in RISING] + [("conductors-mm2", c) for c in METRIC]
    + [("pv-cable", "amps")],
)  # fmt: skip
def test_thicker_carries_more(table_id: str, name: str) -> None:
    amps = column(table_id, name)
    assert all(a < b for a, b in pairwise(amps)), name


@pytest.mark.parametrize(
    ("table_id", "name"),
    [
        ("ambient-us", "factor"), ("bundling-us", "factor"), ("ambient-iec", "pvc"),
        ("ambient-iec", "xlpe"), ("soil-iec", "pvc"), ("soil-iec", "xlpe"),
        ("grouping-iec", "factor"), ("pv-cable-ambient", "factor"),
    ],
)  # fmt: skip
def test_warmer_or_closer_carries_less(table_id: str, name: str) -> None:
    factors = column(table_id, name)
    assert all(a >= b for a, b in pairwise(factors))
    assert factors[0] > factors[-1]


def test_the_factor_by_heat_is_that_of_its_insulation() -> None:
    # A conductor may warm to 90 °C: what is left of 60 K over 30 °C (the formula of 310.15(B)).
    for degc, factor in tables.load("ambient-us").rows[1:]:
        assert float(factor) == pytest.approx(math.sqrt((90 - float(degc)) / 60), abs=0.011)
    for degc, pvc, xlpe in tables.load("ambient-iec").rows:
        t = float(degc)
        if float(pvc):
            assert float(pvc) == pytest.approx(math.sqrt((70 - t) / 40), abs=0.011)
        assert float(xlpe) == pytest.approx(math.sqrt((90 - t) / 60), abs=0.011)


def test_hot_copper_is_that_of_table_8() -> None:
    # Table 8 gives 12 AWG as 1.98 ohm/kft at 75 °C; its 3.31 mm2 of copper at 20 °C, warmed.
    cold = 17.24 / 3.31
    assert warm_ohm_per_km(cold, 75) == pytest.approx(1.98 / 0.3048, rel=0.03)
    assert warm_ohm_per_km(1.0, 70) == 1 + ALPHA_PER_K * 50


def test_drop_is_that_of_the_nodes_of_the_circuit() -> None:
    # Ten pieces of the way out and ten back, a source of current at one end, 0 V at the other.
    length, amps, ohm, pieces = 30.0, 12.5, 4.07, 10
    conductance = pieces / (length / 1000 * ohm)
    nodes = 2 * pieces
    matrix, flows = np.zeros((nodes, nodes)), np.zeros(nodes)
    for a in range(nodes):
        # Node 0 is grounded; a chain to the load, whose two ends are joined by its current alone.
        for b in (a - 1, a + 1):
            if 0 <= b < nodes and {a, b} != {pieces - 1, pieces}:
                matrix[a, a] += conductance
                matrix[a, b] -= conductance
    flows[pieces - 1], flows[pieces] = -amps, amps
    matrix[0, 0] += conductance
    matrix[-1, -1] += conductance
    volts = np.linalg.solve(matrix, flows)
    assert volts[pieces] - volts[pieces - 1] == pytest.approx(drop_v(length, amps, ohm))
    assert lost_w(length, amps, ohm) == pytest.approx(drop_v(length, amps, ohm) * amps)
    # Three phases lose in three conductors what their drops take of three currents.
    assert lost_w(length, amps, ohm, 3) == pytest.approx(3 * drop_v(length, amps, ohm, 3) * amps)


def test_conduit_is_filled_by_geometry() -> None:
    # Three round wires of 4.17 mm over all in a round pipe of 15.8 mm (half inch of EMT).
    wire = math.pi / 4 * 4.17**2
    assert wire == pytest.approx(
        tables.load("conductors-awg").number("thwn_2_mm2", size="10"), 0.02
    )
    found = conduit_for(CodePack.US, ConduitKind.METAL, 3 * wire, 3)
    assert found is not None
    assert found[0] == "1/2"
    inside = math.pi / 4 * 15.8**2
    assert found[1].value == pytest.approx(inside, rel=0.01)
    # Annex C: half an inch of EMT takes five 10 AWG THWN-2, not six.
    assert 5 * wire <= fill_share(CodePack.US, 5) * inside < 6 * wire
    assert conduit_for(CodePack.US, ConduitKind.METAL, 1e6, 3) is None


@pytest.mark.parametrize(
    ("size", "carried", "most"),
    [
        # 240.4(D): small conductors have their own limit, whatever they carry.
        ("14", 25.0, 15.0), ("12", 30.0, 20.0), ("10", 40.0, 30.0),
        # 240.4(B): the next standard size above what it carries will do.
        ("8", 55.0, 40.0), ("6", 75.0, 60.0), ("4", 50.0, 50.0), ("4", 50.1, 60.0),
    ],
)  # fmt: skip
def test_a_breaker_guards_its_conductor(size: str, carried: float, most: float) -> None:
    assert largest_breaker_a(AWG, size, carried) == most


@pytest.mark.parametrize(
    ("breaker", "size"), [(15, "14"), (20, "12"), (60, "10"), (61, "8"), (100, "8"), (200, "6")]
)
def test_the_conductor_to_earth_goes_by_the_breaker(breaker: float, size: str) -> None:
    assert earth_size(AWG, "4", breaker) == size


@pytest.mark.parametrize(
    ("pack", "least", "next_a"),
    [
        (CodePack.US, 39.99, 40), (CodePack.US, 40.0, 40), (CodePack.US, 40.01, 45),
        (CodePack.IEC, 32.0, 32), (CodePack.IEC, 32.01, 40), (CodePack.US, 401, None),
    ],
)  # fmt: skip
def test_the_next_standard_breaker(pack: CodePack, least: float, next_a: float | None) -> None:
    assert next_breaker_a(pack, least) == next_a


@pytest.mark.parametrize(("kw", "stands"), [(7.68, "kept"), (7.67, "kept"), (7.69, "broken")])
def test_two_hundred_amperes_leave_forty(kw: float, stands: str) -> None:
    # 200 A bus and main: 40 A, which 32 A and 7.68 kW at 240 V fill exactly (705.12(B)(2)).
    (sheet,) = FULL.equipment.inverters
    job = replace(
        FULL, equipment=replace(FULL.equipment, inverters=(replace(sheet, p_ac_w=kw * 1000),))
    )
    assert busbar(design_for(job, option_a(job))).verdict is Verdict(stands)
