"""What a mount is pulled and pushed with, against typed and makers' limits: a screen, no proof."""

import math
from collections.abc import Iterator

from ridge_tally.core.build.racking.loads import withdrawal_n_per_m
from ridge_tally.core.job.document import Job
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules.build.mount_loads import EXPOSED, PlaneLoads, plane_loads
from ridge_tally.rules.build.racked import RackedPlane

SNOW = Source("ASCE 7-16", "7.3, 7.4, 2.4.1", SourceStatus.FROM_MEMORY)
UPLIFT = Source("ASCE 7-16", "29.4.4, 2.4.1", SourceStatus.FROM_MEMORY)
WITHDRAWAL = Source("NDS 2018", "12.2.1", SourceStatus.FROM_MEMORY)
# Wind lasts minutes (NDS, table 2.3.2; from memory).
DURATION = 1.6


def force_checks(job: Job, plane: RackedPlane) -> Iterator[Check]:
    """Yield what the mount pulled most and the one pushed down most are held to, and lag threads."""
    sheet, found = plane.sheet, plane_loads(job, plane)
    assert sheet is not None
    worst, slope = found.worst, math.radians(plane.laid.plane.slope_deg)
    missing = f"Not checked: {' and '.join(found.asked)} not given." if found.asked else ""
    parts = (
        ("q", "velocity pressure", "Pa", None if worst is None else worst.pressure_pa),
        ("gcp", "net coefficient, as typed", "", None if worst is None else -(worst.gcp or 0.0)),
        ("gamma_e", "exposed at its edge", "", EXPOSED),
        ("gamma_a", "by its area", "", None if worst is None else worst.area_factor),
        ("a", "area the mount carries", "m²", None if worst is None else worst.area_m2),
        ("d", "weight on it", "N", None if worst is None else worst.dead_n),
        ("cos_slope", "cosine of the slope", "", math.cos(slope)),
    )
    givens = tuple(
        Given(symbol, label, value, unit, "Build") for symbol, label, unit, value in parts
    )
    uplift = None if worst is None else worst.uplift_n
    yield check(
        rule_id="build.uplift",
        title="Uplift of a mount",
        subject=plane.laid.plane.name,
        kind=LimitKind.STOP,
        formula="0.6 * q * gcp * gamma_e * gamma_a * a - 0.6 * d * cos_slope",
        givens=givens,
        value=uplift,
        symbol="t",
        unit="N",
        relation="<=",
        limit=pull_limit(job, sheet),
        source=UPLIFT,
        reason=missing,
    )
    yield _slide(plane, found, slope)
    if not sheet.lags or sheet.lag_diameter_m is None or sheet.thread_m is None:
        return
    gravity = job.design_loads.wood_gravity
    per_m = None if gravity is None else withdrawal_n_per_m(gravity, sheet.lag_diameter_m)
    holds = None if per_m is None else DURATION * per_m * sheet.thread_m * sheet.lags
    yield check(
        rule_id="build.withdrawal",
        title="Pull on lag threads",
        subject=plane.laid.plane.name,
        kind=LimitKind.STOP,
        formula="t / (c_d * w * thread * n)",
        givens=(
            Given("t", "uplift of the mount pulled most", uplift, "N", "its own check"),
            Given("c_d", "for wind", DURATION, "", "NDS, from memory"),
            Given("w", "withdrawal of the wood", per_m, "N/m", "1800 G^1.5 D^0.75, from memory"),
            Given("thread", "thread in the wood", sheet.thread_m, "m", sheet.name),
            Given("n", "lags in a mount", float(sheet.lags), "", sheet.name),
        ),
        value=None if uplift is None or not holds else uplift / holds,
        symbol="use",
        unit="",
        relation="<=",
        limit=Given(
            "use_most", "all of what the wood is reckoned with", 1.0, "", "NDS, from memory"
        ),
        source=WITHDRAWAL,
        reason=missing,
    )


def pull_limit(job: Job, sheet: MountingSheet) -> Given:
    """Return what a mount may be pulled with: the lower of its maker's and the city's."""
    cap, makers = job.design_loads.mount_cap_n, sheet.mount_limit_n
    if cap is not None and (makers is None or cap < makers):
        said = job.design_loads.mount_cap_source or "typed for this job"
        return Given("t_most", "the city lets a mount be pulled with", cap, "N", said)
    return Given("t_most", "a mount may be pulled with", makers, "N", sheet.name)


def _slide(plane: RackedPlane, found: PlaneLoads, slope_rad: float) -> Check:
    """The mount that weight and snow push down the roof most; side by side with lags it is an engineer's."""
    sheet = plane.sheet
    assert sheet is not None
    known = [m for m in found.mounts if m.slide_n is not None]
    worst = max(known, key=lambda m: m.slide_n or 0.0, default=None)
    missing = ""
    if sheet.slide_limit_n is None:
        missing = (
            f"Not checked: {sheet.name} has no limit down the roof. Ask its maker or an engineer."
        )
    elif worst is None:
        missing = "Not checked: ground snow not given."
    return check(
        rule_id="build.slide",
        title="Push on a mount down the roof",
        subject=plane.laid.plane.name,
        kind=LimitKind.STOP,
        formula="(d + s) * sin_slope",
        givens=(
            Given("d", "weight on it", None if worst is None else worst.dead_n, "N", "Build"),
            Given("s", "snow on it", None if worst is None else worst.snow_n, "N", "Build"),
            Given("sin_slope", "sine of the slope", math.sin(slope_rad), "", "Survey"),
        ),
        value=None if worst is None else worst.slide_n,
        symbol="h",
        unit="N",
        relation="<=",
        limit=Given(
            "h_most", "a mount may be pushed down with", sheet.slide_limit_n, "N", sheet.name
        ),
        source=SNOW,
        reason=missing,
    )
