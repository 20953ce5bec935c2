"""Rules of the array: every module keeps its distances or says why not, every one is wired."""

from dataclasses import dataclass
from functools import lru_cache

from ridge_tally.core.array.blockers import ground_of, path_edges
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.legal import Shortfall, shortfalls
from ridge_tally.core.array.tables import columns_of
from ridge_tally.core.job.array import PlacedModule, present_of, ways_of_array
from ridge_tally.core.job.document import present_ids, strung_count
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.strings.threading import WishSeriesLength
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.survey.outline import (
    adjusted_outline,
    corners_m,
    is_closed,
    what_would_close,
)
from ridge_tally.core.working import Check, Fix, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules.design import Design

GEOMETRY = Source("setbacks and clearances of this survey", "", SourceStatus.GEOMETRY)
PRACTICE = Source("every module is wired", "", SourceStatus.COMMON_PRACTICE)
DECIDED = Source("decided by the designer, for the authority to confirm", "", SourceStatus.BRIEF)


@dataclass(frozen=True, slots=True)
class Clearances:
    """How the present modules of a plane stand: what each is short of, and where the path runs."""

    short_of: dict[PlacedId, tuple[Shortfall, ...]]
    path_edge: int | None

    def off(self, modules: tuple[PlacedModule, ...]) -> tuple[PlacedId, ...]:
        """Return the modules short of a distance that nobody decided to keep there."""
        return tuple(
            m.id
            for m in modules
            if m.id in self.short_of
            and (not m.kept_because or any(s.impossible for s in self.short_of[m.id]))
        )


def lay_of(laid: LaidArray) -> Lay:
    """Return how the modules of an array are to lie on its plane."""
    array, module, corners = laid.array, laid.module, corners_m(laid.plane)
    return Lay(
        module.long_m,
        module.short_m,
        array.gap_in_row.value_m,
        array.gap_between_rows.value_m,
        array.shortest_run,
        float(corners[0, 0] + corners[1, 0]) / 2 if array.symmetric else None,
        array.leg_tilt_deg,
        array.table.rows if array.table else 1,
    )


def placed_at(modules: tuple[PlacedModule, ...]) -> tuple[Place, ...]:
    """Return the places of modules."""
    return tuple(Place(m.x_m, m.y_m, m.orientation) for m in modules)


def standing(laid: LaidArray) -> Clearances:
    """Return how the present modules of an array on a closed plane stand."""
    return _standing(laid.plane, present_of(laid.array), lay_of(laid))


# Asked by the check, by the drawing, and by each option on an unchanged roof.
@lru_cache(maxsize=128)
def _standing(plane: RoofPlane, present: tuple[PlacedModule, ...], lay: Lay) -> Clearances:
    found: list[Clearances] = []
    # The path runs where fewest modules are in its way.
    columns = columns_of(lay, present)
    for edge in path_edges(plane) or (None,):
        short = shortfalls(ground_of(plane, edge), lay, tuple(place for place, _ in columns))
        short_of = {
            m.id: s for (_, modules), s in zip(columns, short, strict=True) for m in modules if s
        }
        found.append(Clearances(short_of, edge))
    return min(found, key=lambda s: len(s.off(present)))


def array_checks(design: Design) -> tuple[Check, ...]:
    """Return the placing checks of each array and the wiring check of the option."""
    checks: list[Check] = []
    for laid in design.arrays:
        if laid.array.modules:
            checks.append(_on_roof(design, laid))
            checks += _exceptions(laid)
    if present_ids(design.option) and design.microinverter is None:
        checks.append(_strung(design))
    return tuple(checks)


def _on_roof(design: Design, laid: LaidArray) -> Check:
    plane, array = laid.plane, laid.array
    closed = is_closed(plane)
    off = float(len(standing(laid).off(array.modules))) if closed else None
    return check(
        rule_id="array.on-roof",
        title="Keeps its distances",
        subject=plane.name,
        kind=LimitKind.STOP,
        formula="n_off",
        givens=(Given("n_off", "modules too close to an edge or obstruction", off, "", "drawing"),),
        value=off,
        symbol="n_off",
        unit="modules",
        relation="<=",
        limit=Given("none", "allowed", 0.0, "modules", "setbacks of this survey"),
        source=GEOMETRY,
        graded=False,
        reason=""
        if closed
        else f"Not checked: {what_would_close(adjusted_outline(plane.outline))}",
        fixes=(Fix("Fill again", FillPlane(design.option.id, plane.id, ways_of_array(array))),),
    )


def _exceptions(laid: LaidArray) -> list[Check]:
    """Return a note for each reason for which modules stay short of a distance."""
    plane = laid.plane
    if not is_closed(plane):
        return []
    short_of = standing(laid).short_of
    reasons: dict[str, list[Shortfall]] = {}
    for module in laid.array.modules:
        if module.kept_because and module.id in short_of:
            reasons.setdefault(module.kept_because, []).append(short_of[module.id][0])
    return [_exception(plane, reason, short) for reason, short in reasons.items()]


def _exception(plane: RoofPlane, reason: str, short: list[Shortfall]) -> Check:
    worst = max(short, key=lambda s: s.short_m)
    return check(
        rule_id="array.exception",
        title="Kept though too close",
        subject=f"{plane.name}, {worst.owner.name}: {reason}",
        kind=LimitKind.NOTE,
        formula="d",
        givens=(
            Given(
                "d",
                f"least distance of {len(short)} module(s)",
                worst.has_m * 1000,
                "mm",
                "drawing",
            ),
        ),
        value=worst.has_m * 1000,
        symbol="d",
        unit="mm",
        relation=">=",
        limit=Given(
            "strip", worst.owner.name, worst.wants_m * 1000, "mm", "setbacks of this survey"
        ),
        source=DECIDED,
        graded=False,
    )


def _strung(design: Design) -> Check:
    present = present_ids(design.option)
    strung = strung_count(design.option)
    fixes: tuple[Fix, ...] = ()
    if design.option.series_wish is not None:
        fixes = (Fix("Let the planner choose", WishSeriesLength(design.option.id, None)),)
    return check(
        rule_id="array.strung",
        title="Modules not in a string",
        subject="array",
        kind=LimitKind.COSTS,
        formula="n - n_strung",
        givens=(
            Given("n", "modules", float(len(present)), "", "this design"),
            Given("n_strung", "modules in strings", float(strung), "", "this design"),
        ),
        value=float(len(present) - strung),
        symbol="n_left",
        unit="modules",
        relation="<=",
        limit=Given("none", "left out", 0.0, "modules", "common practice"),
        source=PRACTICE,
        graded=False,
        fixes=fixes,
    )
