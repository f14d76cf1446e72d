"""A kept season as it comes true: what is done on a day, and the night after it."""

from dataclasses import dataclass, field
from typing import Final

import numpy as np

from sandboa.devices.simulation.eggs import rate_per_day
from sandboa.devices.simulation.kept.looking import lid, look
from sandboa.devices.simulation.kept.night import CAUSES, FRESH, come_true
from sandboa.devices.simulation.kept.plan import LONGEST_DAYS, SHELVES, Plan
from sandboa.devices.simulation.kept.seeing import BoxSeen, CabinetSeen
from sandboa.devices.simulation.kept.troubles import heat_c, swings_c

#: What can be done: "mend" at the cabinet, those of `OF_EGG` at an egg, the others at a box.
DEEDS: Final = (
    "open", "weigh", "pour", "air", "holes", "wipe", "candle", "support", "isolate", "remove",
    "help", "mend",
)  # fmt: skip
OF_EGG: Final = ("candle", "support", "isolate", "remove", "help")
#: Minutes a door stands open for each deed.
_MINUTES: Final = {"open": 1.5, "weigh": 0.7, "pour": 0.7, "candle": 0.6, "mend": 4.0}
_MINUTES_ELSE: Final = 0.5
#: °C that a minute of open door takes off the day's mean, and the cabinet's air loses, 0-1.
_DOOR_C: Final = 0.012
_DOOR_AIR: Final = 0.004
#: g of water a box loses each time it is opened.
_OPENING_G: Final = 1.2
#: g of water that is wiped off a lid, and that goes while a box is aired.
_WIPED_G: Final = 10.0
_AIRED_G: Final = 5.0
#: Chance that an egg is knocked when its box is opened, and when it is handled; hazard of a knock.
_KNOCKED_OPENING: Final = 0.0012
_KNOCKED_HANDLING: Final = 0.010
_KNOCK: Final = 0.7


class Impossible(ValueError):
    """Something that cannot be done in the season as it stands; the text says why."""


@dataclass(frozen=True, slots=True)
class Deed:
    """Something done: what, at which box (place), at which egg (number), and how much water (g)."""

    what: str
    box: int | None = None
    egg: int | None = None
    water_g: float = 0.0


@dataclass(frozen=True, slots=True)
class Left:
    """How many eggs hatched, how many were lost, and of what each was (number of the egg -> cause);
    blanks are neither."""

    hatched: int
    lost: int
    causes: dict[int, str] = field(default_factory=dict)


