"""A process beside the one that answers: whatever is reckoned of a revision is asked of it.

One interpreter runs one thread of Python at a time, so that a study in the process that takes
edits holds every one of them up.  Here a study and an edit only share the machine, and the
edit goes first.
"""

import multiprocessing
import os
import re
import signal
from contextlib import suppress
from http.client import HTTPConnection, HTTPException
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from pathlib import Path
from select import select
from threading import Lock, Thread
from urllib.parse import quote

from flask import Request, Response
from werkzeug.exceptions import ServiceUnavailable

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.errors import GivenUp
from ridge_tally.services.aside import A_LITTLE_BEHIND, LOOK_S, stand_back
from ridge_tally.services.warming import warm_up
from ridge_tally.services.workspace import Forgotten, utc_now, workspace_at
from ridge_tally.web.at import given_up

# What is worked out of a revision: shade, years, plans, money, sheets.
RECKONED = re.compile(r"/api/jobs/[^/]+/revisions/")
BROKE_OFF = "What reckons broke off at this twice. The job is intact; change what was asked for."
THREADS = 12
# A process that stands up loads for seconds, for tens of them on a busy machine.
STANDS_S = 120.0
# Of the way between two programs, not of what is asked or answered.
OF_THE_WAY = frozenset({"connection", "content-length", "date", "server", "transfer-encoding"})


class Beside:
    """The process, begun anew where it ended; safe to share between threads.

    Parameters
    ----------
    folder : Path
        The data folder; its database is open already, so that it is of this version.
    samples : Shelf
        The shipped equipment.
    trusted_hosts : frozenset of str
        Host names a request may name.
    """

    def __init__(self, folder: Path, samples: Shelf, trusted_hosts: frozenset[str]) -> None:
        self._told = (folder, samples, trusted_hosts)
        self._lock = Lock()
        self._process: BaseProcess | None = None
        self._line: Connection | None = None
        self._port: int | None = None
        self._begin()

    def answer(self, request: Request) -> Response | None:
        """Return what the process answers; ``None`` where this one should answer itself.

        That is whatever is not reckoned, and all of it while no such process stands.
        """
        if not RECKONED.match(request.path):
            return None
        body, place = request.get_data(), quote(request.environ["PATH_INFO"].encode("latin-1"))
        place += f"?{request.environ['QUERY_STRING']}"
        headers = {k: v for k, v in request.headers.items() if k.lower() not in OF_THE_WAY}
        gone = given_up()
        for _ in range(2):
            if (port := self._standing()) is None:
                return None
            way = HTTPConnection("127.0.0.1", port)
            try:
                way.request(request.method, place, body, headers)
                while not select([way.sock], [], [], LOOK_S)[0]:
                    if gone():
                        raise GivenUp
                found = way.getresponse()
                kept = [(k, v) for k, v in found.getheaders() if k.lower() not in OF_THE_WAY]
                return Response(found.read(), found.status, kept)
            except (HTTPException, OSError):
                # It ended: asked once more, of the next one.
                continue
            finally:
                way.close()
        # Done here it might end this one too, and with it every edit.
        raise ServiceUnavailable(BROKE_OFF)

    def forget(self, what: Forgotten) -> None:
        """Have the process forget what an answer of this one has changed, before anybody asks."""
        with self._lock, suppress(OSError, EOFError):
            if self._stood() is not None and self._line is not None:
                self._line.send(what.value)
                self._line.recv()

    def end(self) -> None:
        """End the process; to be called by whoever began it."""
        with self._lock:
            if self._process is not None:
                self._process.kill()
                self._process.join()
            self._process = self._line = self._port = None

    def _begin(self) -> None:
        # Begun from nothing: a copy of a process with threads may hold their locks for ever.
        fresh = multiprocessing.get_context("spawn")
        self._line, theirs = fresh.Pipe()
        self._process = fresh.Process(target=_reckon, args=(*self._told, theirs), daemon=True)
        self._process.start()
        theirs.close()
        self._port = None

    def _standing(self) -> int | None:
        with self._lock:
            if self._process is not None and not self._process.is_alive():
                self._begin()
            return self._stood()

    def _stood(self) -> int | None:
        """Return the port of the process once it stands; ``None`` if it never will."""
        if self._port is None and self._line is not None:
            with suppress(OSError, EOFError):
                if self._line.poll(STANDS_S):
                    self._port = self._line.recv()
        return self._port


def _reckon(folder: Path, samples: Shelf, trusted_hosts: frozenset[str], line: Connection) -> None:
    """Serve what is reckoned until the other end of the line is gone."""
    from waitress import create_server  # noqa: PLC0415 - not where the app is only described

    from ridge_tally.web.app import create_app  # noqa: PLC0415 - it asks this process

    # Who presses Ctrl-C stops the one that began this.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    stand_back(A_LITTLE_BEHIND)
    workspace = workspace_at(folder, utc_now, samples)
    app = create_app(workspace, trusted_hosts)
    server = create_server(
        app, host="127.0.0.1", port=0, threads=THREADS, channel_request_lookahead=1
    )

    def listen() -> None:
        with suppress(OSError, EOFError):
            line.send(server.effective_port)
            while True:
                workspace.forget(Forgotten(line.recv()))
                line.send(None)
        # Whoever asked is gone, however it went.
        os._exit(0)

    Thread(target=listen, daemon=True).start()
    Thread(target=warm_up, args=(workspace,), daemon=True).start()
    server.run()
