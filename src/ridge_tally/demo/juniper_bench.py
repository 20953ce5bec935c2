"""The first sample job: Juniper Bench, an invented house in the high desert."""

from datetime import date

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import InverterId, ModuleId
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.code_rules import Shutdown
from ridge_tally.core.job.document import CodePack, DesignTemperature, Equipment, Job, Site
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.brief.needs import ServiceField, SetNoGo, SetServiceField
from ridge_tally.core.job.edits.build.circuits import SetWiringField, WiringField
from ridge_tally.core.job.edits.build.racking import (
    ChooseMounting,
    DesignLoadField,
    SetDesignLoad,
    SetRunOn,
)
from ridge_tally.core.job.edits.money.incentives import (
    AddIncentive,
    IncentiveField,
    SetIncentiveField,
)
from ridge_tally.core.job.edits.money.prices import MoneyField, SetMoneyField
from ridge_tally.core.job.edits.options import CopyOption
from ridge_tally.core.job.edits.strings.threading import WishSeriesLength
from ridge_tally.core.job.edits.strings.wiring import PlaceBox, SetShutdown
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.job.money import IncentiveId, IncentiveKind
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.survey import Survey
from ridge_tally.core.mounting_sheet import MountingId
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.juniper_brief import BRIEF
from ridge_tally.demo.juniper_survey import GARAGE_EAST, NORTH, SOUTH, SURVEY
from ridge_tally.demo.prices import price_edits
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.survey.planes import blank_plane

CREDIT, UTILITY = IncentiveId("incentive2"), IncentiveId("incentive1")
# Invented, in the shape such programmes have.
INCENTIVES: tuple[Edit, ...] = (
    AddIncentive("Sample co-operative’s rebate", IncentiveKind.SHARE),
    SetIncentiveField(UTILITY, IncentiveField.RATE, "5 %"),
    SetIncentiveField(UTILITY, IncentiveField.CAP, "1200"),
    SetIncentiveField(UTILITY, IncentiveField.SOURCE, "invented for this sample"),
    AddIncentive("Sample state credit", IncentiveKind.CREDIT),
    SetIncentiveField(CREDIT, IncentiveField.RATE, "10 %"),
    SetIncentiveField(CREDIT, IncentiveField.CAP, "6000"),
    SetIncentiveField(CREDIT, IncentiveField.REFUNDABLE, "no"),
    SetIncentiveField(CREDIT, IncentiveField.SOURCE, "invented for this sample"),
    SetMoneyField(MoneyField.TAX_OWED, "1800"),
)
MODULE, INVERTER = ModuleId("sample-405"), InverterId("sample-i7-6")
MOUNTING, LOADS_SOURCE = MountingId("sample-flashed-foot"), "invented county table"


def juniper_bench(shelf: Shelf) -> Job:
    """Return the sample job: house and garage, two options, the second with a string too long."""
    a, b = OptionId("a"), OptionId("b")
    job = Job(
        name="Juniper Bench",
        unit=LengthUnit.FOOT,
        site=_site(),
        survey=Survey((blank_plane(SOUTH, "South roof", LengthUnit.FOOT),)),
        equipment=Equipment((shelf.module(MODULE),), (shelf.inverter(INVERTER),)),
        options=(Option(a, "two trackers", MODULE, INVERTER),),
    )
    steps: tuple[Edit, ...] = (
        *SURVEY,
        *BRIEF,
        SetServiceField(ServiceField.SPACES, "2"),
        SetServiceField(ServiceField.DISCONNECT_WITHIN, "10'"),
        SetNoGo(NORTH, on=True),
        SetNoGo(GARAGE_EAST, on=True),
        FillPlane(a, SOUTH, Ways.PORTRAIT),
        SetShutdown(a, Shutdown.MODULE_SWITCHES),
        PlaceBox(a, SOUTH, 11.9, 0.3),
        ChooseMounting(a, SOUTH, MOUNTING),
        SetDesignLoad(DesignLoadField.WIND, "115 mph", LOADS_SOURCE),
        SetDesignLoad(DesignLoadField.SNOW, "30 psf", LOADS_SOURCE),
        SetDesignLoad(DesignLoadField.EXPOSURE, "C", LOADS_SOURCE),
        SetDesignLoad(DesignLoadField.ROOF_HEIGHT, "12'", "taped"),
        SetDesignLoad(DesignLoadField.GCP_FIELD, "-1.8", "invented table of this sample"),
        SetDesignLoad(DesignLoadField.GCP_EDGE, "-2.5", "invented table of this sample"),
        SetDesignLoad(DesignLoadField.WOOD, "0.50", "invented: a dense softwood"),
        SetRunOn(a, SOUTH, on=True),
        SetWiringField(a, WiringField.FAULT, "8 kA"),
        SetWiringField(a, WiringField.INTERRUPTS, "10 kA"),
        CopyOption(a, "one longer string"),
        WishSeriesLength(b, 15),
    )
    designed = apply_edits(job, steps, shelf)
    prices = price_edits(designed, hour="64", permits="480", office="3600", share="42 %")
    return apply_edits(designed, (*prices, *INCENTIVES), shelf)


def _site() -> Site:
    return Site(
        place="Juniper Bench, high desert",
        latitude_deg=36.2,
        longitude_deg=-105.6,
        elevation_m=2150.0,
        utc_offset_h=-7.0,
        climate_id="high-desert",
        code_pack=CodePack.US,
        dwelling=True,
        coldest=DesignTemperature(-28.0, "invented extreme annual mean minimum of this sample"),
        hottest=DesignTemperature(31.0, "invented 2 % design temperature of this sample"),
        time_zone="America/Denver",
        survey_day=date(2026, 10, 12),
    )
