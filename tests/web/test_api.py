"""Routes through the test client: statuses, messages, guards."""

import zipfile
from importlib.resources import files
from io import BytesIO
from pathlib import Path
from time import sleep

import pytest
from flask.testing import FlaskClient
from fpdf import FPDF
from PIL import Image
from pypdf import PdfReader

from equipment_rows import MODULE
from jobs import SAMPLE, warm_workspace_in, workspace_in
from meter_files import power_csv, use_csv
from ridge_tally.formats.job_file import write_job
from ridge_tally.services import jobs
from ridge_tally.web.app import create_app

JOB = "/api/jobs/juniper-bench"
OPTION = f"{JOB}/revisions/1/options/a"


@pytest.fixture
def client(tmp_path: Path) -> FlaskClient:
    workspace = warm_workspace_in(tmp_path)
    jobs.store_job(workspace, SAMPLE, "sample", "tests")
    return create_app(workspace).test_client()


@pytest.fixture
def cold(tmp_path: Path) -> FlaskClient:
    """One that remembers nothing: files kept beside its jobs are not in what answers go by."""
    workspace = workspace_in(tmp_path)
    jobs.store_job(workspace, SAMPLE, "sample", "tests")
    return create_app(workspace).test_client()


def edit(client: FlaskClient, body: dict, parent: int = 1):
    return client.post(f"{JOB}/edits", json={"parent": parent, "author": "tab", "edit": body})


def test_jobs_are_listed_created_opened_copied_deleted_and_restored(client: FlaskClient) -> None:
    made = client.post("/api/jobs", json={"name": "Kiln Yard", "unit": "m"})
    assert (made.status_code, made.json["found"]["job_id"]) == (201, "kiln-yard")
    assert [j["id"] for j in client.get("/api/jobs").json["jobs"]] == ["kiln-yard", "juniper-bench"]
    assert client.post(f"{JOB}/duplicate").json["found"]["job"]["name"] == "Juniper Bench (copy)"
    assert client.delete("/api/jobs/kiln-yard").status_code == 200
    assert client.get("/api/jobs/kiln-yard").status_code == 404
    assert client.post("/api/jobs/kiln-yard/restore").status_code == 200


def test_an_edit_answers_with_revision_and_checks(client: FlaskClient) -> None:
    answer = edit(client, {"kind": "wish-series-length", "option_id": "a", "modules_in_series": 15})
    state = answer.json["found"]
    assert (answer.status_code, state["revision"]) == (200, 2)
    assert state["reports"][0]["checks"][0]["check"]["verdict"] == "broken"
    assert client.post(f"{JOB}/undo", json={"from_revision": 2}).json["found"]["revision"] == 1
    assert client.post(f"{JOB}/redo", json={"from_revision": 1}).json["found"]["revision"] == 2


def test_a_stale_edit_is_409_and_names_the_job_it_was_kept_as(client: FlaskClient) -> None:
    edit(client, {"kind": "rename-job", "name": "One"})
    late = edit(client, {"kind": "rename-job", "name": "Two"})
    assert late.status_code == 409
    assert late.json["code"] == "save.conflict"
    assert (
        client.get(f"/api/jobs/{late.json['kept_job_id']}")
        .json["found"]["job"]["name"]
        .startswith("Two")
    )


@pytest.mark.parametrize(
    ("body", "says"),
    [
        (
            {"kind": "set-plane-field", "plane_id": "south", "field": "slope", "typed": "95"},
            "reads 95",
        ),
        (
            {
                "kind": "set-reading",
                "plane_id": "south",
                "reading": "side",
                "at": [0],
                "typed": "x",
            },
            "“x” was not understood",
        ),
        (
            {"kind": "set-plane-field", "plane_id": "south", "field": "chimney", "typed": "1"},
            "chimney",
        ),
        ({"kind": "no-such-edit"}, "no-such-edit"),
        ({"kind": "rename-job", "name": "x", "more": 1}, "more"),
        (
            {
                "kind": "move-obstruction",
                "plane_id": "south",
                "obstruction_id": "o1",
                "left_m": "far",
                "bottom_m": 1,
            },
            "'far'",
        ),
    ],
)
def test_bad_input_is_422_with_field_and_value(client: FlaskClient, body: dict, says: str) -> None:
    answer = edit(client, body)
    assert answer.status_code == 422
    assert says in answer.json["message"]
    assert client.get(JOB).json["found"]["revision"] == 1


