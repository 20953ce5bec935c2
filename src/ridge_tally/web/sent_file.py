"""Files in and out: sent as the body of a request, handed out under their hash."""

from pathlib import Path
from urllib.parse import unquote

from flask import Response, request, send_file


def sent_file(unnamed: str) -> tuple[bytes, str]:
    """Return the content and the name of the file of this request."""
    return request.get_data(), unquote(request.headers.get("X-File-Name", unnamed))


def send_kept(place: Path) -> Response:
    """Return a kept file; under its hash it never changes."""
    response = send_file(place)
    response.headers["Cache-Control"] = "private, immutable, max-age=31536000"
    response.headers["X-Content-Type-Options"] = "nosniff"
    return response
