"""The electrical rules a job is held to: its family's, but for what it holds otherwise."""

import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from types import MappingProxyType
from typing import Any

from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.code_rules import CodeRuleField, OwnRules, VoltageMethod
from ridge_tally.core.job.document import CodePack, ColdSchool, Site
from ridge_tally.core.working import Source, SourceStatus

AGEING = Source("no allowance unless stated; 0 to 8 % is usual", "", SourceStatus.COMMON_PRACTICE)
PARALLEL = Source("equal strings on one input", "", SourceStatus.COMMON_PRACTICE)
SHUTDOWN = Source("NEC 690.12(B)(2)", "2023", SourceStatus.FROM_MEMORY)
SHUTDOWN_OUTSIDE = Source("NEC 690.12(B)(1)", "2023", SourceStatus.FROM_MEMORY)
ARC_FAULT = Source("NEC 690.11", "2023", SourceStatus.FROM_MEMORY)
NAMES = {
    CodeRuleField.CEILING: "Code's voltage ceiling, V",
    CodeRuleField.BRIGHT_CLOUD: "Factor on short-circuit current",
    CodeRuleField.METHOD: "Method for the coldest voltage",
    CodeRuleField.PARALLEL: "Voltages of paralleled strings apart, %",
    CodeRuleField.LOADING: "Most DC:AC of this job",
    CodeRuleField.AGEING: "Ageing off hot string voltages, %",
}
# Shares are typed and told in per cent.
PERCENT = frozenset({CodeRuleField.PARALLEL, CodeRuleField.AGEING})
# What a person may hold; further off it is a slip of the pen.
RANGES = {
    CodeRuleField.CEILING: (50.0, 1500.0),
    CodeRuleField.BRIGHT_CLOUD: (1.0, 2.0),
    CodeRuleField.PARALLEL: (0.0, 0.05),
    CodeRuleField.LOADING: (0.5, 4.0),
    CodeRuleField.AGEING: (0.0, 0.2),
}


@dataclass(frozen=True, slots=True)
class CodeFamily:
    """A family of rules: figures with where each comes from; ``None`` where it has no such rule."""

    title: str
    cold_school: ColdSchool
    dwelling_ceiling_v: float
    other_ceiling_v: float
    ceiling: Source
    bright_cloud_factor: float
    bright_cloud: Source
    voltage_method: VoltageMethod
    table_without_coefficient: bool
    method: Source
    back_current_factor: float
    least_fuse_factor: float
    most_fuse_factor: float | None
    fuses: Source
    shutdown_inside_v: float | None
    shutdown_outside_v: float | None
    arc_fault_from_v: float | None
    phases_apart_kw: float | None
    phases: Source | None
    branch_breaker_a: float
    branch_continuous_frac: float
    continuous_factor: float
    branch: Source
    ground_fault: Source

    def ceiling_v(self, *, dwelling: bool) -> float:
        """Return the highest DC voltage on a kind of building."""
        return self.dwelling_ceiling_v if dwelling else self.other_ceiling_v


@dataclass(frozen=True, slots=True)
class CodeRules:
    """What holds for a job: its own figures where it has any, else the family's.

    ``parallel_apart_frac``: how far voltages of strings on one tracker may differ;
    ``dc_ac_most``: the ratio the job is not to pass, ``None`` without one.
    ``voltage_ageing_frac``: what age takes off the hot voltages, 0 unless it is stated.
    """

    family: CodeFamily
    ceiling_v: float
    ceiling: Source
    bright_cloud_factor: float
    bright_cloud: Source
    voltage_method: VoltageMethod
    method: Source
    parallel_apart_frac: float
    parallel: Source
    dc_ac_most: float | None
    loading: Source
    voltage_ageing_frac: float
    ageing: Source


@cache
def code_families() -> MappingProxyType[CodePack, CodeFamily]:
    """Return the shipped families."""
    text = files("ridge_tally.rules").joinpath("packs/code.toml").read_text("utf-8")
    rows = tomllib.loads(text)
    return MappingProxyType({CodePack(key): _family(row) for key, row in rows.items()})


def family_of(pack: CodePack) -> CodeFamily:
    """Return one family."""
    return code_families()[pack]


def code_rules(site: Site) -> CodeRules:
    """Return what holds at a site."""
    family, own = family_of(site.code_pack), site.own_rules
    typed = Source(own.source or "typed for this job", "", SourceStatus.TYPED)
    ceiling_v = family.ceiling_v(dwelling=site.dwelling)
    return CodeRules(
        family=family,
        ceiling_v=ceiling_v if own.ceiling_v is None else own.ceiling_v,
        ceiling=family.ceiling if own.ceiling_v is None else typed,
        bright_cloud_factor=family.bright_cloud_factor
        if own.bright_cloud_factor is None
        else own.bright_cloud_factor,
        bright_cloud=family.bright_cloud if own.bright_cloud_factor is None else typed,
        voltage_method=own.voltage_method or family.voltage_method,
        method=family.method if own.voltage_method is None else typed,
        parallel_apart_frac=own.parallel_apart_frac or 0.0,
        parallel=PARALLEL if own.parallel_apart_frac is None else typed,
        dc_ac_most=own.dc_ac_most,
        loading=typed,
        voltage_ageing_frac=own.voltage_ageing_frac or 0.0,
        ageing=AGEING if own.voltage_ageing_frac is None else typed,
    )


def require_rule(field: CodeRuleField, value: float) -> None:
    """Raise OutOfRange if a figure cannot be held; shares are told in per cent."""
    low, high = RANGES[field]
    if not low <= value <= high:
        told = 100 if field in PERCENT else 1
        raise OutOfRange(NAMES[field], value * told, f"between {low * told:g} and {high * told:g}")


def require_own_rules(own: OwnRules) -> None:
    """Raise OutOfRange on the first figure that cannot be held."""
    for field in RANGES:
        value = getattr(own, field.value)
        if value is not None:
            require_rule(field, value)


def _family(row: dict[str, Any]) -> CodeFamily:
    def source(key: str) -> Source:
        told = row[key]
        return Source(told["document"], told["clause"], SourceStatus(told["status"]))

    return CodeFamily(
        title=row["title"],
        cold_school=ColdSchool(row["cold_school"]),
        dwelling_ceiling_v=row["dwelling_ceiling_v"],
        other_ceiling_v=row["other_ceiling_v"],
        ceiling=source("ceiling"),
        bright_cloud_factor=row["bright_cloud_factor"],
        bright_cloud=source("bright_cloud"),
        voltage_method=VoltageMethod(row["voltage_method"]),
        table_without_coefficient=row["table_without_coefficient"],
        method=source("method"),
        back_current_factor=row["back_current_factor"],
        least_fuse_factor=row["least_fuse_factor"],
        most_fuse_factor=row.get("most_fuse_factor"),
        fuses=source("fuses"),
        shutdown_inside_v=row.get("shutdown_inside_v"),
        shutdown_outside_v=row.get("shutdown_outside_v"),
        arc_fault_from_v=row.get("arc_fault_from_v"),
        phases_apart_kw=row.get("phases_apart_kw"),
        phases=source("phases") if "phases" in row else None,
        branch_breaker_a=row["branch_breaker_a"],
        branch_continuous_frac=row["branch_continuous_frac"],
        continuous_factor=row["continuous_factor"],
        branch=source("branch"),
        ground_fault=source("ground_fault"),
    )
