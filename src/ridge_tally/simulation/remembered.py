"""A bounded memory of computed values by their inputs."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Event, Lock
from typing import TypeVar

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
