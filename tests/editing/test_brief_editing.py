"""Edits of the brief: each does what it says; a refused one names field, value and remedy."""

from dataclasses import replace

import pytest

from jobs import EPOCH, SAMPLE, SHELF
from ridge_tally.catalogue.gazetteer import find_places
from ridge_tally.core.errors import (
    BadGeometry,
    FormatError,
    MissingDatum,
    NotFound,
    NotUnderstood,
    OutOfRange,
    RidgeTallyError,
)
from ridge_tally.core.job.brief import CarLoad, Fuel, StockKind, TargetKind
from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.brief.bills import (
    AddBills,
    BillField,
    FillBillColumn,
    LayOutBills,
    RemoveBills,
    SetBill,
    SetUse,
    SwapBillColumns,
)
from ridge_tally.core.job.edits.brief.grid import (
    GridField,
    RouteField,
    SetGridField,
    SetRouteField,
    TakeGridPack,
)
from ridge_tally.core.job.edits.brief.needs import (
    AddExisting,
    AddLoad,
    ExistingField,
    ImportStock,
    LoadField,
    LoadKind,
    RemoveLoad,
    ServiceField,
    SetExistingField,
    SetGrowth,
    SetLoadField,
    SetNoGo,
    SetServiceField,
    SetTargetField,
    TargetField,
)
from ridge_tally.core.job.edits.brief.site import (
    PickPlace,
    SetCoordinates,
    SetPlace,
    SetSiteField,
    SiteField,
)
from ridge_tally.core.job.grid import RouteKind
from ridge_tally.core.units import LengthUnit
from ridge_tally.core.working import degc_text
from ridge_tally.demo.blank_job import blank_job
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.simulators.weather_service import climate
from ridge_tally.studies.stock import to_buy
from ridge_tally.views.brief.report import brief_report
from ridge_tally.views.step_state import StepState

BILL, LOAD, GRID = BillField, LoadField, GridField
EMPTY = apply_edit(SAMPLE, RemoveBills(()), SHELF)


def after(*steps: Edit, job: Job = SAMPLE) -> Job:
    for step in steps:
        job = apply_edit(job, step, SHELF)
    return job


def test_the_sample_reads_as_a_whole_year() -> None:
    report = brief_report(SAMPLE)
    assert report.usage is not None
    assert (report.usage.days_covered, report.step) == (365, StepState.SETTLED)
    # The last bill is money alone: (217.19 - 14.50 - 500 * 0.124) / 0.158 + 500.
    assert report.bills[-1].energy_kwh == pytest.approx(1390.44, abs=0.01)
    assert report.need_kwh == pytest.approx(report.usage.energy_kwh + 2665.07, abs=0.1)


def test_twelve_months_are_laid_out_to_be_filled() -> None:
    job = after(LayOutBills("1 Nov 2025"), job=EMPTY)
    rows = job.brief.bills
    assert (rows[0].first_day, rows[0].last_day) == ("2025-11-01", "2025-11-30")
    assert (rows[3].first_day, rows[3].last_day) == ("2026-02-01", "2026-02-28")
    assert rows[11].last_day == "2026-10-31"
    filled = after(FillBillColumn(rows[0].id, BILL.ENERGY, tuple("500" for _ in rows)), job=job)
    assert brief_report(filled).usage.energy_kwh == pytest.approx(6000)


def test_months_from_the_31st_end_where_the_month_does() -> None:
    rows = after(LayOutBills("2025-01-31"), job=EMPTY).brief.bills
    assert [r.first_day for r in rows[:3]] == ["2025-01-31", "2025-02-28", "2025-03-31"]
    assert not any(b.problem_field == "first_day" for b in brief_report(after(job=SAMPLE)).bills)


def test_a_cell_of_a_new_row_makes_the_row() -> None:
    job = after(SetBill(None, BILL.FIRST_DAY, "11/6/2025"), job=EMPTY)
    assert job.brief.bills[0].first_day == "2025-11-06"
    assert brief_report(job).bills[0].problem == "The day is missing."


def test_two_cells_of_a_row_that_was_not_answered_yet_are_of_one_row() -> None:
    job = after(
        SetBill(None, BILL.FIRST_DAY, "2025-11-06", row=0),
        SetBill(None, BILL.LAST_DAY, "2025-12-05", row=0),
        SetBill(None, BILL.FIRST_DAY, "2025-12-06", row=1),
        job=EMPTY,
    )
    assert [(r.first_day, r.last_day) for r in job.brief.bills] == [
        ("2025-11-06", "2025-12-05"),
        ("2025-12-06", ""),
    ]


