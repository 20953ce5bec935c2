"""Commissioning, a search for a fault, and a log of production, as they are printed."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from ridge_tally.formats.report_pdf import ReportContent, ReportTable
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.diagnosis import CauseTold, percent_told
from ridge_tally.studies.proving.commissioning import Commissioning, StepDue
from ridge_tally.studies.proving.hunt import HuntView
from ridge_tally.studies.proving.production import ProductionView
from ridge_tally.studies.proving.string_tests import Outcome
from ridge_tally.views.proving.ratios_svg import RATIOS_TOLD, ratios_svg
from ridge_tally.views.sheets.design import Stamp, paper_of

CAUTION = (
    "A module in light is live and cannot be switched off. Never open a connector under load. Prove "
    "dead: test the tester, test, test the tester. Only a qualified person opens the panel. Local "
    "code, the authority having jurisdiction and licensed practice come first."
)
PRACTICE = "Some of it was read by simulated meters: it proves nothing of a real system"
OUTCOMES = {
    Outcome.PASSED: "passed", Outcome.LOOK: "look again", Outcome.FAIL: "failed",
    Outcome.OPEN: "open", Outcome.UNREAD: "cannot be read",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Words:
    title: str
    told: str
    marks: tuple[str, ...]
    signed: tuple[str, ...] = ()


def _report(
    design: Design, stamp: Stamp, words: _Words, tables: Sequence[ReportTable]
) -> ReportContent:
    site = design.job.site
    return ReportContent(
        words.title, design.job.name, design.option.name, site.place, stamp.day.isoformat(),
        stamp.revision, paper_of(design.job), words.told, tuple(t for t in tables if t.rows or t.note),
        words.marks, CAUTION, words.signed,
    )  # fmt: skip


def commissioning_content(design: Design, stamp: Stamp, found: Commissioning) -> ReportContent:
    """Return the report of a commissioning: every step with what is due and what was read."""
    practice = any(r.practice for s in found.steps for r in s.rows)
    words = _Words(
        "commissioning", found.told, (PRACTICE,) if practice else (),
        ("Tested by, date", "Meters with serial and calibration", "Received by, date"),
    )  # fmt: skip
    return _report(design, stamp, words, [_step_table(n, s) for n, s in enumerate(found.steps, 1)])


def _step_table(number: int, step: StepDue) -> ReportTable:
    rows = tuple(
        (
            row.title,
            _due(row.came_out.due, row.came_out.band, row.unit),
            f"{row.typed} {row.unit}".strip() if row.typed else "",
            OUTCOMES[row.came_out.outcome],
            row.came_out.told,
            row.who + (" (simulated)" if row.practice else ""),
        )
        for row in step.rows
    )
    note = step.blocked or step.how
    return ReportTable(
        f"{number} {step.title}: {OUTCOMES[step.outcome]}",
        ("What", "Due", "Read", "Outcome", "Told by", "Who"), rows, note,
    )  # fmt: skip


def _due(due: float | None, band: float | None, unit: str) -> str:
    if due is None:
        return ""
    told = f"{due:.2f}" if abs(due) < 100 else f"{due:.1f}"
    return f"{told} ± {band:.2f} {unit}" if band else f"{told} {unit}"


def hunt_content(design: Design, stamp: Stamp, found: HuntView) -> ReportContent:
    """Return the report of a search for a fault, for the customer or the maker."""
    one = found.diagnosis
    told = found.problem or (one.told if one else "Nothing has been read yet.")
    if found.found:
        told = f"Found: {found.found}. {told}"
    marks = tuple(_hunt_marks(found))
    words = _Words("search for a fault", told, marks, ("Searched by, date", "Received by, date"))
    return _report(design, stamp, words, list(_hunt_tables(found)))


def _hunt_marks(found: HuntView) -> Iterator[str]:
    if any(s.practice for s in found.trail):
        yield PRACTICE
    one = found.diagnosis
    if one is None:
        return
    if one.inferred:
        yield f"Inferred, not measured: {'; '.join(one.inferred)}"
    if one.weakens:
        yield f"What weakens it: {'; '.join(one.weakens)}"


def _hunt_tables(found: HuntView) -> Iterator[ReportTable]:
    light = "; ".join(
        f"{p}: {w:.0f} W/m², cells {c:.0f} °C"
        for p, w, c in zip(found.planes, found.light_w_per_m2, found.cell_degc, strict=True)
    )
    yield ReportTable(
        f"What was read, {found.moment}",
        ("", "Reading", "Of", "Read", "What stood after it", "What it ruled out"),
        tuple(
            (
                str(n), s.title, s.place, f"{s.typed} {s.unit}".strip(), s.problem or s.told,
                "; ".join(s.ruled_out),
            )
            for n, s in enumerate(found.trail, 1)
        ),
        f"By the model at that moment: {light}.",
    )  # fmt: skip
    one = found.diagnosis
    if one is None:
        return
    yield ReportTable(
        "What explains it",
        ("Chance", "Cause", "What it does not explain", "What mends it"),
        tuple(_cause(c) for c in one.causes),
        f"A cause that is not listed: {percent_told(one.other_chance)}.",
    )
    if one.normal:
        yield ReportTable("What is normal", ("",), tuple((n,) for n in one.normal))
    yield ReportTable(
        "What to read next", ("Test", "How", "Minutes", "Risk"),
        tuple((t.told, t.how, f"{t.minutes:.0f}", f"{t.risk:.0f}") for t in one.next_tests),
    )  # fmt: skip
    yield ReportTable(
        "What was refused", ("Test", "Why", "Instead"),
        tuple((r.title, r.why, r.instead) for r in one.refused),
    )  # fmt: skip


def _cause(one: CauseTold) -> tuple[str, ...]:
    left = "; ".join(r.told for r in one.readings if not one.fits and abs(r.off) > 2)
    return percent_told(one.chance), f"{one.where}{one.title}{one.much}", left, one.mend


def production_content(design: Design, stamp: Stamp, found: ProductionView) -> ReportContent:
    """Return the report of a log of production."""
    words = _Words(f"production, {found.first} to {found.last}", found.told, found.doubts)
    report = _report(design, stamp, words, list(_production_tables(found)))
    return replace(report, chart=ratios_svg(found), chart_told=RATIOS_TOLD)


def _production_tables(found: ProductionView) -> Iterator[ReportTable]:
    yield ReportTable(
        "Signs",
        ("Sign", "When", "Seen", "Cost, kWh", "Look at"),
        tuple(
            (s.title, s.when, s.seen, "" if s.lost_kwh is None else grouped(s.lost_kwh), s.look_at)
            for s in found.signs
        ),
        "" if found.signs else "None.",
    )
    light = found.light_measured
    yield ReportTable(
        "Months",
        ("Month", "Made, kWh", "Judged, days", "Of what was due", "Performance ratio",
         "the same at 25 °C", "Design’s year, kWh", "Left out", "Standing"),
        tuple(
            (
                m.name, grouped(m.made_kwh), f"{m.judged_days} of {m.logged_days}",
                _percent(m.ratio), _percent(m.performance_frac), _percent(m.at_25_frac),
                grouped(m.usual_kwh), m.left_out, m.standing.value,
            )
            for m in found.months
        ),
        f"Fine within {found.fine_band * 100:.0f} %, worth a look within {found.look_band * 100:.0f} % of what "
        f"{'the measured light' if light else 'a usual cloudless sky'} is worth{'' if found.fine_band < 0.1 else ' (wider, as the light in the plane is a model’s)'}; common practice. "
        "Performance ratio: kWh over rated kW and kWh/m² in the plane, by measured light alone.",
    )  # fmt: skip
    odd = [m for m in found.modules if m.tone != "known"]
    if found.modules:
        yield ReportTable(
            "Modules behind or before their siblings of the same light",
            ("Module", "kWh", "Beside siblings", "Siblings"),
            tuple((m.name, f"{m.kwh:.1f}", _percent(m.ratio), str(m.siblings)) for m in odd),
            "" if odd else f"None of {len(found.modules)}.",
        )
    yield ReportTable(
        f"What was put right in {found.file}, column “{found.column}”", ("",),
        tuple((c,) for c in found.corrections), "" if found.corrections else "Nothing.",
    )  # fmt: skip


def grouped(kwh: float) -> str:
    """Return kWh with a thin blank between thousands."""
    return f"{kwh:,.0f}".replace(",", "\u202f")


def _percent(frac: float | None) -> str:
    return "" if frac is None else f"{frac * 100:.1f} %"
