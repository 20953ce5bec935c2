"""What must hold of what lies on the measured-curve bench."""

from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.bench import Bench

MOST_TERMS = 6


def require_sound_bench(bench: Bench | None) -> None:
    """Raise OutOfRange on the first figure of the bench that cannot be."""
    if bench is None:
        return
    ranges: list[tuple[str, float | None, float, float]] = [
        ("Watts of the test module", bench.module_w, 5.0, 2000.0),
        ("Limit of the bench, kW", bench.limit_kw, 0.05, 500.0),
        ("Groups on the bench", len(bench.terms), 0, MOST_TERMS),
    ]
    ranges += [
        (f"Group {n} of the bench, W", t.p_dc_w, 0.0, 500_000.0)
        for n, t in enumerate(bench.terms, start=1)
    ]
    for field, value, low, high in ranges:
        if value is not None and not low <= value <= high:
            raise OutOfRange(field, value, f"between {low:g} and {high:g}")