def test_what_cannot_be_read_is_kept_as_typed() -> None:
    first = SAMPLE.brief.bills[0].id
    job = after(SetBill(first, BILL.FIRST_DAY, "sixth of October"))
    assert job.brief.bills[0].first_day == "sixth of October"
    report = brief_report(job)
    assert "sixth of October" in report.bills[0].problem
    assert report.step is StepState.LOOK
    assert sum(not b.problem for b in report.bills) == 11


def test_swapped_columns_are_swapped_back() -> None:
    first = SAMPLE.brief.bills[0].id
    steps = (
        SetBill(first, BILL.ENERGY, "208"),
        SetBill(first, BILL.COST, "1335"),
    )
    job = after(*steps)
    assert "swapped" in brief_report(job).bills[0].problem
    mended = after(SwapBillColumns(first), job=job)
    assert brief_report(mended).bills[0].energy_kwh == 1335
    assert not brief_report(mended).bills[0].problem


@pytest.mark.parametrize(
    "text",
    [
        "From;To;kWh;Money\n1.11.2025;30.11.2025;500;\n1.12.2025;31.12.2025;600;",
        "2025-11-01\t2025-11-30\t500\t\n2025-12-01\t2025-12-31\t600\t",
        "cost,energy,end,start\n,500,11/30/2025,11/1/2025\n,600,12/31/2025,12/1/2025\n\n",
    ],
)
def test_tables_are_read_with_any_mark_and_order(text: str) -> None:
    bills = brief_report(after(AddBills(text, "bills.csv"), job=EMPTY)).bills
    assert [(b.days, b.energy_kwh) for b in bills] == [(30, 500), (31, 600)]


def test_loads_come_change_and_go() -> None:
    job = after(
        AddLoad(LoadKind.HEAT_PUMP),
        SetLoadField("load2", LOAD.FUEL, "gas-therm"),
        SetLoadField("load2", LOAD.FUEL_PER_YEAR, "400"),
        SetLoadField("load1", LOAD.USE, "0.32 kWh/mi"),
        SetLoadField("load1", LOAD.DISPLACED, "28 mpg"),
    )
    car, pump = job.brief.loads
    assert isinstance(car, CarLoad)
    assert car.use_kwh_per_km == pytest.approx(0.19884, abs=1e-5)
    assert car.displaced_l_per_100km == pytest.approx(8.4005, abs=1e-3)
    assert pump.fuel is Fuel.GAS_THERM
    view = brief_report(job).loads[1]
    # 400 therms * 29.307 kWh * 0.85 / 3.0
    assert view.energy_kwh == pytest.approx(3321.5, abs=0.1)
    assert view.displaced == "400 therms of gas"
    assert view.monthly_kwh[0] > view.monthly_kwh[6]
    assert len(after(RemoveLoad("load1"), job=job).brief.loads) == 1


def test_typing_a_share_makes_it_the_target() -> None:
    target = after(SetTargetField(TargetField.SHARE, "70")).brief.target
    assert (target.kind, target.share_frac) == (TargetKind.SHARE, pytest.approx(0.7))


def test_every_grid_field_takes_what_is_typed_and_is_told_as_edited() -> None:
    typed = {
        GRID.OPERATOR: "Valley power", GRID.SOURCE: "sheet 4", GRID.DATED: "2026-02-01",
        GRID.SIZE_CAP: "110 %", GRID.AC_CAP: "none", GRID.EXPORT_LIMIT: "0", GRID.METERING: "unpaid",
        GRID.EXPORT_RATE: "3.5", GRID.TARIFF_PER: "day", GRID.FIXED: "$0.40", GRID.MINIMUM: "0",
        GRID.TIERS: "10 to 12; 15", GRID.TAX: "8", GRID.DISCONNECT: "at the meter",
        GRID.INSURANCE: "", GRID.REBATE_NAME: "state", GRID.REBATE_DC: "10 kW",
        GRID.REBATE_RATIO: "133 %", GRID.REBATE_PAYS: "0.30",
    }  # fmt: skip
    job = after(*(SetGridField(field, text) for field, text in typed.items()))
    grid = job.brief.grid
    assert grid is not None
    assert set(grid.edited) >= set(typed)
    assert (grid.export_limit_kw, grid.ac_cap_kw_per_phase, grid.sample) == (0.0, None, False)
    assert (grid.tariff.fixed_cents, grid.tariff.tax_frac) == (
        pytest.approx(40),
        pytest.approx(0.08),
    )
    assert grid.rebate is not None
    assert (grid.rebate.most_dc_kw, grid.rebate.pays_cents_per_dc_w) == (10, pytest.approx(30))


