"""A file sent as the body of a request, its name percent-encoded beside it."""

from urllib.parse import unquote

from flask import request


def sent_file(unnamed: str) -> tuple[bytes, str]:
    """Return the content and the name of the file of this request."""
    return request.get_data(), unquote(request.headers.get("X-File-Name", unnamed))
