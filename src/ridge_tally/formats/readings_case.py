"""Readings files without a job: what meters should show on a string, and what readings point to."""

from collections.abc import Iterator
from typing import Annotated, Literal, TypeVar

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ridge_tally.core.equipment import ModuleId, ModuleSheet
from ridge_tally.core.errors import FormatError
from ridge_tally.core.proving.expected import (
    COLDEST_DEGC,
    HOTTEST_DEGC,
    MOST_IN_SERIES,
    MOST_LIGHT,
    StringDue,
    string_due,
)
from ridge_tally.core.proving.rig import Input, Kind, Probe, Rig, sound_string
from ridge_tally.core.proving.weighing import Read
from ridge_tally.formats.case_file import read_case
from ridge_tally.rules.proving.diagnosis import Diagnosis, diagnosed

Positive = Annotated[float, Field(gt=0, allow_inf_nan=False)]
Share = Annotated[float, Field(gt=-2, lt=2, allow_inf_nan=False)]


class _Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class CaseModule(_Strict):
    """What a case says of its module: at standard conditions, coefficients in per cent a kelvin."""

    p_max_w: Positive
    voc_v: Positive
    isc_a: Positive
    vmp_v: Positive
    imp_a: Positive
    beta_voc_pct_per_k: Share
    alpha_isc_pct_per_k: Share
    gamma_pmax_pct_per_k: Share | None = None
    cells_in_series: int = Field(60, ge=1, le=400)
    bypass_diodes: int = Field(3, ge=1, le=12)


class ExpectedCase(_Strict):
    """A string and the moment it is measured at."""

    module: CaseModule
    modules_in_series: int
    irradiance_w_per_m2: float
    cell_degc: float


def expected_of_case(text: str, file: str) -> StringDue:
    """Return what a string of a case should read.

    Raises
    ------
    FormatError
        If it is no such case; it names the place.
    OutOfRange, OutsideModelRange
        If the moment is none a string is measured at, or the datasheet contradicts itself.
    """
    case = _validated(ExpectedCase, text, file)
    return string_due(
        sheet_of(case.module), case.modules_in_series, case.irradiance_w_per_m2, case.cell_degc
    )


class StringRead(_Strict):
    """What was read of one string; nothing where it was not. Volts below nothing: its ends changed."""

    name: str | None = Field(None, max_length=20)
    modules_in_series: int | None = Field(None, ge=1, le=MOST_IN_SERIES)
    voc_v: float | None = Field(None, ge=-2000, le=2000)
    isc_a: float | None = Field(None, ge=0, le=100)
    v_operating_v: float | None = Field(None, ge=0, le=2000)
    i_operating_a: float | None = Field(None, ge=0, le=100)
    insulation_mohm: float | None = Field(None, ge=0, le=1e5)


class ReadingsCase(_Strict):
    """Readings of strings of one kind of module on one plane; see README, Proving."""

    module: CaseModule
    modules_in_series: int = Field(ge=1, le=MOST_IN_SERIES)
    irradiance_w_per_m2: float | None = Field(None, ge=0, le=MOST_LIGHT)
    cell_degc: float | None = Field(None, ge=COLDEST_DEGC, le=HOTTEST_DEGC)
    strings: list[StringRead] = Field(min_length=1, max_length=24)
    swap_followed: Literal["string", "input", "none"] | None = None
    insulation_mohm: float | None = Field(None, ge=0, le=1e5)
    voltage_drop_pct: float | None = Field(None, ge=0, le=100)


# Beneath this light nothing that is read of a string says anything of it.
DARK_W_PER_M2 = 20.0
_READS = {
    "voc_v": Kind.VOC,
    "isc_a": Kind.ISC,
    "v_operating_v": Kind.V_AT_WORK,
    "i_operating_a": Kind.I_AT_WORK,
    "insulation_mohm": Kind.INSULATION,
}


