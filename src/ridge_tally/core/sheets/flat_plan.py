"""A plan as it is in the world, metres: what a sheet draws to scale and a drawing file keeps true."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ridge_tally.core.array.strips import Patch
from ridge_tally.core.sheets.scene import Layer

Flat = tuple[float, float]


def flat(points: Iterable[Sequence[float]]) -> list[Flat]:
    """Return points as plain pairs, whatever stands after their second figure left out."""
    return [(float(p[0]), float(p[1])) for p in points]


@dataclass(frozen=True, slots=True)
class Shape:
    """Something flat: a ring where it is ``closed``, else a way; ``hue`` as a line's in a scene."""

    layer: Layer
    ring: Sequence[Flat]
    part: str = ""
    closed: bool = True
    dashed: bool = False
    hue: int = 0


@dataclass(frozen=True, slots=True)
class Spot:
    """A mount or a post, drawn as a small circle that is as large at every scale."""

    at: Flat
    part: str = ""
    layer: Layer = Layer.MOUNT


@dataclass(frozen=True, slots=True)
class Note:
    """Words about a place; ``box`` is the thing they belong in or beside: left, bottom, right, top."""

    words: str
    box: tuple[float, float, float, float]
    part: str = ""
    bold: bool = False
    beside: bool = False
    layer: Layer = Layer.TEXT


@dataclass(frozen=True, slots=True)
class Side:
    """A side with what is told of it, set outside; ``words`` holds its length."""

    begin: Flat
    end: Flat
    name: str
    words: str


@dataclass(frozen=True, slots=True)
class Running:
    """Lengths running from one datum, along x or up y; ``words`` for each mark, the datum's first."""

    along_x: bool
    marks_m: tuple[float, ...]
    words: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Gear:
    """A piece of gear by its letter."""

    letter: str
    at: Flat
    part: str = ""


@dataclass(frozen=True, slots=True)
class FlatPlan:
    """What is drawn; ``north_deg``: where north is, clockwise from up the paper."""

    shapes: tuple[Shape, ...]
    spots: tuple[Spot, ...] = ()
    notes: tuple[Note, ...] = ()
    sides: tuple[Side, ...] = ()
    runnings: tuple[Running, ...] = ()
    patches: tuple[Patch, ...] = ()
    gear: tuple[Gear, ...] = ()
    north_deg: float = 0.0