def test_malformed_json_is_400_in_our_own_shape(client: FlaskClient) -> None:
    answer = client.post("/api/jobs", data=b"{", content_type="application/json")
    assert answer.status_code == 400
    assert set(answer.json) == {"code", "message", "field", "kept_job_id"}


def test_year_alternatives_sheet_and_file(client: FlaskClient) -> None:
    year = client.get(f"{OPTION}/year").json["found"]
    assert len(year["days"][0]["ac_kw"]) == 24
    found = client.get(f"{OPTION}/planes/south/alternatives").json["found"]
    assert [(a["ways"], a["count"], a["in_use"]) for a in found] == [
        ("PL", 29, False),
        ("P", 28, True),
        ("L", 27, False),
    ]
    sheet = client.get(f"{OPTION}/sheet.pdf")
    assert sheet.data.startswith(b"%PDF")
    file = client.get(f"{JOB}/file")
    assert file.get_data(as_text=True) == write_job(SAMPLE)
    assert "juniper-bench.ridgetally.json" in file.headers["Content-Disposition"]
    back = client.post("/api/jobs/import", data=file.data, headers={"X-File-Name": "j.json"})
    assert back.status_code == 201


@pytest.mark.parametrize(
    "address",
    [f"{OPTION}x/year", f"{JOB}/revisions/9/options/a/year", "/api/nothing", f"{JOB}?revision=9"],
)
def test_what_is_not_there_is_404_in_our_own_shape(client: FlaskClient, address: str) -> None:
    answer = client.get(address)
    assert answer.status_code == 404
    assert answer.json["message"]


def test_a_bad_import_is_422_and_names_the_file(client: FlaskClient) -> None:
    answer = client.post("/api/jobs/import", data=b"hello", headers={"X-File-Name": "roof.json"})
    assert answer.status_code == 422
    assert answer.json["message"].startswith("roof.json")


def test_too_large_a_file_is_refused(client: FlaskClient) -> None:
    answer = client.post("/api/jobs/import", data=b"x" * (65 * 1024 * 1024))
    assert answer.status_code == 413
    assert "64 MB" in answer.json["message"]


def test_foreign_hosts_and_origins_are_refused(client: FlaskClient) -> None:
    assert client.get("/api/jobs", headers={"Host": "evil.example"}).status_code == 400
    foreign = {"Origin": "http://evil.example", "Host": "localhost"}
    assert (
        client.post("/api/jobs", json={"name": "x", "unit": "m"}, headers=foreign).status_code
        == 403
    )


def test_the_shelf_holds_the_samples_plainly_named(client: FlaskClient) -> None:
    shelf = client.get("/api/shelf").json
    assert (len(shelf["modules"]), len(shelf["inverters"])) == (24, 40)
    assert all(m["name"].startswith("Sample") for m in [*shelf["modules"], *shelf["inverters"]])
    powers = [i["p_ac_w"] for i in shelf["inverters"]]
    assert (min(powers), max(powers)) == (2500, 15000)
    assert {len(i["trackers"]) for i in shelf["inverters"]} == {1, 2, 3, 4, 5, 6}


