"""The numbers several rules share: sheets, temperatures and ceilings of one option."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache
from string import ascii_lowercase

from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.equipment import (
    ModuleSheet,
    OptimizerKind,
    OptimizerSheet,
)
from ridge_tally.core.errors import MissingDatum, OutsideModelRange
from ridge_tally.core.job.array import Mounting, PlaneArray, mounting_of
from ridge_tally.core.job.document import ColdSchool, Job, Site, present_ids
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import System, system_of
from ridge_tally.core.strings.parts import ac_makers, fitted_ids
from ridge_tally.core.working import Given, number_of
from ridge_tally.rules import tables
from ridge_tally.rules.code import CodeRules, code_rules

MOUNTED = {
    Mounting.FLUSH: "flush on the roof",
    Mounting.LOW_STAND_OFF: "stand-off under 150 mm",
    Mounting.STAND_OFF: "roof stand-off",
    Mounting.OPEN_RACK: "open rack",
}


@dataclass(frozen=True, slots=True)
class Design(System):
    """One option with its datasheets, the code it is held to and its temperatures as givens.

    ``fitted``: the modules with an ``optimizer``.  ``hottest_cell`` is that of all arrays: what
    strings are planned for.  ``coldest_planning_degc`` is for planning only:
    the typed extreme, or the climate's stand-in, which never passes a limit.
    """

    fitted: tuple[PlacedId, ...]
    rules: CodeRules
    coldest: Given
    hottest_air: Given
    hottest_cell: Given
    coldest_planning_degc: float

    @property
    def p_ac_w(self) -> float:
        """What its inverters are rated at together, W: those at the modules where it has such."""
        return sum(n * sheet.p_ac_w for sheet, n in ac_makers(self))

    @property
    def system(self) -> OptimizerSheet | None:
        """The optimizer at every module whose strings the inverter holds at a voltage, if so."""
        unit = self.optimizer
        return unit if unit is not None and unit.kind is OptimizerKind.SYSTEM else None


def design_of(
    job: Job, option: Option, stand_in_coldest_degc: float, stand_in_hottest_degc: float
) -> Design:
    """Return the shared numbers of an option.

    Parameters
    ----------
    job, option
        The option must belong to the job.
    stand_in_coldest_degc, stand_in_hottest_degc : float
        The climate's own guesses, used where nobody typed a temperature.

    Raises
    ------
    NotFound
        If the job lacks a plane or a datasheet that the option names.
    """
    site, system = job.site, system_of(job, option)
    coldest, hottest = coldest_of(site), site.hottest.value_degc
    hottest_degc = stand_in_hottest_degc if hottest is None else hottest
    hot_origin = "stand-in by climate" if hottest is None else site.hottest.source
    hottest_air = Given("t_air", "hottest air", hottest_degc, "°C", hot_origin)
    laid = [one.array for one in system.arrays if one.array.modules]
    return Design(
        job=job,
        option=option,
        module=system.module,
        arrays=system.arrays,
        sheets=system.sheets,
        inverters=system.inverters,
        trackers=system.trackers,
        optimizer=system.optimizer,
        microinverter=system.microinverter,
        fitted=fitted_ids(option, system.optimizer),
        rules=code_rules(site),
        coldest=coldest,
        hottest_air=hottest_air,
        hottest_cell=_hottest_cell(hottest_air, laid),
        coldest_planning_degc=stand_in_coldest_degc if coldest.value is None else coldest.value,
    )


def hottest_on(design: Design, module_ids: Iterable[PlacedId]) -> Given:
    """Return the hottest cell of some modules: by the warmest mounting among theirs."""
    wanted = set(module_ids)
    mine = [laid.array for laid in design.arrays if wanted & {m.id for m in laid.array.modules}]
    return _hottest_cell(design.hottest_air, mine)


def _hottest_cell(air: Given, arrays: list[PlaneArray]) -> Given:
    table = tables.load("cell-temperature-rise")
    mountings = [mounting_of(a) for a in arrays] or [Mounting.STAND_OFF]
    rise_k, mounting = max(
        (table.number("rise_k", mounting=m.value), MOUNTED[m]) for m in mountings
    )
    return Given(
        "t_hot",
        "hottest cell",
        number_of(air) + rise_k,
        "°C",
        f"{air.value:g} °C air ({air.origin}) + {rise_k:g} K, {mounting}",
    )


def coldest_of(site: Site) -> Given:
    """Return the coldest air of the job's school; without a value while nobody typed it."""
    if site.cold_school is ColdSchool.FIXED:
        table = tables.load("fixed-coldest")
        value = table.number("coldest_degc", school="fixed")
        return Given("t_min", "coldest air, fixed", value, "°C", table.source.document)
    strict = site.cold_school is ColdSchool.RECORD_LOW
    typed = site.record_low if strict else site.coldest
    label = "record low" if strict else "coldest air"
    source = typed.source if typed.value_degc is not None else ""
    return Given("t_min", label, typed.value_degc, "°C", source)


