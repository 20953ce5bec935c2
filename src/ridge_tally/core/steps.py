"""The ten steps of the work, in their order; every room of the program is parted by them."""

from enum import StrEnum


class WorkStep(StrEnum):
    """A step, by the name that rooms, routes and screens use."""

    BRIEF = "brief"
    SURVEY = "survey"
    ARRAY = "array"
    SUN = "sun"
    STRINGS = "strings"
    LOADING = "loading"
    BUILD = "build"
    MONEY = "money"
    SHEETS = "sheets"
    PROVING = "proving"
