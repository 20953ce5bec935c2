"""Work that any edit goes before: a few threads that stand back do it, one after another."""

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from threading import get_native_id
from typing import TypeVar

Found = TypeVar("Found")
# How much later than a request such work is served; see nice(1).
BEHIND = 10
AT_ONCE = 2


def stand_back() -> None:
    """Let requests go first: this thread, and those it begins, are served after them."""
    with suppress(AttributeError, OSError):
        os.setpriority(os.PRIO_PROCESS, get_native_id(), BEHIND)


class Aside:
    """The threads; safe to share, never to be asked from one of its own."""

    def __init__(self) -> None:
        self._threads = ThreadPoolExecutor(AT_ONCE, "aside", stand_back)

    def do(self, work: Callable[[], Found]) -> Found:
        """Return what the work returns, or raise what it raises, once its turn has come."""
        return self._threads.submit(work).result()
