"""The frame's speed: first paint, going from step to step, an edit's way to the Tally; alone and
with years of other jobs worked out beside it."""

import re
import statistics
import threading
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import APIRequestContext, Page

from jobs import FULL
from ridge_tally.formats.job_file import write_job

TOGGLES = 100
# A person clicks module after module no faster; each pause lets the page ask for its year.
PERSON_S = 0.5
# So many additions in a loop take a desktop machine about so long: from experience, no source.
LOOP, DESKTOP_S = 2_000_000, 0.1
PAINTS = 20
MOVES = 40
STEPS = ("survey", "array", "sun", "strings", "loading", "sheets", "brief")
TOGGLE_AND_WAIT = """
async (name) => {
  const box = [...document.querySelectorAll('[role=checkbox]')].find((e) => e.ariaLabel === name);
  const before = box.getAttribute('aria-checked');
  const start = performance.now();
  box.dispatchEvent(new MouseEvent('click', { bubbles: true }));
  while (box.getAttribute('aria-checked') === before) await new Promise((r) => setTimeout(r, 1));
  return performance.now() - start;
}
"""
# From the press to the frame in which the other step's screen stands there.
GO_AND_WAIT = """
async (step) => {
  const frame = () => new Promise(requestAnimationFrame);
  const start = performance.now();
  document.querySelector(`nav[aria-label=Steps] a[href$="/${step}"]`).click();
  const work = document.getElementById('work');
  while (!location.pathname.endsWith(`/${step}`) || work.textContent.includes('Opening ')) await frame();
  await frame();
  return performance.now() - start;
}
"""
# From the arrow's press to the mount drawn on its next support.
MOVE_AND_WAIT = """
async ([key, from, to]) => {
  const named = (words) =>
    [...document.querySelectorAll('#work [role=button]')].find(
      (e) => e.ariaLabel?.startsWith('Mount') && e.ariaLabel.includes(words),
    );
  const held = named(from);
  const start = performance.now();
  held.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  while (!named(`${to},`)?.ariaLabel.includes('held in place')) await new Promise((r) => setTimeout(r, 1));
  return performance.now() - start;
}
"""
# What this machine adds to anything that waits for a timer and a frame, with nothing else to do.
AT_REST = """
async () => {
  const start = performance.now();
  await new Promise((r) => setTimeout(r, 20));
  await new Promise(requestAnimationFrame);
  return performance.now() - start - 20;
}
"""
# The first frame in which the drawing stands there, from the start of the navigation.
PAINTED = """
async () => {
  while (!document.querySelector('#work svg [data-stop]')) await new Promise(requestAnimationFrame);
  return performance.now();
}
"""


def _p95_ms(taken: list[float]) -> float:
    return statistics.quantiles(taken, n=20)[18]


def _p95(taken: list[float]) -> str:
    return f"median {statistics.median(taken):.0f} ms, 95th percentile {_p95_ms(taken):.0f} ms"


def _pace() -> float:
    """Return how many times longer than a desktop machine this one takes over plain Python now."""
    taken = []
    for _ in range(9):
        start, total = time.perf_counter(), 0
        for n in range(LOOP // 10):
            total += n
        taken.append((time.perf_counter() - start) * 10)
    return statistics.median(taken) / DESKTOP_S


def _aimed(taken: list[float], pace: float) -> str:
    """Return figures as they are, and as a machine of a desktop's pace would have them."""
    aimed = f"at a desktop's pace {_p95_ms(taken) / pace:.0f} ms (aim under 100 ms)"
    return f"{_p95(taken)}; {aimed}"


@contextmanager
def _years_beside(request: APIRequestContext, address: str) -> Iterator[None]:
    """Work out one year after another of a job of its own, as a colleague's edits would."""
    made = request.post(f"{address}/api/jobs/import", data=write_job(FULL)).json()
    job_id = made["found"]["job_id"]
    ended = threading.Event()

    def work() -> None:
        turn = 0
        base = f"{address}/api/jobs/{job_id}"
        while not ended.is_set():
            turn += 1
            body = (
                f'{{"parent": {turn}, "author": "beside", "edit": {{"kind": "toggle-modules", '
                f'"option_id": "a", "module_ids": ["south-{1 + turn % 9}"]}}}}'
            )
            headers = {"Content-Type": "application/json"}
            edit = urllib.request.Request(f"{base}/edits", body.encode(), headers)
            revision = turn + 1
            with urllib.request.urlopen(edit) as answer:
                answer.read()
            with urllib.request.urlopen(f"{base}/revisions/{revision}/options/a/year") as answer:
                answer.read()

    thread = threading.Thread(target=work, daemon=True)
    thread.start()
    try:
        yield
    finally:
        ended.set()
        thread.join()


def _measured(page: Page, address: str, name: str) -> None:
    paints = []
    for _ in range(PAINTS):
        page.goto(f"{address}/jobs/juniper-bench/a/survey", wait_until="commit")
        paints.append(float(page.evaluate(PAINTED)))
    visit, *again = paints
    print(f"{name}, first useful paint of a job: {_p95(again)} (aim under 1000 ms)")
    print(f"{name}, of the browser's first visit: {visit:.0f} ms")
    page.get_by_text("To the meter", exact=True).wait_for()
    # Each screen's script is fetched once.
    for step in STEPS:
        page.evaluate(GO_AND_WAIT, step)
    gone = [float(page.evaluate(GO_AND_WAIT, step)) for _ in range(3) for step in STEPS]
    print(f"{name}, from step to step: {_p95(gone)} (aim under 150 ms)")
    still = [float(page.evaluate(AT_REST)) for _ in range(TOGGLES)]
    print(f"{name}, a frame at rest is late by: {_p95(still)}")
    page.evaluate(GO_AND_WAIT, "array")
    page.get_by_role("checkbox", name="Module 1", exact=True).wait_for()
    for pace, pause_s in (("at a person's pace", PERSON_S), ("without a pause", 0.0)):
        edits, before = [], _pace()
        for turn in range(TOGGLES):
            edits.append(float(page.evaluate(TOGGLE_AND_WAIT, f"Module {1 + turn % 28}")))
            time.sleep(pause_s)
        slow = (before + _pace()) / 2
        print(f"{name}, {pace}, this machine takes {slow:.1f} times as long as a desktop")
        print(f"{name}, {pace}, click to checks in the Tally: {_aimed(edits, slow)}")

    _mounts_moved(page, address, name)


def _mounts_moved(page: Page, address: str, name: str) -> None:
    """Move one mount to and fro between two rafters, at a person's pace."""
    page.goto(f"{address}/jobs/juniper-bench/a/build")
    mount = page.get_by_role("button", name=re.compile("^Mount .*rail B, rafter 5")).first
    mount.wait_for()
    moves = []
    for turn in range(MOVES):
        there, back = ("rail B, rafter 5", "rail B, rafter 6")
        ways = ("ArrowRight", there, back) if turn % 2 == 0 else ("ArrowLeft", back, there)
        held = page.get_by_role("button", name=re.compile(f"^Mount .*{ways[1]},")).first
        held.focus()
        held.press("Enter")
        moves.append(float(page.evaluate(MOVE_AND_WAIT, list(ways))))
        page.keyboard.press("Escape")
        time.sleep(PERSON_S)
    print(f"{name}, arrow to the mount on the drawing: {_p95(moves)} (aim under 100 ms)")


def in_browser(page: Page, address: str) -> None:
    """Print each figure twice."""
    _measured(page, address, "alone")
    with _years_beside(page.request, address):
        _measured(page, address, "with years beside")
