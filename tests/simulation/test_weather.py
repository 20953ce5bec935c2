"""The weather of a job: files taken in and asked about, months typed over, and what follows."""

from dataclasses import replace
from importlib.resources import files

import numpy as np
import pytest

from jobs import FULL, SAMPLE, SHELF, option_a, workspace_in
from ridge_tally.core.errors import BadGeometry, FormatError, NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.sun.weather import (
    ForgetWeatherFile,
    ResetMonthly,
    SetMonthly,
    UseWeatherFile,
)
from ridge_tally.core.job.weather import Monthly, MonthlyValues, typed_months
from ridge_tally.core.sky.sun import Location, apart_km, sun_path
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.services import jobs
from ridge_tally.services.taken_in import take_in_weather
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.array_light import array_lights
from ridge_tally.simulation.weather import weather_of
from ridge_tally.studies.sun.shade import shade_report
from ridge_tally.studies.sun.shade_band import shade_band
from ridge_tally.views.loading.year import year_report
from ridge_tally.views.sun.weather import weather_report

# A real typical year that travels with the reference library: 36.1° N, 79.95° W, UTC-5.
CAROLINA = files("pvlib").joinpath("data", "723170TYA.CSV").read_bytes()


@pytest.fixture
def workspace(tmp_path) -> Workspace:
    return workspace_in(tmp_path)


def near_carolina(longitude_deg: float = -79.95) -> Job:
    site = replace(
        SAMPLE.site, latitude_deg=36.1, longitude_deg=longitude_deg, utc_offset_h=-5.0,
        elevation_m=300.0,
    )  # fmt: skip
    return replace(SAMPLE, site=site)


def with_file(workspace: Workspace, job: Job) -> Job:
    told = take_in_weather(workspace, job, CAROLINA, "carolina.csv")
    return apply_edit(job, UseWeatherFile(told.ref, far_is_meant=True), SHELF)


def test_a_file_taken_in_is_told_and_changes_nothing_until_it_is_used(workspace) -> None:
    job = near_carolina()
    told = take_in_weather(workspace, job, CAROLINA, "carolina.csv")
    assert (told.written_as, told.label_min, told.gaps) == ("tmy3", -30, ())
    assert told.away_km < 1
    assert told.higher_m == pytest.approx(273 - 300)
    assert weather_report(workspace.desk, job).stand_in
    used = apply_edit(job, UseWeatherFile(told.ref), SHELF)
    report = weather_report(workspace.desk, used)
    assert not report.stand_in
    assert report.file == told
    assert "0 km from the site" in report.caveats[0]
    # The sum of the file's fifth column, without the library's reader.
    rows = [line.split(",") for line in CAROLINA.decode().splitlines()[2:]]
    whole = sum(float(row[4]) for row in rows) / 1000
    assert sum(m.ghi_kwh_per_m2 for m in report.months) == pytest.approx(whole, rel=1e-6)
    assert weather_report(workspace.desk, apply_edit(used, ForgetWeatherFile(), SHELF)).stand_in


def test_distance_is_the_great_circle() -> None:
    # A degree of latitude is 111.2 km; 90 degrees of longitude on the equator a quarter of it.
    here = Location(36.0, -80.0, 0.0, -5.0)
    assert apart_km(here, replace(here, latitude_deg=37.0)) == pytest.approx(111.2, abs=0.1)
    assert apart_km(Location(0, 0, 0, 0), Location(0, 90, 0, 0)) == pytest.approx(10007.5, abs=1)


def test_a_file_of_another_place_is_asked_about(workspace) -> None:
    told = take_in_weather(workspace, SAMPLE, CAROLINA, "carolina.csv")
    assert told.away_km > 2000
    with pytest.raises(BadGeometry, match=r"carolina.csv: it was measured at .* km from this site"):
        apply_edit(SAMPLE, UseWeatherFile(told.ref), SHELF)
    meant = apply_edit(SAMPLE, UseWeatherFile(told.ref, far_is_meant=True), SHELF)
    assert meant.weather.file == told.ref


