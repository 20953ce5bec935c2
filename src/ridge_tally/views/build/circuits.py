"""Circuits as they are shown: the ways of the cables, each circuit's conductors, gear, labels, what is lost."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.build.circuits.sums import squares_over_rating
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.system import strung_w
from ridge_tally.core.job.wiring import Insulation, Lie
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.core.units import format_length
from ridge_tally.core.working import Check, Verdict
from ridge_tally.rules.build.circuits.checks import circuit_checks
from ridge_tally.rules.build.circuits.circuits import CircuitKind
from ridge_tally.rules.build.circuits.conductors import Sized, circuits_sized, lost_by
from ridge_tally.rules.build.circuits.conduits import Drawn, conduit_told, drawn_in
from ridge_tally.rules.build.circuits.gear import Asked, Label, gear_asked, labels_of, ratings_of
from ridge_tally.rules.build.circuits.legs import Leg, LegKind, legs_of
from ridge_tally.rules.build.circuits.takeoff import INSULATIONS, Taken, taken_off, untaken
from ridge_tally.rules.build.circuits.wire import (
    insulations,
    size_told,
    sizes,
    usual_insulation,
)
from ridge_tally.rules.design import Design
from ridge_tally.rules.standard_sizes import standard_breakers_a
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import simulated
from ridge_tally.studies.build.panel_ways import AtPanel, at_panel


@dataclass(frozen=True, slots=True)
class CableView:
    """A piece of a way: where it lies and is drawn, its length as told, and what was typed."""

    lie: Lie
    points: tuple[SitePoint, ...]
    to: SitePoint | None
    length_m: float | None
    length_text: str
    length_typed: str
    drop_typed: str
    above_typed: str


@dataclass(frozen=True, slots=True)
class LegView:
    """A leg of cable; ``conduit`` what its conductors lie in, ``circuits`` which they are."""

    id: str
    name: str
    kind: LegKind
    taken: bool
    length_m: float | None
    length_text: str
    start: SitePoint | None
    pieces: tuple[CableView, ...]
    conduit: str
    dc: bool
    circuits: tuple[str, ...]
    asked: str


@dataclass(frozen=True, slots=True)
class LargerView:
    """The next size up: what it is, and what it saves a year once the year is known."""

    size: str
    told: str
    saved_kwh: float | None


@dataclass(frozen=True, slots=True)
class CircuitView:
    """A circuit with what it is made of and how it stands."""

    id: str
    name: str
    kind: CircuitKind
    dc: bool
    count: int
    most_a: float
    volts: float
    size: str
    size_told: str
    proposed: str
    chosen: bool
    sizes: tuple[str, ...]
    breaker_a: float | None
    breaker_chosen: bool
    earth_told: str
    length_m: float | None
    length_text: str
    drop_percent: float | None
    lost_w: float | None
    place: str
    larger: LargerView | None
    verdict: Verdict
    asked: str


@dataclass(frozen=True, slots=True)
class InsulationView:
    """An insulation conductors may have, and what people call it."""

    value: Insulation
    told: str


@dataclass(frozen=True, slots=True)
class CircuitsView:
    """All of it; ``lost_told``: what the year reckons for wires, and by what.

    ``modules``: the corners of each on the site.
    """

    legs: tuple[LegView, ...]
    circuits: tuple[CircuitView, ...]
    gear: tuple[Asked, ...]
    labels: tuple[Label, ...]
    parts: tuple[Taken, ...]
    untaken: tuple[str, ...]
    insulations: tuple[InsulationView, ...]
    usual_insulation: Insulation
    breakers: tuple[float, ...]
    panel: AtPanel
    modules: tuple[tuple[SitePoint, ...], ...]
    all_taken: bool
    lost_told: str


def circuits_view(desk: Desk, design: Design) -> Iterator[CircuitsView]:
    """Yield the circuits, then with what larger conductors would save in the year."""
    sized = circuits_sized(design)
    view = _told(design, sized)
    yield view
    try:
        year, _ = simulated(desk, design)
    except RidgeTallyError:
        return
    power_w = np.maximum(year.dc_w, 0.0)
    if not power_w.any():
        return
    rated_w, p_ac_w = strung_w(design), design.p_ac_w
    hours_dc = squares_over_rating(power_w, rated_w) * year.hours
    hours_ac = squares_over_rating(np.minimum(power_w, p_ac_w), p_ac_w) * year.hours
    by_id = {c.circuit.id: c for c in sized}
    yield replace(
        view,
        circuits=tuple(
            _with_saved(c, by_id[c.id], hours_dc if c.dc else hours_ac) for c in view.circuits
        ),
    )


def _with_saved(view: CircuitView, sized: Sized, hours: float) -> CircuitView:
    used, larger = sized.used, sized.larger
    if (
        view.larger is None or used is None or larger is None
        or used.lost_frac is None or larger.lost_frac is None
    ):  # fmt: skip
        return view
    watts = sized.circuit.count * sized.circuit.made_w * (used.lost_frac - larger.lost_frac)
    return replace(view, larger=replace(view.larger, saved_kwh=watts * hours / 1000))


def circuits_told(design: Design) -> CircuitsView:
    """Return the circuits of an option without its year."""
    return _told(design, circuits_sized(design))


def _told(design: Design, sized: tuple[Sized, ...]) -> CircuitsView:
    checks = circuit_checks(design, sized)
    drawn = drawn_in(design, sized)
    in_conduit = {d.leg.id: d for d in drawn}
    legs = tuple(_leg(design, leg, in_conduit.get(leg.id), sized) for leg in legs_of(design))
    pack, ratings = design.job.site.code_pack, ratings_of(design, sized)
    return CircuitsView(
        legs=legs,
        circuits=tuple(_circuit(design, c, checks) for c in sized),
        gear=gear_asked(design, ratings) if sized else (),
        labels=labels_of(design, ratings) if sized else (),
        parts=taken_off(design, sized, drawn),
        untaken=untaken(sized),
        insulations=tuple(InsulationView(i, INSULATIONS[i]) for i in insulations(pack)),
        usual_insulation=usual_insulation(pack, dc=False),
        breakers=standard_breakers_a(pack),
        panel=at_panel(design),
        modules=_modules(design),
        all_taken=bool(legs) and all(leg.taken for leg in legs),
        lost_told=_lost_told(design, sized),
    )


def _modules(design: Design) -> tuple[tuple[SitePoint, ...], ...]:
    """Return the corners of every module on the site, metres east and north."""
    found = []
    for laid in design.arrays:
        tilt = laid.array.leg_tilt_deg
        for m in present_of(laid.array):
            wide, high = module_footprint_m(laid.module, m.orientation, tilt)
            corners = np.array([[0.0, 0.0], [wide, 0.0], [wide, high], [0.0, high]])
            site = to_site(laid.plane, corners + np.array([m.x_m, m.y_m]))
            found.append(
                tuple(SitePoint(round(float(e), 3), round(float(n), 3)) for e, n, _ in site)
            )
    return tuple(found)


def _lost_told(design: Design, sized: tuple[Sized, ...]) -> str:
    parts, lost = [], lost_by(sized)
    for side, frac in (("DC", lost.dc_frac), ("AC", lost.ac_frac)):
        if frac is not None:
            parts.append(f"{side} {frac * 100:.2f} % at the rating, by these conductors")
        elif side == "AC" or design.microinverter is None:
            parts.append(f"{side} by the usual allowance until every way is taken")
    return "The year reckons wires: " + "; ".join(parts)


def length_text(design: Design, length_m: float | None) -> str:
    """Return a length in the job's unit; a question mark while nobody knows it."""
    return "?" if length_m is None else format_length(length_m, design.job.unit)


