"""Equipment by table and JSON: good rows kept, bad rows told with line and reason, never half."""

import json
import re
from dataclasses import fields as dataclass_fields
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from equipment_rows import INVERTER, MICRO, MODULE, MOUNTING, OPTIMIZER, table
from jobs import SHELF
from ridge_tally.core.equipment import (
    SHEETS,
    InverterSheet,
    ModuleSheet,
    Origin,
    Warming,
    origin_of,
)
from ridge_tally.core.errors import (
    FormatError,
    MissingDatum,
    NotUnderstood,
    OutOfRange,
    RidgeTallyError,
)
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.formats.equipment_fields import COLUMNS, FIELDS, SheetKind
from ridge_tally.formats.equipment_file import (
    equipment_schema,
    read_equipment,
    sound_sheet,
    table_heading,
    write_equipment,
)
from ridge_tally.views.shelf import sheet_view


def module(**change: str) -> ModuleSheet:
    sheet = sound_sheet(SheetKind.MODULE, {**MODULE, **change})
    assert isinstance(sheet, ModuleSheet)
    return sheet


@pytest.mark.parametrize(
    ("typed", "share"),
    [
        ("-0.26 %/K", -0.0026),
        ("−0,26 %/°C", -0.0026),
        # By hand: 98 mV/K of 37.6 V is 0.26 %/K.
        ("-98 mV/K", -0.098 / 37.6),
        ("-0.098 V/K", -0.098 / 37.6),
        ("-0.098V/°C", -0.098 / 37.6),
    ],
)
def test_a_coefficient_in_each_unit_sheets_print(typed: str, share: float) -> None:
    sheet = module(beta_voc=typed)
    assert sheet.beta_voc_frac_per_degc == pytest.approx(share)
    origin = Origin.COMPUTED if "V" in typed else Origin.DATASHEET
    assert origin_of(sheet, "beta_voc_frac_per_degc") is origin


@given(st.floats(-0.5, -0.1))
def test_millivolts_volts_and_per_cent_mean_the_same(percent: float) -> None:
    volts = percent / 100 * 37.6
    shares = [
        module(beta_voc=text).beta_voc_frac_per_degc
        for text in (f"{percent:.9f} %/K", f"{volts * 1000:.9f} mV/K", f"{volts:.12f} V/K")
    ]
    assert shares == pytest.approx([percent / 100] * 3, rel=1e-6)


def test_what_a_sheet_leaves_out_is_worked_out_or_estimated_and_says_so() -> None:
    sheet = module(p_max_w="", bypass_diodes="")
    # By hand: 31.4 V x 13.06 A.
    assert sheet.p_max_w == pytest.approx(410.084)
    assert origin_of(sheet, "p_max_w") is Origin.COMPUTED
    assert (sheet.bypass_diodes, origin_of(sheet, "bypass_diodes")) == (3, Origin.ESTIMATED)
    assert origin_of(sheet, "voc_v") is Origin.DATASHEET
    assert (sheet.max_system_v, sheet.price_cents) == (None, None)


@pytest.mark.parametrize(
    ("change", "error", "says"),
    [
        ({"voc_v": ""}, MissingDatum, "Hill 410 has no Voc"),
        ({"voc_v": "31.4", "vmp_v": "37.6"}, OutOfRange, "Are Vmp and Voc swapped"),
        ({"isc_a": "13.06", "imp_a": "13.9"}, OutOfRange, "Are Imp and Isc swapped"),
        ({"beta_voc": "0.26 %/K"}, OutOfRange, "Voc coefficient"),
        ({"beta_voc": "-0.26"}, NotUnderstood, "%/K, mV/K or V/K"),
        ({"beta_voc": "-98 mA/K"}, NotUnderstood, "Voc coefficient"),
        ({"voc_v": "about 38"}, NotUnderstood, "a number in V"),
        ({"cells_in_series": "54.5"}, NotUnderstood, "a whole number"),
        ({"half_cut": "perhaps"}, NotUnderstood, "yes or no"),
        ({"nominal_w": "301", "nominal_conditions": "field"}, NotUnderstood, "800 / 20 / 1"),
        ({"name": "=HYPERLINK(1)"}, FormatError, "looks like a formula"),
        ({"name": "@SUM"}, FormatError, "looks like a formula"),
        ({"name": ""}, MissingDatum, "no Maker’s name"),
    ],
)
def test_a_bad_module_is_refused_by_its_figure(
    change: dict[str, str], error: type[Exception], says: str
) -> None:
    with pytest.raises(error, match=says):
        module(**change)


