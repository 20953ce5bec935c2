"""How a step of the work stands."""

from enum import StrEnum


class StepState(StrEnum):
    """The run shows it by shape."""

    SETTLED = "settled"
    LOOK = "look"
    STOP = "stop"
    NOT_BEGUN = "not-begun"
