"""Weather and meter files kept beside the jobs, by their hash."""

from pathlib import Path

from ridge_tally.simulation.desk import Desk
from ridge_tally.store.files import kept_file

WEATHER_SUFFIX = METER_SUFFIX = ".csv"


def weather_file(desk: Desk, sha256: str) -> Path:
    """Return a weather file's place; NotFound if it is not kept here."""
    return kept_file(desk.weather_files, sha256, (WEATHER_SUFFIX,), "weather file")


def meter_file(desk: Desk, sha256: str) -> Path:
    """Return the place of a file of metered use or power; NotFound if it is not kept here."""
    return kept_file(desk.meter_files, sha256, (METER_SUFFIX,), "file")
