"""The changes of an option that money is asked about, one at a time, before anybody has judged them."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.catalogue.tariffs import sample_tariffs
from ridge_tally.core.array.stances import positions_of
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import Orientation, Ways, present_of
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.edits.any_edit import RemedyStep, TakeRemedy
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.array.tables import SetSeasons
from ridge_tally.core.job.edits.brief.grid import TakeTariff
from ridge_tally.core.job.edits.loading.batteries import RemoveBattery, SetBattery
from ridge_tally.core.job.edits.strings.threading import PlanAnew
from ridge_tally.core.job.edits.survey.surroundings import RemoveShade
from ridge_tally.core.job.survey import ShadeKind
from ridge_tally.core.survey.shade import lowered, source_height_m
from ridge_tally.core.units import format_length
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.editing.rows import with_row
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.array.seasonal_tilt import seasonal_tilt
from ridge_tally.studies.loading.sweep_points import edit_for_count, roof_of
from ridge_tally.studies.strings.proposals import RemedyKind, proposals

# Of a kind of change so many are followed through the year.
FOLLOWED = {
    RemedyKind.SPLIT: 1,
    RemedyKind.OTHER_LENGTH: 2,
    RemedyKind.IN_SERIES: 1,
    RemedyKind.ADD_ON: 1,
    RemedyKind.SYSTEM: 1,
    RemedyKind.MICRO: 2,
    RemedyKind.INVERTER: 6,
    RemedyKind.SECOND_INVERTER: 1,
    RemedyKind.PLAIN: 1,
}
WORK = {
    RemedyKind.SPLIT: "wiring on paper",
    RemedyKind.OTHER_LENGTH: "wiring on paper",
    RemedyKind.IN_SERIES: "wiring on paper",
    RemedyKind.ADD_ON: "a unit at some modules, at height",
    RemedyKind.SYSTEM: "a unit at every module, at height",
    RemedyKind.MICRO: "a unit at every module, at height",
    RemedyKind.INVERTER: "another inverter ordered",
    RemedyKind.SECOND_INVERTER: "a second inverter hung and joined",
    RemedyKind.PLAIN: "no units at the modules",
}
# Of a battery that nobody has chosen yet: usable kWh and kW; common sizes, no source.
BATTERIES = (("5", "2.5"), ("10", "5"))
# So much is taken off a tree where it is not felled; our own third.
TRIMMED_FRAC = 1 / 3


@dataclass(frozen=True, slots=True)
class Change:
    """A changed job; ``edit`` makes it so in the option, ``None`` where the change is not the design's."""

    title: str
    work: str
    job: Job
    edit: TakeRemedy | None


def changes_of(desk: Desk, design: Design) -> Iterator[Change]:
    """Yield every change that is asked about, the quickest to weigh first."""
    # Those that leave the array alone come first: its year is there already.
    yield from tariffs_of(desk, design)
    yield from _batteries(desk, design)
    yield from _counts(desk, design)
    followed: Counter[RemedyKind] = Counter()
    for proposal in proposals(desk, design):
        if followed[proposal.kind] >= FOLLOWED.get(proposal.kind, 0):
            continue
        edit = proposal.edit(design.option)
        changed = _applied(desk, design, edit)
        if changed is not None:
            followed[proposal.kind] += 1
            yield Change(proposal.title, WORK.get(proposal.kind, ""), changed, edit)
    yield from _turned(desk, design)
    yield from _tilts(desk, design)
    yield from _trees(desk, design)


def _counts(desk: Desk, design: Design) -> Iterator[Change]:
    """Yield one module more and one less, and all there is room for."""
    roof, count = roof_of(desk, design), len(present_ids(design.option))
    room = len(roof.by_light)
    for wanted in dict.fromkeys((count + 1, count - 1, room)):
        if not 0 < wanted <= room or wanted == count:
            continue
        more = wanted - count
        title = f"{abs(more)} module{'s' if abs(more) > 1 else ''} {'more' if more > 0 else 'less'}"
        edit = replace(edit_for_count(design.option, roof, wanted), told=title)
        changed = _applied(desk, design, edit)
        if changed is not None:
            yield Change(title, "the same inverter, strung anew", changed, edit)


def _applied(desk: Desk, design: Design, edit: TakeRemedy) -> Job | None:
    """Return the job after an edit; nothing where it cannot be or changes nothing."""
    try:
        changed = apply_edit(design.job, edit, desk.shelf)
    except RidgeTallyError:
        return None
    return None if design_in(changed, design.option.id).option == design.option else changed


