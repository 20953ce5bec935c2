"""The collector of a process that serves: what was loaded at the start stays, and is not looked at again."""

import gc

# Young things are looked through after so many new ones, all things after so many rounds of that.
YOUNG, ROUNDS = 50_000, 50


def settle() -> None:
    """Keep what is loaded out of every later collection.

    A pass over all of it takes a tenth of a second, in which no edit is answered.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(YOUNG, 20, ROUNDS)
