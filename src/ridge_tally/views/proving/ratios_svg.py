"""Every day of a log by what it made of what was due, drawn for paper."""

from collections.abc import Iterator

from ridge_tally.core.proving.logged.days import LogStanding
from ridge_tally.studies.proving.production import ProductionView

WIDE, HIGH, LEFT, FOOT = 700.0, 130.0, 36.0, 16.0
MOST = 1.25
INK = {
    LogStanding.FINE: "#1f6f5f", LogStanding.LOOK: "#7d5200", LogStanding.ACT: "#a8201a",
    LogStanding.UNJUDGED: "#8b9494",
}  # fmt: skip
RATIOS_TOLD = (
    "Made of what was due, day by day; shaded: the band that is fine. Days that are not judged are "
    "left out."
)


def ratios_svg(found: ProductionView) -> str:
    """Return the days as an SVG element, from numbers alone; nothing while no day is judged."""
    judged = [(n, d) for n, d in enumerate(found.days) if d.ratio is not None]
    if not judged:
        return ""
    parts = "".join(_parts(found, [(n, float(d.ratio or 0), d.standing) for n, d in judged]))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDE:g} {HIGH:g}" '
        f'width="186mm" font-size="9" fill="#566465">{parts}</svg>'
    )


def _parts(found: ProductionView, judged: list[tuple[int, float, LogStanding]]) -> Iterator[str]:
    least = min(0.75, 0.25 * int(min(r for _, r, _ in judged) / 0.25))

    def y(ratio: float) -> float:
        held = min(max(ratio, least), MOST)
        return 6 + (MOST - held) / (MOST - least) * (HIGH - FOOT - 6)

    def x(day: int) -> float:
        return LEFT + 4 + day / max(1, len(found.days) - 1) * (WIDE - LEFT - 8)

    high, low = y(1 + found.fine_band), y(1 - found.fine_band)
    yield f'<rect x="{LEFT}" y="{high:.1f}" width="{WIDE - LEFT}" height="{low - high:.1f}" fill="#dbeae6"/>'
    level = least
    while level <= MOST:
        yield f'<line x1="{LEFT}" x2="{WIDE}" y1="{y(level):.1f}" y2="{y(level):.1f}" stroke="#d9d4c7"/>'
        yield f'<text x="{LEFT - 4}" y="{y(level) + 3:.1f}" text-anchor="end">{level * 100:.0f} %</text>'
        level += 0.25
    for n, day in enumerate(found.days):
        if day.day.day == 1:
            yield f'<text x="{x(n):.1f}" y="{HIGH - 4}" text-anchor="middle">1 {day.day:%b}</text>'
    for n, ratio, standing in judged:
        yield f'<circle cx="{x(n):.1f}" cy="{y(ratio):.1f}" r="1.9" fill="{INK[standing]}"/>'
