"""Pictures of a workspace, taken in clean and handed out; files kept, and packed with a job."""

from collections.abc import Callable
from functools import partial
from pathlib import Path, PurePosixPath

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.survey import Picture
from ridge_tally.formats.job_bundle import ATTACHED, ISSUED, METER, PICTURES, WEATHER, pictures_of
from ridge_tally.formats.pictures import clean_picture
from ridge_tally.formats.weather_file import read_weather
from ridge_tally.services.workspace import Forgotten, Workspace
from ridge_tally.simulation.kept import meter_file, weather_file
from ridge_tally.store.files import keep_file, kept_file

SUFFIXES = (".jpg", ".png")


def take_in(workspace: Workspace, content: bytes, file: str) -> Picture:
    """Keep a clean copy of a picture and return what a job names it by.

    Raises
    ------
    FormatError, StorageFailed
        If it is no picture, too large, or cannot be written.
    """
    clean = clean_picture(content, file)
    keep_file(workspace.pictures, clean.picture.sha256, clean.content, clean.suffix)
    return clean.picture


def picture_file(workspace: Workspace, sha256: str) -> Path:
    """Return a picture's file; NotFound if it is not kept here."""
    return kept_file(workspace.pictures, sha256, SUFFIXES, "picture")


def issued_file(workspace: Workspace, sha256: str) -> Path:
    """Return the file of an issued set; NotFound if it is not kept here."""
    return kept_file(workspace.issued, sha256, (".pdf",), "issued set")


def attached_file(workspace: Workspace, sha256: str) -> Path:
    """Return a file that goes along with a packet; NotFound if it is not kept here."""
    return kept_file(workspace.attached, sha256, (".pdf",), "attached file")


def packed_with(workspace: Workspace, job: Job) -> dict[str, bytes]:
    """Return the pictures, weather, meter, issued and attached files a job names that are kept here, by their names."""
    load, bench, weather = job.brief.household.load_file, job.bench, job.weather.file
    desk = workspace.desk
    named: list[tuple[str, Callable[[str], Path], str]] = [
        (PICTURES, partial(picture_file, workspace), sha256) for sha256 in pictures_of(job)
    ]
    if weather:
        named.append((WEATHER, partial(weather_file, desk), weather.sha256))
    if load:
        named.append((METER, partial(meter_file, desk), load.sha256))
    if bench:
        named.append((METER, partial(meter_file, desk), bench.file.sha256))
    named += [(METER, partial(meter_file, desk), f.sha256) for f in job.proving.production]
    papers = job.paperwork
    named += [(ISSUED, partial(issued_file, workspace), i.sha256) for i in papers.issues]
    named += [
        (ATTACHED, partial(attached_file, workspace), f.sha256)
        for packet in papers.packets
        for wanted in packet.wanted
        for f in wanted.files
    ]
    found = {}
    for folder, kept, sha256 in named:
        try:
            place = kept(sha256)
        except NotFound:
            # A job file that came without its files travels on without them.
            continue
        found[f"{folder}/{place.name}"] = place.read_bytes()
    return found


def unpacked(workspace: Workspace, files: dict[str, bytes], file: str) -> None:
    """Keep the pictures, the weather and the meter files of a bundle.

    Raises
    ------
    FormatError, StorageFailed
        If one is not what its name says, or cannot be written.
    """
    for name, content in files.items():
        path = PurePosixPath(name)
        if path.parts[0] == WEATHER:
            read_weather(content, f"{file}, {name}")
            if keep_file(workspace.desk.weather_files, path.stem, content, path.suffix):
                workspace.forget(Forgotten.FILES)
            continue
        if path.parts[0] == METER:
            # Read when it is asked for: what it is of stands in the job.
            keep_file(workspace.desk.meter_files, path.stem, content, path.suffix)
            continue
        if path.parts[0] == ISSUED:
            keep_file(workspace.issued, path.stem, content, path.suffix)
            continue
        if path.parts[0] == ATTACHED:
            # Looked through again when it is bound in: a bundle may come from anywhere.
            keep_file(workspace.attached, path.stem, content, path.suffix)
            continue
        clean_picture(content, f"{file}, {name}")
        keep_file(workspace.pictures, path.stem, content, path.suffix)
