"""Readings weighed: 200 seeded systems with noise, verdicts at the edges of bands, next tests, words."""

import json

import numpy as np
import pytest

from ridge_tally.core.errors import FormatError
from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.faults import Fault, Planted, candidates, planted
from ridge_tally.core.proving.practice import efficient_line, planted_by, same_readings, scored
from ridge_tally.core.proving.rig import Bench, Input, Inverter, Kind, Lit, Probe, Rig, sound_string
from ridge_tally.core.proving.weighing import SURE, Read, scaled, sigma_of
from ridge_tally.formats.readings_case import CaseModule, diagnosed_case, sheet_of
from ridge_tally.rules.proving.diagnosis import FaultVerdict, diagnosed
from ridge_tally.rules.proving.tables import costs, fault_rows, priors, refused_tests
from ridge_tally.simulators.instruments import shown

MODULE = {
    "p_max_w": 400, "voc_v": 37.0, "isc_a": 13.7, "vmp_v": 31.0, "imp_a": 12.9,
    "beta_voc_pct_per_k": -0.27, "alpha_isc_pct_per_k": 0.05, "gamma_pmax_pct_per_k": -0.35,
}  # fmt: skip
SHEET = sheet_of(CaseModule.model_validate(MODULE))
LIT = Lit((820.0,), (48.0,))
RIG = Rig(
    tuple(
        sound_string(t, SHEET, n, 0, k) for k, (t, n) in enumerate((("A", 10), ("B", 10), ("C", 9)))
    ),
    ("the roof",),
    (Input(90, 560, 16, 120),) * 3,
    Inverter(p_ac_w=12_000),
)
# What a crew reads on one round: all of each string, and what stands on the display.
ROUND = [
    *(
        Probe(k, s)
        for s in range(3)
        for k in (
            Kind.VOC, Kind.ISC, Kind.V_AT_WORK, Kind.I_AT_WORK, Kind.V_FUSED, Kind.INSULATION,
            Kind.WARMTH, Kind.DROP, Kind.SWAP, Kind.EARTH_PLUS,
        )
    ),
    Probe(Kind.LOOK), Probe(Kind.LIGHT), Probe(Kind.LIGHT_AGAIN), Probe(Kind.CELL),
    Probe(Kind.CELL_AGAIN), Probe(Kind.AC_V), Probe(Kind.AC_W), Probe(Kind.DISPLAY),
    Probe(Kind.SETTING), Probe(Kind.CLOCK),
]  # fmt: skip
# Names no instrument tells from each other on this system, or that ask for a label on a back.
ALIKE = [
    {Fault.SWAPPED, Fault.THREADED},
    {Fault.WRONG_MODULE, Fault.WEAK_MODULE, Fault.SHADE},
]


def noisy(faults: tuple[Planted, ...], rng: np.random.Generator) -> list[Read]:
    """A round of readings with half of what instruments may err."""
    there = RIG
    for one in faults:
        there = planted(there, one)
    bench, reads = Bench(there, LIT), []
    for test in ROUND:
        value = bench.read(test)
        if isinstance(value, float) and test.kind is not Kind.CLOCK:
            sigma = sigma_of(test.kind, value, MeterErrors())
            off = 0.5 * sigma * float(rng.normal())
            decades = test.kind is Kind.INSULATION
            value = value * 10**off if decades else scaled(test.kind, value) + off
        reads.append(Read(test, value))
    return reads


def meant(found: str, planted_fault: Fault) -> bool:
    """Whether a code names what was planted, or what no instrument tells from it."""
    same = next((s for s in ALIKE if planted_fault in s), {planted_fault})
    return found in {f.value for f in same}


@pytest.fixture(scope="module")
def seeded() -> list[tuple[Planted, str, float, bool]]:
    """200 systems with one fault each: what was planted, the first cause, its chance, its place."""
    rng = np.random.default_rng(20261202)
    by_fault: dict[Fault, list[Planted]] = {}
    for one in candidates(RIG):
        by_fault.setdefault(one.fault, []).append(one)
    faults = list(by_fault)
    rows = []
    for n in range(200):
        some = by_fault[faults[n % len(faults)]]
        one = some[int(rng.integers(len(some)))]
        found = diagnosed(RIG, noisy((one,), rng))
        first = found.causes[0]
        rows.append((one, first.code, first.chance, found.verdict is FaultVerdict.SURE))
    return rows


def test_the_planted_cause_comes_first_in_nearly_all_of_200_systems(
    seeded: list[tuple[Planted, str, float, bool]],
) -> None:
    right = [meant(code, one.fault) for one, code, _, _ in seeded]
    assert sum(right) >= 190, [r for r, ok in zip(seeded, right, strict=True) if not ok]


def test_no_wrong_cause_is_told_as_sure(
    seeded: list[tuple[Planted, str, float, bool]],
) -> None:
    assert not [r for r in seeded if r[3] and not meant(r[1], r[0].fault)]
    assert all(chance >= SURE for _, _, chance, sure in seeded if sure)


def test_two_faults_at_once_are_told_together() -> None:
    truth = (Planted(Fault.MODULE_MISSING, 1), Planted(Fault.SOILING, 0, 0, 0.82))
    found = diagnosed(RIG, noisy(truth, np.random.default_rng(5)))
    assert set(found.causes[0].code.split("+")) == {"module-missing", "soiling"}


