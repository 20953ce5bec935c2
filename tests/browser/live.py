"""The real app on a free port of this machine, with the sample job in it and a small shelf."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ridge_tally.catalogue.shelf import sample_shelf
from shelves import small_shelf


@contextmanager
def live_app(folder: Path, *, whole: bool = False) -> Iterator[str]:
    """Yield the address of a served app whose data lies in `folder`.

    ``whole``: with all of the shelf.
    """
    from waitress import create_server

    from ridge_tally.cli.serving import THREADS
    from ridge_tally.services.memory import settle
    from ridge_tally.services.sample_jobs import store_samples
    from ridge_tally.services.workspace import utc_now, workspace_at
    from ridge_tally.web.app import LOOPBACK, create_app
    from ridge_tally.web.beside import Beside

    shelf = sample_shelf() if whole else small_shelf(sample_shelf())
    workspace = workspace_at(folder, utc_now, shelf)
    beside = Beside(folder, shelf, LOOPBACK)
    store_samples(workspace, "tests")
    settle()
    app = create_app(workspace, beside=beside)
    server = create_server(
        app, host="127.0.0.1", port=0, threads=THREADS, channel_request_lookahead=1
    )
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    try:
        yield f"http://127.0.0.1:{server.effective_port}"
    finally:
        server.close()
        thread.join(timeout=5)
        beside.end()
