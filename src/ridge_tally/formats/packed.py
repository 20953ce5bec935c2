"""Files as one zip: the same files are the same zip, whenever it is packed."""

import zipfile
from collections.abc import Mapping
from io import BytesIO

# The earliest day a zip can tell.
NO_DAY = (1980, 1, 1, 0, 0, 0)


def packed(files: Mapping[str, bytes]) -> bytes:
    """Return files by their names as a zip."""
    out = BytesIO()
    with zipfile.ZipFile(out, "w") as bundle:
        for name, content in files.items():
            entry = zipfile.ZipInfo(name, NO_DAY)
            entry.compress_type = zipfile.ZIP_DEFLATED
            bundle.writestr(entry, content)
    return out.getvalue()
