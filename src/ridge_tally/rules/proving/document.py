"""What must hold of the log of a built job before anything is made of it."""

import re
from collections.abc import Iterator

from ridge_tally.core.errors import FormatError, OutOfRange
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.proving import Practice, ProvingLog
from ridge_tally.rules.distinct import require_distinct
from ridge_tally.rules.option_document import require_sound_option

MOST_SERIALS, MOST_RECORDS, MOST_TESTS, MOST_READINGS, MOST_FILES, MOST_NOTES = (
    2000, 2000, 2000, 200, 24, 200,
)  # fmt: skip
LONGEST_SERIAL, LONGEST_LINE, MOST_SEED = 60, 300, 2**31 - 1
_HASH = re.compile(r"[0-9a-f]{64}")


def require_sound_proving(job: Job) -> None:
    """Raise on the first thing that cannot be.

    Raises
    ------
    OutOfRange, BadGeometry, FormatError, NotFound
        Naming the field, the value and what to do.
    """
    log = job.proving
    for what, rows, most in (
        ("Serial numbers", log.serials, MOST_SERIALS),
        ("Records", log.records, MOST_RECORDS),
        ("Readings of commissioning", log.tests, MOST_TESTS),
        ("Readings of the search", log.hunt.readings, MOST_READINGS),
        ("Readings of the practice", log.practice.taken if log.practice else (), MOST_READINGS),
        ("Files of a gateway", log.production, MOST_FILES),
        ("Notes of the site", log.built.notes if log.built else (), MOST_NOTES),
    ):
        if len(rows) > most:
            raise OutOfRange(what, len(rows), f"at most {most}", "Remove some first.")
    require_distinct("serial numbers’ places", [f"{s.carries}:{s.place}" for s in log.serials])
    require_distinct("patterns", [p.carries.value for p in log.patterns])
    for name, text, most in _texts(log):
        if len(text) > most:
            raise OutOfRange(f"{name}, letters", len(text), f"at most {most}")
    for n, kept in enumerate(log.production):
        if not _HASH.fullmatch(kept.sha256):
            raise FormatError(
                "job", f"proving.production.{n}", "it is no kept file", "Leave it out."
            )
    for n, record in enumerate(log.records):
        if record.picture and not _HASH.fullmatch(record.picture):
            raise FormatError(
                "job", f"proving.records.{n}", "it is no kept picture", "Leave it out."
            )
    _require_seed(log.practice)
    if log.built is not None:
        require_sound_option(job, log.built.drawn)


def _texts(log: ProvingLog) -> Iterator[tuple[str, str, int]]:
    yield from (("Serial number", s.text, LONGEST_SERIAL) for s in log.serials)
    yield from (("Pattern", p.pattern, LONGEST_SERIAL) for p in log.patterns)
    for record in log.records:
        yield from (("Record", t, LONGEST_LINE) for t in (record.slot, record.typed, record.note))
    for row in log.tests:
        yield from (("Reading", t, LONGEST_LINE) for t in (row.place, row.typed, row.meter))


def _require_seed(practice: Practice | None) -> None:
    if practice is not None and not 0 <= practice.seed <= MOST_SEED:
        raise OutOfRange("Number of the practice", practice.seed, f"between 0 and {MOST_SEED}")
