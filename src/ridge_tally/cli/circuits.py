"""The commands of Build's circuits: the wiring of a job, its one-line diagram as a file."""

from pathlib import Path

import click

from ridge_tally.cli.asking import (
    as_json,
    at_desk,
    data_option,
    json_option,
    newest,
    option_option,
    speaks,
    write_tables,
)
from ridge_tally.core.errors import MissingDatum, NotUnderstood
from ridge_tally.services.papers import DiagramFormat, diagram_file
from ridge_tally.views.build.circuits import CircuitsView, circuits_told
from ridge_tally.views.sheets.out_tables import circuit_tables


@click.command()
@click.argument("job_id")
@option_option
@data_option
@json_option
@click.option(
    "--csv",
    "folder",
    type=click.Path(file_okay=False, path_type=Path),
    help="Write circuits.csv, labels.csv and wire.csv into a folder.",
)
@speaks
def wiring(job_id: str, option_id: str, data: Path, folder: Path | None, *, json_out: bool) -> None:
    """Circuits of an option: conductors, breakers, conduit, drop; gear, labels and parts."""
    _, design = at_desk(data, job_id, option_id)
    view = circuits_told(design)
    if folder is not None:
        write_tables(folder, circuit_tables(view))
    click.echo(as_json(view) if json_out else _told(view))


def _told(view: CircuitsView) -> str:
    lines = []
    for c in view.circuits:
        breaker = "" if c.breaker_a is None else f", breaker {c.breaker_a:g} A"
        drop = "" if c.drop_percent is None else f", {c.drop_percent:.2f} % over {c.length_text}"
        made = c.size_told or f"not sized: {c.asked}"
        lines.append(f"{c.name}: {c.most_a:.1f} A, {made}{breaker}{drop} ({c.verdict.value})")
    lines += [
        f"{g.name}: {g.length_text}{'' if g.taken else ', proposed'}, {g.conduit or 'no conduit yet'}"
        for g in view.legs
    ]
    lines += [view.lost_told, *view.panel.told]
    lines += [f"Way out: {w.title}, {w.work}; {w.rule}" for w in view.panel.ways]
    lines += [f"{g.item}: {g.place}; {g.source.document}" for g in view.gear]
    lines += [f"Label: {' / '.join(x.lines)} ({x.place})" for x in view.labels]
    lines += [f"{p.count:g} {p.unit} {p.name}" for p in view.parts]
    return "\n".join(lines) if view.circuits else "No module is wired."


@click.command("one-line")
@click.argument("job_id")
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
@click.option("--sheet", default=1, show_default=True, help="Which sheet, from 1.")
@option_option
@data_option
@speaks
def one_line(job_id: str, file: Path, sheet: int, option_id: str, data: Path) -> None:
    """Write the one-line diagram as SVG or DXF, by the file's ending."""
    ending = file.suffix.lower().lstrip(".")
    if ending not in set(DiagramFormat):
        raise NotUnderstood("File", str(file), "a name ending in .svg or .dxf")
    text = diagram_file(*newest(data, job_id, option_id), sheet, DiagramFormat(ending))
    if text is None:
        raise MissingDatum("string", f"Sheet {sheet} of the one-line", "Wire the option first.")
    file.write_text(text, "utf-8")
    click.echo(f"wrote {file}")
