"""Equipment from files: a table of one datasheet a line, or JSON of whole datasheets."""

import json
import re
import unicodedata
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, TypeAdapter, ValidationError

from ridge_tally.core.equipment import (
    SHEETS,
    AnySheet,
    InverterSheet,
    MicroinverterSheet,
    ModuleSheet,
    OptimizerSheet,
)
from ridge_tally.core.errors import FormatError, RidgeTallyError
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.formats.equipment_fields import COLUMNS, SheetKind, sheet_from
from ridge_tally.formats.job_file import describe
from ridge_tally.formats.table import read_table
from ridge_tally.rules.equipment.sheet import require_sheet

MOST_ROWS = 20_000
OWN = "own-"
# Spreadsheets run what begins so; a figure may begin with a sign.
_FIGURE = re.compile(r"[-+−]?[\d.,]+")
_FORMULA = re.compile(r"\s*(=|@|[-+](?![\d.,\s]))")


class EquipmentFile(BaseModel):
    """Datasheets of a Ridge Tally shelf."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    format: Literal["ridge-tally-equipment"] = "ridge-tally-equipment"
    modules: tuple[ModuleSheet, ...] = ()
    inverters: tuple[InverterSheet, ...] = ()
    optimizers: tuple[OptimizerSheet, ...] = ()
    microinverters: tuple[MicroinverterSheet, ...] = ()
    mountings: tuple[MountingSheet, ...] = ()


@dataclass(frozen=True, slots=True)
class RowProblem:
    """A datasheet that was not taken: where it stands in its file, and why."""

    place: str
    why: str


@dataclass(frozen=True, slots=True)
class EquipmentRead:
    """Sound datasheets of a file, and what was left out of it."""

    sheets: tuple[AnySheet, ...]
    problems: tuple[RowProblem, ...]


def read_equipment(content: bytes, file: str) -> EquipmentRead:
    """Return the sound datasheets of a file, the others with line and reason.

    Raises
    ------
    FormatError
        If the file as a whole cannot be read: its encoding, its headings, its size.
    """
    text = _decoded(content, file)
    found = list(_of_json(text, file) if text.lstrip().startswith("{") else _of_table(text, file))
    sheets = {s.id: s for s in found if not isinstance(s, RowProblem)}
    return EquipmentRead(
        tuple(sheets.values()), tuple(p for p in found if isinstance(p, RowProblem))
    )


def sound_sheet(kind: SheetKind, texts: Mapping[str, str]) -> AnySheet:
    """Return the datasheet of a row of texts, judged; its id follows from its name.

    Raises
    ------
    MissingDatum, NotUnderstood, OutOfRange
        Naming the figure.
    """
    for name, text in texts.items():
        if _FORMULA.match(text):
            raise FormatError(
                name, "", f"“{text.strip()[:40]}” looks like a formula", "Type its value."
            )
    sheet = sheet_from(kind, texts, own_id(texts.get("name", "")))
    require_sheet(sheet)
    return sheet


def own_id(name: str) -> str:
    """Return the id of an own datasheet of that name: the same name, the same sheet."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    return OWN + (re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:60] or "nameless")


def write_equipment(sheets: tuple[AnySheet, ...]) -> str:
    """Return datasheets as the JSON text that ``read_equipment`` takes."""

    def of(kind: type[AnySheet]) -> tuple[Any, ...]:
        return tuple(s for s in sheets if isinstance(s, kind))

    whole = EquipmentFile(
        modules=of(ModuleSheet),
        inverters=of(InverterSheet),
        optimizers=of(OptimizerSheet),
        microinverters=of(MicroinverterSheet),
        mountings=of(MountingSheet),
    )
    return whole.model_dump_json(indent=2) + "\n"


def equipment_schema() -> dict[str, Any]:
    """Return the JSON Schema of the equipment file."""
    schema = EquipmentFile.model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Ridge Tally equipment file"
    return schema


def table_heading(kind: SheetKind) -> str:
    """Return the heading of a table of a kind, with one line of what belongs there."""
    columns = COLUMNS[kind]
    return ",".join(("kind", *(c.name for c in columns), "source")) + "\n"


