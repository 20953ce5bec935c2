"""The set sheets of a plan set: cover, sums, mounting, labels, equipment, parts, lists, home, crew, tests."""

import unicodedata
from collections import Counter
from collections.abc import Callable, Iterator

from ridge_tally.core.equipment import AnySheet
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.racking import DesignLoads
from ridge_tally.core.nominal_year import MONTH_NAMES
from ridge_tally.core.number_format import spaced
from ridge_tally.core.proving.expected import string_due
from ridge_tally.core.sheets.flow import Block, Table, Words
from ridge_tally.core.strings.parts import ac_makers, counted_names, modules_in
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.core.working import Family, LimitKind, Verdict
from ridge_tally.rules.build.circuits.conductors import circuits_sized
from ridge_tally.rules.build.circuits.conduits import drawn_in
from ridge_tally.rules.build.circuits.gear import labels_of, ratings_of
from ridge_tally.rules.build.circuits.takeoff import taken_off, untaken
from ridge_tally.rules.build.parts import part_rows
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.sawing import Sawing
from ridge_tally.rules.design import Design
from ridge_tally.views.build.cuts import cut_view
from ridge_tally.views.build.plane import CAUTIONS, PlaneRackingView
from ridge_tally.views.loading.year import YearReport
from ridge_tally.views.option import CheckView, OptionReport
from ridge_tally.views.sheets.design import check_rows
from ridge_tally.views.sheets.titles import system_rows
from ridge_tally.views.shelf import values_of

M_PER_S_PER_MPH, PA_PER_PSF = 0.44704, 47.8803
FAMILIES = {
    CodePack.US: "NEC 690 and 705, ASCE 7-16, NDS",
    CodePack.IEC: "IEC 60364, IEC 62548",
    CodePack.AU_NZ: "AS/NZS 5033, AS/NZS 4777, AS/NZS 3000",
    CodePack.UK: "BS 7671, IEC 62548",
}
# What to be careful of; common practice, no source.  Wording is to be held against the adopted edition.
GENERAL = (
    "Modules make voltage in any light: covering them is not isolation.",
    "Never open a DC connector under load: switch the inverter off first, then the DC switch, then measure.",
    "Fall protection at every edge; ladder tied, three rungs over the eave; nobody on the roof in wind, ice or lightning.",
    "Two people lift a module; none is carried up a ladder in wind.",
    "Two sources feed the house: either may be live with the other off. Measure before touching.",
    "Where a battery hangs: it is live always, its covers stay shut, its maker’s order of switching holds.",
)  # fmt: skip
INSPECTED = (
    "Each flashing sealed, photographed before it is covered", "Rails straight, splices within their spans, ends trimmed",
    "Mid and end clamps at the typed torque, marked", "Cables off the roof, no bend tighter than the maker’s, no sharp edge",
    "Connectors of one make, fully home, none lying in water", "Earth: rails bonded, conductor sized, joints tight",
    "Strings as drawn: count, polarity, open voltage", "Conduit supported, sealed where it enters, labelled",
    "Disconnects where drawn, lockable, labelled", "Breaker of the size shown, at the far end of the bus where that rule is used",
    "Labels as on E-4", "Inverter set to the grid’s code, clearances kept", "Shutdown tried and timed", "Roof clean: no shavings, no scrap",
)  # fmt: skip


