"""Whatever is sent, typed or imported: no answer of 500, and every job opens afterwards.

What once did damage stands here as data; others of its class are drawn.
"""

import json
import random
import threading
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from equipment_rows import INVERTER, MICRO, MODULE, MOUNTING, OPTIMIZER, table
from extremes import edits_of
from jobs import EPOCH, FULL, SAMPLE, SHELF, workspace_in
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.edits.survey.planes import RenamePlane
from ridge_tally.core.job.edits.survey.surroundings import AddShade, SetShadeField, ShadeField
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import ShadeKind
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.blank_job import blank_job
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.apply import apply_edits
from ridge_tally.formats.equipment_fields import COLUMNS, SheetKind
from ridge_tally.formats.job_file import read_job, write_job
from ridge_tally.services import jobs
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.database import transaction
from ridge_tally.store.equipment import keep_documents
from ridge_tally.store.jobs import NewRevision, add_revision, list_jobs
from ridge_tally.web.app import create_app

MICRO_CHOICE = {
    "kind": "choose-electronics", "option_id": "a", "architecture": "microinverters",
    "unit_id": SHELF.microinverters[0].id,
}  # fmt: skip
HUGE = "9" * 310


class Office:
    """The app on a data folder, asked as a page asks it."""

    def __init__(self, folder: Path) -> None:
        self.workspace: Workspace = workspace_in(folder)
        self.client: FlaskClient = create_app(self.workspace).test_client()

    def store(self, job: Job) -> str:
        return jobs.store_job(self.workspace, job, "test", "tests").job_id

    def edit(self, job_id: str, body: object):
        parent = self.client.get(f"/api/jobs/{job_id}").json["found"]["revision"]
        # Sent as text: what is no number of JSON's and half a character travel too.
        text = json.dumps({"parent": parent, "author": "tab", "edit": body})
        return self.client.post(
            f"/api/jobs/{job_id}/edits", data=text, content_type="application/json"
        )

    def opens(self, job_id: str) -> dict:
        state = self.client.get(f"/api/jobs/{job_id}").json["found"]
        assert state["problem"] == ""
        assert state["brief"] is not None
        assert state["survey"] is not None
        assert len(state["reports"]) == len(state["job"]["options"])
        return state


@pytest.fixture
def office(tmp_path: Path) -> Office:
    return Office(tmp_path)


def bare() -> Job:
    return blank_job(SHELF, "Bare", LengthUnit.METRE, EPOCH.date())


REMOVE_ALL = {
    "kind": "remove-modules",
    "option_id": "a",
    "module_ids": list(present_ids(SAMPLE.options[0])),
}
DAMAGE = {
    "microinverters for a job without modules": ("bare", [MICRO_CHOICE]),
    "the last module taken from under microinverters": ("sample", [MICRO_CHOICE, REMOVE_ALL]),
    "a corner set on another": ("sample", [{"kind": "move-corner", "plane_id": "south", "corner": 1, "x_m": 0.0, "y_m": 0.0}]),
    "a sketch as wide as numbers go": ("sample", [{"kind": "sketch-outline", "plane_id": "south", "corners": [{"x_m": x, "y_m": y} for x, y in ((-1e308, 1e7), (0.0, 1.0), (1e7, 2.0))]}]),
    "modules laid past all sites": ("kiln", [{"kind": "lay-modules", "option_id": "a", "plane_id": "yard", "places": [{"x_m": 1e308, "y_m": 1e308, "orientation": "L"}]}]),
    "bills after the last year there is": ("bare", [{"kind": "lay-out-bills", "first_day": "9999-12-31"}]),
    "a temperature over two lines": ("sample", [{"kind": "set-site-field", "field": "coldest", "typed": "5\n6"}]),
    "a length of 310 digits": ("sample", [{"kind": "set-plane-field", "plane_id": "south", "field": "eave_height", "typed": f"{HUGE}m"}]),
    "a fraction of 310 digits": ("sample", [{"kind": "set-plane-field", "plane_id": "south", "field": "eave_height", "typed": f"3' {HUGE}/7\""}]),
    "half a character": ("sample", [{"kind": "rename-job", "name": "Roof \ud800"}]),
    "a zero byte": ("sample", [{"kind": "rename-plane", "plane_id": "south", "name": "So\x00uth"}]),
    "a count past the database's": ("sample", [{"kind": "wish-series-length", "option_id": "a", "modules_in_series": 10**30}]),
}  # fmt: skip


