"""The commands of Build: where mounts go, and what is cut from which stick."""

import json
from pathlib import Path
from typing import Any

import click

from ridge_tally.cli.asking import json_option, speaks
from ridge_tally.formats.racking_case import solve_racking_case

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