def test_places_are_found_and_the_target_and_its_sheet_answered(client: FlaskClient) -> None:
    places = client.get("/api/places?typed=santa fe").json["found"]
    assert places[0]["title"].startswith("Santa Fe")
    target = client.get(f"{OPTION}/target").json["found"]
    assert (target["binding"], target["target_modules"]) == ("busbar", 33)
    pdf = client.get(f"{OPTION}/brief.pdf")
    assert (pdf.status_code, pdf.data[:5]) == (200, b"%PDF-")
    assert len(client.get("/api/shelf").json["grid_packs"]) == 4


def test_a_brief_edit_answers_with_the_bills_read(client: FlaskClient) -> None:
    body = {"kind": "set-bill", "bill_id": "bill1", "field": "cost", "typed": "842 kWh"}
    brief = edit(client, body).json["found"]["brief"]
    assert "kWh column" in brief["bills"][0]["problem"]
    assert brief["step"] == "look"
    refused = edit(client, {"kind": "set-coordinates", "typed": "0, 0"}, parent=2)
    assert refused.status_code == 422
    assert "open sea" in refused.json["message"]


def test_a_picture_is_kept_and_handed_out_under_its_hash(client: FlaskClient) -> None:
    drawn = BytesIO()
    Image.new("RGB", (40, 30), (90, 120, 60)).save(drawn, "JPEG")
    answer = client.post(
        "/api/pictures", data=drawn.getvalue(), headers={"X-File-Name": "moss%20roof.jpg"}
    )
    assert answer.status_code == 201
    picture = answer.json["found"]
    assert (picture["width_px"], picture["height_px"]) == (40, 30)
    shown = client.get(f"/api/pictures/{picture['sha256']}")
    assert (shown.status_code, shown.mimetype) == (200, "image/jpeg")
    assert "immutable" in shown.headers["Cache-Control"]
    assert shown.headers["X-Content-Type-Options"] == "nosniff"
    bad = client.post("/api/pictures", data=b"words", headers={"X-File-Name": "moss%20roof.jpg"})
    assert (bad.status_code, bad.json["code"]) == (422, "file.format")
    assert bad.json["message"].startswith("moss roof.jpg: this is no picture")
    assert client.get(f"/api/pictures/{'0' * 64}").status_code == 404
    assert client.get("/api/pictures/..%2Fridge-tally.db").status_code == 404


def test_the_scene_of_a_revision_is_told_apart_from_its_checks(client: FlaskClient) -> None:
    scene = client.get("/api/jobs/juniper-bench/revisions/1/scene").json["found"]
    assert {f["kind"] for f in scene["faces"]} >= {"roof", "wall", "obstruction"}
    assert {r["kind"] for r in scene["rounds"]} == {"crown", "post"}
    assert "scene" not in client.get("/api/jobs/juniper-bench").json["found"]["survey"]
    assert client.get("/api/jobs/juniper-bench/revisions/9/scene").status_code == 404


def test_weather_is_taken_in_used_and_told_and_a_broken_file_is_refused(
    cold: FlaskClient,
) -> None:
    address = f"{JOB}/revisions/1/weather"
    told = cold.get(address).json["found"]
    assert (told["stand_in"], len(told["months"])) == (True, 12)
    content = files("pvlib").joinpath("data", "723170TYA.CSV").read_bytes()
    sent = cold.post(address, data=content, headers={"X-File-Name": "typical%20year.csv"})
    assert sent.status_code == 201
    ref = sent.json["found"]["ref"]
    assert ref["file"] == "typical year.csv"
    far = edit(cold, {"kind": "use-weather-file", "file": ref})
    assert far.status_code == 422
    assert "km from this site" in far.json["message"]
    used = edit(cold, {"kind": "use-weather-file", "file": ref, "far_is_meant": True})
    assert used.status_code == 200
    assert not cold.get(f"{JOB}/revisions/2/weather").json["found"]["stand_in"]
    bad = cold.post(address, data=b"words", headers={"X-File-Name": "a.csv"})
    assert bad.status_code == 422
    assert "a.csv" in bad.json["message"]


