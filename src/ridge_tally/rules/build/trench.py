"""A trench from a ground array to the house: what is dug and laid, and the cover it is held to."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.racking import TrenchLay
from ridge_tally.core.working import Check, Given, LimitKind, check
from ridge_tally.rules import tables
from ridge_tally.rules.array.trenches import trench_of
from ridge_tally.rules.build.racked import RackedPlane

# Outside diameters of what usually lies there: conduit for a home's circuit, one cable; no source.
OUTER_M = {TrenchLay.CONDUIT: 0.042, TrenchLay.STEEL: 0.042, TrenchLay.CABLE: 0.015}
WITH_A_FIGURE = (CodePack.US, CodePack.AU_NZ)
# Sand under and over it, the trench's width, conduit by the stick; common practice, no source.
BED_M, WIDE_M, STICK_M = 0.05, 0.3, 3.048


@dataclass(frozen=True, slots=True)
class Dug:
    """A trench: ``run_m`` of conduit or cable with both ends brought up, by ``sticks`` where it is
    conduit; ``least_depth_m`` with its bed of sand; ``sand_m3`` round it, ``earth_m3`` dug, warning
    tape ``tape_m`` long."""

    length_m: float
    run_m: float
    sticks: int
    least_depth_m: float
    cover_m: float
    sand_m3: float
    earth_m3: float
    tape_m: float


def least_cover_m(pack: CodePack, lay: TrenchLay) -> float:
    """Return the least cover over what lies in a trench by the job's family of rules."""
    return tables.load("trench-cover").number("cover_m", pack=pack.value, lay=lay.value)


def dug_of(job: Job, plane: RackedPlane) -> Dug | None:
    """Return the trench of a ground array; ``None`` on roofs and while the panel is nowhere."""
    found, area = trench_of(job.survey.service, plane.laid), plane.laid.plane.ground
    if found is None or area is None:
        return None
    lay, length = plane.choice.trench_lay, found.length_m
    cover, outer = least_cover_m(job.site.code_pack, lay), OUTER_M[lay]
    least = cover + outer + BED_M
    depth = least if area.trench_depth is None else area.trench_depth.value_m
    run = length + 2 * depth
    return Dug(
        length_m=length,
        run_m=run,
        sticks=0 if lay is TrenchLay.CABLE else math.ceil(run / STICK_M - 1e-9),
        least_depth_m=least,
        cover_m=cover,
        sand_m3=length * WIDE_M * (2 * BED_M + outer),
        earth_m3=length * WIDE_M * depth,
        tape_m=length,
    )


def trench_checks(job: Job, plane: RackedPlane) -> Iterator[Check]:
    """Yield what a trench's depth is held to; nothing without one."""
    trench = dug_of(job, plane)
    if trench is None:
        return
    area, lay = plane.laid.plane.ground, plane.choice.trench_lay
    depth = None if area is None else area.trench_depth
    outer, deep = OUTER_M[lay], None if depth is None else depth.value_m
    yield check(
        rule_id="build.trench-cover",
        title="Cover over what lies in the trench",
        subject=plane.laid.plane.name,
        # Where a family's rule names no depth, usual practice stops nobody.
        kind=LimitKind.STOP if job.site.code_pack in WITH_A_FIGURE else LimitKind.OUTSIDE,
        formula="depth - bed - outer",
        givens=(
            Given("depth", "depth of the trench", deep, "m", "Survey"),
            Given("bed", "sand under it", BED_M, "m", "common practice"),
            Given("outer", "outside diameter", outer, "m", "common practice"),
        ),
        value=None if deep is None else deep - BED_M - outer,
        symbol="cover",
        unit="m",
        relation=">=",
        limit=Given("cover_least", "least cover, not under a drive", trench.cover_m, "m", "table"),
        source=tables.load("trench-cover").source,
        reason="Not checked: depth of the trench not given. Survey, the ground area."
        if deep is None
        else "",
    )
