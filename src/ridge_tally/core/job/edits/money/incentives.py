"""The edits of incentives, as data; figures travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.money import IncentiveId, IncentiveKind


class IncentiveField(StrEnum):
    """A figure or words of an incentive."""

    NAME = "name"
    KIND = "kind"
    RATE = "rate_frac"
    CENTS = "cents"
    BASE = "base"
    LESS = "less"
    CAP = "cap_cents"
    MOST_KW = "most_kw"
    RATIO = "most_dc_ac_ratio"
    OVER = "over"
    OWNER = "owner"
    REFUNDABLE = "refundable"
    ENDS = "ends"
    DATE_RULE = "date_rule"
    PAYS_IN = "pays_in_year"
    SOURCE = "source"
    TAKEN = "taken"


@dataclass(frozen=True, slots=True)
class AddIncentive:
    """A new one at the end of the list, to be filled in."""

    name: str
    incentive_kind: IncentiveKind
    kind: Literal["add-incentive"] = "add-incentive"


@dataclass(frozen=True, slots=True)
class SetIncentiveField:
    incentive_id: IncentiveId
    field: IncentiveField
    typed: str
    kind: Literal["set-incentive-field"] = "set-incentive-field"


@dataclass(frozen=True, slots=True)
class MoveIncentive:
    """To a place of the list, the first is 0."""

    incentive_id: IncentiveId
    place: int
    kind: Literal["move-incentive"] = "move-incentive"


@dataclass(frozen=True, slots=True)
class RemoveIncentive:
    incentive_id: IncentiveId
    kind: Literal["remove-incentive"] = "remove-incentive"


IncentiveEdit = AddIncentive | SetIncentiveField | MoveIncentive | RemoveIncentive
