"""Values that keep coming back in tests."""

from datetime import UTC, datetime

from sandboa.core.box import Closing, usual_places
from sandboa.journal.animals import AnimalSaid, add_animal
from sandboa.journal.lay_day import EggLaid, LayDay

#: The tests' own today.
NOW = datetime(2026, 6, 14, 18, 30, tzinfo=UTC)
NOW_S = NOW.timestamp()
DAY_S = 86_400.0
#: The zone the browser tests' keeper lives in; never that of the server.
ZONE = "Europe/Berlin"


def lay_day(days_ago: float = 10.0, **changes: object) -> LayDay:
    """A plausible lay day: six eggs, one of them a slug, in North's lower shelf."""
    values: dict[str, object] = {
        "dam": "Sorrel",
        "sire": "Flint",
        "laid_at": datetime.fromtimestamp(NOW_S - days_ago * DAY_S, UTC),
        "eggs": tuple(EggLaid(x, y, slug=i == 5) for i, (x, y) in enumerate(usual_places(6))),
        "medium": "vermiculite",
        "dry_mass_g": 200.0,
        "water_g": 200.0,
        "closing": Closing.PIN_HOLES,
        "cabinet": "North",
        "shelf": "lower",
        "set_point_c": 31.5,
    }
    return LayDay(**{**values, **changes})  # type: ignore[arg-type]


def animal(role: str, name: str, **more: object) -> int:
    """A dam or sire recorded now in the open house; its id."""
    return add_animal(AnimalSaid(role=role, name=name, **more), NOW_S)[0]  # type: ignore[arg-type]