def _leg(design: Design, leg: Leg, drawn: Drawn | None, sized: tuple[Sized, ...]) -> LegView:
    kind = design.option.wiring.conduit
    conduit = ""
    if drawn is not None:
        large = f"no {kind} conduit is large enough"
        conduit = conduit_told(design, drawn.size) if drawn.size else large
    mine = [c.circuit for c in sized if leg.id in {x.id for x in c.circuit.legs}]
    return LegView(
        leg.id, leg.name, leg.kind, leg.taken, leg.length_m, length_text(design, leg.length_m),
        leg.start,
        tuple(
            CableView(
                p.segment.lie, p.points, p.segment.to, p.length_m, length_text(design, p.length_m),
                "" if p.segment.length is None else p.segment.length.typed,
                "" if p.segment.drop is None else p.segment.drop.typed,
                "" if p.segment.above_roof is None else p.segment.above_roof.typed,
            )
            for p in leg.pieces
        ),
        conduit,
        any(c.dc for c in mine),
        tuple(c.name for c in mine),
        leg.asked,
    )  # fmt: skip


def _circuit(design: Design, one: Sized, checks: tuple[Check, ...]) -> CircuitView:
    circuit, used, pack = one.circuit, one.used, design.job.site.code_pack
    verdicts = {c.verdict for c in checks if c.subject == circuit.name}
    worst = next((v for v in (Verdict.BROKEN, Verdict.NOT_CHECKED) if v in verdicts), Verdict.KEPT)
    larger = one.larger
    return CircuitView(
        id=circuit.id,
        name=circuit.name,
        kind=circuit.kind,
        dc=circuit.dc,
        count=circuit.count,
        most_a=circuit.most_a,
        volts=circuit.volts,
        size="" if used is None else used.size,
        size_told="" if used is None else size_told(pack, used.size),
        proposed="" if one.least is None else one.least.size,
        chosen=bool(one.choice.size),
        sizes=sizes(one.wire),
        breaker_a=one.breaker_a,
        breaker_chosen=one.choice.breaker_a is not None,
        earth_told="" if not one.earth else size_told(pack, one.earth),
        length_m=one.length_m,
        length_text=length_text(design, one.length_m),
        drop_percent=None if used is None or used.drop_frac is None else used.drop_frac * 100,
        lost_w=None
        if used is None or used.lost_frac is None
        else circuit.count * circuit.made_w * used.lost_frac,
        place="" if used is None else used.carries.place,
        larger=None
        if larger is None
        else LargerView(larger.size, size_told(pack, larger.size), None),
        verdict=worst,
        asked=one.asked,
    )
