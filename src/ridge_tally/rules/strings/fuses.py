"""Whether strings in parallel need fuses, and which: what sound strings push into a faulty one."""

from dataclasses import dataclass

from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.document import strings_on
from ridge_tally.core.job.edits.strings.wiring import SetStringFuse
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.working import Check, Fix, Given, LimitKind, Relation, check
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.limits import rear_gain

SHEET = "module datasheet"


def fuse_checks(design: Design) -> tuple[Check, ...]:
    """Return for each tracker with several strings whether they may go without fuses.

    Where somebody said which fuse every string has, whether it is one that serves.
    """
    checks: list[Check] = []
    fitted_a = design.option.safety.string_fuse_a
    for tracker in design.trackers:
        strings = strings_on(design.option, tracker.number)
        if len(strings) < 2:
            continue
        parallel = _parallel(design, tracker, strings)
        without = _without_fuses(design, parallel)
        if fitted_a is None or not parallel.needed:
            checks.append(without)
        else:
            checks += _fitted(design, parallel, fitted_a)
    return tuple(checks)


@dataclass(frozen=True, slots=True)
class _Parallel:
    """Strings on one input: the strongest module's current with rear light, the weakest rating.

    ``least_a`` to ``most_a``: what a fuse of one string may be rated; ``None`` where a sheet is
    silent.
    """

    subject: str
    strings: int
    module: ModuleSheet
    gain: float
    largest_a: float | None
    back_a: float
    least_a: float
    most_a: float | None

    @property
    def needed(self) -> bool:
        """Whether the sound strings push more into a faulty one than its modules bear."""
        return self.largest_a is not None and self.back_a > self.largest_a * (1 + 1e-9)

    @property
    def fits_a(self) -> float | None:
        """The smallest standard fuse that serves; ``None`` where none does."""
        return None if self.most_a is None else _standard(self.least_a, self.most_a)


def _parallel(
    design: Design, tracker: TrackerInput, strings: tuple[ModuleString, ...]
) -> _Parallel:
    family = design.rules.family
    sheets = [design.sheets[m] for s in strings for m in s.module_ids]
    # The strongest strings push into the weakest module: the lowest rating rules.
    module = max(sheets, key=lambda s: rear_gain(design, s) * s.isc_a)
    gain = rear_gain(design, module)
    ratings = [s.max_series_fuse_a for s in sheets]
    known = [r for r in ratings if r is not None]
    largest = min(known) if len(known) == len(ratings) else None
    amps = gain * module.isc_a
    most = largest
    if largest is not None and family.most_fuse_factor is not None:
        most = min(largest, family.most_fuse_factor * amps)
    return _Parallel(
        f"tracker {tracker.number}",
        len(strings),
        module,
        gain,
        largest,
        (len(strings) - 1) * family.back_current_factor * amps,
        family.least_fuse_factor * amps,
        most,
    )


def _currents(of: _Parallel) -> tuple[str, tuple[Given, ...]]:
    """Return the short-circuit current of one string as a term, and its givens."""
    isc = Given("isc", "Isc", of.module.isc_a, "A", SHEET)
    if of.module.bifacial_frac is None:
        return "isc", (isc,)
    origin = tables.load("rear-gain").source.document
    return "r * isc", (Given("r", "gain by rear light", of.gain, "", origin), isc)


def _without_fuses(design: Design, of: _Parallel) -> Check:
    """Reverse current of the sound strings against the module's largest series fuse.

    Broken, every string wants a fuse of its own, and where no standard one is large enough for
    the string and small enough for the module, that many strings may not be paralleled.
    """
    family, largest, fits = design.rules.family, of.largest_a, of.fits_a
    amps, givens = _currents(of)
    told, fixes = "", tuple[Fix, ...]()
    if of.needed and fits is None:
        told = (
            f"no standard fuse lies between {of.least_a:.1f} A and {of.most_a:.1f} A, the most "
            "for the module"
        )
    elif of.needed:
        told = f"fuse every string with {fits:g} A gPV, one rated for the string's voltage"
        edit = SetStringFuse(design.option.id, f"{fits:g} A")
        fixes = (Fix(f"Every string has {fits:g} A", edit),)
    elif largest is not None:
        each_a = family.back_current_factor * of.gain * of.module.isc_a
        fuseless = int(largest * (1 + 1e-9) / each_a) + 1
        told = f"over {largest:g} A from {fuseless + 1} strings"
    return check(
        rule_id="strings.without-fuses",
        title="Without string fuses",
        subject=of.subject,
        kind=LimitKind.STOP,
        formula=f"(k - 1) * f * {amps}",
        givens=(
            Given("k", "strings in parallel", float(of.strings), "", "this design"),
            Given("f", "factor on Isc", family.back_current_factor, "", family.fuses.document),
            *givens,
        ),
        value=of.back_a,
        symbol="i_back",
        unit="A",
        relation="<=",
        limit=Given("i_fuse", "module's largest series fuse", largest, "A", SHEET),
        source=family.fuses,
        reached_at=told,
        reason=""
        if largest is not None
        else "Not checked: the module's largest series fuse is not on its datasheet.",
        fixes=fixes,
    )


def _fitted(design: Design, of: _Parallel, fitted_a: float) -> tuple[Check, ...]:
    """The fuse somebody says every string has: it bears the string, and guards the module."""
    family = design.rules.family
    least = Given(
        "i_least", f"{family.least_fuse_factor:g} times the string's Isc", of.least_a, "A",
        family.fuses.document,
    )  # fmt: skip
    most = Given("i_most", "the most for the module", of.most_a, "A", family.fuses.document)
    fixes: tuple[Fix, ...] = ()
    if of.fits_a is not None:
        edit = SetStringFuse(design.option.id, f"{of.fits_a:g} A")
        fixes = (Fix(f"Every string has {of.fits_a:g} A", edit),)

    def rated(rule_id: str, title: str, relation: Relation, limit: Given) -> Check:
        return check(
            rule_id=rule_id,
            title=title,
            subject=of.subject,
            kind=LimitKind.STOP,
            formula="i_n",
            givens=(Given("i_n", "fuse of every string", fitted_a, "A", "said for this option"),),
            value=fitted_a,
            symbol="i_n",
            unit="A",
            relation=relation,
            limit=limit,
            source=family.fuses,
            graded=False,
            fixes=fixes,
        )

    return (
        rated("strings.fuse-least", "String fuse, at least", ">=", least),
        rated("strings.fuse-most", "String fuse, at most", "<=", most),
    )


def _standard(least_a: float, most_a: float) -> float | None:
    """Return the smallest standard fuse between two currents."""
    ratings = (float(row[0]) for row in tables.load("standard-fuses").rows)
    return next((r for r in ratings if least_a <= r * (1 + 1e-9) and r <= most_a), None)
