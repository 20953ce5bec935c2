"""The one thing that is missing next on the way to a checked design, and where it is done."""

from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.document import present_ids, strung_count
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.steps import WorkStep
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.survey.standing import is_unmeasured
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.rules.design import Design


@dataclass(frozen=True, slots=True)
class NextMove:
    """What to do next: ``told`` in words, in which step and view, on which plane.

    ``deed``: what a button does at once by ``edit``; empty where only a person knows the figure.
    """

    step: WorkStep
    view: str
    plane_id: PlaneId | None
    told: str
    deed: str = ""
    edit: FillPlane | None = None


def next_move(design: Design, checks: tuple[Check, ...]) -> NextMove | None:
    """Return the first thing that is missing; nothing once every Stop is checked and kept."""
    return next(_missing(design, checks), None)


def _missing(design: Design, checks: tuple[Check, ...]) -> Iterator[NextMove]:
    site, survey = design.job.site, design.job.survey
    if not site.place and not site.time_zone:
        told = "Say where the house stands: its climate, its cold and its code follow."
        yield NextMove(WorkStep.BRIEF, "place", None, told)
    for plane in survey.planes:
        yield from _of_plane(plane)
    if len(survey.planes) > 1:
        for plane in survey.planes:
            if not plane.at_given:
                told = f"Place {plane.name} on the site: its roof and walls throw shade from there."
                yield NextMove(WorkStep.SURVEY, "site", plane.id, told)
    if not present_ids(design.option):
        first = survey.planes[0]
        yield NextMove(
            WorkStep.ARRAY,
            "",
            first.id,
            f"{first.name} is measured and holds no module yet.",
            "Fill it in portrait",
            FillPlane(design.option.id, first.id, Ways.PORTRAIT),
        )
        return
    yield from _of_limits(design, checks)


def _of_plane(plane: RoofPlane) -> Iterator[NextMove]:
    def here(told: str) -> NextMove:
        return NextMove(WorkStep.SURVEY, "plane", plane.id, f"{plane.name}: {told}")

    if is_unmeasured(plane):
        yield here("type its tape readings into the drawing, the eave first.")
    elif not is_closed(plane):
        yield here("a reading is missing: its corners are not fixed yet.")
    elif plane.ground is None and plane.slope_typed == "":
        yield here("its slope is a guess. Type what the gauge says, degrees or rise to run.")
    elif not plane.azimuth_given:
        yield here("which way it looks is a guess. Type its azimuth, or read a compass.")


def _of_limits(design: Design, checks: tuple[Check, ...]) -> Iterator[NextMove]:
    stops = [c for c in checks if c.kind is LimitKind.STOP]
    for one in stops:
        if one.verdict is Verdict.BROKEN:
            ways = "Fixes lists the ways out."
            if one.step is WorkStep.BUILD:
                ways = "Its working stands in the Tally."
                if one.rule_id == "build.mounted":
                    ways = "Ways out stand under the drawing."
            told = f"{one.title}, {one.subject}: the limit is passed. {ways}"
            yield NextMove(*_place_of(one, "out"), None, told)
    loose = len(present_ids(design.option)) - strung_count(design.option)
    if loose > 0 and design.microinverter is None:
        told = f"{loose} modules are in no string. Fixes says why and what takes them."
        yield NextMove(WorkStep.STRINGS, "out", None, told)
    if design.coldest.value is None:
        told = "Type the coldest air of the site: till then no cold voltage is checked."
        yield NextMove(WorkStep.STRINGS, "wiring", None, told)
    for one in stops:
        if one.verdict is Verdict.NOT_CHECKED:
            told = f"{one.title}, {one.subject}: not checked. Its line in the Tally says what is missing."
            yield NextMove(*_place_of(one, "wiring"), None, told)


def _place_of(one: Check, strings_view: str) -> tuple[WorkStep, str]:
    return one.step, strings_view if one.step is WorkStep.STRINGS else ""
