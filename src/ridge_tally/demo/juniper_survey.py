"""The survey of Juniper Bench: a gabled house and its garage, taped in feet and inches."""

from ridge_tally.core.job.edits.any_edit import SurveyEdit
from ridge_tally.core.job.edits.survey.obstructions import (
    AddKeepOut,
    AddObstruction,
    ObstructionField,
    SetObstructionField,
    SetStructure,
    StructureField,
)
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import (
    AddOtherSide,
    AddPlane,
    MovePlane,
    PlaneField,
    RenamePlane,
    SetPlaneField,
)
from ridge_tally.core.job.edits.survey.surroundings import (
    AddAttachment,
    AddLotLine,
    AddShade,
    Gear,
    PlaceGear,
    SetHorizon,
    SetShadeField,
    ShadeField,
    SightShade,
)
from ridge_tally.core.job.ids import ObstructionId, PlaneId, ShadeId
from ridge_tally.core.job.places import PlanePoint, SitePoint
from ridge_tally.core.job.survey import ObstructionKind, ReadingKind, ShadeKind

SOUTH, NORTH = PlaneId("south"), PlaneId("plane-1")
GARAGE_WEST, GARAGE_EAST = PlaneId("plane-2"), PlaneId("plane-3")


def side(plane: PlaneId, edge: int, typed: str) -> SetReading:
    """Return the reading of one side."""
    return SetReading(plane, ReadingKind.SIDE, (edge,), typed)


def diagonal(plane: PlaneId, a: int, b: int, typed: str) -> SetReading:
    """Return the reading between two corners."""
    return SetReading(plane, ReadingKind.DIAGONAL, (a, b), typed)


def rectangle(
    plane: PlaneId, eave: str, up: str, slope: str, azimuth: str, eave_height: str
) -> tuple[SurveyEdit, ...]:
    """Return the edits that measure a plane of square corners, all typed in metres and degrees."""
    across = f"{(float(eave) ** 2 + float(up) ** 2) ** 0.5:.3f}"
    return (
        side(plane, 0, eave),
        side(plane, 3, up),
        diagonal(plane, 0, 2, across),
        SetPlaneField(plane, PlaneField.SLOPE, slope),
        SetPlaneField(plane, PlaneField.AZIMUTH, azimuth),
        SetPlaneField(plane, PlaneField.EAVE_HEIGHT, eave_height),
    )


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
        AddObstruction(plane, kind, *near_m),
        *(
            SetObstructionField(plane, o, ObstructionField(field), text)
            for field, text in typed.items()
        ),
    )


def structure(plane: PlaneId, **typed: str) -> tuple[SurveyEdit, ...]:
    """Return the edits of what lies under a covering."""
    return tuple(SetStructure(plane, StructureField(field), text) for field, text in typed.items())


