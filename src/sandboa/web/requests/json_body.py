"""Large JSON bodies, validated straight from their bytes."""

from typing import Annotated, Any, TypeVar

from fastapi import Depends, Request
from fastapi.exceptions import RequestValidationError
from pydantic import BaseModel, ValidationError

ModelT = TypeVar("ModelT", bound=BaseModel)


async def _raw_body(request: Request) -> bytes:
    return await request.body()


#: The body's bytes, unread.
RawBody = Annotated[bytes, Depends(_raw_body)]


def validated(model: type[ModelT], body: bytes) -> ModelT:
    """The body as `model`, refused as FastAPI itself would refuse it.

    FastAPI makes Python objects of the JSON first and validates those; for a
    season of readings that takes longer than storing them.
    """
    try:
        return model.model_validate_json(body, strict=True)
    except ValidationError as error:
        details = [{**item, "loc": ("body", *item["loc"])} for item in error.errors()]
        raise RequestValidationError(details) from error


def described(model: type[BaseModel]) -> dict[str, Any]:
    """What to tell OpenAPI of such a body: `openapi_extra` of its route."""
    schema = model.model_json_schema()
    parts = schema.pop("$defs", {})

    def whole(node: Any) -> Any:
        if isinstance(node, dict):
            name = str(node.get("$ref", "")).rpartition("/")[2]
            return whole(parts[name]) if name else {k: whole(v) for k, v in node.items()}
        return [whole(item) for item in node] if isinstance(node, list) else node

    content = {"application/json": {"schema": whole(schema)}}
    return {"requestBody": {"required": True, "content": content}}
