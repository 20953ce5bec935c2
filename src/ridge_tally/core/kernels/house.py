"""A house step by step: sun to load, to battery, to grid, and back."""

from typing import Any

import numba
import numpy as np

compiled = numba.njit(cache=True, nogil=True)

# Columns of the answer, in W.
FLOWS = ("direct", "given", "bought", "sent", "sold", "held", "from_clipped", "from_surplus")
KEEPS, SELLS = 1, 2


@compiled
def run(
    made_w: Any,
    clipped_w: Any,
    held_within_w: Any,
    load_w: Any,
    event: Any,
    hours: float,
    limit_w: float,
    export_w: float,
    usable_wh: float,
    power_w: float,
    in_frac: float,
    out_frac: float,
    dc_side: Any,
) -> tuple[Any, Any]:
    """Return (n, 8) W by ``FLOWS``, and (n,) Wh in the battery after each step.

    ``made_w``: what the inverters can give, night draw negative.  ``event``: where the charge is
    kept for an event, and where it is sold.  On the DC side the battery takes what the limit
    cut, and gives through what is left of ``limit_w``; beside it it does neither.
    ``held_within_w``: what the export limit keeps back within a step beyond what its mean tells,
    where nothing of it goes into a battery.
    """
    n = made_w.size
    out = np.zeros((n, 8))
    charge = np.zeros(n)
    stored = 0.0
    for i in range(n):
        sun = max(made_w[i], 0.0)
        load = load_w[i] + max(-made_w[i], 0.0)
        direct = min(sun, load)
        surplus, need = sun - direct, load - direct
        from_clipped = from_surplus = given = sold = 0.0
        if usable_wh > 0:
            spare = surplus + (clipped_w[i] if dc_side else 0.0)
            room = (usable_wh - stored) / (in_frac * hours)
            taken = max(0.0, min(spare, power_w, room))
            # What the limit would cut costs nothing to take.
            from_clipped = min(taken, clipped_w[i]) if dc_side else 0.0
            from_surplus = taken - from_clipped
            stored += taken * in_frac * hours
            head = max(0.0, limit_w - sun) if dc_side else power_w
            most = max(0.0, min(power_w - taken, head, stored * out_frac / hours))
            if event[i] != KEEPS:
                given = min(need, most)
            if event[i] == SELLS:
                sent = min(surplus - from_surplus, export_w)
                sold = max(0.0, min(most - given, export_w - sent))
            stored -= (given + sold) / out_frac * hours
        left = surplus - from_surplus
        sent = min(left, export_w)
        if surplus > 0.0:
            sent = max(0.0, sent - held_within_w[i] * left / surplus)
        out[i, 0] = direct
        out[i, 1] = given
        out[i, 2] = need - given
        out[i, 3] = sent
        out[i, 4] = sold
        out[i, 5] = left - sent
        out[i, 6] = from_clipped
        out[i, 7] = from_surplus
        charge[i] = stored
    return out, charge


def warm() -> None:
    """Compile, or load what was compiled."""
    one = np.ones(1)
    run(one, one, one, one, np.zeros(1, np.int8), 1.0, 1.0, 1.0, 1.0, 1.0, 0.9, 0.9, True)
