"""What commands share: options, where a job lies, JSON and tables out, errors as sentences."""

import json
import sys
from collections.abc import Callable, Mapping
from functools import wraps
from pathlib import Path
from typing import Any, ParamSpec

import click
from platformdirs import user_data_path
from pydantic import TypeAdapter

from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.ids import OptionId
from ridge_tally.editing.design import design_in
from ridge_tally.formats.csv_file import Row, csv_file
from ridge_tally.rules.design import Design
from ridge_tally.services import jobs
from ridge_tally.services.papers import SetAt
from ridge_tally.services.workspace import Workspace, utc_now, workspace_at
from ridge_tally.simulation.desk import Desk
from ridge_tally.store.jobs import JobId

BROKEN_STOP, BAD_INPUT, UNCHECKED_STOP = 1, 2, 3

AUTHOR = "command line"

P = ParamSpec("P")


def open_workspace(folder: Path) -> Workspace:
    """Return a workspace on a data folder; StorageFailed if it cannot be used."""
    return workspace_at(folder, utc_now, sample_shelf())


def at_desk(data: Path, job_id: str, option_id: str) -> tuple[Desk, Design]:
    """Return a desk and an option of a job at its newest; NotFound if one is not there."""
    workspace = open_workspace(data)
    job = jobs.load_job(workspace, JobId(job_id))
    return workspace.desk, design_in(job, OptionId(option_id))


def newest(data: Path, job_id: str, option_id: str) -> tuple[Workspace, SetAt]:
    """Return a workspace and an option of a job at its newest revision; NotFound if the job is not there."""
    workspace = open_workspace(data)
    revision = jobs.open_job(workspace, JobId(job_id)).revision
    return workspace, SetAt(JobId(job_id), revision, OptionId(option_id))


def speaks(command: Callable[P, None]) -> Callable[P, None]:
    """Turn our errors into a sentence on stderr and exit code 2."""

    @wraps(command)
    def wrapped(*args: P.args, **kwargs: P.kwargs) -> None:
        try:
            command(*args, **kwargs)
        except RidgeTallyError as error:
            click.echo(str(error), err=True)
            sys.exit(BAD_INPUT)

    return wrapped


def as_json(value: object) -> str:
    """Return any of our values as indented JSON; NaN becomes null."""
    adapter: TypeAdapter[Any] = TypeAdapter(type(value))
    plain = adapter.dump_python(value, mode="json")
    return json.dumps(plain, indent=2, ensure_ascii=False)


data_option = click.option(
    "--data",
    type=click.Path(file_okay=False, path_type=Path),
    default=lambda: user_data_path("ridge-tally", appauthor=False),
    help="Folder of the database (default: your data folder).",
)

option_option = click.option("--option", "option_id", default="a", help="Option, a by default.")

json_option = click.option("--json", "json_out", is_flag=True, help="Print JSON.")


def write_tables(folder: Path, tables: Mapping[str, list[Row]]) -> None:
    """Write tables as CSV files into a folder, each by its name."""
    folder.mkdir(parents=True, exist_ok=True)
    for name, rows in tables.items():
        (folder / f"{name}.csv").write_bytes(csv_file(rows))


csv_option = click.option("--csv", "as_csv", is_flag=True, help="Print CSV.")

by_option = click.option("--by", "weighed", default="year", help="year, winter, 16-21 and so on.")
