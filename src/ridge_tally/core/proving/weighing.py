"""Causes weighed by how well each explains every reading, light and heat being known only so well.

A cause says what each instrument should show; what is left over is weighed against what the
instruments may be off by, with the light and the cells' heat free within what is known of them.
"""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from math import exp, hypot, log, log10, pi, sqrt

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.faults import (
    COMMON,
    WITH_ANOTHER,
    Fault,
    Planted,
    candidates,
    places_of,
    with_faults,
)
from ridge_tally.core.proving.rig import Bench, Kind, Lit, Probe, Rig, Value

FloatArray = NDArray[np.float64]
# Light drifts while strings are read one after the other; common practice, no source.
DRIFT_FRAC = 0.02
# What is thought of light and cells nobody measured: a factor of e to this, and kelvin.
UNKNOWN_LIGHT, UNKNOWN_LIGHT_LOG, UNKNOWN_CELL_K = 650.0, 0.5, 15.0
# What a model of the sky says of all planes together, and of one beside another.
MODEL_LIGHT_FRAC, EACH_LIGHT_FRAC, MODEL_CELL_K, EACH_CELL_K = 0.10, 0.03, 5.0, 1.5
CELL_OVER_AIR_K, USUAL_AIR_DEGC = 25.0, 20.0
LEAST_V, LEAST_A, LEAST_MOHM = 0.6, 0.06, 0.005
WATTS_FRAC, INSULATION_DECADES, COUNTED, CLOCK_H = 0.03, 0.35, 0.2, 0.2
# What leads lose as a rule lies so far apart, in per cent of the voltage.
DROP_PERCENT = 0.6
# How often what eyes and displays say is as it should be.
RIGHTLY_SEEN = 0.97
# Of a cause nobody thought of: how far off each reading may be.
ELSE_FRAC, ELSE_SEEN, ELSE_PRIOR = 0.25, 0.25, 0.02
SURE, LIKELY = 0.95, 0.6
# A reading further off than so many of its deviations is not explained.
EXPLAINED = 3.0
STEPS = 3
# A cause that moves no reading by more than this of a deviation is not seen in them.
UNSEEN_OFF = 0.05
# Causes this far below the best by a rough weighing, as logarithms, are not weighed well; nor more
# than so many of one fault, of two, and of those a second is looked for.
WORTH_WEIGHING, MOST_SINGLE, MOST_PAIRS, MOST_FIRST = 20.0, 40, 24, 4


@dataclass(frozen=True, slots=True)
class Read:
    """A reading that was taken; ``value`` in the unit of its kind."""

    test: Probe
    value: Value


@dataclass(frozen=True, slots=True)
class Explained:
    """A reading under a cause: what was due, one deviation of it, and how many it is off by."""

    test: Probe
    read: Value
    due: Value
    sigma: float
    off: float


@dataclass(frozen=True, slots=True)
class Cause:
    """A cause, or two at once, with what it says of every reading.

    ``chance``: of all causes thought of.  ``log_evidence`` without its prior.
    """

    faults: tuple[Planted, ...]
    chance: float
    log_evidence: float
    lit: Lit
    explained: tuple[Explained, ...]

    @property
    def fits(self) -> bool:
        """Whether it explains every reading."""
        return all(abs(e.off) <= EXPLAINED for e in self.explained)


@dataclass(frozen=True, slots=True)
class Weighed:
    """Causes, the likeliest first, and what is left for one nobody thought of.

    ``unseen``: causes that change none of the readings that were taken; they are not weighed, and
    ``silent`` are one of each of them beside the likeliest, as likely as they are met.
    """

    causes: tuple[Cause, ...]
    other: float
    unseen: tuple[Fault, ...] = ()
    silent: tuple[Cause, ...] = ()

    @property
    def sure(self) -> bool:
        """Whether the first stands alone and leaves no reading unexplained."""
        return bool(self.causes) and self.causes[0].chance >= SURE and self.causes[0].fits


@dataclass(frozen=True)
class Given:
    """A system as drawn, what was read of it, and how far instruments may be off."""

    rig: Rig
    readings: tuple[Read, ...]
    priors: Mapping[Fault, float]
    errors: MeterErrors = field(default_factory=MeterErrors)
    lit: Lit | None = None

    def first(self, kind: Kind, at: int) -> float | None:
        """Return what was read first of a kind, of that place."""
        test = Probe(kind, at)
        return next(
            (r.value for r in self.readings if r.test == test and isinstance(r.value, float)), None
        )


