"""What must hold of what lies on the measured-curve bench."""

from ridge_tally.core.job.bench import Bench
from ridge_tally.rules.ranges import Range, require_ranges

MOST_TERMS = 6


def require_sound_bench(bench: Bench | None) -> None:
    """Raise OutOfRange on the first figure of the bench that cannot be."""
    if bench is None:
        return
    ranges: list[Range] = [
        ("Watts of the test module", bench.module_w, 5.0, 2000.0),
        ("Limit of the bench, kW", bench.limit_kw, 0.05, 500.0),
        ("Groups on the bench", len(bench.terms), 0, MOST_TERMS),
    ]
    ranges += [
        (f"Group {n} of the bench, W", t.p_dc_w, 0.0, 500_000.0)
        for n, t in enumerate(bench.terms, start=1)
    ]
    require_ranges(ranges)
