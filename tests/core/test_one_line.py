"""The one-line diagram: clean over many systems, its lint finds planted faults, its files read back."""

from dataclasses import replace
from io import StringIO
from itertools import product

import ezdxf
import pytest
from fontTools.ttLib import TTFont

from jobs import FULL, option_a
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.service import SourceBreaker
from ridge_tally.core.sheets.one_line.layout import one_line_sheets
from ridge_tally.core.sheets.one_line.spec import AtModule, Beside, Group, OneLine, Symbols
from ridge_tally.core.sheets.paper import SheetPaper
from ridge_tally.core.sheets.scene import Arc, Circle, Layer, Line, Scene, Text, text_width
from ridge_tally.core.sheets.scene_lint import lint
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.core.sheets.titled import TitleFacts
from ridge_tally.editing.design import design_for
from ridge_tally.formats.scene_dxf import scene_dxf
from ridge_tally.views.build.one_line import one_line, one_line_facts

FACTS = TitleFacts("A firm", "A job", "A place", "A system", "7, 2026-12-01", "")
A3, TABLOID, LETTER, A4 = SheetPaper.A3, SheetPaper.TABLOID, SheetPaper.LETTER, SheetPaper.A4
BASE = one_line_facts(design_for(FULL, option_a(FULL)))


def system(inverters: int, trackers: int, per: int, **change: object) -> OneLine:
    """A house of so many inverters, trackers on each and strings on each of those."""
    (group,) = BASE.groups
    at_module = AtModule.OPTIMIZER if change.pop("optimizers", False) else AtModule.NOTHING
    fuse = str(change.pop("fuse", ""))
    row = replace(group.rows[0], at_module=at_module)
    rows = tuple(
        replace(row, tags=f"{t}.{n}", port=f"T{t}", part=f"string {t}.{n}")
        for t in range(1, trackers + 1)
        for n in range(1, per + 1)
    )

    def one(number: int) -> Group:
        battery = ("Battery", "10 kWh") if change.get("battery") and number == 0 else ()
        return replace(
            group, part=f"inverter {number + 1}", rows=rows, joined=bool(fuse) and per > 1,
            fuse=fuse, battery=battery, breaker="40 A", dc_switch=str(change.get("switch", "")),
        )  # fmt: skip

    groups = tuple(one(n) for n in range(inverters))
    kept = {k: v for k, v in change.items() if k not in ("battery", "switch")}
    return replace(BASE, groups=groups, collector=inverters > 1, chain_mark="C9", **kept)  # type: ignore[arg-type]


BESIDE = tuple(Beside(f"Old array {n}", ("3 kW DC", "already there"), f"old {n}") for n in range(2))
SYSTEMS = [
    (f"{inverters} x {trackers} x {per} {paper.value} {symbols.value} {sorted(more)}",
     system(inverters, trackers, per, symbols=symbols, **more), paper)
    for (inverters, trackers, per), (paper, symbols), more in product(
        [(1, 1, 1), (1, 6, 2), (2, 2, 1), (3, 2, 2), (1, 6, 3)],
        [(A3, Symbols.INTERNATIONAL), (TABLOID, Symbols.NORTH_AMERICAN), (A4, Symbols.INTERNATIONAL), (LETTER, Symbols.NORTH_AMERICAN)],
        [{}, {"line_side": True}, {"beside": BESIDE, "meter": True}, {"battery": True, "optimizers": True},
         {"fuse": "15 A gPV each", "switch": "600 V, 25 A"}],
    )
]  # fmt: skip


@pytest.mark.parametrize(("spec", "paper"), [s[1:] for s in SYSTEMS], ids=[s[0] for s in SYSTEMS])
def test_a_diagram_has_no_fault(spec: OneLine, paper: SheetPaper) -> None:
    sheets = one_line_sheets(spec, FACTS, paper)
    assert sheets
    assert [hit for sheet in sheets for hit in lint(sheet)] == []


def test_equal_strings_fold_and_then_a_second_sheet_follows() -> None:
    (folded,) = one_line_sheets(system(1, 6, 3), FACTS, A3)
    words = [i.words for i in folded.items if isinstance(i, Text)]
    assert any(w.startswith("18 × 1.1") for w in words)
    unlike = system(3, 6, 2)
    rows = tuple(
        replace(g, rows=tuple(replace(r, told=(f"{n} × 405 W", ""), mark=f"C{n}")
                              for n, r in enumerate(g.rows, start=5)))
        for g in unlike.groups
    )  # fmt: skip
    sheets = one_line_sheets(replace(unlike, groups=rows), FACTS, TABLOID)
    assert len(sheets) == 4
    assert [hit for sheet in sheets for hit in lint(sheet)] == []
    assert sum("to E-1.4" in w.words for s in sheets for w in s.items if isinstance(w, Text)) == 3


WIRE = Line(Layer.AC, ((20.0, 50.0), (80.0, 50.0)), net="a")


