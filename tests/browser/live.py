"""The real app on a free port of this machine, with the sample job in it and a small shelf."""

import json
import threading
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from wsgiref.types import StartResponse, WSGIApplication, WSGIEnvironment

from ridge_tally.catalogue.shelf import sample_shelf
from shelves import small_shelf

WANTS_FINE = "X-Wants-Fine"
UNASKED = {"found": None, "running": False, "problem": "not asked for"}


def by_the_hour(app: WSGIApplication) -> WSGIApplication:
    """The app, with no year by quarters but for requests that say they want one."""
    header = f"HTTP_{WANTS_FINE.upper().replace('-', '_')}"

    def served(environ: WSGIEnvironment, start_response: StartResponse) -> Iterable[bytes]:
        if environ["PATH_INFO"].endswith("/year/fine") and header not in environ:
            start_response("200 OK", [("Content-Type", "application/json")])
            return [json.dumps(UNASKED).encode()]
        return app(environ, start_response)

    return served


@contextmanager
def live_app(folder: Path, *, whole: bool = False) -> Iterator[str]:
    """Yield the address of a served app whose data lies in `folder`.

    ``whole``: with all of the shelf, and the year by quarters for everybody.
    """
    from waitress import create_server

    from ridge_tally.services.sample_jobs import store_samples
    from ridge_tally.services.workspace import workspace_at
    from ridge_tally.web.app import create_app

    shelf = sample_shelf() if whole else small_shelf(sample_shelf())
    workspace = workspace_at(folder, lambda: datetime.now(UTC), shelf)
    store_samples(workspace, "tests")
    app = create_app(workspace)
    served = app if whole else by_the_hour(app)
    server = create_server(served, host="127.0.0.1", port=0, threads=8)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    try:
        yield f"http://127.0.0.1:{server.effective_port}"
    finally:
        server.close()
        thread.join(timeout=5)
