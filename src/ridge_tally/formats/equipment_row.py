"""A datasheet's texts read one by one: numbers with their units, coefficients, curves by load."""

import re
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from ridge_tally.core.equipment import DeratingPoint, EfficiencyPoint, Origin, ValueOrigin
from ridge_tally.core.errors import MissingDatum, NotUnderstood
from ridge_tally.core.mounting_sheet import SpanLimit, StockLength


@dataclass(frozen=True, slots=True)
class Column:
    """A figure of a datasheet as a column: its name there, its label for people, its unit."""

    name: str
    label: str
    unit: str = ""
    needed: bool = False
    hint: str = ""


_NUMBER = r"[-+−]?\d{1,15}(?:[.,]\d{1,15})?"
_WITH_UNIT = re.compile(rf"({_NUMBER})\s{{0,9}}([^\d\s].*)?")
LONGEST_CELL = 300
FLAT_AT = (0.1, 0.5, 1.0)
# How many of a quantity's own unit a coefficient's unit is.
_ABSOLUTE = {"v": 1.0, "mv": 1e-3, "a": 1.0, "ma": 1e-3, "w": 1.0}
_OWN = {
    "beta_voc": ("v", "mv"),
    "alpha_isc": ("a", "ma"),
    "gamma_pmp": ("w",),
    "gamma_vmp": ("v", "mv"),
}


