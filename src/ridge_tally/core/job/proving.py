"""What was built and found: the option as built, serials, records of the work, readings and files."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from ridge_tally.core.job.ids import OptionId, PlacedId
from ridge_tally.core.job.option import Option


@dataclass(frozen=True, slots=True)
class SiteNote:
    """Why something was built otherwise than drawn, who says so and when."""

    day: date
    who: str
    words: str


@dataclass(frozen=True, slots=True)
class Built:
    """An option that is built: at which revision it was marked, and how it was drawn then.

    The option itself is what stands there; what differs from ``drawn`` was changed on site.
    """

    option_id: OptionId
    revision: int
    day: date
    who: str
    drawn: Option
    notes: tuple[SiteNote, ...] = ()


class Carries(StrEnum):
    """What bears a serial number: a module, or the unit at one or two modules."""

    MODULE = "module"
    UNIT = "unit"


@dataclass(frozen=True, slots=True)
class Serial:
    """A sticker: of a module, or of the unit whose first module it is.

    ``first_port``: the unit's port that its first module is on, where it has two: ``A`` or ``B``.
    """

    carries: Carries
    place: PlacedId
    text: str
    first_port: str = ""


@dataclass(frozen=True, slots=True)
class SerialPattern:
    """How serial numbers of a kind are made: # for a digit, @ for a letter, the rest as it stands."""

    carries: Carries
    pattern: str


class Corner(StrEnum):
    """Where stickers begin, seen from outside facing the roof, and which way rows are walked."""

    LOWER_LEFT = "lower-left"
    LOWER_RIGHT = "lower-right"
    UPPER_LEFT = "upper-left"
    UPPER_RIGHT = "upper-right"


@dataclass(frozen=True, slots=True)
class Record:
    """An entry of the work's records in a slot that the design asks for, as it was typed.

    ``fine``: what whoever looked says of it; ``picture``: the hash of a kept one.
    """

    slot: str
    typed: str
    fine: bool | None
    tool: str
    who: str
    day: date
    note: str = ""
    picture: str = ""


class ProofStep(StrEnum):
    """The steps of commissioning in their order; each waits for those before it."""

    LOOK = "look"
    BOND = "bond"
    POLARITY = "polarity"
    VOC = "voc"
    ISC = "isc"
    INSULATION = "insulation"
    FUNCTION = "function"
    AC = "ac"


@dataclass(frozen=True, slots=True)
class ProofRow:
    """A reading of commissioning as it was typed, with the light and heat of its moment.

    ``place``: the string's tag, or the name of a test.  ``practice``: by a simulated meter.
    """

    step: ProofStep
    place: str
    typed: str
    light: str
    back: str
    time: str
    day: date
    who: str
    meter: str = ""
    practice: bool = False


@dataclass(frozen=True, slots=True)
class FaultReading:
    """A reading taken while looking for a fault, by its kind and the name of what it is of."""

    reading: str
    place: str
    typed: str
    practice: bool = False


@dataclass(frozen=True, slots=True)
class FaultHunt:
    """A search: its day, hour and sky as typed, and what was read, in order.

    ``found``: the cause that was told in the end, as whoever looked says.
    """

    day: str = ""
    time: str = ""
    sky: str = "clear"
    readings: tuple[FaultReading, ...] = ()
    found: str = ""


@dataclass(frozen=True, slots=True)
class Practice:
    """A built system with faults planted by a seed: what was read of it so far, and the verdict.

    Readings are told by kind and place; an unsafe test stands by its name.
    """

    seed: int
    taken: tuple[FaultReading, ...] = ()
    verdict: str = ""


@dataclass(frozen=True, slots=True)
class ProductionFile:
    """A gateway's file, kept by its hash; ``column``: which of its columns is read."""

    sha256: str
    file: str
    column: str = ""


@dataclass(frozen=True, slots=True)
class ProvingLog:
    """What belongs to a built job; ``meters_seed``: simulated meters read a system with its faults."""

    built: Built | None = None
    serials: tuple[Serial, ...] = ()
    patterns: tuple[SerialPattern, ...] = ()
    corner: Corner = Corner.LOWER_LEFT
    records: tuple[Record, ...] = ()
    tests: tuple[ProofRow, ...] = ()
    hunt: FaultHunt = FaultHunt()
    practice: Practice | None = None
    production: tuple[ProductionFile, ...] = ()
    meters_seed: int | None = None
