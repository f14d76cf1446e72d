"""Requests and responses of this place."""

from pydantic import BaseModel

from sandboa.web.schemas.common import Moment


class CalendarLinkResponse(BaseModel):
    """When the asking person's private link was made, null without one; it is told only once."""

    made_at: Moment | None


class NewCalendarLinkResponse(BaseModel):
    """The private link in the clear: whoever has it reads the calendar.

    `this_machine_only`: no other device reaches its address.
    """

    link: str
    this_machine_only: bool
