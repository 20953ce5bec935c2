"""The sheets there are, by the first part of their numbers, and the sets that leave the house."""

from enum import StrEnum

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.paperwork import Paperwork

SHEETS = {
    "G-1": "Cover",
    "G-2": "Site plan",
    "A-1": "Layout",
    "A-2": "Strings",
    "E-1": "One-line",
    "E-3": "Calculations",
    "S-1": "Mounting",
    "S-2": "Load screens",
    "E-4": "Labels",
    "E-5": "Equipment values",
    "M-1": "Parts",
    "C-1": "Cautions",
    "Q-1": "Inspection",
    "H-1": "Household",
    "W-1": "Crew: chalk and cut",
    "T-1": "Tests",
}


class SetName(StrEnum):
    """What is sent to whom."""

    WHOLE = "whole"
    PERMIT = "permit"
    UTILITY = "utility"
    CREW = "crew"
    OWNER = "owner"


SETS = {
    SetName.WHOLE: tuple(SHEETS),
    SetName.PERMIT: ("G-1", "G-2", "A-1", "A-2", "E-1", "E-3", "S-1", "S-2", "E-4", "E-5", "C-1"),
    SetName.UTILITY: ("G-1", "G-2", "E-1", "E-5"),
    SetName.CREW: ("A-1", "A-2", "S-1", "M-1", "C-1", "Q-1", "W-1", "T-1"),
    SetName.OWNER: ("H-1",),
}


def sheets_in(paper: Paperwork, name: str) -> tuple[str, ...]:
    """Return the sheets of a set, a shipped one or the person's own; NotFound if there is none."""
    own = next((s.sheets for s in paper.sets if s.name == name), None)
    if own is not None:
        return tuple(n for n in SHEETS if n in own)
    if name in set(SetName):
        return SETS[SetName(name)]
    raise NotFound("set of sheets", name)