def test_a_route_may_get_an_imposed_export_limit() -> None:
    job = after(SetRouteField(RouteKind.APPLY, RouteField.IMPOSED_EXPORT, "5 kW"))
    assert job.brief.grid.routes[1].imposed_export_kw == 5


def test_a_cap_below_what_is_there_is_kept_and_told() -> None:
    job = after(
        AddExisting(),
        SetExistingField("existing1", ExistingField.P_DC, "6.2 kW"),
        SetGridField(GRID.SIZE_CAP_KIND, "dc-kw"),
        SetGridField(GRID.SIZE_CAP, "5 kW"),
    )
    report = brief_report(job)
    assert report.grid_warnings == (
        "The size cap of 5 kW is below the 6.2 kW already there: nothing may be added",
    )
    assert report.step is StepState.LOOK
    assert job.brief.grid.size_cap.value == 5


def test_picking_a_place_finds_its_zone_and_forgets_the_elevation() -> None:
    site = after(PickPlace("Hobart, Australia", -42.88, 147.33)).site
    assert (site.time_zone, site.utc_offset_h) == ("Australia/Hobart", 10)
    assert (site.elevation_m, site.code_pack) == (None, CodePack.AU_NZ)
    moved = after(SetCoordinates("43.1 N, 8.2 W")).site
    assert (moved.time_zone, moved.longitude_deg) == ("Europe/Madrid", -8.2)
    assert moved.elevation_m == 2150


def test_the_stock_list_says_what_must_be_bought() -> None:
    needs = to_buy(design_for(SAMPLE, SAMPLE.options[0]))
    assert [(n.kind, n.needed, n.on_shelf) for n in needs] == [
        (StockKind.MODULE, 28, 18),
        (StockKind.INVERTER, 1, 1),
    ]
    none = after(ImportStock(""))
    assert to_buy(design_for(none, none.options[0])) == ()
    text = 'kind,item,count\nmodule,"Sample module 405 W, half-cut",5'
    assert after(ImportStock(text)).brief.stock[0].item_id == "sample-405"


REFUSED: list[tuple[Edit, type[RidgeTallyError], str]] = [
    (AddBills("\n \n", "b.csv"), FormatError, "b.csv: there is nothing in it"),
    (AddBills("kWh,money\n1,2", "b.csv"), FormatError, "Head the columns"),
    (AddBills("2025-01-01,2025-01-31,3,"), BadGeometry, "13 rows are more than the 12"),
    (LayOutBills("soon"), NotUnderstood, "“soon”"),
    (LayOutBills("2025-01-01"), BadGeometry, "Remove some first"),
    (SetBill("bill99", BILL.COST, "1"), NotFound, "bill99"),
    (SetUse("-5"), OutOfRange, "balance"),
    (SetLoadField("load1", LOAD.DISTANCE, "12 leagues"), NotUnderstood, "leagues"),
    (SetLoadField("load1", LOAD.COP, "3"), NotFound, "seasonal_cop"),
    (SetLoadField("load1", LOAD.CHARGING_LOSS, "90 %"), OutOfRange, "charging loss"),
    (SetLoadField("load1", LOAD.DISPLACED, "0 mpg"), NotUnderstood, "28 mpg"),
    (SetLoadField("load9", LOAD.NAME, "x"), NotFound, "load9"),
    (SetLoadField("load1", LOAD.NAME, " "), OutOfRange, "name of Load"),
    (SetTargetField(TargetField.SHARE, "0"), OutOfRange, "Share of the use"),
    (SetTargetField(TargetField.BUDGET, "a lot"), NotUnderstood, "“a lot”"),
    (SetTargetField(TargetField.YIELD, "90000"), OutOfRange, "Yield"),
    (TakeGridPack("gone"), NotFound, "gone"),
    (SetGridField(GRID.AC_CAP, "big"), NotUnderstood, "“big”"),
    (SetGridField(GRID.METERING, "odd"), NotUnderstood, "net or net-billing"),
    (SetGridField(GRID.TIERS, "12 to 100"), NotUnderstood, "11.2 to 500"),
    (SetGridField(GRID.TAX, "300"), OutOfRange, "Tax reads 3"),
    (SetRouteField(RouteKind.APPLY, RouteField.WEEKS, "long"), NotUnderstood, "8 weeks"),
    (SetExistingField("existing9", ExistingField.NAME, "x"), NotFound, "existing9"),
    (SetServiceField(ServiceField.PHASES, "4"), OutOfRange, "1, 2 or 3"),
    (SetServiceField(ServiceField.BUSBAR, "5 A"), OutOfRange, "Busbar"),
    (SetGrowth("many"), NotUnderstood, "“many”"),
    (SetNoGo("attic", on=True), NotFound, "attic"),
    (ImportStock("kind,item,count\nmodule,unknown,3", "s.csv"), FormatError, "line 2.*unknown"),
    (ImportStock("kind,item,count\nbolt,x,3", "s.csv"), FormatError, "line 2.*“bolt”"),
    (ImportStock("kind,item,count\nrail,x,-3", "s.csv"), FormatError, "line 2.*0 or more"),
    (ImportStock("a,b\n1,2", "s.csv"), FormatError, "kind,item,count"),
    (SetCoordinates("36.2, -35.6"), BadGeometry, "open sea"),
    (SetCoordinates("north pole"), NotUnderstood, "36.2, -105.6"),
    (SetSiteField(SiteField.SURVEY_DAY, "yesterday"), NotUnderstood, "“yesterday”"),
]  # fmt: skip


