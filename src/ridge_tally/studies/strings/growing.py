"""Whether more modules later are still legal, and whether a larger inverter today is cheaper."""

from dataclasses import replace

from ridge_tally.core.job.array import PlacedModule, PlaneArray, present_of
from ridge_tally.core.job.document import Job, module_footprint_m, present_ids, with_option
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.core.working import LimitKind
from ridge_tally.editing.design import design_for
from ridge_tally.editing.strings.inverters import with_sheet
from ridge_tally.editing.strings.planned import thread_option
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.microinverters import branches
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.rule_status import Broken, RuleStatus, keeps_all, standing_of

# Taken as an example where nobody wished for more.
EXAMPLE = 4
FORBIDDEN = (LimitKind.STOP, LimitKind.OUTSIDE)


def grown(desk: Desk, design: Design) -> str:
    """Return in words what more modules later come to, every electrical limit checked with them.

    As many as bays are left free or the household wished for; a few, as an example, else.
    """
    later, head = _with_more(design)
    if later is None:
        return "Nothing is laid"
    then = standing_of(later)
    newly = _newly(design, later, then)
    units = ""
    if design.microinverter is not None:
        units = f"{_units(later) - _units(design)} units more, "
        units += _on_branches(design, later)
    if not newly:
        return f"{head}: {units}{then.not_checked or 'every limit kept'}"
    told = f"{head}: {units}{newly[0].told}"
    larger = "" if units else _larger(desk, design)
    return f"{told}. {larger}".rstrip()


def _with_more(design: Design) -> tuple[Design | None, str]:
    """Return the design with the modules to come, and how many and why so many."""
    bays = sum(not m.present for a in design.option.arrays for m in a.modules)
    laid = [a for a in design.option.arrays if present_of(a)]
    if not laid:
        return None, ""
    wished = design.job.brief.wishes.growth_modules
    if bays and not wished:
        arrays = tuple(
            replace(a, modules=tuple(replace(m, present=True) for m in a.modules))
            for a in design.option.arrays
        )
        filled = replace(design.option, arrays=arrays)
        return _anew(design.job, filled), f"{bays} more in bays left free"
    more, why = (wished, "as wished") if wished else (EXAMPLE, "as an example")
    most = max(laid, key=lambda a: len(present_of(a)))
    arrays = tuple(_longer(a, more) if a.array is most else a.array for a in design.arrays)
    return _anew(design.job, replace(design.option, arrays=arrays)), f"{more} more, {why}"


def _longer(laid: LaidArray, more: int) -> PlaneArray:
    """Return an array with its last row that much longer: only electrical limits look at it."""
    array, last = laid.array, present_of(laid.array)[-1]
    width_m, _ = module_footprint_m(laid.module, last.orientation, array.leg_tilt_deg)
    step_m = width_m + array.gap_in_row.value_m
    right_m = max(m.x_m for m in present_of(array) if m.y_m == last.y_m)
    added = tuple(
        PlacedModule(
            PlacedId(f"later-{n}"), right_m + n * step_m, last.y_m, last.orientation, present=True
        )
        for n in range(1, more + 1)
    )
    return replace(array, modules=(*array.modules, *added))


def _anew(job: Job, option: Option) -> Design:
    """Return the option in its job with its strings planned anew."""
    strung = thread_option(job, replace(option, strings=()))
    return design_for(with_option(job, strung), strung)


def _newly(design: Design, later: Design, status: RuleStatus) -> list[Broken]:
    """Return the limits that hold now and are broken then, Stops first."""
    now = standing_of(design).broken
    then = status.broken
    known = {(b.rule_id, b.subject) for b in now.values()}
    found = [b for key, b in then.items() if key not in known and b.kind in FORBIDDEN]
    loose = _loose(later.option)
    if loose and later.microinverter is None:
        told = f"no legal plan holds {loose} of the modules"
        found.insert(0, Broken("strings.plan", "array", LimitKind.STOP, told))
    return sorted(found, key=lambda b: FORBIDDEN.index(b.kind))


def _units(design: Design) -> int:
    return sum(n for _, n in ac_makers(design))


def _on_branches(design: Design, later: Design) -> str:
    unit = design.microinverter
    assert unit is not None
    now, then = (len(branches(of, unit)) for of in (design, later))
    return "on the branches there are, " if now == then else f"{then} branches instead of {now}, "


def _larger(desk: Desk, design: Design) -> str:
    """Return whether a larger inverter bought today costs less than a second one later."""
    prices = [i.price_cents for i in design.inverters]
    known = [p for p in prices if p is not None]
    today, later = list[tuple[int, str]](), list[tuple[int, str]]()
    for sheet in desk.shelf.inverters:
        if sheet.price_cents is None or sheet.phases > design.job.survey.service.phases:
            continue
        holding = with_sheet(design.job, sheet)
        alone = replace(design.option, inverter_id=sheet.id, more_inverters=())
        beside = replace(design.option, more_inverters=(*design.option.more_inverters, sheet.id))
        for found, changed in ((today, alone), (later, beside)):
            grown_then, _ = _with_more(_anew(holding, changed))
            if grown_then is not None and not _forbidden(grown_then):
                found.append((sheet.price_cents, sheet.name))
    told, extra = [], None
    if today and len(known) == len(prices):
        cents, name = min(today)
        extra = cents - sum(known)
        told.append(f"{name} today instead: {extra / 100:+,.0f}".replace("-", "−"))
    if later:
        cents, name = min(later)
        told.append(f"a second one then ({name}): {cents / 100:,.0f}")
        if extra is not None:
            told.append("today is cheaper" if extra < cents else "then is cheaper")
    return "; ".join(told) if told else "No inverter of the shelf takes them"


def _forbidden(later: Design) -> bool:
    return _loose(later.option) > 0 or not keeps_all(standing_of(later).broken.values())


def _loose(option: Option) -> int:
    """Return how many modules are in no string."""
    return len(present_ids(option)) - sum(len(s.module_ids) for s in option.strings)
