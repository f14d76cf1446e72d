"""Sessions of single eggs: begun, shown, judged one by one, and told."""

from dataclasses import asdict, dataclass
from typing import Any, Final

from sandboa.core.errors import NotPlausible
from sandboa.core.practice import Answer
from sandboa.core.practice.scores import require_chance
from sandboa.core.standing import SIGNS
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.devices.simulation.cases import ACTS, DECKS, KINDS, Case, draw_case
from sandboa.practice.errors import NoSuchSession, Refused
from sandboa.practice.files import VERSION, Practice, require_room, require_session
from sandboa.practice.looks.choosing import chosen, reviewed
from sandboa.practice.looks.second_opinion import Opinion, observations, opinion
from sandboa.practice.seeds import any_seed, drawn, seed_of
from sandboa.records.practice_store import StoredSession

KIND: Final = "looks"
#: The deck of all kinds.
MIXED: Final = "mixed"
#: Eggs of one session: fewest, most, and how many come without asking (assumption).
EGGS_RANGE: Final = (1, 30)
USUAL_EGGS: Final = 10


@dataclass(frozen=True, slots=True)
class Judgement:
    """What a learner says of an egg: the chance that it lives (per cent), whether it is usual for
    its stage, and what to do next; `candle_day` is on which day, where that is to candle it."""

    chance_percent: float
    usual: bool
    act: str
    candle_day: int | None = None


@dataclass(frozen=True, slots=True)
class Listed:
    """A session in the list of them: `done` of its `eggs` were judged."""

    id: int
    deck: str
    began_s: float
    eggs: int
    done: int


@dataclass(frozen=True, slots=True)
class Told:
    """An egg that was judged, with its truth and what Sandboa would have said."""

    case: Case
    judgement: Judgement
    opinion: Opinion


@dataclass(frozen=True, slots=True)
class LookSession:
    """A session: its eggs as far as they may be shown, and what was told of those judged.

    `seed` draws it again, where it was chosen by a seed; None where it was chosen for the learner.
    """

    id: int
    deck: str
    seed: int | None
    began_s: float
    cases: tuple[Case, ...]
    judged: tuple[Judgement | None, ...]


def kinds_of(deck: str) -> list[str]:
    """Kinds of cases of a deck, all of them of the mixed one; NotPlausible for no deck."""
    if deck == MIXED:
        return list(KINDS)
    if deck not in DECKS:
        raise NotPlausible("deck", f"there is no deck {deck[:40]!r}")
    return list(DECKS[deck])


def begin(
    practice: Practice, deck: str, now_s: float, *, eggs: int = USUAL_EGGS, seed: str | None = None
) -> LookSession:
    """Begin a session of `eggs` (1-30) of a deck.

    With a seed its eggs are those of anybody else who takes that seed; without one, what was
    misjudged comes back first. Raises NotPlausible for a value out of range, Refused where no more
    are kept.
    """
    low, high = EGGS_RANGE
    if not low <= eggs <= high:
        raise NotPlausible("eggs", f"a session has {low} to {high} eggs")
    number = None if seed is None else seed_of(seed)
    require_room(practice)
    kinds = kinds_of(deck)
    if number is None:
        random = drawn(any_seed(), len(kinds))
        named = chosen(practice.reviews(), kinds, eggs, now_s, random)
    else:
        random = drawn(number, len(kinds))
        named = chosen({}, kinds, eggs, now_s, random)
    seeds = random.integers(0, 1 << 31, eggs).tolist()
    body = {
        "deck": deck,
        "seed": number,
        "eggs": [{"kind": k, "seed": s} for k, s in zip(named, seeds, strict=True)],
        "judged": [None] * eggs,
    }
    made = practice.add(KIND, VERSION, now_s, body)
    return _session(require_session(practice, made, KIND))


def look_session(practice: Practice, id: int) -> LookSession:
    """A session as it stands; NoSuchSession without, Refused for one of a newer version."""
    return _session(require_session(practice, id, KIND))


def listed(practice: Practice) -> list[Listed]:
    """Every session that this version understands, the newest first."""
    return [
        Listed(
            stored.id,
            stored.body["deck"],
            stored.began_s,
            len(stored.body["eggs"]),
            sum(judged is not None for judged in stored.body["judged"]),
        )
        for stored in practice.sessions()
        if stored.kind == KIND and stored.version <= VERSION
    ]


