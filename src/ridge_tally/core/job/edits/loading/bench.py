"""The edits of the measured-curve bench, as data; figures travel as typed."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.bench import PowerFileRef


@dataclass(frozen=True, slots=True)
class UsePowerFile:
    """A measured day laid on the bench; watts of the module it was measured on, as typed."""

    file: PowerFileRef
    module_w: str
    kind: Literal["use-power-file"] = "use-power-file"


@dataclass(frozen=True, slots=True)
class TypedTerm:
    """Watts of modules as typed, and whether they face the other way."""

    watts: str
    mirrored: bool


@dataclass(frozen=True, slots=True)
class SetBench:
    """What is made of the measured day; an empty limit cuts nothing off."""

    module_w: str
    terms: tuple[TypedTerm, ...]
    limit_kw: str
    daylight: bool
    kind: Literal["set-bench"] = "set-bench"


@dataclass(frozen=True, slots=True)
class ClearBench:
    """The measured day is put away."""

    kind: Literal["clear-bench"] = "clear-bench"


BenchEdit = UsePowerFile | SetBench | ClearBench
