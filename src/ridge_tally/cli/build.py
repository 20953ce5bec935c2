"""The commands of Build: the racking of a job; mounts and cuts of bare cases."""

import json
from pathlib import Path
from typing import Any

import click

from ridge_tally.cli.asking import (
    as_json,
    at_desk,
    data_option,
    json_option,
    option_option,
    speaks,
    write_tables,
)
from ridge_tally.formats.racking_case import solve_racking_case
from ridge_tally.rules.build.trench import Dug
from ridge_tally.views.build.racking import RackingView, racking_view
from ridge_tally.views.money.worked import currency_of
from ridge_tally.views.sheets.out_tables import racking_tables

_case = click.argument("case", type=click.Path(exists=True, dir_okay=False, path_type=Path))


@click.command()
@_case
@json_option
@speaks
def mounts(case: Path, *, json_out: bool) -> None:
    """Place the mounts of a racking case file: on supports, within span and cantilever."""
    _answer(case, "mounts", _mounts_text, json_out=json_out)


@click.command()
@_case
@json_option
@speaks
def cut(case: Path, *, json_out: bool) -> None:
    """Cut the rails of a racking case file from its stock."""
    _answer(case, "cut", _cut_text, json_out=json_out)


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@click.option(
    "--csv",
    "folder",
    type=click.Path(file_okay=False, path_type=Path),
    help="Write mounts.csv, cuts.csv and parts.csv into a folder.",
)
@speaks
def racking(
    job_id: str, option_id: str, data: Path, folder: Path | None, *, json_out: bool
) -> None:
    """Rails, mounts, sticks and parts of an option."""
    desk, design = at_desk(data, job_id, option_id)
    *_, view = racking_view(desk, design)
    if folder is not None:
        write_tables(folder, racking_tables(view, currency_of(design.job)))
    click.echo(as_json(view) if json_out else _racking_text(view))


def _racking_text(view: RackingView) -> str:
    lines: list[str] = []
    for plane in view.planes:
        lines += [*plane.asked, *(f"{plane.name}: {told}" for told in plane.amiss)]
        lines += [f"  {mend.told}" for mend in plane.mends]
        if plane.mounts:
            proof = "no fewer can be" if plane.proven else "best found"
            lines.append(
                f"{plane.name}: {plane.mounts} mounts on {plane.rail_m:.2f} m of rail, "
                f"{plane.shared} on a {plane.support} of the rail beside them ({proof})"
            )
        if plane.ground is not None:
            lines += [*plane.ground.falls, *_trench_text(plane.ground.dug)]
    lines += [f"{cut.mounting}: {cut.problem or cut.told}" for cut in view.cuts]
    for part in view.parts:
        boxes = f", {part.boxes} box{'es' if part.boxes > 1 else ''}" if part.boxes else ""
        lines.append(f"{part.count} + {part.spares} {part.name}: buy {part.buy}{boxes}")
    return "\n".join(lines) or "No module is laid."


def _trench_text(dug: Dug | None) -> list[str]:
    if dug is None:
        return []
    conduit = f", {dug.sticks} sticks of conduit" if dug.sticks else ""
    return [
        f"Trench {dug.length_m:.1f} m, at least {dug.least_depth_m:.2f} m deep{conduit}, "
        f"sand {dug.sand_m3:.1f} m3, warning tape {dug.tape_m:.1f} m"
    ]


def _answer(case: Path, op: str, told: Any, *, json_out: bool) -> None:
    answers = solve_racking_case(case.read_text("utf-8", errors="replace"), case.name, op)
    click.echo(
        json.dumps(answers, indent=2) if json_out else "\n".join(told(one) for one in answers)
    )


def _mounts_text(answer: dict[str, Any]) -> str:
    if answer["feasible"]:
        lines = [
            f"rail {n + 1}: {len(at)} mounts at {', '.join(f'{x:g}' for x in at)}"
            for n, at in enumerate(answer["positions"])
        ]
        proof = "proven" if answer["proven"] else "best found"
        shared = f"{answer['shared']} supports shared by neighbours, {proof}"
        return "\n".join([*lines, f"{answer['total']} mounts, {shared}"])
    lines = [f"no support between {a:g} and {b:g}" for a, b in answer["holes"]]
    for end in answer["cantilevers"]:
        near = "nothing" if end["nearest"] is None else f"{end['nearest']:g}"
        lines.append(
            f"rail {end['rail'] + 1}, {end['end']} end: nearest support at {near}, "
            f"at most {end['limit']:g} may be bare"
        )
    lines += [
        f"rail {n + 1}: too few supports within the limits" for n in answer["too_few_supports"]
    ]
    return "\n".join(lines)


def _cut_text(answer: dict[str, Any]) -> str:
    if not answer["feasible"]:
        return (
            f"line {answer['line'] + 1} cannot be made: a legal piece reaches {answer['reached']:g}"
        )
    lines = [
        f"stick {n + 1}: "
        + ", ".join(f"{ln + 1}-{piece + 1} {size:g}" for (ln, piece), size in cut)
        + f"; left {answer['left'][n]:g}"
        for n, cut in answer["plan"]
    ]
    proof = "least, proven" if answer["proven"] else "best found"
    splices = "1 splice" if answer["splices"] == 1 else f"{answer['splices']} splices"
    lines.append(f"{answer['sticks']} sticks, {splices}, waste {answer['waste']:g}; {proof}")
    return "\n".join(lines)
