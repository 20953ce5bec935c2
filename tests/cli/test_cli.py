"""The command line: JSON out, exit codes, sentences on stderr."""

import csv
import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from equipment_rows import MODULE, table
from jobs import SAMPLE, SHELF, warm_workspace_in, workspace_in
from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.cli.program import main
from ridge_tally.core.loading.measured_day import judged
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.demo.tollgate import tollgate
from ridge_tally.formats.job_file import write_job
from ridge_tally.formats.load_file import read_load
from ridge_tally.formats.power_file import read_power
from ridge_tally.services import jobs
from ridge_tally.services.workspace import Workspace
from shelves import small_shelf


@pytest.fixture
def data(tmp_path: Path) -> Path:
    jobs.store_job(workspace_in(tmp_path), SAMPLE, "sample", "tests")
    return tmp_path


@pytest.fixture
def few(monkeypatch: pytest.MonkeyPatch) -> None:
    """Studies of the shelf look at a small one: all of it takes minutes."""
    monkeypatch.setattr("ridge_tally.cli.asking.sample_shelf", lambda: small_shelf(SHELF))


@pytest.fixture(autouse=True)
def warm(monkeypatch: pytest.MonkeyPatch) -> None:
    """What a command before has worked out another need not."""

    def at(folder: Path, _clock: object, shelf: Shelf) -> Workspace:
        return warm_workspace_in(folder, shelf)

    monkeypatch.setattr("ridge_tally.cli.asking.workspace_at", at)


def run(data: Path, *words: str) -> Result:
    return CliRunner().invoke(main, [*words, "--data", str(data)])


def run_bare(*words: str) -> Result:
    return CliRunner().invoke(main, list(words))


def test_check_exits_0_when_all_stops_hold(data: Path) -> None:
    result = run(data, "check", "juniper-bench", "--json")
    assert result.exit_code == 0
    report = json.loads(result.stdout)
    assert report["modules"] == 28
    assert report["checks"][0]["check"]["formula"]


def test_check_exits_1_for_a_broken_stop_and_shows_the_sum(data: Path) -> None:
    result = run(data, "check", "juniper-bench", "--option", "b")
    assert result.exit_code == 1
    assert "15 · 37.3 V" in result.stdout


def test_check_exits_3_for_an_unchecked_stop(data: Path) -> None:
    text = write_job(SAMPLE).replace('"value_degc": -28.0', '"value_degc": null')
    file = data / "cold.ridgetally.json"
    file.write_text(text, "utf-8")
    job_id = run(data, "import", str(file)).stdout.strip()
    assert run(data, "check", job_id).exit_code == 3


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (("check", "nowhere"), "no job “nowhere”"),
        (("year", "juniper-bench", "--option", "z"), "no option “z”"),
    ],
)
def test_bad_input_exits_2_with_a_sentence(data: Path, words: tuple[str, ...], says: str) -> None:
    result = run(data, *words)
    assert result.exit_code == 2
    assert says in result.stderr


def test_a_bad_file_exits_2_and_nothing_is_stored(data: Path) -> None:
    file = data / "bad.json"
    file.write_text("{}", "utf-8")
    result = run(data, "import", str(file))
    assert (result.exit_code, "bad.json" in result.stderr) == (2, True)
    assert len(json.loads(run(data, "list", "--json").stdout)) == 1


def test_year_prints_json_and_writes_its_hours(data: Path) -> None:
    file = data / "steps.csv"
    result = run(data, "year", "juniper-bench", "--json", "--csv", str(file), "--quick")
    report = json.loads(result.stdout)
    rows = list(csv.DictReader(file.open(encoding="utf-8")))
    assert len(rows) == 8760
    total_kwh = sum(float(row["ac_w"]) for row in rows) / 1000
    assert total_kwh == pytest.approx(report["energy_kwh"], rel=1e-4)
    assert report["stages"][-1]["after_kwh"] == pytest.approx(report["energy_kwh"])


def test_plan_strings_prints_plans_or_the_reason_and_every_inverter(data: Path) -> None:
    report = json.loads(run(data, "plan-strings", "juniper-bench").stdout)
    assert (report["total"], report["plans"][0]["current"]) == (1, True)
    small = json.loads(run(data, "plan-strings", "juniper-bench", "--inverter", "sample-i3").stdout)
    assert small["why_none"].endswith("the inverter takes 1.")
    every = json.loads(run(data, "plan-strings", "juniper-bench", "--all").stdout)
    assert len(every["found"]) == every["of"] == 40
    unknown = run(data, "plan-strings", "juniper-bench", "--inverter", "none")
    assert (unknown.exit_code, "none" in unknown.stderr) == (2, True)


