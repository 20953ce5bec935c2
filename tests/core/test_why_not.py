"""Why not one more: the room in a row by hand, and changes that do what they promise."""

from dataclasses import replace

import pytest

from core.roofs import LAY, chimney, roof, vent
from ridge_tally.core.array.blockers import ground_from
from ridge_tally.core.array.fill import fill
from ridge_tally.core.array.why_not import ChangeKind, changes, most, row_rooms
from ridge_tally.core.job.array import RowRule, Ways

KINDS = ("eave", "rake", "ridge", "rake")
CORNERS = roof(10, 3).corners
NAMES = ["eave", "right rake", "ridge", "left rake"]


def test_a_row_tells_what_one_more_would_need_and_between_what() -> None:
    # 9.4 m free; nine modules want 9 x 1.05 + 8 x 0.02 = 9.61 m: 210 mm short.
    ground = roof(10, 3)
    places = fill(ground, LAY, Ways.PORTRAIT, RowRule.INDEPENDENT).places
    (room,) = row_rooms(ground, LAY, places)
    assert room.modules == 8
    assert room.short_m == pytest.approx(0.21, abs=1e-3)
    assert {room.left_owner.name, room.right_owner.name} == {"left rake", "right rake"}


def test_the_least_strip_that_helps_is_half_of_what_lacks_at_both_rakes() -> None:
    found = changes(roof(10, 3), LAY, Ways.PORTRAIT, KINDS)
    strip = next(c for c in found if c.kind is ChangeKind.STRIP)
    assert {o.name for o in strip.owners} == {"left rake", "right rake"}
    assert strip.by_m == pytest.approx(0.105, abs=1.5e-3)
    assert strip.to_m == pytest.approx(0.195, abs=1.5e-3)
    assert strip.modules == 9


def test_a_vent_in_the_way_is_named_with_the_clearance_it_could_give() -> None:
    # 8.57 m free take 8 modules of 8.54 m in all, the first from 0.33 m at most; the vent at
    # 0.26 m reaches 0.05 m itself, so that 20 mm of its clearance may stay.
    ground = vent(roof(9.17, 2.6), 0.26, 1.3, 0.05, 0.10)
    found = changes(ground, LAY, Ways.PORTRAIT, KINDS)
    assert most(ground, LAY, Ways.PORTRAIT) == 7
    clearance = next(c for c in found if c.kind is ChangeKind.CLEARANCE)
    assert clearance.owners[0].name == "vent"
    assert clearance.modules == 8
    assert clearance.to_m == pytest.approx(0.02, abs=1.5e-3)


def test_every_change_lets_in_what_it_promises_and_a_millimetre_less_does_not() -> None:
    ground = chimney(vent(roof(11, 5.2), 3.3, 2.0, 0.05), 6.0, 1.5, 6.8, 2.2)
    held = most(ground, LAY, Ways.MIXED)
    strips = {c.owners[0].name: c for c in changes(ground, LAY, Ways.MIXED, KINDS)}
    assert strips
    for change in strips.values():
        assert change.modules > held
    rakes = strips.get("right rake") or strips.get("left rake")
    if rakes is not None:
        for to_m, count in ((rakes.to_m, rakes.modules), (rakes.to_m + 0.001, held)):
            capsules = ground.capsules.copy()
            capsules[[1, 3], 4] = to_m
            assert most(replace(ground, capsules=capsules), LAY, Ways.MIXED) == count


def test_a_thing_that_must_go_away_is_told_last() -> None:
    # A skylight across the only row: no clearance helps, taking it away does.
    ground = chimney(ground_from(CORNERS, [0.1, 0.3, 0.45, 0.3], NAMES), 4.0, 1.0, 6.0, 1.6)
    found = changes(ground, LAY, Ways.PORTRAIT, KINDS)
    assert found[-1].kind is ChangeKind.AWAY
    assert found[-1].modules == 8


def test_a_module_kept_too_close_belongs_to_its_row() -> None:
    ground = roof(10, 3)
    first, *rest = fill(ground, LAY, Ways.PORTRAIT, RowRule.INDEPENDENT).places
    (room,) = row_rooms(ground, LAY, (replace(first, x_m=0.1), *rest))
    assert (room.modules, round(room.short_m, 3)) == (8, 0.21)