class KeptSeason:
    """A season from its first day on. What is done is done on `day`, before its night."""

    def __init__(self, plan: Plan) -> None:
        n, boxes = plan.eggs, len(plan.boxes)
        self.plan = plan
        self.day = 0
        self.water_g = np.array([box.water_g for box in plan.boxes], dtype=float)
        self.full_g = self.water_g.copy()
        self.closings = [box.closing for box in plan.boxes]
        self.holes = np.zeros(boxes, dtype=bool)
        self.wiped = np.zeros(boxes, dtype=bool)
        self.opened = np.zeros(boxes, dtype=bool)
        self.minutes = 0.0
        self.mended: set[int] = set()
        self.share = np.zeros(n)
        self.turgor = np.ones(n)
        self.hazard = np.zeros((n, len(CAUSES)))
        self.died_day = np.full(n, np.inf)
        self.died_share = np.full(n, np.inf)
        self.pipped_day = np.full(n, np.inf)
        self.out_day = np.full(n, np.inf)
        self.removed = np.zeros(n, dtype=bool)
        self.isolated = np.zeros(n, dtype=bool)
        self.supported = np.zeros(n, dtype=bool)
        self.helped = np.zeros(n, dtype=bool)
        self.candled = np.zeros(n, dtype=bool)
        self.weighed: set[int] = set()
        self.oxygen = np.full(boxes, FRESH)
        self.climate = self._of_night(0)
        # Eggs laid before the first day have grown by then.
        usual_c = np.array([plan.set_point_c])
        self.share += -plan.laid_day * float(rate_per_day(usual_c)[0])

    @property
    def alive(self) -> np.ndarray:
        """Which eggs hold an animal that lives, hatched or not; (n,)."""
        return np.asarray(~self.plan.blank & np.isinf(self.died_day) & ~self._taken)

    @property
    def over(self) -> bool:
        """Whether nothing is left to come."""
        closed = self.alive & np.isinf(self.out_day)
        return self.day >= LONGEST_DAYS or not closed.any()

    @property
    def _taken(self) -> np.ndarray:
        return np.asarray(self.removed & np.isinf(self.out_day))

    def do(self, deed: Deed) -> None:
        """Do something now; Impossible where it cannot be done."""
        if self.over:
            raise Impossible("the season is over")
        if deed.what == "mend":
            self.minutes += _MINUTES["mend"]
            self._mend()
            return
        if deed.what not in DEEDS:
            raise Impossible("nobody can do that")
        if deed.box is None or not 0 <= deed.box < len(self.plan.boxes):
            raise Impossible("there is no such box")
        if deed.what != "open" and not self.opened[deed.box]:
            raise Impossible("the box is shut")
        self.minutes += _MINUTES.get(deed.what, _MINUTES_ELSE)
        if deed.what in OF_EGG:
            self._at_egg(deed)
        else:
            self._at_box(deed.what, deed.box, deed.water_g)

    def _mend(self) -> None:
        """See to the cabinet: whatever is wrong with it now is put right."""
        self.mended |= {
            at
            for at, trouble in enumerate(self.plan.troubles)
            if trouble.box is None and trouble.start <= self.day
        }

    def _at_box(self, what: str, box: int, water_g: float) -> None:
        if what == "open":
            if not self.opened[box]:
                self._lose(box, _OPENING_G)
                self._jolt(self.plan.box_of == box, _KNOCKED_OPENING)
            self.opened[box] = True
            self.oxygen[box] = FRESH
        elif what == "weigh":
            self.weighed.add(box)
        elif what == "pour":
            if not 0.0 < water_g <= 500.0:
                raise Impossible("nobody pours that much")
            self.water_g[box] += water_g
        elif what == "holes":
            self.holes[box] = True
        elif what == "wipe":
            self.wiped[box] = True
            self._lose(box, _WIPED_G)
        elif what == "air":
            self._lose(box, _AIRED_G)

    def _lose(self, box: int, water_g: float) -> None:
        self.water_g[box] = max(self.water_g[box] - water_g, 0.0)

    def _at_egg(self, deed: Deed) -> None:
        at = self._egg(deed)
        if self.removed[at] or np.isfinite(self.out_day[at]):
            raise Impossible("the egg is out")
        only = np.zeros(self.plan.eggs, dtype=bool)
        only[at] = True
        if deed.what in ("isolate", "support"):
            self._jolt(only, _KNOCKED_HANDLING)
        {
            "candle": self.candled,
            "support": self.supported,
            "isolate": self.isolated,
            "remove": self.removed,
            "help": self.helped,
        }[deed.what][at] = True

    def _egg(self, deed: Deed) -> int:
        found = np.flatnonzero((self.plan.box_of == deed.box) & (self.plan.number == deed.egg))
        if len(found) != 1:
            raise Impossible("there is no such egg")
        return int(found[0])

    def _jolt(self, which: np.ndarray, chance: float) -> None:
        """Each time something is moved an egg may be knocked: by its own luck of that day."""
        luck = self.plan.knocks[:, self.day]
        self.hazard[:, CAUSES.index("knock")] += _KNOCK * (which & (luck < chance))

    def pass_night(self) -> None:
        """Let a day and its night go by; Impossible once the season is over."""
        if self.over:
            raise Impossible("the season is over")
        self.climate = self._of_night(self.minutes)
        come_true(self)
        self.day += 1
        self.minutes = 0.0
        self.opened[:] = False
        self.wiped[:] = False
        self.candled[:] = False
        self.weighed.clear()

    def _of_night(self, minutes: float) -> CabinetSeen:
        plan, day = self.plan, self.day
        off = np.array([heat_c(plan, day, shelf, self.mended) for shelf in range(len(SHELVES))])
        swing = np.array([swings_c(plan, day, shelf, self.mended) for shelf in range(len(SHELVES))])
        mean = plan.set_point_c + off - _DOOR_C * minutes
        humidity = plan.humidity + plan.weather[min(day, LONGEST_DAYS)] - _DOOR_AIR * minutes
        return CabinetSeen(
            plan.set_point_c,
            tuple(mean.tolist()),
            tuple((mean - swing).tolist()),
            tuple((mean + swing).tolist()),
            float(np.clip(humidity, 0.15, 0.95)),
        )

    @property
    def hangs(self) -> np.ndarray:
        """Which eggs hang over their clump: one of a box in three; (n,)."""
        return np.asarray((self.plan.number == 1) & (self.plan.box_of % 3 == 0))

    def since_death(self) -> np.ndarray:
        """Days since an egg died or since a blank was laid; 0 where it lives; (n,)."""
        since = np.where(np.isfinite(self.died_day), self.day - self.died_day, 0.0)
        return np.where(self.plan.blank, self.day - self.plan.laid_day, since)

    def mould(self) -> np.ndarray:
        """How mouldy each egg is, 0-3; (n,)."""
        since = self.since_death()
        # A blank keeps longer than an egg in which something rots.
        kept = since / np.where(self.plan.blank, 2.2, 1.0)
        return np.asarray(np.searchsorted([7.0, 13.0, 20.0], kept, side="right") * (since > 0))

    def grades(self) -> np.ndarray:
        """Dents, 0-4: of its age, of thirst, of sinking; (n,)."""
        plan = self.plan
        at = self.share[:, None] + plan.dents[:, None]
        of_age = (at >= np.array([0.66, 0.80, 0.93])).sum(axis=1)
        of_thirst = np.floor((1.0 - self.turgor) * 5.0 + 0.3).astype(int)
        sinks = np.searchsorted([4.0, 9.0, 14.0, 19.0], self.since_death(), side="right")
        return np.asarray(np.clip(np.maximum(of_age + of_thirst, sinks), 0, 4))

    def cabinet(self) -> CabinetSeen:
        """The cabinet's thermometers, as anybody reads them without opening it."""
        return self.climate

    def lid(self, box: int) -> str:
        """Water under a lid, as it is seen through it."""
        return lid(self, box)

    def look(self, box: int) -> BoxSeen | None:
        """What is seen of an opened box now; None of one that is shut."""
        return look(self, box)

    def left(self) -> Left:
        """What became of the eggs so far."""
        hatched = np.isfinite(self.out_day)
        lost = ~self.plan.blank & ~hatched & (np.isfinite(self.died_day) | self.removed)
        causes = {int(at): self.cause(int(at)) for at in np.flatnonzero(lost)}
        return Left(int(hatched.sum()), int(lost.sum()), causes)

    def cause(self, at: int) -> str:
        """What most of an egg's harm came from; "removed" for one that was taken out alive."""
        if np.isinf(self.died_day[at]):
            return "removed"
        return CAUSES[int(np.argmax(self.hazard[at]))]
