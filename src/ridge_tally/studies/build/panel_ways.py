"""Ways out where the sources may not be joined at the panel: each tried, ranked by the work it costs."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.edits.brief.needs import ServiceField, SetServiceField
from ridge_tally.core.job.service import Service, SourceBreaker
from ridge_tally.core.working import Check, Verdict, number_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.busbar import best_room, busbar, busbar_checks, service_volts
from ridge_tally.rules.standard_sizes import standard_breakers_a

# What an electrician takes for each, hours; common practice, no source.
MOVE_H, CONTROL_H, INVERTER_H, MAIN_H, TAP_H, BOARD_H = 1.0, 2.0, 2.0, 4.0, 8.0, 16.0
BUSES_A = (100.0, 125.0, 150.0, 200.0, 225.0, 320.0, 400.0)


@dataclass(frozen=True, slots=True)
class PanelWay:
    """A way out: what is done, what it costs in work, the rule it then stands under, and whether it holds.

    ``edit`` takes it, where it is one.
    """

    title: str
    work: str
    hours: float
    rule: str
    told: str
    holds: bool
    edit: SetServiceField | None


@dataclass(frozen=True, slots=True)
class AtPanel:
    """How the sources stand at every board, and the ways out where one does not hold."""

    verdict: Verdict
    told: tuple[str, ...]
    ways: tuple[PanelWay, ...]


def at_panel(design: Design) -> AtPanel:
    """Return how the sources may be joined, with the ways out; the rules are those of one family."""
    if design.job.site.code_pack is not CodePack.US:
        return AtPanel(
            Verdict.NOT_CHECKED,
            ("This family has no sum for a busbar: the board’s maker says what its bars carry.",),
            (),
        )
    checks = busbar_checks(design)
    verdicts = [c.verdict for c in checks]
    worst = next((v for v in (Verdict.BROKEN, Verdict.NOT_CHECKED) if v in verdicts), Verdict.KEPT)
    told = tuple(_line(c) for c in checks)
    if worst is Verdict.KEPT:
        return AtPanel(worst, told, ())
    found = sorted(_ways(design), key=lambda w: (not w.holds, w.hours))
    return AtPanel(worst, told, tuple(found))


def _line(check: Check) -> str:
    if check.verdict is Verdict.NOT_CHECKED:
        return f"{check.subject}: {check.reason}"
    word = "holds" if check.verdict is Verdict.KEPT else "broken"
    value, limit = number_of(check.value), number_of(check.limit)
    return f"{check.subject}: {value:.1f} A of {limit:.1f} A, {word} ({check.source.document})"


def _with(design: Design, **service: object) -> Design:
    """Return the design as if the service were otherwise."""
    changed: Service = replace(design.job.survey.service, **service)  # type: ignore[arg-type]
    job = replace(design.job, survey=replace(design.job.survey, service=changed))
    return replace(design, job=job)


def _way(
    design: Design, title: str, hours: float, told: str, field: ServiceField, typed: str,
    **service: object,
) -> PanelWay:  # fmt: skip
    found = busbar(_with(design, **service))
    return PanelWay(
        title, _hours(hours), hours, found.source.document, told,
        found.verdict is Verdict.KEPT, SetServiceField(field, typed),
    )  # fmt: skip


def _hours(hours: float) -> str:
    return f"about {hours:g} h of an electrician, common practice"


def _ways(design: Design) -> Iterator[PanelWay]:
    service = design.job.survey.service
    at = service.source_breaker
    if at in (SourceBreaker.ELSEWHERE, SourceBreaker.NOT_SAID):
        yield _way(
            design, "Source breaker at the end opposite the main", MOVE_H,
            "Move load breakers up; label the breaker so that nobody moves it",
            ServiceField.SOURCE_BREAKER, SourceBreaker.OPPOSITE_END.value,
            source_breaker=SourceBreaker.OPPOSITE_END,
        )  # fmt: skip
    smaller = _smaller_main(design)
    if smaller is not None:
        yield _way(
            design, f"Main breaker of {smaller:g} A", MAIN_H,
            "Only where a load calculation says the house needs no more (NEC 220.87)",
            ServiceField.MAIN_BREAKER, f"{smaller:g} A", main_breaker_a=smaller,
        )  # fmt: skip
    room = best_room(design)
    if room is not None and room.room_a is not None and room.room_a > 0:
        kw = room.room_a / room.factor * number_of(service_volts(design)) / 1000
        yield PanelWay(
            f"Inverters of {kw:.2f} kW at most", _hours(INVERTER_H), INVERTER_H,
            room.source.document, "Choose among them under Strings, Inverters", True, None,
        )  # fmt: skip
        yield PanelWay(
            f"Power control held at {room.room_a / room.factor:.1f} A", _hours(CONTROL_H),
            CONTROL_H, "NEC 705.13",
            "A listed controller keeps the sum at the setting: ask its maker and the authority",
            True, None,
        )  # fmt: skip
    if at is not SourceBreaker.LINE_SIDE:
        yield _way(
            design, "Tap before the main breaker", TAP_H,
            "The utility disconnects the service; a fused switch of its own at the tap",
            ServiceField.SOURCE_BREAKER, SourceBreaker.LINE_SIDE.value,
            source_breaker=SourceBreaker.LINE_SIDE,
        )  # fmt: skip
    larger = _larger_bus(design)
    if larger is not None:
        yield _way(
            design, f"New board, bus of {larger:g} A", BOARD_H,
            "The main breaker as it is; the utility disconnects the service",
            ServiceField.BUSBAR, f"{larger:g} A", busbar_a=larger,
        )  # fmt: skip


def _smaller_main(design: Design) -> float | None:
    """Return the largest standard main breaker below the one there that lets the sources be."""
    main = design.job.survey.service.main_breaker_a
    if main is None:
        return None
    below = [b for b in standard_breakers_a(CodePack.US) if b < main]
    held = (b for b in reversed(below) if _holds(_with(design, main_breaker_a=b)))
    return next(held, None)


def _larger_bus(design: Design) -> float | None:
    bus = design.job.survey.service.busbar_a
    if bus is None:
        return None
    return next((b for b in BUSES_A if b > bus and _holds(_with(design, busbar_a=b))), None)


def _holds(design: Design) -> bool:
    return busbar(design).verdict is Verdict.KEPT
