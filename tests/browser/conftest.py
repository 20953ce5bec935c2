"""The real interface in headless Chromium against the real app, cut off from other hosts."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from live import live_app
from playwright.sync_api import BrowserContext, Page, expect

from browser import CHROMIUM, CONTEXT, LAUNCH_ARGS, ONE_THREAD, other_hosts_asked
from jobs import FULL, SAMPLE
from ridge_tally.formats.job_file import write_job

# What is awaited is a state, never a speed: this only ends a run in which it never comes.
NEVER_MS = 600_000
expect.set_options(timeout=NEVER_MS)


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict) -> dict:
    return {
        **browser_type_launch_args,
        "executable_path": CHROMIUM,
        "args": [*LAUNCH_ARGS, ONE_THREAD],
        "timeout": NEVER_MS,
    }


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict) -> dict:
    return {**browser_context_args, **CONTEXT}


@pytest.fixture(scope="session")
def live_url(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    with live_app(tmp_path_factory.mktemp("live")) as address:
        yield address


@pytest.fixture(scope="session")
def base_url(live_url: str) -> str:
    return live_url


@pytest.fixture(autouse=True)
def cut_off(context: BrowserContext, live_url: str) -> Iterator[None]:
    """Nobody asks another host."""
    asked = other_hosts_asked(context, live_url)
    yield
    assert asked == []


@pytest.fixture(autouse=True)
def patient(context: BrowserContext) -> None:
    """No click and no page gives up on a busy machine."""
    context.set_default_timeout(NEVER_MS)


@pytest.fixture
def complaints(page: Page) -> list[str]:
    """What the page complains of: errors thrown and messages of the content policy."""
    found: list[str] = []
    page.on("pageerror", lambda error: found.append(str(error)))
    page.on(
        "console",
        lambda m: found.append(f"{m.text} {m.location['url']}") if m.type == "error" else None,
    )
    return found


@pytest.fixture
def job(page: Page) -> str:
    """A fresh copy of the sample job; its place in the app."""
    answer = page.request.post("/api/jobs/import", data=write_job(SAMPLE))
    return f"/jobs/{answer.json()['found']['job_id']}"


@pytest.fixture
def house(page: Page) -> str:
    """A fresh copy of the sample with all its planes; its place in the app."""
    answer = page.request.post("/api/jobs/import", data=write_job(FULL))
    return f"/jobs/{answer.json()['found']['job_id']}"


@pytest.fixture
def axe() -> str:
    return (Path(__file__).parents[2] / "frontend/node_modules/axe-core/axe.min.js").read_text(
        "utf-8"
    )
