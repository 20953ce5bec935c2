"""The house's connection: its panel, its breakers and where its gear hangs."""

from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.job.places import SitePoint, Taped


class SourceBreaker(StrEnum):
    """Where the source is joined to the house's wires."""

    NOT_SAID = "not-said"
    OPPOSITE_END = "opposite-end"
    ELSEWHERE = "elsewhere"
    CENTRE_FED = "centre-fed"
    FEEDER = "feeder"
    LINE_SIDE = "line-side"


@dataclass(frozen=True, slots=True)
class SubPanel:
    """A board between the sources and the main panel; ``feeder_a``: the breaker of what feeds it there."""

    name: str
    main_breaker_a: float | None = None
    busbar_a: float | None = None
    feeder_a: float | None = None


@dataclass(frozen=True, slots=True)
class Service:
    """The house's connection: phases, main breaker, busbar, and where its gear hangs.

    ``disconnect_within`` is how far from the meter the utility lets the disconnect be.
    ``load_breakers_a``: all of the panel's but the main one, together; ``feeder_a``: what the
    feeder to the panel carries.  ``subpanels``: boards the sources come through, theirs first.
    """

    phases: int = 1
    main_breaker_a: float | None = None
    busbar_a: float | None = None
    spaces: int | None = None
    meter: SitePoint | None = None
    panel: SitePoint | None = None
    disconnect: SitePoint | None = None
    inverter: SitePoint | None = None
    disconnect_within: Taped | None = None
    source_breaker: SourceBreaker = SourceBreaker.NOT_SAID
    load_breakers_a: float | None = None
    feeder_a: float | None = None
    subpanels: tuple[SubPanel, ...] = ()
