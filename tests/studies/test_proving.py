"""Commissioning at the edges of its bands, stickers, the built option, and a moment of a design."""

from dataclasses import replace
from datetime import date

import pytest

from jobs import FULL, SHELF, WORKED_OUT
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotUnderstood, OutOfRange
from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.proving.built import (
    MarkBuilt,
    NoteSiteChange,
    SetCorner,
    SetSerialPattern,
    SetSerials,
    SwapSerials,
)
from ridge_tally.core.job.edits.proving.readings import AddReading, WriteRecord, WriteTests
from ridge_tally.core.job.proving import Carries, Corner, ProofRow, ProofStep
from ridge_tally.core.proving.expected import string_due
from ridge_tally.core.proving.rig import Kind
from ridge_tally.core.sky.given_sky import Sky
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.demo.tollgate import tollgate
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.serials import serial_map
from ridge_tally.rules.proving.slots import SlotKind, SlotState, slots_seen
from ridge_tally.services.proving import commissioning_of
from ridge_tally.simulation.moment import Asked, day_under
from ridge_tally.studies.proving.at_moment import Normal, TypedReading, at_moment, parse_minute
from ridge_tally.studies.proving.commissioning import commissioning
from ridge_tally.studies.proving.hunt import hunt_view
from ridge_tally.studies.proving.string_tests import Outcome, StringJudge, light_and_cell
from ridge_tally.views.proving.records import records_view

TOLLGATE = tollgate(SHELF)
A = TOLLGATE.options[0]
TODAY = date(2026, 6, 1)


def designed(job: Job) -> Design:
    """The first option, resolved."""
    return design_for(job, job.options[0])


DESIGN = designed(TOLLGATE)


def row(
    step: ProofStep, place: str, typed: float, light: str = "820", back: str = "45.54"
) -> ProofRow:
    """A reading at 820 W/m² and cells at 48 °C: 45.54 + 3 x 0.82."""
    return ProofRow(step, place, f"{typed}", light, back, "12:00", TODAY, "us")


def due(tag: str) -> tuple[float, float]:
    """Open voltage and current of a string of Tollgate there, by the tested expectation."""
    string = next(s for s in A.strings if s.tag == tag)
    sheet = DESIGN.sheets[string.module_ids[0]]
    found = string_due(sheet, len(string.module_ids), 820, 48.0)
    return found.voc_v.due, found.isc_a.due


@pytest.mark.parametrize(
    ("share", "outcome", "told"),
    [
        (1.0, Outcome.PASSED, ""),
        (1 - 0.2 / 9, Outcome.LOOK, ""),
        (1 - 1 / 27, Outcome.FAIL, "one substring short: a bypass diode, or shade on it"),
        (8 / 9, Outcome.FAIL, "one module short"),
        (7 / 9, Outcome.FAIL, "two modules short, or one turned round"),
        (10 / 9, Outcome.FAIL, "1.00 of a module too much: one more than drawn"),
    ],
)
def test_volts_are_told_in_modules(share: float, outcome: Outcome, told: str) -> None:
    """Nine in series: a module is a ninth of the volts, a substring a third of that; by hand."""
    volts = {s.tag: due(s.tag)[0] for s in A.strings}
    rows = [row(ProofStep.VOC, tag, v * (share if tag == "A" else 1.0)) for tag, v in volts.items()]
    judge = StringJudge.of(DESIGN, ProofStep.VOC, rows)
    found = judge.judged(rows[[s.tag for s in A.strings].index("A")])
    assert found.outcome is outcome
    assert told in found.told
    others = [judge.judged(r).outcome for r in rows if r.place != "A"]
    assert set(others) == {Outcome.PASSED}


@pytest.mark.parametrize(
    ("share", "outcome"),
    [(1.0, Outcome.PASSED), (0.96, Outcome.PASSED), (0.93, Outcome.LOOK), (0.8, Outcome.FAIL)],
)
def test_amperes_are_held_against_light_and_siblings(share: float, outcome: Outcome) -> None:
    rows = [
        row(ProofStep.ISC, s.tag, due(s.tag)[1] * (share if s.tag == "A" else 1)) for s in A.strings
    ]
    judge = StringJudge.of(DESIGN, ProofStep.ISC, rows)
    assert judge.judged(next(r for r in rows if r.place == "A")).outcome is outcome


