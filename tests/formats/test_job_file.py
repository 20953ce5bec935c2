"""Job files: the same out and in, and every kind of bad file refused by place and value."""

import json
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jobs import SAMPLE
from ridge_tally.core.errors import FormatError
from ridge_tally.core.job.document import Job
from ridge_tally.formats.equipment_file import equipment_schema
from ridge_tally.formats.job_file import job_file_schema, read_job, write_job


def test_out_and_back_is_identical() -> None:
    text = write_job(SAMPLE)
    assert read_job(text) == SAMPLE
    assert write_job(read_job(text)) == text


@settings(max_examples=40)
@given(
    st.text(min_size=1, max_size=60).filter(lambda t: t.strip() and t.isprintable()),
    st.floats(-66, 66),
    st.floats(0.5, 90),
)
def test_any_name_and_number_survive(name: str, latitude: float, azimuth: float) -> None:
    plane = replace(SAMPLE.survey.planes[0], azimuth_deg=azimuth)
    job: Job = replace(
        SAMPLE,
        name=name,
        site=replace(SAMPLE.site, latitude_deg=latitude),
        survey=replace(SAMPLE.survey, planes=(plane,)),
    )
    assert read_job(write_job(job)) == job


def changed(path: str, value: object) -> str:
    data = json.loads(write_job(SAMPLE))
    *parents, last = path.split(".")
    place = data
    for part in parents:
        place = place[int(part)] if part.isdigit() else place[part]
    if value is KeyError:
        del place[int(last) if last.isdigit() else last]
    else:
        place[last] = value
    return json.dumps(data)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{", "not JSON"),
        ("[" * 100_000, "not JSON"),
        ("[]", "not a Ridge Tally job"),
        ('{"format": "something"}', "not a Ridge Tally job"),
        (changed("job.version", 99), "newer than this program"),
        (changed("job.name", 7), "job.name"),
        (changed("job.site.latitude_deg", "thirty"), "latitude_deg.*'thirty'"),
        (changed("job.site.latitude_deg", "36.2"), "latitude_deg"),
        (changed("job.site.extra", 1), "extra"),
        (changed("job.survey.planes.0.slope_deg", 95.0), "slope in degrees reads 95"),
        (changed("job.survey.planes.0.outline.readings.4.taped.value_m", -2.0), "length in metres"),
        (changed("job.site.latitude_deg", 91.0), "Latitude in degrees reads 91"),
        (changed("job.options", []), "at least one option"),
        (changed("job.options.0.module_id", "gone"), "module datasheet “gone”"),
        (changed("job.options.0.strings.0.tracker_number", 9), "Tracker of string A reads 9"),
        (changed("job.options.0.strings.0.module_ids", ["ghost"]), "ghost"),
        (changed("job.equipment.modules.0.voc_v", KeyError), "voc_v"),
        (changed("job.equipment.modules.0.beta_voc_frac_per_degc", -0.27), "Voc coefficient"),
        (changed("job.equipment.modules.0.vmp_v", 50.0), "Vmp reads 50"),
        (changed("job.equipment.inverters.0.trackers", []), "MPPT input"),
        (
            changed("job.options.0.strings.0.module_ids", []),
            "String A of option two trackers has no module",
        ),
        (changed("job.survey.planes.0.setbacks.rake.value_m", -1.0), "free strip at the rake"),
        (changed("job.unit", "yard"), "unit"),
        (changed("job.options.0.boxes.0.plane_id", "moon"), "roof plane “moon”"),
        (changed("job.options.0.boxes.0.x_m", 900.0), "Place of box box1 in metres reads 900"),
        (
            changed("job.options.0.more_inverters", ["sample-i7-6"] * 4),
            "Inverters of option.*reads 5",
        ),
        (changed("job.options.0.more_inverters", ["gone"]), "inverter datasheet “gone”"),
        (changed("job.options.0.arrays.0.module_id", "gone"), "module datasheet “gone”"),
        (changed("job.site.own_rules.ceiling_v", 5.0), "voltage ceiling, V reads 5"),
        (changed("job.equipment.modules.0.lead_m", -1.0), "length of a lead in metres reads -1"),
    ],
)
def test_a_bad_file_is_refused_with_place_and_value(text: str, says: str) -> None:
    with pytest.raises(FormatError, match=f"(?s)roof.json.*{says}"):
        read_job(text, "roof.json")


def test_not_a_number_is_refused() -> None:
    with pytest.raises(FormatError, match="latitude_deg"):
        read_job(changed("job.site.latitude_deg", float("nan")))


def test_bytes_that_are_no_text_are_refused() -> None:
    with pytest.raises(FormatError, match="not JSON"):
        read_job(b"\xff\xfe\x00PK")


def test_the_schema_names_every_field_of_the_job() -> None:
    schema = job_file_schema()
    assert set(schema["$defs"]["Job"]["properties"]) == set(Job.__dataclass_fields__)
    assert schema["$defs"]["Job"]["additionalProperties"] is False


@pytest.mark.parametrize(
    ("name", "schema"),
    [("job-file", job_file_schema), ("equipment-file", equipment_schema)],
)
def test_the_published_schemas_are_those_of_today(
    name: str, schema: Callable[[], dict[str, Any]]
) -> None:
    published = Path(__file__).parents[2] / "docs" / f"{name}.schema.json"
    assert json.loads(published.read_text("utf-8")) == schema(), "stale: make lock-schema"