@dataclass(frozen=True, slots=True)
class _Base:
    """Where light and heat fit best on a sound system: logarithms and °C, what was known, slopes."""

    at: FloatArray
    centre: FloatArray
    slopes: FloatArray


@dataclass(frozen=True, slots=True)
class _Rough:
    """What a cause shows of every reading, how far light and heat lie off what is known, and how well that is."""

    values: tuple[Value, ...]
    moved: FloatArray
    cov: FloatArray


class Weighing:
    """Weighs the causes of one set of readings; curves met before are kept meanwhile."""

    def __init__(self, given: Given) -> None:
        """Take what is given, and look at each single cause once, roughly."""
        self.given = given
        self.memo: dict[object, object] = {}
        self._looked: dict[tuple[Planted, ...], _Rough] = {}
        self._all_priors = sum(given.priors.values())
        self._measured = self._is_measured()
        self._numbers = [r for r in given.readings if not isinstance(r.value, str)]
        self._sound, self._base = self._weigh((Planted(Fault.HEALTHY),))
        thought_of = [
            one
            for one in candidates(given.rig)
            if one.fault is not Fault.HEALTHY and given.priors.get(one.fault, 0.0) > 0
        ]
        self._telling = [one for one in thought_of if self._tells(one)]
        told = {one.fault for one in self._telling}
        self._unseen = tuple(dict.fromkeys(p.fault for p in thought_of if p.fault not in told))
        telling = set(self._telling)
        self._silent = [one for one in thought_of if one not in telling]
        self._sizes = Counter(one.fault for one in self._telling) + Counter([Fault.HEALTHY])

    def weighed(self) -> Weighed:
        """Return all causes weighed against each other, sizes of one cause taken together."""
        singles = [(one,) for one in self._telling]
        if self._measured:
            found = [self._sound, *self._best(singles, MOST_SINGLE)]
        else:
            # Where light is free, a rough look may miss what another light would explain.
            found = [self._sound, *(self._weigh(one)[0] for one in singles)]
        best = max(found, key=self._with_prior)
        if best is not self._sound or not best.fits:
            found += self._two_at_once(found)
        scores = np.array([self._with_prior(c) for c in found])
        other = log(ELSE_PRIOR) + self._else()
        top = max(float(scores.max()), other)
        weights, rest = np.exp(scores - top), exp(other - top)
        whole = float(weights.sum()) + rest
        grouped: dict[tuple[tuple[Fault, int, int], ...], list[int]] = {}
        for n, cause in enumerate(found):
            grouped.setdefault(_name(cause.faults), []).append(n)
        causes = []
        for members in grouped.values():
            first = max(members, key=lambda n: float(scores[n]))
            chance = float(weights[members].sum()) / whole
            causes.append(replace(found[first], chance=chance))
        causes.sort(key=lambda c: -c.chance)
        return Weighed(tuple(causes), rest / whole, self._unseen, self._still_silent(causes))

    def _still_silent(self, causes: Sequence[Cause]) -> tuple[Cause, ...]:
        """Return, beside the likeliest cause, one of each fault that no reading speaks of."""
        priors, best = self.given.priors, causes[0]
        there = tuple(p for p in best.faults if p.fault is not Fault.HEALTHY)
        against = priors[Fault.HEALTHY] if not there else sum(priors.values())
        first: dict[Fault, Planted] = {}
        for one in self._silent:
            first.setdefault(one.fault, one)
        many = Counter(p.fault for p in self._silent)
        sizes = self._sizes + many
        return tuple(
            Cause(
                (*there, one), best.chance * priors[f] / against * many[f] / sizes[f], 0.0,
                best.lit, (),
            )
            for f, one in first.items()
        )  # fmt: skip

    def _best(self, faults: Sequence[tuple[Planted, ...]], most: int) -> list[Cause]:
        """Return the likeliest of some causes by a rough weighing, weighed well."""
        rough = {one: self._rough(one) + self._log_prior(one) for one in faults}
        least = max(rough.values(), default=0.0) - WORTH_WEIGHING
        kept = sorted((f for f in rough if rough[f] > least), key=lambda f: -rough[f])[:most]
        return [self._weigh(one)[0] for one in kept]

    def _two_at_once(self, singles: Sequence[Cause]) -> list[Cause]:
        """Return what the best of the singles explain together with another cause."""
        order = sorted(singles, key=lambda c: -c.log_evidence)
        pairs: dict[tuple[Planted, ...], None] = {}
        # Where one explains all, a second is looked for beside it alone.
        many = 1 if max(singles, key=self._with_prior).fits else MOST_FIRST
        for first in _best_of_each(order)[:many]:
            one = first.faults[0]
            for other in self._telling:
                if one.fault is not Fault.HEALTHY and _go_together(one, other):
                    two = sorted((one, other), key=lambda p: p.fault in COMMON)
                    pairs[tuple(two)] = None
        return self._best(list(pairs), MOST_PAIRS)

    def _with_prior(self, cause: Cause) -> float:
        return cause.log_evidence + self._log_prior(cause.faults)

    def _log_prior(self, faults: Sequence[Planted]) -> float:
        priors, sizes = self.given.priors, self._sizes
        return sum(log(priors[p.fault] / self._all_priors / sizes[p.fault]) for p in faults)

    def _else(self) -> float:
        """Return the log evidence of a cause nobody thought of."""
        found = 0.0
        for e in self._sound.explained:
            if isinstance(e.due, str):
                found += log(ELSE_SEEN)
            else:
                wide = hypot(e.sigma, ELSE_FRAC * max(abs(e.due), e.sigma))
                off = e.off * e.sigma
                # Far out a share of it is spread evenly: nothing is too odd for an odd cause.
                found += log(max(_normal(off, wide), 0.02 / max(abs(e.due), 10 * e.sigma)))
        return found

    def _start(self, centre: FloatArray) -> FloatArray:
        """Return where light and heat are looked at roughly, known as they are."""
        return centre if self._measured else self._base.at + centre - self._base.centre

    def _roughly(self, faults: tuple[Planted, ...]) -> "_Rough":
        """Return what a cause shows at a rough look, kept for the next."""
        found = self._looked.get(faults)
        if found is None:
            rig = with_faults(self.given.rig, faults)
            centre, cov = self._known(rig)
            at = self._start(centre)
            bench = Bench(rig, self._lit(at), self.memo)
            values = tuple(bench.read(r.test) for r in self.given.readings)
            found = self._looked[faults] = _Rough(values, at - centre, cov)
        return found

    def _tells(self, one: Planted) -> bool:
        """Return whether any reading that was taken would be otherwise under a cause."""
        sound = self._roughly((Planted(Fault.HEALTHY),)).values
        for e, due, was in zip(
            self._sound.explained, self._roughly((one,)).values, sound, strict=True
        ):
            kind = e.test.kind
            if isinstance(due, str) or isinstance(was, str):
                if due != was:
                    return True
            elif abs(scaled(kind, due) - scaled(kind, was)) > UNSEEN_OFF * e.sigma:
                return True
        return False

    def _rough(self, faults: tuple[Planted, ...]) -> float:
        """Return the log evidence of a cause as if readings moved with light as on a sound system."""
        rough, base = self._roughly(faults), self._base
        found = self._seen(rough.values)
        if self._numbers:
            due = np.array([v for v in rough.values if not isinstance(v, str)])
            sigma, off = self._sigmas(due), self._offs(due) + base.slopes @ rough.moved
            around = np.diag(sigma**2) + base.slopes @ rough.cov @ base.slopes.T
            _, size = np.linalg.slogdet(around)
            found -= 0.5 * float(off @ np.linalg.solve(around, off) + size + len(off) * log(2 * pi))
        return found

    def _weigh(self, faults: tuple[Planted, ...]) -> tuple[Cause, _Base]:
        """Return a cause weighed, and where light and heat fit it best."""
        rig = with_faults(self.given.rig, faults)
        centre, cov = self._known(rig)
        tight, most = np.linalg.inv(cov), 2 * np.sqrt(np.diag(cov))
        at, slopes = centre.copy(), np.zeros((len(self._numbers), len(centre)))
        for _ in range((1 if self._measured else STEPS) if self._numbers else 0):
            due = self._due(rig, at)
            slopes = self._slopes(rig, at, due)
            # Gauss and Newton's step to the light and heat that fit best.
            weigh = slopes / self._sigmas(due)[:, None] ** 2
            normal = weigh.T @ slopes + tight
            pull = weigh.T @ self._offs(due) - tight @ (at - centre)
            at = at + np.clip(np.linalg.solve(normal, pull), -most, most)
        there = Bench(rig, self._lit(at), self.memo)
        values = [there.read(r.test) for r in self.given.readings]
        evidence = self._seen(values)
        if self._numbers:
            due = np.array([v for v in values if not isinstance(v, str)])
            sigma, off = self._sigmas(due), self._offs(due)
            around = np.diag(sigma**2) + slopes @ cov @ slopes.T
            _, size = np.linalg.slogdet(around)
            evidence -= 0.5 * float(
                np.sum((off / sigma) ** 2)
                + (at - centre) @ tight @ (at - centre)
                + size
                + len(off) * log(2 * pi)
            )
        cause = Cause(faults, 0.0, evidence, self._lit(at), self._explained(values))
        return cause, _Base(at, centre, slopes)

    def _is_measured(self) -> bool:
        """Whether light and heat are known well enough to begin from."""
        planes = range(len(self.given.rig.planes))
        return self.given.lit is not None or all(
            self.given.first(kind, p) is not None
            for kind in (Kind.LIGHT, Kind.CELL)
            for p in planes
        )

    def _known(self, rig: Rig) -> tuple[FloatArray, FloatArray]:
        """Return (2p,) what is known of light, as logarithms, and cells, and (2p, 2p) how well."""
        key = ("known", rig.instruments)
        if key not in self.memo:
            self.memo[key] = self._worked_known(rig)
        return self.memo[key]  # type: ignore[return-value]

    def _worked_known(self, rig: Rig) -> tuple[FloatArray, FloatArray]:
        given, errors, meters = self.given, self.given.errors, rig.instruments
        planes = range(len(rig.planes))
        read = [given.first(Kind.LIGHT, p) for p in planes]
        felt = [given.first(Kind.CELL, p) for p in planes]
        if given.lit is not None:
            # One sky is over all planes: the model errs on all of them together.
            light = [log(max(v, 1.0)) for v in given.lit.light_w_per_m2]
            common = errors.light_frac if any(v is not None for v in read) else MODEL_LIGHT_FRAC
            warm = errors.cell_k if any(v is not None for v in felt) else MODEL_CELL_K
            lights = _together(len(light), common, EACH_LIGHT_FRAC)
            cells = _together(len(light), warm, EACH_CELL_K)
            shift = log(meters.light_frac) if any(v is not None for v in read) else 0.0
            off_k = meters.cell_k if any(v is not None for v in felt) else 0.0
            centre = [v - shift for v in light] + [v - off_k for v in given.lit.cell_degc]
            return np.array(centre), _block(lights, cells)
        light = [log(UNKNOWN_LIGHT if v is None else max(v / meters.light_frac, 1.0)) for v in read]
        warm_at = [
            USUAL_AIR_DEGC + CELL_OVER_AIR_K if v is None else v - meters.cell_k for v in felt
        ]
        spread = [UNKNOWN_LIGHT_LOG if v is None else errors.light_frac for v in read]
        spread += [UNKNOWN_CELL_K if v is None else errors.cell_k for v in felt]
        return np.array(light + warm_at), np.diag(np.array(spread) ** 2)

    def _lit(self, at: FloatArray) -> Lit:
        half = len(at) // 2
        # Rounded, so that strings alike under two causes are worked out once.
        known = at.tolist()
        light = tuple(round(min(max(exp(v), 5.0), 1600.0), 3) for v in known[:half])
        return Lit(light, tuple(round(min(max(v, -40.0), 115.0), 4) for v in known[half:]))

    def _due(self, rig: Rig, at: FloatArray) -> FloatArray:
        bench = Bench(rig, self._lit(at), self.memo)
        return np.array([float(bench.read(r.test)) for r in self._numbers])

    def _sigmas(self, due: FloatArray) -> FloatArray:
        rows = zip(self._numbers, due.tolist(), strict=True)
        return np.array([sigma_of(r.test.kind, d, self.given.errors) for r, d in rows])

    def _offs(self, due: FloatArray) -> FloatArray:
        rows = zip(self._numbers, due.tolist(), strict=True)
        return np.array([_off(r, d) for r, d in rows])

    def _slopes(self, rig: Rig, at: FloatArray, due: FloatArray) -> FloatArray:
        """Return (r, 2p): how the readings move with light and heat."""
        reads = self._numbers
        half, found = len(at) // 2, np.empty((len(reads), len(at)))
        for k in range(len(at)):
            step = 0.01 if k < half else 0.5
            moved = at.copy()
            moved[k] += step
            there = self._due(rig, moved)
            found[:, k] = [
                (scaled(r.test.kind, t) - scaled(r.test.kind, d)) / step
                for r, t, d in zip(reads, there, due, strict=True)
            ]
            # Light and cells that were measured are what is known; they are not weighed twice.
            found[[r.test.kind in (Kind.LIGHT, Kind.CELL) for r in reads], k] = 0.0
        return found

    def _seen(self, values: Sequence[Value]) -> float:
        """Return the log evidence of what eyes and displays said."""
        found = 0.0
        for r, due in zip(self.given.readings, values, strict=True):
            if isinstance(r.value, str):
                found += log(RIGHTLY_SEEN if due == r.value else 1 - RIGHTLY_SEEN)
        return found

    def _explained(self, values: Sequence[Value]) -> tuple[Explained, ...]:
        found = []
        for r, due in zip(self.given.readings, values, strict=True):
            if isinstance(r.value, str) or isinstance(due, str):
                off = 0.0 if due == r.value else EXPLAINED + 1
                found.append(Explained(r.test, r.value, due, 0.0, off))
                continue
            sigma = sigma_of(r.test.kind, due, self.given.errors)
            off = 0.0 if r.test.kind in (Kind.LIGHT, Kind.CELL) else _off(r, due) / sigma
            found.append(Explained(r.test, r.value, due, sigma, off))
        return tuple(found)


