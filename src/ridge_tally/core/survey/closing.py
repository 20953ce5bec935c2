"""Whether the sides of an outline, walked as drawn, come back to the start; who is to blame if not."""

from dataclasses import dataclass
from functools import lru_cache

from ridge_tally.core.job.survey import Outline, ReadingKind
from ridge_tally.core.survey.adjustment import Traverse, walk_traverse
from ridge_tally.core.survey.outline import adjusted_if_square, adjusted_outline, sketch_m
from ridge_tally.core.survey.readings import turn_at


def drawn_headings_deg(outline: Outline) -> tuple[float, ...] | None:
    """Return each side's heading as square corners and parallels give it.

    Degrees anticlockwise from the eave; ``None`` when some side's heading is not drawn.
    """
    sketch, count = sketch_m(outline.corners), len(outline.corners)
    links: list[tuple[int, int, float]] = []
    for reading in outline.readings:
        if reading.left_out:
            continue
        if reading.kind is ReadingKind.RIGHT_ANGLE:
            corner = reading.at[0]
            turn = 90.0 if turn_at(sketch, corner) > 0 else -90.0
            links.append(((corner - 1) % count, corner, turn))
        if reading.kind is ReadingKind.PARALLEL:
            a, b = reading.at
            ends = [(sketch[(e + 1) % count] - sketch[e]) for e in (a, b)]
            links.append((a, b, 0.0 if float(ends[0] @ ends[1]) > 0 else 180.0))
    found = {0: 0.0}
    while True:
        more = {b: found[a] + turn for a, b, turn in links if a in found and b not in found}
        more |= {a: found[b] - turn for a, b, turn in links if b in found and a not in found}
        if not more:
            break
        found |= more
    return tuple(found[i] for i in range(count)) if len(found) == count else None


@lru_cache(maxsize=512)
def walked(outline: Outline) -> Traverse | None:
    """Return the misclosure of the sides as read along their drawn headings.

    ``None`` when a side was not read or a heading is not drawn: then nothing can be walked.
    """
    headings = drawn_headings_deg(outline)
    sides = {
        r.at[0]: r.taped.value_m
        for r in outline.readings
        if r.kind is ReadingKind.SIDE and r.taped is not None and not r.left_out
    }
    if headings is None or len(sides) < len(outline.corners):
        return None
    return walk_traverse(tuple(sides[i] for i in range(len(sides))), headings)


@dataclass(frozen=True, slots=True)
class Suspicion:
    """The reading most likely wrong, counted among those in use, and what it should have read.

    ``predicted_m`` is ``None`` for a mark.  ``if_square``: only if corners drawn square are so.
    """

    reading: int
    predicted_m: float | None
    if_square: bool


def suspicion(outline: Outline, fair_ratio: float) -> Suspicion | None:
    """Return which reading is most likely wrong, if one stands out.

    Notes
    -----
    Corners drawn square may be a little off, and then a wrong side bends them without standing
    out.  Where the walk along the drawn headings is worse than 1 in ``fair_ratio``, the corners
    are therefore taken as truly square, and the readings are asked again.
    """
    adjusted = adjusted_outline(outline)
    if adjusted.missing:
        return None
    if adjusted.suspect is not None:
        return Suspicion(adjusted.suspect, adjusted.predicted_m, if_square=False)
    walk = walked(outline)
    if walk is None or walk.ratio >= fair_ratio:
        return None
    square = adjusted_if_square(outline)
    if square.suspect is None:
        return None
    return Suspicion(square.suspect, square.predicted_m, if_square=True)
