"""What no figure here judges: an engineer's, or another trade's, each for its reason."""

from ridge_tally.core.mounting_sheet import MountBase
from ridge_tally.rules.build.racked import RackedPlane

# Sources: the ranges of the formulas used (ASCE 7-16, 29.4.4 and chapter 7; NDS 2018, 12.3 and 12.4),
# from memory; the rest common practice, no source.
ANY_ROOF = (
    "Whether the roof’s own framing carries the added weight, snow and pull",
    "Drifted, sliding and unbalanced snow: below a higher roof, in a valley, behind a chimney",
    "Wind over a hill or an escarpment (Kzt is taken as 1), special wind regions, earthquakes",
)
BY_BASE: dict[MountBase, tuple[str, ...]] = {
    MountBase.RAFTER: (
        "Lags pulled and pushed at once (NDS 12.4), toe and edge distances off centre",
    ),
    MountBase.SEAM: ("How hard the panel’s own clips may be pulled: its roofer or an engineer",),
    MountBase.RIB: ("Screws in thin sheet, pulled and pushed at once",),
    MountBase.PURLIN: ("Purlins and their joints under point loads",),
    MountBase.PILE: (
        "Pile section, depth, frost, pull-out and push sideways in this soil",
        "Wind and snow on a tilted table, and its bracing: end bays and every third bay at least",
    ),
}
STEEP_LEGS = "Wind on tilted modules: the formula is for arrays parallel to the roof"
TILE = "Bending of tile hooks"


def left_to_an_engineer(plane: RackedPlane) -> tuple[str, ...]:
    """Return what of a plane's racking nothing here judges; nothing before a system is chosen."""
    sheet = plane.sheet
    if sheet is None:
        return ()
    found = [] if sheet.base is MountBase.PILE else list(ANY_ROOF)
    found += BY_BASE[sheet.base]
    if plane.laid.array.leg_tilt_deg:
        found.append(STEEP_LEGS)
    if "tile" in sheet.coverings:
        found.append(TILE)
    return tuple(found)