def test_own_point_lists_the_ways_and_an_unknown_module_is_refused(data: Path) -> None:
    report = json.loads(run(data, "own-point", "juniper-bench", "--json").stdout)
    assert [w["way"] for w in report["ways"]] == ["strung", "add-on", "system"] + ["micro"] * 3
    assert "as strung" in run(data, "own-point", "juniper-bench", "--on", "south-1").stdout
    refused = run(data, "own-point", "juniper-bench", "--on", "south-99")
    assert (refused.exit_code, "south-99" in refused.stderr) == (2, True)


def test_export_is_the_job_file_and_comes_back(data: Path) -> None:
    exported = run(data, "export", "juniper-bench").stdout
    assert exported == write_job(SAMPLE)


def test_layouts_and_sheet(data: Path) -> None:
    found = json.loads(run(data, "layouts", "juniper-bench").stdout)
    assert [a["count"] for a in found["south"]] == [29, 28, 27]
    pdf = data / "sheet.pdf"
    assert run(data, "sheet", "juniper-bench", str(pdf)).exit_code == 0
    assert pdf.read_bytes().startswith(b"%PDF")


def test_target_names_the_ceiling_in_words_and_json(data: Path) -> None:
    said = run(data, "target", "juniper-bench").stdout
    assert said.startswith("The target is 33 modules; the busbar ends it at 28, 5 short.")
    assert "Size cap: (1.2 · " in said
    report = json.loads(run(data, "target", "juniper-bench", "--json").stdout)
    assert {c["kind"]: c["modules"] for c in report["ceilings"]}["roof"] == 29


def test_the_brief_is_written_as_pdf(data: Path) -> None:
    file = data / "brief.pdf"
    assert run(data, "brief", "juniper-bench", str(file)).exit_code == 0
    assert file.read_bytes()[:5] == b"%PDF-"


@pytest.mark.usefixtures("few")
@pytest.mark.usefixtures("few")
def test_ways_out_and_ways_compared_are_told_in_lines_and_json(data: Path, tmp_path: Path) -> None:
    jobs.store_job(workspace_in(tmp_path), mill_terrace(SHELF), "sample", "tests")
    told = run(tmp_path, "ways-out", "mill-terrace")
    assert told.exit_code == 0
    assert told.stdout.startswith("Operating current, tracker 1: 23.2 A of 16 A")
    assert "in-series: A and B in series: one string of 14  breaks Cold Voc" in told.stdout
    whole = json.loads(run(data, "compare-ways", "juniper-bench", "--json").stdout)
    assert whole["which"].startswith("For this roof: ")
    assert len(whole["ways"]) == 4


def test_equipment_is_taken_from_a_file_its_bad_lines_on_stderr(data: Path) -> None:
    file = data / "shelf.csv"
    file.write_text(table(MODULE, {**MODULE, "name": "Hill bad", "voc_v": "3"}), "utf-8")
    result = run(data, "take-equipment", str(file))
    assert result.stdout == "1 new, 0 renewed, 1 left out\n"
    assert result.stderr.startswith("line 3: Hill bad, Vmp reads 31.4")
    assert json.loads(run(data, "take-equipment", str(file), "--json").stdout)["renewed"] == 1
    file.write_bytes(b"\xff\x00nothing")
    assert run(data, "take-equipment", str(file)).exit_code == 2


@pytest.mark.usefixtures("few")
def test_sweep_angles_and_inverters_come_as_json_and_csv(data: Path) -> None:
    rows = list(csv.DictReader(run(data, "sweep", "juniper-bench", "--csv").stdout.splitlines()))
    assert {r["swept"] for r in rows} == {"modules", "inverter"}
    told = json.loads(run(data, "angles", "juniper-bench", "--by", "winter").stdout)
    assert told["map"]["weighed"] == "winter half"
    assert len(told["split"]["points"]) == 19
    found = list(
        csv.DictReader(run(data, "find-inverter", "juniper-bench", "--csv").stdout.splitlines())
    )
    assert len(found) == len(small_shelf(SHELF).inverters)
    assert run(data, "sweep", "juniper-bench", "--by", "autumn").exit_code == 2


