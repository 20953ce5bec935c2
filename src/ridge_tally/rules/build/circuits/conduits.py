"""What conductors are drawn into: the smallest conduit of each leg that takes them."""

from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.document import CodePack
from ridge_tally.core.working import Check, Given, LimitKind, Source, check
from ridge_tally.rules import tables
from ridge_tally.rules.build.circuits.conductors import Sized
from ridge_tally.rules.build.circuits.legs import Leg
from ridge_tally.rules.build.circuits.wire import (
    conduit_for,
    conduits,
    fill_share,
    over_all_mm2,
)
from ridge_tally.rules.design import Design


@dataclass(frozen=True, slots=True)
class Drawn:
    """A leg's conductors in their conduit: how many, what they fill; ``size`` empty where none takes them."""

    leg: Leg
    conductors: int
    filled_mm2: float
    size: str
    inside_mm2: float
    share: float


def conduit_told(design: Design, size: str) -> str:
    """Return a conduit as people write it, by its family's sizes: ``3/4" metal``, ``25 mm metal``."""
    mark = '"' if design.job.site.code_pack is CodePack.US else " mm"
    return f"{size}{mark} {design.option.wiring.conduit}"


def drawn_in(design: Design, sized: tuple[Sized, ...]) -> tuple[Drawn, ...]:
    """Return what lies in the conduit of each leg; legs whose conductors are not known left out."""
    legs: dict[str, Leg] = {leg.id: leg for c in sized for leg in c.circuit.legs}
    pack, kind = design.job.site.code_pack, design.option.wiring.conduit
    found = []
    for leg in legs.values():
        mine = [c for c in sized if leg in c.circuit.legs]
        if any(c.used is None for c in mine):
            continue
        count, filled, earth_mm2 = 0, 0.0, 0.0
        for c in mine:
            if c.used is None:
                continue
            many = c.circuit.count * c.circuit.conductors
            count += many
            filled += many * over_all_mm2(c.wire, c.used.size)
            if c.earth:
                earth_mm2 = max(earth_mm2, over_all_mm2(c.wire, c.earth))
        # One conductor to earth serves all that lie together.
        count, filled = count + 1, filled + earth_mm2
        fits = conduit_for(pack, kind, filled, count)
        largest = conduits(pack, kind)[-1]
        size, inside = ("", largest[1]) if fits is None else (fits[0], fits[1].value or 0.0)
        found.append(Drawn(leg, count, filled, size, inside, fill_share(pack, count)))
    return tuple(found)


def conduit_checks(design: Design, sized: tuple[Sized, ...]) -> Iterator[Check]:
    """Yield for each leg what its conduit takes."""
    table, pack = tables.load("conduit-fill"), design.job.site.code_pack.value
    fill = Source(table.text("document", pack=pack), "", table.source.status)
    for drawn in drawn_in(design, sized):
        told = drawn.size or "the largest of the table"
        yield check(
            rule_id="wiring.conduit",
            title="Conduit takes its conductors",
            subject=drawn.leg.name,
            kind=LimitKind.STOP,
            formula="filled / inside * 100",
            givens=(
                Given("filled", f"{drawn.conductors} conductors over their insulation",
                      drawn.filled_mm2, "mm²", "tables of wire"),
                Given("inside", f"inside, {told} {design.option.wiring.conduit} conduit",
                      drawn.inside_mm2, "mm²", "table of conduit"),
            ),
            value=drawn.filled_mm2 / drawn.inside_mm2 * 100,
            symbol="fill",
            unit="%",
            relation="<=",
            limit=Given("most", "may be filled", drawn.share * 100, "%", fill.document),
            source=fill,
            reached_at=f"{told} {design.option.wiring.conduit}",
        )  # fmt: skip
