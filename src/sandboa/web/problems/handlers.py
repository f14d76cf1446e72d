"""Errors as RFC 9457 problem details, with the field and the reason in a keeper's words."""

import errno
import logging
from collections.abc import Callable
from typing import Any, Final

from fastapi import FastAPI
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Temperature, Words, capitalised
from sandboa.core.units import UNIT_ENDINGS, spoken
from sandboa.formats.logger_files import NotReadable
from sandboa.formats.pictures import NotAPicture
from sandboa.practice.errors import NoSuchSession, Refused
from sandboa.services.acts.errors import Conflict, NotFound, Question
from sandboa.services.acts.revisions import Outdated, revision_of
from sandboa.services.people.signing_in import Busy, NotSignedIn
from sandboa.services.people.tokens import NotAllowed
from sandboa.services.safekeeping.faults import STATEMENT_FAILED, HouseFault, fault_of
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


#: Of the types that a limit makes: the side a value lies on, and where the limit is.
_LIMITS: Final = {
    "greater_than_equal": ("below", "ge"),
    "less_than_equal": ("above", "le"),
}

DAMAGED_HOUSE = (
    "The house's file is damaged and only read from, so that nothing gets worse. Nothing was "
    "stored: a keeper can restore the house from a backup, in Settings."
)
_NO_ROOM = frozenset({errno.ENOSPC, errno.EDQUOT, errno.EROFS, errno.EIO, errno.EFBIG})
FAILED = "Something failed here that should not. Nothing was stored."
_log = logging.getLogger(__name__)


#: Of what is answered when it is worth trying again soon.
_SOON: Final = {"Retry-After": str(RETRY_AFTER_S)}


class NotForYou(Exception):
    """Whoever asks may not do that; the text is a sentence."""


def problem(
    status: int,
    detail: Words,
    errors: list[dict[str, Words]] | None = None,
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
            "detail": capitalised(detail),
            "errors": errors or [],
            **more,
        }
    )
    body = told.model_dump(mode="json", exclude_unset=True)
    return JSONResponse(body, status, media_type="application/problem+json")


def _field(name: str, reason: Words) -> list[dict[str, Words]]:
    return [{"field": name, "reason": reason}]


def _with(headers: dict[str, str], response: JSONResponse) -> JSONResponse:
    response.headers.update(headers)
    return response


def _refused_by_schema(error: RequestValidationError) -> JSONResponse:
    errors = [_in_words(item) for item in error.errors()]
    return problem(422, _said(**errors[0]), errors)


def _outdated(error: Outdated) -> JSONResponse:
    current = {"revision": revision_of(error.now), "form": error.now}
    return problem(412, str(error), current=current)


def _file_fault(error: OSError) -> JSONResponse:
    if error.errno in _NO_ROOM:
        return _later("The disk is full or cannot be written to; nothing was stored.")
    _log.error("a file could not be used", exc_info=error)
    return problem(500, FAILED)


#: Every foreseen error, and what is answered. What is raised elsewhere is a slip of ours: Starlette
#: logs it, and the keeper learns that nothing is half done.
ANSWERS: Final[dict[type[Exception], Callable[[Any], JSONResponse]]] = {
    NotPlausible: lambda e: problem(422, e.reason, _field(e.field, e.reason)),
    NotReadable: lambda e: problem(422, str(e), _field("file", str(e))),
    NotAPicture: lambda e: problem(422, str(e), _field("file", str(e))),
    RequestValidationError: _refused_by_schema,
    Question: lambda e: problem(409, e.reason, confirm=e.confirm),
    Conflict: lambda e: problem(409, e.reason),
    NotFound: lambda e: problem(404, e.reason),
    Refused: lambda e: problem(409, e.reason),
    NoSuchSession: lambda e: problem(404, e.reason),
    Outdated: _outdated,
    NotSeen: lambda e: problem(428, str(e)),
    NotAllowed: lambda e: _with({"WWW-Authenticate": "Bearer"}, problem(401, str(e))),
    NotSignedIn: lambda e: problem(401, str(e)),
    NotForYou: lambda e: problem(403, str(e)),
    TooManyTries: lambda e: _with({"Retry-After": str(e.wait_s)}, problem(429, str(e))),
    Busy: lambda e: _with(_SOON, problem(429, str(e))),
    TooMany: lambda e: _with(_SOON, problem(429, f"{e}. Nothing was stored: send it again.")),
    TooLargeUnpacked: lambda _: problem(
        413, "Unpacked it is too large. Nothing was stored: send smaller batches."
    ),
    STATEMENT_FAILED: lambda e: database_problem(e),
    OSError: _file_fault,
    HTTPException: lambda e: _with(e.headers or {}, problem(e.status_code, str(e.detail))),
    Exception: lambda _: problem(500, FAILED),
}


def install(app: FastAPI) -> None:
    """Let the application answer every foreseen error as a problem."""

    def handler(answer: Callable[[Any], JSONResponse]) -> Callable[..., JSONResponse]:
        return lambda _request, error: answer(error)

    for kind, answer in ANSWERS.items():
        app.exception_handler(kind)(handler(answer))


def database_problem(error: Exception) -> JSONResponse:
    """What is answered when a statement failed, and why; nothing was stored by it."""
    fault, first = fault_of(error)
    match fault:
        case HouseFault.DAMAGED:
            return _later(DAMAGED_HOUSE)
        case HouseFault.BUSY:
            return _later(f"The database is busy or its disk full; nothing was stored ({first}).")
        case HouseFault.CLASH:
            return problem(409, "Somebody recorded the same at this moment: look again.")
    _log.error("a statement failed", exc_info=first)
    return problem(500, FAILED)


def _later(detail: str) -> JSONResponse:
    return _with(_SOON, problem(503, detail))


def _in_words(item: dict[str, Any]) -> dict[str, Words]:
    # The place of a slip in the JSON itself is a position in the text, no field.
    place = () if item["type"] == "json_invalid" else item["loc"]
    field = ".".join(str(part) for part in place if part not in ("body", "query", "path"))
    return {"field": field, "reason": _reason(field, item)}


def _reason(field: str, item: dict[str, Any]) -> Words:
    pattern = _REASONS.get(item["type"])
    context = item.get("ctx") or {}
    limit = _LIMITS.get(item["type"])
    if limit is not None and field.endswith("_c"):
        return Message(
            "is {side} {limit}", side=limit[0], limit=Temperature(context[limit[1]], None)
        )
    if pattern is None:
        return str(item["msg"]).removeprefix("Value error, ")
    unit = next((u for ending, u in UNIT_ENDINGS.items() if limit and field.endswith(ending)), None)
    try:
        told = pattern.format(**{key: _plain(value) for key, value in context.items()})
    except KeyError:
        return str(item["msg"])
    return f"{told} {unit}" if unit else told


def _said(field: Words, reason: Words) -> Words:
    """ "temperature is above 60 °C": what the API calls temperature_c, as a keeper says it."""
    return Message("{field} {reason}", field=spoken(str(field)) or "the request", reason=reason)


def _plain(value: object) -> str:
    return f"{value:g}" if isinstance(value, float) else str(value)
