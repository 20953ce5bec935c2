"""A tester's own file of a commissioning: strings with their voltages, currents and insulation."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ridge_tally.core.errors import FormatError
from ridge_tally.core.job.proving import ProofStep
from ridge_tally.formats.table import read_table
from ridge_tally.formats.timed_table import RETRY, decoded, number_at

LARGEST_BYTES = 1024 * 1024


@dataclass(frozen=True, slots=True)
class TestedRows:
    """Readings of one step at one light: ``typed`` as they are written down, by string."""

    step: ProofStep
    places: tuple[str, ...]
    typed: tuple[str, ...]
    light: str
    back: str
    time: str


_NAME = re.compile(r"string|circuit|name|test ?point|label", re.IGNORECASE)
_LIGHT = re.compile(r"irradian|w\s*/\s*m|light|\bsun", re.IGNORECASE)
_BACK = re.compile(r"back|temp|°\s*c", re.IGNORECASE)
_TIME = re.compile(r"\btime|clock", re.IGNORECASE)
_STEPS: tuple[tuple[ProofStep, re.Pattern[str]], ...] = (
    (ProofStep.VOC, re.compile(r"voc|open", re.IGNORECASE)),
    (ProofStep.ISC, re.compile(r"isc|short", re.IGNORECASE)),
    (ProofStep.INSULATION, re.compile(r"riso|insul", re.IGNORECASE)),
)
_OHM = re.compile(r"\b([kMG])(?:Ω|ohm)", re.IGNORECASE)
_MEGAOHM = {"k": 1e-3, "m": 1.0, "g": 1e3}


def read_tester(content: bytes, file: str, tags: Sequence[str]) -> tuple[TestedRows, ...]:
    """Return what a tester wrote of a job's strings, step by step, in the order of its rows.

    Parameters
    ----------
    tags : sequence of str
        What the job calls its strings; the file may call one ``B``, ``string B`` or ``PV-B``.

    Raises
    ------
    FormatError
        Naming the file, the row or column, and the remedy: no column of readings, a string that
        the job has not, words for a number.
    """
    if len(content) > LARGEST_BYTES:
        raise FormatError(file, "", f"{len(content) / 1e6:.1f} MB is no list of strings", RETRY)
    lines = read_table(decoded(content), file)
    head = next((i for i, line in enumerate(lines[:30]) if _columns(line)), None)
    if head is None:
        raise FormatError(
            file, "heading", "no column is of open voltage, short-circuit current or insulation",
            "Write Voc (V), Isc (A) or Riso (MΩ) into the headings.",
        )  # fmt: skip
    names, rows = lines[head], lines[head + 1 :]
    if not rows:
        raise FormatError(file, "rows", "there are none under the heading", RETRY)
    name_at = next((i for i, n in enumerate(names) if _NAME.search(n)), 0)
    places = [_tag(row, name_at, tags, file, head + n) for n, row in enumerate(rows, 2)]
    return tuple(_tested(names, rows, places, file, head + 2))


def _columns(names: Sequence[str]) -> dict[ProofStep, int]:
    found = {
        step: next((i for i, n in enumerate(names) if mark.search(n)), -1) for step, mark in _STEPS
    }
    return {step: at for step, at in found.items() if at >= 0}


def _tag(row: Sequence[str], at: int, tags: Sequence[str], file: str, number: int) -> str:
    said = row[at].strip() if at < len(row) else ""
    last = re.split(r"[\s_\-./]+", said)[-1]
    for name in (said, last):
        for tag in tags:
            if tag.casefold() == name.casefold():
                return tag
    raise FormatError(
        file, f"row {number}", f"the job has no string “{said[:30]}”",
        f"Call it one of {', '.join(tags)}.",
    )  # fmt: skip


def _tested(
    names: Sequence[str],
    rows: Sequence[Sequence[str]],
    places: Sequence[str],
    file: str,
    first: int,
) -> Iterator[TestedRows]:
    columns = _columns(names)
    common = [tuple(_said(row, names, mark) for mark in (_LIGHT, _BACK, _TIME)) for row in rows]
    steps = [(step, columns[step]) for step, _ in _STEPS if step in columns]
    if ProofStep.VOC in columns:
        # The sign of an open voltage is the polarity.
        steps.insert(0, (ProofStep.POLARITY, columns[ProofStep.VOC]))
    for step, at in steps:
        scale = 1.0
        if step is ProofStep.INSULATION and (unit := _OHM.search(names[at])):
            scale = _MEGAOHM[unit[1].lower()]
        for light, back, time in dict.fromkeys(common):
            mine = [
                n for n, row in enumerate(rows)
                if common[n] == (light, back, time) and at < len(row) and row[at].strip()
            ]  # fmt: skip
            typed = tuple(f"{number_at(rows[n], at, file, first + n) * scale:g}" for n in mine)
            if mine:
                yield TestedRows(step, tuple(places[n] for n in mine), typed, light, back, time)


def _said(row: Sequence[str], names: Sequence[str], mark: re.Pattern[str]) -> str:
    at = next((i for i, n in enumerate(names) if mark.search(n)), -1)
    return row[at].strip() if 0 <= at < len(row) else ""
