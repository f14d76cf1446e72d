"""What is answered when something is refused, as the API describes it (RFC 9457)."""

from typing import Any

from pydantic import BaseModel, Field

from sandboa.web.requests.reader import Sentence


class FieldProblemResponse(BaseModel):
    """A field of the request and why its value is refused."""

    field: str
    reason: Sentence


class CurrentFormResponse(BaseModel):
    """What a form holds that somebody changed meanwhile; null when it was emptied."""

    revision: str
    form: dict[str, Any] | None


class ProblemResponse(BaseModel):
    """A refusal in words.

    `errors` are its fields, `confirm` the field that lets it pass after all,
    `current` what was changed meanwhile.
    """

    type: str
    title: str
    status: int
    detail: Sentence
    errors: list[FieldProblemResponse]
    confirm: str = Field(default="")
    current: CurrentFormResponse | None = None
