"""Circuits from the modules to where they join: by hand, at their limits, and with what is missing."""

from collections.abc import Callable
from dataclasses import replace

import pytest

from jobs import FULL, SHELF, option_a
from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.errors import NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.edits.brief.needs import ServiceField, SetServiceField, SetSubPanel
from ridge_tally.core.job.edits.brief.site import SetPlace
from ridge_tally.core.job.edits.build.circuits import (
    CircuitField,
    DrawnSegment,
    SetCircuit,
    SetRoute,
    SetWiringField,
    TakeRoutes,
    WiringField,
)
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.wiring import Lie
from ridge_tally.core.working import Check, Verdict
from ridge_tally.demo.juniper_bench import juniper_bench
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.rules.build.circuits.checks import circuit_checks
from ridge_tally.rules.build.circuits.conductors import Sized, circuits_sized, lost_at_rating
from ridge_tally.rules.build.circuits.conduits import drawn_in
from ridge_tally.rules.build.circuits.gear import gear_asked, labels_of, ratings_of
from ridge_tally.rules.build.circuits.takeoff import taken_off
from ridge_tally.rules.loading.ac_sources import on_fullest_phase
from ridge_tally.rules.strings.microinverters import microinverter_checks
from ridge_tally.studies.build.panel_ways import at_panel

A = option_a(FULL).id
STRINGS, OUTPUT = "strings array south", "inverter 1"


def after(*edits: object) -> Job:
    return apply_edits(FULL, edits, SHELF)  # type: ignore[arg-type]


def sized(job: Job, circuit: str) -> Sized:
    found = circuits_sized(design_for(job, option_a(job)))
    return next(c for c in found if c.circuit.id == circuit)


def checks(job: Job) -> tuple[Check, ...]:
    design = design_for(job, option_a(job))
    return circuit_checks(design, circuits_sized(design))


def told(job: Job, rule: str, subject: str = "") -> Check:
    found = checks(job)
    return next(c for c in found if c.rule_id == rule and subject in c.subject)


def test_strings_and_output_by_hand() -> None:
    strings, output = sized(FULL, STRINGS), sized(FULL, OUTPUT)
    # 1.25 times 13.84 A, two strings beside each other: 4 conductors, 80 %; 31 °C and 33 K: 65 °C.
    assert strings.circuit.most_a == pytest.approx(1.25 * 13.84)
    assert strings.used is not None
    assert (strings.used.size, strings.used.carries.amps) == ("10", pytest.approx(40 * 0.65 * 0.8))
    # 7 600 W at 240 V: 31.67 A, 39.58 A with the quarter, 40 A; 8 AWG carries 40 A at 60 °C.
    assert output.circuit.most_a == pytest.approx(7600 / 240)
    assert (output.breaker_a, output.earth) == (40, "10")
    assert output.used is not None
    assert output.used.size == "8"
    # 0.778 ohm/kft there and back.
    volts = 2 * output.length_m / 304.8 * 0.778 * 7600 / 240
    assert output.used.drop_frac == pytest.approx(volts / 240, rel=1e-3)


def test_terminals_marked_75_bear_more() -> None:
    # At 75 °C 10 AWG bears 35 A and 8 AWG 50: 39.6 A wants 8 AWG still, with room now.
    job = after(SetWiringField(A, WiringField.TERMINALS, "75"))
    assert sized(job, OUTPUT).wire.terminals_degc == 75
    check = told(job, "wiring.terminals", "Inverter")
    assert check.limit.value == 50


