"""Answers put together from parts: what an act did not touch is said in the words of before."""

from collections.abc import Iterable

from fastapi import Response
from pydantic import BaseModel


def joined(whole: BaseModel, name: str, parts: Iterable[bytes]) -> Response:
    """`whole` as JSON, its list `name` made of `parts`, each one member of it as JSON.

    `whole` is an answer of which only that list is left empty, so that it is described as one.
    """
    rest = whole.model_dump_json(exclude={name}).encode()
    opened = b"{" if rest == b"{}" else rest[:-1] + b","
    body = opened + b'"' + name.encode() + b'":[' + b",".join(parts) + b"]}"
    return Response(body, media_type="application/json")