class Row:
    """The texts of a row, read by column; notes which values it had to work out or estimate."""

    def __init__(self, columns: Iterable[Column], texts: Mapping[str, str]) -> None:
        self.columns = {c.name: c for c in columns}
        self.texts = {name: text.strip() for name, text in texts.items()}
        for name, text in self.texts.items():
            if len(text) > LONGEST_CELL:
                label = self.columns[name].label if name in self.columns else name
                raise NotUnderstood(label, text, f"at most {LONGEST_CELL} characters")
        self.origins: list[ValueOrigin] = []
        self.name = self.texts.get("name", "")
        self.provenance = self.texts.get("source", "") or "typed from its datasheet"

    def text(self, name: str) -> str:
        found = self.texts.get(name, "")
        if not found and self.columns[name].needed:
            owner = self.name or "This datasheet"
            raise MissingDatum(self.columns[name].label, owner, "Copy it from the datasheet.")
        return found

    def note(self, field: str, origin: Origin) -> None:
        self.origins.append(ValueOrigin(field, origin))

    def maybe(self, name: str) -> float | None:
        column, text = self.columns[name], self.text(name)
        if not text:
            return None
        found = _WITH_UNIT.fullmatch(text)
        unit = (found[2] or "").strip().lower() if found else ""
        if not found or unit not in ("", column.unit.lower()):
            told = f"a number{f' in {column.unit}' if column.unit else ''}"
            raise NotUnderstood(column.label, text, told)
        return number_of(found[1])

    def number(self, name: str) -> float:
        value = self.maybe(name)
        assert value is not None, name
        return value

    def share(self, name: str) -> float | None:
        value = self.maybe(name)
        return None if value is None else value / 100

    def whole(self, name: str, estimate: int | None = None) -> int | None:
        value = self.maybe(name)
        if value is None:
            return estimate
        if value != int(value):
            raise NotUnderstood(self.columns[name].label, self.text(name), "a whole number")
        return int(value)

    def estimated(self, name: str, field: str, estimate: float) -> float:
        value = self.maybe(name)
        if value is not None:
            return value
        self.note(field, Origin.ESTIMATED)
        return estimate

    def yes(self, name: str) -> bool | None:
        text = self.text(name).lower()
        if text in ("yes", "y", "true", "1"):
            return True
        if text in ("no", "n", "false", "0"):
            return False
        if text:
            raise NotUnderstood(self.columns[name].label, text, "yes or no")
        return None

    def cents(self, name: str) -> int | None:
        value = self.maybe(name)
        return None if value is None else round(value * 100)

    def coefficient(self, name: str, field: str, whole: float) -> float | None:
        """Return a coefficient as a fraction per °C; an absolute one over its quantity at STC."""
        column, text = self.columns[name], self.text(name)
        if not text:
            return None
        found = _WITH_UNIT.fullmatch(text)
        unit = _over_degree((found[2] or "").lower()) if found else ""
        if found and unit == "%":
            return number_of(found[1]) / 100
        if found and unit in _OWN[name] and whole > 0:
            self.note(field, Origin.COMPUTED)
            return number_of(found[1]) * _ABSOLUTE[unit] / whole
        expected = "a number " + column.hint.replace("with its unit: ", "in ")
        raise NotUnderstood(column.label, text, expected)

    def efficiency(self, name: str) -> tuple[EfficiencyPoint, ...]:
        """Return efficiency by load: ``97.2`` for all loads, or ``10:94 50:97.5 100:97``."""
        points: list[EfficiencyPoint] = []
        expected = "per cent such as 97.2 or 10:94 50:97.5 100:97"
        for load, percent in self._pairs(name, expected):
            if load is not None:
                points.append(EfficiencyPoint(load / 100, percent / 100))
                continue
            # One figure for every load: a sheet's best, which a year flatters a little.
            self.note("efficiency", Origin.ESTIMATED)
            points += [EfficiencyPoint(at, percent / 100) for at in FLAT_AT]
        return tuple(points)

    def derating(self, name: str) -> tuple[DeratingPoint, ...]:
        """Return what it gives by the air: ``45:100 50:90 60:70``, °C and per cent."""
        expected = "°C and per cent such as 45:100 50:90 60:70"
        points = []
        for air, percent in self._pairs(name, expected):
            if air is None:
                raise NotUnderstood(self.columns[name].label, self.text(name), expected)
            points.append(DeratingPoint(air, percent / 100))
        return tuple(points)

    def _pairs(self, name: str, expected: str) -> Iterator[tuple[float | None, float]]:
        text = self.text(name)
        for part in filter(None, re.split(r"[\s;]+", text.replace("%", ""))):
            at, colon, percent = part.partition(":")
            numbers = (at, percent) if colon else (at,)
            if not all(re.fullmatch(_NUMBER, n) for n in numbers):
                raise NotUnderstood(self.columns[name].label, text, expected)
            yield (number_of(at), number_of(percent)) if colon else (None, number_of(at))

    def stock(self, name: str) -> tuple[StockLength, ...]:
        """Return lengths with the price of one: ``4267:52.00 3300``, millimetres."""
        expected = "millimetres, and a price where it is known, such as 4267:52.00 3300"
        return tuple(
            StockLength(_positive(length, self.columns[name].label, expected) / 1000, price)
            for length, price in (
                (percent, None) if at is None else (at, round(percent * 100))
                for at, percent in self._pairs(name, expected)
            )
        )

    def spans(self, name: str) -> tuple[SpanLimit, ...]:
        """Return spans: ``42/1000/field:1800 42/1000/edge:1200``, m/s, Pa, zone, millimetres."""
        expected = "wind in m/s, snow in Pa, field or edge, span in mm, such as 42/1000/field:1800"
        text, found = self.text(name), []
        for part in filter(None, re.split(r"[\s;]+", text)):
            row = re.fullmatch(rf"({_NUMBER})/({_NUMBER})/(field|edge):({_NUMBER})", part.lower())
            if row is None:
                raise NotUnderstood(self.columns[name].label, part, expected)
            wind, snow, zone, span = row.groups()
            found.append(
                SpanLimit(number_of(wind), number_of(snow), zone == "edge", number_of(span) / 1000)
            )
        return tuple(found)

    def three(self, name: str, expected: str) -> tuple[float | None, float | None, float | None]:
        """Return three numbers with anything between them; none of them where it is empty."""
        text = self.text(name)
        if not text:
            return None, None, None
        found = [number_of(n) for n in re.findall(_NUMBER, text)]
        if len(found) != 3:
            raise NotUnderstood(self.columns[name].label, text, expected)
        return found[0], found[1], found[2]

    def counts(self, name: str) -> tuple[int, ...]:
        """Return whole numbers with spaces or commas between them."""
        text = self.text(name)
        if text and not re.fullmatch(r"\d{1,4}(?:[\s,;/]{1,3}\d{1,4})*", text):
            raise NotUnderstood(self.columns[name].label, text, "counts such as 54 60 66")
        return tuple(int(n) for n in re.findall(r"\d+", text))


def _positive(value: float, label: str, expected: str) -> float:
    if value <= 0:
        raise NotUnderstood(label, f"{value:g}", expected)
    return value


def number_of(text: str) -> float:
    """Return a number written with a point or a comma, and any minus."""
    return float(text.replace(",", ".").replace("−", "-"))


def _over_degree(unit: str) -> str:
    """Return what a coefficient's unit has above its stroke: ``mv`` of ``mV / °C``."""
    above, _, below = unit.partition("/")
    return above.rstrip() if below.strip() in ("k", "°c", "°", "c", "degc") else unit