@pytest.mark.parametrize(
    ("kind", "row", "change", "says"),
    [
        (SheetKind.INVERTER, INVERTER, {"trackers": "0"}, "has no tracker"),
        (SheetKind.INVERTER, INVERTER, {"v_min_v": "520", "v_max_v": "90"}, "lowest voltage"),
        (SheetKind.INVERTER, INVERTER, {"efficiency": "105"}, "above 0 and below 1"),
        (SheetKind.INVERTER, INVERTER, {"efficiency": "10:x"}, "per cent such as"),
        (SheetKind.OPTIMIZER, OPTIMIZER, {"sort": "both"}, "system or add-on"),
        (SheetKind.OPTIMIZER, OPTIMIZER, {"least_in_string": "30"}, "fewest in a string"),
        (SheetKind.OPTIMIZER, OPTIMIZER, {"v_in_min_v": "80"}, "lowest voltage"),
        (SheetKind.MICROINVERTER, MICRO, {"cells": "many"}, "54 60 66"),
        (SheetKind.MICROINVERTER, MICRO, {"inputs": "0"}, "inputs"),
        (
            SheetKind.MICROINVERTER,
            MICRO,
            {"module_least_w": "500", "module_most_w": "300"},
            "smallest module",
        ),
    ],
)
def test_a_bad_converter_is_refused_by_its_figure(
    kind: SheetKind, row: dict[str, str], change: dict[str, str], says: str
) -> None:
    assert sound_sheet(kind, row).name == row["name"]
    with pytest.raises((MissingDatum, NotUnderstood, OutOfRange), match=says):
        sound_sheet(kind, {**row, **change})


def test_good_rows_are_kept_and_bad_ones_told_by_line() -> None:
    bad = {**MODULE, "name": "Hill bad", "voc_v": "30"}
    formula = {**MODULE, "name": "=2+2"}
    text = table(MODULE, bad, {**MODULE, "name": "Hill 2"}, formula)
    read = read_equipment(text.encode(), "modules.csv")
    assert [s.name for s in read.sheets] == ["Hill 410", "Hill 2"]
    assert [p.place for p in read.problems] == ["line 3", "line 5"]
    assert "swapped" in read.problems[0].why
    assert "formula" in read.problems[1].why


def test_headings_may_carry_units_and_columns_of_all_kinds() -> None:
    text = (
        "kind;name;p_max_w;voc_v;isc_a;vmp_v;imp_a;beta_voc [%/K];cells_in_series;long_mm;"
        "short_mm;mass_kg;p_ac_w;v_dc_max_v;trackers;v_min_v;v_max_v;i_max_a;colour\n"
        "module;Hill;410;37,6;13,9;31,4;13,06;-0,26;54;1722;1134;21,3;;;;;;;black\n"
        "inverter;Hill 5;;;;;;;;;;;5000;600;2;90;520;16;\n"
        "battery;Hill B;;;;;;;;;;;;;;;;;\n"
    )
    read = read_equipment(text.encode(), "x.csv")
    assert [type(s).__name__ for s in read.sheets] == ["ModuleSheet", "InverterSheet"]
    assert read.sheets[0].beta_voc_frac_per_degc == pytest.approx(-0.0026)  # type: ignore[union-attr]
    assert [p.place for p in read.problems] == ["line 1", "line 4"]
    assert "colour is not known" in read.problems[0].why
    assert "battery” is no kind" in read.problems[1].why


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "nothing in it"),
        ("name,voc_v\nM\xf6dul,37".encode("latin-1"), "line 2: this is not UTF-8 text"),
        (b"PK\x03\x04\x00\x00name", "this is no text"),
        (b"title,volts\nx,1", "no column is headed name"),
        (b'{"format": "something"}', "something"),
        (b'{"format": ', "this is not JSON"),
        (b'{"format": "ridge-tally-equipment", "modules": 3}', "this is no list"),
    ],
)
def test_a_file_that_is_none_is_refused_whole(content: bytes, says: str) -> None:
    with pytest.raises(FormatError, match=says) as refused:
        read_equipment(content, "shelf.csv")
    assert "shelf.csv" in str(refused.value)


def test_wide_text_of_spreadsheets_is_read() -> None:
    read = read_equipment(table(MODULE).encode("utf-16"), "x.csv")
    assert [s.name for s in read.sheets] == ["Hill 410"]


def test_ten_thousand_rows_are_read_every_tenth_one_bad() -> None:
    rows = (
        {**MODULE, "name": f"Hill {n}", **({"imp_a": "20"} if n % 10 == 0 else {})}
        for n in range(10_000)
    )
    read = read_equipment(table(*rows).encode(), "many.csv")
    assert (len(read.sheets), len(read.problems)) == (9000, 1000)
    assert read.problems[0].place == "line 2"


def test_the_samples_go_out_and_come_back_as_own() -> None:
    sheets = (*SHELF.modules, *SHELF.inverters, *SHELF.optimizers, *SHELF.microinverters)
    read = read_equipment(write_equipment(sheets).encode(), "shelf.json")
    assert read.problems == ()
    assert [replace(s, id="") for s in read.sheets] == [replace(s, id="") for s in sheets]
    assert all(s.id.startswith("own-") for s in read.sheets)


