"""The ways to the grid of one array, each made up as it would be built, with its year and price."""

from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.edits.any_edit import TakeRemedy
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics, FitOptimizers
from ridge_tally.core.job.edits.strings.threading import PlanAnew
from ridge_tally.core.job.option import Option
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for, design_in
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import year_or_problem
from ridge_tally.studies.money.saved import saved_of
from ridge_tally.studies.parts import Bill, bill_of
from ridge_tally.studies.rule_status import RuleStatus, keeps_all, standing_of, stops_and_outside
from ridge_tally.studies.strings.proposals import Proposal, RemedyKind, at_modules

WAYS = {
    Architecture.STRINGS: "Strings alone",
    Architecture.ADD_ON: "Strings, a few optimizers",
    Architecture.SYSTEM: "An optimizer on every module",
    Architecture.MICRO: "Microinverters",
}
KINDS = {
    Architecture.ADD_ON: RemedyKind.ADD_ON,
    Architecture.SYSTEM: RemedyKind.SYSTEM,
    Architecture.MICRO: RemedyKind.MICRO,
}


@dataclass(frozen=True, slots=True)
class Built:
    """A way carried out on the array of an option; ``edit`` makes it so, ``None`` where it is.

    ``energy_kwh`` by the hour, ``None`` with a ``problem``; ``saved_cents``: what the first year's
    bills are less by.  ``from_option``: the option of the job
    that has it so, empty where it was made up for the comparison.
    """

    architecture: Architecture
    design: Design
    standing: RuleStatus
    bill: Bill
    energy_kwh: float | None
    clipped_kwh: float | None
    saved_cents: int | None
    problem: str
    from_option: str
    edit: TakeRemedy | None

    @property
    def legal(self) -> bool:
        """Whether no Stop and no Outside limit is broken."""
        return self.problem == "" and keeps_all(self.standing.broken.values())


def ways_built(desk: Desk, design: Design) -> Iterator[Built]:
    """Yield each way to the grid there is for an option's array.

    As the option has it, or another option of the job with the same modules; otherwise with the
    unit of the shelf that breaks least and then gives most.
    """
    for architecture in WAYS:
        found = _in_job(desk, design, architecture) or _made_up(desk, design, architecture)
        if found is not None:
            yield found


def _in_job(desk: Desk, design: Design, architecture: Architecture) -> Built | None:
    for other in (design.option, *design.job.options):
        alike = (
            _places(other) == _places(design.option) and other.module_id == design.option.module_id
        )
        if alike and other.electronics.architecture is architecture:
            edit = None if other.id == design.option.id else _taken_over(design.option, other)
            return _built(desk, design_for(design.job, other), edit, str(other.id))
    return None


def _places(option: Option) -> set[tuple[object, ...]]:
    return {(a.plane_id, m.x_m, m.y_m, m.orientation) for a in option.arrays for m in present_of(a)}


def _taken_over(option: Option, other: Option) -> TakeRemedy:
    """Return the edit that gives an option what another has at its modules."""
    electronics = other.electronics
    unit_id = electronics.optimizer_id or electronics.microinverter_id or ""
    choose = ChooseElectronics(option.id, electronics.architecture, unit_id)
    there = set(present_ids(option))
    fitted = tuple(m for m in electronics.fitted if m in there)
    fit = (FitOptimizers(option.id, fitted, on=True),) if fitted else ()
    return TakeRemedy(option.id, f"as option {other.name}", (choose, *fit))


def _made_up(desk: Desk, design: Design, architecture: Architecture) -> Built | None:
    plain, edit = _strung(desk, design)
    if architecture is Architecture.STRINGS:
        return _built(desk, plain, edit, "")
    wanted = KINDS[architecture]
    found = [_proposed(desk, plain, p) for p in at_modules(desk, plain) if p.kind is wanted]
    whole = [b for b in found if b is not None]
    return min(whole, key=_order, default=None)


def _strung(desk: Desk, design: Design) -> tuple[Design, TakeRemedy]:
    """Return the design with its modules in plain strings, and the edit that makes it so."""
    edit = TakeRemedy(
        design.option.id,
        "strings alone",
        (ChooseElectronics(design.option.id, Architecture.STRINGS), PlanAnew(design.option.id)),
    )
    if design.option.electronics.architecture is Architecture.STRINGS:
        return design, edit
    return design_in(apply_edit(design.job, edit, desk.shelf), design.option.id), edit


def _proposed(desk: Desk, plain: Design, proposal: Proposal) -> Built | None:
    edit = proposal.edit(plain.option)
    try:
        changed = apply_edit(plain.job, edit, desk.shelf)
    except RidgeTallyError:
        return None
    return _built(desk, design_in(changed, plain.option.id), edit, "")


def _order(way: Built) -> tuple[float, ...]:
    return (*stops_and_outside(way.standing.broken.values()), -(way.energy_kwh or 0.0))


def _built(desk: Desk, design: Design, edit: TakeRemedy | None, from_option: str) -> Built:
    year, problem = year_or_problem(desk, design)
    energy = clipped = saved = None
    if year is not None:
        energy, clipped = year.energy_kwh, year.clipped_kwh
        saved = saved_of(desk, design, year)
    return Built(
        design.option.electronics.architecture, design, standing_of(design),
        bill_of(design), energy, clipped, saved, problem, from_option, edit,
    )  # fmt: skip
