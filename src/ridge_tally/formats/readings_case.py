"""Readings case files: a module's datasheet, a string of it and the moment, and what meters should show."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ridge_tally.core.equipment import ModuleId, ModuleSheet
from ridge_tally.core.errors import FormatError
from ridge_tally.core.proving.expected import StringDue, string_due
from ridge_tally.formats.case_file import read_case

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
    try:
        case = ExpectedCase.model_validate(read_case(text, file))
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        place = ".".join(map(str, first["loc"]))
        raise FormatError(file, place, first["msg"].lower(), "See README, Proving.") from None
    return string_due(
        sheet_of(case.module), case.modules_in_series, case.irradiance_w_per_m2, case.cell_degc
    )


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
