"""Volts and amperes of strings at the light and heat they were read in: due, beside siblings, in modules."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import hypot
from statistics import median

from ridge_tally.core.errors import OutOfRange, RidgeTallyError
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.proving import ProofRow, ProofStep
from ridge_tally.core.proving.expected import Reading, deficit_told, modules_short, string_due
from ridge_tally.core.units import parse_number
from ridge_tally.rules.design import Design

# Cells are warmer than their backs by so much in the light; common practice.
BACK_TO_CELL_K_PER_W_PER_M2 = 0.003
LEAST_LIGHT = {ProofStep.VOC: 100.0, ProofStep.ISC: 400.0}
MOST_LIGHT, COLDEST_DEGC, HOTTEST_DEGC = 1500.0, -40.0, 110.0
# Strings beside each other: volts in the same minute, amperes in the same plane; common practice.
SIBLING_FRAC = {ProofStep.VOC: 0.01, ProofStep.ISC: 0.05}
# A shortfall of so many modules is looked at, and of so many has failed, whatever the band.
LOOK_MODULES, FAIL_MODULES = 0.25, 0.9
# What two meters' readings of two strings may differ by, besides.
MATCH_FRAC = 0.005
# A reading so many times what is due is in another unit.
ANOTHER_UNIT = 5.0


class Outcome(StrEnum):
    """How a reading comes out."""

    OPEN = "open"
    PASSED = "pass"
    LOOK = "look"
    FAIL = "fail"
    UNREAD = "unread"


@dataclass(frozen=True, slots=True)
class Judged:
    """How a reading comes out: what was read, what was due within which band, and in words."""

    outcome: Outcome
    read: float | None = None
    due: float | None = None
    band: float | None = None
    told: str = ""


@dataclass(frozen=True, slots=True)
class StringJudge:
    """Judges the readings of one step; ``ratios``: what was read over what was due, by string."""

    design: Design
    step: ProofStep
    ratios: dict[str, float]

    @classmethod
    def of(cls, design: Design, step: ProofStep, rows: Sequence[ProofRow]) -> "StringJudge":
        """Return the judge of a step's newest readings, one of each string."""
        bare = cls(design, step, {})
        found = {}
        for row in rows:
            try:
                found[row.place] = bare.read(row) / bare.due(row).due
            except RidgeTallyError:
                # Told where it stands; it is no sibling to be compared with.
                continue
        return cls(design, step, found)

    @property
    def volts(self) -> bool:
        """Whether volts are read, not amperes."""
        return self.step is ProofStep.VOC

    @property
    def unit(self) -> str:
        """The unit of what is read."""
        return "V" if self.volts else "A"

    def string(self, tag: str) -> ModuleString:
        """Return the string of that tag."""
        return next(s for s in self.design.option.strings if s.tag == tag)

    def read(self, row: ProofRow) -> float:
        """Return what was typed; NotUnderstood if it is no number."""
        what = "volts" if self.volts else "amperes"
        return parse_number(row.typed, f"String {row.place}", f"{what} as the meter shows them")

    def due(self, row: ProofRow) -> Reading:
        """Return what the row's string should read; NotUnderstood, OutOfRange as ``light_and_cell``."""
        light, cell = light_and_cell(row, LEAST_LIGHT[self.step])
        ids = self.string(row.place).module_ids
        due = string_due(self.design.sheets[ids[0]], len(ids), light, cell)
        return due.voc_v if self.volts else due.isc_a

    def judged(self, row: ProofRow) -> Judged:
        """Return how a reading comes out.

        Raises
        ------
        NotUnderstood, OutOfRange
            If it, its light or its heat is no number, or cannot be.
        """
        due, read = self.due(row), self.read(row)
        if abs(read) > ANOTHER_UNIT * due.due:
            raise OutOfRange(
                f"String {row.place}", read, f"about {due.due:.0f} {self.unit}", "Check the unit."
            )
        middle = self._middle(row.place)
        wide, off = 2 * due.band, abs(read - due.due)
        apart = 0.0 if middle is None else abs(self.ratios[row.place] / middle - 1)
        limit = SIBLING_FRAC[self.step]
        short, told = self._shortfall(row, read, due, middle)
        failed = off > wide and (middle is None or apart > limit or off > 2 * wide)
        if failed or short >= FAIL_MODULES:
            outcome = Outcome.FAIL
        elif off > due.band or apart > limit or short >= LOOK_MODULES:
            outcome = Outcome.LOOK
        else:
            return Judged(Outcome.PASSED, read, due.due, wide)
        return Judged(outcome, read, due.due, wide, told or _off_told(read, due.due, apart))

    def _middle(self, tag: str) -> float | None:
        """Return what the string's siblings and itself agree on, where it has any.

        Of two nobody knows which is odd: the one nearer to what is due stands for both.
        """
        near = [
            ratio
            for other, ratio in self.ratios.items()
            if self.volts or self._plane(other) == self._plane(tag)
        ]
        if len(near) == 2:
            return min(near, key=lambda ratio: abs(ratio - 1))
        return median(near) if len(near) > 1 else None

    def _plane(self, tag: str) -> str:
        return self.design.planes_under(self.string(tag).module_ids)

    def _shortfall(
        self, row: ProofRow, read: float, due: Reading, middle: float | None
    ) -> tuple[float, str]:
        """Return how many modules' volts are missing or too many, and what that looks like."""
        if not self.volts:
            return 0.0, ""
        ids = self.string(row.place).module_ids
        many = len(ids)
        whole = due.due * (middle or 1.0)
        short = modules_short(whole, read, many)
        alone = 2 * due.band / due.due
        band = many * (alone if middle is None else hypot(SIBLING_FRAC[self.step], MATCH_FRAC))
        band = max(LOOK_MODULES, band)
        if abs(short) <= band:
            return 0.0, ""
        return abs(short), deficit_told(short, band, self.design.sheets[ids[0]].bypass_diodes)


def _off_told(read: float, due: float, apart: float) -> str:
    beside = f", {100 * apart:.1f} % beside its siblings" if apart else ""
    return f"{100 * (read / due - 1):+.1f} % from what is due{beside}"


def light_and_cell(row: ProofRow, least_w_per_m2: float) -> tuple[float, float]:
    """Return the light and the cell temperature a reading was taken in.

    Raises
    ------
    NotUnderstood, OutOfRange
        Naming the field, where one is missing, no number, or none readings are worth anything in.
    """
    light = parse_number(row.light, "Light", "W/m² in the plane of the modules")
    back = parse_number(row.back, "Back of a module", "degrees Celsius")
    if not least_w_per_m2 <= light <= MOST_LIGHT:
        small = light <= MOST_LIGHT / 1000
        remedy = "That looks like kW/m²; type W/m²." if small else "Wait for steady sun."
        raise OutOfRange(
            "Light, W/m²", light, f"{least_w_per_m2:g} to {MOST_LIGHT:g} for this reading", remedy
        )
    if not COLDEST_DEGC <= back <= HOTTEST_DEGC:
        allowed = f"{COLDEST_DEGC:g} to {HOTTEST_DEGC:g}"
        raise OutOfRange("Back of a module, °C", back, allowed, "Degrees Celsius.")
    return light, back + BACK_TO_CELL_K_PER_W_PER_M2 * light