@pytest.mark.parametrize(
    ("field", "typed", "rule", "verdict"),
    [
        (CircuitField.BREAKER, "40 A", "wiring.breaker", Verdict.KEPT),
        (CircuitField.BREAKER, "35 A", "wiring.breaker", Verdict.BROKEN),
        (CircuitField.BREAKER, "50 A", "wiring.breaker-most", Verdict.KEPT),
        (CircuitField.BREAKER, "60 A", "wiring.breaker-most", Verdict.BROKEN),
        (CircuitField.BREAKER, "45 A", "wiring.protected", Verdict.KEPT),
        (CircuitField.SIZE, "10", "wiring.protected", Verdict.BROKEN),
        (CircuitField.SIZE, "10 AWG", "wiring.terminals", Verdict.BROKEN),
        (CircuitField.SIZE, "14", "wiring.conductor", Verdict.BROKEN),
        (CircuitField.SIZE, "6", "wiring.conductor", Verdict.KEPT),
        (CircuitField.LENGTH, "97'", "wiring.drop-ac", Verdict.KEPT),
        (CircuitField.LENGTH, "98'", "wiring.drop-ac", Verdict.BROKEN),
    ],
)
def test_what_is_chosen_is_held_to_its_limits(
    field: CircuitField, typed: str, rule: str, verdict: Verdict
) -> None:
    # 2 % of 240 V at 31.67 A and 0.778 ohm/kft: 97.4 ft of 8 AWG, by hand.
    job = after(SetCircuit(A, OUTPUT, field, typed))
    check = told(job, rule, "Inverter")
    assert check.verdict is verdict
    if verdict is Verdict.BROKEN and field is not CircuitField.LENGTH:
        # The way out stands in the check, and leads out.
        mended = apply_edit(job, check.fixes[0].edit, SHELF)
        assert told(mended, rule, "Inverter").verdict is Verdict.KEPT


def test_the_way_of_the_cable_follows_gear_and_what_is_typed() -> None:
    typed = SetRoute(
        A, "array south",
        (DrawnSegment(Lie.ROOF, None, "10'", above_roof="1\""), DrawnSegment(Lie.ATTIC, None, "30'")),
    )  # fmt: skip
    job = after(typed)
    one = sized(job, STRINGS)
    assert one.length_m == pytest.approx(40 * 0.3048)
    # An inch over the roof nothing is added; the attic, 20 K over the air, is the worst place then.
    assert one.used is not None
    assert one.used.carries.warm == 0.76
    assert "attic" in one.used.carries.place
    # Drawn: 3 m east and 4 m north are 5 m, and 2 m down the wall 7.
    first = SitePoint(0.0, 0.0)
    drawn = after(
        SetRoute(A, "array south", (DrawnSegment(Lie.OUTSIDE, None, "1 m"),
                                    DrawnSegment(Lie.OUTSIDE, first),
                                    DrawnSegment(Lie.OUTSIDE, SitePoint(3.0, 4.0), drop="2 m"))),
    )  # fmt: skip
    found = [
        c for c in circuits_sized(design_for(drawn, option_a(drawn))) if c.circuit.id == STRINGS
    ]
    assert found[0].circuit.legs[0].pieces[2].length_m == pytest.approx(7.0)
    back = apply_edit(job, SetRoute(A, "array south", ()), SHELF)
    assert sized(back, STRINGS).length_m == sized(FULL, STRINGS).length_m


def test_the_year_reckons_these_conductors_once_every_way_is_taken() -> None:
    design = design_for(FULL, option_a(FULL))
    assert lost_at_rating(design).dc_frac is None
    job = after(TakeRoutes(A))
    taken = design_for(job, option_a(job))
    one, out = sized(job, STRINGS), sized(job, OUTPUT)
    assert one.used is not None
    assert out.used is not None
    # A string's loss over its power is I R over V: its drop at the rating.
    assert lost_at_rating(taken).dc_frac == pytest.approx(one.used.drop_frac, rel=0.01)
    assert lost_at_rating(taken).ac_frac == pytest.approx(out.used.drop_frac, rel=0.01)


