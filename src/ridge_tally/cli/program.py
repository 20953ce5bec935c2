"""The command line: every computation without the browser, JSON in and out.

Exit codes: 0 all well, 1 a Stop is broken, 2 bad input, 3 a Stop is unchecked.  A command's room
is loaded when it is asked for, so that none waits for what it does not need.
"""

from importlib import import_module

import click

from ridge_tally import __version__

# In which room of this package a command is, and what it is called there.
COMMANDS = {
    "serve": "serving.serve",
    "demo": "serving.demo",
    "warm": "serving.warm",
    "schema": "serving.schema",
    "openapi": "serving.openapi",
    "list": "jobs.list_command",
    "check": "jobs.check",
    "export": "jobs.export_command",
    "import": "jobs.import_command",
    "target": "brief.target",
    "brief": "brief.brief",
    "outline": "survey.outline",
    "fill": "array.fill",
    "layouts": "array.layouts",
    "shade": "sun.shade",
    "weather": "sun.weather",
    "angles": "sun.angles",
    "plan-strings": "strings.plan_strings",
    "find-inverter": "strings.find_inverter",
    "own-point": "strings.own_point",
    "ways-out": "strings.ways_out",
    "compare-ways": "strings.compare_ways",
    "racking": "build.racking",
    "wiring": "circuits.wiring",
    "one-line": "circuits.one_line",
    "diagnose": "proving.diagnose",
    "expected": "proving.expected",
    "prove": "proving.prove",
    "practice": "proving.practice",
    "production": "proving.production",
    "mounts": "build.mounts",
    "cut": "build.cut",
    "year": "loading.year",
    "sweep": "loading.sweep",
    "house": "loading.house",
    "money": "money.money",
    "plan-set": "sheets.plan_set",
    "drawings": "sheets.drawings",
    "next-moves": "money.moves",
    "now-or-later": "money.later",
    "what-to-buy": "loading.buy",
    "sample-files": "loading.sample_files",
    "sheet": "sheets.sheet",
    "take-equipment": "shelf.take_equipment",
}


class Program(click.Group):
    """Finds commands by name and loads the room of the one that is asked for."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        """Return the names, in the order of the work."""
        return list(COMMANDS)

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        """Return a command; nothing where none has that name."""
        if cmd_name not in COMMANDS:
            return None
        room, name = COMMANDS[cmd_name].split(".")
        command: click.Command = getattr(import_module(f"ridge_tally.cli.{room}"), name)
        return command


@click.group(cls=Program)
@click.version_option(__version__, prog_name="ridge-tally")
def main() -> None:
    """Lay out, check and simulate small grid-tied solar arrays."""
