"""The job file: one JSON document, published schema, the same going out and coming back."""

import json
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, ValidationError

from ridge_tally.core.errors import FormatError, RidgeTallyError
from ridge_tally.core.job.document import DOCUMENT_VERSION, Job
from ridge_tally.formats.older_jobs import brought_up
from ridge_tally.rules.document import require_sound

SUFFIX = ".ridgetally.json"


class JobFile(BaseModel):
    """A Ridge Tally job, complete with the datasheets it uses."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    format: Literal["ridge-tally-job"] = "ridge-tally-job"
    job: Job


def write_job(job: Job) -> str:
    """Return the job as JSON text, keys in document order, two-space indent."""
    return JobFile(job=job).model_dump_json(indent=2) + "\n"


def read_job(text: str | bytes, file: str = "job file") -> Job:
    """Return the job of a JSON text.

    Raises
    ------
    FormatError
        If it is not JSON, not a job file, of a newer version, or contradicts itself; the
        message names the place and the value.
    """
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise FormatError(
            file, "", f"this is not JSON ({error})", "Choose a file saved with “Job file”."
        ) from None
    if not isinstance(data, dict) or data.get("format") != "ridge-tally-job":
        raise FormatError(
            file, "format", "this is not a Ridge Tally job", "Choose a *.ridgetally.json file."
        )
    body = data.get("job")
    version = body.get("version") if isinstance(body, dict) else None
    if isinstance(version, int) and version > DOCUMENT_VERSION:
        raise FormatError(
            file,
            "job.version",
            f"version {version} is newer than this program reads ({DOCUMENT_VERSION})",
            "Update Ridge Tally, then open it again.",
        )
    try:
        job = JobFile.model_validate_json(_newest(data, text), strict=True).job
    except ValidationError as error:
        place, problem = describe(error)
        raise FormatError(
            file, place, problem, "Correct it there, or export the job again."
        ) from None
    try:
        require_sound(job)
    except RidgeTallyError as error:
        raise FormatError(file, "job", str(error).rstrip("."), "Nothing was imported.") from None
    return job


def stored_job(text: str) -> Job:
    """Return the job of a document this program stored, brought to the newest version."""
    if f'"version":{DOCUMENT_VERSION}' in text[-40:]:
        return JobFile.model_validate_json(text).job
    return JobFile.model_validate_json(_newest(json.loads(text), text)).job


def _newest(data: dict[str, Any], text: str | bytes) -> str | bytes:
    """Return the text of the document as the newest version writes it."""
    newest = brought_up(data)
    return text if newest is data else json.dumps(newest)


def describe(error: ValidationError) -> tuple[str, str]:
    """Return the place and the problem of the first thing a validation found, with its value."""
    first = error.errors(include_url=False)[0]
    place = ".".join(str(part) for part in first["loc"])
    value = first.get("input")
    shown = (
        repr(value) if isinstance(value, str | int | float | bool | None) else type(value).__name__
    )
    return place, f"{first['msg'][0].lower()}{first['msg'][1:]}, found {shown[:60]}"


def job_file_schema() -> dict[str, Any]:
    """Return the JSON Schema of the job file."""
    schema = JobFile.model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Ridge Tally job file"
    return schema