def test_a_bad_file_keeps_the_last_good_year(workspace) -> None:
    job = with_file(workspace, near_carolina())
    before = weather_report(workspace.desk, job)
    with pytest.raises(FormatError, match="cut short"):
        take_in_weather(workspace, job, CAROLINA[: len(CAROLINA) // 2], "half.csv")
    assert weather_report(workspace.desk, job) == before
    assert len(list(workspace.desk.weather_files.iterdir())) == 1


def test_the_hours_of_a_file_stand_where_the_sun_stood(workspace) -> None:
    # Moved 15 degrees west in the same zone, the sun of the file's noon comes an hour later.
    for longitude in (-79.95, -94.95):
        job = with_file(workspace, near_carolina(longitude))
        year = weather_of(workspace.desk, job)
        place = Location(36.1, longitude, 300.0, -5.0)
        up = np.cos(np.radians(sun_path(year.time, place).zenith_deg))
        off = year.ghi_w_per_m2 - year.dni_w_per_m2 * np.maximum(up, 0) - year.dhi_w_per_m2
        assert np.sqrt(np.mean(off[year.ghi_w_per_m2 > 20] ** 2)) < 5


def test_a_job_without_its_file_falls_back_and_says_so(workspace, tmp_path) -> None:
    job = with_file(workspace, near_carolina())
    elsewhere = workspace_in(tmp_path / "elsewhere")
    report = weather_report(elsewhere.desk, job)
    assert report.stand_in
    assert any("is not kept here: choose it again" in d for d in report.caveats)
    assert any(
        "not kept here" in d
        for d in year_report(elsewhere.desk, design_for(job, option_a(job))).caveats
    )
    # Chosen again it is there at once, in the year too.
    take_in_weather(elsewhere, job, CAROLINA, "carolina.csv")
    assert not weather_report(elsewhere.desk, job).stand_in
    assert not year_report(elsewhere.desk, design_for(job, option_a(job))).stand_in_weather


def test_a_job_travels_with_its_weather(workspace, tmp_path) -> None:
    job = with_file(workspace, near_carolina())
    jobs.store_job(workspace, job, "x", "tests")
    content, suffix = jobs.export_job(workspace, "juniper-bench")
    assert suffix == ".ridgetally.zip"
    there = workspace_in(tmp_path / "there")
    brought = jobs.import_job(there, content, "a.zip", "tests").job
    assert brought == job
    assert not weather_report(there.desk, brought).stand_in


def test_a_typed_month_is_what_the_year_comes_back_with(workspace) -> None:
    steps = [
        SetMonthly(Monthly.CLEARNESS, 5, "0.45"),
        SetMonthly(Monthly.MEAN_AIR, 0, "-2.5"),
    ]
    before = weather_report(workspace.desk, SAMPLE).months
    job = apply_edits(SAMPLE, steps, SHELF)
    after = weather_report(workspace.desk, job)
    assert after.months[5].ghi_kwh_per_m2 == pytest.approx(
        before[5].ghi_kwh_per_m2 * 0.45 / before[5].clearness_frac, rel=0.01
    )
    assert after.months[0].mean_degc == pytest.approx(-2.5, abs=0.01)
    assert after.months[7].ghi_kwh_per_m2 == pytest.approx(before[7].ghi_kwh_per_m2, rel=1e-6)
    assert set(after.typed) == {Monthly.CLEARNESS, Monthly.MEAN_AIR}
    assert "typed over" in after.name
    reset = apply_edit(job, ResetMonthly(Monthly.CLEARNESS), SHELF)
    assert typed_months(reset.weather, Monthly.CLEARNESS) is None


@pytest.mark.parametrize(
    ("quantity", "month", "typed", "error", "says"),
    [
        (Monthly.SOILING, 3, "120", OutOfRange, "Soiling, April in per cent reads 120"),
        (Monthly.CLEARNESS, 0, "1.4", OutOfRange, "Clearness, January"),
        (Monthly.SNOWFALL, None, "much", NotUnderstood, "Snowfall, every month"),
        (Monthly.MAX_AIR, 6, "2", OutOfRange, "Mean air of July"),
        (Monthly.WIND, 12, "3", NotFound, "month"),
    ],
)
def test_a_month_that_cannot_be_is_refused_by_name(quantity, month, typed, error, says) -> None:
    with pytest.raises(error, match=says):
        apply_edit(SAMPLE, SetMonthly(quantity, month, typed), SHELF)


def test_a_document_with_months_that_cannot_be_is_refused() -> None:
    bad = (
        MonthlyValues(Monthly.SOILING, (0.02,) * 11),
        MonthlyValues(Monthly.SNOWFALL, (-1.0,) + (0.0,) * 11),
    )
    for table, says in zip(bad, ("twelve", "Snowfall in centimetres reads -1"), strict=True):
        job = replace(SAMPLE, weather=replace(SAMPLE.weather, months=(table,)))
        with pytest.raises(OutOfRange, match=says):
            apply_edit(job, ForgetWeatherFile(), SHELF)


def test_dirt_and_snow_take_their_months_and_a_brush_gives_snow_back(workspace) -> None:
    clean = apply_edit(SAMPLE, SetMonthly(Monthly.SOILING, None, "0 %"), SHELF)
    dirty = apply_edit(SAMPLE, SetMonthly(Monthly.SOILING, None, "10"), SHELF)
    whole, less = (
        year_report(workspace.desk, design_for(j, option_a(j))).energy_kwh for j in (clean, dirty)
    )
    # Ten per cent of the light is nearly ten of the energy, but for what was clipped anyway.
    assert 0.90 < less / whole < 0.96
    snowy = apply_edits(
        SAMPLE, [SetMonthly(Monthly.SNOWFALL, m, "60 cm") for m in (0, 1, 11)], SHELF
    )
    report = shade_report(workspace.desk, design_for(snowy, option_a(snowy)))
    assert sum(report.monthly_snow_kwh) > 500
    assert report.monthly_snow_kwh[6] == 0
    option = option_a(snowy)
    brushed = replace(option, arrays=tuple(replace(a, brushed=True) for a in option.arrays))
    assert sum(shade_report(workspace.desk, design_for(snowy, brushed)).monthly_snow_kwh) == 0
    assert (
        year_report(workspace.desk, design_for(snowy, option)).energy_kwh
        < year_report(workspace.desk, design_for(snowy, brushed)).energy_kwh
    )


def test_snow_on_the_ground_throws_light_back_until_somebody_types_it(workspace) -> None:
    snowy = apply_edit(SAMPLE, SetMonthly(Monthly.SNOWFALL, 0, "60"), SHELF)
    months = weather_report(workspace.desk, snowy).months
    assert (months[0].reflection_frac, months[1].reflection_frac) == (0.6, 0.2)
    typed = apply_edit(snowy, SetMonthly(Monthly.REFLECTION, 0, "35 %"), SHELF)
    assert weather_report(workspace.desk, typed).months[0].reflection_frac == pytest.approx(0.35)


def test_shade_lowers_the_year_and_a_felled_tree_raises_it(workspace) -> None:
    without = replace(FULL, survey=replace(FULL.survey, shade_sources=(), horizon=()))
    shaded, free = (
        year_report(workspace.desk, design_for(j, option_a(j))).energy_kwh for j in (FULL, without)
    )
    report = shade_report(workspace.desk, design_for(FULL, option_a(FULL)))
    lost = 1 - shaded / free
    # The trees' share of the light and what it costs besides to get it unevenly, softened by
    # what would have been clipped anyway.
    assert 0.5 * report.lost_frac < lost < 2 * report.lost_frac


def test_the_darkest_cells_leave_less_than_the_mean_but_not_much_here(workspace) -> None:
    year = year_report(workspace.desk, design_for(FULL, option_a(FULL))).energy_kwh
    least = shade_band(workspace.desk, design_for(FULL, option_a(FULL))).energy_least_kwh
    assert 0.97 * year < least < year


def test_each_substring_has_its_own_light(workspace) -> None:
    sky, (array,) = array_lights(workspace.desk, design_for(FULL, option_a(FULL)))
    beside = next(x for m, x in zip(array.modules, array.lights, strict=True) if m.id == "south-26")
    assert beside.reach.shape == (3, int(sky.hours.up.sum()))
    means = beside.reach.mean(axis=1)
    assert means[0] < means[1] < means[2]
