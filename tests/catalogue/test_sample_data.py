"""The shipped samples: grid rules of four families, places on land, equipment that is sound."""

import random

import pytest

from jobs import SAMPLE, SHELF
from ridge_tally.catalogue.gazetteer import find_places, zone_at
from ridge_tally.catalogue.grid_packs import grid_pack, grid_packs
from ridge_tally.core.brief.tariff import bill_cents, energy_for_bill_kwh, parse_tiers, write_tiers
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.edits.brief.grid import TakeGridPack
from ridge_tally.core.job.grid import Metering, RouteKind, SizeCapKind
from ridge_tally.editing.apply import apply_edit
from ridge_tally.rules.equipment.sheet import require_sheet


@pytest.mark.parametrize("pack_id", list(grid_packs()))
def test_each_pack_is_a_marked_sample_that_a_job_can_take(pack_id: str) -> None:
    pack = grid_pack(pack_id)
    assert (pack.sample, pack.edited) == (True, ())
    assert pack.source.startswith("Invented sample")
    assert {r.kind for r in pack.routes} == {RouteKind.NOTIFY, RouteKind.APPLY}
    assert apply_edit(SAMPLE, TakeGridPack(pack_id), SHELF).brief.grid == pack


@pytest.mark.parametrize("pack_id", list(grid_packs()))
def test_each_tariff_can_be_typed_and_turned_round(pack_id: str) -> None:
    tariff = grid_pack(pack_id).tariff
    assert parse_tiers(write_tiers(tariff.tiers), "x") == tariff.tiers
    for kwh in (50.0, 500.0, 1800.0):
        cost = bill_cents(tariff, kwh, 30)
        assert energy_for_bill_kwh(tariff, cost, 30) == pytest.approx(kwh)


def test_the_four_families_differ_where_such_rules_differ() -> None:
    packs = grid_packs()
    assert packs["sample-us-net"].metering is Metering.NET
    assert packs["sample-us-net"].size_cap.kind is SizeCapKind.SHARE_OF_USE
    assert packs["sample-uk-notify"].routes[0].most_kw_per_phase == 3.68
    rebate = packs["sample-au-capped"].rebate
    assert rebate is not None
    # 133 % as the scheme words it: an inverter of at least three quarters of the array.
    assert 1 / (rebate.most_dc_ac_ratio or 0) == pytest.approx(0.75)
    assert packs["sample-au-capped"].ac_cap_kw_per_phase == 5
    with pytest.raises(NotFound, match="gone"):
        grid_pack("gone")


def test_towns_of_the_list_lie_on_land_with_a_zone() -> None:
    chosen = random.Random(7)
    letters = ["san", "new", "port", "saint", "al", "ba", "ka", "mo", "to", "wa"]
    places = [chosen.choice(find_places(start)) for start in letters * 4]
    for place in places:
        zone = zone_at(place.latitude_deg, place.longitude_deg)
        # No zone's standard time is further than three and a half hours from its sun.
        assert abs(place.longitude_deg / 15 - zone.utc_offset_h) < 3.5


def test_equal_names_are_told_apart_by_region_and_country() -> None:
    found = find_places("Portland")
    assert len({p.title for p in found}) == len(found) >= 2
    assert all(p.name.startswith("Portland") for p in found[:2])


@pytest.mark.parametrize("sheet", SHELF.modules, ids=lambda s: s.id)
def test_each_sample_module_is_sound(sheet) -> None:
    require_sheet(sheet)
    assert sheet.p_max_w == pytest.approx(sheet.vmp_v * sheet.imp_a, rel=0.005)
    assert "nvented" in sheet.provenance


@pytest.mark.parametrize("sheet", SHELF.inverters, ids=lambda s: s.id)
def test_each_sample_inverter_is_sound(sheet) -> None:
    require_sheet(sheet)
    assert all(0.8 < p.efficiency_frac < 1 for p in sheet.efficiency)
    assert "nvented" in sheet.provenance


@pytest.mark.parametrize("sheet", SHELF.modules, ids=lambda s: s.id)
def test_each_sample_module_has_a_diode_that_meets_its_sheet(sheet) -> None:
    # The single diode of De Soto et al. 2006 through short circuit, open circuit and best point.
    assert fit_diode(sheet).worst_point_frac < 0.005


@pytest.mark.parametrize("sheet", [*SHELF.optimizers, *SHELF.microinverters], ids=lambda s: s.id)
def test_each_sample_unit_is_invented_and_its_input_has_a_window(sheet) -> None:
    require_sheet(sheet)
    assert "nvented" in sheet.provenance
    low, high = (
        (sheet.v_in_min_v, sheet.v_in_max_v)
        if hasattr(sheet, "v_in_min_v")
        else (sheet.v_min_v, sheet.v_dc_max_v)
    )
    assert 0 < low < high < 100


def test_the_shelf_spans_what_the_trade_meets() -> None:
    assert (len(SHELF.modules), len(SHELF.inverters)) == (24, 40)
    assert (len(SHELF.microinverters), len(SHELF.optimizers)) == (10, 6)
    cells = {m.cells_in_series * (2 if m.half_cut else 1) for m in SHELF.modules}
    assert {60, 72, 108, 120, 132, 144} <= cells
    assert {m.inputs for m in SHELF.microinverters} == {1, 2, 4}
    assert {len(i.trackers) for i in SHELF.inverters} == {1, 2, 3, 4, 5, 6}
    assert {i.phases for i in SHELF.inverters} == {1, 3}
    powers = [i.p_ac_w for i in SHELF.inverters]
    assert (min(powers), max(powers)) == (2500, 15000)
    watts = [m.p_max_w for m in SHELF.modules]
    assert (min(watts), max(watts)) == (250, 600)
    assert len({i.name for i in SHELF.inverters}) == 40
    assert len({m.name for m in SHELF.modules}) == 24
