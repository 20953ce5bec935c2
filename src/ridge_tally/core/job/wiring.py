"""What a person decided of an option's wiring: boxes, the way cables go, what they are made of."""

from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.job.ids import BoxId, PlaneId
from ridge_tally.core.job.places import SitePoint, Taped


@dataclass(frozen=True, slots=True)
class JunctionBox:
    """A box or roof entry, its place on its plane from the left end of the eave and up the slope."""

    id: BoxId
    plane_id: PlaneId
    x_m: float
    y_m: float


class Lie(StrEnum):
    """Where a piece of cable lies."""

    ROOF = "roof"
    ATTIC = "attic"
    OUTSIDE = "outside"
    INSIDE = "inside"
    BURIED = "buried"


@dataclass(frozen=True, slots=True)
class CableSegment:
    """A piece of a cable's way, drawn ``to`` a point of the site plan or typed as a length.

    ``length`` stands in the place of what the drawing says; ``drop``: how far it falls or rises
    on the way; ``above_roof``: how far over the roof it runs in the sun.
    """

    lie: Lie
    to: SitePoint | None = None
    length: Taped | None = None
    drop: Taped | None = None
    above_roof: Taped | None = None


@dataclass(frozen=True, slots=True)
class CableRoute:
    """The way of all circuits of a leg, such as ``dc south``: from the array to the inverter."""

    leg: str
    segments: tuple[CableSegment, ...]


class ConduitKind(StrEnum):
    """What conductors are drawn into."""

    METAL = "metal"
    PLASTIC = "plastic"


class Insulation(StrEnum):
    """What conductors are insulated with; the first two are US words, the others metric."""

    THWN_2 = "thwn-2"
    XHHW_2 = "xhhw-2"
    PVC = "pvc"
    XLPE = "xlpe"


@dataclass(frozen=True, slots=True)
class CircuitChoice:
    """What a person chose for a circuit in the place of the smallest that passes.

    ``size`` with its unit, ``10 AWG`` or ``10 mm²``: a job may come under another family.
    """

    circuit: str
    size: str = ""
    breaker_a: float | None = None
    length: Taped | None = None


@dataclass(frozen=True, slots=True)
class Wiring:
    """An option's cables.

    ``terminals_degc``: what the terminals are marked for.  ``insulation``: ``None`` is the
    family's usual.  ``fault_a``: the current a fault can draw at the panel, as the utility names it;
    ``interrupts_a``: what the new breaker breaks.  ``meter``: a production meter is asked for.
    """

    routes: tuple[CableRoute, ...] = ()
    choices: tuple[CircuitChoice, ...] = ()
    conduit: ConduitKind = ConduitKind.METAL
    terminals_degc: int = 60
    insulation: Insulation | None = None
    fault_a: float | None = None
    interrupts_a: float | None = None
    meter: bool = False


def choice_of(wiring: Wiring, circuit: str) -> CircuitChoice:
    """Return what was chosen for a circuit; nothing chosen where nobody did."""
    found = (c for c in wiring.choices if c.circuit == circuit)
    return next(found, CircuitChoice(circuit))