@pytest.mark.parametrize(("edit", "error", "says"), REFUSED)
def test_what_cannot_be_is_refused_in_words(
    edit: Edit, error: type[RidgeTallyError], says: str
) -> None:
    with pytest.raises(error, match=says):
        after(edit)


def test_grid_fields_need_grid_rules() -> None:
    bare = after(TakeGridPack(""))
    with pytest.raises(MissingDatum, match="Choose a sample set"):
        after(SetGridField(GRID.TAX, "5"), job=bare)


# Towns by what climates near them are like: from memory, no source.
TOWNS = {
    "Denver, Colorado": "high-desert", "Chicago": "inland-four-seasons", "Phoenix": "hot-lowland",
    "Miami": "warm-wet-coast", "Bergen, Norway": "rainy-coast", "Berlin, Germany": "mild-plain",
    "Winnipeg": "northern-forest", "Singapore": "tropics", "Nairobi": "tropical-highland",
    "Auckland": "green-atlantic", "Christchurch, New Zealand": "cool-island",
}  # fmt: skip


def picked(name: str, job: Job) -> Job:
    place = find_places(name)[0]
    return apply_edit(job, PickPlace(place.title, place.latitude_deg, place.longitude_deg), SHELF)


@pytest.mark.parametrize(("town", "kind"), TOWNS.items())
def test_weather_nobody_chose_follows_the_town_and_says_it_is_a_guess(town: str, kind: str) -> None:
    job = picked(town, blank_job(SHELF, "New", LengthUnit.METRE, EPOCH.date()))
    assert (job.site.climate_id, job.site.climate_given) == (kind, False)
    (told,) = [c for c in brief_report(job).caveats if c.startswith("Climate guessed")]
    guess = climate(kind)
    for degc in (guess.coldest_degc, guess.coldest_from_degc, guess.coldest_to_degc):
        assert degc_text(degc) in told
    assert guess.coldest_from_degc <= guess.coldest_degc <= guess.coldest_to_degc


def test_a_climate_that_was_chosen_stays_and_is_guessed_again_when_asked() -> None:
    chosen = SetPlace("", "tropics", CodePack.IEC, dwelling=True)
    job = apply_edit(blank_job(SHELF, "New", LengthUnit.METRE, EPOCH.date()), chosen, SHELF)
    job = picked("Denver, Colorado", job)
    assert (job.site.climate_id, job.site.climate_given) == ("tropics", True)
    again = apply_edit(job, replace(chosen, place=job.site.place, climate_id=""), SHELF)
    assert (again.site.climate_id, again.site.climate_given) == ("high-desert", False)
    # Brought down to the sea's height the same latitude far inland is another climate.
    low = apply_edit(again, SetSiteField(SiteField.ELEVATION, "150 m"), SHELF)
    assert low.site.climate_id == "inland-four-seasons"


def test_a_sample_s_climate_was_chosen() -> None:
    assert picked("Singapore", SAMPLE).site.climate_id == SAMPLE.site.climate_id