def cover(
    design: Design,
    report: OptionReport,
    views: tuple[PlaneRackingView, ...],
    index: tuple[tuple[str, str], ...],
) -> Iterator[Block]:
    """Yield the cover: who and where, the system in five lines, what it is designed for, the index."""
    job = design.job
    yield Words(job.name, 7.0, bold=True)
    yield Words(job.site.place or "Place not given", 3.5)
    yield Words(
        f"{job.site.latitude_deg:.4f}°, {job.site.longitude_deg:.4f}°. Option {design.option.id.upper()}: "
        f"{design.option.name}.", 3.0,
    )  # fmt: skip
    yield Table("The system", ("", ""), system_rows(design, report), (30, 120), ("array",) * 5)
    yield Table("Designed for", ("What", "Value", "By whom"), _designed(job), (50, 40, 60))
    held = [v.check for v in report.checks if v.on_sheet and v.check.kind is not LimitKind.NOTE]
    broken = [c for c in held if c.verdict is Verdict.BROKEN]
    unchecked = [c for c in held if c.verdict is Verdict.NOT_CHECKED]
    yield Words("Not kept, and not checked", 3.5, bold=True)
    if not held:
        yield Words("No check is made yet: no module is laid.")
    elif not broken and not unchecked:
        yield Words(
            "Every limit on E-3 is checked and kept; its notes name what is looked at on site."
        )
    for checks, told in ((broken, "not kept"), (unchecked, "not checked")):
        if checks:
            names = dict.fromkeys(f"{c.title} ({c.subject})" for c in checks)
            yield Words(f"{len(checks)} {told}: {'; '.join(names)}.")
    for told in _unmounted(views):
        yield Words(told, bold=True)
    yield Words(
        "Not checked by this program: the roof and its framing, soil, fire and zoning rules of the place, "
        "and whatever the authority or the utility asks beyond these sheets."
    )
    third = -(-len(index) // 3)
    columns = [[*index, *[("", "")] * 2][third * n : third * (n + 1)] for n in range(3)]
    yield Table(
        "Sheets", ("No.", "Title") * 3,
        tuple((*one, *two, *three) for one, two, three in zip(*columns, strict=True)),
        (14, 60) * 3,
    )  # fmt: skip


def unprinted(letters: str) -> Iterator[Block]:
    """Yield by their names the letters of the title block that the fonts of the sheets lack."""
    if letters:
        names = ", ".join(unicodedata.name(c, f"U+{ord(c):04X}").lower() for c in letters[:4])
        more = f" and {len(letters) - 4} more" if len(letters) > 4 else ""
        yield Words(
            f"Letters that these sheets cannot print stand as boxes: {names}{more}.", bold=True
        )


def _unmounted(views: tuple[PlaneRackingView, ...]) -> Iterator[str]:
    """Yield what keeps the mounting of a plane from being planned or screened."""
    for view in views:
        if not view.mounting:
            yield f"{view.name}: no mounting system is chosen, rails, mounts and loads are not checked."
        else:
            yield from dict.fromkeys(
                (*view.asked, *(f"{view.name}: {a}" for a in view.loads_asked))
            )


def _designed(job: Job) -> tuple[tuple[str, str, str], ...]:
    site, loads = job.site, job.design_loads
    rows = [("Code family", FAMILIES[site.code_pack], "to be held against the adopted edition")]
    for name, t in (("Coldest for voltage", site.coldest), ("Hottest for current", site.hottest)):
        value = "not known" if t.value_degc is None else f"{t.value_degc:g} °C"
        rows.append((name, value, t.source or "not said"))
    return (*rows, *_loads(loads, job.unit))


def _loads(loads: DesignLoads, unit: LengthUnit) -> Iterator[tuple[str, str, str]]:
    feet = unit is LengthUnit.FOOT
    wind, snow, height = loads.wind_m_per_s, loads.ground_snow_pa, loads.roof_height
    found = (
        ("Wind", wind and (f"{wind / M_PER_S_PER_MPH:.0f} mph" if feet else f"{wind:.0f} m/s"), loads.wind_source),
        ("Ground snow", snow and (f"{snow / PA_PER_PSF:.0f} psf" if feet else f"{snow / 1000:.2f} kPa"), loads.snow_source),
        ("Exposure", loads.exposure and loads.exposure.value.upper(), loads.exposure_source),
        ("Roof height", height and format_length(height.value_m, unit), loads.height_source),
    )  # fmt: skip
    for name, value, source in found:
        yield (name, str(value or "not given"), source or "not said")


def calculations(report: OptionReport) -> Iterator[Block]:
    """Yield every sum with its limit and clause, what is broken or not checked among them."""
    views = tuple(v for v in report.checks if v.on_sheet)
    yield from _sums("Each limit with its sum", views, report)


def _sums(title: str, views: tuple[CheckView, ...], report: OptionReport) -> Iterator[Block]:
    rows = check_rows(views)
    by = {v.check.title: v.check.rule_id for v in report.checks}
    yield Table(
        title, ("Check", "Of", "Sum", "Result", "Limit", "Verdict", "Source"),
        tuple(
            (f"{r.title} ({r.kind})", r.subjects, r.numbers, r.result, r.limit,
             f"{r.verdict}{', ' + r.remark if r.remark else ''}", r.source)
            for r in rows
        ),
        (34, 26, 66, 22, 24, 34, 46), tuple(f"check {by[r.title]}" for r in rows),
    )  # fmt: skip
    if not rows:
        yield Words("No check is made yet: no module is laid.")


def loads(report: OptionReport, views: tuple[PlaneRackingView, ...]) -> Iterator[Block]:
    """Yield the load checks of every mount’s worst case, and what was asked for and not given."""
    found = tuple(v for v in report.checks if v.check.family is Family.BUILD)
    if not found:
        yield Words("No mount is planned: nothing is screened.", bold=True)
    else:
        yield from _sums("Screens of the racking; none of them says that it holds", found, report)
    for view in views:
        for asked in view.loads_asked:
            yield Words(f"{view.name}: {asked}")


def labels(design: Design) -> Iterator[Block]:
    """Yield labels and placards with their places; to be held against the adopted edition."""
    sized = circuits_sized(design)
    found = labels_of(design, ratings_of(design, sized)) if sized else ()
    rows = tuple(
        (
            " / ".join(one.lines),
            one.place,
            one.colour,
            f"{one.letters_mm:g} mm",
            one.source.document,
        )
        for one in found
    )
    yield Table("Labels and placards", ("Text", "Place", "Colour", "Letters", "Source"), rows, (80, 50, 30, 18, 50), ("labels",) * len(rows))  # fmt: skip
    if not rows:
        yield Words("No circuit is there yet: labels follow the circuits.")
    yield Words(
        "Wording is from memory of the named source: hold it against the adopted edition before ordering."
    )


def equipment(design: Design) -> Iterator[Block]:
    """Yield the datasheet values the sums were made with."""
    units = () if design.microinverter is None else (design.microinverter,)
    sheets: list[AnySheet] = [s for s, _ in modules_in(design)]
    sheets += [*(units or dict.fromkeys(design.inverters))]
    for one in sheets:
        rows = tuple(
            (v.label, v.text, v.origin.value.replace("-", " "))
            for v in values_of(one, prices=False)
        )
        yield Table(
            one.name, ("Value", "Figure", "From"), rows, (70, 60, 40), ("shelf",) * len(rows)
        )


def parts(
    design: Design, planes: tuple[RackedPlane, ...], sawings: tuple[Sawing, ...]
) -> Iterator[Block]:
    """Yield what is ordered, without prices."""
    sized = circuits_sized(design)
    rows = [(s.name, str(n), "") for s, n in modules_in(design)]
    rows += [(s.name, str(n), "") for s, n in ac_makers(design)]
    yield Table("Modules and inverters", ("Part", "Pieces", ""), tuple(rows), (110, 20, 40))
    racked = tuple(
        (r.name, str(r.count), str(r.spares)) for r in part_rows(design.job, planes, sawings)
    )
    yield Table(
        "Racking", ("Part", "Pieces", "Spares"), racked, (110, 20, 20), ("mounting",) * len(racked)
    )
    wired = tuple(
        (
            t.name,
            format_length(t.count, design.job.unit) if t.unit == "m" else f"{t.count:g} {t.unit}",
            t.note,
        )
        for t in taken_off(design, sized, drawn_in(design, sized))
    )
    yield Table(
        "Wire and gear", ("Part", "How much", "Note"), wired, (110, 24, 60), ("ways",) * len(wired)
    )
    for name in untaken(sized):
        yield Words(f"Not counted, its length is not known: {name}.", part="ways")


def cautions(planes: tuple[RackedPlane, ...]) -> Iterator[Block]:
    """Yield what can hurt, a line each."""
    yield Words("Cautions", 5.0, bold=True)
    for told in GENERAL:
        yield Words(f"•  {told}", 3.4)
    for base in dict.fromkeys(p.sheet.base for p in planes if p.sheet is not None):
        for told in CAUTIONS[base]:
            yield Words(f"•  {told}", 3.4)
    yield Words(
        "Local code, the authority having jurisdiction, the utility and licensed people decide.",
        3.4,
        bold=True,
    )


def checklist() -> Iterator[Block]:
    """Yield what is looked at before and after covering."""
    rows = tuple((what, "", "", "", "") for what in INSPECTED)
    yield Table("Inspection", ("What", "Rough-in", "Final", "Initials", "Photo no."), rows, (110, 22, 22, 24, 24), blank_mm=8.0)  # fmt: skip


def home(design: Design, report: OptionReport, year: YearReport | None) -> Iterator[Block]:
    """Yield the household’s page: what hangs there, how it is switched off, what normal looks like."""
    yield Words("Your solar array", 6.0, bold=True)
    yield Words(
        f"{report.modules} modules, {spaced(report.p_dc_w / 1000, 1)} kW, and {counted_names(ac_makers(design)) or 'no inverter yet'}. "
        "By day it feeds the house first; what is left over goes to the grid.", 3.4,
    )  # fmt: skip
    yield Words("Switching it off, in this order", 4.0, bold=True)
    steps = (
        "The AC disconnect beside the meter, or the array’s breaker in the main panel.",
        "The inverter’s own switch, if it has one.",
        "The DC switch at the inverter. Wires on the roof stay live by day: nobody but an electrician goes there.",
        "In a fire tell the fire service that there is an array, and where the switch is.",
    )  # fmt: skip
    for n, told in enumerate(steps, start=1):
        yield Words(f"{n}.  {told}", 3.4)
    if year is None:
        yield Words("What a month makes is told once the strings are laid.", 3.4)
    else:
        rows = tuple(
            (name, f"{spaced(kwh)} kWh", f"{spaced(kwh * 0.8)} to {spaced(kwh * 1.2)} kWh")
            for name, kwh in zip(MONTH_NAMES, year.monthly_kwh, strict=True)
        )
        yield Table(
            "What normal looks like",
            ("Month", "About", "A month may well lie between"),
            rows,
            (40, 40, 60),
        )
        yield Words(
            f"An estimate on {year.weather}; a fifth either way is weather. Less than that in two months "
            "running: call the installer.", 3.0,
        )  # fmt: skip


def crew(design: Design, planes: tuple[RackedPlane, ...], views: tuple[PlaneRackingView, ...], sawings: tuple[Sawing, ...]) -> Iterator[Block]:  # fmt: skip
    """Yield the crew’s pages: corners, rail lines, mounts to chalk, sticks to cut."""
    unit = design.job.unit
    for view in views:
        if not view.runs:
            continue
        yield Words(f"{view.name}: chalk from the lower left corner", 3.5, bold=True)
        yield Words(
            f"Field {format_length(view.right_m - view.left_m, unit)} by {format_length(view.top_m - view.bottom_m, unit)}, "
            f"both diagonals {format_length(view.diagonal_m, unit)}; left edge at {format_length(view.left_m, unit)}, "
            f"lower edge at {format_length(view.bottom_m, unit)}."
        )  # fmt: skip
        rows = tuple(
            (r.name, format_length(r.across_m, unit), format_length(r.from_m, unit), format_length(r.to_m, unit),
             ", ".join(f"{format_length(m.at_m, unit)} ({m.support})" for m in r.mounts), "")
            for r in view.runs
        )  # fmt: skip
        yield Table("Rails and mounts, with the support’s number", ("Rail", "Across", "From", "To", "Mounts at", "Found"), rows, (14, 20, 20, 20, 110, 30), ("mounting",) * len(rows))  # fmt: skip
    for sawing in sawings:
        cut = cut_view(design, planes, views, sawing)
        sticks = tuple(
            (str(n), format_length(s.length_m, unit),
             ", ".join(f"{p.name} {format_length(p.length_m, unit)}" for p in s.pieces),
             f"{'keep' if s.keep else 'scrap'} {format_length(s.left_m, unit)}")
            for n, s in enumerate(cut.sticks, start=1)
        )  # fmt: skip
        yield Table(f"Cut list, {cut.mounting}", ("Stick", "Length", "Pieces in order", "Left over"), sticks, (14, 24, 120, 40), ("mounting",) * len(sticks))  # fmt: skip
        yield Words(cut.told or cut.problem)


def tests(design: Design, report: OptionReport) -> Iterator[Block]:
    """Yield the test sheet: what each string should read, blanks for what it does."""
    yield Words("In this order, stopping at the first that fails: continuity of earth, polarity, open voltage, short-circuit current, insulation, function, AC.", 3.0)  # fmt: skip
    rows = []
    for s in design.option.strings:
        sheets = [design.sheets[m] for m in s.module_ids]
        voc = sum(m.voc_v for m in sheets)
        isc = min(m.isc_a for m in sheets)
        rows.append((s.tag, str(len(sheets)), f"{voc:.1f} V", "", f"{isc:.2f} A", "", "", ""))
    if rows and design.microinverter is None:
        yield Table(
            "Strings at 1000 W/m² and cells of 25 °C: current goes with the light, voltage falls with each degree",
            ("String", "Modules", "Voc", "Read", "Isc", "Read", "Polarity", "Insulation, MΩ"), tuple(rows),
            (16, 18, 24, 24, 24, 24, 24, 34), tuple(f"string {r[0]}" for r in rows), blank_mm=8.0,
        )  # fmt: skip
    else:
        yield Words("No string is there to be measured: each unit is read by its own gateway.")
    yield from _due(design)
    blanks = tuple((what, "", "") for what in ("Light on the modules, W/m²", "Cell or back-sheet, °C", "AC voltage, each phase", "Shutdown, seconds", "Meter and serial of the instruments"))  # fmt: skip
    yield Table("Taken down", ("What", "Read", "Initials"), blanks, (80, 60, 40), blank_mm=8.0)


# What a test sheet is printed for: cells in °C, light in W/m².
CELLS_DEGC, LIGHTS = (0.0, 15.0, 25.0, 40.0, 55.0, 65.0), (400.0, 600.0, 800.0, 1000.0)


def _due(design: Design) -> Iterator[Block]:
    """Yield what each string should read at other temperatures and other light, by its modules’ own diodes."""
    if design.microinverter is not None or design.optimizer is not None:
        return
    rows = []
    for s in design.option.strings:
        kinds = Counter(design.sheets[m] for m in s.module_ids)
        try:
            warm = [
                [string_due(k, n, 800.0, c).voc_v for k, n in kinds.items()] for c in CELLS_DEGC
            ]
            lit = [[string_due(k, n, g, 40.0).isc_a for k, n in kinds.items()] for g in LIGHTS]
        except RidgeTallyError as error:
            yield Words(f"String {s.tag}: {error}")
            continue
        volts = [f"{sum(r.due for r in at):.0f} ± {sum(r.band for r in at):.0f}" for at in warm]
        amps = [min(at, key=lambda r: r.due) for at in lit]
        rows.append((s.tag, *volts, *(f"{r.due:.1f} ± {r.band:.1f}" for r in amps)))
    if rows:
        head = (*(f"{c:g} °C" for c in CELLS_DEGC), *(f"{g:g} W/m²" for g in LIGHTS))
        yield Table(
            "What they should read: Voc, V, by the cells’ temperature at 800 W/m²; Isc, A, by the light at 40 °C",
            ("String", *head), tuple(rows), (16, *(20,) * len(head)),
            tuple(f"string {r[0]}" for r in rows),
        )  # fmt: skip
        yield Words(
            "Cells: the back’s temperature and 3 K at full sun. Bands: meter 1 %, light 5 %, 2 K, by root-sum-square. "
            "Strings alike read alike: compare them with each other first."
        )


def missing(why: str) -> Iterator[Block]:
    """Yield why a sheet is not drawn."""
    yield Words("This sheet is not drawn", 4.0, bold=True)
    yield Words(why, 3.0)


def year_or_none(report: Callable[[], YearReport]) -> YearReport | None:
    """Return a year where there can be one."""
    try:
        return report()
    except RidgeTallyError:
        return None
