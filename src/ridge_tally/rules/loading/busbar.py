"""How a source may be joined at the panel: every permitted way is tried, and the one that holds named."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.service import Service, SourceBreaker, SubPanel
from ridge_tally.core.working import Check, Given, LimitKind, Source, check, number_of
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.ac_sources import AcPower, on_fullest_phase
from ridge_tally.rules.standard_sizes import next_breaker_a

TABLE = "busbar-methods"
# The voltage of one phase where no grid rules say it: split-phase, or a leg of two or three.
SPLIT_PHASE_V, LEG_V = 240.0, 120.0
# Outside the United States: IEC 60038, from memory.
IEC_PHASE_V = 230.0
PANEL, SURVEY = "main panel", "survey of the panel"


@dataclass(frozen=True, slots=True)
class Way:
    """A way of joining: what it adds up and may reach, and how much 125 % of the sources it leaves.

    ``value_a`` and ``most`` are ``None`` where a figure of the panel is not given.  ``only_if``:
    where the source breaker must stand for it, while nobody said where it does.
    """

    name: str
    formula: str
    givens: tuple[Given, ...]
    value_a: float | None
    most: Given
    room_a: float | None
    factor: float
    source: Source
    missing: str
    only_if: str = ""

    @property
    def holds(self) -> bool | None:
        """Whether it holds; ``None`` where a figure is missing."""
        if self.value_a is None or self.most.value is None:
            return None
        return self.value_a <= self.most.value * (1 + 1e-9)


def busbar_checks(design: Design) -> tuple[Check, ...]:
    """Return for every board from the sources to the main panel whether they may be joined so.

    Before the main breaker no board lies between.
    """
    service = design.job.survey.service
    between = () if service.source_breaker is SourceBreaker.LINE_SIDE else service.subpanels
    boards = [(board.name, _as_service(service, board)) for board in between]
    return tuple(_board(design, name, board) for name, board in (*boards, (PANEL, service)))


def busbar(design: Design) -> Check:
    """Return whether the sources may be joined at the main panel, by whichever way holds."""
    return _board(design, PANEL, design.job.survey.service)


def _as_service(service: Service, board: SubPanel) -> Service:
    """Return a board as its own service: what guards it is its main breaker, else its feeder's."""
    at = service.source_breaker
    return replace(
        service,
        main_breaker_a=board.feeder_a if board.main_breaker_a is None else board.main_breaker_a,
        busbar_a=board.busbar_a,
        load_breakers_a=None,
        source_breaker=SourceBreaker.OPPOSITE_END if at is SourceBreaker.FEEDER else at,
    )


def _board(design: Design, name: str, service: Service) -> Check:
    tried = ways(design, service)
    sure = [w for w in tried if w.holds and not w.only_if]
    if sure:
        return _told(design, name, sure[0])
    failed = [w for w in tried if w.holds is False]
    may = [w for w in tried if w.holds and w.only_if]
    if may or not failed:
        asked = may or list(tried)
        return _told(design, name, asked[0], reason=_reason(asked[0]))
    # A sum nobody typed may still let it be: the best of what was reckoned stands till then.
    still = [f"open still: {w.name}, once {w.missing} are typed" for w in tried if w.holds is None]
    return _told(design, name, max(failed, key=lambda w: w.room_a or 0.0), "; ".join(still))


def best_room(design: Design) -> Way | None:
    """Return the way that leaves most for sources; ``None`` while none can be reckoned.

    Where the source breaker stands decides by how much: nobody said, nobody knows.
    """
    service = design.job.survey.service
    if service.source_breaker is SourceBreaker.NOT_SAID:
        return None
    known = [w for w in ways(design, service) if w.room_a is not None]
    return max(known, key=lambda w: w.room_a or 0.0, default=None)


def service_volts(design: Design) -> Given:
    """Return the voltage a phase's current is reckoned at."""
    grid = design.job.brief.grid
    if grid is not None:
        return Given("u", "volts of a phase", grid.volts_per_phase_v, "V", "grid rules")
    if design.job.site.code_pack is not CodePack.US:
        usual = IEC_PHASE_V
    else:
        usual = SPLIT_PHASE_V if design.job.survey.service.phases == 1 else LEG_V
    return Given("u", "volts of a phase", usual, "V", "usual service")


def ways(design: Design, service: Service) -> tuple[Way, ...]:
    """Return every way that is open to a source where its breaker stands, the plainest first."""
    return tuple(_ways(service, on_fullest_phase(design), service_volts(design)))


