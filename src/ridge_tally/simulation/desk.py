"""What simulations and studies work with: the shelf, files kept beside the jobs, remembered results."""

from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path

from ridge_tally.catalogue.shelf import Shelf, with_own
from ridge_tally.simulation.remembered import Remembered

OwnRows = tuple[tuple[str, str, str], ...]


@dataclass(frozen=True, slots=True)
class Desk:
    """Holds no state of a request; safe to share between threads.

    ``samples`` is the shipped equipment, ``own_rows`` reads the firm's own; the shelf is both.
    ``kept`` is the folder of kept files.
    """

    samples: Shelf
    own_rows: Callable[[], OwnRows]
    kept: Path
    own: Remembered = field(default_factory=lambda: Remembered(1))
    years: Remembered = field(default_factory=lambda: Remembered(32))
    weather: Remembered = field(default_factory=lambda: Remembered(24))
    guesses: Remembered = field(default_factory=lambda: Remembered(64))
    shades: Remembered = field(default_factory=lambda: Remembered(32))
    fills: Remembered = field(default_factory=lambda: Remembered(128))
    # Strings with their light and free curves, some ten megabytes each.
    loaded: Remembered = field(default_factory=lambda: Remembered(6))
    # Tables tilted with the seasons have a sky for each tilt.
    skies: Remembered = field(default_factory=lambda: Remembered(8))
    # What readings pointed to, one more at a time.
    hunts: Remembered = field(default_factory=lambda: Remembered(96))
    # Logs of gateways as they are judged, some ten megabytes each.
    logs: Remembered = field(default_factory=lambda: Remembered(4))
    # Words of the sky over modules, a megabyte each.
    words: Remembered = field(default_factory=lambda: Remembered(96))

    @property
    def shelf(self) -> Shelf:
        """Sample and own equipment."""
        return self.own.get("shelf", lambda: with_own(self.samples, self.own_rows()))

    @property
    def weather_files(self) -> Path:
        """The folder of kept weather files."""
        return self.kept / "weather"

    @property
    def meter_files(self) -> Path:
        """The folder of kept files of metered use and power."""
        return self.kept / "meter"

    def forget_weather(self) -> None:
        """Forget what was worked out while a weather file was not kept here yet."""
        for memory in (self.years, self.weather, self.guesses, self.shades, self.fills):
            memory.clear()
        for memory in (self.loaded, self.skies, self.words, self.logs):
            memory.clear()
