"""The measures of a one-line diagram and where a group of rows stands in it, millimetres."""

from dataclasses import dataclass

from ridge_tally.core.sheets.one_line.spec import Group
from ridge_tally.core.sheets.scene import Point

SOURCE, JUNCTION, SWITCH_DC, INVERTER, COLLECTOR = 46.0, 17.0, 17.0, 32.0, 24.0
METER, SWITCH, PANEL, SERVICE, UTILITY = 12.0, 24.0, 36.0, 12.0, 14.0
MOST_GAP, LEAST_GAP = 24.0, 9.0
HEAD, FOOT = 12.0, 15.0
PITCH_MOST, PITCH_LEAST, FLAG_PITCH = 22.0, 9.6, 12.0
# More rows than this do not stand on one sheet.
MOST_ROWS = 12
RISE, PANEL_HIGH = 24.0, 42.0
MOST_BESIDE = 3

Columns = dict[str, tuple[float, float]]


@dataclass
class Placed:
    """A group's rows and where its output leaves."""

    group: Group
    rows_y: list[float]
    top: float
    bottom: float
    out: Point = (0.0, 0.0)

    @property
    def middle(self) -> float:
        return (self.rows_y[0] + self.rows_y[-1]) / 2


def cut(words: str, most: int) -> str:
    """Return words cut to so many characters."""
    return words if len(words) <= most else words[: max(1, most - 1)].rstrip() + "…"
