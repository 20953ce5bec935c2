"""What is reckoned in a process beside: the same answers, of the newest shelf, whatever ends."""

import os
import signal
import socket
from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from equipment_rows import INVERTER
from jobs import SAMPLE, SHELF, workspace_in
from meter_files import use_csv
from ridge_tally.services import jobs
from ridge_tally.web.app import LOOPBACK, create_app
from ridge_tally.web.beside import Beside

JOB = "/api/jobs/juniper-bench"
OPTION = f"{JOB}/revisions/1/options/a"


@pytest.fixture(scope="module")
def both(tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[FlaskClient, FlaskClient]]:
    """One app that asks a process beside it, one on the same folder that asks nobody."""
    folder: Path = tmp_path_factory.mktemp("beside")
    workspace = workspace_in(folder)
    jobs.store_job(workspace, SAMPLE, "sample", "tests")
    beside = Beside(folder, SHELF, LOOPBACK)
    asking = create_app(workspace, beside=beside)
    asking.extensions["beside"] = beside
    yield asking.test_client(), create_app(workspace_in(folder)).test_client()
    beside.end()


def test_its_answers_errors_and_uploads_are_those_of_one_that_asks_nobody(both) -> None:
    beside, _ = both
    for path in ("target", "one-line", "one-line/1.svg", "no-plan?x=%2F", "options/zz", "sun-day"):
        one, other = (client.get(f"{OPTION}/{path}") for client in both)
        assert (one.status_code, one.mimetype) == (other.status_code, other.mimetype), path
        assert one.data == other.data, path
    foreign = beside.get(f"{OPTION}/target", headers={"Origin": "http://elsewhere.example"})
    assert foreign.status_code == 403
    sent = {"data": use_csv(), "headers": {"X-File-Name": "use.csv"}}
    told = [client.post(f"{JOB}/revisions/1/load", **sent) for client in both]
    assert told[0].status_code == 201
    assert told[0].json == told[1].json


def test_an_inverter_kept_here_is_weighed_there(both) -> None:
    beside, _ = both

    def weighed(revision: int) -> str:
        """What is found of a revision; another one is weighed anew."""
        while True:
            answer = beside.get(f"{JOB}/revisions/{revision}/options/a/inverter-plans").json
            if not answer["running"]:
                return str(answer["found"])

    assert "Hill 5" not in weighed(1)
    assert (
        beside.post("/api/equipment/inverter/sheets", json={"texts": INVERTER}).status_code == 201
    )
    renamed = {"kind": "rename-job", "name": "Juniper Bench again"}
    told = {"parent": 1, "author": "tests", "edit": renamed}
    assert beside.post(f"{JOB}/edits", json=told).status_code == 200
    assert "Hill 5" in weighed(2)


def test_one_that_was_killed_is_begun_anew_and_one_that_ended_is_done_without(both) -> None:
    asking, alone = both
    beside = asking.application.extensions["beside"]
    before = beside._process.pid
    os.kill(before, signal.SIGKILL)
    beside._process.join()
    assert asking.get(f"{OPTION}/target").json == alone.get(f"{OPTION}/target").json
    assert beside._process.pid != before
    beside.end()
    assert asking.get(f"{OPTION}/target").json == alone.get(f"{OPTION}/target").json


def test_whoever_goes_away_while_it_reckons_is_not_waited_for(tmp_path: Path) -> None:
    deaf = socket.create_server(("127.0.0.1", 0))
    workspace = workspace_in(tmp_path)
    jobs.store_job(workspace, SAMPLE, "sample", "tests")

    class Deaf(Beside):
        def _begin(self) -> None:
            self._port = deaf.getsockname()[1]

    client = create_app(workspace, beside=Deaf(tmp_path, SHELF, LOOPBACK)).test_client()
    gone = {"waitress.client_disconnected": lambda: True}
    answer = client.get(f"{OPTION}/target", environ_overrides=gone)
    assert (answer.status_code, answer.json["code"]) == (408, "asked.given-up")
