"""The one table from error class to HTTP status, and how an error is worded on the wire."""

from http import HTTPStatus

from flask import Flask, Response, make_response
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from ridge_tally.core.errors import (
    AnswerWanted,
    BadGeometry,
    Conflict,
    FormatError,
    GivenUp,
    MissingDatum,
    NotFound,
    NotUnderstood,
    NotWorkedOut,
    OutOfRange,
    OutsideModelRange,
    RidgeTallyError,
    StorageFailed,
)
from ridge_tally.formats.job_file import describe
from ridge_tally.web.models import Problem

STATUS = {
    NotFound: HTTPStatus.NOT_FOUND,
    Conflict: HTTPStatus.CONFLICT,
    GivenUp: HTTPStatus.REQUEST_TIMEOUT,
    StorageFailed: HTTPStatus.INSUFFICIENT_STORAGE,
    FormatError: HTTPStatus.UNPROCESSABLE_ENTITY,
    OutOfRange: HTTPStatus.UNPROCESSABLE_ENTITY,
    AnswerWanted: HTTPStatus.UNPROCESSABLE_ENTITY,
    NotUnderstood: HTTPStatus.UNPROCESSABLE_ENTITY,
    BadGeometry: HTTPStatus.UNPROCESSABLE_ENTITY,
    MissingDatum: HTTPStatus.UNPROCESSABLE_ENTITY,
    OutsideModelRange: HTTPStatus.UNPROCESSABLE_ENTITY,
    NotWorkedOut: HTTPStatus.UNPROCESSABLE_ENTITY,
}


WORDS = {
    413: "This is larger than the 64 MB that are taken at once. Send it smaller.",
    500: "The program failed at this; what went wrong stands in its log. Everything saved before "
    "is intact: go about it another way, or undo the last change.",
}


def answer(problem: Problem, status: int) -> Response:
    """Return the problem as a response."""
    return Response(problem.model_dump_json(), status, mimetype="application/json")


def from_core(error: RidgeTallyError) -> Response:
    """Return the answer to an error of ours."""
    problem = Problem(
        code=error.code,
        message=str(error),
        field=getattr(error, "field", ""),
        kept_job_id=getattr(error, "kept_job_id", ""),
    )
    return answer(problem, STATUS.get(type(error), HTTPStatus.INTERNAL_SERVER_ERROR))


def from_validation(error: ValidationError) -> Response:
    """Return the answer to a request that does not fit its model."""
    place, what = describe(error)
    message = f"{place or 'The request'}: {what}."
    return answer(Problem(code="request.invalid", message=message, field=place), 422)


def from_http(error: HTTPException) -> Response:
    """Return the answer to what the framework refuses."""
    if error.response is not None:
        return make_response(error.response)
    code = error.code or 500
    message = WORDS.get(code) or error.description or error.name
    return answer(Problem(code=f"http.{code}", message=message), code)


def register(app: Flask) -> None:
    """Route every error of the app through this table."""
    app.register_error_handler(RidgeTallyError, from_core)
    app.register_error_handler(HTTPException, from_http)
