"""Routes of Build: the racking, the circuits, and the one-line diagram of an option."""

from flask import Response

from ridge_tally.core.errors import NotFound
from ridge_tally.services.papers import DiagramFormat, diagram_file, diagram_of
from ridge_tally.views.build.circuits import CircuitsView, circuits_view
from ridge_tally.views.build.one_line import DiagramView
from ridge_tally.views.build.racking import RackingView, racking_view
from ridge_tally.web.at import OPTION, set_at, workspace
from ridge_tally.web.models import DiagramPath, Found, OptionPath, Running, Study
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out
from ridge_tally.web.studies import running

bp = Routes("build", __name__, url_prefix="/api")
MIME = {DiagramFormat.SVG: "image/svg+xml", DiagramFormat.DXF: "image/vnd.dxf"}


@bp.get(f"{OPTION}/racking", operation_id="racking", responses={200: Running[RackingView]})
def get_racking(path: OptionPath) -> Running[RackingView]:
    """Rails, mounts, sticks and parts, with what is still asked."""
    return running(Study.RACKING, path, racking_view, first_here=True)


@bp.get(f"{OPTION}/circuits", operation_id="circuits", responses={200: Running[CircuitsView]})
def get_circuits(path: OptionPath) -> Running[CircuitsView]:
    """The ways of the cables, every circuit's conductors, gear, labels; then what thicker ones save."""
    return running(Study.CIRCUITS, path, circuits_view, first_here=True)


@bp.get(f"{OPTION}/one-line", operation_id="one_line", responses={200: Found[DiagramView]})
def get_one_line(path: OptionPath) -> Found[DiagramView]:
    """The one-line diagram sheet by sheet, with what its lint found."""
    return Found[DiagramView](found=diagram_of(workspace(), set_at(path)))


@bp.get(f"{OPTION}/one-line/<int:sheet>.<kind>", operation_id="one_line_file")
def get_one_line_file(path: DiagramPath) -> Response:
    """A sheet of the diagram as SVG or DXF."""
    text = diagram_file(workspace(), set_at(path), path.sheet, path.kind)
    if text is None:
        raise NotFound("sheet of the one-line diagram", str(path.sheet))
    name = f"{path.job_id}-{path.option_id}-r{path.revision}-one-line-{path.sheet}.{path.kind}"
    return handed_out(text, MIME[path.kind], name)
