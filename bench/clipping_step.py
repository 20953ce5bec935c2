"""How far the year's clipping is from measured minutes and from cloudless, hazy years."""

from collections.abc import Callable

from reference.test_minutes import HAZES, RATIOS, Minutes, broken_cloud, clear_day, cloudless


def run(_median_s: Callable[..., float]) -> None:
    """Print the energy behind the limit against the minutes' own, by DC over AC."""
    records: list[tuple[str, Minutes]] = [
        ("month of broken cloud (tuned on)", broken_cloud()),
        ("clear winter day", clear_day()),
        *((f"cloudless year, turbidity {haze:g}", cloudless(haze)) for haze in HAZES),
    ]
    print("energy over the minutes' own, per cent, at DC over AC " + ", ".join(map(str, RATIOS)))
    for name, found in records:
        for kind, cloud in (("ours", found.beam.cloud), ("even hours", None)):
            told = " ".join(f"{found.over_frac(r, cloud) * 100:+.2f}" for r in RATIOS)
            print(f"  {name:<34} {kind:<10} {told}")
