"""A utility's portal to practise on: it takes a packet and answers; no utility is asked anything.

Its rules are invented.  What it says never counts as an approval.
"""

from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

from ridge_tally.core.job.packet import Addressee, LogEntry, LogKind

# Invented: what it takes without a study, and what its form is for, kW AC.
UNSTUDIED_KW, MOST_KW = 10.0, 30.0
DAYS = {
    LogKind.QUERY: 4,
    LogKind.APPROVED: 12,
    LogKind.LIMITED: 16,
    LogKind.DELAYED: 6,
    LogKind.REFUSED: 9,
}


class Course(StrEnum):
    """How the answer is to come out: by the packet, or as one wants to practise."""

    BY_PACKET = "by-packet"
    ACCEPTS = "accepts"
    ASKS = "asks"
    LIMITS = "limits"
    DELAYS = "delays"
    REFUSES = "refuses"


@dataclass(frozen=True, slots=True)
class Application:
    """What the portal sees: who answers, the powers, what lacks, what was said before."""

    to: Addressee
    p_ac_kw: float
    phases: int
    lacks: tuple[str, ...]
    log: tuple[LogEntry, ...]


def answers(application: Application, course: Course, today: date) -> tuple[LogEntry, ...]:
    """Return the packet as it was sent, or an answer to its query, and what the portal says to it."""
    mine = [e for e in application.log if e.to is application.to and e.practice]
    asked = bool(mine) and mine[-1].kind is LogKind.QUERY
    sent_on = max([today, *(e.day for e in mine)])
    first = LogEntry(
        application.to, LogKind.ANSWER if asked else LogKind.SENT, sent_on,
        "What was asked for, sent to the practice portal" if asked else "Packet sent to the practice portal",
        practice=True,
    )  # fmt: skip
    kind, words, limit = _said(
        application, course, delayed=bool(mine) and mine[-1].kind is LogKind.DELAYED
    )
    day = sent_on + timedelta(days=DAYS[kind])
    return first, LogEntry(application.to, kind, day, words, limit, practice=True)


def _said(
    application: Application, course: Course, *, delayed: bool
) -> tuple[LogKind, str, float | None]:
    power = application.p_ac_kw
    limit = round(max(1.0, power * 0.6), 1)
    lack = application.lacks[0] if application.lacks else "which way the meter looks"
    said = {
        Course.ACCEPTS: (LogKind.APPROVED, "Accepted as sent. Switch on only after the meter is changed.", None),
        Course.ASKS: (LogKind.QUERY, f"Please send: {lack}.", None),
        Course.LIMITS: (LogKind.LIMITED, f"The line to the house is weak: at most {limit:g} kW may be sent out.", limit),
        Course.DELAYS: (LogKind.DELAYED, "The transformer is looked at first; ask again in six weeks.", None),
        Course.REFUSES: (LogKind.REFUSED, f"{power:g} kW are more than this form is for: {MOST_KW:g} kW. Apply by the long form.", None),
    }  # fmt: skip
    return said[_by_packet(application, delayed=delayed) if course is Course.BY_PACKET else course]


def _by_packet(application: Application, *, delayed: bool) -> Course:
    if application.p_ac_kw > MOST_KW:
        return Course.REFUSES
    if application.lacks:
        return Course.ASKS
    if application.p_ac_kw / application.phases > UNSTUDIED_KW and not delayed:
        return Course.DELAYS
    if application.p_ac_kw / application.phases > UNSTUDIED_KW:
        return Course.LIMITS
    return Course.ACCEPTS
