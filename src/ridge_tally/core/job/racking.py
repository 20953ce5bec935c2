"""What a person decides of the racking: systems by plane, limits typed, mounts held where they are."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.places import Taped
from ridge_tally.core.mounting_sheet import MountingId


class MountAim(StrEnum):
    """What comes first: as few mounts as there can be, or neighbours on supports of their own."""

    FEWEST = "fewest"
    SPREAD = "best-spread"


class TrenchLay(StrEnum):
    """What lies in a trench: plastic conduit, steel conduit, or cable made to lie in earth."""

    CONDUIT = "conduit"
    STEEL = "steel-conduit"
    CABLE = "cable"


@dataclass(frozen=True, slots=True)
class MountPin:
    """A mount that stays where it is: on which rail, from the eave up, and where along it."""

    rail: int
    at_m: float


@dataclass(frozen=True, slots=True)
class PlaneRacking:
    """The racking of one plane.

    ``span`` and ``bare_end`` stand in the place of the maker's table where they are typed.
    ``rail_offset``: from a module's lower edge to the rail under it, the upper one alike from
    above; the middle of the clamp zone where it is not typed.  ``overhang``: rail past the last
    module, where it shall be another than the maker's.  ``blocking_m``: where wood is put between
    rafters, along the rails, so that a mount may stand there.  ``run_on``: ends that no support is
    near enough to run on to the next one, to be trimmed or left.  ``embedment``: how deep piles
    stand in the ground, an engineer's.  ``rails_a_row``: two, or a third one in their middle.
    ``trench_lay``: what lies in the trench of a ground array.
    """

    plane_id: PlaneId
    mounting_id: MountingId | None = None
    span: Taped | None = None
    bare_end: Taped | None = None
    rail_offset: Taped | None = None
    overhang: Taped | None = None
    blocking_m: tuple[float, ...] = ()
    run_on: bool = False
    embedment: Taped | None = None
    pins: tuple[MountPin, ...] = ()
    rails_a_row: Literal[2, 3] = 2
    trench_lay: TrenchLay = TrenchLay.CONDUIT


class CrewTask(StrEnum):
    """Work a crew's hours are told for; rails by the metre."""

    MOUNTS = "mounts"
    PILES = "piles"
    RAILS = "rails"
    MODULES = "modules"


@dataclass(frozen=True, slots=True)
class CrewRate:
    """How much of a task the firm's crew does in an hour, in the place of the usual."""

    task: CrewTask
    per_hour: float


@dataclass(frozen=True, slots=True)
class Racking:
    """The racking of an option; ``offcuts``: pieces of rail at hand, ``rates``: the crew's own."""

    planes: tuple[PlaneRacking, ...] = ()
    aim: MountAim = MountAim.FEWEST
    offcuts: tuple[Taped, ...] = ()
    rates: tuple[CrewRate, ...] = ()


def racking_on(racking: Racking, plane_id: PlaneId) -> PlaneRacking:
    """Return what was decided of a plane, nothing where nobody has."""
    found = (p for p in racking.planes if p.plane_id == plane_id)
    return next(found, PlaneRacking(plane_id))


class Exposure(StrEnum):
    """How open the land is to wind: town or wood, open country, flat and open by water."""

    B = "B"
    C = "C"
    D = "D"


@dataclass(frozen=True, slots=True)
class DesignLoads:
    """Wind, snow and height the site is designed for, each with who said so.

    ``gcp_field`` and ``gcp_edge``: net pressure coefficients of the roof for uplift, negative, from
    a person's own table.  ``mount_cap_n``: what the city lets any one mount be pulled with.  ``wood_gravity``: specific gravity of the rafters' wood.
    """

    wind_m_per_s: float | None = None
    wind_source: str = ""
    ground_snow_pa: float | None = None
    snow_source: str = ""
    exposure: Exposure | None = None
    exposure_source: str = ""
    roof_height: Taped | None = None
    height_source: str = ""
    gcp_field: float | None = None
    gcp_edge: float | None = None
    gcp_source: str = ""
    wood_gravity: float | None = None
    wood_source: str = ""
    mount_cap_n: float | None = None
    mount_cap_source: str = ""
