"""Long work that goes on beside the requests: seen as it goes, cancelled when it is not wanted.

One run at a time for each place: a newer one there cancels the one before it.  One that nobody
looks at any more rests, and goes on from there when somebody does.
"""

import math
from collections.abc import Callable, Generator, Hashable, Iterator
from dataclasses import dataclass
from threading import Event, Lock, Thread, main_thread
from time import monotonic
from typing import Generic, TypeVar

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.services.aside import stand_back

Step = TypeVar("Step")
# A page that shows a run asks again several times a second.
UNWATCHED_S = 6.0
# Between a first step that somebody waited for and the rest: the drawing goes first.
BREATH_S = 0.25


@dataclass(frozen=True, slots=True)
class Seen(Generic[Step]):
    """How a run stands: its newest step, and whether it goes on, was cancelled or failed."""

    step: Step | None
    running: bool
    cancelled: bool
    problem: str = ""


class _Run:
    def __init__(
        self,
        content: Hashable,
        steps: Callable[[], Iterator[object]],
        unwatched_s: float,
        clock_s: Callable[[], float],
        kin: Hashable,
    ) -> None:
        self.content, self.kin = content, kin
        self._breath_s = 0.0
        self.looked_at, self.looked = clock_s(), Event()
        self._unwatched_s, self._clock_s = unwatched_s, clock_s
        self.stop, self.first = Event(), Event()
        self.seen: Seen[object] = Seen(None, running=True, cancelled=False)
        self._steps = _begun_late(steps)
        self._step: object | None = None

    def first_here(self) -> None:
        """Work out the first step on the thread that asks: it goes before all that stands back."""
        problem = "It broke off."
        try:
            self._step = next(self._steps, None)
            problem = ""
        except RidgeTallyError as error:
            problem = str(error)
        finally:
            self.seen = Seen(self._step, running=not problem, cancelled=False, problem=problem)
            self._breath_s = BREATH_S
            self.first.set()

    def go(self) -> None:
        stand_back()
        self.stop.wait(self._breath_s)
        step = self._step
        problem = "It broke off."
        try:
            self._rest_unwatched()
            for step in self._steps if not self.stop.is_set() else ():
                self.seen = Seen(step, running=True, cancelled=False)
                self.first.set()
                self._rest_unwatched()
                if self.stop.is_set():
                    break
            problem = ""
        except RidgeTallyError as error:
            problem = str(error)
        except RuntimeError:
            # The program ends meanwhile: no pool takes work any more, and nobody looks.
            if main_thread().is_alive():
                raise
        finally:
            # Whatever happened, what it holds is let go, and nobody waits for it any longer.
            self._steps.close()
            self.seen = Seen(step, running=False, cancelled=self.stop.is_set(), problem=problem)
            self.first.set()

    def look(self) -> None:
        """Note that somebody looks; what rested goes on."""
        self.looked_at = self._clock_s()
        self.looked.set()

    def let_rest(self) -> None:
        """Rest after the step that is being worked out, until somebody looks again."""
        self.looked_at = -math.inf

    def end(self) -> None:
        """Stop after the step that is being worked out."""
        self.stop.set()
        self.looked.set()

    def _rest_unwatched(self) -> None:
        self.looked.clear()
        if self._clock_s() - self.looked_at > self._unwatched_s and not self.stop.is_set():
            self.looked.wait()


def _begun_late(steps: Callable[[], Iterator[object]]) -> Generator[object, None, None]:
    yield from steps()


class Runs:
    """The runs of a workspace; safe to share between threads."""

    def __init__(
        self,
        most: int = 16,
        first_step_s: float = 0.4,
        unwatched_s: float = UNWATCHED_S,
        clock_s: Callable[[], float] = monotonic,
    ) -> None:
        self._most, self._first_step_s = most, first_step_s
        self._unwatched_s, self._clock_s = unwatched_s, clock_s
        self._runs: dict[Hashable, _Run] = {}
        self._lock = Lock()

    def look(
        self,
        place: Hashable,
        content: Hashable,
        steps: Callable[[], Iterator[Step]],
        *,
        first_here: bool = False,
        kin: Hashable = None,
    ) -> Seen[Step]:
        """Return how the run of that content stands at its place, begun if it is not there.

        Parameters
        ----------
        place : hashable
            Where the run belongs; another content there cancels what ran.
        steps : callable
            Yields the steps; read only when the run is begun.
        first_here : bool
            Whether the first step is short enough to be worked out by whoever asks first.
        kin : hashable
            What it is about: an older run about the same rests once a newer one begins.
        """
        begun = False
        with self._lock:
            run = self._runs.get(place)
            if run is None or run.content != content:
                begun = True
                if run is not None:
                    run.end()
                for older in self._runs.values():
                    if kin is not None and older.kin == kin:
                        older.let_rest()
                run = _Run(content, steps, self._unwatched_s, self._clock_s, kin)
                self._runs.pop(place, None)
                self._runs[place] = run
                while len(self._runs) > self._most:
                    self._runs.pop(next(iter(self._runs))).end()
        if begun:
            if first_here:
                run.first_here()
            if run.seen.running:
                Thread(target=run.go, daemon=True).start()
        run.look()
        run.first.wait(self._first_step_s)
        return run.seen  # type: ignore[return-value]

    def cancel(self, place: Hashable) -> None:
        """Stop what runs there; what it has found stays."""
        with self._lock:
            run = self._runs.get(place)
        if run is not None:
            run.end()