def exportable(body: dict[str, Any]) -> dict[str, Any]:
    """A stored session without what its eggs are that were not judged yet."""
    pairs = zip(body["eggs"], body["judged"], strict=True)
    return {**body, "eggs": [egg if judged else None for egg, judged in pairs]}


def delete(practice: Practice, id: int) -> None:
    """Delete a session and what was judged in it; NoSuchSession without."""
    if not practice.delete(id):
        raise NoSuchSession("There is no such session in your practice.")


def told(session: LookSession, egg: int) -> Told | None:
    """The truth of an egg (from 1); None until it was judged, NoSuchSession for no such egg."""
    case = case_of(session, egg)
    judgement = session.judged[egg - 1]
    return None if judgement is None else Told(case, judgement, opinion(case))


def case_of(session: LookSession, egg: int) -> Case:
    """The case of an egg (from 1); NoSuchSession without."""
    if not 1 <= egg <= len(session.cases):
        raise NoSuchSession(f"There is no egg {egg} in this session.")
    return session.cases[egg - 1]


def judge(practice: Practice, id: int, egg: int, judgement: Judgement, now_s: float) -> Told:
    """Store what a learner says of an egg (from 1), once, and tell its truth.

    The same said again changes nothing. Raises NotPlausible for a chance beyond 0-100 %, an act
    there is not or a day that was; Refused for another judgement of an egg that was told.
    """
    stored = require_session(practice, id, KIND)
    session = _session(stored)
    case = case_of(session, egg)
    before = session.judged[egg - 1]
    if before is not None:
        if before != judgement:
            raise Refused(f"Egg {egg} was judged already, and its truth told. Nothing was changed.")
        return Told(case, before, opinion(case))
    _require_sense(judgement, case)
    answer = _answer(case, judgement, now_s)
    body = {**stored.body, "judged": list(stored.body["judged"])}
    body["judged"][egg - 1] = asdict(judgement)
    said = {**asdict(answer), "kind": case.kind, "deck": session.deck, "egg": egg}
    said.pop("at_s")
    review = reviewed(practice.reviews().get(case.kind), answer)
    if not practice.answered(stored, body, (now_s, said), review):
        # Another page of the same session was quicker: it is as if this one came after it.
        return judge(practice, id, egg, judgement, now_s)
    return Told(case, judgement, opinion(case))


def answers(practice: Practice) -> list[tuple[str, Answer]]:
    """Everything that was judged, with its deck, the earliest first."""
    return [
        (
            said["deck"],
            Answer(
                at_s,
                said["chance"],
                said["alive"],
                said["usual_said"],
                said["usual"],
                said["worth"],
                said["best"],
                tuple(said["signs"]),
            ),
        )
        for at_s, said in practice.answers()
    ]


def _session(stored: StoredSession) -> LookSession:
    body: dict[str, Any] = stored.body
    return LookSession(
        stored.id,
        body["deck"],
        body["seed"],
        stored.began_s,
        tuple(draw_case(egg["kind"], egg["seed"]) for egg in body["eggs"]),
        tuple(None if j is None else Judgement(**j) for j in body["judged"]),
    )


def _require_sense(judgement: Judgement, case: Case) -> None:
    require_chance(judgement.chance_percent)
    if judgement.act not in ACTS:
        raise NotPlausible("act", f"{judgement.act[:40]!r} is nothing that can be done here")
    if judgement.act != "candle":
        return
    if judgement.candle_day is None:
        raise NotPlausible("candle_day", "say on which day it is to be candled")
    if judgement.candle_day < case.day - 1:
        raise NotPlausible(
            "candle_day",
            f"day {judgement.candle_day} was: this egg is on day {case.day:.0f}",
        )


def _answer(case: Case, judgement: Judgement, now_s: float) -> Answer:
    today = [o for o in observations(case) if o.at_s == case.day * SECONDS_PER_DAY]
    signs = [SIGNS.get((o.kind, o.value)) for o in today]
    shown = {sign.words for sign in signs if sign is not None and sign.weight}
    return Answer(
        now_s,
        require_chance(judgement.chance_percent),
        case.alive,
        judgement.usual,
        case.usual,
        case.worth(judgement.act),
        max(case.worth(act) for act in ACTS),
        tuple(sorted(shown)),
    )
