"""Rules of power: the maker's DC limit and the DC:AC ratio."""

from ridge_tally.core.job.document import present_ids
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design, count_given, dc_limit_given, p_max_given


def loading_checks(design: Design) -> tuple[Check, ...]:
    """Return the checks of array power against inverter power; none without modules."""
    count = len(present_ids(design.option))
    return (dc_limit(design, count), dc_ac_ratio(design, count)) if count else ()


def dc_limit(design: Design, modules: int) -> Check:
    """DC watts beyond the maker's figure void what the maker stands behind."""
    return check(
        rule_id="loading.dc-limit",
        title="Maker's DC watts",
        subject="inverter",
        kind=LimitKind.OUTSIDE,
        formula="n * p_max",
        givens=(count_given(design), p_max_given(design)),
        value=modules * design.module.p_max_w,
        symbol="p_dc",
        unit="W",
        relation="<=",
        limit=dc_limit_given(design),
        source=Source("inverter datasheet", "", SourceStatus.DATASHEET),
    )


def dc_ac_ratio(design: Design, modules: int) -> Check:
    """The ratio of array watts to inverter watts, told, never a pass or fail of its own."""
    table = tables.load("loading-practice")
    return check(
        rule_id="loading.dc-ac-ratio",
        title="DC:AC ratio",
        subject="inverter",
        kind=LimitKind.NOTE,
        formula="n * p_max / p_ac",
        givens=(
            count_given(design),
            p_max_given(design),
            Given("p_ac", "inverter AC power", design.inverter.p_ac_w, "W", "inverter datasheet"),
        ),
        value=modules * design.module.p_max_w / design.inverter.p_ac_w,
        symbol="ratio",
        unit="",
        relation="<=",
        limit=Given("usual", "usual on one plane", table.number("ratio"), "", "common practice"),
        source=table.source,
    )
