"""Datasheets of mounting systems: rails, mounts and clamps, and what their maker allows.

A number that is ``None`` is not on the sheet.  Torques stay empty until somebody types them.
"""

from dataclasses import dataclass
from enum import StrEnum
from typing import NewType

from ridge_tally.core.sheet_origins import ValueOrigin

MountingId = NewType("MountingId", str)


class MountBase(StrEnum):
    """What a mount is fixed to."""

    RAFTER = "rafter"
    SEAM = "seam"
    RIB = "rib"
    PURLIN = "purlin"
    PILE = "pile"


class RailLay(StrEnum):
    """How rails run: two under each row, one shared by two rows, up the slope, or short pieces."""

    TWO = "two"
    SHARED = "shared"
    UP_SLOPE = "up-slope"
    SHORT = "short"


class RailMetal(StrEnum):
    """What rails are made of."""

    ALUMINIUM = "aluminium"
    STEEL = "steel"


@dataclass(frozen=True, slots=True)
class StockLength:
    """A length rails are sold in, and the price of one."""

    length_m: float
    price_cents: int | None


@dataclass(frozen=True, slots=True)
class SpanLimit:
    """The longest span up to a wind speed and a ground snow, in the field or at the edge of a roof."""

    wind_m_per_s: float
    snow_pa: float
    at_edge: bool
    span_m: float


@dataclass(frozen=True, slots=True)
class MountingSheet:
    """A mounting system.

    ``coverings``: the roofs it is made for, by their words; ``ground`` for piles.  ``frames``
    from ``frame_least_m`` to ``frame_most_m`` fit its clamps, which hold a module between
    ``clamp_from_frac`` and ``clamp_to_frac`` of its long side from either end.
    ``clamp_gap_m``: between modules.  ``overhang_m``: rail past the last module, negative where
    end clamps hide under it.  A bare end may be ``cantilever_m`` long, or ``cantilever_frac`` of
    the span: of the actual one beside it where ``cantilever_of_actual``, else of the allowed.
    A splice lies within ``splice_frac`` of a span from a mount, ``splice_clear_m`` off it.
    ``mount_limit_n``: what one mount may be pulled with, ``slide_limit_n`` pushed down the roof.
    ``short_sides``: whether its clamps may hold a module by its short sides.  ``box_of``: how many
    clamps or caps come in a box.  ``thread_m``: of each of its ``lags``, in
    the wood.  ``goes_with``: which bracket belongs to which adapter, rail and clamp.
    """

    id: MountingId
    name: str
    provenance: str
    base: MountBase
    coverings: tuple[str, ...]
    rails: RailLay
    stock: tuple[StockLength, ...]
    spans: tuple[SpanLimit, ...]
    clamp_gap_m: float
    overhang_m: float
    hidden_clamps: bool = False
    cantilever_m: float | None = None
    cantilever_frac: float | None = None
    cantilever_of_actual: bool = False
    splice_frac: float = 0.5
    splice_clear_m: float = 0.0
    splice_in_end_spans: bool = True
    mounts_per_piece: int = 1
    least_piece_m: float = 0.6
    longest_run_m: float | None = None
    run_gap_m: float | None = None
    clamp_from_frac: float = 0.125
    clamp_to_frac: float = 0.25
    short_sides: bool | None = None
    frame_least_m: float | None = None
    frame_most_m: float | None = None
    rail_metal: RailMetal = RailMetal.ALUMINIUM
    rail_kg_per_m: float | None = None
    mount_kg: float | None = None
    mount_limit_n: float | None = None
    slide_limit_n: float | None = None
    lags: int = 0
    lag_diameter_m: float | None = None
    thread_m: float | None = None
    mount_cents: int | None = None
    splice_cents: int | None = None
    mid_clamp_cents: int | None = None
    end_clamp_cents: int | None = None
    cap_cents: int | None = None
    box_of: int | None = None
    torque_mid_nm: float | None = None
    torque_end_nm: float | None = None
    torque_splice_nm: float | None = None
    torque_mount_nm: float | None = None
    goes_with: str = ""
    origins: tuple[ValueOrigin, ...] = ()
