"""The survey of Juniper Bench: a gabled house and its garage, taped in feet and inches."""

from ridge_tally.core.job import survey_edits as edits
from ridge_tally.core.job.ids import ObstructionId, PlaneId, ShadeId
from ridge_tally.core.job.survey import (
    ObstructionKind,
    ReadingKind,
    ShadeKind,
    SitePoint,
)
from ridge_tally.core.job.survey_edits import SurveyEdit

SOUTH, NORTH = PlaneId("south"), PlaneId("plane-1")
GARAGE_WEST, GARAGE_EAST = PlaneId("plane-2"), PlaneId("plane-3")


def side(plane: PlaneId, edge: int, typed: str) -> edits.SetReading:
    """Return the reading of one side."""
    return edits.SetReading(plane, ReadingKind.SIDE, (edge,), typed)


def diagonal(plane: PlaneId, a: int, b: int, typed: str) -> edits.SetReading:
    """Return the reading between two corners."""
    return edits.SetReading(plane, ReadingKind.DIAGONAL, (a, b), typed)


def obstruction(
    plane: PlaneId,
    number: int,
    kind: ObstructionKind,
    near_m: tuple[float, float],
    **typed: str,
) -> tuple[SurveyEdit, ...]:
    """Return the edits that place an obstruction near a point and type its figures."""
    o = ObstructionId(f"o{number}")
    return (
        edits.AddObstruction(plane, kind, *near_m),
        *(
            edits.SetObstructionField(plane, o, edits.ObstructionField(field), text)
            for field, text in typed.items()
        ),
    )


def structure(plane: PlaneId, **typed: str) -> tuple[SurveyEdit, ...]:
    """Return the edits of what lies under a covering."""
    return tuple(
        edits.SetStructure(plane, edits.StructureField(field), text)
        for field, text in typed.items()
    )


