"""Racking case files: rails with what they may stand on, lines with the sticks to cut them from."""

import math
from typing import Any

from ridge_tally.core.build.racking.cutting import (
    CutLine,
    CutPlan,
    CutRules,
    NoCut,
    Stock,
    cut_plans,
)
from ridge_tally.core.build.racking.mounts import (
    NoPlan,
    RailLine,
    SpanZone,
    plan_mounts,
)
from ridge_tally.core.errors import FormatError, OutOfRange
from ridge_tally.formats.case_file import read_case

# Metres in a case's unit, and its ticks: what a saw is set to, a tenth of a millimetre or finer.
METRES = {"mm": 0.001, "m": 1.0, "in": 0.0254, "ft": 0.3048}
TICKS = {"mm": 10, "m": 10_000, "in": 16, "ft": 192}
MOST_RAILS, MOST_SUPPORTS, MOST_OFFCUTS, MOST_KINDS = 40, 400, 500, 12
LONGEST_M = 200.0


def solve_racking_case(text: str, file: str, op: str) -> list[dict[str, Any]]:
    """Return the answer to each step of a case file that asks for that.

    Raises
    ------
    FormatError, OutOfRange
        Naming the place in the file, the value and the remedy.
    """
    data = read_case(text, file)
    steps = data.get("steps") if isinstance(data, dict) else None
    if not isinstance(steps, list) or not all(isinstance(s, dict) for s in steps):
        raise FormatError(file, "steps", "there is no list of them", "Choose a racking case file.")
    unit = data.get("units")
    if unit not in METRES:
        raise FormatError(file, "units", f"it reads {unit!r}", "Write mm, m, in or ft.")
    mine = [(n, s) for n, s in enumerate(steps) if s.get("op") == op]
    if not mine:
        raise FormatError(file, "steps", f"none asks for {op}", f"Give a step with op {op}.")
    solve = _mounts if op == "mounts" else _cut
    return [
        solve(_Reader(file, f"steps[{n}].input", step.get("input"), str(unit))) for n, step in mine
    ]


class _Reader:
    """One object of a case, every complaint with its place."""

    def __init__(self, file: str, place: str, data: object, unit: str) -> None:
        if not isinstance(data, dict):
            raise FormatError(file, place, f"it reads {data!r}", "Give an object.")
        self.file, self.place, self.data, self.unit = file, place, data, unit

    def amiss(self, name: str, problem: str, remedy: str) -> FormatError:
        return FormatError(self.file, f"{self.place}.{name}", problem, remedy)

    def number(self, name: str, default: float | None = None, *, least: float = 0.0) -> float:
        value = self.data.get(name, default)
        if value is None:
            raise self.amiss(name, "there is none", "Give a number.")
        return self._number(name, value, least)

    def _number(self, name: str, value: object, least: float) -> float:
        if isinstance(value, bool) or not isinstance(value, int | float):
            raise self.amiss(name, f"it reads {value!r}", "Give a number.")
        if not math.isfinite(value) or not least <= value * METRES[self.unit] <= LONGEST_M:
            raise OutOfRange(f"{self.place}.{name}", value, f"from {least:g} to {LONGEST_M:g} m")
        return float(value)

    def numbers(self, name: str, default: list[float] | None = None) -> list[float]:
        values = self.data.get(name, default)
        if not isinstance(values, list):
            raise self.amiss(name, f"it reads {values!r}", "Give a list of numbers.")
        return [self._number(f"{name}[{n}]", v, 0.0) for n, v in enumerate(values)]

    def whole(self, name: str, default: int, most: int) -> int:
        value = self.data.get(name, default)
        if isinstance(value, bool) or not isinstance(value, int) or not 0 <= value <= most:
            raise self.amiss(name, f"it reads {value!r}", f"Give a whole number from 0 to {most}.")
        return value

    def yes(self, name: str, *, default: bool) -> bool:
        value = self.data.get(name, default)
        if not isinstance(value, bool):
            raise self.amiss(name, f"it reads {value!r}", "Write true or false.")
        return value

    def rows(self, name: str, most: int) -> list["_Reader"]:
        rows = self.data.get(name)
        if not isinstance(rows, list) or not rows:
            raise self.amiss(name, "there are none", "Give a list with at least one.")
        if len(rows) > most:
            raise OutOfRange(f"{self.place}.{name}", len(rows), f"at most {most}")
        return [
            _Reader(self.file, f"{self.place}.{name}[{n}]", row, self.unit)
            for n, row in enumerate(rows)
        ]


def _mounts(case: _Reader) -> dict[str, Any]:
    scale = METRES[case.unit]
    rows = case.rows("rails", MOST_RAILS)
    supports = [_supports(row) for row in rows]
    rails = [_rail(row, along, scale) for row, along in zip(rows, supports, strict=True)]
    plan = plan_mounts(rails, stagger=case.yes("stagger", default=True))
    if isinstance(plan, NoPlan):
        return {
            "feasible": False,
            "holes": _distinct(
                [round(h.from_m / scale, 6), round(h.to_m / scale, 6)] for h in plan.holes
            ),
            "cantilevers": [
                {
                    "rail": e.rail,
                    "end": e.end,
                    "nearest": None if e.nearest_m is None else round(e.nearest_m / scale, 6),
                    "limit": round(e.limit_m / scale, 6),
                }
                for e in plan.ends
            ],
            "too_few_supports": list(plan.short_of),
        }
    return {
        "feasible": True,
        "total": sum(len(r) for r in plan.rails),
        "per_rail": [len(r) for r in plan.rails],
        "shared": plan.shared,
        "positions": [[along[i] for i in r] for along, r in zip(supports, plan.rails, strict=True)],
        "proven": plan.proven,
    }


