"""How long somebody waits."""

import time
from collections.abc import Callable


def after_s(limit_s: float) -> Callable[[], bool]:
    """Return what tells that so many seconds have passed since now."""
    ends_s = time.monotonic() + limit_s
    return lambda: time.monotonic() > ends_s
