"""Sheets of paper: sizes, the border, where the title block stands and what is left to draw on."""

from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.sheets.scene import Box


class SheetPaper(StrEnum):
    """The paper of a plan set, lying."""

    LETTER = "Letter"
    TABLOID = "Tabloid"
    A4 = "A4"
    A3 = "A3"


# Width and height, mm: ANSI/ASME Y14.1 A and B, ISO 216 A4 and A3.
SIZES_MM = {
    SheetPaper.LETTER: (279.4, 215.9),
    SheetPaper.TABLOID: (431.8, 279.4),
    SheetPaper.A4: (297.0, 210.0),
    SheetPaper.A3: (420.0, 297.0),
}
# The next larger of its kind, for what does not fit a small one.
LARGE = {SheetPaper.LETTER: SheetPaper.TABLOID, SheetPaper.A4: SheetPaper.A3}
# A large sheet has its title block at the right, a small one at its foot; common practice, no source.
STRIP_RIGHT_MM, STRIP_FOOT_MM = 60.0, 28.0
BORDER_MM, BINDING_MM, INSET_MM = 10.0, 15.0, 4.0


@dataclass(frozen=True, slots=True)
class Ground:
    """A sheet's measures, mm from its upper left corner; boxes are left, top, right, bottom."""

    width: float
    height: float
    frame: Box
    title: Box
    free: Box

    @property
    def large(self) -> bool:
        """Whether the title block stands at the right."""
        return self.title[1] == self.frame[1]


def ground_of_size(width: float, height: float) -> Ground:
    """Return the measures of the sheet of that size, mm; StopIteration where no paper has it."""
    return next(ground_of(p) for p, size in SIZES_MM.items() if size == (width, height))


def ground_of(paper: SheetPaper) -> Ground:
    """Return the measures of a sheet."""
    width, height = SIZES_MM[paper]
    left, top, right, bottom = BINDING_MM, BORDER_MM, width - BORDER_MM, height - BORDER_MM
    if paper in (SheetPaper.TABLOID, SheetPaper.A3):
        edge = right - STRIP_RIGHT_MM
        title: Box = (edge, top, right, bottom)
        free: Box = (left, top, edge, bottom)
    else:
        edge = bottom - STRIP_FOOT_MM
        title, free = (left, edge, right, bottom), (left, top, right, edge)
    inner = (free[0] + INSET_MM, free[1] + INSET_MM, free[2] - INSET_MM, free[3] - INSET_MM)
    return Ground(width, height, (left, top, right, bottom), title, inner)
