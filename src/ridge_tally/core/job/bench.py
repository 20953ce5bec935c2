"""A test module's measured day, and the array that is made of it."""

from dataclasses import dataclass
from datetime import date


@dataclass(frozen=True, slots=True)
class PowerFileRef:
    """A kept file of measured power by its content's SHA-256, and the day it is of."""

    sha256: str
    file: str
    day: date


@dataclass(frozen=True, slots=True)
class BenchTerm:
    """So many watts of modules that face as the test module did, or mirrored about solar noon."""

    p_dc_w: float
    mirrored: bool


@dataclass(frozen=True, slots=True)
class Bench:
    """``module_w``: rating of what was measured.  ``limit_kw``: where the sum is cut off.

    ``daylight``: the file's clock was an hour before standard time.
    """

    file: PowerFileRef
    module_w: float
    terms: tuple[BenchTerm, ...]
    limit_kw: float | None = None
    daylight: bool = False
