"""What is remembered is computed once, however many ask, and forgotten oldest first."""

from threading import Barrier, Thread
from time import sleep

import pytest

from ridge_tally.core.errors import NotFound
from ridge_tally.simulation.remembered import Remembered


def test_several_who_ask_at_once_wait_for_one() -> None:
    memory, begun, together = Remembered(4), [], Barrier(6)
    got: list[int] = []

    def slow() -> int:
        begun.append(1)
        sleep(0.1)
        return 7

    def ask() -> None:
        together.wait()
        got.append(memory.get("a", slow))

    threads = [Thread(target=ask) for _ in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert got == [7] * 6
    assert len(begun) == 1


def test_a_failure_is_not_remembered_and_nobody_waits_for_ever() -> None:
    memory = Remembered(4)

    def fails() -> int:
        raise NotFound("module", "x")

    for _ in range(2):
        with pytest.raises(NotFound):
            memory.get("a", fails)
    assert memory.get("a", lambda: 3) == 3


def test_the_longest_unasked_is_forgotten_first() -> None:
    memory = Remembered(2)
    memory.get("a", lambda: 1)
    memory.get("b", lambda: 2)
    memory.get("a", lambda: 9)
    memory.get("c", lambda: 3)
    assert "a" in memory
    assert "b" not in memory
    assert memory.get("a", lambda: 9) == 1
