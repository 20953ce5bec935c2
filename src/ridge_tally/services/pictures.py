"""Pictures of a workspace: taken in clean, handed out, packed with a job."""

from pathlib import Path, PurePosixPath

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.survey import Picture
from ridge_tally.formats.job_bundle import pictures_of
from ridge_tally.formats.pictures import clean_picture
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.pictures import keep_picture, picture_path


def take_in(workspace: Workspace, content: bytes, file: str) -> Picture:
    """Keep a clean copy of a picture and return what a job names it by.

    Raises
    ------
    FormatError, StorageFailed
        If it is no picture, too large, or cannot be written.
    """
    clean = clean_picture(content, file)
    keep_picture(workspace.pictures, clean.picture.sha256, clean.content, clean.suffix)
    return clean.picture


def picture_file(workspace: Workspace, sha256: str) -> Path:
    """Return a picture's file; NotFound if it is not kept here."""
    return picture_path(workspace.pictures, sha256)


def packed_with(workspace: Workspace, job: Job) -> dict[str, bytes]:
    """Return the pictures a job names that are kept here, by file name."""
    found = {}
    for sha256 in pictures_of(job):
        try:
            place = picture_path(workspace.pictures, sha256)
        except NotFound:
            # A job file that came without its pictures travels on without them.
            continue
        found[place.name] = place.read_bytes()
    return found


def unpacked(workspace: Workspace, pictures: dict[str, bytes], file: str) -> None:
    """Keep the pictures of a bundle.

    Raises
    ------
    FormatError, StorageFailed
        If one is no picture, or cannot be written.
    """
    for name, content in pictures.items():
        clean_picture(content, f"{file}, {name}")
        path = PurePosixPath(name)
        keep_picture(workspace.pictures, path.stem, content, path.suffix)
