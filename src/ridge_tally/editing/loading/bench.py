"""Applying the edits of the measured-curve bench."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.brief.typed import parse_quantity
from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.bench import Bench, BenchTerm
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.loading.bench import BenchEdit, ClearBench, SetBench, UsePowerFile
from ridge_tally.core.job.system import strung_w, system_of
from ridge_tally.editing.loading.units import KW

WATTS = {"": 1.0, "w": 1.0, "kw": 1000.0, "wp": 1.0, "kwp": 1000.0}


def bench_changed(job: Job, edit: BenchEdit) -> Job:
    """Return the job with another measured day on its bench, or other things made of it.

    Raises
    ------
    NotUnderstood
        If a figure cannot be read.
    BadGeometry
        If there is no measured day yet.
    """
    match edit:
        case ClearBench():
            return replace(job, bench=None)
        case UsePowerFile():
            watts = _watts(edit.module_w, "Watts of the test module")
            old = job.bench
            terms = old.terms if old else _whole_array(job)
            bench = Bench(edit.file, watts, terms, old.limit_kw if old else None)
            return replace(job, bench=bench)
        case SetBench():
            if job.bench is None:
                raise BadGeometry("Bench", "no measured day lies on it", "Choose its file first.")
            bench = replace(
                job.bench,
                module_w=_watts(edit.module_w, "Watts of the test module"),
                terms=tuple(
                    BenchTerm(_watts(t.watts, f"Group {n}"), t.mirrored)
                    for n, t in enumerate(edit.terms, start=1)
                ),
                limit_kw=parse_quantity(edit.limit_kw, "Limit of the bench", KW, "kW such as 5")
                if edit.limit_kw.strip()
                else None,
                daylight=edit.daylight,
            )
            return replace(job, bench=bench)
        case _:
            assert_never(edit)


def _watts(typed: str, field: str) -> float:
    return parse_quantity(typed, field, WATTS, "watts such as 405 or 6.2 kW")


def _whole_array(job: Job) -> tuple[BenchTerm, ...]:
    """Return the first option's array as one group: what a person changes from."""
    watts = strung_w(system_of(job, job.options[0]))
    return (BenchTerm(watts, mirrored=False),) if watts > 0 else ()
