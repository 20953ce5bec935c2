"""A built system as meters find it: strings as they hang, inputs, inverter, and the instruments."""

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import diode_of
from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.kernels.hung import (
    amps_at,
    best_of,
    curve,
    hung_v,
    shorted_a,
    substrings_lit,
)

FloatArray = NDArray[np.float64]
# A grid inverter leaves the grid beyond these shares of its voltage; -15 and +10 %, common practice.
GRID_LOW_FRAC, GRID_HIGH_FRAC = 0.85, 1.10
# Dry insulation reads at the meter's end, Mohm.
DRY_MOHM = 200.0
# A joint that turns so much into heat is seen hot by a thermal camera, W; common practice, no source.
HOT_JOINT_W = 10.0
# Converters do not start below this; leads lose so much as a rule; common practice, no source.
EARTH_STOPS_MOHM, USUAL_DROP_PERCENT = 0.2, 1.0
# A substring that gets less than this share of its neighbours' light is bridged while it works.
DULL_FRAC = 0.85


class Look(StrEnum):
    """What eyes find on a plane."""

    CLEAN = "clean"
    DIRTY = "dirty"
    SHADE = "shade on some"
    SNOW = "snow on some"


class Warmth(StrEnum):
    """What a thermal camera finds along a string."""

    EVEN = "even"
    JOINT = "a joint hot"
    SUBSTRING = "a substring warm"
    MODULE = "a module warm"
    COLD = "cold, not working"


class Display(StrEnum):
    """What an inverter says of itself."""

    RUNNING = "running"
    NO_GRID = "no grid"
    GRID_HIGH = "grid too high"
    NO_SUN = "waiting for sun"
    EARTH = "insulation too low"
    HOT = "held back by heat"
    EXPORT = "held back by the export limit"
    FULL = "at its rating"
    HELD = "held back by a setting"


@dataclass(frozen=True, slots=True)
class Part:
    """Substrings of a string that are alike.

    ``substrings`` is below nothing where modules are turned round; ``light_frac`` of the light of
    ``plane`` reaches them.
    """

    # Not hashed: a datasheet is long, and parts are looked up by the thousand.
    sheet: ModuleSheet = field(hash=False)
    substrings: float
    light_frac: float = 1.0
    plane: int = 0