def diagnosed_case(text: str, file: str) -> Diagnosis:
    """Return what the readings of a case file point to.

    Raises
    ------
    FormatError
        If it is no such case, or nothing was read, or what was read cannot be; it names the place.
    OutsideModelRange
        If the datasheet contradicts itself.
    """
    case = _validated(ReadingsCase, text, file)
    sheet = sheet_of(case.module)
    rig = Rig(
        strings=tuple(
            sound_string(
                s.name or chr(ord("A") + n),
                sheet,
                s.modules_in_series or case.modules_in_series,
                on_input=n,
            )
            for n, s in enumerate(case.strings)
        ),
        inputs=tuple(Input() for _ in case.strings),
    )
    readings = list(_readings(case, file))
    return diagnosed(rig, readings)


def _readings(case: ReadingsCase, file: str) -> Iterator[Read]:
    taken = [
        (n, field, value)
        for n, one in enumerate(case.strings)
        for field in _READS
        if (value := getattr(one, field)) is not None
    ]
    if not taken:
        raise FormatError(
            file, "strings", "nothing was read of any string", "Type one reading or more."
        )
    light = case.irradiance_w_per_m2
    if light is not None and light < DARK_W_PER_M2:
        found = next(((n, f, v) for n, f, v in taken if f != "insulation_mohm" and v), None)
        if found is not None:
            n, field, value = found
            raise FormatError(
                file,
                f"strings.{n}.{field}",
                f"{value:g} cannot be read in {light:g} W/m²",
                "Type the light in W/m² of the same moment, or null where nobody measured it.",
            )
        light = None
    if light is not None:
        yield Read(Probe(Kind.LIGHT), float(light))
    if case.cell_degc is not None:
        yield Read(Probe(Kind.CELL), float(case.cell_degc))
    for n, field, value in taken:
        yield Read(Probe(_READS[field], n), float(value))
    odd = _oddest(case)
    if case.swap_followed is not None:
        yield Read(Probe(Kind.SWAP, odd), case.swap_followed)
    if case.voltage_drop_pct is not None:
        yield Read(Probe(Kind.DROP, odd), float(case.voltage_drop_pct))
    if case.insulation_mohm is not None:
        yield Read(Probe(Kind.INSULATION_OF_ALL), float(case.insulation_mohm))


def _oddest(case: ReadingsCase) -> int:
    """Return the string that is read furthest below the most of its sisters, the first if none is."""

    def shortfall(n: int) -> float:
        found = [0.0]
        for field in ("voc_v", "isc_a", "v_operating_v", "i_operating_a"):
            values = [abs(v) for s in case.strings if (v := getattr(s, field)) is not None]
            mine = getattr(case.strings[n], field)
            if mine is not None and values and max(values) > 0:
                found.append(1 - mine / max(values))
        return max(found)

    return max(range(len(case.strings)), key=shortfall)


_Case = TypeVar("_Case", bound=BaseModel)


def _validated(kind: type[_Case], text: str, file: str) -> _Case:
    try:
        return kind.model_validate(read_case(text, file))
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        place = ".".join(map(str, first["loc"]))
        raise FormatError(file, place, first["msg"].lower(), "See README, Proving.") from None


def sheet_of(module: CaseModule) -> ModuleSheet:
    """Return a case's module as a datasheet; what readings do not ask for stands for nothing."""
    gamma = module.gamma_pmax_pct_per_k
    return ModuleSheet(
        id=ModuleId("case"),
        name="The case’s module",
        provenance="case file",
        p_max_w=module.p_max_w,
        voc_v=module.voc_v,
        isc_a=module.isc_a,
        vmp_v=module.vmp_v,
        imp_a=module.imp_a,
        beta_voc_frac_per_degc=module.beta_voc_pct_per_k / 100,
        alpha_isc_frac_per_degc=module.alpha_isc_pct_per_k / 100,
        gamma_pmp_frac_per_degc=None if gamma is None else gamma / 100,
        cells_in_series=module.cells_in_series,
        bypass_diodes=module.bypass_diodes,
        half_cut=False,
        long_m=1.7,
        short_m=1.0,
        mass_kg=20.0,
        max_system_v=None,
        max_series_fuse_a=None,
    )
