"""Whether the modules' own cables reach along a thread."""

from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.strings.runs import TAKEN_M, spots_of, steps_m
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.limits import modules_of

REACH = Source("two leads meet halfway", "", SourceStatus.COMMON_PRACTICE)


def lead_checks(design: Design) -> tuple[Check, ...]:
    """Return for each string whether its longest step is within what two leads reach."""
    spots = spots_of(design)
    return tuple(_reach(design, s, steps_m(s.module_ids, spots)) for s in design.option.strings)


def reach_m(design: Design) -> float | None:
    """Return how far apart the middles of two modules may be that are joined by their leads.

    The shortest leads of the types there are rule it; unknown where one's sheet is silent.
    """
    leads = [m.lead_m for m in modules_of(design)]
    known = [lead for lead in leads if lead is not None]
    return 2 * min(known) - TAKEN_M if len(known) == len(leads) else None


def _reach(design: Design, string: ModuleString, steps: list[float | None]) -> Check:
    on_plane, reach = [s for s in steps if s is not None], reach_m(design)
    longest = max(on_plane, default=0.0)
    told = ""
    if reach is not None:
        far = [n for n, s in enumerate(steps, start=1) if s is None or s > reach * (1 + 1e-9)]
        if far:
            told = "an extension behind " + ", ".join(f"{string.tag}{n}" for n in far[:4])
            told += f" and {len(far) - 4} more" if len(far) > 4 else ""
    return check(
        rule_id="strings.leads",
        title="Module lead length",
        subject=f"string {string.tag}",
        kind=LimitKind.NOTE,
        formula="step",
        givens=(Given("step", "longest step on a plane", longest, "m", "this design"),),
        value=longest,
        symbol="step",
        unit="m",
        relation="<=",
        limit=Given("reach", "two leads less clips", reach, "m", "module datasheet"),
        source=REACH,
        reached_at=told,
        reason=""
        if reach is not None
        else "Not checked: the length of the module's leads is not on its datasheet.",
    )
