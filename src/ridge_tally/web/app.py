"""The web application: API, the built interface, and the guards around both."""

import secrets
import sys
from pathlib import Path
from typing import Any

from flask import Response, abort, request, send_from_directory
from flask_openapi import Info, OpenAPI
from pydantic import BaseModel

from ridge_tally import __version__
from ridge_tally.services.workspace import Workspace
from ridge_tally.web import (
    array,
    brief,
    build,
    errors,
    jobs,
    loading,
    money,
    packets,
    proving,
    sheets,
    shelf,
    strings,
    studies,
    sun,
    survey,
)
from ridge_tally.web.beside import Beside
from ridge_tally.web.models import Problem

STATIC = Path(__file__).parents[1] / "static"
# A photo that is too large is refused in words by its reader, so it may come this far.
SWITCH_S = 0.0005
LARGEST_REQUEST_BYTES = 64 * 1024 * 1024
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; "
    "img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; worker-src 'self'; "
    "manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'; "
    "object-src 'none'"
)
LOOPBACK = frozenset({"127.0.0.1", "localhost", "[::1]"})
STEPS = (
    jobs,
    brief,
    survey,
    array,
    sun,
    strings,
    loading,
    build,
    money,
    sheets,
    packets,
    proving,
    shelf,
    studies,
)
NOT_BUILT = "The interface is not built yet: run “make setup”.\n"


class Application(OpenAPI):
    """Turns models, or (model, status), into JSON responses."""

    def make_response(self, rv: Any) -> Response:
        """Return the response for what a route gave back."""
        model, status = rv if isinstance(rv, tuple) and isinstance(rv[0], BaseModel) else (rv, 200)
        if isinstance(model, BaseModel):
            return Response(model.model_dump_json(), status, mimetype="application/json")
        response: Response = super().make_response(rv)
        return response


def create_app(
    workspace: Workspace,
    trusted_hosts: frozenset[str] = LOOPBACK,
    beside: Beside | None = None,
) -> Application:
    """Return the application.

    Parameters
    ----------
    workspace : Workspace
        What every route works with.
    trusted_hosts : frozenset of str
        Host names a request may name; loopback only unless the person opened it to others.
    beside : Beside, optional
        The process that is asked for what takes long; without one all is answered here.
    """
    # A request that answers at once waits no longer than this for a thread that reckons.
    sys.setswitchinterval(SWITCH_S)
    app = Application(
        __name__,
        info=Info(title="Ridge Tally", version=__version__),
        doc_ui=False,
        static_folder=None,
        validation_error_callback=errors.from_validation,
        validation_error_model=Problem,
    )
    app.openapi_version = "3.1.0"
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_REQUEST_BYTES
    app.extensions["ridge-tally"] = workspace
    errors.register(app)
    for step in STEPS:
        app.register_api(step.bp)
    app.before_request(lambda: _guard(trusted_hosts))
    if beside is not None:
        workspace.minds.append(beside.forget)
        app.before_request(lambda: beside.answer(request))
    app.add_url_rule("/assets/<path:name>", view_func=_asset)
    app.add_url_rule("/", view_func=_page)
    app.add_url_rule("/<path:place>", view_func=_page)
    return app


def description(workspace: Workspace) -> dict[str, Any]:
    """Return the description of the API, of every route and all it answers."""
    for step in STEPS:
        step.bp.describe()
    described: dict[str, Any] = create_app(workspace).api_doc
    return described


def _guard(trusted_hosts: frozenset[str]) -> None:
    """Refuse foreign hosts and origins, and malformed JSON before a model sees it."""
    host = request.host.rsplit(":", 1)[0] if not request.host.endswith("]") else request.host
    if host not in trusted_hosts:
        abort(400, f"This address ({host}) is not one Ridge Tally serves; see --host.")
    origin = request.headers.get("Origin")
    if origin is not None and origin.split("://", 1)[-1] != request.host:
        abort(403, "A page of another origin may not use this program.")
    if request.method in {"POST", "PUT", "PATCH"} and request.mimetype == "application/json":
        try:
            request.get_json()
        except RecursionError:
            abort(400, "This JSON is nested deeper than any document. Nothing was changed.")


def _asset(name: str) -> Response:
    response = send_from_directory(STATIC / "assets", name)
    response.headers["Cache-Control"] = "public, immutable, max-age=31536000"
    return response


def _page(place: str = "") -> Response:
    """The one page of the interface for every place in it; each answer has its own nonce."""
    if place.startswith("api/"):
        abort(404, f"There is nothing at /{place}.")
    index = STATIC / "index.html"
    if not index.is_file():
        return Response(NOT_BUILT, 503, mimetype="text/plain")
    nonce = secrets.token_urlsafe(16)
    page = index.read_text("utf-8").replace("__CSP_NONCE__", nonce)
    headers = {
        "Content-Security-Policy": POLICY.format(nonce=nonce),
        "Cache-Control": "no-store",
        "X-Content-Type-Options": "nosniff",
        "Referrer-Policy": "no-referrer",
    }
    return Response(page, mimetype="text/html", headers=headers)
