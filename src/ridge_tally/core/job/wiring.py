"""Boxes on a plane where strings' ends come together on their way to the inverter."""

from dataclasses import dataclass

from ridge_tally.core.job.ids import BoxId, PlaneId


@dataclass(frozen=True, slots=True)
class JunctionBox:
    """A box or roof entry, its place on its plane from the left end of the eave and up the slope."""

    id: BoxId
    plane_id: PlaneId
    x_m: float
    y_m: float
