"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.pairing.genes import DoubleForm, Inheritance
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import RequestSchema, ResponseSchema


class GeneResponse(BaseModel):
    id: int
    name: str
    inheritance: Inheritance
    double_form: DoubleForm
    revision: Revision


class GeneRequest(RequestSchema):
    """A trait: how it is inherited, and what becomes of an animal with two copies."""

    name: Annotated[str, Field(max_length=20_000)]
    inheritance: Inheritance
    double_form: DoubleForm = DoubleForm.FINE


class FormResponse(ResponseSchema):
    words: str
    chance: float


class SeenResponse(ResponseSchema):
    """How often a trait was seen among hatchlings, against what was to be expected."""

    gene: str
    expected: float
    seen: int
    of: int
    words: str


class PairResponse(BaseModel):
    """What a pair can produce, among all eggs; and what hatched of it so far.

    `dies` is the chance of an egg to get a double form that dies; `proofs` are what hatchlings
    made of the possible traits of the two, a sentence each.
    """

    dam: str
    sire: str
    forms: list[FormResponse]
    dies: float
    harmful: float
    may_die: list[str]
    unlisted: list[str]
    hatched: list[SeenResponse]
    losses_words: str | None
    proofs: list[str]