@pytest.mark.parametrize("what", DAMAGE)
def test_what_did_damage_once_does_none(office: Office, what: str) -> None:
    start, steps = DAMAGE[what]
    made = {
        "bare": bare,
        "sample": lambda: SAMPLE,
        "kiln": lambda: kiln_yard(SHELF),
    }
    job_id = office.store(made[start]())
    for step in steps:
        answer = office.edit(job_id, step)
        assert answer.status_code in {200, 422}, answer.json
        if answer.status_code == 422:
            assert len(answer.json["message"]) > 20
        office.opens(job_id)


@pytest.mark.parametrize(
    ("address", "body"),
    [
        ("/api/jobs", "[" * 100_000 + "]" * 100_000),
        ("/api/jobs/bare/undo", '{"from_revision": 99999999999999999999999}'),
        ("/api/jobs/bare/undo", '{"from_revision": ' + "9" * 6000 + "}"),
        ("/api/jobs", '{"name": "\\ud800", "unit": "m"}'),
        ("/api/jobs", json.dumps({"name": "x" * 100_000, "unit": "m"})),
    ],
)
def test_a_body_no_page_sends_is_refused_in_words(office: Office, address: str, body: str) -> None:
    office.store(bare())
    answer = office.client.post(address, data=body, content_type="application/json")
    assert answer.status_code in {400, 422}
    assert answer.json["message"]


def test_a_revision_past_the_database_s_range_is_not_there(office: Office) -> None:
    office.store(bare())
    address = f"/api/jobs/bare/revisions/{10**25}/options/a/year"
    assert office.client.get(address).status_code in {404, 422}


@pytest.fixture(scope="module")
def long_office(tmp_path_factory: pytest.TempPathFactory) -> Office:
    return Office(tmp_path_factory.mktemp("office"))


STARTS = (
    "bare",
    "bare with microinverters",
    "sample",
    "sample without modules",
    "full",
    "kiln",
    "lagoon",
)


@pytest.fixture(scope="module")
def starts(long_office: Office) -> dict[str, Job]:
    """Jobs to do damage to, some with hardly anything in them."""

    def edited(job: Job, *steps: dict) -> Job:
        job_id = long_office.store(job)
        for step in steps:
            assert long_office.edit(job_id, step).status_code == 200
        return jobs.load_job(long_office.workspace, job_id)

    blank = bare()
    return {
        "bare": blank,
        "bare with microinverters": edited(blank, MICRO_CHOICE),
        "sample": SAMPLE,
        "sample without modules": edited(SAMPLE, REMOVE_ALL),
        "full": FULL,
        "kiln": kiln_yard(SHELF),
        "lagoon": lagoon_road(SHELF),
    }


@settings(max_examples=20, suppress_health_check=list(HealthCheck))
@given(st.data(), st.sampled_from(STARTS))
def test_edits_of_every_kind_and_any_value_leave_a_job_that_opens(
    long_office: Office, starts: dict[str, Job], data: st.DataObject, start: str
) -> None:
    job = starts[start]
    job_id = long_office.store(job)
    for _ in range(6):
        body = data.draw(edits_of(job, SHELF))
        answer = long_office.edit(job_id, body)
        assert answer.status_code in {200, 400, 404, 422}, answer.json
        if answer.status_code == 200:
            assert answer.json["found"]["problem"] == ""
            job = jobs.load_job(long_office.workspace, job_id)
            assert read_job(write_job(job)) == job
        else:
            assert answer.json["message"]


def leaves(value: object, path: tuple = ()) -> list[tuple]:
    """The places of everything that is no list and no object, by keys and indices."""
    if isinstance(value, dict):
        return [p for k, v in value.items() for p in leaves(v, (*path, k))]
    if isinstance(value, list):
        return [p for i, v in enumerate(value) for p in leaves(v, (*path, i))]
    return [path]


def changed(text: str, path: tuple, value: object) -> bytes:
    document = json.loads(text)
    at = document
    for step in path[:-1]:
        at = at[step]
    at[path[-1]] = value
    return json.dumps(document).encode()