def test_sample_files_are_what_a_job_takes_in(data: Path, tmp_path: Path) -> None:
    told = run_bare("sample-files", str(tmp_path / "files"))
    assert told.exit_code == 0
    year, day = (Path(line) for line in told.stdout.splitlines())
    load = read_load(year.read_bytes(), year.name, -7.0, month_first=True)
    assert load.energy_kwh == pytest.approx(6200, rel=1e-3)
    (measured,) = read_power(day.read_bytes(), day.name, month_first=True)
    fit = judged(measured.power_w)
    assert (fit.clear, fit.limited) == (True, False)
    assert 300 < measured.power_w.max() < 430


def test_a_house_is_told_in_lines_and_json(data: Path) -> None:
    told = run(data, "house", "juniper-bench")
    assert told.stdout.startswith("12 bills over 365 days")
    assert json.loads(run(data, "house", "juniper-bench", "--json").stdout)["sizes"]


def test_mounts_and_cuts_of_a_bare_case_are_told(tmp_path: Path) -> None:
    case = tmp_path / "case.json"
    rail = {"L": 100, "first": 10, "step": 40, "span": 40, "cant": 10}
    cut = {"lines": [{"L": 100, "mounts": [10, 50, 90]}], "stock": [{"len": 60}]}
    steps = [{"op": "mounts", "input": {"rails": [rail]}}, {"op": "cut", "input": cut}]
    case.write_text(json.dumps({"units": "in", "steps": steps}))
    assert "rail 1: 3 mounts at 10, 50, 90" in run_bare("mounts", str(case)).output
    told = run_bare("cut", str(case)).output
    assert "2 sticks, 1 splice, waste 20; least, proven" in told
    case.write_text('{"units": "in", "steps": [{"op": "mounts", "input": {"rails": 3}}]}')
    assert run_bare("mounts", str(case)).exit_code == 2


def test_the_racking_of_a_job_is_told_and_written(data: Path, tmp_path: Path) -> None:
    folder = tmp_path / "lists"
    told = run(data, "racking", "juniper-bench", "--csv", str(folder)).stdout
    assert "South roof: 86 mounts on" in told
    with (folder / "mounts.csv").open(encoding="utf-8-sig") as file:
        mounts = list(csv.DictReader(file))
    assert len(mounts) == 86
    assert {m["number"] for m in mounts if m["on"] == "rafter"} <= {str(n) for n in range(1, 21)}
    with (folder / "parts.csv").open(encoding="utf-8-sig") as file:
        parts = {p["part"]: p for p in csv.DictReader(file)}
    # By hand: 28 modules in rows of 10, 10, 5 and 3 on two rails each.
    assert parts["Mid clamp"]["needed"] == "48"
    assert parts["End clamp"]["needed"] == "16"


def test_the_wiring_of_a_job_is_told_and_written_and_its_one_line_drawn(
    data: Path, tmp_path: Path
) -> None:
    folder = tmp_path / "wiring"
    told = run(data, "wiring", "juniper-bench", "--csv", str(folder)).stdout
    assert "Inverter output: 31.7 A, 8 AWG, breaker 40 A" in told
    with (folder / "circuits.csv").open(encoding="utf-8-sig") as file:
        circuits = {c["circuit"]: c for c in csv.DictReader(file)}
    shown = json.loads(run(data, "wiring", "juniper-bench", "--json").stdout)
    # One figure, one place: the same drop in the table and in the machine's answer.
    drop = next(c["drop_percent"] for c in shown["circuits"] if c["name"] == "Inverter output")
    assert float(circuits["Inverter output"]["drop_percent"]) == pytest.approx(drop, abs=5e-4)
    for ending, first in (("svg", "<svg"), ("dxf", "  0")):
        file_at = tmp_path / f"line.{ending}"
        assert run(data, "one-line", "juniper-bench", str(file_at)).exit_code == 0
        assert file_at.read_text("utf-8").startswith(first)
    wrong = run(data, "one-line", "juniper-bench", str(tmp_path / "line.pdf"))
    assert wrong.exit_code != 0
    assert ".svg or .dxf" in wrong.stderr


def test_the_money_of_a_job_is_told_and_its_years_are_a_table(data: Path) -> None:
    told = run(data, "money", "juniper-bench").stdout.replace("\xa0", " ")
    shown = json.loads(run(data, "money", "juniper-bench", "--json").stdout)
    gross = f"{shown['gross_cents'] / 100:,.2f}".replace(",", " ")
    assert f"It costs ${gross}" in told
    rows = list(csv.DictReader(run(data, "money", "juniper-bench", "--csv").stdout.splitlines()))
    assert [int(r["year"]) for r in rows] == list(range(len(shown["rows"])))
    # One figure, one place: the table's rows and the machine's answer alike.
    assert [r["net ($)"] for r in rows] == [f"{r['net_cents'] / 100:.2f}" for r in shown["rows"]]


