"""A file of metered use taken in, before a job uses it."""

from dataclasses import dataclass
from hashlib import sha256

import numpy as np

from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.household import LoadFileRef
from ridge_tally.formats.load_file import LoadFile, read_load
from ridge_tally.services.briefing import brief_report
from ridge_tally.services.kept_files import METER_SUFFIX
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.files import keep_file

# A file further from the bills than this is likely of another house or another meter; our own line.
FAR_FRAC = 0.25


@dataclass(frozen=True, slots=True)
class LoadFileTold:
    """A file of metered use: its year, its highest hour, and what was put right in it."""

    ref: LoadFileRef
    most_kw: float
    holes: int
    notes: tuple[str, ...]


def take_in_load(workspace: Workspace, job: Job, content: bytes, file: str) -> LoadFileTold:
    """Keep a file of metered use and return what it is; the job still has the load it had.

    Raises
    ------
    FormatError, StorageFailed
        If it is no year of use, or cannot be written; nothing is kept then.
    """
    found = read_load(content, file, job.site.utc_offset_h, month_first=month_first(job))
    digest = sha256(content).hexdigest()
    if keep_file(workspace.meter_files, digest, content, METER_SUFFIX):
        workspace.forget_weather()
    ref = LoadFileRef(digest, file, found.first_day, found.energy_kwh)
    return LoadFileTold(
        ref, float(np.max(found.power_w)) / 1000, found.holes, (*found.notes, *_against(job, found))
    )


def _against(job: Job, found: LoadFile) -> tuple[str, ...]:
    usage = brief_report(job).usage
    if usage is None or usage.energy_kwh <= 0:
        return ()
    off = found.energy_kwh / usage.energy_kwh - 1
    if abs(off) <= FAR_FRAC:
        return ()
    way = "more" if off > 0 else "less"
    return (
        f"It comes to {found.energy_kwh:.0f} kWh a year, {abs(off) * 100:.0f} % {way} than the bills: "
        "another house, another meter, or another unit",
    )