def test_the_sun_s_answers_come_by_address(client: FlaskClient) -> None:
    day = client.get(f"{OPTION}/sun-day?day=171").json["found"]
    assert len(day["modules"]) == len(day["moments"][0]["lit_frac"]) == 28
    hours = client.get(f"{OPTION}/shade-hours?module_id=south-1").json["found"]
    assert [len(row) for row in hours["lost_frac"]] == [24] * 12
    assert client.get(f"{OPTION}/shade-hours?module_id=ghost").status_code == 404
    assert client.get(f"{OPTION}/worst-modules").json["found"]["module_ids"]
    paths = client.get(f"{OPTION}/planes/south/sun-paths?day=10").json["found"]
    assert paths["own_day"]["day"] == 10
    assert client.get(f"{OPTION}/sun-day?day=400").status_code == 422


def finished(client: FlaskClient, what: str) -> dict:
    """The answer of a study once it no longer runs."""
    while (answer := client.get(f"{OPTION}/{what}").json)["running"]:
        sleep(0.1)
    return answer


def test_ways_out_are_streamed_stopped_and_taken(client: FlaskClient) -> None:
    report = finished(client, "remedies")["found"]
    assert report["looked_at"] == report["of"] > 3
    taken = edit(client, report["remedies"][report["best"]]["edit"])
    assert taken.status_code == 200
    assert taken.json["found"]["undo"] == report["remedies"][report["best"]]["title"]
    assert client.delete(f"{OPTION}/studies/remedies").status_code == 200
    assert client.delete(f"{OPTION}/studies/nothing").status_code == 422
    assert client.get(f"{OPTION}/shared-trackers").json == {"found": []}


def test_the_house_its_files_and_options_side_by_side_come_by_address(cold: FlaskClient) -> None:
    alone = cold.get(f"{OPTION}/house").json["found"]
    assert alone["with_battery"] is None
    named = {"X-File-Name": "my%20meter.csv"}
    sent = cold.post(f"{JOB}/revisions/1/load", data=use_csv(), headers=named)
    assert sent.status_code == 201
    assert sent.json["found"]["ref"]["file"] == "my meter.csv"
    bad = cold.post(f"{JOB}/revisions/1/load", data=b"words", headers=named)
    assert (bad.status_code, bad.json["code"]) == (422, "file.format")
    battery = {"kind": "set-battery", "option_id": "a", "coupling": "dc", "usable": "10",
               "power": "5"}  # fmt: skip
    assert edit(cold, battery).status_code == 200
    assert cold.get(f"{JOB}/revisions/2/options/a/house").json["found"]["battery"]
    earlier = cold.get(f"{JOB}/revisions/2/earlier").json["found"]
    assert [(e["revision"], e["before"]) for e in earlier] == [(1, "battery 10 kWh")]
    compared = cold.get(f"{JOB}/revisions/2/compared?picked=a@1,a").json["found"]
    assert [y["earlier"] for y in compared["years"]] == [True, False]
    assert cold.get(f"{JOB}/revisions/2/compared?picked=%").status_code == 422
    power = cold.post(f"{JOB}/revisions/2/power", data=power_csv(), headers=named)
    assert power.json["found"]["day"] == "2025-04-18"
    laid = {"kind": "use-power-file", "file": power.json["found"], "module_w": "405"}
    assert edit(cold, laid, parent=2).status_code == 200
    bench = cold.get(f"{JOB}/revisions/3/options/a/bench").json["found"]
    assert bench["report"]["step_min"] == 5


def test_modules_are_weighed_and_a_study_of_nothing_says_why(client: FlaskClient) -> None:
    assert len(finished(client, "module-choice")["found"]["found"]) == 24
    ids = [
        m["id"] for m in client.get(JOB).json["found"]["job"]["options"][0]["arrays"][0]["modules"]
    ]
    edit(client, {"kind": "toggle-modules", "option_id": "a", "module_ids": ids})
    bare = client.get(f"{JOB}/revisions/2/options/a/comparison").json
    assert "has no string" in bare["problem"]


