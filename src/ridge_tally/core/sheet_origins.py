"""Where a value of a datasheet comes from."""

from dataclasses import dataclass
from enum import StrEnum


class Origin(StrEnum):
    """Where a value of a datasheet comes from."""

    DATASHEET = "datasheet"
    COMPUTED = "computed"
    ESTIMATED = "estimated"
    SAMPLE = "sample"


@dataclass(frozen=True, slots=True)
class ValueOrigin:
    """That a value, named as its field is, does not come from where the rest of its sheet does."""

    field: str
    origin: Origin