@dataclass(frozen=True, slots=True)
class Hung:
    """A string as it hangs there.

    ``in_series``: modules counted along its leads.  ``earth_after``: modules from its negative end
    to where it touches earth.  ``safe_v``: what each optimizer shows while it waits, where every
    module has one; ``unpaired`` of them show nothing.  ``bridged``: a bypass diode conducts always.
    ``held_v``: what an inverter holds it at, where every module has its converter; it then gives
    ``held_w_per_lit`` for each substring in full light.
    ``dull``: all of it gets less light than its plane.  ``drawn``: modules on the drawing, where it says so.
    """

    name: str
    parts: tuple[Part, ...]
    in_series: int
    input: int = 0
    joint_ohm: float = 0.0
    lead_ohm: float = 0.0
    parted: bool = False
    flipped: bool = False
    fuse_open: bool = False
    earth_after: int | None = None
    earth_mohm: float = DRY_MOHM
    safe_v: float | None = None
    unpaired: int = 0
    bridged: bool = False
    dull: bool = False
    held_v: float | None = None
    held_w_per_lit: float = 0.0
    drawn: int | None = None

    @property
    def ohm(self) -> float:
        """Resistance beyond that of its modules: in a joint among them, and in its leads."""
        return self.joint_ohm + self.lead_ohm

    @property
    def odd(self) -> bool:
        """Whether something of its own sets it apart from what is drawn."""
        return bool(
            self.ohm or self.parted or self.flipped or self.fuse_open or self.unpaired
            or self.bridged or self.dull or self.earth_after is not None
            or (self.drawn is not None and self.drawn != self.in_series)
            or len({(p.sheet.id, p.light_frac) for p in self.parts}) > 1
            or any(p.substrings < 0 for p in self.parts)
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Input:
    """A tracker input: its window and the current it takes.

    ``on``: its DC switch; ``weak``: it takes less current than its sheet says.
    """

    v_min_v: float = 0.0
    v_max_v: float = 1e6
    i_max_a: float = 1e6
    v_start_v: float = 0.0
    on: bool = True
    weak: bool = False


@dataclass(frozen=True, slots=True)
class Instruments:
    """How far instruments are off: the light meter as a factor, the thermometer and a clock as sums."""

    light_frac: float = 1.0
    cell_k: float = 0.0
    clock_h: float = 0.0
    unit_frac: float = 1.0


@dataclass(frozen=True, slots=True)
class Inverter:
    """The AC side.

    ``given_frac``: what of the DC reaches the AC side.  ``heat_frac``: what heat leaves of the
    rating; ``set_frac``: what its settings do; ``export_w``: what may leave at most.
    """

    p_ac_w: float | None = None
    ac_v: float = 230.0
    grid_frac: float = 1.0
    breaker_on: bool = True
    given_frac: float = 0.97
    heat_frac: float = 1.0
    set_frac: float = 1.0
    export_w: float | None = None
    wet_mohm: float = DRY_MOHM

    @property
    def feeds(self) -> bool:
        """Whether the grid is there and within its limits."""
        return self.breaker_on and GRID_LOW_FRAC <= self.grid_frac <= GRID_HIGH_FRAC


@dataclass(frozen=True)
class Lit:
    """The moment: light on each plane, W/m², and its cells, °C."""

    light_w_per_m2: tuple[float, ...]
    cell_degc: tuple[float, ...]


@dataclass(frozen=True)
class Rig:
    """A built system, sound or with faults in it."""

    strings: tuple[Hung, ...]
    planes: tuple[str, ...] = ("the plane",)
    inputs: tuple[Input, ...] = (Input(),)
    inverter: Inverter = field(default_factory=Inverter)
    instruments: Instruments = field(default_factory=Instruments)
    looks: tuple[Look, ...] = (Look.CLEAN,)

    def with_string(self, at: int, **changes: object) -> "Rig":
        """Return it with a string otherwise."""
        one = replace(self.strings[at], **changes)  # type: ignore[arg-type]
        return replace(self, strings=(*self.strings[:at], one, *self.strings[at + 1 :]))


class Kind(StrEnum):
    """What can be read, and of what: a string, an input, a plane, or the whole."""

    VOC = "voc_v"
    ISC = "isc_a"
    V_FUSED = "v_after_fuse_v"
    V_AT_WORK = "v_operating_v"
    I_AT_WORK = "i_operating_a"
    POWER = "power_w"
    EARTH_PLUS = "v_plus_to_earth_v"
    EARTH_MINUS = "v_minus_to_earth_v"
    DROP = "voltage_drop_percent"
    INSULATION = "insulation_mohm"
    INSULATION_OF_ALL = "insulation_of_all_mohm"
    WARMTH = "warmth"
    COUNT = "modules_counted"
    LOOK = "look"
    LIGHT = "light_w_per_m2"
    CELL = "cell_degc"
    LIGHT_AGAIN = "second_light_w_per_m2"
    CELL_AGAIN = "second_cell_degc"
    ARRAY_W = "array_power_w"
    AC_V = "ac_v"
    AC_W = "ac_w"
    DISPLAY = "display"
    SETTING = "setting"
    CLOCK = "clock_h"
    SWAP = "swap_followed"


OF_STRING = frozenset(
    {
        Kind.VOC, Kind.ISC, Kind.V_FUSED, Kind.V_AT_WORK, Kind.I_AT_WORK, Kind.POWER, Kind.EARTH_PLUS,
        Kind.EARTH_MINUS, Kind.DROP, Kind.INSULATION, Kind.WARMTH, Kind.COUNT, Kind.SWAP,
    }
)  # fmt: skip
OF_PLANE = frozenset(
    {Kind.LOOK, Kind.LIGHT, Kind.CELL, Kind.LIGHT_AGAIN, Kind.CELL_AGAIN, Kind.ARRAY_W}
)
Value = float | str
Followed = Literal["string", "input", "none"]


@dataclass(frozen=True, slots=True)
class Probe:
    """A reading that can be taken: what, and of which string or plane, from 0."""

    kind: Kind
    at: int = 0


class Bench:
    """What instruments show on a system at a moment; strings are worked out once."""

    def __init__(self, rig: Rig, lit: Lit, memo: dict[object, object] | None = None) -> None:
        """Take a system and its moment; ``memo`` holds curves of strings met before."""
        self.rig, self.lit = rig, lit
        self._memo = {} if memo is None else memo

    def read(self, test: Probe) -> Value:
        """Return what a reading shows."""
        return _SHOWS[test.kind](self, test.at)

    @property
    def insulation_mohm(self) -> float:
        """What the inverter measures of all strings before it starts, Mohm."""
        return min([self.rig.inverter.wet_mohm, *(s.earth_mohm for s in self.rig.strings)])

    def voc_v(self, at: int) -> float:
        """Return a string's open voltage at its test point, below nothing with its ends changed, V."""
        one = self.rig.strings[at]
        if one.parted:
            return 0.0
        if one.held_v is not None:
            return (one.safe_v or 0.0) * (one.in_series - one.unpaired)
        volts = float(hung_v(0.0, self._parts(one), 0.0))
        return -volts if one.flipped else volts

    def shorted_a(self, at: int) -> float:
        """Return a string's current with its ends joined by a rated tester, A."""
        one = self.rig.strings[at]
        if one.parted or one.held_v is not None:
            return 0.0
        key = ("short", one.parts, one.ohm, self.lit)
        if key not in self._memo:
            self._memo[key] = float(shorted_a(self._parts(one), one.ohm))
        return float(self._memo[key])  # type: ignore[arg-type]

    def to_earth_v(self, at: int) -> tuple[float, float]:
        """Return the voltages of both ends to earth; none where nothing touches it, V."""
        one = self.rig.strings[at]
        if one.earth_after is None:
            return 0.0, 0.0
        opens = self.voc_v(at)
        plus = opens * (one.in_series - one.earth_after) / one.in_series
        return plus, plus - opens

    def warmth(self, at: int) -> Warmth:
        """Return what a thermal camera finds along a string."""
        one, (_, amps) = self.rig.strings[at], self.at_work[at]
        if amps <= 0:
            return Warmth.COLD
        if one.joint_ohm * amps * amps > HOT_JOINT_W:
            return Warmth.JOINT
        brightest = max(p.light_frac for p in one.parts)
        dull = sum(abs(p.substrings) for p in one.parts if p.light_frac < DULL_FRAC * brightest)
        if dull >= one.parts[0].sheet.bypass_diodes:
            return Warmth.MODULE
        return Warmth.SUBSTRING if dull or one.bridged else Warmth.EVEN

    def followed(self, at: int) -> Followed:
        """Return where a shortfall goes when a string changes inputs with another."""
        one = self.rig.strings[at]
        if one.odd:
            return "string"
        on = self.rig.inputs[one.input]
        return "none" if on.on and not on.weak else "input"

    def _parts(self, one: Hung) -> FloatArray:
        key = (one.parts, self.lit)
        found = self._memo.get(key)
        if found is None:
            found = substrings_lit(
                np.array([p.substrings for p in one.parts], float),
                np.array([self.lit.light_w_per_m2[p.plane] * p.light_frac for p in one.parts]),
                np.array([self.lit.cell_degc[p.plane] for p in one.parts], float),
                np.array([diode_of(p.sheet) for p in one.parts]),
            )
            self._memo[key] = found
        return np.asarray(found)

    def _gives(self, one: Hung) -> bool:
        """Whether a string can give its input anything."""
        return not (one.parted or one.flipped or one.fuse_open) and one.held_v is None

    def array_w(self, plane: int) -> float:
        """Return what the strings of a plane give, each by its modules there, W."""
        whole = 0.0
        for one, (volts, amps) in zip(self.rig.strings, self.at_work, strict=True):
            all_of = sum(abs(p.substrings) for p in one.parts)
            mine = sum(abs(p.substrings) for p in one.parts if p.plane == plane)
            whole += volts * amps * mine / max(all_of, 1e-9)
        return whole

    @cached_property
    def _free_points(self) -> tuple[tuple[float, float], ...]:
        """V and W of each input at its own best, whatever the inverter takes of it."""
        return tuple(self._at_best(n) for n in range(len(self.rig.inputs)))

    def _at_best(self, at: int) -> tuple[float, float]:
        on = self.rig.inputs[at]
        mine = tuple(s for s in self.rig.strings if s.input == at and self._gives(s))
        if not on.on or not mine or self._opens(mine) < max(on.v_start_v, on.v_min_v):
            return 0.0, 0.0
        key = ("best", tuple((s.parts, s.ohm) for s in mine), on, self.lit)
        if key not in self._memo:
            self._memo[key] = self._best(mine, on)
        return self._memo[key]  # type: ignore[return-value]

    def _best(self, mine: tuple[Hung, ...], on: Input) -> tuple[float, float]:
        if len(mine) == 1:
            v, a = best_of(self._parts(mine[0]), mine[0].ohm, on.v_min_v, on.v_max_v, on.i_max_a)
            return float(v), float(v * a)
        volts, amps = self._together(mine)
        within = (volts >= on.v_min_v) & (volts <= on.v_max_v) & (amps <= on.i_max_a)
        power = np.where(within, volts * amps, -1.0)
        n = int(np.argmax(power))
        return (float(volts[n]), float(power[n])) if power[n] > 0 else (0.0, 0.0)

    def _together(self, mine: tuple[Hung, ...]) -> tuple[FloatArray, FloatArray]:
        """Return strings side by side as a table of V, falling, and A."""
        volts = np.linspace(self._opens(mine), 0.0, 1200)
        amps = np.zeros_like(volts)
        for s in mine:
            a, v = curve(self._parts(s), s.ohm)
            amps += np.interp(volts, v[::-1], a[::-1], right=0.0)
        return volts, amps

    def _opens(self, mine: tuple[Hung, ...]) -> float:
        return max((float(hung_v(0.0, self._parts(s), 0.0)) for s in mine), default=0.0)

    @cached_property
    def _free_w(self) -> float:
        """What all inputs would take together, W."""
        held = sum(self._held_w(s) for s in self.rig.strings if s.held_v is not None)
        return held + sum(w for _, w in self._free_points)

    def _held_w(self, one: Hung) -> float:
        """Return what a string of modules with converters of their own gives, W."""
        if one.parted or one.flipped or one.fuse_open or not self.rig.inputs[one.input].on:
            return 0.0
        lit = sum(
            abs(p.substrings) * p.light_frac * self.lit.light_w_per_m2[p.plane] for p in one.parts
        )
        return one.held_w_per_lit * lit * (1 - one.unpaired / max(one.in_series, 1))

    @cached_property
    def _most_w(self) -> float:
        """What the inverter takes at most on its DC side, W."""
        on = self.rig.inverter
        if not on.feeds:
            return 0.0
        caps = [np.inf if on.p_ac_w is None else on.p_ac_w * on.heat_frac * on.set_frac]
        if on.export_w is not None:
            caps.append(on.export_w)
        return float(min(caps)) / on.given_frac

    @property
    def ac_w(self) -> float:
        """What it gives, W."""
        return min(self._free_w, self._most_w) * self.rig.inverter.given_frac

    @property
    def ac_v(self) -> float:
        """The grid's voltage at the inverter, V."""
        on = self.rig.inverter
        return on.ac_v * on.grid_frac if on.breaker_on else 0.0

    @property
    def display(self) -> Display:
        """What the inverter says of itself: what stops it comes before what holds it back."""
        on = self.rig.inverter
        by_export = on.export_w is not None and self._most_w >= on.export_w / on.given_frac
        said = (
            (not on.breaker_on or on.grid_frac < GRID_LOW_FRAC, Display.NO_GRID),
            (on.grid_frac > GRID_HIGH_FRAC, Display.GRID_HIGH),
            (self.insulation_mohm < EARTH_STOPS_MOHM, Display.EARTH),
            (self._free_w <= 0, Display.NO_SUN),
            (self._most_w >= self._free_w, Display.RUNNING),
            (by_export, Display.EXPORT),
            (on.heat_frac < 1, Display.HOT),
            (on.set_frac < 1, Display.HELD),
        )
        return next((display for holds, display in said if holds), Display.FULL)

    @cached_property
    def at_work(self) -> tuple[tuple[float, float], ...]:
        """V and A of each string while the inverter works."""
        stopped = not self.rig.inverter.feeds or self.display is Display.EARTH
        share = 0.0 if stopped else min(1.0, self._most_w / max(self._free_w, 1e-9))
        return tuple(self._string_at_work(s, share) for s in self.rig.strings)

    def _string_at_work(self, one: Hung, share: float) -> tuple[float, float]:
        if one.held_v is not None:
            return one.held_v, self._held_w(one) * share / one.held_v
        mine = tuple(s for s in self.rig.strings if s.input == one.input and self._gives(s))
        volts, power = self._free_points[one.input]
        if not self._gives(one) or power <= 0 or share <= 0:
            index = self.rig.strings.index(one)
            return abs(self.voc_v(index)), 0.0
        if share < 1:
            volts = self._held_back(mine, power * share, volts)
        if len(mine) == 1:
            return volts, float(power * share / volts)
        return volts, max(0.0, float(amps_at(volts, self._parts(one), one.ohm)))

    def _held_back(self, mine: tuple[Hung, ...], power_w: float, best_v: float) -> float:
        """Return the voltage, above the best, at which strings give no more than so much."""
        key = ("held", tuple((s.parts, s.ohm) for s in mine), round(power_w, 3), self.lit)
        if key not in self._memo:
            volts, amps = self._together(mine)
            over = volts >= best_v
            # Falling voltage, rising power: the open end comes first.
            self._memo[key] = float(np.interp(power_w, (volts * amps)[over], volts[over]))
        return float(self._memo[key])  # type: ignore[arg-type]


def _drop_percent(bench: Bench, at: int) -> float:
    volts, amps = bench.at_work[at]
    return USUAL_DROP_PERCENT + 100 * bench.rig.strings[at].lead_ohm * amps / max(volts, 1.0)


_SHOWS: dict[Kind, Callable[[Bench, int], Value]] = {
    Kind.VOC: lambda b, n: b.voc_v(n),
    Kind.ISC: lambda b, n: b.shorted_a(n),
    Kind.V_FUSED: lambda b, n: 0.0 if b.rig.strings[n].fuse_open else b.voc_v(n),
    Kind.V_AT_WORK: lambda b, n: b.at_work[n][0],
    Kind.I_AT_WORK: lambda b, n: b.at_work[n][1],
    Kind.POWER: lambda b, n: b.at_work[n][0] * b.at_work[n][1],
    Kind.EARTH_PLUS: lambda b, n: b.to_earth_v(n)[0],
    Kind.EARTH_MINUS: lambda b, n: b.to_earth_v(n)[1],
    Kind.DROP: _drop_percent,
    Kind.INSULATION: lambda b, n: min(b.rig.strings[n].earth_mohm, b.rig.inverter.wet_mohm),
    Kind.INSULATION_OF_ALL: lambda b, _: b.insulation_mohm,
    Kind.WARMTH: lambda b, n: b.warmth(n).value,
    Kind.COUNT: lambda b, n: float(b.rig.strings[n].in_series),
    Kind.SWAP: lambda b, n: b.followed(n),
    Kind.LOOK: lambda b, n: b.rig.looks[n].value,
    Kind.LIGHT: lambda b, n: b.lit.light_w_per_m2[n] * b.rig.instruments.light_frac,
    Kind.CELL: lambda b, n: b.lit.cell_degc[n] + b.rig.instruments.cell_k,
    Kind.LIGHT_AGAIN: lambda b, n: b.lit.light_w_per_m2[n],
    Kind.CELL_AGAIN: lambda b, n: b.lit.cell_degc[n],
    Kind.ARRAY_W: lambda b, n: b.array_w(n),
    Kind.AC_V: lambda b, _: b.ac_v,
    Kind.AC_W: lambda b, _: b.ac_w * b.rig.instruments.unit_frac,
    Kind.DISPLAY: lambda b, _: b.display.value,
    Kind.SETTING: lambda b, _: "as ordered" if b.rig.inverter.set_frac == 1.0 else "otherwise",
    Kind.CLOCK: lambda b, _: b.rig.instruments.clock_h,
}


def sound_string(
    name: str, sheet: ModuleSheet, in_series: int, plane: int = 0, on_input: int = 0
) -> Hung:
    """Return a string of equal modules, lit alike."""
    parts = (Part(sheet, float(in_series * sheet.bypass_diodes), 1.0, plane),)
    return Hung(name, parts, in_series, on_input, drawn=in_series)
