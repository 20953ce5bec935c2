"""The design sheet of an option: what it says, on screen and on paper."""

from dataclasses import dataclass
from datetime import date
from itertools import groupby

from ridge_tally.core.array.posts import Post
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.option import ModuleString, Option
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.number_format import loss_share, spaced
from ridge_tally.core.sheets.plan_drawing import Thread, plan_height_mm, plan_svg
from ridge_tally.core.strings.parts import converters, counted_names, fitted_ids
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.working import Check, Family, LimitKind, Source, SourceStatus, Verdict, shown
from ridge_tally.formats.sheet_pdf import (
    CheckRow,
    Circuits,
    Paper,
    PlanFigure,
    SheetContent,
)
from ridge_tally.rules.array.setbacks import setback_packs
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.array.ground_layout import GroundLayout
from ridge_tally.studies.sun.shade import ShadeReport, shade_report
from ridge_tally.views.loading.year import YearReport, year_report
from ridge_tally.views.option import CheckView, OptionReport, option_report

VERDICTS = {Verdict.KEPT: "holds", Verdict.BROKEN: "broken", Verdict.NOT_CHECKED: "not checked"}
KINDS = {
    LimitKind.STOP: "Stop",
    LimitKind.OUTSIDE: "Outside",
    LimitKind.COSTS: "Costs",
    LimitKind.NOTE: "Note",
}
PLAN_WIDTH_MM = 106.0
# How much of a page plans one below the other may take, and what a caption takes of it.
PLANS_MM, CAPTION_MM = 190.0, 8.0


@dataclass(frozen=True, slots=True)
class Stamp:
    """Which revision is printed, and when."""

    revision: int
    day: date


def sheet_content(desk: Desk, design: Design, stamp: Stamp) -> SheetContent:
    """Return what the sheet of an option says, on screen and on paper."""
    report = option_report(design)
    year, no_year = None, ""
    try:
        year = year_report(desk, design)
    except RidgeTallyError as error:
        no_year = str(error)
    shade = None
    if report.modules and all(is_closed(a.plane) for a in design.arrays):
        shade = shade_report(desk, design)
    return SheetContent(
        job=design.job.name,
        option=f"Option {design.option.id.upper()}: {design.option.name}",
        place=design.job.site.place or "Place not given",
        printed_on=stamp.day.isoformat(),
        revision=stamp.revision,
        paper=paper_of(design.job),
        plans=_plans(design, report),
        equipment=(
            *report.modules_told,
            *_electronics(report, counted_names(converters(design))),
            f"{spaced(report.p_dc_w / 1000, 2)} kW DC"
            + (
                ", nothing makes AC"
                if report.dc_ac_ratio is None
                else f" on {spaced(report.p_ac_w / 1000, 2)} kW AC, ratio {spaced(report.dc_ac_ratio, 2)}"
            ),
            *already_there(design.job),
        ),
        circuits=_branches(design, report)
        if design.option.electronics.architecture is Architecture.MICRO
        else _strings(design, report),
        checks=check_rows(tuple(v for v in report.checks if v.on_sheet)),
        year=(*_year_lines(year, no_year), *_shade_lines(shade)),
        caveats=year.caveats if year else (),
        stand_in_weather=year.stand_in_weather if year else False,
    )


def paper_of(job: Job) -> Paper:
    """Return the paper that is usual where a job is."""
    return Paper.LETTER if job.site.code_pack is CodePack.US else Paper.A4


def _plans(design: Design, report: OptionReport) -> tuple[PlanFigure, ...]:
    arrays = {a.plane_id: a for a in design.option.arrays}
    used = [p for p in design.job.survey.planes if p.id in arrays] or list(
        design.job.survey.planes[:1]
    )
    grounds = {p.plane_id: p.ground for p in report.planes}
    whole_mm = sum(plan_height_mm(p, PLAN_WIDTH_MM) + CAPTION_MM for p in used)
    width_mm = PLAN_WIDTH_MM if whole_mm <= PLANS_MM else PLAN_WIDTH_MM / 2 - 2
    threads, fitted = threads_of(design.option, report), frozenset(design.option.electronics.fitted)
    return tuple(
        PlanFigure(
            plan_svg(
                p,
                arrays.get(p.id),
                threads,
                design.on(p.id).module,
                design.job.unit,
                width_mm,
                _posts(grounds[p.id]),
                fitted,
            ),
            _caption(p, grounds[p.id]),
            width_mm,
        )
        for p in used
    )


