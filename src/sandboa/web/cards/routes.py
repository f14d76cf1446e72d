"""What is printed of a clutch: the code, cards, labels, and its whole story."""

import io
from typing import Annotated

import segno
from fastapi import APIRouter, Depends, Path, Query, Request
from starlette.responses import Response

from sandboa.core.errors import NotPlausible
from sandboa.core.units import TemperatureUnit
from sandboa.formats.cards_pdf import (
    Printed,
    write_cards,
    write_labels,
)
from sandboa.formats.paper import CardPaper, LabelSheet, PagePaper
from sandboa.formats.pdf_paper import MEDIA_TYPE
from sandboa.formats.story_pdf import write_story
from sandboa.services.acts.preconditions import clutch_called
from sandboa.services.clutches.cards import Card, card_of
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.overview.clutch_story import clutch_story
from sandboa.web.cards.schemas import LabelResponse
from sandboa.web.house import House, NowS, TheHouse
from sandboa.web.requests.reader import reader_now
from sandboa.web.requests.zones import ZoneAsked, known_zone
from sandboa.web.security.known_hosts import reached_at
from sandboa.web.security.permissions import LOOK
from sandboa.words import Reader

router = APIRouter(prefix="/api", tags=["card"])

#: Cards in one file (assumption: a season's clutches of a large house).
_MOST_CARDS = 200

CodesAsked = Annotated[str, Query(max_length=4_000, description="Clutch codes, comma between")]


@router.get("/clutches/{code}/qr.svg", dependencies=[LOOK], response_class=Response)
def get_qr(
    code: Annotated[str, Path(max_length=20)], request: Request, house: TheHouse
) -> Response:
    """The address of the clutch's page as a QR code (SVG)."""
    clutch = clutch_called(code)
    out = io.BytesIO()
    address = _address(clutch.code, request, house)
    segno.make_qr(address, error="m").save(out, kind="svg", border=2, xmldecl=False, scale=4)
    return Response(out.getvalue(), media_type="image/svg+xml")


def _cards(clutches: CodesAsked, house: TheHouse, now_s: NowS) -> list[Card]:
    codes = [code.strip() for code in clutches.split(",") if code.strip()]
    if not 1 <= len(codes) <= _MOST_CARDS:
        raise NotPlausible("clutches", f"name 1 to {_MOST_CARDS} clutches")
    snapshot = house.snapshot()
    return [card_of(clutch_page(snapshot, code, now_s)) for code in codes]


CardsAsked = Annotated[list[Card], Depends(_cards)]


def _printed(cards: CardsAsked, request: Request, house: TheHouse) -> list[Printed]:
    return [Printed(card, _address(card.code, request, house)) for card in cards]


PrintedAsked = Annotated[list[Printed], Depends(_printed)]


@router.get("/labels", dependencies=[LOOK])
def list_labels(cards: CardsAsked) -> list[LabelResponse]:
    """What the labels of these clutches say, in the order asked."""
    return [LabelResponse.model_validate(card) for card in cards]


@router.get("/cards.pdf", dependencies=[LOOK], response_class=Response)
def get_cards(
    printed: PrintedAsked,
    zone: ZoneAsked = "UTC",
    unit: TemperatureUnit | None = None,
    paper: CardPaper = CardPaper.A6,
) -> Response:
    """Cards as PDF, one A6 page each, or four to a page of A4 or Letter."""
    reader = Reader.of(unit or reader_now().unit, known_zone(zone))
    return _pdf(write_cards(printed, reader, paper), "sandboa-cards.pdf")


@router.get("/labels.pdf", dependencies=[LOOK], response_class=Response)
def get_labels(
    printed: PrintedAsked,
    zone: ZoneAsked = "UTC",
    used: Annotated[int, Query(ge=0, le=100)] = 0,
    sheet: LabelSheet = LabelSheet.A4_70_BY_37,
) -> Response:
    """Labels as PDF, from the first free place of a used sheet."""
    reader = Reader.of(None, known_zone(zone))
    return _pdf(write_labels(printed, reader, used, sheet), "sandboa-labels.pdf")


@router.get("/clutches/{code}/story.pdf", dependencies=[LOOK], response_class=Response)
def get_story(
    code: Annotated[str, Path(max_length=20)],
    house: TheHouse,
    now_s: NowS,
    zone: ZoneAsked = "UTC",
    unit: TemperatureUnit | None = None,
    paper: PagePaper = PagePaper.A4,
) -> Response:
    """A clutch's whole story as PDF: curve, eggs, what was done, photos."""
    reader = Reader.of(unit or reader_now().unit, known_zone(zone))
    story = clutch_story(house.snapshot(), code, now_s)
    name = f"sandboa-{story.page.now.clutch.code}.pdf"
    return _pdf(write_story(story, reader, paper), name)


def _address(code: str, request: Request, house: House) -> str:
    return f"{reached_at(request, house)}/clutches/{code}"


def _pdf(written: bytes, name: str) -> Response:
    headers = {"Content-Disposition": f'inline; filename="{name}"', "Cache-Control": "no-store"}
    return Response(written, media_type=MEDIA_TYPE, headers=headers)
