"""Every error a caller can make, each with the value, the limit and the next move.

A result the user asked for is not an error: a failed rule is a ``Check``, and a
missing datasheet number makes a check ``NOT_CHECKED``.
"""

from dataclasses import dataclass

# Of a text that was not understood, so much is said again.
LONGEST_SHOWN = 60


class RidgeTallyError(Exception):
    """Root of all errors that carry a sentence for a person."""

    code = "error"


@dataclass(eq=False)
class OutOfRange(RidgeTallyError):
    """A number outside what the quantity can be."""

    field: str
    value: float
    allowed: str
    remedy: str = ""
    code = "input.out-of-range"

    def __str__(self) -> str:
        tail = f" {self.remedy}" if self.remedy else ""
        return f"{self.field} reads {self.value:g}, but it must be {self.allowed}.{tail}"


@dataclass(eq=False)
class NotUnderstood(RidgeTallyError):
    """Text that cannot be read as the quantity of its field."""

    field: str
    value: str
    expected: str
    code = "input.not-understood"

    def __str__(self) -> str:
        shown = self.value if len(self.value) <= LONGEST_SHOWN else f"{self.value[:LONGEST_SHOWN]}…"
        return f"{self.field}: “{shown}” was not understood. Type {self.expected}."


@dataclass(eq=False)
class BadGeometry(RidgeTallyError):
    """Lengths that do not make the shape they are meant to make."""

    field: str
    problem: str
    remedy: str
    code = "input.bad-geometry"

    def __str__(self) -> str:
        return f"{self.field}: {self.problem}. {self.remedy}"


@dataclass(eq=False)
class AnswerWanted(RidgeTallyError):
    """What would undo somebody's work, and was not said to be meant."""

    field: str
    problem: str
    remedy: str
    code = "input.answer-wanted"

    def __str__(self) -> str:
        return f"{self.field}: {self.problem}. {self.remedy}"


@dataclass(eq=False)
class MissingDatum(RidgeTallyError):
    """A number the work cannot go on without."""

    field: str
    owner: str
    remedy: str
    code = "input.missing-datum"

    def __str__(self) -> str:
        return f"{self.owner} has no {self.field}. {self.remedy}"


class GivenUp(RidgeTallyError):
    """An answer that nobody waits for any more."""

    code = "asked.given-up"

    def __str__(self) -> str:
        return "Nobody waited for this any more."


@dataclass(eq=False)
class NotFound(RidgeTallyError):
    """Something named that is not there."""

    kind: str
    name: str
    code = "not-found"

    def __str__(self) -> str:
        return f"There is no {self.kind} “{self.name}” here; it may have been deleted or renamed."


@dataclass(eq=False)
class Conflict(RidgeTallyError):
    """A save that started from a revision which is no longer the newest."""

    job_name: str
    parent: int
    head: int
    kept_as: str = ""
    kept_job_id: str = ""
    code = "save.conflict"

    def __str__(self) -> str:
        kept = f" Your version is kept as the job “{self.kept_as}”." if self.kept_as else ""
        return (
            f"“{self.job_name}” was changed elsewhere: this page had revision {self.parent}, "
            f"the newest is {self.head}.{kept} Nothing was lost."
        )


@dataclass(eq=False)
class FormatError(RidgeTallyError):
    """A file that is not what its name says."""

    file: str
    place: str
    problem: str
    remedy: str
    code = "file.format"

    def __str__(self) -> str:
        where = f" at {self.place}" if self.place else ""
        return f"{self.file}{where}: {self.problem}. {self.remedy}"


@dataclass(eq=False)
class NotWorkedOut(RidgeTallyError):
    """A change whose result the program fails to work out; nothing of it was stored."""

    what: str
    reason: str
    code = "report.failed"

    def __str__(self) -> str:
        return (
            f"“{self.what}” was not saved: {self.reason} The job is as it was; "
            "go about it another way, and send the job file to whoever keeps this program."
        )


@dataclass(eq=False)
class StorageFailed(RidgeTallyError):
    """The data folder refused a write; the transaction was rolled back."""

    reason: str
    code = "storage.failed"

    def __str__(self) -> str:
        return (
            f"The change could not be saved: {self.reason}. Everything saved before it is intact; "
            "free some space or check the data folder, then do it again."
        )


@dataclass(eq=False)
class OutsideModelRange(RidgeTallyError):
    """Numbers a published formula cannot serve."""

    field: str
    problem: str
    remedy: str
    code = "model.outside-range"

    def __str__(self) -> str:
        return f"{self.field}: {self.problem}. {self.remedy}"
