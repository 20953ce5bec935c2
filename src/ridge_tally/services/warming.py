"""The slow first things of a process that reckons, done before a person asks for them."""

from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.kernels.all import warm_all
from ridge_tally.services.memory import settle
from ridge_tally.services.workspace import Workspace


def warm_up(workspace: Workspace) -> None:
    """Load what is compiled, fit what is fitted, and let the collector leave it alone."""
    warm_all()
    for sheet in workspace.desk.shelf.modules:
        fit_diode(sheet)
    import weasyprint  # noqa: F401, PLC0415 - takes seconds to load, and a sheet wants it

    settle()
