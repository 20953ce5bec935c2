"""Pictures come in clean and travel with their job; what is none is refused by name."""

import zipfile
from io import BytesIO
from pathlib import Path

import pytest
from PIL import Image

from jobs import SAMPLE, SHELF, workspace_in
from ridge_tally.core.errors import FormatError, NotFound
from ridge_tally.core.job.edits.survey.surroundings import AddAttachment
from ridge_tally.editing.apply import apply_edit
from ridge_tally.formats.job_bundle import JOB_NAME, read_bundle
from ridge_tally.formats.job_file import write_job
from ridge_tally.formats.pictures import LARGEST_BYTES, LONGEST_SIDE_PX, clean_picture
from ridge_tally.services import jobs
from ridge_tally.services.kept_files import picture_file, take_in

ORIENTATION, MAKER = 0x0112, 0x010F


def photo(width: int = 300, height: int = 200, kind: str = "JPEG", **exif: object) -> bytes:
    image = Image.new("RGB", (width, height), (180, 90, 40))
    tags = image.getexif()
    tags[ORIENTATION], tags[MAKER] = exif.get("orientation", 1), "somebody’s phone"
    out = BytesIO()
    image.save(out, kind, exif=tags)
    return out.getvalue()


def test_a_photo_loses_its_tags_and_is_turned_upright() -> None:
    clean = clean_picture(photo(orientation=6), "roof.jpg")
    assert (clean.picture.width_px, clean.picture.height_px, clean.suffix) == (200, 300, ".jpg")
    with Image.open(BytesIO(clean.content)) as kept:
        assert dict(kept.getexif()) == {}
        assert kept.size == (200, 300)
    assert b"phone" not in clean.content


def test_a_large_photo_is_kept_smaller_and_a_drawing_stays_sharp() -> None:
    clean = clean_picture(photo(4000, 1000), "wide.jpg")
    assert (clean.picture.width_px, clean.picture.height_px) == (LONGEST_SIDE_PX, 600)
    assert clean_picture(photo(kind="PNG"), "plat.png").suffix == ".png"


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"hello", "plat.jpg: this is no picture"),
        (b"", "no picture"),
        (photo()[:150], "no picture"),
        (b"\xff\xd8" + b"x" * LARGEST_BYTES, "20 MB is more than the 20 MB kept|more than the 20"),
        (b"\xff\xd8" + b"x" * (50 * 1024**2), "50 MB is more than the 20 MB kept"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "no picture"),
    ],
)
def test_what_is_no_picture_is_refused_by_name(content: bytes, says: str) -> None:
    with pytest.raises(FormatError, match=says):
        clean_picture(content, "plat.jpg")


def test_a_job_travels_with_its_pictures_and_without_them_stays_json(tmp_path: Path) -> None:
    here, there = workspace_in(tmp_path / "here"), workspace_in(tmp_path / "there")
    picture = take_in(here, photo(), "roof.jpg")
    assert take_in(here, photo(), "again.jpg") == picture
    job = apply_edit(SAMPLE, AddAttachment("moss", picture, "south"), SHELF)
    jobs.store_job(here, job, "sample", "tests")
    content, suffix = jobs.export_job(here, "juniper-bench")
    assert suffix == ".ridgetally.zip"
    brought = jobs.import_job(there, content, "roof.ridgetally.zip", "tests")
    assert brought.job == job
    assert (
        picture_file(there, picture.sha256).read_bytes()
        == picture_file(here, picture.sha256).read_bytes()
    )
    with pytest.raises(NotFound):
        picture_file(there, "../ridge-tally")


def bundle(**files: bytes) -> bytes:
    out = BytesIO()
    with zipfile.ZipFile(out, "w") as made:
        for name, content in files.items():
            made.writestr(name.replace("__", "/"), content)
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (bundle(readme=b"x"), f"no {JOB_NAME}"),
        (bundle(readme=b"x")[:40] + b"broken", "does not open"),
        (
            bundle(**{JOB_NAME: b"{}", f"pictures__{'0' * 64}.jpg": b"x"}),
            "not what its name says",
        ),
        (bundle(**{JOB_NAME: b"{}", **{f"f{i}": b"" for i in range(210)}}), "are too much"),
    ],
)
def test_a_bad_bundle_is_refused_by_place(content: bytes, says: str) -> None:
    with pytest.raises(FormatError, match=says):
        read_bundle(content, "roof.zip")


def test_a_bundle_with_a_bad_job_stores_neither_job_nor_picture(tmp_path: Path) -> None:
    workspace = workspace_in(tmp_path)
    text = write_job(SAMPLE).replace('"high-desert"', '"tropical-moon"').replace("south", "")
    with pytest.raises(FormatError):
        jobs.import_job(workspace, bundle(**{JOB_NAME: text[:-9].encode()}), "a.zip", "tests")
    assert jobs.list_jobs(workspace) == ()
    assert not (tmp_path / "pictures").exists()
