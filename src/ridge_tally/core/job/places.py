"""A length as typed, a point of a plane, a point of the site."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Taped:
    """A length in metres with the text it was typed as."""

    value_m: float
    typed: str


@dataclass(frozen=True, slots=True)
class PlanePoint:
    """A point of a plane: x along the eave, y up the slope, metres."""

    x_m: float
    y_m: float


@dataclass(frozen=True, slots=True)
class SitePoint:
    """A point of the site plan, metres east and north of its origin."""

    east_m: float
    north_m: float
