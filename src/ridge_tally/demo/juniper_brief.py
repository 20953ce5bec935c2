"""The brief of the sample house: a year of invented bills, a car to come, sample grid rules."""

from ridge_tally.core.job.edits.any_edit import BriefEdit
from ridge_tally.core.job.edits.brief.bills import AddBills
from ridge_tally.core.job.edits.brief.grid import RouteField, SetRouteField, TakeGridPack
from ridge_tally.core.job.edits.brief.needs import (
    AddLoad,
    ImportStock,
    LoadField,
    LoadKind,
    ServiceField,
    SetLoadField,
    SetServiceField,
    SetTargetField,
    SetWish,
    TargetField,
    WishFlag,
)
from ridge_tally.core.job.grid import RouteKind
from ridge_tally.core.job.ids import LoadId

BILLS = """from,to,kWh,money
2025-10-06,2025-11-04,1335,
2025-11-04,2025-12-05,1742,
2025-12-05,2026-01-06,2108,
2026-01-06,2026-02-05,2013,
2026-02-05,2026-03-06,1655,
2026-03-06,2026-04-06,1490,
2026-04-06,2026-05-05,1168,
2026-05-05,2026-06-05,1214,
2026-06-05,2026-07-07,1583,
2026-07-07,2026-08-05,1496,
2026-08-05,2026-09-04,1452,
2026-09-04,2026-10-06,,217.19
"""
STOCK = """kind,item,count,name
module,sample-405,18,
inverter,sample-i7-6,1,
rail,rail-4200,14,Rail 4.2 m
"""
BRIEF: tuple[BriefEdit, ...] = (
    TakeGridPack("sample-us-net"),
    AddBills(BILLS),
    AddLoad(LoadKind.CAR),
    SetLoadField(LoadId("load1"), LoadField.DISTANCE, "9200 mi"),
    SetTargetField(TargetField.BUDGET, "36000"),
    SetTargetField(TargetField.PRICE, "2.75"),
    SetServiceField(ServiceField.MAIN_BREAKER, "200"),
    SetServiceField(ServiceField.BUSBAR, "200"),
    SetServiceField(ServiceField.SOURCE_BREAKER, "opposite-end"),
    SetRouteField(RouteKind.APPLY, RouteField.WEEKS, "8"),
    SetWish(WishFlag.BATTERY_LATER, on=True),
    ImportStock(STOCK),
)
