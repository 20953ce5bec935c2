"""Documents of older versions are brought up, whole, from files and from the store."""

import json
import math
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from jobs import FULL, SAMPLE, unracked
from ridge_tally.core.equipment import Origin, origin_of
from ridge_tally.core.job.array import Mounting
from ridge_tally.core.job.brief import Brief
from ridge_tally.core.job.code_rules import OwnRules, Safety
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.household import Household
from ridge_tally.core.job.money import Money
from ridge_tally.core.job.service import SourceBreaker
from ridge_tally.core.job.weather import JobWeather
from ridge_tally.core.job.wiring import Wiring
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.formats.job_file import JobFile, read_job, stored_job

OLDER = Path(__file__).parent / "older"


def unasked(job: Job) -> Job:
    """The job of today as it was before a survey asked where its source breaker stands."""
    service = replace(job.survey.service, source_breaker=SourceBreaker.NOT_SAID)
    return replace(job, survey=replace(job.survey, service=service))


def unwired(job: Job) -> Job:
    """The job of today as it was before it had circuits, and sheets their largest breakers."""
    options = tuple(replace(o, wiring=Wiring()) for o in job.options)
    inverters = tuple(replace(i, breaker_most_a=None) for i in job.equipment.inverters)
    equipment = replace(job.equipment, inverters=inverters)
    return replace(job, options=options, equipment=equipment)


def unpriced(job: Job) -> Job:
    """The job of today as it was before it had money, and its grid a month of true-up."""
    grid = job.brief.grid
    assert grid is not None
    brief = replace(job.brief, grid=replace(grid, trueup_month=None))
    return replace(job, money=Money(), brief=brief)


BEFORE = unpriced(unwired(unracked(unasked(FULL))))


def version_2() -> dict:
    """A job of version 2: trapezoids, three setbacks, a height typed on plan."""
    return json.loads((OLDER / "juniper-2.json").read_text("utf-8"))


def version_1() -> dict:
    """The same as version 1 wrote it: no brief, no service, no zone, no day."""
    data = version_2()
    job = data["job"]
    job["version"] = 1
    del job["brief"], job["survey"]["service"]
    for name in ("record_low", "time_zone", "survey_day"):
        del job["site"][name]
    for sheet in (*job["equipment"]["modules"], *job["equipment"]["inverters"]):
        for name in ("all_black", "battery_ready", "backup_ready"):
            sheet.pop(name, None)
    return data


def test_a_version_1_file_gets_an_empty_brief_and_keeps_the_rest() -> None:
    job, newer = read_job(json.dumps(version_1())), read_job(json.dumps(version_2()))
    assert job.version == SAMPLE.version
    assert job.brief == Brief()
    assert job.options == newer.options
    assert job.survey.planes == newer.survey.planes


def test_a_version_2_roof_comes_out_as_large_as_it_was() -> None:
    south, north = read_job(json.dumps(version_2())).survey.planes
    assert corners_m(south) == pytest.approx(
        np.array([[0, 0], [12.192, 0], [12.192, 6.477], [0, 6.477]]), abs=1e-6
    )
    # 38 feet of ridge, a foot in from the left; 19 feet on plan at 6:12 are 21.2426 up the slope.
    top = 19 * 0.3048 / math.cos(math.atan(0.5))
    assert corners_m(north) == pytest.approx(
        np.array([[0, 0], [12.192, 0], [0.3048 + 11.5824, top], [0.3048, top]]), abs=1e-6
    )
    assert north.setbacks.hip == north.setbacks.ridge


def test_a_stored_older_document_opens_alike() -> None:
    for data in (version_1(), version_2()):
        assert stored_job(json.dumps(data)) == read_job(json.dumps(data))


def test_a_stored_document_of_today_opens_as_it_was() -> None:
    assert stored_job(JobFile(job=SAMPLE).model_dump_json()) == SAMPLE


def test_a_version_3_array_gives_each_module_its_way_round_and_its_gaps_a_text() -> None:
    text = (OLDER / "juniper-3.json").read_text("utf-8")
    old = json.loads(text)["job"]["options"][0]["arrays"][0]
    job = read_job(text)
    (array,) = job.options[0].arrays
    assert [(m.x_m, m.y_m) for m in array.modules] == [(m["x_m"], m["y_m"]) for m in old["modules"]]
    assert {m.orientation.value for m in array.modules} == {old["orientation"]}
    assert (array.gap_in_row.value_m, array.gap_in_row.typed) == (0.02, "20 mm")
    assert job.options[0].strings == SAMPLE.options[0].strings
    assert job.survey == unasked(SAMPLE).survey
    assert stored_job(text) == job


def test_a_version_4_job_gets_the_weather_and_mountings_it_was_reckoned_with() -> None:
    text = (OLDER / "juniper-4.json").read_text("utf-8")
    assert '"weather"' not in text
    job = read_job(text)
    assert replace(job, equipment=BEFORE.equipment) == unwired(BEFORE)
    assert job.weather == JobWeather()
    assert {a.mounting for o in job.options for a in o.arrays} == {Mounting.STAND_OFF}
    assert stored_job(text) == job


def test_a_version_5_job_names_no_ageing_and_no_derating() -> None:
    job = read_job((OLDER / "juniper-5.json").read_text("utf-8"))
    assert replace(job, equipment=BEFORE.equipment) == unwired(BEFORE)
    assert {m.yearly_loss_frac for m in job.equipment.modules} == {None}
    assert {i.derating for i in job.equipment.inverters} == {()}


def test_a_version_6_job_has_neither_boxes_nor_words_on_safety_and_holds_to_its_family() -> None:
    text = (OLDER / "juniper-6.json").read_text("utf-8")
    job = read_job(text)
    assert replace(job, equipment=BEFORE.equipment) == unwired(BEFORE)
    assert job.site.own_rules == OwnRules()
    assert {m.lead_m for m in job.equipment.modules} == {None}
    assert {o.more_inverters for o in job.options} == {()}
    assert stored_job(text) == job


def test_a_version_7_job_has_no_prices_and_keeps_everything_else() -> None:
    text = (OLDER / "juniper-7.json").read_text("utf-8")
    job = read_job(text)
    assert replace(job, equipment=BEFORE.equipment) == BEFORE
    sheets = (*job.equipment.modules, *job.equipment.inverters)
    assert {s.price_cents for s in sheets} == {None}
    assert {origin_of(s, "voc_v") for s in job.equipment.modules} == {Origin.SAMPLE}
    assert stored_job(text) == job


def test_a_version_8_job_has_a_house_at_home_no_battery_and_an_empty_bench() -> None:
    text = (OLDER / "juniper-8.json").read_text("utf-8")
    job = read_job(text)
    # Nobody had said how high a frame is.
    framed = tuple(replace(m, frame_m=None) for m in BEFORE.equipment.modules)
    assert job == replace(BEFORE, equipment=replace(BEFORE.equipment, modules=framed))
    assert job.brief.household == Household()
    assert {o.battery for o in job.options} == {None}
    assert job.bench is None
    assert stored_job(text) == job


def unwired(job: Job) -> Job:
    """The job as it was before boxes were drawn and anybody spoke of shutdown."""
    options = tuple(replace(o, boxes=(), safety=Safety()) for o in job.options)
    return replace(job, options=options)
