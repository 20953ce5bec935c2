"""Routes of Build: the racking of an option, a better cut as it is found."""

from ridge_tally.views.build.racking import RackingView, racking_view
from ridge_tally.web.at import OPTION
from ridge_tally.web.models import OptionPath, Running, Study
from ridge_tally.web.routes import Routes
from ridge_tally.web.studies import running

bp = Routes("build", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/racking", operation_id="racking", responses={200: Running[RackingView]})
def get_racking(path: OptionPath) -> Running[RackingView]:
    """Rails, mounts, sticks and parts, with what is still asked."""
    return running(Study.RACKING, path, racking_view, first_here=True)
