"""Rules a job is held to: another family, or a figure held otherwise."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.job.code_rules import CodeRuleField, OwnRules, VoltageMethod
from ridge_tally.core.job.document import CodePack, Job, Site
from ridge_tally.core.job.edits.brief.site import SetCodeRule
from ridge_tally.core.units import parse_number
from ridge_tally.rules.code import NAMES, PERCENT, family_of, require_rule


def held_to(site: Site, pack: CodePack) -> Site:
    """Return a site held to a family; its school of cold follows unless another was chosen."""
    old, new = family_of(site.code_pack).cold_school, family_of(pack).cold_school
    school = new if site.cold_school is old else site.cold_school
    return replace(site, code_pack=pack, cold_school=school)


def code_rule_changed(job: Job, edit: SetCodeRule) -> Job:
    """Return the job with one figure held as typed, or as its family has it again.

    Raises
    ------
    NotUnderstood, OutOfRange
        Naming the figure and what it may be.
    """
    own = replace(_held_so(job.site.own_rules, edit), source=edit.source.strip())
    return replace(job, site=replace(job.site, own_rules=own))


def _held_so(own: OwnRules, edit: SetCodeRule) -> OwnRules:
    kind = CodeRuleField
    match edit.field:
        case kind.METHOD:
            return replace(own, voltage_method=_method(edit))
        case kind.CEILING:
            return replace(own, ceiling_v=_number(edit))
        case kind.BRIGHT_CLOUD:
            return replace(own, bright_cloud_factor=_number(edit))
        case kind.PARALLEL:
            return replace(own, parallel_apart_frac=_number(edit))
        case kind.LOADING:
            return replace(own, dc_ac_most=_number(edit))
        case kind.AGEING:
            return replace(own, voltage_ageing_frac=_number(edit))
        case _:
            assert_never(edit.field)


def _method(edit: SetCodeRule) -> VoltageMethod | None:
    typed = edit.typed.strip().lower()
    try:
        return VoltageMethod(typed) if typed else None
    except ValueError:
        raise NotUnderstood(NAMES[edit.field], typed, "coefficient or table") from None


def _number(edit: SetCodeRule) -> float | None:
    name, typed = NAMES[edit.field], edit.typed.strip()
    if not typed:
        return None
    value = parse_number(typed.rstrip("%V× "), name, "a number")
    value = value / 100 if edit.field in PERCENT else value
    require_rule(edit.field, value)
    return value
