"""Rules a job is held to: another family, or a figure held otherwise."""

from dataclasses import replace
from typing import Any

from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.job.code_rules import CodeRuleField, VoltageMethod
from ridge_tally.core.job.document import CodePack, Job, Site
from ridge_tally.core.job.edits.brief.site import SetCodeRule
from ridge_tally.core.units import parse_number
from ridge_tally.rules.code import NAMES, family_of, require_rule


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
    change: dict[str, Any] = {edit.field.value: _value(edit)}
    own = replace(job.site.own_rules, **change)
    return replace(job, site=replace(job.site, own_rules=replace(own, source=edit.source.strip())))


def _value(edit: SetCodeRule) -> float | VoltageMethod | None:
    name, typed = NAMES[edit.field], edit.typed.strip()
    if not typed:
        return None
    if edit.field is CodeRuleField.METHOD:
        try:
            return VoltageMethod(typed.lower())
        except ValueError:
            raise NotUnderstood(name, typed, "coefficient or table") from None
    value = parse_number(typed.rstrip("%V× "), name, "a number")
    value = value / 100 if edit.field is CodeRuleField.PARALLEL else value
    require_rule(edit.field, value)
    return value
