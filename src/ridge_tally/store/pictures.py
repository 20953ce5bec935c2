"""Pictures as files named by their content's hash: written whole or not at all."""

import os
import re
import tempfile
from pathlib import Path

from ridge_tally.core.errors import NotFound, StorageFailed

SUFFIXES = (".jpg", ".png")
_HASH = re.compile(r"[0-9a-f]{64}")


def keep_picture(folder: Path, sha256: str, content: bytes, suffix: str) -> None:
    """Write a picture under its hash; nothing is done when it is there already.

    Raises
    ------
    StorageFailed
        If the folder refuses it; no half file is left.
    """
    place = folder / f"{sha256}{suffix}"
    if place.exists():
        return
    try:
        folder.mkdir(parents=True, exist_ok=True)
        with tempfile.NamedTemporaryFile(dir=folder, delete=False) as new:
            new.write(content)
        os.replace(new.name, place)
    except OSError as error:
        raise StorageFailed(f"the picture was not written ({error.strerror})") from None


def picture_path(folder: Path, sha256: str) -> Path:
    """Return where a picture lies; NotFound if none has that hash."""
    if _HASH.fullmatch(sha256):
        for suffix in SUFFIXES:
            if (place := folder / f"{sha256}{suffix}").is_file():
                return place
    raise NotFound("picture", sha256[:12])
