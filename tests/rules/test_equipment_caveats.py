"""What looks like a slip in a datasheet is told, and nothing is told of sound ones."""

from dataclasses import replace

import pytest

from jobs import SHELF
from ridge_tally.core.equipment import NominalOperating
from ridge_tally.rules.equipment.caveats import caveats_of

MODULE, INVERTER = SHELF.modules[1], SHELF.inverters[4]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"p_max_w": 450.0}, "p_max_w"),
        ({"cells_in_series": 108}, "cells_in_series"),
        ({"long_m": 4.4}, "long_m"),
        ({"mass_kg": 213.0}, "mass_kg"),
        ({"max_series_fuse_a": 10.0}, "max_series_fuse_a"),
        # Nominal figures without their conditions, and laboratory watts written for them.
        ({"nominal": NominalOperating(p_w=301.0)}, "nominal"),
        ({"nominal": NominalOperating(405.0, 45.0, 800.0, 20.0, 1.0)}, "nominal"),
    ],
)
def test_a_doubtful_module_names_the_figure(change: dict, field: str) -> None:
    assert caveats_of(MODULE) == ()
    assert field in {d.field for d in caveats_of(replace(MODULE, **change))}


def test_a_doubtful_inverter_names_the_figure() -> None:
    assert caveats_of(INVERTER) == ()
    tracker = replace(INVERTER.trackers[0], i_max_a=22.0, isc_max_a=16.0)
    swapped = replace(INVERTER, trackers=(tracker,))
    assert "swapped" in caveats_of(swapped)[0].told
    kilowatts = replace(INVERTER, p_dc_max_w=11.4)
    assert "kilowatts for watts" in caveats_of(kilowatts)[0].told
    assert "No efficiency" in caveats_of(replace(INVERTER, efficiency=()))[0].told


def test_no_sample_is_doubtful() -> None:
    for sheet in (*SHELF.modules, *SHELF.inverters, *SHELF.optimizers, *SHELF.microinverters):
        assert caveats_of(sheet) == (), sheet.id
