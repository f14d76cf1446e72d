"""What the keeper of the garden room saw and did at a box, in few words."""

from dataclasses import dataclass, field

from sandboa.core.candling import Vessels
from sandboa.core.standing import SignKind
from sandboa.journal.rounds.visit import BoxVisit, EggSeen


@dataclass(frozen=True)
class Seen:
    """A visit `days_ago`: grades in order of the eggs (none: as before), box signs, masses in g.

    `torch` and `signs` are by egg number.
    """

    days_ago: float
    grades: tuple[int, ...] = ()
    lid: str | None = None
    medium: str | None = None
    mass_g: float | None = None
    water_g: float | None = None
    torch: dict[int, Vessels] = field(default_factory=dict)
    signs: dict[int, tuple[tuple[str, str], ...]] = field(default_factory=dict)

    def visit(self, key: str, code: str, at_s: float, before: tuple[int, ...]) -> BoxVisit:
        """As a phone would have closed it, the door open for three quarters of a minute.

        `before` are the grades of the visit before it: what is the same is no exception.
        """
        known = dict(enumerate(before, start=1))
        grades = {
            n: grade for n, grade in enumerate(self.grades, start=1) if grade != known.get(n, 0)
        }
        numbers = sorted({*grades, *self.torch, *self.signs})
        signs = [("lid", self.lid), ("medium", self.medium)]
        return BoxVisit(
            key=key,
            code=code,
            opened_s=at_s - 46,
            closed_s=at_s,
            eggs=tuple(
                EggSeen(
                    n,
                    grade=grades.get(n),
                    vessels=self.torch.get(n),
                    signs=tuple((SignKind(k), v) for k, v in self.signs.get(n, ())),
                )
                for n in numbers
            ),
            signs=tuple((kind, value) for kind, value in signs if value is not None),
            mass_g=self.mass_g,
            water_g=self.water_g,
        )
