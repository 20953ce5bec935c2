"""A carport of six modules and a seamed roof: laid, set on the lines, strung, simulated, judged."""

from pathlib import Path

import pytest

from jobs import SAMPLE, SHELF, warm_workspace_in
from ridge_tally.core.equipment import InverterId
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.array import Mounting, Ways
from ridge_tally.core.job.document import Job, option_of
from ridge_tally.core.job.edits.array.fills import ArrayField, FillPlane, SetArrayField, SetOnLines
from ridge_tally.core.job.edits.array.modules import RemoveModules
from ridge_tally.core.job.edits.array.tables import SpaceRows
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.edits.survey.obstructions import SetStructure, StructureField
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import AddPlane, PlaneField, PlaneShape, SetPlaneField
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.survey import ReadingKind
from ridge_tally.core.survey.scene import FaceKind, scene_of
from ridge_tally.core.working import Verdict
from ridge_tally.demo.kiln_yard import YARD, kiln_yard
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for, design_in
from ridge_tally.formats.job_file import read_job, write_job
from ridge_tally.rules.report import all_checks
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.array.brackets import SeatReport, seat_report

A = OptionId("a")
PORT = PlaneId("plane-2")


def carport(covering: str = "ribbed-metal", **read: str) -> Job:
    """Kiln Yard with a carport of three by two modules."""
    structure = [
        SetStructure(PORT, StructureField(name), typed)
        for name, typed in {"covering": covering, **read}.items()
    ]
    return apply_edits(
        kiln_yard(SHELF),
        (
            AddPlane(PlaneShape.CARPORT),
            SetReading(PORT, ReadingKind.SIDE, (0,), "3.90"),
            SetReading(PORT, ReadingKind.SIDE, (3,), "5.20"),
            SetPlaneField(PORT, PlaneField.SLOPE, "5"),
            SetPlaneField(PORT, PlaneField.AZIMUTH, "186"),
            SetPlaneField(PORT, PlaneField.EAVE_HEIGHT, "2.3"),
            *structure,
            FillPlane(A, PORT, Ways.PORTRAIT),
        ),
        SHELF,
    )


# By hand: a sheet is as wide as a module and its gap, so every column meets its ribs alike; as
# filled the left edges lie 40 mm beside a rib, out of a bracket's reach.
RIBBED = carport(
    rib_spacing="353 mm", first_rib="60 mm", cover_width="1058 mm",
    purlin_spacing="1.0 m", first_purlin="0.1 m",
)  # fmt: skip


def seats(job: Job) -> SeatReport:
    return seat_report(design_in(job, A), PORT)


def on_port(option: Option):
    return next(a for a in option.arrays if a.plane_id == PORT)


def test_a_carport_stands_on_posts_with_air_below() -> None:
    faces = [f for f in scene_of(RIBBED.survey).faces if f.name == "Carport 1"]
    assert sum(f.kind is FaceKind.WALL for f in faces) == 4
    assert on_port(RIBBED.options[0]).mounting is Mounting.OPEN_RACK
    assert read_job(write_job(RIBBED)) == RIBBED


def test_six_modules_are_set_on_the_ribs_strung_and_make_their_year(tmp_path: Path) -> None:
    yard = next(a for a in RIBBED.options[0].arrays if a.plane_id == YARD)
    alone = apply_edits(
        RIBBED,
        (
            RemoveModules(A, tuple(m.id for m in yard.modules)),
            ChooseInverter(A, InverterId("sample-i3")),
        ),
        SHELF,
    )
    job = apply_edit(alone, SetOnLines(A, PORT), SHELF)
    before, after = seats(alone), seats(job)
    assert len(before.modules) == len(after.modules) == 6
    assert (before.held, after.held) == (0, 6)
    assert (before.edges_on, after.edges_on) == (0, 12)
    # By hand: three pitches less one gap.
    assert after.covers == pytest.approx(3 - 0.02 / 1.058, abs=0.005)
    option = option_of(job, A)
    broken = [c.rule_id for c in all_checks(design_for(job, option)) if c.verdict is Verdict.BROKEN]
    # Six modules make few volts for so long a way: it costs more than practice has it.
    assert broken == ["wiring.drop-dc"]
    # Nearly flat: what a level square metre gets, less what modules and inverter lose (14 %,
    # common practice, no source).
    workspace = warm_workspace_in(tmp_path)
    level = float(weather_of(workspace.desk, job).ghi_w_per_m2.sum()) / 1000
    year = hourly_year(workspace.desk, design_for(job, option))
    assert year.energy_kwh == pytest.approx(6 * 0.45 * level * 0.86, rel=0.1)


def test_seams_hold_what_two_of_them_cross() -> None:
    # Seams every 300 mm cross each module of 1.04 m three times: it hangs on its short edges.
    job = carport("standing-seam", seam_spacing="300 mm")
    assert seats(job).held == 6
    assert seats(job).lines_told == "along seams"
    # Seams 1.3 m apart do not, wherever the rows stand.
    wide = apply_edit(carport("standing-seam", seam_spacing="1.3 m"), SetOnLines(A, PORT), SHELF)
    assert seats(wide).held == 0


def test_rows_catch_a_purlin_and_never_leave_the_roof() -> None:
    # Purlins 2.0 m apart alone: every module finds two under its long edges where it is shifted.
    job = carport("membrane", purlin_spacing="1.2 m", first_purlin="0.3 m")
    moved = apply_edit(job, SetOnLines(A, PORT), SHELF)
    assert seats(moved).held >= seats(job).held
    checks = all_checks(design_in(moved, A))
    roof = next(c for c in checks if c.rule_id == "array.on-roof" and c.subject == "Carport 1")
    assert roof.verdict is Verdict.KEPT


def test_nothing_read_says_what_to_read() -> None:
    with pytest.raises(
        MissingDatum, match=r"Carport 1 has no seams, ribs or purlins read yet\. Type their spacing"
    ):
        seats(carport("shingle"))
    with pytest.raises(MissingDatum, match="Structure"):
        apply_edit(carport("shingle"), SetOnLines(A, PORT), SHELF)


def test_rows_on_legs_of_a_flat_roof_are_spaced_by_the_shortest_day() -> None:
    legs = apply_edit(RIBBED, SetArrayField(A, PORT, ArrayField.LEG_TILT, "15"), SHELF)

    def apart(job: Job) -> list[Verdict]:
        found = all_checks(design_in(job, A))
        return [
            c.verdict
            for c in found
            if c.rule_id == "array.row-spacing" and c.subject == "Carport 1"
        ]

    assert apart(legs) == [Verdict.BROKEN]
    spaced = apply_edit(legs, SpaceRows(A, PORT), SHELF)
    assert apart(spaced) == [Verdict.KEPT]
    array = on_port(option_of(spaced, A))
    rows = sorted({round(m.y_m, 3) for m in array.modules})
    assert len(rows) == 2
    assert on_port(option_of(RIBBED, A)).gap_between_rows.value_m < array.gap_between_rows.value_m


def test_a_plane_without_legs_is_asked_nothing_about_its_rows() -> None:
    checks = all_checks(design_for(SAMPLE, SAMPLE.options[0]))
    assert not [c for c in checks if c.rule_id == "array.row-spacing"]
