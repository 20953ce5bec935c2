"""Applying the edits of incentives."""

from dataclasses import replace
from typing import Any, assert_never

from ridge_tally.core.brief.typed import (
    parse_choice,
    parse_day,
    parse_money_cents,
    parse_share_frac,
    parse_yes,
)
from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.edits.money.incentives import (
    AddIncentive,
    IncentiveEdit,
    IncentiveField,
    MoveIncentive,
    RemoveIncentive,
    SetIncentiveField,
)
from ridge_tally.core.job.money import (
    BaseKind,
    DateRule,
    Incentive,
    IncentiveId,
    IncentiveKind,
    Less,
    Over,
    Owner,
)
from ridge_tally.core.units import one_line, parse_number, whole
from ridge_tally.editing.rows import next_id, row_of, with_row

_CHOICES = {
    IncentiveField.KIND: (IncentiveKind, "Kind of incentive"),
    IncentiveField.BASE: (BaseKind, "Base"),
    IncentiveField.OVER: (Over, "Above the ratio"),
    IncentiveField.DATE_RULE: (DateRule, "Day that counts"),
}


def incentives_changed(job: Job, edit: IncentiveEdit) -> Job:
    """Return the job with other incentives.

    Raises
    ------
    NotUnderstood, OutOfRange, NotFound
        Naming the field, the value and the remedy.
    """
    there = job.money.incentives
    if isinstance(edit, AddIncentive):
        name = one_line(edit.name, "Name of the incentive", "what people call it")
        new_id = IncentiveId(next_id("incentive", [i.id for i in there]))
        at_once = edit.incentive_kind in (IncentiveKind.SHARE, IncentiveKind.PER_KW)
        found = (
            *there,
            Incentive(new_id, name, edit.incentive_kind, pays_in_year=0 if at_once else 1),
        )
    else:
        one = row_of(there, edit.incentive_id, "incentive")
        others = tuple(i for i in there if i.id != one.id)
        match edit:
            case SetIncentiveField():
                found = with_row(there, _with_field(job, one, edit))
            case MoveIncentive():
                place = min(max(0, edit.place), len(others))
                found = (*others[:place], one, *others[place:])
            case RemoveIncentive():
                found = tuple(
                    replace(i, less=tuple(x for x in i.less if x.id != one.id)) for i in others
                )
            case _:
                assert_never(edit)
    return replace(job, money=replace(job.money, incentives=found))


def _with_field(job: Job, one: Incentive, edit: SetIncentiveField) -> Incentive:
    change: dict[str, Any] = {edit.field.value: _value(job, one, edit)}
    return replace(one, **change)


def _value(job: Job, one: Incentive, edit: SetIncentiveField) -> Any:  # noqa: PLR0911, PLR0912 - one return a field
    field, typed = edit.field, edit.typed.strip()
    if field in _CHOICES:
        kind, name = _CHOICES[field]
        return parse_choice(kind, typed, name)
    match field:
        case IncentiveField.NAME:
            return one_line(typed, "Name of the incentive", "what people call it")
        case IncentiveField.SOURCE:
            return typed
        case IncentiveField.RATE:
            text = typed.removesuffix("%").strip() or "0"
            return parse_number(text, f"Share, {one.name}", "per cent such as 25 %") / 100
        case IncentiveField.CENTS:
            return parse_money_cents(typed or "0", f"Amount, {one.name}")
        case IncentiveField.CAP:
            return round(parse_money_cents(typed, f"Cap, {one.name}")) if typed else None
        case IncentiveField.MOST_KW:
            return parse_number(typed, f"Up to kW, {one.name}", "kW such as 10") if typed else None
        case IncentiveField.RATIO:
            return parse_share_frac(typed, "DC over AC") if typed else None
        case IncentiveField.LESS:
            return _less(job, one, typed)
        case IncentiveField.OWNER:
            return parse_choice(Owner, typed, "For whom") if typed and typed != "any" else None
        case IncentiveField.ENDS:
            day = f"Last day, {one.name}"
            return parse_day(typed, day, month_first=month_first(job)) if typed else None
        case IncentiveField.PAYS_IN:
            years = parse_number(typed or "0", "Pays in year", "a year such as 1")
            return whole(years, "Pays in year", typed, "a whole year such as 1; 0 at once")
        case _:
            return parse_yes(typed, field.value.capitalize())


def _less(job: Job, one: Incentive, typed: str) -> tuple[Less, ...]:
    """Return ``incentive2, incentive3 50 %`` as what is taken from a base."""
    known = {i.id for i in job.money.incentives}
    found = []
    for part in filter(None, (p.strip() for p in typed.split(","))):
        name, _, share = part.partition(" ")
        if name not in known:
            raise NotFound("incentive", name)
        frac = parse_share_frac(share, f"Base of {one.name}") if share else 1.0
        found.append(Less(IncentiveId(name), frac))
    return tuple(found)
