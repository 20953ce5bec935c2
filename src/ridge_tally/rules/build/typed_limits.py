"""What a typed length or load of the racking can be: a slip of the hand is refused, nothing judged."""

from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.edits.build.racking import DesignLoadField, RackingField
from ridge_tally.core.job.racking import DesignLoads, PlaneRacking

LONGEST_RAIL_M = 12.0
# Name, least and most of each length, metres; end clamps may hide under the module: the rail ends
# before it then.
LENGTHS: dict[RackingField, tuple[str, float, float]] = {
    RackingField.SPAN: ("Longest span", 0.05, LONGEST_RAIL_M),
    RackingField.BARE_END: ("Longest bare end", 0.0, LONGEST_RAIL_M),
    RackingField.RAIL_OFFSET: ("Rail from the module’s edge", 0.0, LONGEST_RAIL_M),
    RackingField.OVERHANG: ("Rail past the last module", -0.1, LONGEST_RAIL_M),
    RackingField.EMBEDMENT: ("Piles in the ground", 0.0, LONGEST_RAIL_M),
}
# Name with its unit, least and most of each load.
LOADS: dict[DesignLoadField, tuple[str, float, float]] = {
    DesignLoadField.WIND: ("Wind in m/s", 10.0, 120.0),
    DesignLoadField.SNOW: ("Ground snow in Pa", 0.0, 30_000.0),
    DesignLoadField.ROOF_HEIGHT: ("Roof height in metres", 1.0, 60.0),
    DesignLoadField.GCP_FIELD: ("GCp for uplift", -6.0, -0.1),
    DesignLoadField.GCP_EDGE: ("GCp for uplift", -6.0, -0.1),
    DesignLoadField.WOOD: ("Specific gravity of the wood", 0.3, 0.8),
    DesignLoadField.MOUNT_CAP: ("City’s limit for a mount in N", 50.0, 50_000.0),
}


def require_length(field: RackingField, length_m: float) -> None:
    """Raise OutOfRange where a typed length cannot be."""
    name, least, most = LENGTHS[field]
    if not least <= length_m <= most:
        raise OutOfRange(f"{name} in metres", length_m, f"{least:g} to {most:g}")


def require_load(field: DesignLoadField, value: float) -> None:
    """Raise OutOfRange where a typed load cannot be."""
    name, least, most = LOADS[field]
    if not least <= value <= most:
        raise OutOfRange(name, value, f"from {least:g} to {most:g}")


def require_sound_racking(racked: PlaneRacking) -> None:
    """Raise OutOfRange where a length of a document's racking cannot be."""
    for field in LENGTHS:
        taped = getattr(racked, field.value)
        if taped is not None:
            require_length(field, taped.value_m)


def require_sound_loads(loads: DesignLoads) -> None:
    """Raise OutOfRange where a load of a document cannot be."""
    height = loads.roof_height
    given = {
        DesignLoadField.WIND: loads.wind_m_per_s,
        DesignLoadField.SNOW: loads.ground_snow_pa,
        DesignLoadField.ROOF_HEIGHT: None if height is None else height.value_m,
        DesignLoadField.GCP_FIELD: loads.gcp_field,
        DesignLoadField.GCP_EDGE: loads.gcp_edge,
        DesignLoadField.WOOD: loads.wood_gravity,
        DesignLoadField.MOUNT_CAP: loads.mount_cap_n,
    }
    for field, value in given.items():
        if value is not None:
            require_load(field, value)
