"""Ground structure: the fall along a table, legs by tilt and the trench, against sums by hand."""

from dataclasses import replace

import pytest

from jobs import SHELF
from ridge_tally.core.array.posts import Post
from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.edits.build.racking import (
    ChooseMounting,
    DesignLoadField,
    RackingField,
    SetDesignLoad,
    SetRackingField,
    SetTrenchLay,
)
from ridge_tally.core.job.racking import TrenchLay
from ridge_tally.core.mounting_sheet import MountingId
from ridge_tally.core.survey.taping import drawn_length
from ridge_tally.core.units import LengthUnit
from ridge_tally.core.working import Check, Verdict
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.rules.build.checks import build_checks
from ridge_tally.rules.build.falls import falls_of, told_of
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.build.trench import dug_of, least_cover_m

YARD = kiln_yard(SHELF)
A = YARD.options[0].id
PLANE = YARD.options[0].arrays[0].plane_id
RACKED = apply_edits(
    YARD,
    (
        ChooseMounting(A, PLANE, MountingId("sample-two-piles")),
        SetDesignLoad(DesignLoadField.WIND, "40 m/s", ""),
        SetDesignLoad(DesignLoadField.SNOW, "0.5 kPa", ""),
        SetRackingField(A, PLANE, RackingField.SPAN, "4 m"),
    ),
    SHELF,
)


def plane_of(job: Job) -> RackedPlane:
    (found,) = racked_planes(design_for(job, job.options[0]))
    return found


def on_posts(*front_m: float) -> RackedPlane:
    """The yard on one table whose front piles stand 3 m apart and so far out of the ground."""
    plane = plane_of(RACKED)
    assert plane.ground is not None
    posts = tuple(Post(1, 3.0 * n, 0.0, back=False, height_m=h) for n, h in enumerate(front_m))
    return replace(plane, ground=replace(plane.ground, posts=posts))


@pytest.mark.parametrize(
    ("heights", "steps", "told"),
    [
        ((0.8, 0.8, 0.8), 0, "one level beam"),
        # 0.6 m over 6 m is the tenth at which a level beam is still told, past it two steps.
        ((0.8, 1.1, 1.4), 0, "one level beam"),
        ((0.8, 1.1, 1.41), 2, "2 steps of"),
        # A step a bay at most.
        ((0.8, 1.6), 1, "engineer"),
        ((0.8, 1.4, 2.0), 2, "2 steps of"),
        ((0.8, 1.4, 2.01), 2, "engineer"),
    ],
)
def test_what_falling_ground_asks_of_a_beam(
    heights: tuple[float, ...], steps: int, told: str
) -> None:
    (fall,) = falls_of(on_posts(*heights))
    assert fall.steps == steps
    assert told in told_of(fall, LengthUnit.METRE)


def dug_deep(job: Job, depth_m: float | None) -> Job:
    planes = tuple(
        replace(
            p,
            ground=replace(
                p.ground,
                trench_depth=None if depth_m is None else drawn_length(depth_m, LengthUnit.METRE),
            ),
        )
        if p.ground is not None
        else p
        for p in job.survey.planes
    )
    return replace(job, survey=replace(job.survey, planes=planes))


def cover_of(job: Job) -> Check:
    found = build_checks(design_for(job, job.options[0]))
    return next(c for c in found if c.rule_id == "build.trench-cover")


@pytest.mark.parametrize(
    ("depth_m", "verdict"),
    [
        # 0.457 of cover, 0.042 of conduit and 0.05 of sand, by hand.
        (0.5491, Verdict.KEPT),
        (0.549 + 1e-9, Verdict.KEPT),
        (0.7, Verdict.KEPT),
        (0.5489, Verdict.BROKEN),
        (None, Verdict.NOT_CHECKED),
    ],
)
def test_a_trench_at_inside_and_past_its_cover(depth_m: float | None, verdict: Verdict) -> None:
    us = replace(RACKED, site=replace(RACKED.site, code_pack=CodePack.US))
    check = cover_of(dug_deep(us, depth_m))
    assert check.verdict is verdict


def test_the_trench_by_hand() -> None:
    job = dug_deep(replace(RACKED, site=replace(RACKED.site, code_pack=CodePack.US)), 0.6)
    dug = dug_of(job, plane_of(job))
    assert dug is not None
    # Both ends come up the depth of the trench; conduit by sticks of ten feet.
    assert dug.run_m == pytest.approx(dug.length_m + 1.2)
    assert dug.sticks == -(-dug.run_m // 3.048)
    assert dug.sand_m3 == pytest.approx(dug.length_m * 0.3 * 0.142)
    assert dug.earth_m3 == pytest.approx(dug.length_m * 0.3 * 0.6)
    cable = apply_edits(job, (SetTrenchLay(A, PLANE, TrenchLay.CABLE),), SHELF)
    assert (found := dug_of(cable, plane_of(cable))) is not None
    assert found.sticks == 0


@pytest.mark.parametrize("pack", CodePack)
def test_every_family_has_a_cover_for_all_that_lies_in_a_trench(pack: CodePack) -> None:
    assert all(0.1 < least_cover_m(pack, lay) < 1.0 for lay in TrenchLay)
