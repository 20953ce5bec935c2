"""Rules of the survey: outlines that close and fit together, the disconnect near the meter."""

import math
from functools import lru_cache

from scipy.stats import chi2

from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.survey.adjustment import GLOBAL_LEVEL
from ridge_tally.core.survey.closing import walked
from ridge_tally.core.survey.outline import adjusted_outline
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules.design import Design

# A walk that closes to 1 in 1000 is good for a tape on a roof, to 1 in 500 fair; common
# practice, no source.
GOOD_RATIO, FAIR_RATIO = 1000.0, 500.0
TAPE = Source("closing to 1 in 500 with a tape", "", SourceStatus.COMMON_PRACTICE)
LEAST_SQUARES = Source(
    "chi-square test of a least-squares adjustment", "95 %", SourceStatus.FROM_MEMORY
)
UTILITY = Source("the utility's interconnection rules, as typed", "", SourceStatus.TYPED)


def survey_checks(design: Design) -> tuple[Check, ...]:
    """Return the checks of each plane's readings and of the disconnect's place."""
    found: list[Check] = []
    for plane in design.job.survey.planes:
        found += _closes(plane) + _fits_together(plane)
    return (*found, *_disconnect(design))


def is_settled(plane: RoofPlane) -> bool:
    """Return whether a plane's readings fix its corners, fit together and leave none in doubt."""
    adjusted, walk = adjusted_outline(plane.outline), walked(plane.outline)
    if adjusted.missing or adjusted.global_test is False:
        return False
    return adjusted.suspect is None and (walk is None or walk.ratio >= FAIR_RATIO)


def _closes(plane: RoofPlane) -> list[Check]:
    walk = walked(plane.outline)
    if walk is None:
        return []
    east, up = walk.misclosure_m
    sides = sum(
        r.taped.value_m
        for r in plane.outline.readings
        if r.taped and r.kind.value == "side" and not r.left_out
    )
    return [
        check(
            rule_id="survey.closes",
            title="Outline closes",
            subject=plane.name,
            kind=LimitKind.NOTE,
            formula="(e_x ** 2 + e_y ** 2) ** 0.5",
            givens=(
                Given("e_x", "left open along the eave", east * 1000, "mm", "tape"),
                Given("e_y", "left open up the slope", up * 1000, "mm", "tape"),
            ),
            value=math.hypot(east, up) * 1000,
            symbol="e",
            unit="mm",
            relation="<=",
            limit=Given(
                "e_fair", "sides walked / 500", sides * 1000 / FAIR_RATIO, "mm", "common practice"
            ),
            source=TAPE,
        )
    ]


def _fits_together(plane: RoofPlane) -> list[Check]:
    adjusted = adjusted_outline(plane.outline)
    if adjusted.missing or adjusted.sigma0 is None or not any(adjusted.checked):
        return []
    spare = float(adjusted.redundancy)
    return [
        check(
            rule_id="survey.fits-together",
            title="Readings fit",
            subject=plane.name,
            kind=LimitKind.NOTE,
            formula="(vv / r) ** 0.5",
            givens=(
                Given("vv", "squared misfits, weighted", adjusted.sigma0**2 * spare, "", "tape"),
                Given("r", "readings to spare", spare, "", "tape"),
            ),
            value=adjusted.sigma0,
            symbol="sigma0",
            unit="",
            relation="<=",
            limit=Given(
                "sigma_max", "upper limit of the test", _most_sigma(spare), "", "chi-square"
            ),
            source=LEAST_SQUARES,
        )
    ]


@lru_cache(maxsize=64)
def _most_sigma(spare: float) -> float:
    """Return the largest sigma0 that readings with so many to spare still pass with."""
    tail = (1 - GLOBAL_LEVEL) / 2
    return math.sqrt(float(chi2.ppf(1 - tail, spare)) / spare)


def _disconnect(design: Design) -> list[Check]:
    service = design.job.survey.service
    within = service.disconnect_within
    if within is None:
        return []
    both = service.meter is not None and service.disconnect is not None
    east = north = None
    if service.meter is not None and service.disconnect is not None:
        east = service.disconnect.east_m - service.meter.east_m
        north = service.disconnect.north_m - service.meter.north_m
    return [
        check(
            rule_id="survey.disconnect-reach",
            title="Disconnect near the meter",
            subject="service",
            kind=LimitKind.OUTSIDE,
            formula="(d_east ** 2 + d_north ** 2) ** 0.5",
            givens=(
                Given("d_east", "disconnect east of the meter", east, "m", "site plan"),
                Given("d_north", "disconnect north of the meter", north, "m", "site plan"),
            ),
            value=None if east is None or north is None else math.hypot(east, north),
            symbol="d",
            unit="m",
            relation="<=",
            limit=Given("d_max", "utility allows", within.value_m, "m", "typed"),
            source=UTILITY,
            reason="" if both else "Not checked: place meter and disconnect on the site plan.",
        )
    ]
