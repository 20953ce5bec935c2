"""Every edit a person can make, as data: a step's edits together, and all of them.

A gesture, a typed length, a command-line call and the fix offered by a check are all
one of these; ``editing`` applies them, a file of handlers to each file of edits.  Lengths and
angles travel as typed, so that the reader in ``core.units`` is the only one that decides what
they mean.
"""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.edits.array.fills import FillEdit, FillPlane
from ridge_tally.core.job.edits.array.kinds import ChooseModule, KindEdit
from ridge_tally.core.job.edits.array.modules import ModuleEdit, ToggleModules
from ridge_tally.core.job.edits.array.tables import SetSeasons, TableEdit
from ridge_tally.core.job.edits.brief.bills import BillEdit
from ridge_tally.core.job.edits.brief.grid import GridEdit
from ridge_tally.core.job.edits.brief.needs import NeedEdit
from ridge_tally.core.job.edits.brief.site import SiteEdit
from ridge_tally.core.job.edits.build.circuits import CircuitEdit
from ridge_tally.core.job.edits.build.racking import RackingEdit
from ridge_tally.core.job.edits.loading.batteries import BatteryEdit
from ridge_tally.core.job.edits.loading.bench import BenchEdit
from ridge_tally.core.job.edits.loading.household import HouseholdEdit
from ridge_tally.core.job.edits.money.incentives import IncentiveEdit
from ridge_tally.core.job.edits.money.offers import OfferEdit
from ridge_tally.core.job.edits.money.prices import PriceEdit
from ridge_tally.core.job.edits.options import OptionEdit
from ridge_tally.core.job.edits.proving.built import BuiltEdit
from ridge_tally.core.job.edits.proving.readings import ReadingEdit
from ridge_tally.core.job.edits.sheets.packet import PacketEdit
from ridge_tally.core.job.edits.sheets.paperwork import TitleEdit
from ridge_tally.core.job.edits.sheets.work import WorkEdit
from ridge_tally.core.job.edits.strings.electronics import ElectronicsEdit
from ridge_tally.core.job.edits.strings.inverters import InverterEdit
from ridge_tally.core.job.edits.strings.threading import ThreadEdit
from ridge_tally.core.job.edits.strings.wiring import WiringEdit
from ridge_tally.core.job.edits.sun.weather import WeatherEdit
from ridge_tally.core.job.edits.survey.obstructions import ObstructionEdit
from ridge_tally.core.job.edits.survey.outlines import OutlineEdit
from ridge_tally.core.job.edits.survey.planes import PlaneEdit
from ridge_tally.core.job.edits.survey.surroundings import SurroundingsEdit
from ridge_tally.core.job.ids import OptionId

BriefEdit = SiteEdit | BillEdit | GridEdit | NeedEdit
SurveyEdit = PlaneEdit | OutlineEdit | ObstructionEdit | SurroundingsEdit
ArrayEdit = KindEdit | FillEdit | ModuleEdit | TableEdit
StringEdit = ThreadEdit | InverterEdit | WiringEdit | ElectronicsEdit
LoadingEdit = HouseholdEdit | BatteryEdit | BenchEdit
BuildEdit = RackingEdit | CircuitEdit
PaperworkEdit = TitleEdit | PacketEdit | WorkEdit
ProvingEdit = BuiltEdit | ReadingEdit
MoneyEdit = PriceEdit | IncentiveEdit | OfferEdit

RemedyStep = (
    ThreadEdit
    | InverterEdit
    | ElectronicsEdit
    | BatteryEdit
    | ChooseModule
    | ToggleModules
    | FillPlane
    | SetSeasons
)


@dataclass(frozen=True, slots=True)
class TakeRemedy:
    """Several edits of one option as one: what leads out of a trouble, undone in one go.

    ``into``: the name of a new option that it is carried out in; empty for the option itself.
    """

    option_id: OptionId
    told: str
    steps: tuple[RemedyStep, ...]
    into: str = ""
    kind: Literal["take-remedy"] = "take-remedy"


Edit = (
    OptionEdit
    | TakeRemedy
    | BriefEdit
    | SurveyEdit
    | ArrayEdit
    | WeatherEdit
    | StringEdit
    | LoadingEdit
    | BuildEdit
    | MoneyEdit
    | PaperworkEdit
    | ProvingEdit
)
