"""Rules of safety: shutdown, arcs, faults to ground, and what the hands on site confirm.

Given briefly and deferring: the code in force, its authority and the electrician decide.
"""

from ridge_tally.core.job.code_rules import OnSite, Shutdown
from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.edits.strings.wiring import ConfirmOnSite
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.working import (
    Check,
    Fix,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    check,
    number_of,
)
from ridge_tally.rules.code import ARC_FAULT, SHUTDOWN
from ridge_tally.rules.design import Design, alike
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.strings.limits import planning_voltages

ON_SITE = Source("hands on site", "", SourceStatus.FROM_MEMORY)
TOLD = {
    OnSite.CONNECTORS: "Connectors of one type and maker, or listed for each other, and locking",
    OnSite.DISCONNECTS: "Disconnects within reach, as code and utility ask",
    OnSite.INDOOR_WIRING: "DC in the house run as the code asks",
    OnSite.POLARITY: "Polarity of every string proven before any two are joined",
}
# What one family says more exactly; nothing of it stands under another.
TOLD_BY = {
    CodePack.US: {
        OnSite.CONNECTORS: f"{TOLD[OnSite.CONNECTORS]} (NEC 690.33)",
        OnSite.DISCONNECTS: f"{TOLD[OnSite.DISCONNECTS]} (NEC 690.13, 690.15)",
        OnSite.INDOOR_WIRING: "DC in the house in metal, as the code asks (NEC 690.31(D))",
    }
}


def points_to_confirm(pack: CodePack) -> dict[OnSite, str]:
    """Return in words what a family asks the hands on site to confirm."""
    return {**TOLD, **TOLD_BY.get(pack, {})}


def safety_checks(design: Design) -> tuple[Check, ...]:
    """Return the safety checks of an option's strings; none without a string.

    What firefighters and arcs ask for holds on and in buildings: strings on the ground, or on a
    structure that is open below, are free of it.
    """
    if not design.option.strings:
        return ()
    family, found = design.rules.family, []
    on_building = strings_on_buildings(design)
    if family.shutdown_inside_v is not None and on_building:
        found.append(_shutdown(design, on_building, family.shutdown_inside_v))
    if family.arc_fault_from_v is not None and on_building:
        found += _arc_fault(design, on_building, family.arc_fault_from_v)
    return (*found, _ground_fault(design), _on_site(design))


def strings_on_buildings(design: Design) -> tuple[ModuleString, ...]:
    """Return the strings that have a module on a building."""
    roofs = {
        m.id
        for laid in design.arrays
        if laid.plane.ground is None and not laid.plane.open_below
        for m in laid.array.modules
    }
    return tuple(s for s in design.option.strings if not roofs.isdisjoint(s.module_ids))


def _longest(strings: tuple[ModuleString, ...]) -> Given:
    longest = max(len(s.module_ids) for s in strings)
    return Given("n", "modules in the longest string", float(longest), "", "this design")


def _shutdown(design: Design, strings: tuple[ModuleString, ...], most_v: float) -> Check:
    """What stays on the roof half a minute after shutdown is started."""
    way, n = design.option.safety.shutdown, _longest(strings)
    reason = ""
    if way is Shutdown.NOT_SAID:
        reason = (
            "Not checked: nobody said how the roof is shut down. Say it under Strings, Rules: "
            "a switch at every module, or a listed hazard control system."
        )
    elif way is Shutdown.HAZARD_CONTROL:
        reason = "Not checked here: a listed hazard control system is held to its own listing."
    by_switches = way is Shutdown.MODULE_SWITCHES
    left_v = practice(Practice.LEFT_BY_SWITCH_V) if by_switches else None
    if design.system is not None and design.system.safe_v is not None:
        # A system's optimizers are the switches.
        left_v, reason, way = design.system.safe_v, "", Shutdown.MODULE_SWITCHES
    each = Given("v_left", "left of each module when shut down", left_v, "V", "listed switches")
    return check(
        rule_id="safety.shutdown",
        title="Rapid shutdown",
        subject="roof",
        kind=LimitKind.STOP if way is not Shutdown.HAZARD_CONTROL else LimitKind.NOTE,
        formula="n * v_left",
        givens=(n, each),
        value=None if left_v is None else number_of(n) * left_v,
        symbol="v_down",
        unit="V",
        relation="<=",
        limit=Given("v_inside", "inside the array after 30 s", most_v, "V", "code"),
        source=SHUTDOWN,
        reason=reason,
    )


def _arc_fault(design: Design, on_building: tuple[ModuleString, ...], from_v: float) -> list[Check]:
    """Strings at such a voltage on a building want an inverter that finds arcs."""
    strings = [alike(design, s.module_ids) for s in on_building]
    volts = max(sum(g.count * g.sheet.voc_v for g in groups) for groups in strings)
    cold_v = max(
        sum(g.count * planning_voltages(design, g.sheet).cold_open_v for g in groups)
        for groups in strings
    )
    if cold_v < from_v:
        return []
    lacking = [i.arc_fault for i in design.inverters]
    return [
        _has(
            "safety.arc-fault",
            "Arc-fault protection",
            lacking,
            ARC_FAULT,
            f"asked for from {from_v:g} V: the strings have up to {volts:.0f} V",
        )
    ]


def _ground_fault(design: Design) -> Check:
    """An inverter must find a fault to ground and stop."""
    has = [i.ground_fault for i in design.inverters]
    return _has(
        "safety.ground-fault", "Ground-fault protection", has, design.rules.family.ground_fault, ""
    )


def _has(rule_id: str, title: str, has: list[bool | None], source: Source, told: str) -> Check:
    """Whether every inverter's datasheet names a protection."""
    known = None if None in has else float(sum(map(bool, has)))
    return check(
        rule_id=rule_id,
        title=title,
        subject="inverter",
        kind=LimitKind.STOP,
        formula="has",
        givens=(Given("has", "inverters that have it", known, "", "inverter datasheet"),),
        value=known,
        symbol="has",
        unit="",
        relation=">=",
        limit=Given("all", "inverters", float(len(has)), "", "this design"),
        source=source,
        reached_at=told,
        reason="" if known is not None else "Not checked: the datasheet is silent; ask the maker.",
        graded=False,
    )


def _on_site(design: Design) -> Check:
    """What no drawing shows: confirmed by whoever stands there."""
    missing = [c for c in OnSite if c not in design.option.safety.confirmed]
    confirmed = None if missing else float(len(OnSite))
    named = ", ".join(c.value.replace("-", " ") for c in missing)
    return check(
        rule_id="safety.on-site",
        title="Confirmed on site",
        subject="wiring",
        kind=LimitKind.NOTE,
        formula="confirmed",
        givens=(Given("confirmed", "points confirmed", confirmed, "", "this design"),),
        value=confirmed,
        symbol="confirmed",
        unit="",
        relation=">=",
        limit=Given("points", "points to confirm", float(len(OnSite)), "", "code and practice"),
        source=ON_SITE,
        reason=f"Not checked: {named} to be confirmed.",
        fixes=tuple(
            Fix(f"Confirm {c.value.replace('-', ' ')}", ConfirmOnSite(design.option.id, c, on=True))
            for c in missing
        ),
        graded=False,
    )
