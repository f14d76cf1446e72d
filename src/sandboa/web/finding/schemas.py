"""Responses of this place."""

from sandboa.services.overview.finding import Kind
from sandboa.web.requests.reader import Sentence
from sandboa.web.schemas.common import ResponseSchema


class FoundResponse(ResponseSchema):
    """Something found: what it is called, more about it, and the path of its page."""

    kind: Kind
    name: str
    about: Sentence
    place: str
