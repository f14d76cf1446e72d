"""Errors as RFC 9457 problem details, with the field and the reason in a keeper's words."""

import errno
import logging
from typing import Any, Final

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from sandboa.core.errors import NotPlausible
from sandboa.core.units import UNIT_ENDINGS, spoken
from sandboa.formats.pictures import NotAPicture
from sandboa.formats.readings_csv import NotReadable
from sandboa.records.database import (
    DatabaseFault,
    IntegrityError,
    Unavailable,
    check_quickly,
    means_damage,
    means_disk_fault,
)
from sandboa.services.acts.errors import Conflict, NotFound, Question
from sandboa.services.acts.revisions import Outdated, revision_of
from sandboa.services.people.signing_in import Busy, NotSignedIn
from sandboa.services.probes.devices import NotAllowed
from sandboa.web.problems.schemas import ProblemResponse
from sandboa.web.requests.concurrency import RETRY_AFTER_S, TooMany
from sandboa.web.requests.gzip_body import TooLargeUnpacked
from sandboa.web.requests.revisions import NotSeen
from sandboa.web.security.sign_in_attempts import TooManyTries

#: Of every code that something is refused with.
TITLES: Final = {
    400: "Not understood",
    401: "Not allowed",
    403: "Not for you",
    404: "Not found",
    409: "Contradicts what is recorded",
    412: "Changed meanwhile",
    413: "Too large",
    422: "Cannot be true",
    428: "Which version was seen",
    429: "Too many at once",
    503: "Busy",
}

#: Pydantic's error types in words; {…} are filled from the error's context.
_REASONS = {
    "missing": "is missing",
    "extra_forbidden": "is not a field here",
    "finite_number": "is not a number",
    "float_parsing": "is not a number",
    "float_type": "is not a number",
    "int_parsing": "is not a whole number",
    "int_type": "is not a whole number",
    "int_from_float": "is not a whole number",
    "string_type": "is not text",
    "string_too_long": "is too long, {max_length} characters fit",
    "string_too_short": "is empty",
    "greater_than_equal": "is below {ge}",
    "greater_than": "must be more than {gt}",
    "less_than_equal": "is above {le}",
    "less_than": "must be less than {lt}",
    "too_long": "has too many entries, {max_length} at most",
    "too_short": "needs at least {min_length}",
    "timezone_aware": "needs its offset from UTC, like 2026-03-12T09:00+00:00",
    "datetime_parsing": "is not a date and time",
    "datetime_from_date_parsing": "is not a date and time",
    "enum": "is not one of {expected}",
    "literal_error": "is not one of {expected}",
    "json_invalid": "is not valid JSON",
    "model_attributes_type": "is not a JSON object",
    "model_type": "is not a JSON object",
    "list_type": "is not a list",
}


DAMAGED_HOUSE = (
    "The house's file is damaged and only read from, so that nothing gets worse. Nothing was "
    "stored: a keeper can take the house back to a backup, in Settings."
)
_NO_ROOM = frozenset({errno.ENOSPC, errno.EDQUOT, errno.EROFS, errno.EIO, errno.EFBIG})
FAILED = "Something failed here that should not. Nothing was stored."
_log = logging.getLogger(__name__)


class NotForYou(Exception):
    """Whoever asks may not do that; the text is a sentence."""


def problem(
    status: int,
    detail: str,
    errors: list[dict[str, str]] | None = None,
    confirm: str | None = None,
    current: dict[str, Any] | None = None,
) -> JSONResponse:
    """A problem+json response.

    `confirm` names the field that lets it pass after all; `current` is what a
    form holds that somebody changed meanwhile, and its revision.
    """
    more: dict[str, Any] = {}
    if confirm is not None:
        more["confirm"] = confirm
    if current is not None:
        more["current"] = current
    told = ProblemResponse.model_validate(
        {
            "type": "about:blank",
            "title": TITLES.get(status, "Error"),
            "status": status,
            "detail": detail,
            "errors": errors or [],
            **more,
        }
    )
    body = told.model_dump(mode="json", exclude_unset=True)
    return JSONResponse(body, status, media_type="application/problem+json")