_VENT = {"width": '3"', "height": '14"', "clearance": '4"'}
_FIELD = edits.PlaneField
_POINT = SitePoint
_HOUSE: tuple[SurveyEdit, ...] = (
    side(SOUTH, 0, "40'"),
    side(SOUTH, 3, "21' 3\""),
    side(SOUTH, 2, "40' 0 1/8\""),
    side(SOUTH, 1, "21' 3\""),
    diagonal(SOUTH, 0, 2, "45' 3 1/2\""),
    edits.SetPlaneField(SOUTH, _FIELD.SLOPE, "6:12"),
    edits.SetPlaneField(SOUTH, _FIELD.AZIMUTH, "168.5 compass"),
    edits.SetPlaneField(SOUTH, _FIELD.EAVE_HEIGHT, "9' 6\""),
    *obstruction(
        SOUTH, 1, ObstructionKind.CHIMNEY, (7.1628, 4.572),
        name="Chimney", left="23' 6\"", bottom="15'", width="2' 8\"", depth="2' 8\"",
        height="4' 6\"", clearance='12"',
    ),
    *obstruction(
        SOUTH, 2, ObstructionKind.VENT, (10.16, 4.1148),
        name="Vent", left="33' 4\"", bottom="13' 6\"", **_VENT,
    ),
    *obstruction(
        SOUTH, 3, ObstructionKind.VENT, (2.6, 6.2),
        name="Vent 2", left="8' 5\"", bottom="20' 5\"", **_VENT,
    ),
    *obstruction(
        SOUTH, 4, ObstructionKind.VENT, (5.1, 6.2),
        name="Vent 3", left="16' 9\"", bottom="20' 5\"", **_VENT,
    ),
    *structure(
        SOUTH, covering="shingle", framing="rafters", rafter_spacing='24"', first_rafter='11"',
        rafter_size="2 × 8", rafter_span="13'",
    ),
    edits.AddOtherSide(SOUTH),
    edits.RenamePlane(NORTH, "North roof"),
    side(NORTH, 3, "21' 2 3/4\""),
)  # fmt: skip
_GARAGE: tuple[SurveyEdit, ...] = (
    edits.AddPlane(),
    edits.RenamePlane(GARAGE_WEST, "Garage west"),
    side(GARAGE_WEST, 0, "24'"),
    side(GARAGE_WEST, 3, "13' 11\""),
    side(GARAGE_WEST, 1, "13' 10 3/4\""),
    diagonal(GARAGE_WEST, 0, 2, "27' 8 3/4\""),
    edits.SetPlaneField(GARAGE_WEST, _FIELD.SLOPE, "4' 5\" over 13' 3\""),
    edits.SetPlaneField(GARAGE_WEST, _FIELD.AZIMUTH, "258.5 compass"),
    edits.SetPlaneField(GARAGE_WEST, _FIELD.EAVE_HEIGHT, "8' 2\""),
    edits.MovePlane(GARAGE_WEST, 18.6, 9.4),
    *structure(
        GARAGE_WEST, covering="standing-seam", seam_spacing='16"', framing="trusses",
        rafter_spacing='24"', first_rafter='23 1/4"',
    ),
    edits.AddOtherSide(GARAGE_WEST),
    edits.RenamePlane(GARAGE_EAST, "Garage east"),
    edits.AddKeepOut(
        GARAGE_WEST, "stay off: rusted seam",
        tuple(edits.PlanePoint(x, y) for x, y in ((5.6, 0.4), (7.0, 0.4), (6.4, 1.6))),
    ),
)  # fmt: skip
_TREE, _NEXT_DOOR, _POLE = ShadeId("s1"), ShadeId("s2"), ShadeId("s3")
_AROUND: tuple[SurveyEdit, ...] = (
    edits.AddShade(ShadeKind.TREE, _POINT(-7.0, -8.0)),
    edits.SetShadeField(_TREE, edits.ShadeField.NAME, "Cottonwood"),
    edits.SightShade(_TREE, _POINT(0.0, 0.0), "208.5 compass", "36' 6\"", "41", "5' 4\""),
    edits.SetShadeField(_TREE, edits.ShadeField.WIDTH, "24'"),
    edits.SetShadeField(_TREE, edits.ShadeField.BASE, "8'"),
    edits.SetShadeField(_TREE, edits.ShadeField.LEAF, "deciduous"),
    edits.SetShadeField(_TREE, edits.ShadeField.LEAF_MONTHS, "5-10"),
    edits.AddShade(ShadeKind.HOUSE, _POINT(-16.0, 8.0)),
    edits.SetShadeField(_NEXT_DOOR, edits.ShadeField.NAME, "Next door"),
    edits.SetShadeField(_NEXT_DOOR, edits.ShadeField.WIDTH, "36'"),
    edits.SetShadeField(_NEXT_DOOR, edits.ShadeField.DEPTH, "26'"),
    edits.SetShadeField(_NEXT_DOOR, edits.ShadeField.HEIGHT, "19'"),
    edits.SetShadeField(_NEXT_DOOR, edits.ShadeField.BASE, "9'"),
    edits.AddShade(ShadeKind.POLE, _POINT(15.4, -9.6)),
    edits.SetShadeField(_POLE, edits.ShadeField.NAME, "Utility pole"),
    edits.SetShadeField(_POLE, edits.ShadeField.HEIGHT, "31'"),
    edits.SetHorizon(
        "bearing_deg,elevation_deg\n60,3.5\n85,6\n110,4.5\n140,2\n225,1.5\n255,5\n280,7.5\n310,4"
    ),
    edits.AddLotLine(
        (_POINT(-10.2, -12.4), _POINT(29.6, -12.4), _POINT(29.6, 19.4), _POINT(-10.2, 19.4)),
        closed=True,
    ),
    edits.PlaceGear(edits.Gear.METER, _POINT(12.6, 2.2)),
    edits.PlaceGear(edits.Gear.DISCONNECT, _POINT(12.5, 4.4)),
    edits.PlaceGear(edits.Gear.PANEL, _POINT(11.6, 6.6)),
    edits.PlaceGear(edits.Gear.INVERTER, _POINT(12.2, 8.8)),
    edits.AddAttachment(
        "Flashing is loose on the north side; tell the owner.", None, SOUTH, ObstructionId("o1")
    ),
    edits.AddAttachment("Main panel: two free spaces, label faded.", None, None, None),
)
SURVEY: tuple[SurveyEdit, ...] = (*_HOUSE, *_GARAGE, *_AROUND)
