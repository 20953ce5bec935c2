"""What stood on each sheet of an issued set, carried within its own PDF for the next issue to be held against."""

import json
from collections.abc import Mapping
from io import BytesIO

from pypdf import PdfReader
from pypdf.errors import PyPdfError

from ridge_tally.core.sheets.clouds import SheetMarks

FILE = "what-stood-here.json"


def marks_json(marks: Mapping[str, SheetMarks]) -> bytes:
    """Return marks by the number of their sheet as JSON."""
    told = {number: {"words": m.words, "drawn": m.drawn} for number, m in marks.items()}
    return json.dumps(told, ensure_ascii=False, sort_keys=True).encode()


def marks_in(pdf: bytes) -> dict[str, SheetMarks]:
    """Return the marks that an issued PDF carries; none where it carries none or is damaged."""
    try:
        found = PdfReader(BytesIO(pdf)).attachments.get(FILE)
        told = json.loads(found[0]) if found else {}
        return {
            number: SheetMarks(tuple(m["words"]), tuple(m["drawn"])) for number, m in told.items()
        }
    except (PyPdfError, ValueError, KeyError, TypeError, AttributeError):
        return {}
