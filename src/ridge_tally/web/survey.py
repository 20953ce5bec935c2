"""Routes of the survey's pictures: sent as the body, handed out under their hash."""

from flask import Response

from ridge_tally.core.job.survey import Picture
from ridge_tally.services.kept_files import picture_file, take_in
from ridge_tally.web.at import workspace
from ridge_tally.web.models import Found, HashPath
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import send_kept, sent_file

bp = Routes("survey", __name__, url_prefix="/api/pictures")


@bp.post("", operation_id="take_picture", responses={201: Found[Picture]})
def post_picture() -> tuple[Found[Picture], int]:
    """Keep a clean copy of the picture sent as the body; its name comes percent-encoded."""
    return Found[Picture](found=take_in(workspace(), *sent_file("picture"))), 201


@bp.get("/<sha256>", operation_id="picture")
def get_picture(path: HashPath) -> Response:
    """A picture's file; it never changes."""
    return send_kept(picture_file(workspace(), path.sha256))