def test_a_bad_sheet_of_a_json_file_is_told_and_the_others_kept() -> None:
    data = json.loads(write_equipment(SHELF.modules[:3]))
    data["modules"][1]["voc_v"] = 10.0
    data["modules"][2]["voc_v"] = "high"
    data["modules"].append("none")
    read = read_equipment(json.dumps(data).encode(), "x.json")
    assert len(read.sheets) == 1
    assert [p.place for p in read.problems] == ["modules[1]", "modules[2]", "modules[3]"]


def test_the_schema_names_every_kind_and_the_empty_table_every_column() -> None:
    assert {f"{k.value}s" for k in SheetKind} <= set(equipment_schema()["properties"])
    for kind in SheetKind:
        heading = table_heading(kind).strip().split(",")
        assert {c.name for c in COLUMNS[kind]} <= set(heading)


@pytest.mark.parametrize("kind", SheetKind)
def test_every_field_of_a_datasheet_has_its_line_in_the_table(kind: SheetKind) -> None:
    fields = {f.name for f in dataclass_fields(SHEETS[kind.value])}
    # A generic DC input is typed for a job and stands on no shelf.
    assert fields - {"id", "provenance", "origins", "dc_only"} == {
        f.attribute for f in FIELDS[kind]
    }


def test_what_rules_read_of_an_inverter_can_be_typed() -> None:
    typed = {
        "bare_isc": "yes", "arc_fault": "yes", "ground_fault": "no", "full_power_to_m": "2000",
        "backup_ready": "no", "derating": "45:100 50:90 60:70", "cabinet_rise_k": "15",
        "cabinet_lag_min": "40", "tracker_w": "4200",
    }  # fmt: skip
    sheet = sound_sheet(SheetKind.INVERTER, {**INVERTER, **typed})
    assert isinstance(sheet, InverterSheet)
    assert (sheet.bare_isc, sheet.arc_fault, sheet.ground_fault) == (True, True, False)
    assert (sheet.full_power_to_m, sheet.backup_ready) == (2000.0, False)
    assert [(p.air_degc, p.power_frac) for p in sheet.derating] == [(45, 1.0), (50, 0.9), (60, 0.7)]
    assert sheet.warming == Warming(15.0, 40.0)
    assert {t.p_max_w for t in sheet.trackers} == {4200.0}
    told = {
        v.label: v.text
        for v in sheet_view(replace(SHELF, inverters=(sheet,)), SheetKind.INVERTER, sheet.id).values
    }
    assert told["Gives by the air"] == "100 % at 45 °C, 90 % at 50 °C, 70 % at 60 °C"
    assert told["Interrupts ground faults"] == "no"


@pytest.mark.parametrize(
    ("column", "text", "says"),
    [
        ("derating", "45", "°C and per cent such as 45:100 50:90 60:70"),
        ("derating", "45:100 50:110", "at most 1, what it gives at 45 °C"),
        ("cabinet_rise_k", "15", "Cabinet follows after"),
        ("full_power_to_m", "high", "a number in m"),
        ("arc_fault", "maybe", "yes or no"),
    ],
)
def test_an_inverter_s_odd_figures_are_refused_by_name(column: str, text: str, says: str) -> None:
    with pytest.raises(RidgeTallyError, match=re.escape(says)):
        sound_sheet(SheetKind.INVERTER, {**INVERTER, column: text})


def test_a_mounting_system_is_read_from_its_row() -> None:
    sheet = sound_sheet(SheetKind.MOUNTING, MOUNTING)
    assert isinstance(sheet, MountingSheet)
    assert [(s.length_m, s.price_cents) for s in sheet.stock] == [(4.267, 5200), (3.3, None)]
    assert [(s.span_m, s.at_edge) for s in sheet.spans] == [(1.8, False), (1.2, True)]
    assert sheet.coverings == ("shingle", "tile")
    assert sheet.cantilever_frac == pytest.approx(0.33)
    # Nobody guesses a torque.
    assert sheet.torque_mid_nm is None


@pytest.mark.parametrize(
    ("change", "told"),
    [
        ({"stock": "4267:x"}, "Rails sold at"),
        ({"stock": "0"}, "Rails sold at"),
        ({"stock": ""}, "Rails sold at"),
        ({"spans": "42/1000:1800"}, "Longest spans"),
        ({"spans": "42/1000/middle:1800"}, "Longest spans"),
        ({"spans": "0/1000/field:1800"}, "wind_m_per_s"),
        ({"coverings": "thatch"}, "roofs it is for"),
        ({"coverings": "ground"}, "mounts go on"),
        ({"rails": "three"}, "two, shared, up-slope or short"),
        ({"clamp_from": "30"}, "clamped from"),
        ({"splice_in": "60"}, "splice within"),
        ({"least_piece_mm": "5000"}, "shortest piece"),
        ({"frame_least_mm": "46", "frame_most_mm": "30"}, "thinnest frame"),
    ],
)  # fmt: skip
def test_a_bad_mounting_system_is_refused_by_its_figure(change: dict[str, str], told: str) -> None:
    with pytest.raises(RidgeTallyError) as caught:
        sound_sheet(SheetKind.MOUNTING, {**MOUNTING, **change})
    assert told in str(caught.value)