@pytest.mark.parametrize(
    ("light", "back", "error"),
    [
        ("", "45", NotUnderstood), ("0.82", "45", OutOfRange), ("399", "45", OutOfRange),
        ("1501", "45", OutOfRange), ("820", "", NotUnderstood), ("820", "111", OutOfRange),
    ],
)  # fmt: skip
def test_light_and_heat_nobody_can_use_are_told(
    light: str, back: str, error: type[Exception]
) -> None:
    with pytest.raises(error):
        light_and_cell(row(ProofStep.ISC, "A", 10, light, back), 400.0)
    assert light_and_cell(row(ProofStep.ISC, "A", 10, "400", "45"), 400.0)[0] == 400


def written(job: Job, step: ProofStep, typed: dict[str, str]) -> Job:
    """The job with a step's readings written down."""
    return apply_edit(
        job,
        WriteTests(
            step, tuple(typed), tuple(typed.values()), "820", "45.54", "12:00", "2026-06-01", "us"
        ),
        SHELF,
    )


def looked_at(job: Job) -> Job:
    """The job with its inspection list ticked."""
    slots = [
        s.slot.id
        for s in slots_seen(designed(job), job.proving)
        if s.slot.kind is SlotKind.INSPECTION
    ]
    return apply_edits(
        job, [WriteRecord(s, "", True, "", "us", "2026-06-01") for s in slots], SHELF
    )


def test_commissioning_stops_at_the_first_failure_and_keeps_what_was_typed() -> None:
    job = TOLLGATE
    steps = commissioning(designed(job), 230.0)
    assert steps.told.startswith("Next: look")
    assert all(s.blocked for s in steps.steps[1:])
    job = written(looked_at(job), ProofStep.BOND, {"bond": "1.0"})
    job = written(job, ProofStep.POLARITY, {"A": "yes", "B": "-310", "C": "yes"})
    steps = commissioning(designed(job), 230.0)
    by = {s.step: s for s in steps.steps}
    assert by[ProofStep.BOND].outcome is Outcome.PASSED
    assert by[ProofStep.POLARITY].outcome is Outcome.FAIL
    assert (
        "reversed"
        in by[ProofStep.POLARITY].rows[0].came_out.told
        + by[ProofStep.POLARITY].rows[1].came_out.told
    )
    assert "Polarity failed" in by[ProofStep.VOC].blocked
    assert steps.told.startswith("Stop")
    odd = written(job, ProofStep.POLARITY, {"B": "perhaps"})
    found = {
        r.place: r
        for s in commissioning(designed(odd), 230.0).steps
        if s.step is ProofStep.POLARITY
        for r in s.rows
    }["B"]
    assert (found.typed, found.came_out.outcome) == ("perhaps", Outcome.UNREAD)
    with pytest.raises(MissingDatum):
        written(job, ProofStep.VOC, {"A": " "})


@pytest.mark.parametrize(("typed", "outcome"), [("1.0", Outcome.PASSED), ("0.99", Outcome.FAIL)])
def test_insulation_is_held_to_its_class(typed: str, outcome: Outcome) -> None:
    """IEC 62446-1, from memory: 120 to 500 V open is tested at 500 V and wants 1 Mohm."""
    job = written(TOLLGATE, ProofStep.INSULATION, {"A": typed})
    rows = next(
        s for s in commissioning(designed(job), 230.0).steps if s.step is ProofStep.INSULATION
    ).rows
    found = next(r for r in rows if r.place == "A")
    assert (found.came_out.outcome, found.came_out.due) == (outcome, 1.0)
    assert "at 500 V" in found.title


@pytest.mark.parametrize(
    ("typed", "outcome"),
    [
        ("253", Outcome.PASSED),
        ("253.1", Outcome.FAIL),
        ("202.4", Outcome.PASSED),
        ("202.3", Outcome.FAIL),
    ],
)
def test_ac_volts_are_held_to_plus_ten_and_minus_twelve_per_cent(
    typed: str, outcome: Outcome
) -> None:
    job = written(TOLLGATE, ProofStep.AC, {"volts": typed})
    found = commissioning(designed(job), 230.0).steps[-1].rows[0]
    assert found.came_out.outcome is outcome


