"""The edits of the way cables go and of what circuits are made of, as data."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.wiring import Lie


class WiringField(StrEnum):
    """What holds for all circuits of an option."""

    CONDUIT = "conduit"
    TERMINALS = "terminals_degc"
    INSULATION = "insulation"
    FAULT = "fault_a"
    INTERRUPTS = "interrupts_a"
    METER = "meter"


class CircuitField(StrEnum):
    """What a person may choose for one circuit."""

    SIZE = "size"
    BREAKER = "breaker_a"
    LENGTH = "length"


@dataclass(frozen=True, slots=True)
class DrawnSegment:
    """A piece of the way: to a point, its lengths as typed; empty where nothing was."""

    lie: Lie
    to: SitePoint | None = None
    length: str = ""
    drop: str = ""
    above_roof: str = ""


@dataclass(frozen=True, slots=True)
class SetRoute:
    """The way of a leg, whole; without a segment the proposed one stands again."""

    option_id: OptionId
    leg: str
    segments: tuple[DrawnSegment, ...]
    kind: Literal["set-route"] = "set-route"


@dataclass(frozen=True, slots=True)
class TakeRoutes:
    """Every proposed way is taken as it is drawn; those drawn by hand stay."""

    option_id: OptionId
    kind: Literal["take-routes"] = "take-routes"


@dataclass(frozen=True, slots=True)
class SetCircuit:
    """As typed or picked; empty for what is proposed."""

    option_id: OptionId
    circuit: str
    field: CircuitField
    typed: str
    kind: Literal["set-circuit"] = "set-circuit"


@dataclass(frozen=True, slots=True)
class SetWiringField:
    option_id: OptionId
    field: WiringField
    typed: str
    kind: Literal["set-wiring-field"] = "set-wiring-field"


CircuitEdit = SetRoute | TakeRoutes | SetCircuit | SetWiringField
