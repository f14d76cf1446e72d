"""A model that takes numbers and booleans as JSON has them: "31" is a text and true no number."""

from collections.abc import Callable
from typing import Any, Final

from pydantic import BaseModel, GetCoreSchemaHandler
from pydantic_core import CoreSchema

#: Kinds of pydantic's core schemas that would take one for the other.
_STRICT: Final = frozenset({"int", "float", "bool"})
#: Parts of a core schema that are no schemas.
_OTHERS: Final = frozenset({"metadata", "serialization", "cls", "members", "ref", "type"})


def _make_strict(schema: Any, resolve: Callable[[Any], Any], seen: set[str]) -> None:
    """Have every number and boolean of a core schema taken as it comes, or refused; in place.

    `resolve` finds what a reference stands for.
    """
    if isinstance(schema, list | tuple):
        for part in schema:
            _make_strict(part, resolve, seen)
    if not isinstance(schema, dict):
        return
    if schema.get("type") in _STRICT:
        schema.setdefault("strict", True)
    if schema.get("type") == "definition-ref" and schema["schema_ref"] not in seen:
        seen.add(schema["schema_ref"])
        _make_strict(resolve(schema), resolve, seen)
    for key, part in schema.items():
        if key not in _OTHERS:
            _make_strict(part, resolve, seen)


class Strictly:
    """The same for what is no model of its own: `Annotated[Method, Strictly()]`."""

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        schema = handler(source)
        _make_strict(schema, handler.resolve_ref_schema, set())
        return schema


class StrictModel(BaseModel):
    """Base of everything that is taken in; texts that stand for something are read as usual."""

    @classmethod
    def __get_pydantic_core_schema__(
        cls, source: type[BaseModel], handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        schema = handler(source)
        _make_strict(schema, handler.resolve_ref_schema, set())
        return schema
