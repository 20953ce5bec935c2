"""Photos and plats: read whatever a phone writes, keep clean copies without its metadata."""

from dataclasses import dataclass
from hashlib import sha256
from io import BytesIO

from PIL import Image, ImageOps, UnidentifiedImageError

from ridge_tally.core.errors import FormatError
from ridge_tally.core.job.survey import Picture

LARGEST_BYTES = 20 * 1024 * 1024
LARGEST_PIXELS = 100_000_000
# A kept copy's longer side; enough to read a nameplate, small enough to travel with a job.
LONGEST_SIDE_PX = 2400
JPEG_QUALITY = 85
# A drawing stays sharp as PNG; a photo saved as PNG would be larger than this.
LARGEST_PNG_BYTES = 3 * 1024 * 1024


@dataclass(frozen=True, slots=True)
class CleanPicture:
    """A copy made anew, upright, without metadata; ``suffix`` is ``.jpg`` or ``.png``."""

    picture: Picture
    content: bytes
    suffix: str


def clean_picture(content: bytes, file: str) -> CleanPicture:
    """Return a clean copy of a picture in any common format.

    Raises
    ------
    FormatError
        If it is too large, or no picture at all; the message names the file and the limit.
    """
    if len(content) > LARGEST_BYTES:
        raise FormatError(
            file,
            "",
            f"{len(content) / 1024**2:.0f} MB is more than the {LARGEST_BYTES // 1024**2} MB kept",
            "Send the photo in a smaller size.",
        )
    try:
        with Image.open(BytesIO(content)) as opened:
            if opened.width * opened.height > LARGEST_PIXELS:
                raise FormatError(
                    file,
                    "",
                    f"{opened.width} × {opened.height} pixels are more than "
                    f"{LARGEST_PIXELS // 1_000_000} million",
                    "Send the photo in a smaller size.",
                )
            drawn = opened.format == "PNG"
            upright = ImageOps.exif_transpose(opened)
            upright.thumbnail((LONGEST_SIDE_PX, LONGEST_SIDE_PX))
            return _encoded(upright, drawn=drawn)
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise FormatError(
            file, "", "this is no picture that can be read", "Choose a JPEG or PNG file."
        ) from None


def _encoded(image: Image.Image, *, drawn: bool) -> CleanPicture:
    if drawn:
        content = _bytes(image.convert("RGBA" if "A" in image.getbands() else "RGB"), "PNG")
        if len(content) <= LARGEST_PNG_BYTES:
            return _named(content, image, ".png")
    return _named(_bytes(image.convert("RGB"), "JPEG", quality=JPEG_QUALITY), image, ".jpg")


def _bytes(image: Image.Image, kind: str, **how: int) -> bytes:
    # A fresh canvas leaves every tag of the original behind.
    fresh = Image.new(image.mode, image.size)
    fresh.paste(image)
    out = BytesIO()
    fresh.save(out, kind, optimize=True, **how)
    return out.getvalue()


def _named(content: bytes, image: Image.Image, suffix: str) -> CleanPicture:
    picture = Picture(sha256(content).hexdigest(), image.width, image.height)
    return CleanPicture(picture, content, suffix)