def _distinct(pairs: Any) -> list[list[float]]:
    return [list(p) for p in dict.fromkeys(tuple(p) for p in pairs)]


def _supports(row: _Reader) -> list[float]:
    """Return what a rail may stand on, in the case's unit, ascending."""
    length = row.number("L")
    if "supports" in row.data:
        along = sorted(row.numbers("supports"))
    else:
        first, step = row.number("first"), row.number("step")
        if step * METRES[row.unit] < 0.01:
            raise OutOfRange(f"{row.place}.step", step, "at least 10 mm")
        along = [first + n * step for n in range(max(0, int((length - first) / step + 1e-9) + 1))]
    if len(along) > MOST_SUPPORTS:
        raise OutOfRange(f"{row.place}.supports", len(along), f"at most {MOST_SUPPORTS}")
    away = row.numbers("unusable", [])
    near = 1e-6 / METRES[row.unit]
    return [
        x for x in along if 0 <= x <= length and all(abs(x - unusable) > near for unusable in away)
    ]


def _rail(row: _Reader, along: list[float], scale: float) -> RailLine:
    length = row.number("L")
    if length <= 0:
        raise OutOfRange(f"{row.place}.L", length, "more than 0")
    span = row.data.get("span")
    if isinstance(span, list):
        zones = []
        for n, zone in enumerate(span):
            if not isinstance(zone, list) or len(zone) != 3:
                raise row.amiss(f"span[{n}]", f"it reads {zone!r}", "Give [from, to, limit].")
            part = _Reader(row.file, f"{row.place}.span[{n}]", {"z": zone}, row.unit)
            zones.append(SpanZone(*(v * scale for v in part.numbers("z"))))
    else:
        zones = [SpanZone(0.0, length * scale, row.number("span") * scale)]
    for n, zone in enumerate(zones):
        if zone.limit_m <= 0:
            raise OutOfRange(f"{row.place}.span[{n}]", zone.limit_m / scale, "more than 0")
    ratio = row.data.get("cant_ratio_actual")
    # Without a length of its own the end may reach as far as the share of its span lets it.
    bare = row.number("cant", None if ratio is None else length)
    frac = None if ratio is None else row.number("cant_ratio_actual")
    least = row.whole("min_mounts", 2, MOST_SUPPORTS)
    return RailLine(
        length * scale, tuple(x * scale for x in along), tuple(zones), bare * scale, frac, least
    )


def _cut(case: _Reader) -> dict[str, Any]:
    ticks = TICKS[case.unit]

    def whole(value: float, *, up: bool = False) -> int:
        """Return ticks; what is not a whole number of them is rounded to the safe side."""
        near = round(value * ticks)
        if abs(near - value * ticks) < 1e-6:
            return near
        return math.ceil(value * ticks) if up else math.floor(value * ticks)

    lines = [
        CutLine(whole(r.number("L"), up=True), tuple(whole(m) for m in sorted(r.numbers("mounts"))))
        for r in case.rows("lines", MOST_RAILS)
    ]
    rules_of = _Reader(case.file, f"{case.place}.rules", case.data.get("rules", {}), case.unit)
    rules = CutRules(
        whole(rules_of.number("kerf", 0.0), up=True),
        whole(rules_of.number("min_piece", 0.0), up=True),
        rules_of.number("frac", 0.5),
        whole(rules_of.number("clear", 0.0), up=True),
        rules_of.whole("min_mounts_per_piece", 1, 10),
        rules_of.yes("reuse", default=True),
    )
    stock = [
        Stock(
            whole(r.number("len")),
            None if r.data.get("cost", 1) is None else r.whole("cost", 1, 10_000_000),
            r.whole("have", 0, MOST_OFFCUTS),
        )
        for r in case.rows("stock", MOST_KINDS)
    ]
    if sum(s.at_hand for s in stock) > MOST_OFFCUTS:
        there = sum(s.at_hand for s in stock)
        raise OutOfRange(f"{case.place}.stock, pieces at hand", there, f"at most {MOST_OFFCUTS}")
    longest = max(s.length for s in stock)
    if longest < rules.least_piece or longest <= 0:
        raise OutOfRange(
            f"{case.place}.stock", longest / ticks, "a stick longer than the least piece"
        )
    *_, plan = cut_plans(lines, stock, rules)
    if isinstance(plan, NoCut):
        return {"feasible": False, "line": plan.line, "reached": plan.reached / ticks}
    return _told(plan, rules, ticks)


def _told(plan: CutPlan, rules: CutRules, ticks: int) -> dict[str, Any]:
    def length(value: int) -> float | int:
        return value // ticks if value % ticks == 0 else round(value / ticks, 6)

    by_stock: dict[str, int] = {}
    for stick in plan.sticks:
        name = str(length(stick.length))
        by_stock[name] = by_stock.get(name, 0) + 1
    used = sum(p.length for s in plan.sticks for p in s.pieces)
    return {
        "feasible": True,
        "sticks": len(plan.sticks),
        "by_stock": by_stock,
        "bought": length(plan.bought),
        "cost": plan.cost,
        "splices": plan.splices,
        "waste": length(sum(s.length for s in plan.sticks) - used),
        "bound": plan.least_sticks,
        "proven": plan.proven,
        "plan": [
            [n, [[[p.line, p.number], length(p.length)] for p in s.pieces]]
            for n, s in enumerate(plan.sticks)
        ],
        "left": [length(s.left(rules.kerf)) for s in plan.sticks],
    }