@dataclass(frozen=True, slots=True)
class Alike:
    """So many modules of a type; ``suffix`` tells its symbols from those of the first type."""

    count: int
    sheet: ModuleSheet
    suffix: str


def alike(design: Design, module_ids: Iterable[PlacedId]) -> tuple[Alike, ...]:
    """Return modules by type, in the order types first appear."""
    counts = Counter(design.sheets[m] for m in module_ids)
    return tuple(
        Alike(n, sheet, f"_{ascii_lowercase[i]}" if i else "")
        for i, (sheet, n) in enumerate(counts.items())
    )


def watts_of(
    design: Design, module_ids: Iterable[PlacedId], label: str = "modules"
) -> tuple[str, tuple[Given, ...], float]:
    """Return formula, givens and watts of some modules."""
    groups = alike(design, module_ids) or (Alike(0, design.module, ""),)
    terms, givens, watts = [], list[Given](), 0.0
    for g in groups:
        terms.append(f"n{g.suffix} * p_max{g.suffix}")
        givens += [
            Given(f"n{g.suffix}", label, float(g.count), "", "this design"),
            Given(f"p_max{g.suffix}", "Pmax", g.sheet.p_max_w, "W", "module datasheet"),
        ]
        watts += g.count * g.sheet.p_max_w
    return " + ".join(terms), tuple(givens), watts


def makes_ac(design: Design) -> bool:
    """Return whether anything turns the array's DC into AC: a generic DC input does not."""
    return bool(ac_makers(design))


def require_ac(design: Design) -> None:
    """Raise MissingDatum where nothing turns the array's DC into AC."""
    if not makes_ac(design):
        raise MissingDatum(
            "inverter",
            f"Option {design.option.name}",
            "A DC input makes no AC, so there is no year. Choose an inverter in Strings for one.",
        )


def dc_ac_ratio(design: Design) -> float | None:
    """Return array watts over inverter watts; ``None`` while nothing makes AC."""
    return dc_watts(design)[2] / design.p_ac_w if design.p_ac_w > 0 else None


def dc_watts(design: Design) -> tuple[str, tuple[Given, ...], float]:
    """Return formula, givens and watts of all modules that are there."""
    return watts_of(design, present_ids(design.option))


def p_max_given(design: Design) -> Given:
    """Return the module's power."""
    return Given("p_max", "Pmax", design.module.p_max_w, "W", "module datasheet")


def dc_limit_given(design: Design) -> Given:
    """Return the DC watts the makers of all inverters stand behind; unknown where one's sheet is silent."""
    known = [i.p_dc_max_w for i in design.inverters if i.p_dc_max_w is not None]
    most = sum(known) if len(known) == len(design.inverters) else None
    return Given("p_dc_max", "maker's DC limit", most, "W", "inverter datasheet")


@lru_cache(maxsize=64)
def vmp_coefficient(module: ModuleSheet) -> Given:
    """Return how a module's maximum-power voltage changes: as printed, else by its diode model.

    Unknown where neither is.
    """
    printed = module.gamma_vmp_frac_per_degc
    if printed is not None:
        return Given("gamma_v", "Vmp coefficient", printed, "1/°C", "module datasheet")
    try:
        model = fit_diode(module)
    except (MissingDatum, OutsideModelRange):
        return Given("gamma_v", "Vmp coefficient", None, "1/°C", "")
    return Given(
        "gamma_v",
        "Vmp coefficient",
        model.vmp_coefficient_frac_per_degc,
        "1/°C",
        f"diode model, {model.fitted_by}",
    )