LAGOON = write_job(lagoon_road(SHELF))
# One of each kind of place: what a list holds is alike.
PLACES = list(
    {
        tuple(p for p in path if isinstance(p, str)): path for path in leaves(json.loads(LAGOON))
    }.values()
)
REFERENCES = [
    p for p in PLACES
    if str(next(s for s in reversed(p) if isinstance(s, str))).endswith(("_id", "_ids", "planes", "fitted"))
    or p[-1] == "id"
]  # fmt: skip


def imported(office: Office, content: bytes) -> None:
    """Import a file: refused with its place, or a job that opens; its year is worked out or not."""
    answer = office.client.post("/api/jobs/import", data=content)
    assert answer.status_code in {201, 422}, answer.json
    if answer.status_code == 422:
        assert len(answer.json["message"]) > 20
        return
    state = office.opens(answer.json["found"]["job_id"])
    at = f"/api/jobs/{state['job_id']}/revisions/1/options/a"
    for what in ("year", "target"):
        assert office.client.get(f"{at}/{what}").status_code in {200, 404, 422}, what


@pytest.mark.parametrize("path", REFERENCES, ids=lambda p: ".".join(map(str, p)))
def test_a_reference_to_nothing_is_refused_or_does_no_harm(
    long_office: Office, path: tuple
) -> None:
    imported(long_office, changed(LAGOON, path, "nobody"))


EXTREME = (
    1e308,
    -1e308,
    1e-320,
    10**30,
    -(2**63) - 1,
    -1,
    0,
    "",
    "9" * 310,
    "\n",
    None,
    [],
    {},
    True,
)


@settings(max_examples=60, suppress_health_check=list(HealthCheck))
@given(st.sampled_from(PLACES), st.sampled_from(EXTREME))
def test_a_job_file_with_any_value_anywhere_is_refused_or_opens(
    long_office: Office, path: tuple, value: object
) -> None:
    imported(long_office, changed(LAGOON, path, value))


def test_a_tree_and_a_house_of_one_name_are_two(office: Office) -> None:
    """What shades is told apart by its id: a name is anybody's."""
    steps = [
        step
        for kind in (ShadeKind.TREE, ShadeKind.HOUSE, ShadeKind.POLE)
        for step in (AddShade(kind, SitePoint(4.0, -9.0 if kind is ShadeKind.TREE else 14.0)),)
    ]
    job = apply_edits(SAMPLE, steps, SHELF)
    renames = [SetShadeField(s.id, ShadeField.NAME, "Old oak") for s in job.survey.shade_sources]
    job = apply_edits(job, [*renames, RenamePlane("south", "Old oak")], SHELF)
    job_id = office.store(job)
    at = f"/api/jobs/{job_id}/revisions/1/options/a"
    assert office.client.get(f"{at}/year").status_code == 200
    shade = office.client.get(f"{at}/shade").json["found"]
    named = [c for c in shade["culprits"] if c["name"] == "Old oak"]
    assert len(named) >= 2
    assert len({c["shade_id"] for c in named}) == len(named)


ROWS = {
    SheetKind.MODULE: MODULE,
    SheetKind.INVERTER: INVERTER,
    SheetKind.OPTIMIZER: OPTIMIZER,
    SheetKind.MICROINVERTER: MICRO,
    SheetKind.MOUNTING: MOUNTING,
}
FIGURES = (
    HUGE,
    "1e308",
    "-1",
    "0",
    "0.0000001",
    "nan",
    "inf",
    "1e-320",
    "9" * 15,
    "x" * 400,
    "½",
    "-98 mV/K",
    "5\n6",
)


@pytest.mark.parametrize("kind", list(SheetKind))
def test_a_row_of_equipment_with_any_figure_leaves_the_shelf_whole(
    office: Office, kind: SheetKind
) -> None:
    office.store(SAMPLE)
    rows = [
        {**ROWS[kind], "name": f"Row {c.name} {i}", c.name: figure}
        for c in COLUMNS[kind]
        for i, figure in enumerate(FIGURES)
        if c.name != "name" and "\n" not in figure
    ]
    taken = office.client.post("/api/equipment/file", data=_of_kind(kind, rows).encode())
    assert taken.status_code == 200
    told = taken.json["found"]
    assert told["added"] + told["left_out"] == len(rows)
    assert told["left_out"] > len(rows) / 4
    page = office.client.get(f"/api/equipment/{kind.value}")
    assert page.status_code == 200
    assert page.json["found"]["left_out"] == []
    office.opens("juniper-bench")
    for sheet in random.Random(1).sample(
        office.workspace.desk.shelf.of_kind(kind.value)[-told["added"] :], 5
    ):
        assert (
            office.client.get(f"/api/equipment/{kind.value}/sheets/{sheet.id}").status_code == 200
        )