def test_without_gear_nothing_is_said_to_hold() -> None:
    bare = replace(FULL.survey.service, inverter=None, panel=None, disconnect=None)
    job = replace(FULL, survey=replace(FULL.survey, service=bare))
    check = told(job, "wiring.conductor", "Strings")
    assert check.verdict is Verdict.NOT_CHECKED
    assert "Survey" in check.reason
    assert sized(job, STRINGS).used is None
    assert circuits_sized(design_for(job, option_a(job)))


@pytest.mark.parametrize(
    ("edit", "error", "words"),
    [
        (SetCircuit(A, OUTPUT, CircuitField.SIZE, "7"), NotUnderstood, "one of 14, 12"),
        (SetCircuit(A, "no such", CircuitField.SIZE, "8"), NotFound, "circuit"),
        (SetCircuit(A, OUTPUT, CircuitField.BREAKER, "5000"), OutOfRange, "Breaker in A"),
        (SetCircuit(A, OUTPUT, CircuitField.LENGTH, "0"), OutOfRange, "Length"),
        (
            SetRoute(A, "array south", (DrawnSegment(Lie.ROOF),)),
            NotUnderstood,
            "Length of the cable",
        ),
        (SetRoute(A, "array moon", (DrawnSegment(Lie.ROOF, None, "1 m"),)), NotFound, "way"),
        (SetWiringField(A, WiringField.TERMINALS, "90"), NotUnderstood, "60 or 75"),
        (SetWiringField(A, WiringField.INSULATION, "pvc"), NotUnderstood, "thwn-2"),
        (SetWiringField(A, WiringField.FAULT, "9 A"), OutOfRange, "Fault current"),
        (SetSubPanel(2, "Garage"), OutOfRange, "Boards between"),
    ],
)
def test_bad_input_names_its_field(edit: object, error: type[Exception], words: str) -> None:
    with pytest.raises(error, match=words):
        apply_edit(FULL, edit, SHELF)  # type: ignore[arg-type]


def test_other_families_size_in_square_millimetres() -> None:
    chosen = after(SetCircuit(A, OUTPUT, CircuitField.SIZE, "10"))
    place = SetPlace("Somewhere", FULL.site.climate_id, CodePack.AU_NZ, dwelling=True)
    job = apply_edit(chosen, place, SHELF)
    # Ten is a gauge there and an area here: another family begins anew.
    one = sized(job, OUTPUT)
    assert not one.choice.size
    assert one.used is not None
    # 7 600 W at 240 V is 31.67 A: 32 A; 4 mm2 of PVC in conduit bears 32 A, 30.1 A at 31 °C; 6 mm2
    # 41 A, 38.5 A.
    assert (one.breaker_a, one.used.size) == (32, "6")
    assert one.used.carries.amps == pytest.approx(41 * 0.94)
    assert told(job, "wiring.rise").limit.value == 2
    assert {c.rule_id for c in checks(job)} >= {"wiring.rise"}


def test_too_small_a_bus_finds_its_ways_out() -> None:
    job = after(SetServiceField(ServiceField.BUSBAR, "125 A"),
                SetServiceField(ServiceField.MAIN_BREAKER, "125 A"))  # fmt: skip
    found = at_panel(design_for(job, option_a(job)))
    assert found.verdict is Verdict.BROKEN
    hours = [w.hours for w in found.ways if w.holds]
    assert hours == sorted(hours)
    titles = " ".join(w.title for w in found.ways)
    # 1.2 x 125 less 39.58 leaves 110.4 A for the main: 110 A; a bus for 125 and 39.58: 150 A.
    for words in ("Main breaker of 110 A", "Tap before the main", "bus of 150 A", "Power control"):
        assert words in titles
    for way in found.ways:
        if way.edit is not None and way.holds:
            mended = apply_edit(job, way.edit, SHELF)
            assert at_panel(design_for(mended, option_a(mended))).verdict is Verdict.KEPT


