"""A packet as it is shown: what is wanted and there, the log, how it stands, what is amiss."""

from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.packet import Addressee, LogEntry, Wanted
from ridge_tally.core.sheets.flow import Block, Table, Words
from ridge_tally.core.sheets.sets import SetName
from ridge_tally.rules.design import Design
from ridge_tally.rules.sheets.packet import (
    bought_early,
    limits_broken,
    packet_of,
    standing_of,
    states_of,
)

SET_OF = {Addressee.UTILITY: SetName.UTILITY, Addressee.AUTHORITY: SetName.PERMIT}


@dataclass(frozen=True, slots=True)
class WantedView:
    """A wish, whether it is met, and why in words."""

    wanted: Wanted
    there: bool
    told: str


@dataclass(frozen=True, slots=True)
class LoggedView:
    """A line of the log with its place in it, from 0."""

    at: int
    entry: LogEntry


@dataclass(frozen=True, slots=True)
class PacketView:
    """``lacking``: how many wishes are not met; ``usual``: the list is the family's own.

    ``amiss``: what an answer asks and the design does not keep, and what was bought too early.
    """

    to: Addressee
    set: SetName
    wanted: tuple[WantedView, ...]
    lacking: int
    usual: bool
    log: tuple[LoggedView, ...]
    standing: str
    agreed: bool
    practised: bool
    amiss: tuple[str, ...]


def packet_view(design: Design, to: Addressee) -> PacketView:
    """Return what one of them wants of an option, and how it stands."""
    paper = design.job.paperwork
    states = states_of(design, packet_of(design.job, to))
    standing = standing_of(paper, to)
    early = bought_early(paper)
    return PacketView(
        to=to,
        set=SET_OF[to],
        wanted=tuple(WantedView(s.wanted, s.there, s.told) for s in states),
        lacking=sum(not s.there for s in states),
        usual=all(p.to is not to for p in paper.packets),
        log=tuple(LoggedView(n, e) for n, e in enumerate(paper.log) if e.to is to),
        standing=standing.told,
        agreed=standing.agreed,
        practised=any(e.practice for e in paper.log),
        amiss=(*limits_broken(design, design.p_ac_w), *([early] if early else [])),
    )


def packet_cover(view: PacketView, unread: tuple[str, ...]) -> Iterator[Block]:
    """Yield the first sheet of a packet: what is wanted, what is there, what is not, what was said."""
    yield Words(f"Packet for the {view.to.value}", 6.0, bold=True)
    told = f"{len(view.wanted) - view.lacking} of {len(view.wanted)} are there; {view.standing}."
    yield Words(told, 3.2)
    rows = tuple((s.wanted.words, "there" if s.there else "missing", s.told) for s in view.wanted)
    yield Table("What is wanted", ("What", "State", "Where"), rows, (90, 24, 90))
    for amiss in (*view.amiss, *unread):
        yield Words(amiss, bold=True)
    lines = tuple(
        (e.day.isoformat(), f"{e.kind.value}{' (practice)' if e.practice else ''}",
         e.words + ("" if e.limit_kw is None else f" {e.limit_kw:g} kW"))
        for e in (line.entry for line in view.log)
    )  # fmt: skip
    yield Table("Log", ("Day", "What", "In words"), lines, (24, 30, 150))
    yield Words("The list is common practice, from memory: the office’s own form decides.")
