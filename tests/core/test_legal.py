"""Legality of modules where they lie: by hand, and against shapely's distances."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from core.roofs import LAY, chimney, grounds, legal_by_shapely, roof, vent
from ridge_tally.core.array.blockers import LayoutRegion, with_path
from ridge_tally.core.array.lay import Place
from ridge_tally.core.array.legal import shortfalls
from ridge_tally.core.job.array import Orientation

P, L = Orientation.PORTRAIT, Orientation.LANDSCAPE
ROOF = chimney(vent(roof(10, 6), 5.0, 4.0, 0.1, 0.25), 7.0, 2.0, 7.8, 2.6)


def short(*places: Place, ground: LayoutRegion = ROOF) -> list[list[tuple[str, int, int]]]:
    """Owner, millimetres there are and millimetres wanted, per module."""
    return [
        [(s.owner.name, round(s.has_m * 1000), round(s.wants_m * 1000)) for s in found]
        for found in shortfalls(ground, LAY, places)
    ]


@pytest.mark.parametrize(
    ("place", "expected"),
    [
        (Place(0.3, 0.1, P), []),
        (Place(0.29, 0.1, P), [("left rake", 290, 300)]),
        (Place(0.3, 0.062, P), [("eave", 62, 100)]),
        # Both strips of a corner.
        (Place(0.1, 0.05, P), [("left rake", 100, 300), ("eave", 50, 100)]),
        # The vent's rim is 150 mm above the module's top edge; 250 mm are wanted.
        (Place(4.5, 1.99, P), [("vent", 150, 250)]),
        # Beside the chimney: its face is at 7.0 m, the module ends at 6.85 m.
        (Place(5.8, 1.0, P), [("chimney", 150, 200)]),
        # Turned the other way it ends at 7.56 m, in the chimney.
        (Place(5.8, 1.5, L), [("chimney", 0, 200)]),
        # Half over the ridge.
        (Place(3.0, 5.0, P), [("ridge", 0, 450)]),
    ],
)
def test_a_module_tells_each_distance_that_is_short(place, expected) -> None:
    assert short(place) == [expected]


def test_lying_on_something_is_impossible_and_a_short_distance_is_not() -> None:
    found = shortfalls(ROOF, LAY, (Place(5.8, 1.5, L), Place(0.29, 0.1, P)))
    assert [any(s.impossible for s in mine) for mine in found] == [True, False]


def test_a_module_around_a_vent_or_off_the_roof_is_impossible() -> None:
    around, beyond = shortfalls(ROOF, LAY, (Place(4.6, 3.2, P), Place(12.0, 1.0, P)))
    assert any(s.impossible for s in around)
    assert any(s.impossible for s in beyond)


@pytest.mark.parametrize(("apart", "expected"), [(0.02, None), (0.012, 12), (0.0, 0), (-0.3, -300)])
def test_two_modules_keep_the_gap_beside_each_other(apart: float, expected: int | None) -> None:
    one = Place(0.3, 0.1, P)
    found = short(one, Place(0.3 + 1.05 + apart, 0.1, P))
    wanted = [] if expected is None else [("the module beside it", expected, 20)]
    assert found == [wanted, wanted]


def test_an_access_path_takes_the_place_of_a_narrower_strip() -> None:
    ground = with_path(ROOF, 3, 0.9)
    assert short(Place(0.5, 0.1, P), ground=ground) == [[("access path, left rake", 500, 900)]]
    assert with_path(ROOF, 2, 0.4) is ROOF


@settings(max_examples=150)
@given(
    grounds(),
    st.lists(
        st.builds(Place, st.floats(-1, 12), st.floats(-1, 7), st.sampled_from([P, L])),
        min_size=1,
        max_size=3,
    ),
)
def test_what_is_refused_is_what_shapely_refuses(ground: LayoutRegion, places: list[Place]) -> None:
    found = shortfalls(ground, LAY, tuple(places))
    nearly = [s.short_m for mine in found for s in mine if abs(s.short_m) < 1e-3]
    if not nearly:
        assert legal_by_shapely(ground, LAY, tuple(places)) is not any(found)
