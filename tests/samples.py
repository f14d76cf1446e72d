"""Values that keep coming back in tests."""

from datetime import UTC, datetime

from sandboa.core.box import Closing, usual_places
from sandboa.core.development import DevelopmentCurve
from sandboa.core.hatching import Fate
from sandboa.core.hatching.fates import likely_fate
from sandboa.records.clutches import Clutch
from sandboa.records.facts import Act
from sandboa.services.acts.preconditions import clutch_called
from sandboa.services.animals.commands import AnimalCommand, add_animal
from sandboa.services.boxes.climate import development_curve
from sandboa.services.boxes.egg_paths import groups_by_path
from sandboa.services.hatching.fates import (
    FateCommand,
    declare_fates,
    finish,
    without_fate,
)
from sandboa.services.hatching.open_clutch import record_of
from sandboa.services.lay_day import EggLaid, LayDay
from sandboa.services.snapshot.snapshot import Snapshot

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
    return add_animal(AnimalCommand(role=role, name=name, **more), NOW_S)[0]  # type: ignore[arg-type]


def curve_of(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> DevelopmentCurve:
    """D(t) of most eggs of a clutch."""
    eggs = snapshot.eggs[clutch.entity_id]
    path = next(iter(groups_by_path(snapshot, clutch, eggs, as_of_s)))
    return development_curve(snapshot, path, as_of_s)


def close_clutch(code: str, at_s: float, **fates: Fate) -> Act:
    """Close a clutch at `at_s`; eggs without a fate get the likely one, or that of `egg3=...`."""
    eggs = without_fate(clutch_called(code))
    said = [
        FateCommand(e.number, fates.get(f"egg{e.number}", likely_fate(record_of(e)))) for e in eggs
    ]
    if said:
        declare_fates(code, said, at_s, at_s)
    return finish(code, at_s, at_s)
