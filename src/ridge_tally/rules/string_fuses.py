"""Whether strings in parallel need fuses, and which: what sound strings push into a faulty one."""

from ridge_tally.core.job.document import CodePack, strings_on
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design

NEC = Source("NEC 690.9(A) and (B)", "2023", SourceStatus.FROM_MEMORY)
IEC = Source("IEC 62548, strings in parallel", "", SourceStatus.FROM_MEMORY)
# From memory: NEC 1.25 x 1.25 of Isc; IEC above 1.5 of it.
NEC_FACTOR, FUSE_FACTOR_NEC, FUSE_FACTOR_IEC = 1.25, 1.5625, 1.5


def fuse_checks(design: Design) -> tuple[Check, ...]:
    """Return for each tracker with several strings whether they may go without fuses."""
    checks = []
    for number, _ in enumerate(design.inverter.trackers, start=1):
        strings = len(strings_on(design.option, number))
        if strings > 1:
            checks.append(_without_fuses(design, number, strings))
    return tuple(checks)


def _without_fuses(design: Design, number: int, strings: int) -> Check:
    """Reverse current of the sound strings against the module's largest series fuse.

    Broken, every string wants a fuse of its own, and where no standard one is large enough for
    the string and small enough for the module, that many strings may not be paralleled.
    """
    nec = design.job.site.code_pack is CodePack.US
    factor = NEC_FACTOR if nec else 1.0
    module = design.module
    value = (strings - 1) * factor * module.isc_a
    largest = module.max_series_fuse_a
    needed = largest is not None and value > largest * (1 + 1e-9)
    least = (FUSE_FACTOR_NEC if nec else FUSE_FACTOR_IEC) * module.isc_a
    fits = None if largest is None else _standard(least, largest)
    stops = needed and fits is None
    told = ""
    if needed:
        told = (
            f"no standard fuse lies between {least:.1f} A and the module's {largest:g} A"
            if fits is None
            else f"fuse every string with {fits:g} A gPV, one rated for the string's voltage"
        )
    return check(
        rule_id="strings.without-fuses",
        title="Without string fuses",
        subject=f"tracker {number}",
        kind=LimitKind.STOP if stops else LimitKind.NOTE,
        formula="(k - 1) * f * isc",
        givens=(
            Given("k", "strings in parallel", float(strings), "", "this design"),
            Given("f", "factor on Isc", factor, "", "code"),
            Given("isc", "Isc", module.isc_a, "A", "module datasheet"),
        ),
        value=value,
        symbol="i_back",
        unit="A",
        relation="<=",
        limit=Given("i_fuse", "module's largest series fuse", largest, "A", "module datasheet"),
        source=NEC if nec else IEC,
        reached_at=told,
        reason=""
        if largest is not None
        else "Not checked: the module's largest series fuse is not on its datasheet.",
    )


def _standard(least_a: float, most_a: float) -> float | None:
    """Return the smallest standard fuse between two currents."""
    ratings = (float(row[0]) for row in tables.load("standard-fuses").rows)
    return next((r for r in ratings if least_a <= r * (1 + 1e-9) and r <= most_a), None)
