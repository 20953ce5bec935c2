"""Whether strings in parallel need fuses, and which: what sound strings push into a faulty one."""

from ridge_tally.core.job.document import ModuleString, strings_on
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.working import Check, Given, LimitKind, check
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design


def fuse_checks(design: Design) -> tuple[Check, ...]:
    """Return for each tracker with several strings whether they may go without fuses."""
    checks = []
    for tracker in design.trackers:
        strings = strings_on(design.option, tracker.number)
        if len(strings) > 1:
            checks.append(_without_fuses(design, tracker, strings))
    return tuple(checks)


def _without_fuses(
    design: Design, tracker: TrackerInput, strings: tuple[ModuleString, ...]
) -> Check:
    """Reverse current of the sound strings against the module's largest series fuse.

    Broken, every string wants a fuse of its own, and where no standard one is large enough for
    the string and small enough for the module, that many strings may not be paralleled.
    """
    family = design.rules.family
    sheets = [design.sheets[m] for s in strings for m in s.module_ids]
    # The strongest strings push into the weakest module: the lowest rating rules.
    module = max(sheets, key=lambda s: s.isc_a)
    ratings = [s.max_series_fuse_a for s in sheets]
    known = [r for r in ratings if r is not None]
    largest = min(known) if len(known) == len(ratings) else None
    factor, many = family.back_current_factor, len(strings)
    value = (many - 1) * factor * module.isc_a
    needed = largest is not None and value > largest * (1 + 1e-9)
    least_a = family.least_fuse_factor * module.isc_a
    most_a = largest
    if largest is not None and family.most_fuse_factor is not None:
        most_a = min(largest, family.most_fuse_factor * module.isc_a)
    fits = None if most_a is None else _standard(least_a, most_a)
    stops = needed and fits is None
    if needed:
        told = (
            f"no standard fuse lies between {least_a:.1f} A and {most_a:.1f} A, the most for the module"
            if fits is None
            else f"fuse every string with {fits:g} A gPV, one rated for the string's voltage"
        )
    elif largest is not None:
        fuseless = int(largest * (1 + 1e-9) / (factor * module.isc_a)) + 1
        told = f"over {largest:g} A from {fuseless + 1} strings"
    else:
        told = ""
    return check(
        rule_id="strings.without-fuses",
        title="Without string fuses",
        subject=f"tracker {tracker.number}",
        kind=LimitKind.STOP if stops else LimitKind.NOTE,
        formula="(k - 1) * f * isc",
        givens=(
            Given("k", "strings in parallel", float(many), "", "this design"),
            Given("f", "factor on Isc", factor, "", family.fuses.document),
            Given("isc", "Isc", module.isc_a, "A", "module datasheet"),
        ),
        value=value,
        symbol="i_back",
        unit="A",
        relation="<=",
        limit=Given("i_fuse", "module's largest series fuse", largest, "A", "module datasheet"),
        source=family.fuses,
        reached_at=told,
        reason=""
        if largest is not None
        else "Not checked: the module's largest series fuse is not on its datasheet.",
    )


def _standard(least_a: float, most_a: float) -> float | None:
    """Return the smallest standard fuse between two currents."""
    ratings = (float(row[0]) for row in tables.load("standard-fuses").rows)
    return next((r for r in ratings if least_a <= r * (1 + 1e-9) and r <= most_a), None)
