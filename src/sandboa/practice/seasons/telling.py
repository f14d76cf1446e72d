"""A season told once it is over: what was hidden, what each choice was worth, what to learn."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.devices.simulation.kept import Impossible, KeptSeason, Left, Plan, Trouble
from sandboa.practice.seasons.players import (
    SCHOOLS,
    FollowsSandboa,
    Player,
    foresees,
    leaves_alone,
    played,
    school,
)
from sandboa.practice.seasons.replay import Done

#: Kinds of choices that are each left out once: the most frequent, so that a telling stays short
#: whatever was done (assumption).
_TRIED: Final = 16
#: Choices told: those that mattered most, and things to learn (product requirement: three).
_MOST_CHOICES: Final = 8
_LESSONS: Final = 3

#: What each trouble was, in words.
TROUBLES: Final[dict[str, str]] = {
    "torn film": "its film tore: it dried out many times as fast",
    "no hole": "its holes were shut: its air went stale as the eggs grew",
    "bad egg": "an egg in it died, and moulded",
    "soaked": "water ran into it: the medium dripped",
    "fan at night": "the fan stopped at night: the lower shelf ran cold, the upper warm",
    "too hot": "the thermostat stuck: the cabinet ran hot",
    "too cold": "the heater failed: the cabinet ran cold",
}
#: Of what eggs are lost: in words, what would have saved them, and the rule (docs/rules.md).
LESSONS: Final[dict[str, tuple[str, str, str]]] = {
    "air": (
        "stale air",
        "From about two thirds on a sealed box needs air: a hole, or airing.",
        "F",
    ),
    "dry": (
        "a dry box",
        "A box is topped up by the scale before half its water is gone.",
        "D2",
    ),
    "wet": (
        "a wet box",
        "A medium that drips harms: pour by the scale, wipe a lid that rains.",
        "D5",
    ),
    "infection": (
        "a mouldy neighbour",
        "A dead, moulded egg is isolated; the others live.",
        "C",
    ),
    "knock": (
        "knocks",
        "Every opened door and handled egg is a risk: open for a reason.",
        "P7",
    ),
    "heat": (
        "heat",
        "Look at the thermometers each day: in heat eggs die within days.",
        "E",
    ),
    "cold": (
        "cold",
        "Look at the thermometers each day: long cold kills, short cold delays.",
        "E",
    ),
    "hanging": (
        "hanging without support",
        "An egg over the rim of its clump is supported.",
        "P2",
    ),
    "stuck": (
        "a slit that closed",
        "Siblings out and one closed for two days: consider help.",
        "P8",
    ),
    "own": (
        "causes of their own",
        "Some eggs die whatever is done.",
        "C",
    ),
    "removed": (
        "being taken out alive",
        "When in doubt an egg stays in.",
        "C",
    ),
}


@dataclass(frozen=True, slots=True)
class Choice:
    """What was done at a box (None: the cabinet), how often, and how many eggs more hatched by it
    (negative: fewer) than had it been left."""

    what: str
    box: str | None
    times: int
    worth: int


@dataclass(frozen=True, slots=True)
class Lesson:
    """Something to learn: eggs lost to it that others kept, in words, and the rule it rests on."""

    eggs: int
    of: str
    text: str
    rule: str


@dataclass(frozen=True, slots=True)
class LostTo:
    """Eggs lost to one cause, in words."""

    of: str
    eggs: int


@dataclass(frozen=True, slots=True)
class Kept:
    """How a keeper fared in this season, and what took eggs, most first."""

    who: str
    hatched: int
    lost: int
    causes: tuple[LostTo, ...] = ()


@dataclass(frozen=True, slots=True)
class Telling:
    """A season told. `hidden` are its troubles with the name of their box, None for the cabinet."""

    eggs: int
    blanks: int
    own: Kept
    others: tuple[Kept, ...]
    hidden: tuple[tuple[Trouble, str | None], ...]
    choices: tuple[Choice, ...]
    lessons: tuple[Lesson, ...]


def tell(plan: Plan, done: Sequence[Done]) -> Telling:
    """Tell a season that was kept to its end.

    Each kind of choice at each box is left out once and the season lived through again, and the
    same season is kept by others: at most some thirty seasons.
    """
    ours = _lived(plan, done)
    best = _by(plan, foresees)
    others = [
        ("leaving it alone", _by(plan, leaves_alone)),
        *((name, _by(plan, school(days))) for name, days in SCHOOLS.items()),
        ("following Sandboa", _by(plan, FollowsSandboa(KeptSeason(plan)))),
        ("the best that could have been done", best),
    ]
    return Telling(
        eggs=plan.eggs,
        blanks=int(plan.blank.sum()),
        own=_kept("you", ours),
        others=tuple(_kept(who, left) for who, left in others),
        hidden=tuple((t, None if t.box is None else plan.boxes[t.box].name) for t in plan.troubles),
        choices=_choices(plan, done, ours),
        lessons=_lessons(ours, best),
    )


def _kept(who: str, left: Left) -> Kept:
    counted = sorted(Counter(left.causes.values()).items(), key=lambda item: (-item[1], item[0]))
    causes = tuple(LostTo(LESSONS[cause][0], eggs) for cause, eggs in counted)
    return Kept(who, left.hatched, left.lost, causes)


def _by(plan: Plan, player: Player) -> Left:
    return played(KeptSeason(plan), player).left()


def _lived(plan: Plan, done: Sequence[Done]) -> Left:
    """What is left at the end of the season with these things done; one that could not be done,
    for another was left out, is left out too."""
    season = KeptSeason(plan)
    by_day: dict[int, list[Done]] = {}
    for one in done:
        by_day.setdefault(one.day, []).append(one)
    while not season.over:
        for one in by_day.get(season.day, ()):
            try:
                season.do(one.deed)
            except Impossible:
                continue
        if season.over:
            break
        season.pass_night()
    return season.left()


def _choices(plan: Plan, done: Sequence[Done], ours: Left) -> tuple[Choice, ...]:
    kinds = Counter(
        (one.deed.what, one.deed.box) for one in done if one.deed.what not in ("open", "weigh")
    )
    choices = []
    for (what, box), times in kinds.most_common(_TRIED):
        rest = [one for one in done if (one.deed.what, one.deed.box) != (what, box)]
        worth = ours.hatched - _lived(plan, rest).hatched
        name = None if box is None else plan.boxes[box].name
        choices.append(Choice(what, name, times, worth))
    opened = sum(one.deed.what == "open" for one in done)
    if opened:
        # Without its doors a season cannot be kept: told is what knocks took.
        knocked = sum(cause == "knock" for cause in ours.causes.values())
        choices.append(Choice("open", None, opened, -knocked))
    choices.sort(key=lambda choice: (-abs(choice.worth), choice.what, choice.box or ""))
    return tuple(choices[:_MOST_CHOICES])


def _lessons(ours: Left, best: Left) -> tuple[Lesson, ...]:
    avoidable = Counter(cause for egg, cause in ours.causes.items() if egg not in best.causes)
    told = [
        Lesson(eggs, *LESSONS[cause])
        for cause, eggs in sorted(avoidable.items(), key=lambda item: (-item[1], item[0]))
    ]
    return tuple(told[:_LESSONS])
