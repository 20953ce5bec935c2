"""Work that edits go before."""

from concurrent.futures import ThreadPoolExecutor
from threading import Event

import pytest

from ridge_tally.core.errors import GivenUp, OutOfRange
from ridge_tally.services.aside import AT_ONCE, Aside

NEVER_S = 600.0


def test_so_much_is_worked_out_at_once_and_the_rest_has_its_turn() -> None:
    aside, go, given_up = Aside(), Event(), []
    begun = [Event() for _ in range(AT_ONCE + 1)]

    def work(number: int) -> int:
        begun[number].set()
        go.wait(NEVER_S)
        return number

    with ThreadPoolExecutor(AT_ONCE + 1) as asking:
        answers = []
        for number in range(AT_ONCE):
            answers.append(asking.submit(aside.do, lambda n=number: work(n)))
            assert begun[number].wait(NEVER_S)
        answers.append(asking.submit(aside.do, lambda: work(AT_ONCE)))
        # One that nobody waits for any more passes its turn on.
        with pytest.raises(GivenUp):
            aside.do(lambda: given_up.append("begun all the same"), lambda: True)
        assert not begun[AT_ONCE].is_set()
        go.set()
        assert [answer.result(NEVER_S) for answer in answers] == list(range(AT_ONCE + 1))
    assert given_up == []


def test_what_it_raises_reaches_who_asked() -> None:
    def failing() -> None:
        raise OutOfRange("Roof", 3, "less")

    with pytest.raises(OutOfRange, match="Roof reads 3"):
        Aside().do(failing)