def install(app: FastAPI) -> None:
    """Let the application answer every foreseen error as a problem."""

    @app.exception_handler(NotPlausible)
    def _(_: Request, error: NotPlausible) -> JSONResponse:
        return problem(
            422, _sentence(error.reason), [{"field": error.field, "reason": error.reason}]
        )

    @app.exception_handler(NotReadable)
    def _(_: Request, error: NotReadable) -> JSONResponse:
        return problem(422, str(error), [{"field": "file", "reason": str(error)}])

    @app.exception_handler(NotAPicture)
    def _(_: Request, error: NotAPicture) -> JSONResponse:
        return problem(422, _sentence(str(error)), [{"field": "file", "reason": str(error)}])

    @app.exception_handler(Question)
    def _(_: Request, error: Question) -> JSONResponse:
        return problem(409, _sentence(str(error)), confirm=error.confirm)

    @app.exception_handler(NotFound)
    def _(_: Request, error: NotFound) -> JSONResponse:
        return problem(404, _sentence(str(error)))

    @app.exception_handler(Conflict)
    def _(_: Request, error: Conflict) -> JSONResponse:
        return problem(409, _sentence(str(error)))

    @app.exception_handler(Outdated)
    def _(_: Request, error: Outdated) -> JSONResponse:
        current = {"revision": revision_of(error.now), "form": error.now}
        return problem(412, _sentence(str(error)), current=current)

    @app.exception_handler(NotSeen)
    def _(_: Request, error: NotSeen) -> JSONResponse:
        return problem(428, _sentence(str(error)))

    @app.exception_handler(NotAllowed)
    def _(_: Request, error: NotAllowed) -> JSONResponse:
        response = problem(401, _sentence(str(error)))
        response.headers["WWW-Authenticate"] = "Bearer"
        return response

    @app.exception_handler(NotSignedIn)
    def _(_: Request, error: NotSignedIn) -> JSONResponse:
        return problem(401, _sentence(str(error)))

    @app.exception_handler(NotForYou)
    def _(_: Request, error: NotForYou) -> JSONResponse:
        return problem(403, _sentence(str(error)))

    @app.exception_handler(TooManyTries)
    def _(_: Request, error: TooManyTries) -> JSONResponse:
        response = problem(429, _sentence(str(error)))
        response.headers["Retry-After"] = str(error.wait_s)
        return response

    @app.exception_handler(Busy)
    def _(_: Request, error: Busy) -> JSONResponse:
        response = problem(429, _sentence(str(error)))
        response.headers["Retry-After"] = str(RETRY_AFTER_S)
        return response

    @app.exception_handler(TooMany)
    def _(_: Request, error: TooMany) -> JSONResponse:
        response = problem(429, f"{_sentence(str(error))}. Nothing was stored: send it again.")
        response.headers["Retry-After"] = str(RETRY_AFTER_S)
        return response

    @app.exception_handler(TooLargeUnpacked)
    def _(_: Request, __: TooLargeUnpacked) -> JSONResponse:
        return problem(413, "Unpacked it is too large. Nothing was stored: send smaller batches.")

    @app.exception_handler(RequestValidationError)
    def _(_: Request, error: RequestValidationError) -> JSONResponse:
        errors = [_in_words(item) for item in error.errors()]
        return problem(422, _sentence(_said(**errors[0])), errors)

    @app.exception_handler(DatabaseFault)
    def _(_: Request, error: DatabaseFault) -> JSONResponse:
        return database_problem(error)

    @app.exception_handler(IntegrityError)
    def _(_: Request, __: IntegrityError) -> JSONResponse:
        # What was looked for first and is refused by SQLite all the same came in between.
        return problem(409, "Somebody recorded the same at this moment: look again.")

    @app.exception_handler(Unavailable)
    def _(_: Request, error: Unavailable) -> JSONResponse:
        return database_problem(error)

    @app.exception_handler(OSError)
    def _(_: Request, error: OSError) -> JSONResponse:
        if error.errno in _NO_ROOM:
            return _later("The disk is full or cannot be written to; nothing was stored.")
        _log.error("a file could not be used", exc_info=error)
        return problem(500, FAILED)

    @app.exception_handler(Exception)
    def _(_: Request, __: Exception) -> JSONResponse:
        # Starlette logs the error itself; the keeper learns that nothing is half done.
        return problem(500, FAILED)

    @app.exception_handler(HTTPException)
    def _(_: Request, error: HTTPException) -> JSONResponse:
        response = problem(error.status_code, str(error.detail))
        response.headers.update(error.headers or {})
        return response


def database_problem(error: DatabaseFault) -> JSONResponse:
    """What is answered when a statement failed, and why; nothing was stored by it."""
    error = _first(error)
    # Whoever meets damage is the first to know of it: look at all of the file now.
    if (means_damage(error) or means_disk_fault(error)) and check_quickly():
        return _later(DAMAGED_HOUSE)
    if isinstance(error, Unavailable):
        return _later(f"The database is busy or its disk full; nothing was stored ({error}).")
    _log.error("a statement failed", exc_info=error)
    return problem(500, FAILED)


def _first(error: DatabaseFault) -> DatabaseFault:
    """What failed first: SQLite has rolled back itself then, and a rollback fails after it."""
    first, before = error, error.__context__
    while before is not None:
        if isinstance(before, DatabaseFault):
            first = before
        before = before.__context__
    return first


def _later(detail: str) -> JSONResponse:
    response = problem(503, detail)
    response.headers["Retry-After"] = str(RETRY_AFTER_S)
    return response


def _in_words(item: dict[str, Any]) -> dict[str, str]:
    # The place of a slip in the JSON itself is a position in the text, no field.
    place = () if item["type"] == "json_invalid" else item["loc"]
    field = ".".join(str(part) for part in place if part not in ("body", "query", "path"))
    pattern = _REASONS.get(item["type"])
    if pattern is None:
        return {"field": field, "reason": str(item["msg"]).removeprefix("Value error, ")}
    context = {key: _plain(value) for key, value in (item.get("ctx") or {}).items()}
    try:
        return {"field": field, "reason": pattern.format(**context)}
    except KeyError:
        return {"field": field, "reason": str(item["msg"])}


def _said(field: str, reason: str) -> str:
    """ "temperature is above 60 °C": what the API calls temperature_c, as a keeper says it."""
    if reason.startswith(("is above", "is below")):
        unit = next((u for ending, u in UNIT_ENDINGS.items() if field.endswith(ending)), None)
        reason += f" {unit}" if unit else ""
    return f"{spoken(field) or 'the request'} {reason}"


def _plain(value: object) -> str:
    return f"{value:g}" if isinstance(value, float) else str(value)


def _sentence(text: str) -> str:
    return text[:1].upper() + text[1:]
