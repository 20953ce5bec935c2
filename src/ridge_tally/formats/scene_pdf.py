"""Drawings as one vector PDF: a page a sheet at its size, the shipped fonts in it, a bookmark each."""

from collections.abc import Sequence
from datetime import UTC, datetime
from functools import cache
from importlib.resources import files
from io import BytesIO
from itertools import groupby
from pathlib import Path
from tempfile import mkdtemp

from fontTools.ttLib import TTFont
from fpdf import FPDF

from ridge_tally.core.sheets.scene import Circle, Item, Layer, Line, Scene, Text, along
from ridge_tally.core.sheets.scene_svg import INK, LOOK, hue_of

FAMILY, SIGNS = "Barlow", "Signs"
FACES = {
    "": "barlow-semi-condensed-latin-400-normal",
    "B": "barlow-semi-condensed-latin-600-normal",
}
MM_PER_PT = 25.4 / 72
# Of no moment: the same revision is the same file whenever it is written.
WRITTEN = datetime(2000, 1, 1, tzinfo=UTC)
CURVE = 24


@cache
def _face(name: str) -> Path:
    """Return a shipped face unpacked, as the writer of pages reads it."""
    packed = files("ridge_tally").joinpath(f"fonts/{name}.woff2").read_bytes()
    font = TTFont(BytesIO(packed))
    font.flavor = None
    path = Path(mkdtemp()) / f"{name}.ttf"
    font.save(path)
    return path


def letters_missing(words: str) -> str:
    """Return the letters of some words that the shipped fonts do not have."""
    there = _letters_of(FACES[""]) | _letters_of("symbols")
    return "".join(dict.fromkeys(c for c in words if not c.isspace() and ord(c) not in there))


@cache
def _letters_of(name: str) -> frozenset[int]:
    return frozenset(TTFont(_face(name)).getBestCmap())


def scenes_pdf(
    title: str, author: str, scenes: Sequence[Scene], carried: tuple[str, bytes] | None = None
) -> bytes:
    """Return the sheets as a PDF; the first links to the others where a text is a sheet's number.

    ``carried``: a file that goes within it, by its name.
    """
    pdf = FPDF(unit="mm")
    pdf.set_auto_page_break(False)
    pdf.set_creation_date(WRITTEN)
    pdf.set_title(title)
    pdf.set_author(author)
    pdf.set_creator("Ridge Tally")
    pdf.c_margin = 0.0
    for style, name in FACES.items():
        pdf.add_font(FAMILY, style, _face(name))
    pdf.add_font(SIGNS, "", _face("symbols"))
    links = {
        scene.title.split(" ")[0]: pdf.add_link(page=n) for n, scene in enumerate(scenes, start=1)
    }
    for scene in scenes:
        pdf.add_page(format=(scene.width, scene.height))
        pdf.start_section(scene.title)
        for layer in Layer:
            for item in scene.items:
                if item.layer is layer:
                    _draw(pdf, item, links)
    if carried is not None:
        name, content = carried
        pdf.embed_file(
            bytes=content, basename=name, creation_date=WRITTEN, modification_date=WRITTEN, compress=True,
        )  # fmt: skip
    return bytes(pdf.output())


def _colour(hexed: str) -> tuple[int, int, int]:
    return int(hexed[1:3], 16), int(hexed[3:5], 16), int(hexed[5:7], 16)


def _draw(pdf: FPDF, item: Item, links: dict[str, int]) -> None:
    if isinstance(item, Text):
        _write(pdf, item, links)
        return
    wide, colour = LOOK[item.layer]
    pdf.set_line_width(wide)
    pdf.set_draw_color(*_colour(hue_of(item) if isinstance(item, Line) else colour))
    if isinstance(item, Line):
        if item.dashed:
            pdf.set_dash_pattern(dash=2.4, gap=1.4)
        pdf.polyline(list(item.points), polygon=item.closed)
        if item.dashed:
            pdf.set_dash_pattern()
    elif isinstance(item, Circle):
        pdf.set_fill_color(*_colour(INK if item.filled else "#ffffff"))
        style = "F" if item.filled else "DF" if item.part else "D"
        (x, y), r = item.centre, item.radius
        pdf.circle(x, y, r, style=style)
    else:
        pdf.polyline(along(item, CURVE))


def _write(pdf: FPDF, item: Text, links: dict[str, int]) -> None:
    pdf.set_text_color(*_colour(INK))
    pieces = [
        (words, (SIGNS, "") if signs else (FAMILY, "B" if item.bold else ""))
        for signs, words in _pieces(item.words)
    ]
    size = item.size / MM_PER_PT
    widths = []
    for words, face in pieces:
        pdf.set_font(*face, size)
        widths.append(pdf.get_string_width(words))
    wide, (x, y) = sum(widths), item.at
    left = at = {"start": x, "middle": x - wide / 2, "end": x - wide}[item.anchor]
    for (words, face), width in zip(pieces, widths, strict=True):
        pdf.set_font(*face, size)
        pdf.text(at, y, words)
        at += width
    if item.words in links:
        pdf.link(left, y - item.size, wide, item.size * 1.2, links[item.words])


def _pieces(words: str) -> list[tuple[bool, str]]:
    """Return words in pieces of the letters' face and of the signs' face; a letter of neither is a box."""
    plain = _letters_of(FACES[""])
    grouped = groupby(words, lambda c: ord(c) not in plain and ord(c) in _letters_of("symbols"))
    return [(signs, "".join(run)) for signs, run in grouped]
