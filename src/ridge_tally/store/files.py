"""Files named by their content's hash, written whole or not at all: pictures, weather."""

import os
import re
import tempfile
from pathlib import Path

from ridge_tally.core.errors import NotFound, StorageFailed

_HASH = re.compile(r"[0-9a-f]{64}")


def keep_file(folder: Path, sha256: str, content: bytes, suffix: str) -> bool:
    """Write content under its hash; return whether it is new: nothing is done when it is there.

    Raises
    ------
    StorageFailed
        If the folder refuses it; no half file is left.
    """
    place = folder / f"{sha256}{suffix}"
    if place.exists():
        return False
    try:
        folder.mkdir(parents=True, exist_ok=True)
        with tempfile.NamedTemporaryFile(dir=folder, delete=False) as new:
            new.write(content)
        os.replace(new.name, place)
    except OSError as error:
        raise StorageFailed(f"the file was not written ({error.strerror})") from None
    return True


def kept_file(folder: Path, sha256: str, suffixes: tuple[str, ...], what: str) -> Path:
    """Return where a file of that hash lies; NotFound, naming what it is, if none does."""
    if _HASH.fullmatch(sha256):
        for suffix in suffixes:
            if (place := folder / f"{sha256}{suffix}").is_file():
                return place
    raise NotFound(what, sha256[:12])
