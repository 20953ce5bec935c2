"""Logs of real arrays from an open data package (MIT), read and judged as a user's would be.

The first array's place, slope of 45° and azimuth of 158° are the package's; its rating and makers
are not.  A module of the sample shelf stands for its own, and July tells how many of them it is:
the months that follow are judged by that.  The light is a satellite's.
"""

from dataclasses import replace
from datetime import date
from pathlib import Path

import numpy as np
import pandas as pd
import pytest

from jobs import SHELF, WORKED_OUT
from ridge_tally.core.equipment import InverterId, ModuleId
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.document import CodePack, DesignTemperature, Equipment, Job, Site
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.strings.threading import ThreadString
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.survey import Survey
from ridge_tally.core.proving.logged.days import LogStanding
from ridge_tally.core.proving.logged.signatures import Sign
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.juniper_survey import rectangle
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.editing.survey.planes import blank_plane
from ridge_tally.formats.production_file import ProductionLog, read_production
from ridge_tally.rules.design import Design
from ridge_tally.studies.proving.production import Judged, judged_log, terms_of
from ridge_tally.studies.proving.production_words import Tone, sign_told

DATA = Path(__file__).parents[2] / ".build/measured/pvanalytics/data"
PLANE, A = PlaneId("p"), OptionId("a")
DAYS_OF_JULY = 31


def house(slope_deg: float, azimuth_deg: float) -> Design:
    """Sixteen modules in a string on one roof at the array's place."""
    site = Site(
        place="A measured array", latitude_deg=39.7406, longitude_deg=-105.1774, elevation_m=1830.0,
        utc_offset_h=-7.0, climate_id="mild-plain", code_pack=CodePack.IEC, dwelling=True,
        coldest=DesignTemperature(-20.0, "of this test"), hottest=DesignTemperature(33.0, "of this test"),
    )  # fmt: skip
    module, inverter = ModuleId("sample-390"), InverterId("sample-i10")
    job = Job(
        name="Measured", unit=LengthUnit.METRE, site=site,
        survey=Survey((blank_plane(PLANE, "Roof", LengthUnit.METRE),)),
        equipment=Equipment((SHELF.module(module),), (SHELF.inverter(inverter),)),
        options=(Option(A, "a", module, inverter),),
    )  # fmt: skip
    outline = rectangle(PLANE, "10", "4.3", str(slope_deg), str(azimuth_deg), "4")
    laid = apply_edits(job, (*outline, FillPlane(A, PLANE, Ways.PORTRAIT)), SHELF)
    ids = tuple(m.id for m in laid.options[0].arrays[0].modules if m.present)
    wired = apply_edits(laid, (ThreadString(A, 1, ids),), SHELF)
    return design_for(wired, wired.options[0])


@pytest.fixture(scope="module")
def design() -> Design:
    return house(45, 158)


def judge(design: Design, log: ProductionLog) -> Judged:
    return judged_log(WORKED_OUT, design, log)


def acted_on(found: Judged) -> list[Sign]:
    """What a log's signs ask to be acted on."""
    measured = found.due.steps.light_measured
    told = [sign_told(s, found.log.first_day, measured=measured) for s in found.signs]
    return [s.sign for s in told if s.tone is Tone.ACT]


@pytest.fixture(scope="module")
def three_months(design: Design) -> ProductionLog:
    """July to October 2016 with a satellite's light, its rating put right by July alone."""
    read = {"index_col": 0, "parse_dates": True}
    power = pd.read_csv(DATA / "serf_east_15min_ac_power.csv", **read)
    sky = pd.read_csv(DATA / "serf_east_psm3_data.csv", **read)[["ghi", "temp_air"]]
    named = power.join(sky).rename(columns={"ghi": "GHI W/m²", "temp_air": "Air temp °C"})
    log = read_production(named.to_csv().encode(), "measured.csv", terms_of(design))
    july = judge(
        design,
        replace(
            log,
            power_w=log.power_w[:DAYS_OF_JULY],
            light_w_per_m2=log.light_w_per_m2[:DAYS_OF_JULY],
            air_degc=log.air_degc[:DAYS_OF_JULY],
        ),
    )
    there = np.isfinite(july.days.ratio)
    ratio = july.days.judged_made_kwh[there].sum() / july.days.judged_due_kwh[there].sum()
    return replace(log, power_w=log.power_w / ratio)


def test_a_healthy_real_array_is_judged_healthy(
    design: Design, three_months: ProductionLog
) -> None:
    found = judge(design, three_months)
    later = [m for m in found.months if m.month > 7]
    assert [m.month for m in later] == [8, 9, 10]
    # Seen: 1.005, 0.986 and 1.024.
    assert {m.standing for m in later} == {LogStanding.FINE}
    assert acted_on(found) == []
    assert found.due.offs == ()


def test_without_its_light_the_clear_days_of_a_real_array_are_fine_in_the_wider_band(
    design: Design, three_months: ProductionLog
) -> None:
    found = judge(design, replace(three_months, light_w_per_m2=None))
    there = np.isfinite(found.days.ratio)
    assert there.sum() >= 8
    ratio = found.days.judged_made_kwh[there].sum() / found.days.judged_due_kwh[there].sum()
    # Seen: 1.06.
    assert ratio == pytest.approx(1.0, abs=0.10)
    assert acted_on(found) == []


def test_a_tenth_taken_from_real_days_is_dated(design: Design, three_months: ProductionLog) -> None:
    power = three_months.power_w.copy()
    since = (date(2016, 8, 25) - three_months.first_day).days
    power[since:] *= 0.85
    found = judge(design, replace(three_months, power_w=power))
    steps = [s for s in found.signs if s.sign is Sign.STEP]
    assert [abs(s.first - since) <= 2 for s in steps] == [True]
    assert acted_on(found) == [Sign.STEP]


@pytest.mark.parametrize("hours", [-7, 1])
def test_a_shifted_clock_of_real_days_is_put_right(
    design: Design, three_months: ProductionLog, hours: int
) -> None:
    moved = np.roll(three_months.power_w.ravel(), hours * 4).reshape(-1, 96)
    light = np.roll(three_months.light_w_per_m2.ravel(), hours * 4).reshape(-1, 96)
    shifted = replace(three_months, power_w=moved, light_w_per_m2=light)
    found = judge(design, shifted)
    assert sum(o.late_h for o in found.due.offs if o.end - o.first > 90) == hours


def test_a_real_log_two_hours_late_is_found_late(design: Design) -> None:
    # Its light is centred at 14:04, 14:16, 14:02 and 13:38 on its first four days (by hand from
    # the file); true noon is at 12:05 there in January (its longitude is 0.18° west of its zone).
    content = (DATA / "nrel_RSF_II.csv").read_bytes()
    log = read_production(content, "late.csv", terms_of(design))
    assert [o.late_h for o in judge(house(10, 180), log).due.offs] == [2.0]


def test_the_snow_on_a_real_array_is_told_as_snow(design: Design) -> None:
    # The package's own labels call the fifth day of this neighbour snowed on.
    content = (DATA / "serf_west_15min.csv").read_bytes()
    found = judge(design, read_production(content, "snow.csv", terms_of(design)))
    snow = next(s for s in found.signs if s.sign is Sign.SNOW)
    assert snow.last == 4
    assert np.isnan(found.days.ratio[4])
    assert acted_on(found) == []
