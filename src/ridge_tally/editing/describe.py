"""What an edit did, in words, for the history."""

from ridge_tally.core.job.array import WAYS_TOLD
from ridge_tally.core.job.edits.any_edit import Edit, TakeRemedy
from ridge_tally.core.job.edits.array.fills import FillPlane, LayModules
from ridge_tally.core.job.edits.array.modules import MoveModules, ToggleModules, TurnModules
from ridge_tally.core.job.edits.brief.site import (
    SetSiteField,
)
from ridge_tally.core.job.edits.loading.batteries import SetBattery
from ridge_tally.core.job.edits.loading.bench import UsePowerFile
from ridge_tally.core.job.edits.loading.household import UseLoadFile
from ridge_tally.core.job.edits.sheets.packet import KeepWanted, RecordPractice, WriteToLog
from ridge_tally.core.job.edits.sheets.paperwork import DropSet, KeepSet, RecordIssue
from ridge_tally.core.job.edits.sheets.work import HoldDays
from ridge_tally.core.job.edits.sun.weather import SetMonthly, UseWeatherFile
from ridge_tally.core.job.edits.survey.obstructions import SetObstructionField
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import SetPlaneField
from ridge_tally.editing.brief.site import SITE_NAMES


def describe_edit(edit: Edit) -> str:  # noqa: PLR0911, PLR0912 - one return an edit
    """Return what the edit did, for the history: ``eave 12.19``."""
    match edit:
        case SetPlaneField():
            return f"{edit.field.value.replace('_', ' ')} {edit.typed}"
        case SetReading():
            return f"{edit.reading.value} {'–'.join(str(i + 1) for i in edit.at)} {edit.typed}"
        case SetObstructionField():
            return f"obstruction {edit.field.value} {edit.typed}"
        case SetSiteField():
            return f"{SITE_NAMES[edit.field].lower()} {edit.typed}"
        case SetMonthly():
            return f"{edit.quantity.value.replace('_', ' ')} {edit.typed}"
        case UseWeatherFile():
            return f"weather of {edit.file.place}"
        case UseLoadFile() | UsePowerFile():
            return f"{edit.kind.replace('-', ' ')} {edit.file.file}"
        case SetBattery():
            return f"battery {edit.usable} kWh"
        case FillPlane():
            return f"fill {WAYS_TOLD[edit.ways]}"
        case LayModules():
            return f"lay {len(edit.places)} module(s)"
        case TakeRemedy():
            return edit.told
        case RecordIssue():
            return f"issue {edit.issue.number}, {edit.issue.name} set"
        case KeepWanted():
            return f"{edit.to.value} wants: {edit.wanted.words}"
        case WriteToLog():
            return f"{edit.to.value} log: {edit.what.value} {edit.day}"
        case RecordPractice():
            return f"practice: {', '.join(e.kind.value for e in edit.entries)}"
        case HoldDays():
            return f"hold {edit.from_day} {edit.to_day}, {edit.why}"
        case KeepSet() | DropSet():
            return f"{edit.kind.replace('-', ' ')} {edit.name}"
        case ToggleModules() | MoveModules() | TurnModules():
            return f"{edit.kind.split('-')[0]} {len(edit.module_ids)} module(s)"
        case _:
            return f"{edit.kind.replace('-', ' ')} {getattr(edit, 'typed', '')}".strip()
