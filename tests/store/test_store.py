"""The store on a real database: conflicts, undo, full disk, killed server."""

import os
import signal
import sqlite3
import subprocess
import sys
import threading
from pathlib import Path

import pytest
from sqlalchemy import text

from jobs import EPOCH
from ridge_tally.core.errors import Conflict, NotFound, StorageFailed
from ridge_tally.store import jobs as store
from ridge_tally.store.database import FILE_NAME, open_database, transaction
from ridge_tally.store.jobs import NewRevision


def new(document: str = "{}", name: str = "Roof") -> NewRevision:
    return NewRevision(document, name, "test", "tests", EPOCH)


@pytest.fixture
def sessions(tmp_path: Path):
    return open_database(tmp_path)


def add(sessions, name: str = "Roof") -> str:
    with transaction(sessions) as session:
        return store.add_job(session, new(name=name)).job_id


def test_ids_are_readable_and_never_collide(sessions) -> None:
    assert [add(sessions, "Lagoon Road") for _ in range(3)] == [
        "lagoon-road",
        "lagoon-road-2",
        "lagoon-road-3",
    ]
    assert add(sessions, "屋根") == "job"


def test_a_stale_save_is_a_conflict_and_changes_nothing(sessions) -> None:
    job_id = add(sessions)
    with transaction(sessions) as session:
        store.add_revision(session, job_id, 1, new("first"))
    with (
        pytest.raises(Conflict, match="had revision 1, the newest is 2"),
        transaction(sessions) as session,
    ):
        store.add_revision(session, job_id, 1, new("late"))
    with transaction(sessions) as session:
        assert store.head_of(session, job_id).document == "first"


def test_of_many_saves_from_one_revision_exactly_one_wins(sessions) -> None:
    job_id = add(sessions)
    outcomes: list[str] = []

    def save(number: int) -> None:
        try:
            with transaction(sessions) as session:
                store.add_revision(session, job_id, 1, new(f"{number}"))
            outcomes.append("saved")
        except Conflict:
            outcomes.append("conflict")

    threads = [threading.Thread(target=save, args=(i,)) for i in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(outcomes) == ["conflict"] * 7 + ["saved"]


def test_undo_and_redo_walk_the_revisions_and_a_new_edit_branches(sessions) -> None:
    job_id = add(sessions)
    with transaction(sessions) as session:
        store.add_revision(session, job_id, 1, new("two"))
        store.add_revision(session, job_id, 2, new("three"))
        assert store.step_back(session, job_id, 3).document == "two"
        assert store.step_back(session, job_id, 2).document == "{}"
        assert store.step_forward(session, job_id, 1).document == "two"
        assert store.add_revision(session, job_id, 2, new("other three")).number == 4
        assert store.step_back(session, job_id, 4).document == "two"
        # Redo takes the newest branch; the older one is still stored.
        assert store.step_forward(session, job_id, 2).document == "other three"
        assert store.revision_of(session, job_id, 3).document == "three"


def test_undo_past_the_beginning_and_from_a_stale_page_are_refused(sessions) -> None:
    job_id = add(sessions)
    with transaction(sessions) as session:
        with pytest.raises(NotFound):
            store.step_back(session, job_id, 1)
        with pytest.raises(Conflict):
            store.step_back(session, job_id, 7)


def test_a_deleted_job_is_off_the_list_until_it_is_restored(sessions) -> None:
    job_id = add(sessions)
    with transaction(sessions) as session:
        store.set_deleted(session, job_id, EPOCH)
        assert store.list_jobs(session) == ()
        with pytest.raises(NotFound):
            store.head_of(session, job_id)
        store.set_deleted(session, job_id, None)
        assert [j.id for j in store.list_jobs(session)] == [job_id]


def test_times_come_back_in_utc(sessions) -> None:
    add(sessions)
    with transaction(sessions) as session:
        assert store.list_jobs(session)[0].saved_at == EPOCH


def test_a_full_disk_is_told_and_leaves_the_last_save_whole(tmp_path: Path, sessions) -> None:
    job_id = add(sessions)

    def save_on_a_full_disk() -> None:
        with transaction(sessions) as session:
            pages = session.execute(text("PRAGMA page_count")).scalar_one()
            session.execute(text(f"PRAGMA max_page_count = {pages + 2}"))
            store.add_revision(session, job_id, 1, new("x" * 500_000))

    with pytest.raises(StorageFailed, match="full"):
        save_on_a_full_disk()
    with transaction(sessions) as session:
        assert store.head_of(session, job_id).number == 1
    with sqlite3.connect(tmp_path / FILE_NAME) as plain:
        assert plain.execute("PRAGMA integrity_check").fetchone() == ("ok",)


def test_a_file_that_is_no_database_is_told(tmp_path: Path) -> None:
    (tmp_path / FILE_NAME).write_bytes(b"this is not a database, it is a shopping list" * 40)
    with pytest.raises(StorageFailed, match="did not open"):
        open_database(tmp_path)


def test_a_folder_that_cannot_be_made_is_told(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("")
    with pytest.raises(StorageFailed, match="cannot be made"):
        open_database(tmp_path / "file" / "data")


WRITER = """
import sys
from datetime import UTC, datetime
from pathlib import Path
from ridge_tally.store import jobs as store
from ridge_tally.store.database import open_database, transaction
from ridge_tally.store.jobs import NewRevision
sessions = open_database(Path(sys.argv[1]))
def new(n): return NewRevision(f"{n}:" + "x" * 20000, "Roof", "t", "t", datetime.now(UTC))
with transaction(sessions) as session:
    job_id = store.add_job(session, new(1)).job_id
number = 1
while True:
    with transaction(sessions) as session:
        number = store.add_revision(session, job_id, number, new(number + 1)).number
    print(number, flush=True)
"""


def test_a_killed_server_loses_nothing_that_was_answered(tmp_path: Path) -> None:
    process = subprocess.Popen(
        [sys.executable, "-c", WRITER, str(tmp_path)],
        stdout=subprocess.PIPE,
        text=True,
        env={**os.environ, "PYTHONPATH": str(Path(__file__).parents[2] / "src")},
    )
    assert process.stdout is not None
    for _ in range(20):
        process.stdout.readline()
    process.send_signal(signal.SIGKILL)
    answered = [20, *(int(line) for line in process.stdout if line.strip().isdigit())][-1]
    process.wait()
    with transaction(open_database(tmp_path)) as session:
        head = store.head_of(session, "roof")
    assert head.number >= answered
    assert head.document == f"{head.number}:" + "x" * 20000