def threads_of(option: Option, report: OptionReport) -> tuple[Thread, ...]:
    """Return strings module by module, or branches unit by unit: ``2.1`` is branch 2's first."""
    if option.electronics.architecture is Architecture.MICRO:
        return tuple(
            Thread(
                b.number - 1,
                tuple((m, f"{b.number}.{n}") for n, unit in enumerate(b.units, 1) for m in unit),
            )
            for b in report.at_modules.branches
        )
    return tuple(
        Thread(index, tuple((m, f"{s.tag}{n}") for n, m in enumerate(s.module_ids, start=1)))
        for index, s in enumerate(option.strings)
    )


def _strings(design: Design, report: OptionReport) -> Circuits:
    fitted = set(fitted_ids(design.option, design.optimizer))

    def row(string: ModuleString) -> tuple[str, ...]:
        count = len(string.module_ids)
        helped = sum(m in fitted for m in string.module_ids)
        cells = (
            string.tag,
            str(string.tracker_number),
            str(count),
            design.planes_under(string.module_ids),
        )
        return (*cells, f"{helped} of {count}") if report.at_modules.unit else cells

    headings = ("String", "Tracker", "Modules in series", "On")
    return Circuits(
        title="Strings",
        headings=(*headings, "With an optimizer") if report.at_modules.unit else headings,
        rows=tuple(row(s) for s in design.option.strings),
        note="Each string is drawn from its positive end, 1, to its negative end.",
    )


def _branches(design: Design, report: OptionReport) -> Circuits:
    limits = {v.check.subject: v for v in report.checks if v.check.rule_id == "micro.branch"}
    main = next((v for v in report.checks if v.check.rule_id == "micro.main"), None)
    return Circuits(
        title="Branch circuits",
        headings=("Branch", "Units", "Modules", "Continuous current", "Breaker", "On"),
        rows=tuple(
            (
                str(b.number),
                str(len(b.units)),
                str(sum(len(u) for u in b.units)),
                f"{spaced(b.amps, 1)} A"
                + (f" of {v.limit_text}" if (v := limits.get(f"branch {b.number}")) else ""),
                f"{design.rules.family.branch_breaker_a:g} A",
                design.planes_under([m for unit in b.units for m in unit]),
            )
            for b in report.at_modules.branches
        ),
        note=""
        if main is None
        else f"Breaker that joins the branches, at the combiner: {main.lines.numbers} = "
        f"{main.value_text}, so {main.limit_text}.",
    )


def _posts(ground: GroundLayout | None) -> tuple[Post, ...]:
    return ground.posts if ground else ()


def _caption(plane: RoofPlane, ground: GroundLayout | None) -> str:
    if ground is not None:
        return ground.on_sheet
    return (
        f"{plane.name}: azimuth {spaced(plane.azimuth_deg)}° true, slope {spaced(plane.slope_deg, 1)}°, "
        "lengths along the slope." + _strips(plane)
    )


def _strips(plane: RoofPlane) -> str:
    """Return which set the free strips were taken from, and how far that is known."""
    pack = setback_packs().get(plane.setback_pack)
    if pack is None:
        return ""
    status = pack.source.status.value.replace("-", " ")
    return f" Free strips begun from “{pack.title}” ({status}). {pack.confirm}"


def already_there(job: Job) -> tuple[str, ...]:
    """Return what stands before the job begins, a line each."""
    already = job.brief.already
    names = {p.id: p.name for p in job.survey.planes}
    lines = [
        f"Already there: {a.name} of {a.built_year}, {a.p_dc_kw:g} kW DC, {a.p_ac_kw:g} kW AC"
        + (f" on {', '.join(names[p] for p in a.plane_ids)}" if a.plane_ids else "")
        for a in already.arrays
    ]
    if already.battery_kwh is not None:
        lines.append(f"Already there: battery, {already.battery_kwh:g} kWh")
    if already.generator_kw is not None:
        lines.append(f"Already there: generator, {already.generator_kw:g} kW")
    return tuple(lines)


