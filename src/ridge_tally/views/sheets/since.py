"""A set held against earlier issues of its sheets: clouds round what is new, and which sheets have any."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace

from ridge_tally.core.sheets.clouds import SheetMarks, changed_boxes, clouds, marks_of
from ridge_tally.core.sheets.paper import ground_of_size
from ridge_tally.core.sheets.scene import Layer
from ridge_tally.views.sheets.plan_set import SetSheet


@dataclass(frozen=True, slots=True)
class Before:
    """What stood on sheets when they last left the house, by number; ``number``: of the coming issue."""

    marks: Mapping[str, SheetMarks]
    number: int


def family(number: str) -> str:
    """Return what a sheet of several is a part of: ``E-3`` of ``E-3.2``."""
    return number.partition(".")[0]


def clouded(sheets: Iterable[SetSheet], before: Before) -> Iterator[SetSheet]:
    """Yield the sheets, with clouds round what changed on those that left the house before."""
    words: dict[str, Counter[str]] = defaultdict(Counter)
    for number, marks in before.marks.items():
        words[family(number)].update(marks.words)
    for one in sheets:
        if family(one.number) not in words:
            yield one
            continue
        scene = one.scene
        area = ground_of_size(scene.width, scene.height).free
        old = before.marks.get(one.number, SheetMarks((), ()))
        boxes = changed_boxes(scene, area, words[family(one.number)], Counter(old.drawn))
        added = tuple(clouds(boxes, before.number, scene.frame))
        yield replace(one, scene=replace(scene, items=(*scene.items, *added)))


def is_clouded(one: SetSheet) -> bool:
    """Return whether something on a sheet changed since it last left the house."""
    return any(item.layer is Layer.CLOUD for item in one.scene.items)


def stood_on(sheets: Iterable[SetSheet]) -> dict[str, SheetMarks]:
    """Return what stands on each sheet, for the next issue."""
    return {
        s.number: marks_of(s.scene, ground_of_size(s.scene.width, s.scene.height).free)
        for s in sheets
    }
