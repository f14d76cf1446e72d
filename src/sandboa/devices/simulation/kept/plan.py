"""What a kept season hides: its boxes and eggs, and what will befall them, drawn from a seed."""

from dataclasses import dataclass
from typing import Final

import numpy as np

#: Days a season is followed at most: longer than the slowest egg takes.
LONGEST_DAYS: Final = 75
SHELVES: Final = ("upper", "lower")
#: Closings and media of boxes as they are set up, and how often (assumption).
_CLOSINGS: Final = (
    ("lid with 1-2 pin holes", 0.40),
    ("lid with 3-8 holes", 0.20),
    ("film with a cracked corner", 0.20),
    ("sealed film", 0.20),
)
_MEDIA: Final = ("vermiculite", "perlite", "half and half")
#: Share of eggs that are blank, that die of a cause of their own, and that cannot open their shell
#: by themselves (assumption).
_BLANK: Final = 0.06
_OWN_DEATH: Final = 0.05
_STICKS: Final = 0.05
_THIN: Final = 0.10
#: How many troubles of a box, and of the cabinet, a season of each difficulty brings.
DIFFICULTIES: Final = {"gentle": (1, 0), "usual": (2, 1), "hard": (4, 2)}
_OF_BOX: Final = ("torn film", "no hole", "bad egg", "soaked")
_OF_CABINET: Final = ("fan at night", "too hot", "too cold")


@dataclass(frozen=True, slots=True)
class Trouble:
    """Something that befalls a box (its place), or the cabinet (None), from day `start` on.

    What befalls the cabinet is over by itself on day `end`.
    """

    kind: str
    start: int
    end: int
    box: int | None
    strength: float


@dataclass(frozen=True, slots=True)
class BoxPlan:
    """A box as it is set up; masses in g. `passes` is how much more air than usual it lets through,
    as a factor."""

    name: str
    shelf: int
    closing: str
    medium: str
    dry_g: float
    water_g: float
    passes: float


@dataclass(frozen=True)
class Plan:
    """A season before its first day. Arrays over eggs have shape (n,); `knocks` (n, days), 0-1.

    Attributes
    ----------
    box_of: place of each egg's box. number: its number there, from 1.
    laid_day: days before the first, <= 0. pace: ln of the development it needs.
    hardy: hazard it bears before it dies. own_death: share at which it dies whatever is done, inf
    where it does not. blank, thin, sticks: whether it never had an animal, has a thin shell, cannot
    open it.
    pips_at: development at which it pips. dents: how much sooner than most it dents, in shares.
    """

    seed: int
    difficulty: str
    set_point_c: float
    humidity: float
    boxes: tuple[BoxPlan, ...]
    troubles: tuple[Trouble, ...]
    box_of: np.ndarray
    number: np.ndarray
    laid_day: np.ndarray
    hardy: np.ndarray
    own_death: np.ndarray
    blank: np.ndarray
    thin: np.ndarray
    sticks: np.ndarray
    pips_at: np.ndarray
    dents: np.ndarray
    knocks: np.ndarray
    weather: np.ndarray

    @property
    def eggs(self) -> int:
        """How many eggs there are."""
        return len(self.box_of)


def plan_of(seed: int, boxes: int, difficulty: str) -> Plan:
    """The season of a seed with so many boxes (1-12); KeyError for no such difficulty."""
    random = np.random.default_rng([seed, boxes, 61])
    made = tuple(_box(place, random) for place in range(boxes))
    sizes = random.integers(4, 8, boxes)
    box_of = np.repeat(np.arange(boxes), sizes)
    n = len(box_of)
    troubles = _troubles(boxes, difficulty, random)
    hidden = np.full(n, np.inf)
    dying = random.random(n) < _OWN_DEATH
    hidden[dying] = random.uniform(0.1, 0.97, int(dying.sum()))
    for trouble in troubles:
        if trouble.kind == "bad egg":
            own = np.flatnonzero(box_of == trouble.box)
            hidden[own[int(random.integers(len(own)))]] = trouble.start / 62.0
    return Plan(
        seed=seed,
        difficulty=difficulty,
        set_point_c=float(random.choice([31.1, 31.4, 31.6])),
        humidity=float(random.uniform(0.5, 0.68)),
        boxes=made,
        troubles=troubles,
        box_of=box_of,
        number=np.concatenate([np.arange(1, size + 1) for size in sizes]),
        laid_day=np.repeat(-random.uniform(0.5, 5.0, boxes), sizes),
        hardy=random.exponential(1.0, n),
        own_death=hidden,
        blank=random.random(n) < _BLANK,
        thin=random.random(n) < _THIN,
        sticks=random.random(n) < _STICKS,
        pips_at=np.exp(np.repeat(random.normal(0.0, 0.02, boxes), sizes))
        + random.normal(0.0, 0.012, n),
        dents=random.normal(0.0, 0.04, n),
        knocks=random.random((n, LONGEST_DAYS + 1)),
        weather=np.clip(random.normal(0.0, 0.04, LONGEST_DAYS + 1), -0.1, 0.1),
    )


def _box(place: int, random: np.random.Generator) -> BoxPlan:
    names = [name for name, _ in _CLOSINGS]
    chances = [chance for _, chance in _CLOSINGS]
    full_g = float(random.choice([140.0, 180.0, 220.0]))
    return BoxPlan(
        name=f"Box {place + 1}",
        shelf=place % len(SHELVES),
        closing=str(random.choice(names, p=chances)),
        medium=str(random.choice(_MEDIA)),
        dry_g=full_g,
        water_g=full_g,
        passes=float(np.exp(random.normal(0.0, 0.35))),
    )


def _troubles(boxes: int, difficulty: str, random: np.random.Generator) -> tuple[Trouble, ...]:
    of_box, of_cabinet = DIFFICULTIES[difficulty]
    places = random.permutation(boxes)[: min(of_box, boxes)]
    troubles = [
        Trouble(
            str(random.choice(_OF_BOX)), int(random.integers(4, 30)), LONGEST_DAYS + 1, int(place),
            float(random.uniform(0.7, 1.3)),
        )
        for place in places
    ]  # fmt: skip
    kinds = random.permutation(_OF_CABINET)[:of_cabinet]
    troubles += [
        Trouble(
            str(kind),
            start := int(random.integers(8, 45)),
            start + int(random.integers(6, 16)),
            None,
            float(random.uniform(0.7, 1.3)),
        )
        for kind in kinds
    ]
    return tuple(sorted(troubles, key=lambda trouble: trouble.start))
