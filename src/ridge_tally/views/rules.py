"""The rules a job is held to, as people read and change them."""

from dataclasses import dataclass

from ridge_tally.core.job.code_rules import CodeRuleField, OnSite
from ridge_tally.core.job.document import Site
from ridge_tally.core.working import Source
from ridge_tally.rules.code import NAMES, CodeRules, code_rules
from ridge_tally.rules.strings.safety import points_to_confirm


@dataclass(frozen=True, slots=True)
class RuleView:
    """A figure in force, whether it is the job's own, and what the family has in its place."""

    field: CodeRuleField
    name: str
    value: str
    family: str
    source: Source
    own: bool


@dataclass(frozen=True, slots=True)
class PointView:
    """A point to confirm on site, in words."""

    point: OnSite
    told: str


@dataclass(frozen=True, slots=True)
class RulesView:
    """The family and its figures, a job's own in their place; ``own_source``: who says so."""

    family: str
    rules: tuple[RuleView, ...]
    own_source: str
    points: tuple[PointView, ...]


def rules_view(site: Site) -> RulesView:
    """Return the rules of a site as they are shown."""
    rules, own = code_rules(site), site.own_rules
    return RulesView(
        family=rules.family.title,
        rules=tuple(
            RuleView(
                field,
                NAMES[field],
                *_told(field, rules, site),
                source=_source(field, rules),
                own=getattr(own, field.value) is not None,
            )
            for field in CodeRuleField
        ),
        own_source=own.source,
        points=tuple(
            PointView(point, told) for point, told in points_to_confirm(site.code_pack).items()
        ),
    )


def _told(field: CodeRuleField, rules: CodeRules, site: Site) -> tuple[str, str]:
    """Return a figure as it is in force and as the family has it."""
    family = rules.family
    match field:
        case CodeRuleField.CEILING:
            usual_v = family.ceiling_v(dwelling=site.dwelling)
            return f"{rules.ceiling_v:g}", f"{usual_v:g}"
        case CodeRuleField.BRIGHT_CLOUD:
            return f"{rules.bright_cloud_factor:g}", f"{family.bright_cloud_factor:g}"
        case CodeRuleField.METHOD:
            return rules.voltage_method.value, family.voltage_method.value
        case CodeRuleField.PARALLEL:
            return f"{rules.parallel_apart_frac * 100:g}", "0"
        case CodeRuleField.LOADING:
            return "" if rules.dc_ac_most is None else f"{rules.dc_ac_most:g}", ""
        case CodeRuleField.AGEING:
            return f"{rules.voltage_ageing_frac * 100:g}", "0"


def _source(field: CodeRuleField, rules: CodeRules) -> Source:
    return {
        CodeRuleField.CEILING: rules.ceiling,
        CodeRuleField.BRIGHT_CLOUD: rules.bright_cloud,
        CodeRuleField.METHOD: rules.method,
        CodeRuleField.PARALLEL: rules.parallel,
        CodeRuleField.LOADING: rules.loading,
        CodeRuleField.AGEING: rules.ageing,
    }[field]
