"""The plat of the second sample job: an invented lot, drawn to scale as an office would."""

from io import BytesIO

from PIL import Image, ImageDraw, ImageFont

from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import PicturePoint

PX_PER_M = 20.0
# The lot's corners on the site: south-west and north-east.
SOUTH_WEST, NORTH_EAST = SitePoint(-33.0, -18.0), SitePoint(8.0, 9.6)
_MARGIN_PX = 90
_LINE, _PALE, _GROUND = (70, 80, 78), (176, 182, 176), (250, 249, 245)


def plat_point(east_m: float, north_m: float) -> PicturePoint:
    """Return where a point of the site lies on the plat, pixels."""
    return PicturePoint(
        _MARGIN_PX + (east_m - SOUTH_WEST.east_m) * PX_PER_M,
        _MARGIN_PX + (NORTH_EAST.north_m - north_m) * PX_PER_M,
    )


def lagoon_plat() -> bytes:
    """Return the plat as PNG: lot, road, the house's footprint as the council has it."""
    wide = int((NORTH_EAST.east_m - SOUTH_WEST.east_m) * PX_PER_M) + 2 * _MARGIN_PX
    tall = int((NORTH_EAST.north_m - SOUTH_WEST.north_m) * PX_PER_M) + 2 * _MARGIN_PX
    image = Image.new("RGB", (wide, tall), _GROUND)
    draw = ImageDraw.Draw(image)
    font = ImageFont.load_default(22)

    def at(east_m: float, north_m: float) -> tuple[float, float]:
        point = plat_point(east_m, north_m)
        return point.x_px, point.y_px

    w, s, e, n = SOUTH_WEST.east_m, SOUTH_WEST.north_m, NORTH_EAST.east_m, NORTH_EAST.north_m
    draw.line([at(w, s), at(e, s), at(e, n), at(w, n), at(w, s)], fill=_LINE, width=3)
    draw.line([at(w - 4, s - 2.2), at(e + 4, s - 2.2)], fill=_PALE, width=2)
    footprint = (
        (0.1, 0.1), (-13.8, 1.95), (-15.1, -8.3), (-1.3, -10.2),
    )  # fmt: skip
    draw.polygon([at(*p) for p in footprint], outline=_LINE, fill=(236, 234, 226))
    draw.text(at(w + 1, n - 1), "Lot 7", fill=_LINE, font=font)
    draw.text(at(-16, s - 2.6), "Lagoon Road", fill=_LINE, font=font)
    draw.text(at(-15, s + 1.6), "41.00", fill=_LINE, font=font)
    draw.text(at(e - 4.2, -4), "27.60", fill=_LINE, font=font)
    out = BytesIO()
    image.save(out, "PNG")
    return out.getvalue()
