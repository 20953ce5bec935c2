"""Documents of older versions are brought up, whole, from files and from the store."""

import json

from jobs import SAMPLE
from ridge_tally.core.job.brief import Brief
from ridge_tally.formats.job_file import JobFile, read_job, stored_job, write_job


def version_1() -> dict:
    """The sample as version 1 wrote it: no brief, no service, no zone, no day."""
    data = json.loads(write_job(SAMPLE))
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
    job = read_job(json.dumps(version_1()))
    assert job.version == SAMPLE.version
    assert job.brief == Brief()
    assert job.options == SAMPLE.options
    assert job.survey.planes == SAMPLE.survey.planes


def test_a_stored_version_1_document_opens_alike() -> None:
    assert stored_job(json.dumps(version_1())) == read_job(json.dumps(version_1()))


def test_a_stored_document_of_today_opens_as_it_was() -> None:
    assert stored_job(JobFile(job=SAMPLE).model_dump_json()) == SAMPLE
