"""The edits of records, tests, searches, practice and production files, as data."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.proving import ProductionFile, ProofStep


@dataclass(frozen=True, slots=True)
class WriteRecord:
    """An entry of a slot; a newer one stands beside the older."""

    slot: str
    typed: str
    fine: bool | None
    tool: str
    who: str
    day: str
    note: str = ""
    picture: str = ""
    kind: Literal["write-record"] = "write-record"


@dataclass(frozen=True, slots=True)
class DropRecord:
    """By its place from 0."""

    at: int
    kind: Literal["drop-record"] = "drop-record"


@dataclass(frozen=True, slots=True)
class WriteTests:
    """Readings of one step of one moment: of each place what was typed."""

    step: ProofStep
    places: tuple[str, ...]
    typed: tuple[str, ...]
    light: str
    back: str
    time: str
    day: str
    who: str
    meter: str = ""
    practice: bool = False
    kind: Literal["write-tests"] = "write-tests"


@dataclass(frozen=True, slots=True)
class DropTest:
    """By its place from 0."""

    at: int
    kind: Literal["drop-test"] = "drop-test"


class HuntField(StrEnum):
    """What is said of a search as a whole."""

    DAY = "day"
    TIME = "time"
    SKY = "sky"
    FOUND = "found"


@dataclass(frozen=True, slots=True)
class SetHuntField:
    field: HuntField
    typed: str
    kind: Literal["set-hunt-field"] = "set-hunt-field"


@dataclass(frozen=True, slots=True)
class AddReading:
    """A reading of the search, after those before it."""

    reading: str
    place: str
    typed: str
    practice: bool = False
    kind: Literal["add-reading"] = "add-reading"


@dataclass(frozen=True, slots=True)
class DropReading:
    """By its place from 0."""

    at: int
    kind: Literal["drop-reading"] = "drop-reading"


@dataclass(frozen=True, slots=True)
class NewHunt:
    """Another search begins; the one before is let go."""

    kind: Literal["new-hunt"] = "new-hunt"


@dataclass(frozen=True, slots=True)
class BeginPractice:
    """Faults are planted by a number; what was read before is forgotten."""

    seed: int
    kind: Literal["begin-practice"] = "begin-practice"


@dataclass(frozen=True, slots=True)
class TakeReading:
    """A reading of the practice system; what it shows follows from the seed."""

    reading: str
    place: str
    kind: Literal["take-reading"] = "take-reading"


@dataclass(frozen=True, slots=True)
class GiveVerdict:
    """The cause named, by its code and place; it ends the practice."""

    verdict: str
    kind: Literal["give-verdict"] = "give-verdict"


@dataclass(frozen=True, slots=True)
class EndPractice:
    kind: Literal["end-practice"] = "end-practice"


@dataclass(frozen=True, slots=True)
class UseProduction:
    """A gateway's file, new or in the place of the one with its hash."""

    file: ProductionFile
    kind: Literal["use-production"] = "use-production"


@dataclass(frozen=True, slots=True)
class DropProduction:
    """By its place from 0."""

    at: int
    kind: Literal["drop-production"] = "drop-production"


ReadingEdit = (
    WriteRecord | DropRecord | WriteTests | DropTest | SetHuntField | AddReading | DropReading
    | NewHunt | BeginPractice | TakeReading | GiveVerdict | EndPractice | UseProduction
    | DropProduction
)  # fmt: skip