@pytest.mark.parametrize(
    ("code", "volts"),
    [(CodePack.US, 240.0), (CodePack.IEC, 230.0), (CodePack.UK, 230.0), (CodePack.AU_NZ, 230.0)],
)
def test_without_grid_rules_ac_is_held_to_the_country_s_volts(code: CodePack, volts: float) -> None:
    # IEC 60038, 230 V; split phase, 240 V: common practice, no source.
    site = replace(TOLLGATE.site, code_pack=code)
    job = replace(TOLLGATE, site=site, brief=replace(TOLLGATE.brief, grid=None))
    job = written(job, ProofStep.AC, {"volts": "236"})
    found = commissioning_of(designed(job)).steps[-1].rows[0]
    assert found.came_out.due == volts


def test_stickers_follow_the_corner_and_tell_what_is_doubtful() -> None:
    first = serial_map(DESIGN, TOLLGATE.proving, Carries.MODULE)
    assert first.problems == ()
    places = tuple(c.place for c in first.cells)
    job = apply_edits(
        TOLLGATE,
        [
            SetSerialPattern(Carries.MODULE, "TG####"),
            SetSerials(Carries.MODULE, places[:3], ("TG1001", "TG1002", "TG1002")),
            SetSerials(Carries.MODULE, places[4:5], ("tg-5",)),
        ],
        SHELF,
    )
    found = serial_map(designed(job), job.proving, Carries.MODULE)
    assert [c.text for c in found.cells[:5]] == ["TG1001", "TG1002", "TG1002", "", "tg-5"]
    assert [bool(c.problem) for c in found.cells[:5]] == [False, True, True, False, True]
    assert any("left out on the way: South roof row 1 place 4" in p for p in found.problems)
    assert any("4 of 30" in p for p in found.problems)
    swapped = apply_edit(job, SwapSerials(Carries.MODULE, places[0], places[3]), SHELF)
    after = serial_map(designed(swapped), swapped.proving, Carries.MODULE)
    assert [c.text for c in after.cells[:4]] == ["", "TG1002", "TG1002", "TG1001"]
    turned = apply_edit(job, SetCorner(Corner.UPPER_RIGHT), SHELF)
    other = serial_map(designed(turned), turned.proving, Carries.MODULE)
    south = [c.place for c in first.cells if c.plane == "South roof"]
    assert [c.place for c in other.cells if c.plane == "South roof"] == south[::-1]
    with pytest.raises(BadGeometry):
        apply_edit(job, SetSerials(Carries.MODULE, places[-1:], ("a", "b")), SHELF)


def test_a_unit_over_two_modules_has_one_cell_and_two_ports() -> None:
    job = lagoon_road(SHELF)
    micro = next(o for o in job.options if o.electronics.microinverter_id is not None)
    design = design_for(job, micro)
    found = serial_map(design, job.proving, Carries.UNIT)
    modules = [m for c in found.cells for m in c.modules]
    assert (
        len(modules)
        == len(set(modules))
        == sum(len(a.array.modules) for a in design.arrays if a.array.modules)
    )
    inputs = design.microinverter.inputs if design.microinverter else 0
    assert {len(c.modules) for c in found.cells} <= {1, inputs}
    assert all(len(c.ports) == (2 if len(c.modules) == 2 else 0) for c in found.cells)


def test_what_was_changed_on_site_is_told_and_rules_and_year_follow() -> None:
    south = next(a for a in A.arrays if a.plane_id == "south")
    out = south.modules[0].id
    job = apply_edits(
        TOLLGATE,
        [
            ToggleModules(A.id, (out,)),
            NoteSiteChange("2026-05-23", "crew", "a vent pipe"),
        ],
        SHELF,
    )
    found = records_view(designed(job))
    assert found.built is not None
    assert any("1 modules left out" in told for told in found.built.otherwise)
    assert found.built.notes[0].words == "a vent pipe"
    assert job.proving.built is not None
    assert len(job.proving.built.drawn.strings[0].module_ids) == 9
    with pytest.raises(MissingDatum):
        apply_edit(
            replace(job, proving=replace(job.proving, built=None)),
            NoteSiteChange("2026-05-23", "", "x"),
            SHELF,
        )
    copied = replace(job.options[0], id="b", name="another")
    two = replace(job, options=(*job.options, copied))
    with pytest.raises(BadGeometry):
        apply_edit(two, MarkBuilt(copied.id, 2, "2026-05-23", ""), SHELF)


@pytest.mark.parametrize(
    ("typed", "state"),
    [
        ("38.9", SlotState.FINE),
        ("39.1", SlotState.AMISS),
        ("37.1", SlotState.FINE),
        ("steep", SlotState.DOUBTFUL),
    ],
)
def test_a_tilt_is_held_to_its_plan_within_a_degree(typed: str, state: SlotState) -> None:
    job = apply_edit(
        TOLLGATE, WriteRecord("tilt:south:1", typed, None, "", "us", "2026-06-01"), SHELF
    )
    found = next(s for s in slots_seen(designed(job), job.proving) if s.slot.id == "tilt:south:1")
    assert found.state is state


