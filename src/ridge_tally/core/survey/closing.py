"""Whether the sides of an outline, walked in the directions they are drawn, come back to the start."""

from ridge_tally.core.job.survey import Outline, ReadingKind
from ridge_tally.core.survey.adjustment import Traverse, walk_traverse
from ridge_tally.core.survey.outline import sketch_m
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