def _made(
    desk: Desk, design: Design, title: str, work: str, *steps: RemedyStep
) -> Iterator[Change]:
    """Yield the change that some steps make; nothing where they cannot be."""
    edit = TakeRemedy(design.option.id, title, steps)
    changed = _applied(desk, design, edit)
    if changed is not None:
        yield Change(title, work, changed, edit)


def _turned(desk: Desk, design: Design) -> Iterator[Change]:
    """Yield each roof filled the other way round."""
    option_id = design.option.id
    for laid in design.arrays:
        there = present_of(laid.array)
        if not there or laid.plane.ground is not None:
            continue
        upright = sum(m.orientation is Orientation.PORTRAIT for m in there) * 2 >= len(there)
        ways, told = (Ways.LANDSCAPE, "landscape") if upright else (Ways.PORTRAIT, "portrait")
        yield from _made(
            desk, design, f"{laid.plane.name} filled in {told}", "laid and strung anew",
            FillPlane(option_id, laid.plane.id, ways), PlanAnew(option_id),
        )  # fmt: skip


def _tilts(desk: Desk, design: Design) -> Iterator[Change]:
    """Yield the best tilt that stays, and the best two and four a year, of each ground array."""
    for laid in design.arrays:
        if not present_of(laid.array) or laid.plane.ground is None:
            continue
        for plan in seasonal_tilt(desk, design, laid.plane.id).plans:
            if plan.positions == positions_of(laid.array):
                continue
            tilts = " and ".join(f"{p.tilt_deg:g}°" for p in plan.positions)
            many = len(plan.positions)
            work = (
                "other legs" if many == 1 else f"{many} changes of tilt a year, as priced in Years"
            )
            yield from _made(
                desk, design, f"{laid.plane.name} at {tilts}", work,
                SetSeasons(design.option.id, laid.plane.id, plan.positions),
            )  # fmt: skip


def _batteries(desk: Desk, design: Design) -> Iterator[Change]:
    """Yield the option without its battery and with it on the other side, or with one of a usual size."""
    option_id, battery = design.option.id, design.option.battery
    if battery is not None:
        yield from _made(desk, design, "Without the battery", "none", RemoveBattery(option_id))
        other = Coupling.AC if battery.coupling is Coupling.DC else Coupling.DC
        price = "" if battery.price_cents is None else f"{battery.price_cents / 100:.2f}"
        again = SetBattery(
            option_id, other, f"{battery.usable_kwh:g}", f"{battery.power_kw:g}", price
        )
        title = f"The battery on the {other.value.upper()} side"
        yield from _made(desk, design, title, "another battery inverter", again)
        return
    for usable, power in BATTERIES:
        for side in Coupling:
            yield from _made(
                desk, design, f"Battery of {usable} kWh on the {side.value.upper()} side",
                "its worth without a price is the most it may cost; backup is not priced",
                SetBattery(option_id, side, usable, power),
            )  # fmt: skip


def tariffs_of(desk: Desk, design: Design) -> Iterator[Change]:
    """Yield the house on the other tariffs of its family of rules and its currency."""
    job, grid = design.job, design.job.brief.grid
    if grid is None:
        return
    for tariff in sample_tariffs().values():
        if tariff.family is not job.site.code_pack or tariff.currency != grid.currency:
            continue
        if tariff.tariff == grid.tariff:
            continue
        changed = apply_edit(job, TakeTariff(tariff.id), desk.shelf)
        work = (
            "a sample, invented: ask the utility what it offers; bills without the array change too"
        )
        yield Change(f"Tariff: {tariff.name}", work, changed, None)


def _trees(desk: Desk, design: Design) -> Iterator[Change]:
    """Yield each tree trimmed by a third, and gone."""
    job, work = design.job, "not priced here; ask its owner"
    for source in job.survey.shade_sources:
        if source.kind is not ShadeKind.TREE:
            continue
        height_m = source_height_m(source)
        if height_m is not None:
            off_m = height_m * TRIMMED_FRAC
            lower = lowered(source, height_m - off_m)
            survey = replace(job.survey, shade_sources=with_row(job.survey.shade_sources, lower))
            off = format_length(off_m, job.unit)
            yield Change(f"{source.name} trimmed by {off}", work, replace(job, survey=survey), None)
        without = apply_edit(job, RemoveShade(source.id), desk.shelf)
        yield Change(f"Without {source.name}", work, without, None)
