"""A job with its pictures, weather, meter and issued files: a zip of the job file and the files it names."""

import re
import zipfile
from collections.abc import Mapping
from hashlib import sha256
from io import BytesIO
from pathlib import PurePosixPath

from ridge_tally.core.errors import FormatError
from ridge_tally.core.job.document import Job
from ridge_tally.formats.packed import packed

SUFFIX = ".ridgetally.zip"
JOB_NAME = "job.ridgetally.json"
MOST_FILES, LARGEST_WHOLE_BYTES = 200, 200 * 1024 * 1024
PICTURES, WEATHER, METER, ISSUED, ATTACHED = (
    "pictures", "weather", "meter", "issued", "attached",
)  # fmt: skip
_KEPT = re.compile(
    rf"{PICTURES}/[0-9a-f]{{64}}\.(jpg|png)|({WEATHER}|{METER})/[0-9a-f]{{64}}\.csv|({ISSUED}|{ATTACHED})/[0-9a-f]{{64}}\.pdf"
)


def pictures_of(job: Job) -> tuple[str, ...]:
    """Return the hashes of the pictures a job names, each once."""
    survey = job.survey
    named = [a.picture.sha256 for a in survey.attachments if a.picture]
    if survey.trace is not None:
        named.append(survey.trace.picture.sha256)
    named += [r.picture for r in job.proving.records if r.picture]
    return tuple(dict.fromkeys(named))


def write_bundle(job_text: str, files: Mapping[str, bytes]) -> bytes:
    """Return the zip of a job file and the files it names, by their names in it."""
    return packed({JOB_NAME: job_text.encode(), **files})


def is_bundle(content: bytes) -> bool:
    """Return whether bytes are a zip."""
    return content.startswith(b"PK\x03\x04")


def read_bundle(content: bytes, file: str) -> tuple[bytes, dict[str, bytes]]:
    """Return the job file of a zip and the files it names, by their names in it.

    Raises
    ------
    FormatError
        If it is broken, too large, holds no job, or a file is not what its name says.
    """
    try:
        with zipfile.ZipFile(BytesIO(content)) as bundle:
            entries = bundle.infolist()
            whole = sum(entry.file_size for entry in entries)
            if len(entries) > MOST_FILES or whole > LARGEST_WHOLE_BYTES:
                raise FormatError(
                    file, "", f"{len(entries)} files of {whole / 1024**2:.0f} MB are too much",
                    f"At most {MOST_FILES} files and {LARGEST_WHOLE_BYTES // 1024**2} MB.",
                )  # fmt: skip
            if JOB_NAME not in bundle.namelist():
                raise FormatError(file, "", f"there is no {JOB_NAME} in it", "Export it again.")
            names = [e.filename for e in entries if _KEPT.fullmatch(e.filename)]
            files = {n: bundle.read(n) for n in names}
            job = bundle.read(JOB_NAME)
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, OSError) as error:
        raise FormatError(
            file, "", f"the zip does not open ({error})", "Export it again."
        ) from None
    for name, kept in files.items():
        if sha256(kept).hexdigest() != PurePosixPath(name).stem:
            raise FormatError(file, name, "it is not what its name says", "Export it again.")
    return job, files