def test_slots_follow_the_design() -> None:
    """Each mount has its photo before it is covered; counted from the racking itself."""
    design = design_for(FULL, FULL.options[0])
    slots = [s.slot for s in slots_seen(design, FULL.proving)]
    mounts = [s for s in slots if s.id.startswith("photo:mount:")]
    assert len(mounts) > 20
    assert all(s.before == "before it is covered" for s in mounts)
    assert {s.kind for s in slots} == set(SlotKind)


def test_a_measured_light_makes_the_sky_and_the_moment_answers_alone() -> None:
    asked = Asked(171, 720, measured_w_per_m2=700, cell_degc=50)
    day = day_under(WORKED_OUT, DESIGN, asked)
    assert float(day.arrays[0].free_w_per_m2[day.now]) == pytest.approx(700, rel=0.01)
    assert float(day.arrays[0].cell_degc[day.now]) == pytest.approx(50, abs=0.1)
    alone = day_under(WORKED_OUT, DESIGN, asked, whole=False)
    for one, other in zip(day.strings, alone.strings, strict=True):
        assert other.voc_v[0] == pytest.approx(one.voc_v[day.now], rel=1e-6)
        assert other.amps_a[0] == pytest.approx(one.amps_a[day.now], rel=1e-4)
    with pytest.raises(OutOfRange):
        day_under(WORKED_OUT, DESIGN, Asked(171, 720, measured_w_per_m2=1600))


def test_a_reading_that_cannot_be_names_its_field() -> None:
    def typed(kind: Kind, at: int, text: str, minute: int = 720) -> None:
        at_moment(WORKED_OUT, DESIGN, Asked(171, minute), (TypedReading(kind, at, text),))

    with pytest.raises(OutOfRange, match="String A: open voltage"):
        typed(Kind.VOC, 0, "300", 60)
    with pytest.raises(OutOfRange, match="its sign and its unit"):
        typed(Kind.V_AT_WORK, 0, "-300")
    with pytest.raises(NotUnderstood, match="West roof: power of the array"):
        typed(Kind.ARRAY_W, 1, "much")
    with pytest.raises(OutOfRange, match="counted from 1"):
        typed(Kind.VOC, 9, "300")
    with pytest.raises(NotUnderstood):
        parse_minute("25:00")
    assert parse_minute("8.30") == 510


def test_sound_readings_are_normal_and_a_dull_array_is_not() -> None:
    sound = at_moment(WORKED_OUT, DESIGN, Asked(171, 720))
    watts = [a.power.due for a in sound.arrays]

    def judged(second: float) -> Normal:
        reads = (
            TypedReading(Kind.ARRAY_W, 0, f"{watts[0]:.0f}"),
            TypedReading(Kind.ARRAY_W, 1, f"{watts[1] * second:.0f}"),
        )
        return at_moment(WORKED_OUT, DESIGN, Asked(171, 720), reads).verdict

    assert judged(1.0) is Normal.NORMAL
    assert judged(0.6) is Normal.ODD
    hazy = at_moment(WORKED_OUT, DESIGN, Asked(171, 720, Sky.HAZY))
    assert hazy.arrays[0].light_w_per_m2 < sound.arrays[0].light_w_per_m2


def test_a_search_keeps_what_it_cannot_read_and_says_what_each_reading_ruled_out() -> None:
    now = at_moment(WORKED_OUT, DESIGN, Asked(171, 720)).strings[0].readings
    volts = next(r.due for r in now if r.kind is Kind.V_AT_WORK)
    job = apply_edits(
        TOLLGATE,
        [
            AddReading("v_operating_v", "A", "about 300"),
            AddReading("v_operating_v", "A", f"{volts * 8 / 9:.1f}"),
            AddReading("v_operating_v", "B", f"{volts * 10 / 9:.1f}"),
        ],
        SHELF,
    )
    view = hunt_view(WORKED_OUT, designed(job), job.proving.hunt)
    assert "not understood" in view.trail[0].problem
    assert view.trail[0].typed == "about 300"
    assert view.diagnosis is not None
    assert view.diagnosis.causes[0].code == "threaded-otherwise"
    assert view.trail[2].ruled_out
