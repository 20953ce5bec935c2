"""Proving's speed: what meters should read at a moment, and causes ranked with the next test."""

from collections.abc import Callable

from jobs import SHELF, WORKED_OUT
from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.rig import Bench, Kind, Probe
from ridge_tally.core.proving.weighing import Read
from ridge_tally.demo.tollgate import tollgate
from ridge_tally.editing.design import design_for
from ridge_tally.rules.proving.diagnosis import diagnosed
from ridge_tally.simulation.moment import Asked, day_under
from ridge_tally.studies.proving.rig import rig_at

Median = Callable[..., float]
PROBES = [Probe(k, n) for n in range(3) for k in (Kind.VOC, Kind.V_AT_WORK, Kind.POWER)]


def run(median_s: Median) -> None:
    """Print Proving's figures."""
    job = tollgate(SHELF)
    design, asked = design_for(job, job.options[0]), Asked(171, 720)

    def due() -> list[float | str]:
        bench = Bench(*rig_at(day_under(WORKED_OUT, design, asked, whole=False)))
        return [bench.read(p) for p in PROBES]

    values = due()
    rig, lit = rig_at(day_under(WORKED_OUT, design, asked, whole=False))
    # A module short on the first string.
    reads = [
        Read(p, v * 8 / 9 if p.at == 0 and isinstance(v, float) else v)
        for p, v in zip(PROBES, values, strict=True)
    ]
    print(f"expected readings at a moment: {median_s(due) * 1e3:.0f} ms (aim under 50 ms)")
    ranked = median_s(lambda: diagnosed(rig, reads, MeterErrors(), lit))
    print(f"causes ranked and the next test: {ranked * 1e3:.0f} ms (aim under 300 ms)")
