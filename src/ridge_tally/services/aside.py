"""Work that any edit goes before: a few threads that stand back do it, one after another."""

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor, wait
from contextlib import suppress
from threading import get_native_id
from typing import TypeVar

from ridge_tally.core.errors import GivenUp

Found = TypeVar("Found")
# How much later than an edit such work is served, and what somebody waits for; see nice(1).
BEHIND, A_LITTLE_BEHIND = 10, 5
AT_ONCE = 2
# How often it is looked whether anybody still waits.
LOOK_S = 0.05


def stand_back(by: int = BEHIND) -> None:
    """Let requests go first: this thread, and those it begins, are served after them."""
    with suppress(AttributeError, OSError):
        os.setpriority(os.PRIO_PROCESS, get_native_id(), by)


class Aside:
    """The threads; safe to share, never to be asked from one of its own."""

    def __init__(self) -> None:
        self._threads = ThreadPoolExecutor(AT_ONCE, "aside", stand_back)

    def do(self, work: Callable[[], Found], given_up: Callable[[], bool] = lambda: False) -> Found:
        """Return what the work returns, or raise what it raises, once its turn has come.

        Parameters
        ----------
        given_up : callable
            Whether nobody waits for it any more: a turn that has not come yet passes on then, as
            when module after module is clicked and each click asks for a year.

        Raises
        ------
        GivenUp
            If nobody waits any more.
        """
        turn = self._threads.submit(work)
        while not wait([turn], LOOK_S).done:
            if given_up() and turn.cancel():
                raise GivenUp
        return turn.result()
