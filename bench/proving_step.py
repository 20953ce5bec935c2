"""Proving's speed: what meters should read at a moment, and causes ranked with the next test."""

from collections.abc import Callable
from datetime import date, datetime, timedelta

from jobs import SHELF, WORKED_OUT
from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.rig import Bench, Kind, Probe
from ridge_tally.core.proving.weighing import Read
from ridge_tally.demo.tollgate import tollgate
from ridge_tally.editing.design import design_for
from ridge_tally.formats.production_file import read_production
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.diagnosis import diagnosed
from ridge_tally.simulation.moment import Asked, day_under
from ridge_tally.studies.proving.gateway import TROUBLES, Gateway, Trouble, sound_log
from ridge_tally.studies.proving.production import judged_log, terms_of
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
    content = _year_of_five_minutes(design)

    def judge() -> None:
        log = read_production(content, "year.csv", terms_of(design))
        judged_log(WORKED_OUT, design, log)

    year_s = median_s(judge)
    print(f"a year of 5-minute data read and judged: {year_s:.1f} s (aim under 5 s)")


def _year_of_five_minutes(design: Design) -> bytes:
    """Return a year's log with its light, each quarter hour written three times."""
    gateway = Gateway(date(2025, 1, 1), 365, TROUBLES.index(Trouble.DIRT))
    log, _ = sound_log(WORKED_OUT, design, gateway)
    light = log.light_w_per_m2
    assert light is not None
    start, rows = datetime(2025, 1, 1), ["Time,AC power W,POA W/m²"]  # noqa: DTZ001
    for n, (watts, sun) in enumerate(zip(log.power_w.ravel(), light.ravel(), strict=True)):
        for k in range(3):
            when = start + timedelta(minutes=15 * n + 5 * k)
            rows.append(f"{when:%Y-%m-%d %H:%M},{watts:.0f},{sun:.0f}")
    return "\n".join(rows).encode()