CASE = {
    "module": {
        "p_max_w": 405, "voc_v": 37.3, "isc_a": 13.84, "vmp_v": 31.2, "imp_a": 12.98,
        "beta_voc_pct_per_k": -0.27, "alpha_isc_pct_per_k": 0.05, "gamma_pmax_pct_per_k": -0.34,
    },
    "modules_in_series": 14, "irradiance_w_per_m2": 1000, "cell_degc": 25,
}  # fmt: skip


@pytest.mark.parametrize(
    ("change", "told"),
    [
        ({"cell_degc": 200}, "Cell temperature"),
        ({"irradiance_w_per_m2": 10}, "Light"),
        ({"modules_in_series": 0}, "Modules in series"),
        ({"modules_in_series": "many"}, "modules_in_series"),
        ({"module": {**CASE["module"], "voc_v": -1}}, "module.voc_v"),  # type: ignore[dict-item]
        ({"module": {**CASE["module"], "vmp_v": 90.0}}, "vmp"),  # type: ignore[dict-item]
        ({"wind": 3}, "wind"),
    ],
)
def test_a_readings_case_is_answered_or_refused_at_its_place(
    tmp_path: Path, change: dict[str, object], told: str
) -> None:
    file = tmp_path / "case.json"
    file.write_text(json.dumps(CASE), "utf-8")
    due = json.loads(run_bare("expected", str(file), "--json").stdout)
    # At standard conditions the datasheet's own figures, fourteen times the voltage.
    assert due["voc_v"]["due"] == pytest.approx(14 * 37.3, rel=2e-3)
    assert due["isc_a"]["due"] == pytest.approx(13.84, rel=2e-3)
    file.write_text(json.dumps({**CASE, **change}), "utf-8")
    refused = run_bare("expected", str(file))
    assert refused.exit_code == 2
    assert told.lower() in refused.stderr.lower()


def test_readings_are_diagnosed_a_job_is_proved_and_a_seed_practised(
    data: Path, tmp_path: Path
) -> None:
    module = {
        "p_max_w": 400, "voc_v": 37.0, "isc_a": 13.7, "vmp_v": 31.0, "imp_a": 12.9,
        "beta_voc_pct_per_k": -0.27, "alpha_isc_pct_per_k": 0.05,
    }  # fmt: skip
    readings = tmp_path / "readings.json"
    strings = [{"voc_v": 338.0, "v_operating_v": 280.0}, {"voc_v": 304.0, "v_operating_v": 252.0}]
    readings.write_text(
        json.dumps(
            {
                "module": module, "modules_in_series": 10, "irradiance_w_per_m2": 810,
                "cell_degc": 54, "strings": strings,
            }
        )
    )  # fmt: skip
    found = json.loads(run_bare("diagnose", str(readings), "--json").stdout)
    assert found["causes"][0]["code"] == "module-missing"
    assert found["verdict"] in ("sure", "likely")
    assert "tring B: fewer modules in series" in run_bare("diagnose", str(readings)).stdout
    readings.write_text("{}")
    refused = run_bare("diagnose", str(readings))
    assert (refused.exit_code, "module" in refused.stderr) == (2, True)
    jobs.store_job(workspace_in(data), tollgate(SHELF), "sample", "tests")
    assert "Next: look" in run(data, "prove", "tollgate").stdout
    told = run(data, "practice", "tollgate", "--seed", "0").stdout
    assert "Planted: strings A and B: a module threaded into the other string" in told
    assert "Planted: West roof: dirt on a whole plane" in told
    log = tmp_path / "log.csv"
    shape = [max(0, 6 - abs(h - 12)) * 1200 for h in range(24)]
    rows = [f"2026-06-{d:02d} {h:02d}:00,{w}" for d in range(1, 13) for h, w in enumerate(shape)]
    log.write_text("\n".join(["Time,AC power W", *rows]), "utf-8")
    read = json.loads(run(data, "production", "tollgate", str(log), "--json").stdout)
    assert (read["step_min"], len(read["days"]), read["months"][0]["name"]) == (60, 12, "Jun 2026")
    assert read["days"][0]["made_kwh"] == 43.2
