"""The house's calendar: as a file, and by a private link to subscribe to."""

from typing import Annotated

from fastapi import APIRouter, Path, Request
from starlette.responses import Response

from sandboa.formats.icalendar import MEDIA_TYPE, write_calendar
from sandboa.services.overview.calendar import calendar
from sandboa.services.overview.happened import happened
from sandboa.services.people.preferences import temperature_unit_of
from sandboa.services.people.private_link import (
    end_link,
    link_of,
    make_link,
    owner_of,
)
from sandboa.services.people.signing_in import SignedIn
from sandboa.services.safekeeping.security_log import Kind, note
from sandboa.web.calendar.schemas import CalendarLinkResponse, NewCalendarLinkResponse
from sandboa.web.house import Asking, House, MomentS, NowS, TheHouse
from sandboa.web.requests.reader import reader_now
from sandboa.web.requests.zones import ZoneAsked, known_zone
from sandboa.web.schemas.common import at_or_none
from sandboa.web.security.known_hosts import is_here, reached_at
from sandboa.web.security.permissions import ANYONE, LOOK, OWN
from sandboa.web.security.requester import AskedBy
from sandboa.words import Reader

router = APIRouter(tags=["calendar"])


@router.get("/api/calendar.ics", dependencies=[LOOK], response_class=Response)
def get_calendar(
    request: Request, house: TheHouse, now_s: MomentS, zone: ZoneAsked = "UTC"
) -> Response:
    """Visits due and windows expected, as an iCalendar file."""
    reader = Reader.of(reader_now().unit, known_zone(zone))
    return _written(request, house, now_s, reader, "attachment")


@router.get(
    "/calendar/{token}.ics", dependencies=[ANYONE], response_class=Response, include_in_schema=False
)
def follow_calendar(
    token: Annotated[str, Path(max_length=100)],
    request: Request,
    house: TheHouse,
    now_s: NowS,
    zone: ZoneAsked = "UTC",
) -> Response:
    """The same by a private link, which needs nobody signed in."""
    unit = temperature_unit_of(owner_of(token))
    return _written(request, house, now_s, Reader.of(unit, known_zone(zone)), "inline")


@router.get("/api/calendar/link", dependencies=[LOOK])
def get_calendar_link(person: Asking) -> CalendarLinkResponse:
    """Whether whoever asks has a private link."""
    link = link_of(_entity(person))
    return CalendarLinkResponse(made_at=at_or_none(link.made_s if link else None))


@router.post("/api/calendar/link", dependencies=[OWN], status_code=201)
def make_calendar_link(
    request: Request,
    person: Asking,
    house: TheHouse,
    by: AskedBy,
    now_s: NowS,
    zone: ZoneAsked = "UTC",
) -> NewCalendarLinkResponse:
    """Make a private link; the one before holds no more."""
    # Before the old link is ended: a slip in the zone costs nothing.
    named = known_zone(zone)
    token = make_link(_entity(person), now_s)
    note(Kind.LINK, "made a calendar link", by, now_s)
    address = reached_at(request, house)
    return NewCalendarLinkResponse(
        link=f"{address}/calendar/{token}.ics?zone={named}", this_machine_only=is_here(address)
    )


@router.delete("/api/calendar/link", dependencies=[OWN], status_code=204)
def end_calendar_link(person: Asking, by: AskedBy, now_s: NowS) -> None:
    """Let nobody read the calendar by the link any more."""
    end_link(_entity(person))
    note(Kind.LINK, "ended the calendar link", by, now_s)


def _entity(person: SignedIn | None) -> int | None:
    return person.entity if person else None


def _written(request: Request, house: House, now_s: float, reader: Reader, how: str) -> Response:
    snapshot = house.snapshot()
    written = write_calendar(
        [*happened(snapshot, now_s), *calendar(snapshot, now_s)],
        reader,
        now_s,
        reached_at(request, house),
    )
    headers = {
        "Content-Disposition": f'{how}; filename="sandboa.ics"',
        "Cache-Control": "no-store",
    }
    return Response(written, media_type=MEDIA_TYPE, headers=headers)
