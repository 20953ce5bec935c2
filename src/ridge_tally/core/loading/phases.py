"""Sharing sources out over the phases of a service."""

from collections.abc import Iterable


def shared_out(sources: Iterable[tuple[float, int]], phases: int) -> list[float]:
    """Return what is on each phase: sources, each with its own phases, the largest first.

    Each goes onto the phases that have least, in equal parts; the unit is that of the sources.
    """
    loads = [0.0] * phases
    for whole, own_phases in sorted(sources, key=lambda s: (-s[1], -s[0])):
        lowest = sorted(range(phases), key=lambda p: loads[p])[: min(own_phases, phases)]
        for phase in lowest:
            loads[phase] += whole / len(lowest)
    return loads