def test_the_shelf_is_paged_typed_onto_and_cleared(client: FlaskClient) -> None:
    page = client.get("/api/equipment/module?sort=p_max_w&down=true&words=half").json["found"]
    assert page["rows"][0]["cells"][0] == 600
    typed = client.post("/api/equipment/module/sheets", json={"texts": MODULE})
    assert typed.status_code == 201
    sheet = typed.json["found"]
    assert sheet["own"]
    assert client.get("/api/shelf").json["modules"][-1]["id"] == sheet["id"]
    refused = client.post(
        "/api/equipment/module/sheets", json={"texts": {**MODULE, "voc_v": "31", "name": "X"}}
    )
    assert (refused.status_code, refused.json["field"]) == (422, "X, Vmp")
    at = f"/api/equipment/module/sheets/{sheet['id']}"
    assert client.get(at).json["found"]["fit"]["worst_point_frac"] < 1e-3
    own = client.get("/api/equipment/file")
    assert own.json["modules"][0]["name"] == "Hill 410"
    assert client.delete(at).status_code == 200
    assert client.delete(at).status_code == 404
    back = client.post("/api/equipment/file", data=own.data, headers={"X-File-Name": "own.json"})
    assert back.json["found"]["added"] == 1
    assert client.get("/api/equipment/battery").status_code == 422
    assert client.get("/api/equipment/module?sort=colour").status_code == 404
    assert b"beta_voc" in client.get("/api/equipment/module/table.csv").data
    assert client.get("/api/equipment/inverter/columns").json["found"][0]["needed"]


def test_an_issued_set_is_frozen_travels_with_its_job_and_says_what_changed_since(
    client: FlaskClient, tmp_path: Path
) -> None:
    def since(revision: int) -> list[str]:
        return client.get(f"{JOB}/revisions/{revision}/options/a/plan-set/since").json["found"]

    asked = {"name": "utility", "paper": "A3", "what": "to the utility"}
    assert since(1) == []
    made = client.post(f"{OPTION}/plan-set/issue", json=asked)
    assert made.status_code == 201
    issue = made.json["found"]
    assert (issue["number"], issue["revision"], issue["what"]) == (1, 1, "to the utility")
    assert edit(client, {"kind": "record-issue", "issue": issue}).status_code == 200
    frozen = client.get(f"/api/issued/{issue['sha256']}.pdf")
    assert frozen.mimetype == "application/pdf"
    assert since(2) == []
    edit(client, {"kind": "rename-job", "name": "Another name"}, parent=2)
    assert since(3) == ["rename job"]
    # The same number again is refused; what is kept is as it was.
    again = edit(client, {"kind": "record-issue", "issue": issue}, parent=3)
    assert again.status_code == 422
    assert "2 is next" in again.json["message"]
    assert client.get(f"/api/issued/{issue['sha256']}.pdf").data == frozen.data
    bundle = client.get(f"{JOB}/file").data
    other = workspace_in(tmp_path / "other")
    there = create_app(other).test_client()
    assert there.post("/api/jobs/import", data=bundle).status_code == 201
    assert there.get(f"/api/issued/{issue['sha256']}.pdf").data == frozen.data


