"""What a job's document comes to at once: brief, survey and options, each on its own.

A part the program fails at is told in words and leaves the others standing, so that whatever a
document holds, its job opens and the change that did it can be undone.
"""

import logging
import traceback
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Generic, TypeVar

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.document import Job, alike_but_options
from ridge_tally.core.job.option import Option
from ridge_tally.editing.design import design_for
from ridge_tally.views.brief.report import BriefReport, brief_report
from ridge_tally.views.option import OptionReport, option_report
from ridge_tally.views.survey.drawings import SurveyReport
from ridge_tally.views.survey.report import survey_report

Part = TypeVar("Part")
_LOG = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class Figures:
    """The fast reports of a job; ``problem`` says which could not be worked out and why."""

    brief: BriefReport | None
    survey: SurveyReport | None
    reports: tuple[OptionReport, ...]
    problem: str


def figures_of(job: Job) -> Figures:
    """Return what can be worked out of a document, and in words what cannot."""
    problems: list[str] = []

    def part(name: str, compute: Callable[[], Part]) -> Part | None:
        try:
            return compute()
        except RidgeTallyError as error:
            problems.append(f"{name}: {error}")
        except Exception as error:
            # The one place that answers any failure: a job must open whatever is in it.
            _LOG.exception("%s of “%s” could not be worked out", name, job.name)
            problems.append(f"{name} could not be worked out ({_where(error)}).")
        return None

    options = [
        part(f"Option {option.id.upper()}", partial(_OPTIONS.of, job, option))
        for option in job.options
    ]
    return Figures(
        brief=part("The brief", lambda: _BRIEFS.of(job)),
        survey=part("The survey", lambda: _SURVEYS.of(job)),
        reports=tuple(report for report in options if report is not None),
        problem=" ".join(problems),
    )


class _Latest(Generic[Part]):
    """Reports as last worked out: what an edit leaves alone need not be reported again."""

    def __init__(self, compute: Callable[..., Part]) -> None:
        self._compute = compute
        self._known: deque[tuple[Job, tuple[Option, ...], Part]] = deque(maxlen=24)

    def of(self, job: Job, *option: Option) -> Part:
        """Return the report of a job that is the same but for its options, or of one of these."""
        for known, known_option, report in tuple(self._known):
            if known_option == option and alike_but_options(known, job):
                return report
        report = self._compute(job, *option)
        self._known.append((job, option, report))
        return report


_BRIEFS = _Latest(brief_report)
_SURVEYS = _Latest(survey_report)
_OPTIONS = _Latest(lambda job, option: option_report(design_for(job, option)))


def _where(error: Exception) -> str:
    """Return an unforeseen failure for a person to pass on: ``ZeroDivisionError in trees, line 7``."""
    last = traceback.extract_tb(error.__traceback__)[-1]
    return f"{type(error).__name__} in {Path(last.filename).stem}, line {last.lineno}"