@pytest.mark.parametrize(
    ("kind", "items"),
    [
        ("text over text", (Text((30, 30), "twelve"), Text((32, 31), "words"))),
        ("text over line", (WIRE, Text((30, 50.5), "on it"))),
        ("text over arc", (Arc(Layer.AC, (50, 50), 5, 180, 360), Text((44, 46), "rating"))),
        ("crossing without a hop", (WIRE, Line(Layer.DC, ((50.0, 30.0), (50.0, 70.0)), net="b"))),
        ("off the frame", (Text((95, 20), "over the edge"),)),
        ("a conductor aslant", (Line(Layer.AC, ((20.0, 20.0), (40.0, 30.0)), net="a"),)),
        ("a conductor through a circle", (WIRE, Circle(Layer.SYMBOL, (50, 50), 3))),
    ],
)
def test_lint_finds_what_was_planted(kind: str, items: tuple[object, ...]) -> None:
    scene = Scene("planted", 100, 100, (5, 5, 95, 95), items)  # type: ignore[arg-type]
    assert kind in {hit.kind for hit in lint(scene)}


def test_nothing_is_found_where_nothing_is_wrong() -> None:
    hop = Arc(Layer.AC, (50, 50), 1.5, 180, 360)
    apart = (
        Line(Layer.AC, ((20.0, 50.0), (48.5, 50.0)), net="a"), hop,
        Line(Layer.AC, ((51.5, 50.0), (80.0, 50.0)), net="a"),
        Line(Layer.DC, ((50.0, 52.0), (50.0, 70.0)), net="b"), Text((30, 40), "free"),
    )  # fmt: skip
    assert lint(Scene("clean", 100, 100, (5, 5, 95, 95), apart)) == ()


def test_words_are_no_wider_than_they_are_taken_to_be() -> None:
    # The font that ships with the app, by its own table of widths.
    from importlib.resources import files

    fonts = files("ridge_tally").joinpath("fonts")
    font = TTFont(str(fonts.joinpath("barlow-semi-condensed-latin-400-normal.woff2")))
    chars, widths, em = font.getBestCmap(), font["hmtx"], font["head"].unitsPerEm
    texts = [i for s in one_line_sheets(BASE, FACTS, A3) for i in s.items if isinstance(i, Text)]
    for text in texts:
        known = [widths[chars[ord(c)]][0] for c in text.words if ord(c) in chars]
        if len(text.words) > 6:
            assert sum(known) / em * text.size <= text_width(text) * 1.06, text.words


def test_the_dxf_reads_back_whole_and_its_audit_is_clean() -> None:
    (sheet,) = one_line_sheets(BASE, FACTS, A3)
    drawing = ezdxf.read(StringIO(scene_dxf(sheet)))
    assert drawing.dxfversion == "AC1024"
    assert drawing.header["$INSUNITS"] == 4
    assert drawing.audit().errors == []
    space = drawing.modelspace()
    texts = [i for i in sheet.items if isinstance(i, Text)]
    assert sorted(e.dxf.text for e in space.query("TEXT")) == sorted(t.words for t in texts)
    lines = [i for i in sheet.items if isinstance(i, Line)]
    assert len(space.query("LINE LWPOLYLINE")) == len(lines)
    assert len(space.query("ARC")) == sum(isinstance(i, Arc) for i in sheet.items)
    assert len(space.query("CIRCLE HATCH")) == sum(isinstance(i, Circle) for i in sheet.items)
    used = {e.dxf.layer for e in space}
    assert used <= {layer.value for layer in Layer} <= {la.dxf.name for la in drawing.layers}
    # What is low on paper is low in the drawing.
    low = max(texts, key=lambda t: t.at[1])
    found = next(e for e in space.query("TEXT") if e.dxf.text == low.words)
    assert found.dxf.insert.y == pytest.approx(sheet.height - low.at[1]) or found.dxf.align_point.y


def test_every_kind_of_house_is_drawn_from_its_design() -> None:
    option = option_a(FULL)
    service = FULL.survey.service
    tapped = replace(service, source_breaker=SourceBreaker.LINE_SIDE)
    kinds = {
        "as it is": (FULL, option),
        "tap": (replace(FULL, survey=replace(FULL.survey, service=tapped)), option),
        "dc battery": (FULL, replace(option, battery=Battery(Coupling.DC, 10.0, 5.0))),
        "ac battery": (FULL, replace(option, battery=Battery(Coupling.AC, 10.0, 5.0))),
        "two inverters": (FULL, replace(option, more_inverters=(option.inverter_id,))),
    }
    for name, (job, one) in kinds.items():
        sheets = one_line(design_for(job, one), FACTS)
        assert sheets, name
        assert [h for s in sheets for h in s.hits] == [], name
        svg = scene_svg(sheets[0].scene)
        assert 'data-part="string A"' in svg
        assert 'data-part="panel"' in svg
    assert one_line(design_for(FULL, replace(option, strings=(), arrays=())), FACTS) == ()


def test_every_joined_port_goes_through_its_own_pole_of_the_switch() -> None:
    (sheet,) = one_line_sheets(
        system(1, 2, 2, fuse="15 A gPV each", switch="600 V, 25 A"), FACTS, A3
    )
    nets = {i.net for i in sheet.items if isinstance(i, Line)}
    assert len([n for n in nets if n.startswith("switched ")]) == 2