def test_the_title_block_is_typed_and_a_day_that_is_none_is_told(client: FlaskClient) -> None:
    told = edit(client, {"kind": "set-paperwork-field", "field": "reviewed_on", "typed": "soon"})
    assert (told.status_code, "Reviewed on" in told.json["message"]) == (422, True)
    for n, (field, typed) in enumerate(
        (
            ("firm", "Hill & Daughters"),
            ("reviewed_by", "A. Person, PE"),
            ("reviewed_on", "2026-11-30"),
        ),
        1,
    ):
        answer = edit(client, {"kind": "set-paperwork-field", "field": field, "typed": typed}, n)
        assert answer.status_code == 200
    path = f"{JOB}/revisions/4/options/a/plan-set/sheet"
    sheet = client.get(f"{path}?name=permit&paper=Letter&number=G-2").json["found"]
    assert sheet["hits"] == []
    assert "Hill &amp; Daughters" in sheet["svg"]
    assert "A. Person, PE" in sheet["svg"]
    assert "2026-11-30" in sheet["svg"]
    assert "Not for construction" not in sheet["svg"]
    for kind in ("svg", "dxf"):
        assert client.get(f"{path}.{kind}?name=permit&paper=Letter&number=A-1").status_code == 200
    assert client.get(f"{path}?name=permit&paper=Letter&number=Z-9").status_code == 404
    pdf = client.get(f"{JOB}/revisions/4/options/a/plan-set.pdf?name=owner&paper=A4")
    assert pdf.data.startswith(b"%PDF")


def test_attached_files_travel_with_their_job_and_one_that_is_lost_leaves_the_packet_whole(
    client: FlaskClient, tmp_path: Path
) -> None:
    pdf = FPDF()
    pdf.set_font("Helvetica")
    pdf.add_page()
    pdf.text(20, 20, "signed by hand")
    sent = client.post(
        "/api/attached", data=bytes(pdf.output()), headers={"X-File-Name": "form%201.pdf"}
    )
    assert sent.status_code == 201
    file = sent.json["found"]
    assert (file["file"], file["pages"]) == ("form 1.pdf", 1)
    refused = client.post("/api/attached", data=b"no", headers={"X-File-Name": "x.pdf"})
    assert (refused.status_code, "neither a PDF nor a picture" in refused.json["message"]) == (
        422,
        True,
    )
    wanted = {"id": "application", "words": "Form", "by": "file", "files": [file]}
    edit(client, {"kind": "keep-wanted", "to": "utility", "wanted": wanted})
    path = "revisions/2/options/a/packets/utility.pdf?paper=A4"
    pages = PdfReader(BytesIO(client.get(f"{JOB}/{path}").data)).pages
    assert "signed by hand" in pages[-1].extract_text()
    # The same revision is the same file; so is everything of it as one zip.
    assert client.get(f"{JOB}/{path}").data == client.get(f"{JOB}/{path}").data
    everything = f"{JOB}/revisions/2/options/a/files.zip?paper=A4"
    packed = client.get(everything).data
    assert packed == client.get(everything).data
    with zipfile.ZipFile(BytesIO(packed)) as files:
        names = files.namelist()
        assert {"plan-set.pdf", "work.ics", "tables/modules.csv", "drawings/A-1.dxf"} <= set(names)
    other = workspace_in(tmp_path / "other")
    there = create_app(other).test_client()
    made = there.post("/api/jobs/import", data=client.get(f"{JOB}/file").data)
    assert made.status_code == 201
    job = f"/api/jobs/{made.json['found']['job_id']}/revisions/1/options/a/packets/utility"
    assert (
        "signed by hand"
        in PdfReader(BytesIO(there.get(f"{job}.pdf?paper=A4").data)).pages[-1].extract_text()
    )
    (tmp_path / "other" / "attached" / f"{file['sha256']}.pdf").unlink()
    without = PdfReader(BytesIO(there.get(f"{job}.pdf?paper=A4").data))
    assert "Not in this packet: form 1.pdf" in without.pages[0].extract_text()
    assert len(without.pages) == len(pages) - 1


def test_two_sets_are_drawn_side_by_side_and_neither_ends_the_other(client: FlaskClient) -> None:
    asked = [f"{OPTION}/plan-set?name={name}&paper=A4" for name in ("owner", "utility")]
    left = set(asked)
    while left:
        for one in asked:
            answer = client.get(one).json
            assert answer["problem"] == ""
            if not answer["running"]:
                left.discard(one)
    assert len(client.get(asked[0]).json["found"]) == 1
    assert client.get(f"{OPTION}/plan-set?name=nobody&paper=A4").status_code == 404