def _decoded(content: bytes, file: str) -> str:
    wide = content.startswith((b"\xff\xfe", b"\xfe\xff"))
    encoding = "utf-16" if wide else "utf-8-sig"
    try:
        text = content.decode(encoding)
    except UnicodeDecodeError as error:
        line = content[: error.start].count(b"\n") + 1
        raise FormatError(
            file,
            f"line {line}",
            f"this is not UTF-8 text (byte {content[error.start]:#04x})",
            "Save it again as “CSV UTF-8”. Nothing was taken over.",
        ) from None
    if "\x00" in text:
        raise FormatError(file, "", "this is no text", "Choose a CSV or JSON file.")
    return text


def _of_table(text: str, file: str) -> Iterator[AnySheet | RowProblem]:
    lines = read_table(text, file)
    if len(lines) - 1 > MOST_ROWS:
        raise FormatError(
            file, "", f"more than {MOST_ROWS} lines", "Split it. Nothing was taken over."
        )
    heading = [_headed(cell) for cell in lines[0]]
    names = [name for name, _ in heading]
    known = {c.name for columns in COLUMNS.values() for c in columns} | {"kind", "source"}
    if "name" not in names:
        raise FormatError(
            file,
            "line 1",
            f"no column is headed name (found {', '.join(names)[:80]})",
            "Begin with a table from “Empty table”. Nothing was taken over.",
        )
    strange = [n for n in names if n and n not in known]
    if strange:
        yield RowProblem("line 1", f"column {', '.join(strange)[:120]} is not known and left out")
    for number, line in enumerate(lines[1:], start=2):
        row = {
            name: f"{cell} {unit}" if unit and _FIGURE.fullmatch(cell.strip()) else cell
            for (name, unit), cell in zip(heading, line, strict=False)
        }
        word = (row.pop("kind", "") or "module").strip().lower()
        try:
            if word not in set(SheetKind):
                raise FormatError("kind", "", f"“{word}” is no kind", f"Use {_kinds()}.")
            yield sound_sheet(SheetKind(word), {k: v for k, v in row.items() if k in known})
        except RidgeTallyError as error:
            yield RowProblem(f"line {number}", str(error))


def _headed(cell: str) -> tuple[str, str]:
    """Return a column's name, and the unit in brackets behind it: ``beta_voc [%/K]``."""
    name, unit = cell.strip(), ""
    if name.endswith(("]", ")")):
        opened = min((i for mark in "[(" if (i := name.find(mark)) >= 0), default=-1)
        if opened >= 0:
            name, unit = name[:opened], name[opened + 1 : -1]
    return re.sub(r"[\s-]+", "_", name.strip().lower()), unit


def _kinds() -> str:
    return ", ".join(SheetKind)


def _of_json(text: str, file: str) -> Iterator[AnySheet | RowProblem]:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise FormatError(
            file, "", f"this is not JSON ({error})", "Nothing was taken over."
        ) from None
    if data.get("format") != "ridge-tally-equipment":
        raise FormatError(
            file,
            "format",
            f"it reads “{data.get('format', '')}”",
            "An equipment file has “ridge-tally-equipment” there. Nothing was taken over.",
        )
    for kind, sheet_type in SHEETS.items():
        rows = data.get(f"{kind}s", [])
        if not isinstance(rows, list):
            raise FormatError(file, f"{kind}s", "this is no list", "Nothing was taken over.")
        adapter: TypeAdapter[AnySheet] = TypeAdapter(sheet_type)
        for number, row in enumerate(rows):
            place = f"{kind}s[{number}]"
            try:
                # Whatever id it had elsewhere: here its name makes it.
                named = {**row, "id": own_id(str(row.get("name", "")))}
                sheet = adapter.validate_python(named)
                require_sheet(sheet)
                yield sheet
            except ValidationError as error:
                field, what = describe(error)
                yield RowProblem(place, f"{field}: {what}")
            except (RidgeTallyError, AttributeError, TypeError) as error:
                yield RowProblem(place, str(error))
