"""What the packets of a job hold and lack, how its approval stands, and what was bought too early."""

import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from types import MappingProxyType

from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.packet import Addressee, LogEntry, LogKind, Packet, Wanted, WantedBy
from ridge_tally.core.job.paperwork import Paperwork
from ridge_tally.core.number_format import spaced
from ridge_tally.rules.build.circuits.conductors import circuits_sized
from ridge_tally.rules.design import Design

# Sheets that say nothing before strings or modules are there.
OF_CIRCUITS = frozenset({"E-1", "E-3", "E-4", "A-2"})
OF_MODULES = frozenset({"A-1", "S-1", "S-2", "E-5"})
# What ends the waiting for one of them.
AGREED = frozenset({LogKind.APPROVED, LogKind.LIMITED})


@dataclass(frozen=True, slots=True)
class WantedState:
    """A wish and whether it is met, in words."""

    wanted: Wanted
    there: bool
    told: str


@dataclass(frozen=True, slots=True)
class Standing:
    """How it stands with one of them: ``agreed`` by a real answer, never by a practised one."""

    to: Addressee
    told: str
    agreed: bool
    last: LogEntry | None


@cache
def wanted_lists() -> MappingProxyType[CodePack, MappingProxyType[Addressee, Packet]]:
    """Return what is commonly wanted, by family and by who wants it."""
    text = files("ridge_tally.rules").joinpath("packs/packets.toml").read_text("utf-8")
    return MappingProxyType({
        CodePack(family): MappingProxyType({
            Addressee(to): Packet(
                Addressee(to),
                tuple(
                    Wanted(r["id"], r["words"], WantedBy(r["by"]), r.get("sheet", "")) for r in rows
                ),
            )
            for to, rows in lists.items()
        })
        for family, lists in tomllib.loads(text).items()
    })  # fmt: skip


def packet_of(job: Job, to: Addressee) -> Packet:
    """Return what one of them wants of a job: as its person has it, else as is common."""
    own = next((p for p in job.paperwork.packets if p.to is to), None)
    return own or wanted_lists()[job.site.code_pack][to]


def states_of(design: Design, packet: Packet) -> tuple[WantedState, ...]:
    """Return each wish with whether it is met."""
    return tuple(WantedState(w, *_met(design, w)) for w in packet.wanted)


def _met(design: Design, wanted: Wanted) -> tuple[bool, str]:
    paper = design.job.paperwork
    match wanted.by:
        case WantedBy.REVIEW:
            there = bool(paper.reviewed_by) and paper.reviewed_on is not None
            told = f"{paper.reviewed_by}, {paper.reviewed_on}"
            lacks = "nobody licensed has reviewed it: enter name and day in the title block"
        case WantedBy.FILE:
            there = bool(wanted.files) or wanted.done
            told = "; ".join(f"{f.file}, {_pages(f.pages)}" for f in wanted.files) or "sent apart"
            lacks = "no file attached"
        case WantedBy.TICK:
            there, told, lacks = wanted.done, "done", "not done"
        case WantedBy.SHEET:
            lacks = _empty(design, wanted.sheet)
            there, told = not lacks, wanted.sheet
            if wanted.sheet == "G-2" and not design.job.survey.lot_lines:
                told = "G-2, without lot lines: none is given"
    return there, told if there else lacks


def _empty(design: Design, number: str) -> str:
    """Return why a sheet would say nothing; empty if it says something."""
    if number in OF_CIRCUITS and not circuits_sized(design):
        return f"{number} is empty: no module is wired"
    if number in OF_MODULES and not any(present_of(a.array) for a in design.arrays):
        return f"{number} is empty: no module is laid"
    return ""


def _kw(power_kw: float) -> str:
    return f"{spaced(power_kw, 2)} kW"


def _pages(count: int) -> str:
    return "1 page" if count == 1 else f"{count} pages"


def standing_of(paper: Paperwork, to: Addressee) -> Standing:
    """Return how it stands with one of them, by the log."""
    mine = [e for e in paper.log if e.to is to and e.kind is not LogKind.NOTE]
    last = mine[-1] if mine else None
    agreed = any(e.kind in AGREED and not e.practice for e in mine) and not (
        last is not None and last.kind is LogKind.REFUSED and not last.practice
    )
    if last is None:
        return Standing(to, "nothing sent yet", agreed=False, last=None)
    day = last.day.isoformat()
    told = {
        LogKind.SENT: f"sent {day}, waiting for an answer",
        LogKind.QUERY: f"asked on {day}, waiting for our answer",
        LogKind.ANSWER: f"answered on {day}, waiting for theirs",
        LogKind.APPROVED: f"approved {day}",
        LogKind.LIMITED: f"approved {day}, at most {_kw(last.limit_kw or 0.0)} sent out",
        LogKind.DELAYED: f"put off on {day}",
        LogKind.REFUSED: f"refused {day}",
    }[last.kind]
    return Standing(to, f"{told} (practice only)" if last.practice else told, agreed, last)


def limits_broken(design: Design, p_ac_w: float) -> tuple[str, ...]:
    """Return, in words, what an answer allows less of than the design makes."""
    grid = design.job.brief.grid
    held = None if grid is None else grid.export_limit_kw
    found = []
    for to in Addressee:
        last = standing_of(design.job.paperwork, to).last
        if last is None or last.kind is not LogKind.LIMITED or last.limit_kw is None:
            continue
        if held is not None and held <= last.limit_kw + 1e-9:
            continue
        if p_ac_w / 1000 > last.limit_kw + 1e-9:
            found.append(
                f"The {to.value} lets at most {_kw(last.limit_kw)} out and the design makes up to "
                f"{_kw(p_ac_w / 1000)}: enter the export limit in the Brief, or take a smaller inverter."
            )
    return tuple(found)


def bought_early(paper: Paperwork) -> str:
    """Return the warning while equipment is ordered before everybody agreed; empty if all is well."""
    if paper.ordered_on is None:
        return ""
    late = [to.value for to in Addressee if not _agreed_by(paper, to)]
    if not late:
        return ""
    return (
        f"Equipment is ordered ({paper.ordered_on.isoformat()}) before {' and '.join(late)} agreed: "
        "an answer that limits or refuses makes it waste."
    )


def _agreed_by(paper: Paperwork, to: Addressee) -> bool:
    bought = paper.ordered_on
    return standing_of(paper, to).agreed and any(
        e.to is to and e.kind in AGREED and not e.practice and (bought is None or e.day <= bought)
        for e in paper.log
    )
