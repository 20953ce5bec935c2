"""What a job changes in its family of electrical rules, and what a person confirms on site."""

from dataclasses import dataclass
from enum import StrEnum


class VoltageMethod(StrEnum):
    """How the coldest voltage of a string is found."""

    COEFFICIENT = "coefficient"
    TABLE = "table"


class CodeRuleField(StrEnum):
    """A figure of the family's that a job may hold otherwise."""

    CEILING = "ceiling_v"
    BRIGHT_CLOUD = "bright_cloud_factor"
    METHOD = "voltage_method"
    PARALLEL = "parallel_apart_frac"
    LOADING = "dc_ac_most"
    AGEING = "voltage_ageing_frac"


@dataclass(frozen=True, slots=True)
class OwnRules:
    """A job's own figures; ``None`` is the family's.  ``source``: who says so.

    ``parallel_apart_frac``: how far the voltages of strings on one tracker may differ;
    ``dc_ac_most``: the DC:AC ratio nobody wants to pass; ``voltage_ageing_frac``: what age is to
    take off the hot voltages of strings, off unless it is stated.
    """

    ceiling_v: float | None = None
    bright_cloud_factor: float | None = None
    voltage_method: VoltageMethod | None = None
    parallel_apart_frac: float | None = None
    dc_ac_most: float | None = None
    voltage_ageing_frac: float | None = None
    source: str = ""


class Shutdown(StrEnum):
    """How the DC on a roof falls to a voltage firefighters may touch."""

    NOT_SAID = "not-said"
    MODULE_SWITCHES = "module-switches"
    HAZARD_CONTROL = "hazard-control"


class OnSite(StrEnum):
    """What only the hands on site can confirm."""

    CONNECTORS = "connectors"
    DISCONNECTS = "disconnects"
    INDOOR_WIRING = "indoor-wiring"
    POLARITY = "polarity"


@dataclass(frozen=True, slots=True)
class Safety:
    """What somebody said of an option's shutdown and confirmed of its wiring.

    ``string_fuse_a``: the fuse of every string that is paralleled; ``None`` while nobody said.
    """

    shutdown: Shutdown = Shutdown.NOT_SAID
    confirmed: tuple[OnSite, ...] = ()
    string_fuse_a: float | None = None
