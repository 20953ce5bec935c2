"""Commands that serve the app, and that write its schemas."""

import json
import logging
from pathlib import Path
from tempfile import TemporaryDirectory

import click
from waitress import create_server

from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.cli.asking import AUTHOR, data_option, open_workspace, speaks
from ridge_tally.core.kernels.all import warm_all
from ridge_tally.formats.equipment_file import equipment_schema
from ridge_tally.formats.job_file import job_file_schema
from ridge_tally.services import jobs
from ridge_tally.services.memory import settle
from ridge_tally.services.sample_jobs import store_samples
from ridge_tally.services.workspace import Workspace
from ridge_tally.web.app import LOOPBACK, create_app, description
from ridge_tally.web.beside import Beside

# Most of them only wait for what is reckoned beside; an edit always finds one free.
THREADS = 24


@click.command()
@data_option
@click.option("--port", default=8000, show_default=True)
@click.option("--host", default="", help="Also answer on this address, for a tablet on site.")
@speaks
def serve(data: Path, port: int, host: str) -> None:
    """Serve the app."""
    _serve(open_workspace(data), data, port, host)


@click.command()
@data_option
@click.option("--port", default=8000, show_default=True)
@speaks
def demo(data: Path, port: int) -> None:
    """Serve the app on a data folder that holds the sample jobs."""
    workspace = open_workspace(data)
    if not jobs.list_jobs(workspace):
        store_samples(workspace, AUTHOR)
    _serve(workspace, data, port, "")


def _serve(workspace: Workspace, data: Path, port: int, host: str) -> None:
    trusted = LOOPBACK | {host} if host else LOOPBACK
    beside = Beside(data, sample_shelf(), trusted)
    app = create_app(workspace, trusted, beside)
    addresses = [f"127.0.0.1:{port}"] + ([f"{host}:{port}"] if host else [])
    server = create_server(
        app, listen=" ".join(addresses), threads=THREADS, channel_request_lookahead=1
    )
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    settle()
    click.echo(f"Ridge Tally is at http://127.0.0.1:{port}/  (Ctrl-C stops it)")
    try:
        server.run()
    finally:
        beside.end()


@click.command()
def warm() -> None:
    """Compile what is compiled, so that nobody waits for it later."""
    warm_all()


@click.command()
@click.option("--equipment", is_flag=True, help="That of the equipment file instead.")
def schema(*, equipment: bool) -> None:
    """Print the JSON Schema of the job file."""
    click.echo(json.dumps(equipment_schema() if equipment else job_file_schema(), indent=2))


@click.command()
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
def openapi(file: Path) -> None:
    """Write the description of the web API, only when it has changed."""
    with TemporaryDirectory() as folder:
        described = description(open_workspace(Path(folder)))
    for schema in described["components"]["schemas"].values():
        # Fields with defaults may be left out on the way in; on the way out all are there,
        # and the interface sends them all too.
        if "properties" in schema:
            schema["required"] = sorted(schema["properties"])
    text = json.dumps(described, indent=2, sort_keys=True) + "\n"
    if not file.exists() or file.read_text("utf-8") != text:
        file.write_text(text, "utf-8")
