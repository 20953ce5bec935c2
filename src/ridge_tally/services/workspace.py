"""What every use case works with: sessions, the clock, the shelf and remembered results."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from datetime import datetime
from pathlib import Path
from threading import Event, Lock
from typing import TypeVar

from sqlalchemy.orm import Session, sessionmaker

from ridge_tally.catalogue.shelf import Shelf, with_own
from ridge_tally.services.runs import Runs
from ridge_tally.store.database import reading
from ridge_tally.store.equipment import own_documents

Value = TypeVar("Value")


class Remembered:
    """A bounded memory of computed values by their inputs; safe to share between threads."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._values: OrderedDict[Hashable, object] = OrderedDict()
        self._under_way: dict[Hashable, Event] = {}
        self._lock = Lock()

    def clear(self) -> None:
        """Forget everything."""
        with self._lock:
            self._values.clear()

    def __contains__(self, key: Hashable) -> bool:
        """Return whether the value for the key is remembered."""
        with self._lock:
            return key in self._values

    def get(self, key: Hashable, compute: Callable[[], Value]) -> Value:
        """Return the value for the key, computing it when it is not remembered.

        Asked for by several at once it is computed once; the others wait for it.
        """
        while True:
            with self._lock:
                if key in self._values:
                    self._values.move_to_end(key)
                    return self._values[key]  # type: ignore[return-value]
                under_way = self._under_way.get(key)
                if under_way is None:
                    mine = self._under_way[key] = Event()
                    break
            under_way.wait()
        try:
            value = compute()
            with self._lock:
                self._values[key] = value
                while len(self._values) > self._most:
                    self._values.popitem(last=False)
        finally:
            # Where it failed, who waited tries by itself and is told the same.
            with self._lock:
                del self._under_way[key]
            mine.set()
        return value


@dataclass(frozen=True, slots=True)
class Workspace:
    """Handed to every use case; holds no state of a request.  ``pictures`` is their folder.

    ``samples`` is the shipped equipment; the shelf is that and the firm's own.
    """

    sessions: sessionmaker[Session]
    clock: Callable[[], datetime]
    samples: Shelf
    pictures: Path
    own: Remembered = field(default_factory=lambda: Remembered(1))
    years: Remembered = field(default_factory=lambda: Remembered(32))
    weather: Remembered = field(default_factory=lambda: Remembered(24))
    guesses: Remembered = field(default_factory=lambda: Remembered(64))
    shades: Remembered = field(default_factory=lambda: Remembered(32))
    runs: Runs = field(default_factory=Runs)
    fills: Remembered = field(default_factory=lambda: Remembered(128))
    # Strings with their light and free curves, some ten megabytes each.
    loaded: Remembered = field(default_factory=lambda: Remembered(6))
    # Tables tilted with the seasons have a sky for each tilt.
    skies: Remembered = field(default_factory=lambda: Remembered(8))
    # A fine sky's light is four times as long: some fifteen megabytes for thirty modules.
    fine_skies: Remembered = field(default_factory=lambda: Remembered(4))
    fine_loaded: Remembered = field(default_factory=lambda: Remembered(3))
    # Words of the sky over modules, a megabyte each.
    words: Remembered = field(default_factory=lambda: Remembered(96))

    @property
    def shelf(self) -> Shelf:
        """Sample and own equipment."""
        return self.own.get("shelf", lambda: with_own(self.samples, self._own_documents()))

    def _own_documents(self) -> tuple[tuple[str, str, str], ...]:
        with reading(self.sessions) as session:
            return own_documents(session)

    @property
    def weather_files(self) -> Path:
        """The folder of kept weather files, beside the pictures."""
        return self.pictures.parent / "weather"

    @property
    def meter_files(self) -> Path:
        """The folder of kept files of metered use and power, beside the pictures."""
        return self.pictures.parent / "meter"

    def forget_weather(self) -> None:
        """Forget what was worked out while a weather file was not kept here yet."""
        for memory in (self.years, self.weather, self.guesses, self.shades, self.fills):
            memory.clear()
        for memory in (self.loaded, self.skies, self.words, self.fine_skies, self.fine_loaded):
            memory.clear()
