"""PDFs and pictures that go along with a packet: read as strangers' files are, kept as plain pages."""

from dataclasses import dataclass
from io import BytesIO

from fpdf import FPDF
from pypdf import PdfReader, PdfWriter
from pypdf.errors import PyPdfError

from ridge_tally.core.errors import FormatError
from ridge_tally.core.sheets.paper import SIZES_MM, SheetPaper
from ridge_tally.formats.pictures import clean_picture
from ridge_tally.formats.scene_pdf import WRITTEN

LARGEST_BYTES, MOST_PAGES = 25 * 1024 * 1024, 300
# What a page can do beside being read: links, forms, scripts, sounds.
ACTIVE = ("/Annots", "/AA", "/PieceInfo", "/Metadata")
# Letter, standing.
PAGE_MM = SIZES_MM[SheetPaper.LETTER][::-1]
REMEDY = "Print it to a new PDF, and attach that."
_PICTURES = (b"\xff\xd8\xff", b"\x89PNG", b"GIF8", b"RIFF", b"II*", b"MM\x00*")


@dataclass(frozen=True, slots=True)
class PlainPages:
    """A PDF of pages without anything active in it, and how many they are."""

    content: bytes
    pages: int


def plain_pages(content: bytes, file: str) -> PlainPages:
    """Return a clean copy of a PDF, or of a picture as a page.

    Raises
    ------
    FormatError
        If it is neither, is locked, is damaged, or has too many bytes, pages or pixels; it says which.
    """
    if content.startswith(_PICTURES):
        return PlainPages(_page_of(clean_picture(content, file).content), 1)
    if len(content) > LARGEST_BYTES:
        raise FormatError(
            file, "", f"{len(content) / 1024**2:.0f} MB are more than {LARGEST_BYTES // 1024**2} MB",
            "Attach a smaller copy.",
        )  # fmt: skip
    if b"%PDF-" not in content[:1024]:
        raise FormatError(
            file, "", "this is neither a PDF nor a picture", "Choose a PDF, JPEG or PNG."
        )
    try:
        return _plain(PdfReader(BytesIO(content)), file)
    except (PyPdfError, ValueError, KeyError, TypeError, AttributeError, IndexError, OSError,
            RecursionError, NotImplementedError, AssertionError):  # fmt: skip
        raise FormatError(file, "", "the PDF is damaged", REMEDY) from None


def _plain(reader: PdfReader, file: str) -> PlainPages:
    if reader.is_encrypted:
        raise FormatError(file, "", "the PDF is locked with a password", "Save it without one.")
    count = len(reader.pages)
    if not 1 <= count <= MOST_PAGES:
        raise FormatError(
            file,
            "",
            f"it has {count} pages, 1 to {MOST_PAGES} go along",
            "Attach the pages that matter.",
        )
    writer = PdfWriter()
    for page in reader.pages:
        for key in ACTIVE:
            page.pop(key, None)
        writer.add_page(page)
    out = BytesIO()
    writer.write(out)
    return PlainPages(out.getvalue(), count)


def _page_of(picture: bytes) -> bytes:
    """Return a picture as large as it goes on a page of its own."""
    pdf = FPDF(unit="mm", format=PAGE_MM)
    pdf.set_creation_date(WRITTEN)
    pdf.add_page()
    wide, high = PAGE_MM[0] - 30, PAGE_MM[1] - 30
    pdf.image(BytesIO(picture), 15, 15, wide, high, keep_aspect_ratio=True)
    return bytes(pdf.output())


def bound(title: str, parts: list[tuple[str, bytes]]) -> bytes:
    """Return PDFs as one, a bookmark for each over its own ones; all of them readable."""
    writer = PdfWriter()
    for name, content in parts:
        writer.append(BytesIO(content), outline_item=name)
    writer.add_metadata({"/Title": title, "/Producer": "Ridge Tally"})
    out = BytesIO()
    writer.write(out)
    return out.getvalue()
