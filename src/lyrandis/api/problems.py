"""One shape for every error: application/problem+json with a code and what to do."""

from collections.abc import Sequence
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict
from starlette.exceptions import HTTPException

from lyrandis.api.examples import EXAMPLES, answers
from lyrandis.core.errors import Code, DomainError, Understood, in_words
from lyrandis.core.refusals import refusal_of
from lyrandis.core.units import UNIT_SETS, UnitSet
from lyrandis.store.trouble import StoreError, trouble_of

MEDIA_TYPE = "application/problem+json"
CODES: dict[Code, tuple[int, str]] = {
    "no_such_subject": (404, "nothing of that name"),
    "no_such_entry": (404, "no such entry"),
    "no_such_part": (422, "no such part"),
    "not_found": (404, "nothing at this address"),
    "method_not_allowed": (405, "not done at this address"),
    "http_error": (400, "this cannot be answered"),
    "internal_error": (500, "Lyrandis stumbled"),
    "already_retracted": (409, "taken back already"),
    "changed_meanwhile": (409, "changed meanwhile"),
    "id_taken": (409, "the id is taken"),
    "name_needed": (409, "a name is needed"),
    "name_taken": (409, "another one is called the same"),
    "demo_already_there": (409, "the demo is there already"),
    "foreign_host": (403, "asked under a foreign name"),
    "foreign_site": (403, "asked by a foreign site"),
    "body_too_large": (413, "too much at once"),
    "not_json": (415, "not sent as JSON"),
    "bad_json": (422, "no valid JSON"),
    "missing_field": (422, "something is missing"),
    "unknown_field": (422, "not known here"),
    "unknown_kind": (422, "no such kind of reading"),
    "no_time_zone": (422, "the time has no time zone"),
    "invalid": (422, "this cannot be so"),
    "out_of_range": (422, "outside what it can be"),
    "not_a_number": (422, "not a finite number"),
    "in_the_future": (422, "not happened yet"),
    "too_long_ago": (422, "too long ago"),
    "wrong_subject": (422, "not recorded on this"),
    "nothing_given": (422, "nothing is given"),
    "no_reading": (422, "nothing is reckoned from it"),
    "one_needed": (422, "one of two is needed"),
    "both_needed": (422, "both are needed"),
    "twice": (422, "given twice"),
    "wrong_order": (422, "in the wrong order"),
    "unlike_places": (422, "measured at unlike places"),
    "which_datum": (422, "measured to what"),
    "measure_it": (409, "was moved, must be measured"),
    "missing_diameter": (422, "a diameter is missing"),
    "empty": (422, "nothing is typed"),
    "unknown_word": (422, "a word not known"),
    "unknown_choice": (422, "not one of the choices"),
    "missing_choice": (422, "the choice is missing"),
    "missing_slot": (422, "a part of it is missing"),
    "which_unit": (422, "in which unit"),
    "two_readings": (422, "more than one reading"),
    "which_quantity": (422, "it could be several things"),
    "wrong_unit": (422, "the wrong unit"),
    "wrong_standard": (422, "the wrong standard of spine"),
    "too_much": (422, "more than belongs to it"),
    "not_bent": (422, "nothing bent"),
    "brace_unreachable": (422, "a brace no string reaches"),
    "shape_does_not_hold": (422, "no such bow holds together"),
    "limb_too_short": (422, "limbs too short"),
    "riser_longer_than_bow": (422, "a riser too long for its bow"),
    "draw_below_brace": (422, "not drawn past brace"),
    "draw_beyond_curve": (422, "drawn beyond what is computed"),
    "no_draw": (422, "the draw is not known"),
    "nothing_to_shoot": (422, "nothing to shoot"),
    "tumbles": (422, "it tumbles"),
    "taper_too_long": (422, "a taper too long"),
    "not_a_taper": (422, "no taper"),
    "too_few": (422, "too few"),
    "too_many": (422, "too many"),
    "too_long": (422, "too long a table"),
    "not_a_table": (422, "no table"),
    "not_field_shots": (422, "no shots"),
    "not_a_logbook": (422, "no logbook"),
    "database_newer": (422, "written by a newer Lyrandis"),
    "not_a_database": (422, "no database"),
    "no_free_port": (422, "no free port"),
    "not_a_sound": (422, "no sound file"),
    "sound_rate": (422, "recorded at a rate that is not read"),
    "sound_too_long": (413, "too long a recording"),
    "sound_too_short": (422, "too short a recording"),
    "sound_forgotten": (404, "the recording is forgotten"),
    "no_takes": (422, "nothing heard in it"),
    "broken_off": (400, "it broke off on its way"),
    "bad_request": (400, "this cannot be read"),
    "too_slow": (408, "it came too slowly"),
    "busy": (503, "busy recording"),
    "file_gone": (503, "the bench's file is gone"),
    "locked": (503, "another program holds the file"),
    "disk_full": (507, "the disk is full"),
    "folder_closed": (503, "the folder cannot be written to"),
    "damaged": (500, "the file is damaged"),
    "not_ours": (422, "another program's file"),
    "not_readable": (422, "this cannot be read"),
}
"""Status and title of every problem."""


class HeardPart(BaseModel):
    """A part of a typed line, and what it was taken for."""

    start: int
    end: int
    taken_for: str


