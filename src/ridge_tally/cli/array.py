"""Commands of arrays: layouts, and layout case files."""

import json
from pathlib import Path

import click

from ridge_tally.cli.asking import (
    as_json,
    at_desk,
    data_option,
    json_option,
    option_option,
    speaks,
)
from ridge_tally.core.array.lay import after_steps
from ridge_tally.core.job.array import RowRule, Ways
from ridge_tally.formats.layout_case import solve_layout_case
from ridge_tally.studies.array.layouts import alternatives


@click.command()
@click.argument("job_id")
@option_option
@data_option
@speaks
def layouts(job_id: str, option_id: str, data: Path) -> None:
    """Print the layouts of each plane as JSON: counts, ceilings, places."""
    desk, design = at_desk(data, job_id, option_id)
    found = {p.id: alternatives(desk, design, p.id) for p in design.job.survey.planes}
    click.echo(as_json({str(k): [json.loads(as_json(a)) for a in v] for k, v in found.items()}))


@click.command()
@click.argument("case", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--rule", type=click.Choice([r.value for r in RowRule]), default="independent")
@click.option("--orientation", "ways", type=click.Choice([w.value for w in Ways]), default="PL")
@click.option(
    "--steps", default=2000, type=click.IntRange(0), help="Of a proof or a search, at most."
)
@json_option
@speaks
def fill(case: Path, rule: str, ways: str, steps: int, *, json_out: bool) -> None:
    """Fill the roof of a layout case file: count, ceiling, places."""
    text = case.read_text("utf-8", errors="replace")
    answer = solve_layout_case(text, case.name, RowRule(rule), Ways(ways), after_steps(steps))
    if json_out:
        click.echo(json.dumps(answer))
        return
    ceiling = "proven" if answer["proven"] else f"at most {answer['bound']}"
    click.echo(f"{answer['count']} modules, {ceiling}")
