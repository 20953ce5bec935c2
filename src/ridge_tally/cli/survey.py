"""The command that adjusts an outline."""

import json
from pathlib import Path
from typing import Any

import click

from ridge_tally.cli.asking import json_option, speaks
from ridge_tally.formats.outline_case import solve_outline_case


@click.command()
@click.argument("case", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@json_option
@speaks
def outline(case: Path, *, json_out: bool) -> None:
    """Adjust an outline case file: corners, misclosure, the reading most likely wrong."""
    answer = solve_outline_case(case.read_text("utf-8", errors="replace"), case.name)
    click.echo(json.dumps(answer, indent=2) if json_out else _outline_text(answer))


def _outline_text(answer: dict[str, Any]) -> str:
    lines = []
    if answer["missing"]:
        count, corners = answer["missing"], " and ".join(map(str, answer["loose_vertices"]))
        lines.append(f"{count} more reading(s) needed: corners {corners} can still move")
        lines += [f"a diagonal from {a} to {b} would fix one" for a, b in answer["would_fix"]]
    else:
        lines += [f"corner {i}: {x:.3f} {y:.3f} m" for i, (x, y) in enumerate(answer["vertices"])]
    if answer["misclosure_m"] is not None:
        x, y = answer["misclosure_m"]
        closes = f", 1:{answer['ratio']:.0f}" if answer["ratio"] is not None else ""
        lines.append(f"misclosure {x * 1000:.0f} mm along, {y * 1000:.0f} mm up{closes}")
    if answer["suspect"] is not None:
        lines.append(
            f"reading {answer['suspect']['index'] + 1} is most likely wrong"
            + (f": it should read about {answer['predicted']:.2f} m" if answer["predicted"] else "")
        )
    elif answer["global_test"] == "rejected":
        lines.append("these readings do not fit together: re-measure any side")
    return "\n".join(lines)