_VENT = {"width": '3"', "height": '14"', "clearance": '4"'}
_FIELD = PlaneField
_POINT = SitePoint
_HOUSE: tuple[SurveyEdit, ...] = (
    side(SOUTH, 0, "40'"),
    side(SOUTH, 3, "21' 3\""),
    side(SOUTH, 2, "40' 0 1/8\""),
    side(SOUTH, 1, "21' 3\""),
    diagonal(SOUTH, 0, 2, "45' 3 1/2\""),
    SetPlaneField(SOUTH, _FIELD.SLOPE, "6:12"),
    SetPlaneField(SOUTH, _FIELD.AZIMUTH, "168.5 compass"),
    SetPlaneField(SOUTH, _FIELD.EAVE_HEIGHT, "9' 6\""),
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
    AddOtherSide(SOUTH),
    RenamePlane(NORTH, "North roof"),
    side(NORTH, 3, "21' 2 3/4\""),
)  # fmt: skip
_GARAGE: tuple[SurveyEdit, ...] = (
    AddPlane(),
    RenamePlane(GARAGE_WEST, "Garage west"),
    side(GARAGE_WEST, 0, "24'"),
    side(GARAGE_WEST, 3, "13' 11\""),
    side(GARAGE_WEST, 1, "13' 10 3/4\""),
    diagonal(GARAGE_WEST, 0, 2, "27' 8 3/4\""),
    SetPlaneField(GARAGE_WEST, _FIELD.SLOPE, "4' 5\" over 13' 3\""),
    SetPlaneField(GARAGE_WEST, _FIELD.AZIMUTH, "258.5 compass"),
    SetPlaneField(GARAGE_WEST, _FIELD.EAVE_HEIGHT, "8' 2\""),
    MovePlane(GARAGE_WEST, 18.6, 9.4),
    *structure(
        GARAGE_WEST, covering="standing-seam", seam_spacing='16"', framing="trusses",
        rafter_spacing='24"', first_rafter='23 1/4"',
    ),
    AddOtherSide(GARAGE_WEST),
    RenamePlane(GARAGE_EAST, "Garage east"),
    AddKeepOut(
        GARAGE_WEST, "stay off: rusted seam",
        tuple(PlanePoint(x, y) for x, y in ((5.6, 0.4), (7.0, 0.4), (6.4, 1.6))),
    ),
)  # fmt: skip
_TREE, _NEXT_DOOR, _POLE = ShadeId("s1"), ShadeId("s2"), ShadeId("s3")
_AROUND: tuple[SurveyEdit, ...] = (
    AddShade(ShadeKind.TREE, _POINT(-7.0, -8.0)),
    SetShadeField(_TREE, ShadeField.NAME, "Cottonwood"),
    SightShade(_TREE, _POINT(0.0, 0.0), "208.5 compass", "36' 6\"", "41", "5' 4\""),
    SetShadeField(_TREE, ShadeField.WIDTH, "24'"),
    SetShadeField(_TREE, ShadeField.BASE, "8'"),
    SetShadeField(_TREE, ShadeField.LEAF, "deciduous"),
    SetShadeField(_TREE, ShadeField.LEAF_MONTHS, "5-10"),
    AddShade(ShadeKind.HOUSE, _POINT(-16.0, 8.0)),
    SetShadeField(_NEXT_DOOR, ShadeField.NAME, "Next door"),
    SetShadeField(_NEXT_DOOR, ShadeField.WIDTH, "36'"),
    SetShadeField(_NEXT_DOOR, ShadeField.DEPTH, "26'"),
    SetShadeField(_NEXT_DOOR, ShadeField.HEIGHT, "19'"),
    SetShadeField(_NEXT_DOOR, ShadeField.BASE, "9'"),
    AddShade(ShadeKind.POLE, _POINT(15.4, -9.6)),
    SetShadeField(_POLE, ShadeField.NAME, "Utility pole"),
    SetShadeField(_POLE, ShadeField.HEIGHT, "31'"),
    SetHorizon(
        "bearing_deg,elevation_deg\n60,3.5\n85,6\n110,4.5\n140,2\n225,1.5\n255,5\n280,7.5\n310,4"
    ),
    AddLotLine(
        (_POINT(-10.2, -12.4), _POINT(29.6, -12.4), _POINT(29.6, 19.4), _POINT(-10.2, 19.4)),
        closed=True,
    ),
    PlaceGear(Gear.METER, _POINT(12.6, 2.2)),
    PlaceGear(Gear.DISCONNECT, _POINT(12.5, 4.4)),
    PlaceGear(Gear.PANEL, _POINT(11.6, 6.6)),
    PlaceGear(Gear.INVERTER, _POINT(12.2, 8.8)),
    AddAttachment(
        "Flashing is loose on the north side; tell the owner.", None, SOUTH, ObstructionId("o1")
    ),
    AddAttachment("Main panel: two free spaces, label faded.", None, None, None),
)
SURVEY: tuple[SurveyEdit, ...] = (*_HOUSE, *_GARAGE, *_AROUND)
