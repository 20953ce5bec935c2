"""The plan set of an option: every sheet as a drawing, and the sets that leave the house."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cache

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.sheets.drawn import Drawn
from ridge_tally.core.sheets.flat_plan import FlatPlan
from ridge_tally.core.sheets.flow import Block, flowed
from ridge_tally.core.sheets.paper import SheetPaper, ground_of
from ridge_tally.core.sheets.scene import Item, Scene
from ridge_tally.core.sheets.scene_lint import Hit, lint
from ridge_tally.core.sheets.sets import sheets_in
from ridge_tally.core.sheets.titled import SheetHead, part_number, sheet
from ridge_tally.formats.scene_pdf import letters_missing
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.build.sawing import Sawing
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.build.cuts import cuts_so_far
from ridge_tally.views.build.one_line import one_line_scenes
from ridge_tally.views.build.plane import plane_view
from ridge_tally.views.loading.year import year_report
from ridge_tally.views.option import option_report
from ridge_tally.views.sheets import set_tables as told
from ridge_tally.views.sheets.design import Stamp
from ridge_tally.views.sheets.mounting_sheets import mounting_sheets
from ridge_tally.views.sheets.set_drawings import (
    layout_sheets,
    site_sheets,
    string_sheets,
    with_sketch,
)
from ridge_tally.views.sheets.titles import title_facts


@dataclass(frozen=True, slots=True)
class SetSheet:
    """A sheet with its number, its title, and what its lint found; with a hit it is not issued.

    ``plan``: what it draws to scale, in metres.
    """

    number: str
    title: str
    scene: Scene
    hits: tuple[Hit, ...]
    plan: FlatPlan | None = None


def plan_set(
    desk: Desk, design: Design, stamp: Stamp, name: str, paper: SheetPaper
) -> Iterator[SetSheet]:
    """Yield the sheets of a set, the cover last: its index names the others.

    A sheet that fails is told on a sheet of its own and leaves the others standing.
    """
    wanted, report = sheets_in(design.job.paperwork, name), option_report(design)
    ground, facts = ground_of(paper), title_facts(design, report, stamp)
    planes = racked_planes(design)
    views = tuple(plane_view(desk, design, p) for p in planes)

    # The best cut takes a search, and most sets tell nothing of it.
    @cache
    def sawings() -> tuple[Sawing, ...]:
        *_, best = cuts_so_far(desk, design)
        return best

    def paged(number: str, title: str, pages: Sequence[Iterable[Item]]) -> Iterator[Drawn]:
        for n, items in enumerate(pages, start=1):
            head = SheetHead(part_number(number, n, len(pages)), title)
            yield Drawn(sheet(ground, facts, head, items))

    def tables(number: str, title: str, blocks: Callable[[], Iterable[Block]]) -> Iterator[Drawn]:
        yield from paged(number, title, flowed(blocks(), ground.free))

    def year() -> Iterable[Block]:
        return told.home(design, report, told.year_or_none(lambda: year_report(desk, design)))

    makers: dict[str, Callable[[], Iterator[Drawn]]] = {
        "G-2": lambda: site_sheets(design, ground, facts),
        "A-1": lambda: layout_sheets(design, ground, facts),
        "A-2": lambda: string_sheets(design, report, ground, facts),
        "E-1": lambda: map(Drawn, one_line_scenes(design, facts, paper)),
        "E-3": lambda: tables("E-3", "Calculations", lambda: told.calculations(report)),
        "S-1": lambda: mounting_sheets(design, planes, views, ground, facts),
        "S-2": lambda: tables("S-2", "Load screens", lambda: told.loads(report, views)),
        "E-4": lambda: tables("E-4", "Labels and placards", lambda: told.labels(design)),
        "E-5": lambda: tables("E-5", "Equipment values used", lambda: told.equipment(design)),
        "M-1": lambda: tables("M-1", "Parts", lambda: told.parts(design, planes, sawings())),
        "C-1": lambda: tables("C-1", "Cautions", lambda: told.cautions(planes)),
        "Q-1": lambda: tables("Q-1", "Inspection checklist", told.checklist),
        "H-1": lambda: tables("H-1", "For the household", year),
        "W-1": lambda: tables("W-1", "Crew: chalk and cut", lambda: told.crew(design, planes, views, sawings())),
        "T-1": lambda: tables("T-1", "Tests", lambda: told.tests(design, report)),
    }  # fmt: skip
    found: list[SetSheet] = []
    for number in wanted:
        if number == "G-1":
            continue
        try:
            made = [_judged(one) for one in makers[number]()]
        except RidgeTallyError as error:
            words = told.missing(str(error))
            made = [_judged(s) for s in tables(number, "Not drawn", lambda w=words: w)]  # type: ignore[misc]
        found += made
        yield from made
    if "G-1" in wanted:
        index = tuple((s.number, s.title) for s in found)
        lacking = letters_missing(f"{design.job.name} {facts.firm} {facts.place} {facts.people}")
        pages = flowed(
            [*told.cover(design, report, views, index), *told.unprinted(lacking)], ground.free
        )
        pages[-1] = with_sketch(design, ground.free, pages[-1])
        for one in paged("G-1", "Cover", pages):
            yield _judged(one)


def _judged(drawn: Drawn) -> SetSheet:
    own, _, title = drawn.scene.title.partition(" ")
    return SetSheet(own, title, drawn.scene, lint(drawn.scene), drawn.plan)


def in_order(sheets: Iterable[SetSheet]) -> tuple[SetSheet, ...]:
    """Return a set as it is bound, its cover first."""
    return tuple(sorted(sheets, key=lambda s: not s.number.startswith("G-1")))