@pytest.mark.parametrize(
    ("off_sigmas", "verdict"),
    [(0.0, FaultVerdict.NORMAL), (1.5, FaultVerdict.NORMAL), (-8.0, FaultVerdict.LIKELY)],
)
def test_a_voltage_inside_its_band_is_normal_and_far_outside_is_not(
    off_sigmas: float, verdict: FaultVerdict
) -> None:
    bench, reads = Bench(RIG, LIT), []
    for test in [Probe(Kind.VOC, s) for s in range(3)] + [Probe(Kind.LIGHT), Probe(Kind.CELL)]:
        value = float(bench.read(test))
        if test == Probe(Kind.VOC, 0):
            value += off_sigmas * sigma_of(Kind.VOC, value, MeterErrors())
        reads.append(Read(test, value))
    found = diagnosed(RIG, reads).verdict
    abnormal = {FaultVerdict.LIKELY, FaultVerdict.OPEN, FaultVerdict.SURE}
    assert found is verdict or (verdict is FaultVerdict.LIKELY and found in abnormal)


def test_every_fault_and_reading_has_its_words_and_no_test_asks_for_a_live_connector() -> None:
    assert set(fault_rows()) == set(Fault)
    assert all(row.mend and row.title for row in fault_rows().values())
    forbidden = ("pull", "unplug", "short the", "bridge")
    for row in fault_rows().values():
        assert not [w for w in forbidden if w in row.mend.casefold()]
    assert {"connector-under-load", "resistance-live", "improvised-short"} <= {
        r.test for r in refused_tests()
    }


def test_an_efficient_line_finds_what_was_planted_and_scores_full_marks() -> None:
    truth = planted_by(RIG, LIT, 0)
    assert [p.fault for p in truth] == [Fault.THREADED, Fault.SOILING]
    single = (Planted(Fault.PARTED, 1),)

    def meter(test: Probe, turn: int) -> float | str:
        return shown(RIG, LIT, single, test, 3, turn)

    par = efficient_line(RIG, LIT, single, meter, priors(), costs())
    reads = [Read(p.test, meter(p.test, n)) for n, p in enumerate(par)]
    asked = (RIG, LIT, single, reads)
    best = scored(*asked, [], single, par, priors(), costs())
    assert (best.points, best.right, best.guessed) == (100.0, True, False)
    wrong = scored(*asked, [], (Planted(Fault.MODULE_MISSING, 0),), par, priors(), costs())
    assert wrong.points == 75.0
    guess = scored(RIG, LIT, single, [], [], single, par, priors(), costs())
    assert (guess.points, guess.guessed) == (0.0, True)
    unsafe = scored(*asked, ["opening a connector"], single, par, priors(), costs())
    assert unsafe.points == 0.0


def test_seeds_plant_twenty_kinds_and_the_same_seed_the_same() -> None:
    found = [planted_by(RIG, LIT, seed) for seed in range(120)]
    assert found == [planted_by(RIG, LIT, seed) for seed in range(120)]
    assert len({p.fault for faults in found for p in faults}) >= 20
    assert {len(faults) for faults in found} == {0, 1, 2}
    assert same_readings(
        RIG, LIT, (Planted(Fault.SWAPPED, 1, 2),), (Planted(Fault.THREADED, 1, 2),)
    )


def case(**changes: object) -> str:
    """A readings file of two strings of ten on a warm day."""
    text = {
        "module": MODULE, "modules_in_series": 10, "irradiance_w_per_m2": 820, "cell_degc": 48,
        "strings": [
            {"voc_v": 344, "isc_a": 11.4, "v_operating_v": 286, "i_operating_a": 10.6},
            {"voc_v": 344, "isc_a": 11.4, "v_operating_v": 286, "i_operating_a": 10.6},
        ],
    } | changes  # fmt: skip
    return json.dumps(text)


def test_hot_glass_is_normal_and_said_so() -> None:
    found = diagnosed_case(case(), "readings.json")
    assert found.verdict is FaultVerdict.NORMAL
    assert found.causes[0].code == "healthy"
    # By hand: 10 x 37 V is 370 V on the label, 344 V read: 26 V.
    assert any("26 V under its label’s 370 V" in told for told in found.normal)


def test_nothing_measured_of_light_and_heat_is_inferred_and_said() -> None:
    found = diagnosed_case(case(irradiance_w_per_m2=None, cell_degc=None), "readings.json")
    assert len(found.inferred) == 2
    assert found.light_w_per_m2[0] == pytest.approx(820, rel=0.05)
    assert any("Nobody measured the light" in told for told in found.weakens)


@pytest.mark.parametrize(
    ("changes", "place"),
    [
        ({"strings": [{"voc_v": None}]}, "strings"),
        ({"irradiance_w_per_m2": 0}, "strings.0.voc_v"),
        ({"irradiance_w_per_m2": -5}, "irradiance_w_per_m2"),
        ({"strings": [{"voc_v": "lots"}]}, "strings.0.voc_v"),
        ({"strings": [{"volts": 3}]}, "strings.0.volts"),
        ({"modules_in_series": 0}, "modules_in_series"),
    ],
)
def test_a_readings_file_that_cannot_be_names_its_place(
    changes: dict[str, object], place: str
) -> None:
    with pytest.raises(FormatError) as refused:
        diagnosed_case(case(**changes), "readings.json")
    assert refused.value.place == place
