"""A job's tables as rows with their units in the headings: modules, strings, mounts, parts, circuits, sums, years."""

from collections.abc import Callable, Iterator
from typing import TypeVar

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.packet import Addressee
from ridge_tally.formats.csv_file import Row
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.views.build.circuits import CircuitsView, circuits_told
from ridge_tally.views.build.racking import RackingView, racking_view
from ridge_tally.views.money.view import MoneyView, money_view
from ridge_tally.views.money.worked import currency_of
from ridge_tally.views.option import option_report
from ridge_tally.views.sheets.design import check_rows
from ridge_tally.views.sheets.packet import packet_view

Tables = dict[str, list[Row]]


def out_tables(desk: Desk, design: Design) -> Iterator[tuple[str, list[Row]]]:
    """Yield every table of an option by its name; one that cannot be made yet is left out."""
    yield "modules", _modules(design)
    yield "strings", _strings(design)
    makers: tuple[Callable[[], Tables], ...] = (
        lambda: circuit_tables(circuits_told(design)),
        lambda: racking_tables(_last(racking_view(desk, design)), currency_of(design.job)),
        lambda: {"checks": _checks(design)},
        lambda: {"money": year_rows(_last(money_view(desk, design)))},
        lambda: {"packet": _wanted(design)},
    )
    for made in makers:
        try:
            yield from made().items()
        except RidgeTallyError:
            # Prices or a grid that nobody gave: the rest is still of use.
            continue


View = TypeVar("View")


def _last(views: Iterator[View]) -> View:
    *_, last = views
    return last


def _modules(design: Design) -> list[Row]:
    strings = {
        m: (s.tag, n) for s in design.option.strings for n, m in enumerate(s.module_ids, start=1)
    }
    return [
        {
            "plane": laid.plane.name,
            "module": n,
            "type": laid.module.name,
            "x_m": round(m.x_m, 4),
            "y_m": round(m.y_m, 4),
            "way_round": m.orientation.value,
            "string": strings.get(m.id, ("", ""))[0],
            "place_in_string": strings.get(m.id, ("", ""))[1],
            "id": m.id,
        }
        for laid in design.arrays
        for n, m in enumerate(present_of(laid.array), start=1)
    ]


def _strings(design: Design) -> list[Row]:
    return [
        {
            "string": s.tag,
            "tracker": s.tracker_number,
            "modules": len(s.module_ids),
            "voc_25degc_v": round(sum(design.sheets[m].voc_v for m in s.module_ids), 2),
            "isc_25degc_a": round(min(design.sheets[m].isc_a for m in s.module_ids), 2),
        }
        for s in design.option.strings
    ]


def _checks(design: Design) -> list[Row]:
    views = tuple(v for v in option_report(design).checks if v.on_sheet)
    return [
        {
            "check": r.title, "kind": r.kind, "of": r.subjects, "sum": r.numbers, "result": r.result,
            "limit": r.limit, "verdict": r.verdict, "source": r.source,
        }
        for r in check_rows(views)
    ]  # fmt: skip


def _wanted(design: Design) -> list[Row]:
    return [
        {
            "for": to.value,
            "wanted": s.wanted.words,
            "there": "yes" if s.there else "no",
            "told": s.told,
        }
        for to in Addressee
        for s in packet_view(design, to).wanted
    ]


def racking_tables(view: RackingView, currency: str) -> Tables:
    """Return mounts, cuts and parts, money in the currency's whole unit."""
    name = currency or "money"
    mounts_at: list[Row] = [
        {
            "plane": plane.name,
            "rail": run.name,
            "mount": n,
            "along_m": round(mount.at_m, 4),
            "across_m": round(run.across_m, 4),
            "on": plane.support,
            "number": mount.support,
            "held": "yes" if mount.pinned else "",
        }
        for plane in view.planes
        for run in plane.runs
        for n, mount in enumerate(run.mounts, start=1)
    ]
    cuts: list[Row] = [
        {
            "system": cut.mounting,
            "stick": n,
            "stick_m": round(stick.length_m, 4),
            "bought": "yes" if stick.bought else "",
            "piece": piece.name,
            "length_m": round(piece.length_m, 4),
            "left_m": round(stick.left_m, 4),
        }
        for cut in view.cuts
        for n, stick in enumerate(cut.sticks, start=1)
        for piece in stick.pieces
    ]
    parts: list[Row] = [
        {
            "part": part.name,
            "needed": part.count,
            "spares": part.spares,
            "on_shelf": part.on_shelf,
            "buy": part.buy,
            "boxes": part.boxes or "",
            f"each ({name})": "" if part.price_cents is None else f"{part.price_cents / 100:.2f}",
            f"all ({name})": "" if part.cents is None else f"{part.cents / 100:.2f}",
        }
        for part in view.parts
    ]
    return {"mounts": mounts_at, "cuts": cuts, "parts": parts}


def circuit_tables(view: CircuitsView) -> Tables:
    """Return circuits, labels and wire."""
    circuits: list[Row] = [
        {
            "circuit": c.name,
            "conductor": c.size_told,
            "to_earth": c.earth_told,
            "most_a": round(c.most_a, 2),
            "breaker_a": "" if c.breaker_a is None else c.breaker_a,
            "length_m": "" if c.length_m is None else round(c.length_m, 2),
            "drop_percent": "" if c.drop_percent is None else round(c.drop_percent, 3),
            "stands": c.verdict.value,
        }
        for c in view.circuits
    ]
    labels: list[Row] = [
        {"text": " / ".join(x.lines), "place": x.place, "colour": x.colour,
         "letters_mm": x.letters_mm, "clause": x.source.document}
        for x in view.labels
    ]  # fmt: skip
    parts: list[Row] = [
        {"part": p.name, "count": p.count, "unit": p.unit, "note": p.note} for p in view.parts
    ]
    return {"circuits": circuits, "labels": labels, "wire": parts}


def year_rows(view: MoneyView) -> list[Row]:
    """Return the years, money in the currency's whole unit."""
    name = view.currency or "money"

    def m(cents: int) -> str:
        return f"{cents / 100:.2f}"

    return [
        {
            "year": r.year,
            "energy_kwh": round(r.energy_kwh, 1),
            f"price ({name})": m(r.price_cents),
            f"bills_without ({name})": m(r.before_cents),
            f"bills_with ({name})": m(r.after_cents),
            f"saved ({name})": m(r.saved_cents),
            f"upkeep ({name})": m(r.upkeep_cents),
            f"inverter ({name})": m(r.inverter_cents),
            f"incentives ({name})": m(r.incentives_cents),
            f"loan ({name})": m(r.loan_cents),
            f"net ({name})": m(r.net_cents),
            f"running ({name})": m(r.running_cents),
            f"running_today ({name})": m(r.discounted_cents),
        }
        for r in view.rows
    ]
