"""Simulated eggs that live or die, and what a keeper sees of it. Fates of their own.

An egg dies, if it dies, on one day; its vessels fade, later it sinks, smells,
moulds. Healthy eggs have blemishes too, and a keeper misses things and
mistakes one for another.
"""

from dataclasses import dataclass

import numpy as np

#: Share of fertile eggs that die in the box (assumption).
_DIES = 0.14
#: Share of its water below which the typical egg dents for want of it (assumption), and by how
#: much sooner that is for one share of development that its own dents come sooner.
_DENTS_BELOW = 0.40
_SOFT_SOONER = 1.6
#: Share developed at which the typical healthy egg shows dents of grade 1, 2 and 3 (assumption).
_NORMAL_DENTS = (0.62, 0.76, 0.92)


@dataclass(frozen=True)
class EggFate:
    """One egg. Shares are of its development; None where it never comes to that.

    `died` is the share at which it died; `blemish` a spot of mould a healthy
    egg carries from that share on; `dents` the shares of its grades 1 to 4.
    """

    died: float | None
    weak_from_start: bool
    dents: tuple[float, float, float, float]
    smells_from: float | None
    mould_from: tuple[float, float, float]
    yellow_from: float | None
    weeps_from: float | None
    blemish: float | None

    def alive(self, share: float) -> bool:
        """Whether it lives at that share of its time."""
        return self.died is None or share < self.died

    def dented_at(self, water_left: float) -> bool:
        """Whether so little water (share of what was poured in) dents it: soft eggs sooner."""
        return water_left < _DENTS_BELOW + _SOFT_SOONER * (_NORMAL_DENTS[0] - self.dents[0])

    @property
    def collapses(self) -> float:
        """The share at which anybody would see that it has collapsed."""
        return self.dents[3]


@dataclass(frozen=True)
class Glance:
    """What a keeper made of an egg at one visit; `vessels` None when it was not candled."""

    grade: int
    mould: str
    smell: str
    wet: str
    colour: str
    vessels: str | None
    movement: bool = False
    feel: str = "firm"


def egg_fate(random: np.random.Generator) -> EggFate:
    """Draw an egg's life."""
    dies = random.random() < _DIES
    return life(float(np.clip(random.beta(1.1, 1.3), 0.01, 0.97)) if dies else None, random)


def life(died: float | None, random: np.random.Generator) -> EggFate:
    """Draw what can be seen of an egg that dies at that share of its development, or lives."""
    shift = random.normal(0.0, 0.05)
    normal = [d + shift + random.normal(0.0, 0.03) for d in _NORMAL_DENTS]
    blemish = float(random.uniform(0.05, 0.9)) if random.random() < 0.10 else None
    never = (9.0, 9.0, 9.0)
    if died is None:
        weak = bool(random.random() < 0.04)
        dents = (normal[0], normal[1], normal[2], 9.0)
        return EggFate(None, weak, dents, None, never, None, None, blemish)
    # Weeks in which a dead egg goes: in share of a term of some 60 days.
    sinks = died + random.gamma(4.0, 0.022)
    steps = sinks + np.cumsum(random.gamma(3.0, 0.022, 3))
    early = died < 0.35
    return EggFate(
        died=died,
        weak_from_start=bool(random.random() < (0.55 if died < 0.2 else 0.10)),
        dents=(min(sinks, normal[0]), *(float(s) for s in steps)),  # type: ignore[arg-type]
        smells_from=died + random.gamma(5.0, 0.030) if random.random() < 0.8 else None,
        mould_from=_mould(died, random),
        yellow_from=died + random.gamma(3.0, 0.025) if early and random.random() < 0.6 else None,
        weeps_from=died + random.gamma(5.0, 0.03) if random.random() < 0.3 else None,
        blemish=blemish,
    )


def _mould(died: float, random: np.random.Generator) -> tuple[float, float, float]:
    first = died + random.gamma(3.0, 0.035)
    second = first + random.gamma(3.0, 0.025)
    return float(first), float(second), float(second + random.gamma(3.0, 0.03))


def glance(
    egg: EggFate, share: float, *, candled: bool, dry_box: bool, random: np.random.Generator
) -> Glance:
    """What a keeper sees at `share` of the egg's time; a dry box dents every egg a grade more."""
    grade = sum(share >= from_ for from_ in egg.dents)
    if dry_box and share > 0.15:
        grade += 1
    if random.random() < 0.08:
        grade += int(random.choice([-1, 1]))
    return Glance(
        grade=int(np.clip(grade, 0, 4)),
        mould=_mould_seen(egg, share, random),
        smell=_smell(egg, share, random),
        wet="weeping" if _noticed(egg.weeps_from, share, 0.8, random) else "dry",
        colour="yellowing" if _noticed(egg.yellow_from, share, 0.85, random) else "white",
        vessels=_vessels(egg, share, random) if candled else None,
        feel=_feel(egg, share, random),
        movement=candled and egg.alive(share) and share > 0.35 and bool(random.random() < 0.25),
    )


def _mould_seen(egg: EggFate, share: float, random: np.random.Generator) -> str:
    grade = sum(share >= from_ for from_ in egg.mould_from)
    if grade == 0 and egg.blemish is not None and share >= egg.blemish:
        grade = 1
    if grade == 1 and random.random() < 0.15:
        grade = 0
    return ("none", "spot", "patch", "furry")[grade]


def _smell(egg: EggFate, share: float, random: np.random.Generator) -> str:
    if egg.smells_from is not None and share >= egg.smells_from:
        late = share >= egg.smells_from + 0.08
        if random.random() < 0.85:
            return "foul" if late and random.random() < 0.8 else "off"
    # A neighbour's smell, or damp medium.
    return "off" if random.random() < 0.01 else "none"


def _feel(egg: EggFate, share: float, random: np.random.Generator) -> str:
    """A living egg feels full to the last; a dead one turns soft within a week."""
    if egg.died is not None and share >= egg.died + 0.08:
        return "mushy" if random.random() < 0.75 else "firm"
    return "mushy" if random.random() < 0.02 else "firm"


def _noticed(from_: float | None, share: float, chance: float, random: np.random.Generator) -> bool:
    return from_ is not None and share >= from_ and bool(random.random() < chance)


def _vessels(egg: EggFate, share: float, random: np.random.Generator) -> str:
    """By torch: a dead egg's vessels fade within a few days; late in term little can be seen."""
    if share > 0.8 and random.random() < 0.6:
        return "unsure"
    if egg.alive(share):
        weak = egg.weak_from_start and share < 0.3
        chances = (0.25, 0.65, 0.02, 0.0) if weak else (0.93, 0.045, 0.002, 0.001)
    else:
        assert egg.died is not None, "a dead egg has died"
        faded = share - egg.died
        if faded < 0.04:
            chances = (0.45, 0.40, 0.05, 0.05)
        elif faded < 0.10:
            chances = (0.05, 0.35, 0.38, 0.18)
        else:
            chances = (0.01, 0.06, 0.70, 0.20)
    kinds = ("strong", "weak", "none", "broken")
    drawn = random.random()
    for kind, reach in zip(kinds, np.cumsum(chances), strict=True):
        if drawn < reach:
            return kind
    return "unsure"
