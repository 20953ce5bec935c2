"""The real app on a free port of this machine, with the sample job in it and a small shelf."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

from ridge_tally.catalogue.shelf import sample_shelf
from shelves import small_shelf


@contextmanager
def live_app(folder: Path, *, whole: bool = False) -> Iterator[str]:
    """Yield the address of a served app whose data lies in `folder`.

    ``whole``: with all of the shelf.
    """
    from waitress import create_server

    from ridge_tally.services.memory import settle
    from ridge_tally.services.sample_jobs import store_samples
    from ridge_tally.services.workspace import workspace_at
    from ridge_tally.web.app import create_app

    shelf = sample_shelf() if whole else small_shelf(sample_shelf())
    workspace = workspace_at(folder, lambda: datetime.now(UTC), shelf)
    store_samples(workspace, "tests")
    settle()
    server = create_server(create_app(workspace), host="127.0.0.1", port=0, threads=8)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    try:
        yield f"http://127.0.0.1:{server.effective_port}"
    finally:
        server.close()
        thread.join(timeout=5)