_VOLTS = frozenset(
    {
        Kind.VOC, Kind.V_FUSED, Kind.V_AT_WORK, Kind.EARTH_PLUS, Kind.EARTH_MINUS, Kind.AC_V,
    }
)  # fmt: skip
_AMPS = frozenset({Kind.ISC, Kind.I_AT_WORK})
_WATTS = frozenset({Kind.AC_W, Kind.POWER, Kind.ARRAY_W})
_LIGHTS, _CELLS = frozenset({Kind.LIGHT, Kind.LIGHT_AGAIN}), frozenset({Kind.CELL, Kind.CELL_AGAIN})
_DECADES = frozenset({Kind.INSULATION, Kind.INSULATION_OF_ALL})

_FIXED = {
    Kind.COUNT: COUNTED,
    Kind.CLOCK: CLOCK_H,
    **dict.fromkeys(_DECADES, INSULATION_DECADES),
}


def sigma_of(kind: Kind, due: float, errors: MeterErrors) -> float:
    """Return one deviation of a reading, in its unit; of insulation, in decades."""
    size = abs(due)
    if kind in _VOLTS:
        return hypot(LEAST_V, errors.volts_frac * size)
    if kind in _AMPS:
        return hypot(LEAST_A, hypot(errors.amps_frac, DRIFT_FRAC) * size)
    if kind in _WATTS:
        return hypot(10.0, WATTS_FRAC * size)
    if kind in _LIGHTS:
        return errors.light_frac * max(size, 20.0)
    if kind is Kind.DROP:
        return hypot(DROP_PERCENT, 0.15 * size)
    return errors.cell_k if kind in _CELLS else _FIXED[kind]