def check_rows(views: tuple[CheckView, ...]) -> tuple[CheckRow, ...]:
    """Return one row per sum: subjects with the very same numbers share it."""

    def same(view: CheckView) -> tuple[str, str, str]:
        return view.check.rule_id, view.lines.numbers, view.limit_text

    first_at: dict[tuple[str, str, str], int] = {}
    for index, view in enumerate(views):
        first_at.setdefault(same(view), index)
    ordered = sorted(views, key=lambda v: first_at[same(v)])
    rows = []
    for _, group in groupby(ordered, key=same):
        members = list(group)
        check, lines = members[0].check, members[0].lines
        rows.append(
            CheckRow(
                kind=KINDS[check.kind],
                title=check.title,
                subjects=_joined([m.check.subject for m in members]),
                numbers=lines.numbers,
                result=lines.result,
                limit=lines.limit,
                verdict=_verdict(check),
                remark=_remark(check),
                source=_source(check.source),
            )
        )
    return tuple(rows)


def _electronics(report: OptionReport, inverters: str) -> tuple[str, ...]:
    """Return what makes AC of it, and what stands at the modules."""
    at = report.at_modules
    units = (f"{at.count} × {at.unit}",) if at.unit else ()
    return units if at.branches else (inverters, *units)


def _joined(subjects: list[str]) -> str:
    """Return ``string A``, ``string B`` as ``string A, B``; names of roofs are never cut."""
    first, *rest = subjects
    kind, _, tag = first.partition(" ")
    if tag and kind in ("string", "tracker"):
        rest = [s.removeprefix(f"{kind} ") for s in rest]
    return ", ".join((first, *rest))


def _source(source: Source) -> str:
    """Return a source with how far it is verified; a datasheet's name says that itself."""
    if source.status is SourceStatus.DATASHEET:
        return source.document
    return f"{source.document} ({source.status.value.replace('-', ' ')})"


def _verdict(check: Check) -> str:
    """Return a verdict in a word; a note that does not hold breaks nothing."""
    if check.kind is LimitKind.NOTE and check.verdict is Verdict.BROKEN:
        return "noted"
    if check.family is Family.BUILD and check.verdict is Verdict.KEPT:
        # Nothing structural is said to hold: it is held against what was typed.
        return "screened"
    return VERDICTS[check.verdict]


def _remark(check: Check) -> str:
    """Return why a check was not made, or where its limit lies: of what holds, Stops' alone."""
    if check.verdict is Verdict.KEPT and check.kind is not LimitKind.STOP:
        return ""
    return check.reason or check.reached_at


def _year_lines(year: YearReport | None, problem: str) -> tuple[str, ...]:
    if year is None:
        return ("No year at the meter", problem)
    energy = round(year.energy_kwh, -1)
    return (
        f"{spaced(energy)} kWh a year at the meter",
        f"{spaced(year.specific_kwh_per_kw)} kWh per kW DC",
        f"clipped {loss_share(year.clipped_frac)}, {spaced(year.clipped_hours)} hours: "
        f"{shown(year.clipped_kwh)} kWh, between {shown(year.clipped_hourly_kwh)} in even hours and "
        f"{shown(year.clipped_most_kwh)} where sun and cloud change most",
        *year.faults,
    )


def _shade_lines(shade: ShadeReport | None) -> tuple[str, ...]:
    """Return what shade takes and who throws most of it, at which resolution."""
    if shade is None:
        return ()
    lines = [
        f"shade takes {spaced(shade.lost_frac * 100, 1)} % of the light ({shade.resolution} sky)"
    ]
    if shade.culprits:
        worst = shade.culprits[0]
        lines.append(f"most of it {worst.name}, {shown(worst.alone_kwh)} kWh on the glass")
    return (*lines, *shade.standing_in)