def _ways(service: Service, power: AcPower, volts: Given) -> Iterator[Way]:
    at = service.source_breaker
    if at is SourceBreaker.LINE_SIDE:
        yield _line_side(service, power, volts)
        return
    if at is SourceBreaker.FEEDER:
        feeder = Given("feeder", "what the feeder carries", service.feeder_a, "A", SURVEY)
        yield _beside_main("feeder", service, power, volts, feeder, "what the feeder carries")
        return
    bus = Given("bus", "busbar", service.busbar_a, "A", SURVEY)
    yield _beside_main("sum of sources", service, power, volts, bus, "the busbar")
    if at in (SourceBreaker.OPPOSITE_END, SourceBreaker.NOT_SAID):
        only_if = "" if at is SourceBreaker.OPPOSITE_END else "at the end opposite the main breaker"
        yield _beside_main("120 per cent", service, power, volts, bus, "the busbar", only_if)
    if at is SourceBreaker.CENTRE_FED:
        yield _beside_main("centre-fed", service, power, volts, bus, "the busbar")
    yield _sum_of_breakers(service, power, volts, bus)


def _row(name: str) -> tuple[float, float, Source]:
    table = tables.load(TABLE)
    clause = f"{table.text('clause', method=name)} ({table.source.clause})"
    return (
        table.number("share", method=name),
        table.number("factor", method=name),
        Source(f"{table.source.document} {clause}, {name}", "", table.source.status),
    )


def _amps(power: AcPower, volts: Given) -> float:
    return power.kw * 1000 / number_of(volts)


def _beside_main(
    name: str,
    service: Service,
    power: AcPower,
    volts: Given,
    carries: Given,
    words: str,
    only_if: str = "",
) -> Way:
    """Main breaker and 125 % of all inverter currents against a share of what carries both."""
    share, factor, source = _row(name)
    main_a, whole_a = service.main_breaker_a, carries.value
    most_a = None if whole_a is None else share * whole_a
    told = words if share == 1.0 else f"{share * 100:.0f} % of {words}"
    room_a = None if main_a is None or most_a is None else most_a - main_a
    return Way(
        name,
        f"main + f * ({power.formula}) * 1000 / u",
        (
            Given("main", "main breaker", main_a, "A", SURVEY),
            Given("f", "continuous current", factor, "", "code"),
            *power.givens,
            volts,
        ),
        None if main_a is None else main_a + factor * _amps(power, volts),
        Given("most", told, most_a, "A", SURVEY),
        room_a,
        factor,
        source,
        f"main breaker and {words}" if room_a is None else "",
        only_if,
    )


def _sum_of_breakers(service: Service, power: AcPower, volts: Given, bus: Given) -> Way:
    """All breakers of the panel but the main one, the sources' among them, against the busbar."""
    _, factor, source = _row("sum of breakers")
    loads_a, bus_a = service.load_breakers_a, service.busbar_a
    breaker_a = next_breaker_a(CodePack.US, factor * _amps(power, volts))
    room_a = None
    if loads_a is not None and bus_a is not None and breaker_a is not None:
        room_a = bus_a - loads_a
    return Way(
        "sum of breakers",
        "loads + b",
        (
            Given("loads", "load breakers of the panel together", loads_a, "A", SURVEY),
            Given("b", "breaker of the sources, next standard size", breaker_a, "A", "code"),
        ),
        loads_a + breaker_a if loads_a is not None and breaker_a is not None else None,
        Given("most", "the busbar", bus.value, "A", SURVEY),
        room_a,
        factor,
        source,
        "the load breakers’ sum and the busbar" if room_a is None else "",
    )


def _line_side(service: Service, power: AcPower, volts: Given) -> Way:
    """Before the main breaker: rated outputs together against the service."""
    _, factor, source = _row("line side")
    main_a = service.main_breaker_a
    return Way(
        "line side",
        f"({power.formula}) * 1000 / u",
        (*power.givens, volts),
        _amps(power, volts),
        Given("most", "the service, by its main breaker", main_a, "A", SURVEY),
        main_a,
        factor,
        source,
        "" if main_a is not None else "the main breaker",
    )


def _told(design: Design, subject: str, way: Way, still: str = "", reason: str = "") -> Check:
    volts = number_of(service_volts(design))
    room = ""
    if way.room_a is not None:
        room_kw = max(0.0, way.room_a) / way.factor * volts / 1000
        each = " on a phase" if design.job.survey.service.phases > 1 else ""
        room = f"by {way.name} takes up to {room_kw:.2f} kW of inverters{each}"
    return check(
        rule_id="grid.busbar",
        title="Busbar",
        subject=subject,
        kind=LimitKind.STOP,
        formula=way.formula,
        givens=way.givens,
        value=None if reason else way.value_a,
        symbol="i_bus",
        unit="A",
        relation="<=",
        limit=way.most,
        source=way.source,
        reached_at="; ".join(filter(None, (room, still))),
        reason=reason,
    )


def _reason(way: Way) -> str:
    """Return what must be said before it can be judged."""
    if way.only_if:
        return (
            f"Not checked: it holds only with the source breaker {way.only_if}. Say where it "
            "stands, under Service."
        )
    return f"Not checked: type {way.missing}, under Service. Other ways of connecting may be open."
