"""Stand-ins for a string meter, a light meter, a thermometer and a gateway: they read a system's bench."""

from zlib import crc32

import numpy as np

from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.faults import Planted, with_faults
from ridge_tally.core.proving.rig import Bench, Kind, Lit, Probe, Rig, Value
from ridge_tally.core.proving.weighing import scaled, sigma_of

# Good instruments err by a third of what is allowed for; light drifts while one reads on.
OF_SIGMA = 0.35


def shown(
    rig: Rig, lit: Lit, faults: tuple[Planted, ...], test: Probe, seed: int, turn: int = 0
) -> Value:
    """Return what an instrument shows on a system with faults; the same seed and turn, the same.

    Words are told as they are; a number carries a small error of its own.
    """
    value = Bench(with_faults(rig, faults), lit).read(test)
    if isinstance(value, str):
        return value
    own = crc32(f"{test.kind.value} {test.at}".encode())
    noise = float(np.random.default_rng([seed, turn, own]).normal(0.0, OF_SIGMA))
    sigma = sigma_of(test.kind, value, MeterErrors())
    if test.kind in (Kind.INSULATION, Kind.INSULATION_OF_ALL):
        return float(value * 10 ** (noise * sigma))
    if test.kind in (Kind.COUNT, Kind.CLOCK):
        return value
    return float(scaled(test.kind, value) + noise * sigma)
