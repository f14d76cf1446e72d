"""What a card says of a clutch."""

from samples import NOW_S, lay_day
from sandboa.core.box import Shell, usual_places
from sandboa.core.candling import Vessels
from sandboa.core.lay_day import EggEvent
from sandboa.services.clutches.cards import Card, card_of
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.lay_day import EggLaid, lay_clutch
from sandboa.services.lay_day.day import EggHappening
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.words import to_reader


def card(house: SnapshotCache, **laid: object) -> Card:
    code = lay_clutch(lay_day(**laid), NOW_S)[0]
    return card_of(clutch_page(house.current(), code, NOW_S))


def test_it_holds_what_one_must_know_with_the_box_in_hand(house: SnapshotCache) -> None:
    told = card(house, set_up_mass_g=1390.0)
    lines = {line.name: str(line.text) for line in told.lines}
    assert (told.parents, told.count) == ("Sorrel × Flint", "6-1")
    assert lines == {
        "Place": "North, lower, 31.5 °C",
        "Medium": "vermiculite, bedded in a hollow",
        "Closing": "lid with 1-2 pin holes",
        "Set up": "200 g dry, 200 g water, whole box 1390 g",
        "Visits": "every 7 days",
        "Cutting": "after the first pip",
        "Expect": "4 of 5 to hatch (2 to 5)",
    }
    assert told.pips is not None
    assert told.keeping == "vermiculite"


def test_it_speaks_the_degrees_of_whoever_reads_it(house: SnapshotCache) -> None:
    place = card(house).lines[0].text
    assert to_reader(place, "F", "UTC") == "North, lower, 88.7\N{NO-BREAK SPACE}°F"


def test_what_was_not_weighed_is_said_so(house: SnapshotCache) -> None:
    told = card(house, dry_mass_g=None, water_g=None)
    assert {line.text for line in told.lines if line.name == "Set up"} == {"not weighed"}


def test_eggs_that_are_not_like_the_others_are_named_and_only_those(house: SnapshotCache) -> None:
    places = usual_places(4)
    laid_s = lay_day().laid_at.timestamp()
    eggs = (
        EggLaid(*places[0], vessels=Vessels.STRONG),
        EggLaid(*places[1], vessels=Vessels.WEAK, shells=(Shell.WINDOW,)),
        EggLaid(
            *places[2],
            events=(
                EggHappening(EggEvent.SEPARATED, laid_s), EggHappening(EggEvent.TURNED, laid_s),
            ),
        ),
        EggLaid(*places[3], slug=True),
    )  # fmt: skip
    assert card(house, eggs=eggs).egg_notes == "2 window, vessels weak; 3 turned; 4 slug"


def test_no_date_is_promised_where_none_can_be_told(house: SnapshotCache) -> None:
    slugs = tuple(EggLaid(x, y, slug=True) for x, y in usual_places(2))
    assert card(house, eggs=slugs).pips is None
