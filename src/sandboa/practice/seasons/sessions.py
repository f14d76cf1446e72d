"""Kept seasons: begun, kept day by day, and told; only what was done is stored."""

import json
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Final

from sandboa.core.errors import NotPlausible
from sandboa.devices.simulation.kept import Deed, Impossible, Plan, plan_of
from sandboa.devices.simulation.kept.plan import DIFFICULTIES
from sandboa.practice.errors import Refused
from sandboa.practice.files import VERSION, Practice, require_room, require_session
from sandboa.practice.seasons.at_hand import Key, SeasonsAtHand
from sandboa.practice.seasons.players import SCHOOLS, opens
from sandboa.practice.seasons.replay import Done, Replayed, note_seen, replay
from sandboa.practice.seasons.telling import Telling, tell
from sandboa.practice.seeds import any_seed, seed_of
from sandboa.records.practice_store import StoredSession

KIND: Final = "season"
#: Boxes of a season (product requirement), and how many come without asking.
BOXES_RANGE: Final = (3, 8)
USUAL_BOXES: Final = 4
#: Days that pass at once at most.
MOST_DAYS: Final = 7
_at_hand: Final = SeasonsAtHand()
#: Things done in one season: more than anybody does by hand, few enough to live through again.
MOST_DEEDS: Final = 1_500


@dataclass(frozen=True, slots=True)
class SeasonSession:
    """A season as it stands. `revision` counts what was changed: a page says which it has seen."""

    id: int
    seed: int
    difficulty: str
    school: str | None
    revision: int
    now: Replayed

    @property
    def due(self) -> tuple[int, ...]:
        """Places of the boxes that the chosen school opens on this day."""
        if self.school is None:
            return ()
        return opens(SCHOOLS[self.school], self.now.season)


def begin(
    practice: Practice,
    now_s: float,
    *,
    boxes: int = USUAL_BOXES,
    difficulty: str = "usual",
    school: str | None = None,
    seed: str | None = None,
) -> SeasonSession:
    """Begin a season of so many boxes (3-8), kept by a school or as the learner likes (None).

    Raises NotPlausible for a value that cannot be.
    """
    low, high = BOXES_RANGE
    if not low <= boxes <= high:
        raise NotPlausible("boxes", f"a season has {low} to {high} boxes")
    if difficulty not in DIFFICULTIES:
        raise NotPlausible("difficulty", f"there is no season called {difficulty[:40]!r}")
    if school is not None and school not in SCHOOLS:
        raise NotPlausible("school", f"there is no school called {school[:40]!r}")
    number = any_seed() if seed is None else seed_of(seed)
    require_room(practice)
    body = {
        "seed": number,
        "boxes": boxes,
        "difficulty": difficulty,
        "school": school,
        "day": 0,
        "over": False,
        "done": [],
    }
    made = practice.add(KIND, VERSION, now_s, body)
    return season_session(practice, made)


def season_session(practice: Practice, id: int) -> SeasonSession:
    """A season as it stands; NoSuchSession without, Refused for one of a newer version."""
    stored = require_session(practice, id, KIND)
    session = _session(practice, stored)
    # Nobody does anything to it: it is as good for the next who asks.
    _at_hand.put(_key(practice, stored, stored.revision), session.now)
    return session


@dataclass(frozen=True, slots=True)
class Listed:
    """A season in the list of them."""

    id: int
    seed: int
    began_at: float
    boxes: int
    difficulty: str
    day: int
    over: bool


def listed(practice: Practice) -> list[Listed]:
    """Every season that this version understands, the newest first."""
    return [
        Listed(
            stored.id, stored.body["seed"], stored.began_s, stored.body["boxes"],
            stored.body["difficulty"], stored.body["day"], stored.body["over"],
        )
        for stored in practice.sessions()
        if stored.kind == KIND and stored.version <= VERSION
    ]  # fmt: skip


def do(practice: Practice, id: int, revision: int, day: int, deed: Deed) -> SeasonSession:
    """Do something on the season's day.

    Refused for a page that has not seen what another did, for a day that was, and for what cannot
    be done as the season stands; then nothing is stored.
    """
    stored = _seen(practice, id, revision)
    session = _session(practice, stored)
    if day != session.now.season.day:
        raise Refused(f"Day {day} was: the season is on day {session.now.season.day}.")
    if len(stored.body["done"]) >= MOST_DEEDS:
        raise Refused(f"{MOST_DEEDS} things were done in this season: let its days pass.")
    try:
        session.now.season.do(deed)
    except Impossible as error:
        raise Refused(f"That cannot be done: {error}.") from error
    if deed.box is not None:
        note_seen(session.now, deed.box)
    done = [*stored.body["done"], [day, deed.what, deed.box, deed.egg, deed.water_g]]
    return _stored(practice, stored, {**stored.body, "done": done}, session)


def pass_days(practice: Practice, id: int, revision: int, days: int) -> SeasonSession:
    """Let days (1-7) pass, fewer where the season is over before."""
    if not 1 <= days <= MOST_DAYS:
        raise NotPlausible("days", f"1 to {MOST_DAYS} days pass at once")
    stored = _seen(practice, id, revision)
    session = _session(practice, stored)
    if session.now.season.over:
        raise Refused("The season is over: it is told.")
    for _ in range(days):
        if not session.now.season.over:
            session.now.season.pass_night()
    season = session.now.season
    body = {**stored.body, "day": season.day, "over": season.over}
    return _stored(practice, stored, body, session)


def telling(practice: Practice, id: int) -> Telling:
    """The season told; Refused while it is not over."""
    stored = require_session(practice, id, KIND)
    if not stored.body["over"]:
        raise Refused("The season is told once it is over.")
    return _told(json.dumps(stored.body, sort_keys=True))


@lru_cache(maxsize=8)
def _told(body: str) -> Telling:
    """A telling is made once: a season that is over does not change."""
    read = json.loads(body)
    return tell(_plan(read), _done(read))


def _seen(practice: Practice, id: int, revision: int) -> StoredSession:
    stored = require_session(practice, id, KIND)
    if stored.revision != revision:
        raise Refused("This season went on in another page. Nothing was changed: look at it anew.")
    return stored


def _stored(
    practice: Practice, stored: StoredSession, body: dict[str, Any], session: SeasonSession
) -> SeasonSession:
    if not practice.change(stored.id, stored.revision, body):
        raise Refused("This season went on in another page. Nothing was changed: look at it anew.")
    _at_hand.put(_key(practice, stored, stored.revision + 1), session.now)
    return SeasonSession(
        session.id, session.seed, session.difficulty, session.school,
        stored.revision + 1, session.now,
    )  # fmt: skip


def _session(practice: Practice, stored: StoredSession) -> SeasonSession:
    body = stored.body
    now = _at_hand.take(_key(practice, stored, stored.revision))
    if now is None:
        now = replay(_plan(body), _done(body), body["day"])
    return SeasonSession(
        stored.id, body["seed"], body["difficulty"], body["school"], stored.revision, now
    )


def _key(practice: Practice, stored: StoredSession, revision: int) -> Key:
    # When it began too: numbers come again once a practice was deleted.
    return practice.path, stored.id, stored.began_s, revision


def _plan(body: dict[str, Any]) -> Plan:
    return plan_of(body["seed"], body["boxes"], body["difficulty"])


def _done(body: dict[str, Any]) -> list[Done]:
    return [Done(day, Deed(*deed)) for day, *deed in body["done"]]