def test_a_board_between_is_held_to_its_own_sum() -> None:
    # A 60 A feeder into a 100 A bus: 60 + 39.6 of 120 A; into 80 A of bus: 99.6 of 96 A.
    for bus, verdict in (("100 A", Verdict.KEPT), ("80 A", Verdict.BROKEN)):
        job = after(SetSubPanel(0, "Garage", "", bus, "60 A"))
        found = at_panel(design_for(job, option_a(job)))
        assert found.verdict is verdict
        assert found.told[0].startswith("Garage")
    assert apply_edit(job, SetSubPanel(0, ""), SHELF).survey.service.subpanels == ()


def test_gear_labels_and_parts_follow_the_design() -> None:
    design = design_for(FULL, option_a(FULL))
    found = circuits_sized(design)
    ratings = ratings_of(design, found)
    items = {g.item: g for g in gear_asked(design, ratings)}
    assert items["PV system disconnect"].rating.startswith("40 A at 240 V")
    assert "Rapid-shutdown switch" in items
    texts = " ".join(" ".join(x.lines) for x in labels_of(design, ratings))
    # 14 modules of 49.3 V at -28 °C: 597 V, as the cold voltage's own check has it.
    assert "MAXIMUM DC VOLTAGE 597 V" in texts
    assert "31.7 A AC" in texts
    parts = {p.name: p for p in taken_off(design, found, drawn_in(design, found))}
    strings, output = sized(FULL, STRINGS), sized(FULL, OUTPUT)
    assert strings.length_m is not None
    assert output.length_m is not None
    # Two strings of two conductors; two lines and a neutral; a tenth more.
    assert parts["Copper 10 AWG, THWN-2, DC"].count == -(-4 * strings.length_m * 1.1 // 1)
    assert parts["Copper 8 AWG, THWN-2"].count == -(-3 * output.length_m * 1.1 // 1)
    assert parts["Connectors, mating pairs"].count == 4
    assert parts["Breaker 40 A, two-pole"].count == 1


@pytest.mark.parametrize(
    ("sample", "conductors"),
    [
        # Two lines and a neutral; a line and a neutral; three lines and a neutral.
        (juniper_bench, 3),
        (mill_terrace, 2),
        (kiln_yard, 4),
    ],
)
def test_a_neutral_counts_once(sample: Callable[[Shelf], Job], conductors: int) -> None:
    assert sized(sample(SHELF), OUTPUT).circuit.conductors == conductors


def test_branches_come_together_on_the_fullest_phase() -> None:
    # 9 and 8 units on two of three phases: the fullest carries all nine, in every sum alike.
    job = lagoon_road(SHELF)
    design = design_for(job, job.options[1])
    unit = design.microinverter
    assert unit is not None
    # By its sheet 325 W at 240 V each.
    nine_a = 9 * 325 / 240
    collector = circuits_sized(design)[-1]
    assert collector.circuit.most_a == pytest.approx(nine_a)
    assert collector.breaker_a == 13
    (main,) = (c for c in microinverter_checks(design, unit) if c.rule_id == "micro.main")
    assert main.givens[1].value == pytest.approx(nine_a)
    assert on_fullest_phase(design).givens[0].value == pytest.approx(9 * 0.33)


def test_a_battery_on_dc_is_its_makers_and_beside_microinverters_is_on_ac() -> None:
    battery = Battery(Coupling.DC, 10.0, 5.0)
    option = replace(option_a(FULL), battery=battery)
    design = design_for(replace(FULL, options=(option, *FULL.options[1:])), option)
    (check,) = (
        c
        for c in circuit_checks(design, circuits_sized(design))
        if c.rule_id == "wiring.battery-dc"
    )
    assert check.verdict is Verdict.NOT_CHECKED
    assert "manual" in check.reason
    job = lagoon_road(SHELF)
    micro = replace(job.options[1], battery=battery)
    beside = design_for(replace(job, options=(micro,)), micro)
    assert circuits_sized(beside)[-1].circuit.id == "battery"
