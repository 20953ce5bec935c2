"""Files that come in with a packet and go out of a job, each held against a reader of its own."""

from datetime import date
from io import BytesIO, StringIO

import pandas as pd
import pytest
import vobject
from fpdf import FPDF
from PIL import Image
from pypdf import PdfReader, PdfWriter
from pypdf.annotations import Link
from pypdf.generic import DictionaryObject, NameObject, TextStringObject

from ridge_tally.core.errors import FormatError
from ridge_tally.formats.attached_pdf import MOST_PAGES, bound, plain_pages
from ridge_tally.formats.calendar_file import CalendarDay, calendar_text
from ridge_tally.formats.csv_file import csv_file, csv_text


def pdf_of(pages: int, words: str = "datasheet") -> bytes:
    pdf = FPDF()
    pdf.set_font("Helvetica")
    for n in range(pages):
        pdf.add_page()
        pdf.text(20, 20, f"{words} {n + 1}")
    return bytes(pdf.output())


def locked() -> bytes:
    writer = PdfWriter()
    writer.append(BytesIO(pdf_of(1)))
    writer.encrypt("secret")
    out = BytesIO()
    writer.write(out)
    return out.getvalue()


def picture(wide: int, high: int, kind: str = "PNG") -> bytes:
    out = BytesIO()
    Image.new("1", (wide, high)).save(out, kind)  # one bit a pixel
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "told"),
    [
        (b"a letter as plain text", "neither a PDF nor a picture"),
        (b"", "neither a PDF nor a picture"),
        (locked(), "locked with a password"),
        (pdf_of(1)[:400], "damaged"),
        (b"%PDF-1.7\n" + b"\x00" * 500, "damaged"),
        (pdf_of(MOST_PAGES + 1), f"{MOST_PAGES + 1} pages"),
        (pdf_of(1) + b" " * (25 * 1024 * 1024), "25 MB"),
        (picture(10_001, 10_000), "more than 100 million"),
    ],
    ids=["text", "nothing", "locked", "cut off", "zeros", "pages", "bytes", "pixels"],
)
@pytest.mark.filterwarnings("ignore::PIL.Image.DecompressionBombWarning")
def test_a_file_that_cannot_go_along_is_refused_in_words(content: bytes, told: str) -> None:
    with pytest.raises(FormatError, match=told) as refused:
        plain_pages(content, "letter.pdf")
    assert str(refused.value).startswith("letter.pdf")


def test_what_goes_along_keeps_its_pages_and_nothing_that_acts() -> None:
    writer = PdfWriter()
    writer.append(BytesIO(pdf_of(2)))
    writer.add_annotation(0, Link(rect=(0, 0, 50, 50), url="https://example.invalid"))
    script = DictionaryObject({
        NameObject("/S"): NameObject("/JavaScript"), NameObject("/JS"): TextStringObject("app.alert(1)"),
    })  # fmt: skip
    writer.root_object[NameObject("/OpenAction")] = script
    writer.pages[1][NameObject("/AA")] = DictionaryObject({NameObject("/O"): script})
    writer.add_attachment("run.bin", b"x")
    out = BytesIO()
    writer.write(out)
    assert b"/URI" in out.getvalue()
    assert out.getvalue().count(b"JavaScript") == 2
    clean = plain_pages(out.getvalue(), "a.pdf")
    assert clean.pages == 2
    for kept in (b"/URI", b"JavaScript", b"EmbeddedFile"):
        assert kept not in clean.content
    assert "datasheet 2" in PdfReader(BytesIO(clean.content)).pages[1].extract_text()
    # The most that goes along does; and what went through once goes through again, the same.
    assert plain_pages(pdf_of(MOST_PAGES), "b.pdf").pages == MOST_PAGES
    assert plain_pages(clean.content, "a.pdf") == clean


@pytest.mark.parametrize("kind", ["PNG", "JPEG"])
def test_a_picture_becomes_a_page(kind: str) -> None:
    out = BytesIO()
    Image.new("RGB", (300, 200), "red").save(out, kind)
    page = plain_pages(out.getvalue(), "photo")
    assert page.pages == 1
    assert len(PdfReader(BytesIO(page.content)).pages[0].images) == 1
    assert plain_pages(out.getvalue(), "photo") == page


def test_parts_are_bound_in_their_order_each_under_its_bookmark() -> None:
    whole = bound("Packet", [("Sheets", pdf_of(2, "sheet")), ("letter.pdf", pdf_of(1, "letter"))])
    reader = PdfReader(BytesIO(whole))
    assert [m.title for m in reader.outline] == ["Sheets", "letter.pdf"]
    assert [p.extract_text().split()[0] for p in reader.pages] == ["sheet", "sheet", "letter"]
    assert reader.metadata is not None
    assert reader.metadata.title == "Packet"


def test_a_table_reads_back_and_no_cell_of_it_runs() -> None:
    rows: list[dict[str, object]] = [
        {"name": "=HYPERLINK(1)", "length_m": -1.5, "note": "a, b\nc", "text": "-2.5"},
        {"name": "@sum", "length_m": 2, "note": 'say "so"', "text": "+x"},
        {"name": "Дом", "length_m": 0, "note": "", "text": "\tx"},
    ]
    read = pd.read_csv(BytesIO(csv_file(rows)), keep_default_na=False)
    assert list(read["name"]) == ["'=HYPERLINK(1)", "'@sum", "Дом"]
    assert list(read["length_m"]) == [-1.5, 2, 0]
    assert list(read["note"]) == ["a, b\nc", 'say "so"', ""]
    # A number in words stays one; what only begins like one does not.
    assert list(read["text"]) == ["-2.5", "'+x", "'\tx"]
    assert csv_file(rows).startswith(b"\xef\xbb\xbf")
    assert pd.read_csv(StringIO(csv_text([{"a": 1}]))).to_dict("list") == {"a": [1]}


def test_days_read_back_by_another_parser_and_keep_who_they_are() -> None:
    """RFC 5545: ends of whole days are exclusive, lines end in CRLF and are at most 75 octets."""
    days = [
        CalendarDay("job-roof", "House; on the roof, two days", "Wind; rain\nice " + "ö" * 90, date(2026, 12, 30), date(2026, 12, 31)),
        CalendarDay("job-tilt", "Tilt", "", date(2026, 3, 1), date(2026, 3, 1), yearly=True),
    ]  # fmt: skip
    text = calendar_text(days, date(2026, 12, 1), 7)
    assert all(len(line.encode()) <= 75 for line in text.split("\r\n"))
    assert "\n" not in text.replace("\r\n", "")
    roof, tilt = vobject.readOne(text).vevent_list
    assert roof.summary.value == "House; on the roof, two days"
    assert roof.description.value == days[0].told
    assert (roof.dtstart.value, roof.dtend.value) == (date(2026, 12, 30), date(2027, 1, 1))
    assert (roof.uid.value, roof.sequence.value) == ("job-roof@ridge-tally", "7")
    assert tilt.rrule.value == "FREQ=YEARLY"
    assert not hasattr(tilt, "description")
    later = calendar_text(days, date(2026, 12, 9), 8)
    assert [e.uid.value for e in vobject.readOne(later).vevent_list] == [
        roof.uid.value,
        tilt.uid.value,
    ]
    assert calendar_text(days, date(2026, 12, 1), 7) == text
