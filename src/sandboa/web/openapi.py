"""The API's own description (OpenAPI): every code it may answer with, and how one comes in.

FastAPI knows the answer that went well. What may be refused follows from what
an operation takes, and is said here once for all of them.
"""

from collections.abc import Iterator
from typing import Any, Final

from fastapi import FastAPI
from fastapi.openapi.utils import get_openapi

from sandboa.web.problems.handlers import TITLES
from sandboa.web.problems.schemas import ProblemResponse
from sandboa.web.requests.revisions import MATCH
from sandboa.web.security.permissions import SESSION_SCHEME

_PROBLEM: Final = "application/problem+json"
_REVISION: Final = {"type": "string", "pattern": r'^(\*|"?[0-9a-z]{1,40}"?)$'}
#: What FastAPI says of a refused body, though a problem is what is answered.
_NOT_OURS: Final = ("HTTPValidationError", "ValidationError")
_READS: Final = ("get", "head")


def describe(app: FastAPI) -> None:
    """Let the application describe itself in full; made when it is first asked for."""

    def openapi() -> dict[str, Any]:
        if app.openapi_schema is None:
            app.openapi_schema = _described(app)
        return app.openapi_schema

    app.openapi = openapi  # type: ignore[method-assign]


def _described(app: FastAPI) -> dict[str, Any]:
    told = get_openapi(title=app.title, version=app.version, routes=app.routes)
    schemas = told["components"]["schemas"]
    for name in _NOT_OURS:
        schemas.pop(name, None)
    shape = ProblemResponse.model_json_schema(ref_template="#/components/schemas/{model}")
    schemas.update(shape.pop("$defs", {}))
    schemas["Problem"] = shape
    told["components"]["responses"] = {str(code): _refusal(words) for code, words in TITLES.items()}
    for operations in told["paths"].values():
        for method, operation in operations.items():
            operation["responses"].pop("422", None)
            for answered in operation["responses"].values():
                _without_items_of_streams(answered.get("content", {}))
            for code in sorted(set(_refusals(method, operation))):
                operation["responses"][str(code)] = {"$ref": f"#/components/responses/{code}"}
            for parameter in operation.get("parameters", []):
                if parameter["name"] == MATCH:
                    # Without it the answer is 428, which says more than a missing field.
                    parameter |= {"required": True, "schema": _REVISION}
            if any(SESSION_SCHEME in one for one in operation.get("security", ())):
                # As long as nobody has a passphrase, the machine itself needs none.
                operation["security"].append({})
    return told


def _refusal(words: str) -> dict[str, Any]:
    problem = {"schema": {"$ref": "#/components/schemas/Problem"}}
    return {"description": words, "content": {_PROBLEM: problem}}


def _without_items_of_streams(content: dict[str, Any]) -> None:
    """FastAPI describes the events of a stream as OpenAPI 3.2 does, in a description of 3.1."""
    for kind in content.values():
        if kind.pop("itemSchema", None) is not None:
            kind["schema"] = {"type": "string"}


def _refusals(method: str, operation: dict[str, Any]) -> Iterator[int]:
    """The codes an operation may refuse with, by what it takes."""
    names = {p["name"]: p["in"] for p in operation.get("parameters", [])}
    # Under a name that is not the house's.
    yield 400
    # Not signed in; from another site, another machine, or by somebody it is not for.
    yield from (401, 403)
    # Too many ask, or the house is closed for a moment, or its disk full.
    yield from (429, 503)
    if names or "requestBody" in operation:
        yield from (404, 409, 422)
    if method not in _READS:
        yield 409
    if "requestBody" in operation:
        yield 413
    if MATCH in names:
        yield from (412, 428)
