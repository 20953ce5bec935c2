"""Ridge Tally: lay out, check and simulate small grid-tied solar arrays."""

__version__ = "0.1.0"
