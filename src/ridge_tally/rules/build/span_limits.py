"""How far a rail may span and how far its ends go: as typed, else by the maker's table."""

from ridge_tally.core.job.racking import DesignLoads, PlaneRacking
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.mounting_sheet import MountingSheet


def span_limit_m(
    sheet: MountingSheet, choice: PlaneRacking, loads: DesignLoads, *, at_edge: bool
) -> float | None:
    """Return the longest span: as typed, else the table's row that covers wind and snow.

    ``None`` where wind or snow is not known, or no row covers them.
    """
    if choice.span is not None:
        return choice.span.value_m
    wind, snow = loads.wind_m_per_s, loads.ground_snow_pa
    if wind is None or snow is None:
        return None
    rows = [
        s
        for s in sheet.spans
        if s.at_edge is at_edge and s.wind_m_per_s >= wind - 1e-6 and s.snow_pa >= snow - 1e-6
    ]
    # A maker's table says less the more it covers: the nearest row is the longest that holds.
    return max((s.span_m for s in rows), default=None)


def span_missing(
    plane: RoofPlane, sheet: MountingSheet, loads: DesignLoads, span: dict[bool, float | None]
) -> str:
    if None not in span.values():
        return ""
    unknown = [
        what
        for what, value in (("wind", loads.wind_m_per_s), ("ground snow", loads.ground_snow_pa))
        if value is None
    ]
    if unknown:
        what = " and ".join(unknown)
        return f"{plane.name}: {what} not known. Ask the building department, or type the span."
    return (
        f"{plane.name}: the table of {sheet.name} ends below this wind and snow: "
        "ask its maker or an engineer, and type the span."
    )


def bare_end_m(sheet: MountingSheet, choice: PlaneRacking, span_m: float) -> float:
    """Return how long an end may be bare beside a span that may be so long."""
    if choice.bare_end is not None:
        return choice.bare_end.value_m
    frac = sheet.cantilever_frac
    lengths = [sheet.cantilever_m, None if frac is None else frac * span_m]
    return min((v for v in lengths if v is not None), default=0.0)


def rail_overhang_m(sheet: MountingSheet, choice: PlaneRacking) -> float:
    """Return how far a rail goes past its last module: as typed, else as the sheet has it."""
    return sheet.overhang_m if choice.overhang is None else choice.overhang.value_m
