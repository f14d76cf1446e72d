"""Every number and boolean of every body, sent as something else."""

from collections.abc import Iterator
from typing import Any

import pytest
from fastapi.testclient import TestClient

from web.asking import description, problem

_API = description()
#: What is sent for a number and for a boolean.
_WRONG = {"number": ("31", True), "integer": ("31", True, 31.5), "boolean": ("true", 1)}


def _resolved(schema: dict[str, Any]) -> dict[str, Any]:
    while "$ref" in schema:
        schema = _API["components"]["schemas"][schema["$ref"].rpartition("/")[2]]
    return schema


def _leaves(schema: dict[str, Any], path: tuple[str, ...] = ()) -> Iterator[tuple[Any, str]]:
    """(path of field names, kind) of the numbers and booleans in a body; lists as their first."""
    schema = _resolved(schema)
    choices = schema.get("anyOf") or schema.get("oneOf")
    if choices:
        kinds = {_resolved(choice).get("type") for choice in choices}
        if "string" in kinds:
            return
        for choice in choices:
            yield from _leaves(choice, path)
    elif schema.get("type") == "object" and len(path) < 4:
        for name, part in schema.get("properties", {}).items():
            yield from _leaves(part, (*path, name))
    elif schema.get("type") == "array" and len(path) < 4:
        yield from _leaves(schema.get("items", {}), (*path, "[]"))
    elif schema.get("type") in _WRONG and "enum" not in schema and "const" not in schema:
        yield path, schema["type"]


def fields() -> list[tuple[str, str, tuple[str, ...], str]]:
    """Method, path, field and kind of each."""
    return [
        (method.upper(), path, leaf, kind)
        for path, methods in _API["paths"].items()
        for method, operation in methods.items()
        for content in [operation.get("requestBody", {}).get("content", {})]
        if "application/json" in content
        for leaf, kind in _leaves(content["application/json"]["schema"])
    ]


def _body(leaf: tuple[str, ...], value: Any) -> Any:
    for name in reversed(leaf):
        value = [value] if name == "[]" else {name: value}
    return value


def test_there_are_such_fields() -> None:
    assert len(fields()) > 60


@pytest.mark.parametrize(
    ("method", "path", "leaf", "kind"),
    fields(),
    ids=lambda v: v if isinstance(v, str) else ".".join(v),
)
def test_what_is_no_number_is_not_made_one(
    http: TestClient, method: str, path: str, leaf: tuple[str, ...], kind: str
) -> None:
    filled = path.replace("{name}", "lightest_dam_g")
    for part in ("{person}", "{messenger}", "{animal}", "{clutch}", "{code}", "{lay_day}"):
        filled = filled.replace(part, "1")
    while "{" in filled:
        filled = filled[: filled.index("{")] + "1" + filled[filled.index("}") + 1 :]
    for value in _WRONG[kind]:
        signed = path == "/api/readings"
        headers = {"Authorization": f"Bearer {token(http)}"} if signed else {}
        answer = http.request(method, filled, json=_body(leaf, value), headers=headers)
        told = problem(answer, 422)
        wanted = ".".join("0" if name == "[]" else name for name in leaf)
        named = [e for e in told["errors"] if e["field"].endswith(leaf[-1]) or wanted in e["field"]]
        assert named, (value, told)


def token(http: TestClient) -> str:
    made = http.post("/api/devices", json={"name": "Gateway"})
    if made.status_code == 409:
        gateway = http.get("/api/devices").json()[0]["id"]
        made = http.post(f"/api/devices/{gateway}/token")
    return str(made.json()["token"])