def scaled(kind: Kind, value: float) -> float:
    """Return a reading on the scale its deviations are of: insulation in decades."""
    return log10(max(value, LEAST_MOHM)) if kind in _DECADES else value


def _together(planes: int, common: float, each: float) -> FloatArray:
    """Return (p, p) how well planes are known that err together, and each a little by itself."""
    return np.full((planes, planes), common**2) + np.eye(planes) * each**2


def _block(one: FloatArray, other: FloatArray) -> FloatArray:
    none = np.zeros((len(one), len(other)))
    return np.block([[one, none], [none.T, other]])


def _off(read: Read, due: float) -> float:
    kind = read.test.kind
    if kind in (Kind.LIGHT, Kind.CELL):
        return 0.0
    return scaled(kind, float(read.value)) - scaled(kind, due)


def _normal(off: float, sigma: float) -> float:
    return exp(-0.5 * min((off / sigma) ** 2, 700.0)) / (sigma * sqrt(2 * pi))


def _name(faults: Sequence[Planted]) -> tuple[tuple[Fault, int, int], ...]:
    # Where along a string earth is touched is a size, not another cause.
    return tuple((p.fault, p.at, 0 if p.fault is Fault.EARTH else p.other) for p in faults)


def _best_of_each(ordered: Sequence[Cause]) -> list[Cause]:
    found: dict[object, Cause] = {}
    for cause in ordered:
        found.setdefault(_name(cause.faults), cause)
    return list(found.values())


def _go_together(one: Planted, other: Planted) -> bool:
    """Return whether two faults are thought of at once: in unlike places, or one of them common."""
    if other.fault is Fault.HEALTHY or one == other:
        return False
    if (one.fault in COMMON) != (other.fault in COMMON):
        common = one if one.fault in COMMON else other
        return common.fault in WITH_ANOTHER
    if one.fault in COMMON:
        return one.fault is not other.fault and {one.fault, other.fault} <= set(WITH_ANOTHER)
    return not set(places_of(one)) & set(places_of(other)) and bool(
        places_of(one) and places_of(other)
    )