def heard_parts(heard: Sequence[Understood]) -> tuple[HeardPart, ...]:
    return tuple(HeardPart(start=one.start, end=one.end, taken_for=one.taken_for) for one in heard)


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
    code: Code
    reason: str
    instruction: str
    field: str | None = None
    path: str | None = None
    guesses: tuple[GuessOut, ...] = ()
    span: tuple[int, int] | None = None
    heard: tuple[HeardPart, ...] = ()
    """What each part of a typed line was taken for."""


UNITS_HEADER = "x-lyrandis-units"
"""Which units the reader reads: figures in the words of a problem are said in them."""


def units_of(request: Request) -> UnitSet:
    asked = request.headers.get(UNITS_HEADER, "")
    return next((units for units in UNIT_SETS if units == asked), "inch")


def problem_of(
    error: DomainError,
    *,
    field: str | None = None,
    path: str | None = None,
    units: UnitSet = "inch",
) -> Problem:
    """Return the problem a domain error is, said in the reader's units."""
    status, title = CODES[error.code]
    reason, instruction = (in_words(said, units) for said in error.says)
    return Problem(
        title=title,
        status=status,
        code=error.code,
        reason=reason,
        instruction=instruction,
        field=error.field or field,
        path=path,
        guesses=tuple(
            GuessOut(text=guess.text, says=in_words(guess.says, units)) for guess in error.guesses
        ),
        span=error.span,
        heard=heard_parts(error.heard),
    )


def problem_of_validation(errors: Sequence[Any], units: UnitSet = "inch") -> Problem:
    """Return the problem that the first validation error is."""
    error, field, path = refusal_of(errors)
    return problem_of(error, field=field, path=path, units=units)


def respond(problem: Problem) -> JSONResponse:
    return JSONResponse(
        problem.model_dump(mode="json"), status_code=problem.status, media_type=MEDIA_TYPE
    )


class RefusedBody(HTTPException):
    """A body that is refused while it is read, where only such an exception gets through."""

    def __init__(self, error: DomainError) -> None:
        super().__init__(CODES[error.code][0])
        self.error = error


def _http_problem(error: HTTPException) -> Problem:
    if isinstance(error, RefusedBody):
        return problem_of(error.error)
    if error.status_code == 404:
        return problem_of(
            DomainError("not_found", "There is nothing at this address.", "Check the address.")
        )
    if error.status_code == 400:
        return problem_of(
            DomainError(
                "bad_request", "This request cannot be read.", "Send it as the API reference says."
            )
        )
    code: Code = "method_not_allowed" if error.status_code == 405 else "http_error"
    problem = problem_of(
        DomainError(code, f"{error.detail}.", "See the API reference for what this address takes.")
    )
    return problem.model_copy(update={"status": error.status_code})


def install(app: FastAPI) -> None:
    """Make every error of the app a problem."""

    @app.exception_handler(DomainError)
    async def domain_error(request: Request, error: DomainError) -> JSONResponse:
        return respond(problem_of(error, units=units_of(request)))

    @app.exception_handler(RequestValidationError)
    async def validation_error(request: Request, error: RequestValidationError) -> JSONResponse:
        return respond(problem_of_validation(error.errors(), units_of(request)))

    @app.exception_handler(HTTPException)
    async def http_error(_request: Request, error: HTTPException) -> JSONResponse:
        return respond(_http_problem(error))

    @app.exception_handler(StoreError)
    async def store_error(_request: Request, error: StoreError) -> JSONResponse:
        return respond(problem_of(trouble_of(error)))

    @app.exception_handler(Exception)
    async def unexpected(_request: Request, _error: Exception) -> JSONResponse:
        return respond(
            problem_of(
                DomainError(
                    "internal_error",
                    "Lyrandis stumbled over this.",
                    "Look in the logbook whether it is recorded; sent again as it is, it is "
                    "recorded once. If it stays, restart Lyrandis.",
                )
            )
        )


ALWAYS: dict[int, str] = {
    400: "The request cannot be read",
    403: "Asked under a foreign name, or by a foreign site",
    405: "Not done at this address",
    408: "What was sent did not arrive whole",
    413: "More than is taken at once",
    415: "Not sent as JSON",
    422: "What was sent cannot be so",
    500: "Lyrandis stumbled",
    503: "The bench's file is held by another program, or cannot be written to",
    507: "The disk is full",
}
"""Problems that any address may answer with."""


def documented(document: dict[str, Any], *, examples: bool) -> dict[str, Any]:
    """Write into the API's document the problems, each once, and for each address an example."""
    taken, shown = (EXAMPLES, answers()) if examples else ({}, {})
    content = {MEDIA_TYPE: {"schema": {"$ref": "#/components/schemas/Problem"}}}
    told = ALWAYS | {int(code): one["description"] for code, one in SOMETIMES.items()}
    document["components"]["responses"] = {
        f"Problem{status}": {"description": words, "content": content}
        for status, words in told.items()
    }
    for operations in document["paths"].values():
        for operation in operations.values():
            responses = operation["responses"]
            here = {*ALWAYS, *(code for code in SOMETIMES if str(code) in responses)}
            for status in here:
                responses[str(status)] = {"$ref": f"#/components/responses/Problem{status}"}
            name = operation["operationId"]
            for status in {"200", "201"} & responses.keys() if name in shown else ():
                responses[status]["content"]["application/json"]["example"] = shown[name]
            example = taken.get(name)
            for body in operation.get("requestBody", {}).get("content", {}).values():
                if example is not None:
                    body["example"] = example
    return document


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
SOMETIMES = NOT_FOUND | CONFLICT
"""Problems that some addresses may answer with besides."""
