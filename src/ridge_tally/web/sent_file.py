"""Files in and out: sent as the body of a request, handed out under their hash."""

import re
from pathlib import Path
from urllib.parse import unquote

from flask import Response, request, send_file


def sent_file(unnamed: str) -> tuple[bytes, str]:
    """Return the content and the name of the file of this request."""
    return request.get_data(), unquote(request.headers.get("X-File-Name", unnamed))


def handed_out(content: str | bytes, kind: str, name: str, *, shown: bool = False) -> Response:
    """Return a file made for this request; ``shown`` in the browser instead of kept at once."""
    response = Response(content, mimetype=kind)
    response.headers.set(
        "Content-Disposition", "inline" if shown else "attachment", filename=_plain(name)
    )
    return response


def _plain(name: str) -> str:
    """Return a file's name in letters that every system has."""
    return re.sub(r"[^A-Za-z0-9._-]+", "-", name)


def send_kept(place: Path) -> Response:
    """Return a kept file; under its hash it never changes."""
    response = send_file(place)
    response.headers["Cache-Control"] = "private, immutable, max-age=31536000"
    response.headers["X-Content-Type-Options"] = "nosniff"
    return response
