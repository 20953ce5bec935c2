"""Whether more modules later are still legal, and whether a larger inverter today is cheaper."""

from dataclasses import replace

from ridge_tally.core.job.array import PlacedModule, PlaneArray, present_of
from ridge_tally.core.job.document import (
    Job,
    Option,
    inverter_sheets_of,
    microinverter_sheet_of,
    module_footprint_m,
    module_on,
    option_of,
    present_ids,
    with_option,
)
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.core.working import LimitKind
from ridge_tally.editing.design import design_for
from ridge_tally.editing.strings.inverters import with_sheet
from ridge_tally.editing.strings.planned import thread_option
from ridge_tally.rules.strings.microinverters import branches
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.rule_status import Broken, keeps_all, standing_of

# Taken as an example where nobody wished for more.
EXAMPLE = 4
FORBIDDEN = (LimitKind.STOP, LimitKind.OUTSIDE)


def grown(desk: Desk, job: Job, option: Option) -> str:
    """Return in words what more modules later come to, every electrical limit checked with them.

    As many as bays are left free or the household wished for; a few, as an example, else.
    """
    later, head = _with_more(job, option)
    if later is None:
        return "Nothing is laid"
    newly = _newly(job, option, later)
    units = ""
    if microinverter_sheet_of(job, option) is not None:
        units = f"{_units(job, later) - _units(job, option)} units more, "
        units += _on_branches(job, option, later)
    if not newly:
        return f"{head}: {units}every limit kept"
    told = f"{head}: {units}{newly[0].told}"
    larger = "" if units else _larger(desk, job, option)
    return f"{told}. {larger}".rstrip()


def _with_more(job: Job, option: Option) -> tuple[Option | None, str]:
    """Return the option with the modules to come, and how many and why so many."""
    bays = sum(not m.present for a in option.arrays for m in a.modules)
    laid = [a for a in option.arrays if present_of(a)]
    if not laid:
        return None, ""
    wished = job.brief.wishes.growth_modules
    if bays and not wished:
        arrays = tuple(
            replace(a, modules=tuple(replace(m, present=True) for m in a.modules))
            for a in option.arrays
        )
        return _anew(job, replace(option, arrays=arrays)), f"{bays} more in bays left free"
    more, why = (wished, "as wished") if wished else (EXAMPLE, "as an example")
    most = max(laid, key=lambda a: len(present_of(a)))
    arrays = tuple(_longer(job, option, a, more) if a is most else a for a in option.arrays)
    return _anew(job, replace(option, arrays=arrays)), f"{more} more, {why}"


def _longer(job: Job, option: Option, array: PlaneArray, more: int) -> PlaneArray:
    """Return an array with its last row that much longer: only electrical limits look at it."""
    sheet, last = module_on(job, option, array.plane_id), present_of(array)[-1]
    width_m, _ = module_footprint_m(sheet, last.orientation, array.leg_tilt_deg)
    step_m = width_m + array.gap_in_row.value_m
    right_m = max(m.x_m for m in present_of(array) if m.y_m == last.y_m)
    added = tuple(
        PlacedModule(
            PlacedId(f"later-{n}"), right_m + n * step_m, last.y_m, last.orientation, present=True
        )
        for n in range(1, more + 1)
    )
    return replace(array, modules=(*array.modules, *added))


def _anew(job: Job, option: Option) -> Option:
    """Return the option with its strings planned anew."""
    return thread_option(job, replace(option, strings=()))


def _newly(job: Job, option: Option, later: Option) -> list[Broken]:
    """Return the limits that hold now and are broken then, Stops first."""
    now = standing_of(job, option).broken
    then = standing_of(with_option(job, later), later).broken
    known = {(b.rule_id, b.subject) for b in now.values()}
    found = [b for key, b in then.items() if key not in known and b.kind in FORBIDDEN]
    loose = _loose(later)
    if loose and microinverter_sheet_of(job, later) is None:
        told = f"no legal plan holds {loose} of the modules"
        found.insert(0, Broken("strings.plan", "array", LimitKind.STOP, told))
    return sorted(found, key=lambda b: FORBIDDEN.index(b.kind))


def _units(job: Job, option: Option) -> int:
    return sum(n for _, n in ac_makers(job, option))


def _on_branches(job: Job, option: Option, later: Option) -> str:
    unit = microinverter_sheet_of(job, option)
    assert unit is not None
    now, then = (len(branches(design_for(with_option(job, o), o), unit)) for o in (option, later))
    return "on the branches there are, " if now == then else f"{then} branches instead of {now}, "


def _larger(desk: Desk, job: Job, option: Option) -> str:
    """Return whether a larger inverter bought today costs less than a second one later."""
    prices = [i.price_cents for i in inverter_sheets_of(job, option)]
    known = [p for p in prices if p is not None]
    today, later = list[tuple[int, str]](), list[tuple[int, str]]()
    for sheet in desk.shelf.inverters:
        if sheet.price_cents is None or sheet.phases > job.survey.service.phases:
            continue
        holding = with_sheet(job, sheet)
        alone = replace(option, inverter_id=sheet.id, more_inverters=())
        beside = replace(option, more_inverters=(*option.more_inverters, sheet.id))
        for found, changed in ((today, alone), (later, beside)):
            made = with_option(holding, _anew(holding, changed))
            there = option_of(made, option.id)
            grown_then, _ = _with_more(made, there)
            if grown_then is not None and not _forbidden(made, grown_then):
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


def _forbidden(job: Job, later: Option) -> bool:
    broken = standing_of(with_option(job, later), later).broken.values()
    return _loose(later) > 0 or not keeps_all(broken)


def _loose(option: Option) -> int:
    """Return how many modules are in no string."""
    return len(present_ids(option)) - sum(len(s.module_ids) for s in option.strings)
