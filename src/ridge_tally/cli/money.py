"""The commands of Money: an option's price, bills, years and worth, and what would better them."""

from pathlib import Path

import click

from ridge_tally.cli.asking import (
    as_json,
    at_desk,
    csv_option,
    data_option,
    json_option,
    option_option,
    speaks,
)
from ridge_tally.core.money.told import money_told
from ridge_tally.core.number_format import signed
from ridge_tally.formats.csv_file import csv_text
from ridge_tally.studies.money.later import LaterPlan, now_or_later
from ridge_tally.studies.money.moves import Move, next_moves
from ridge_tally.views.money.view import MoneyView, money_view
from ridge_tally.views.money.worked import currency_of
from ridge_tally.views.sheets.out_tables import year_rows


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@csv_option
@speaks
def money(job_id: str, option_id: str, data: Path, *, json_out: bool, as_csv: bool) -> None:
    """What an option costs, spares and is worth; --csv prints the table of its years."""
    *_, view = money_view(*at_desk(data, job_id, option_id))
    if as_csv:
        click.echo(csv_text(year_rows(view)), nl=False)
        return
    click.echo(as_json(view) if json_out else _told(view))


def _told(view: MoneyView) -> str:
    def m(cents: float) -> str:
        return money_told(cents, view.currency)

    lines = list(view.told)
    lines += [
        f"{x.count:g} {x.unit} {x.name}: {'no price' if x.price_cents is None else m(x.price_cents)}"
        for x in view.lines
    ]
    lines += [f"{p.name}: {m(p.cents_per_w)} a watt" for p in view.per_watt]
    lines += [
        f"{i.name}: {m(i.cents)}" + (f", refused: {i.refused}" if i.refused else "")
        for i in view.incentives
    ]
    lines += [
        f"{b.month}: {m(b.before_cents)} without, {m(b.after_cents)} with" for b in view.months
    ]
    for worked in (*view.worked_price, *view.worked_worth):
        lines += [f"{worked.name}: {line}" for line in worked.lines]
    return "\n".join([*lines, *([view.asked] if view.asked else []), *view.caveats])


def _wanting(told: Move | LaterPlan) -> str:
    """Return what limits something breaks and what of it has no price, in brackets; or nothing."""
    wants = [*(b.told for b in told.breaks), *(f"no price: {x}" for x in told.unpriced)]
    return f" ({'; '.join(wants)})" if wants else ""


@click.command("next-moves")
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def moves(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """What would better an option most, each change a complete run against it."""
    desk, design = at_desk(data, job_id, option_id)
    *_, found = next_moves(desk, design)
    if json_out:
        click.echo(as_json(found))
        return
    currency = currency_of(design.job)
    for move in found.moves:
        sound = "" if move.sound else _wanting(move)
        click.echo(
            f"{move.title}: {money_told(move.npv_cents, currency)} worth today, "
            f"{money_told(move.net_cents, currency)} net price, {signed(move.energy_kwh)} kWh a year{sound}"
        )
    click.echo(f"{found.looked_at} tried; not tried: {'; '.join(found.untried)}")


@click.command("now-or-later")
@click.argument("job_id")
@option_option
@data_option
@json_option
@speaks
def later(job_id: str, option_id: str, data: Path, *, json_out: bool) -> None:
    """An option bought today, a year later or in stages, each a complete run to the same year."""
    desk, design = at_desk(data, job_id, option_id)
    *_, found = now_or_later(desk, design)
    if json_out:
        click.echo(as_json(found))
        return
    currency = currency_of(design.job)
    for plan in found.plans:
        paid = "; ".join(
            f"year {p.year}: {p.what} for {money_told(p.price_cents, currency)}" for p in plan.paid
        )
        click.echo(
            f"{plan.title}: {money_told(plan.npv_cents, currency)} worth today ({paid})"
            + _wanting(plan)
        )
    for line in found.told:
        click.echo(f"{line}.")