def _of_kind(kind: SheetKind, rows: list[dict[str, str]]) -> str:
    head, *lines = table(*rows, kind=kind).splitlines()
    return "\n".join((f"kind,{head}", *(f"{kind.value},{line}" for line in lines)))


@pytest.mark.parametrize(
    "document", ["{}", "no json", '{"id": "own-bad", "name": "Bad"}', json.dumps({"voc_v": 1e308})]
)
def test_a_row_that_went_bad_is_left_out_by_name(office: Office, document: str) -> None:
    office.store(SAMPLE)
    with transaction(office.workspace.sessions) as session:
        keep_documents(session, [("module", "own-bad", document)], office.workspace.clock())
    again = Office(office.workspace.pictures.parent)
    page = again.client.get("/api/equipment/inverter").json["found"]
    assert [(row["kind"], row["id"]) for row in page["left_out"]] == [("module", "own-bad")]
    again.opens("juniper-bench")
    assert again.client.delete("/api/equipment/module/sheets/own-bad").status_code == 200
    assert again.client.get("/api/equipment/module").json["found"]["left_out"] == []


def test_a_job_that_cannot_be_worked_out_opens_says_so_and_is_undone(office: Office) -> None:
    job_id = office.store(SAMPLE)
    # As an earlier program, or a hand in the database, may have left it.
    broken = write_job(SAMPLE).replace('"module_id": "sample-405"', '"module_id": "gone"')
    new = NewRevision(broken, SAMPLE.name, "a slip", "tests", office.workspace.clock())
    with transaction(office.workspace.sessions) as session:
        add_revision(session, job_id, 1, new)
    state = office.client.get(f"/api/jobs/{job_id}").json["found"]
    assert "There is no module datasheet “gone”" in state["problem"]
    assert state["reports"] == []
    assert state["survey"] is not None
    # It can be copied and taken along, and what does not mend it is told, not refused.
    assert office.client.post(f"/api/jobs/{job_id}/duplicate").status_code == 201
    assert office.client.get(f"/api/jobs/{job_id}/file").status_code == 200
    back = office.client.post(f"/api/jobs/{job_id}/undo", json={"from_revision": 2})
    assert back.status_code == 200
    office.opens(job_id)


def test_twenty_tabs_that_save_at_once_lose_nothing(office: Office) -> None:
    job_id, tabs = office.store(SAMPLE), 20
    answers: dict[int, tuple[int, dict]] = {}
    together, app = threading.Barrier(tabs), create_app(office.workspace)

    def save(tab: int) -> None:
        body = {"kind": "rename-option", "option_id": "a", "name": f"from tab {tab}"}
        client = app.test_client()
        together.wait()
        answer = client.post(
            f"/api/jobs/{job_id}/edits", json={"parent": 1, "author": f"tab {tab}", "edit": body}
        )
        answers[tab] = answer.status_code, answer.json

    threads = [threading.Thread(target=save, args=(tab,)) for tab in range(tabs)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(status for status, _ in answers.values()) == [200] + [409] * (tabs - 1)
    with transaction(office.workspace.sessions) as session:
        ids = [entry.id for entry in list_jobs(session)]
    assert len(ids) == tabs
    kept = {jobs.load_job(office.workspace, i).options[0].name for i in ids}
    assert kept == {f"from tab {tab}" for tab in range(tabs)}
    for status, answer in answers.values():
        assert status == 200 or answer["kept_job_id"] in ids


def test_jobs_of_one_name_made_at_once_are_all_there(office: Office) -> None:
    statuses: list[int] = []
    together, app = threading.Barrier(12), create_app(office.workspace)

    def make() -> None:
        client = app.test_client()
        together.wait()
        statuses.append(client.post("/api/jobs", json={"name": "Roof", "unit": "m"}).status_code)

    threads = [threading.Thread(target=make) for _ in range(12)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert statuses == [201] * 12
    assert len(office.client.get("/api/jobs").json["jobs"]) == 12
