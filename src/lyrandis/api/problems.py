"""One shape for every error: application/problem+json with a code and what to do."""

from collections.abc import Sequence
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict
from starlette.exceptions import HTTPException

from lyrandis.core.errors import DomainError

MEDIA_TYPE = "application/problem+json"
_STATUS_OF_CODE = {
    "no_such_subject": 404,
    "no_such_entry": 404,
    "not_found": 404,
    "already_retracted": 409,
    "changed_meanwhile": 409,
    "id_taken": 409,
    "name_needed": 409,
    "demo_already_there": 409,
    "foreign_host": 403,
    "foreign_site": 403,
    "body_too_large": 413,
    "not_json": 415,
}
_WORDS_OF_TYPE = {
    "missing": ("missing_field", "Something is missing.", "Give it."),
    "extra_forbidden": ("unknown_field", "This is not known here.", "Leave it out."),
    "finite_number": ("not_a_number", "This is not a finite number.", "Type a plain number."),
    "union_tag_invalid": (
        "unknown_kind",
        "There is no such kind of reading.",
        "Use one of the kinds listed in the API reference.",
    ),
    "union_tag_not_found": ("unknown_kind", "The reading has no kind.", "Say its kind."),
    "json_invalid": ("bad_json", "This cannot be read as JSON.", "Send valid JSON."),
    "timezone_aware": (
        "no_time_zone",
        "The time has no time zone.",
        "Add one, e.g. 2026-01-10T10:00:00Z.",
    ),
}


class GuessOut(BaseModel):
    """Another reading of what was typed, offered back."""

    text: str
    says: str


class Problem(BaseModel):
    """What went wrong, why, and what to do about it."""

    model_config = ConfigDict(frozen=True)

    type: str = "about:blank"
    title: str
    status: int
    code: str
    reason: str
    instruction: str
    field: str | None = None
    path: str | None = None
    guesses: tuple[GuessOut, ...] = ()
    span: tuple[int, int] | None = None


def problem_of(error: DomainError, *, field: str | None = None, path: str | None = None) -> Problem:
    """Return the problem a domain error is."""
    status = _STATUS_OF_CODE.get(error.code, 422)
    return Problem(
        title=error.code.replace("_", " "),
        status=status,
        code=error.code,
        reason=error.reason,
        instruction=error.instruction,
        field=error.field or field,
        path=path,
        guesses=tuple(GuessOut(text=guess.text, says=guess.says) for guess in error.guesses),
        span=error.span,
    )


def problem_of_validation(errors: Sequence[Any]) -> Problem:
    """Return the problem that the first validation error is."""
    first = errors[0]
    places = [str(place) for place in first["loc"] if place != "body"]
    path = ".".join(places) or None
    field = next((place for place in reversed(places) if not place.isdigit()), None)
    cause = first.get("ctx", {}).get("error")
    if isinstance(cause, DomainError):
        return problem_of(cause, field=field, path=path)
    code, reason, instruction = _WORDS_OF_TYPE.get(
        first["type"], ("invalid", f"{first['msg']}.", "Check the value and its type.")
    )
    return problem_of(DomainError(code, reason, instruction), field=field, path=path)


def respond(problem: Problem) -> JSONResponse:
    return JSONResponse(
        problem.model_dump(mode="json"), status_code=problem.status, media_type=MEDIA_TYPE
    )


def _http_problem(error: HTTPException) -> Problem:
    if error.status_code == 404:
        return problem_of(
            DomainError("not_found", "There is nothing at this address.", "Check the address.")
        )
    return Problem(
        title=str(error.detail).lower(),
        status=error.status_code,
        code=str(error.detail).lower().replace(" ", "_"),
        reason=f"{error.detail}.",
        instruction="See the API reference for what this address takes.",
    )


def install(app: FastAPI) -> None:
    """Make every error of the app a problem."""

    @app.exception_handler(DomainError)
    async def domain_error(_request: Request, error: DomainError) -> JSONResponse:
        return respond(problem_of(error))

    @app.exception_handler(RequestValidationError)
    async def validation_error(_request: Request, error: RequestValidationError) -> JSONResponse:
        return respond(problem_of_validation(error.errors()))

    @app.exception_handler(HTTPException)
    async def http_error(_request: Request, error: HTTPException) -> JSONResponse:
        return respond(_http_problem(error))

    @app.exception_handler(Exception)
    async def unexpected(_request: Request, _error: Exception) -> JSONResponse:
        return respond(
            Problem(
                title="internal error",
                status=500,
                code="internal_error",
                reason="Lyrandis stumbled over this. Nothing was recorded.",
                instruction="Try again; if it stays, keep what you typed and restart Lyrandis.",
            )
        )


RESPONSES: dict[int | str, dict[str, Any]] = {
    422: {"model": Problem, "description": "What was sent cannot be so"},
}
"""Responses every route may give."""
NOT_FOUND: dict[int | str, dict[str, Any]] = {
    404: {"model": Problem, "description": "There is no such thing on this bench"},
}
NOT_MODIFIED: dict[int | str, dict[str, Any]] = {
    304: {"description": "Nothing was recorded since that tag was given"},
}
CONFLICT: dict[int | str, dict[str, Any]] = {
    409: {"model": Problem, "description": "It changed meanwhile, or is already done"},
}
