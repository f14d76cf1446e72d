"""From a draft to a case: what is seen of the egg comes from its life, as at any simulated egg."""

from collections.abc import Callable
from dataclasses import dataclass, field, replace

import numpy as np

from sandboa.devices.simulation.cases.case import ACTS, Case, CaseBox, Ending
from sandboa.devices.simulation.fates import EggFate, Glance, glance, life
from sandboa.devices.simulation.torchlight import TorchState, readable, state_of


@dataclass(frozen=True, slots=True)
class Draft:
    """What a kind decides of a case; the rest is drawn alike for all.

    `share` is how far a living egg would be; `died` the share at which this one died. `saved_by`
    are acts without which it dies, where `doomed`; `taints` whether it takes a neighbour along
    where it stays, dead. `dents` is added to what its life shows.
    """

    share: float
    died: float | None = None
    usual: bool = True
    cause: str | None = None
    blank: bool = False
    weak: bool = False
    disc: tuple[float, float] = (0.0, 0.45)
    shell: str = "smooth"
    box: CaseBox = field(default_factory=CaseBox)
    dents: int = 0
    neighbours_dents: int = 0
    doomed: bool = False
    saved_by: tuple[str, ...] = ()
    taints: bool = False
    hangs: bool = False
    pipped_hours: float | None = None
    first_pip_hours: float | None = None
    #: What changes in what is seen, last of all.
    seen: Callable[[Glance], Glance] = lambda seen: seen


#: Draws a draft of one kind.
Make = Callable[[np.random.Generator], Draft]


def made(kind: str, seed: int, draft: Draft, random: np.random.Generator) -> Case:
    """The case of a draft."""
    term_days = float(np.clip(random.normal(59.5, 1.5), 55.0, 64.0))
    fate = life(draft.died, random)
    if draft.died is None:
        fate = replace(fate, weak_from_start=draft.weak, blemish=None)
    others = [_neighbour(draft, random) for _ in range(int(random.integers(3, 7)))]
    torch = _torch(draft, fate, seed)
    seen = replace(
        _seen(draft, fate, draft.share, random), vessels=readable(torch), movement=torch.moves
    )
    seen = draft.seen(seen)
    return Case(
        kind=kind,
        seed=seed,
        day=draft.share * term_days,
        term_days=term_days,
        alive=not draft.blank and fate.alive(draft.share),
        usual=draft.usual,
        cause=draft.cause,
        shell=draft.shell,
        glance=seen,
        neighbours=tuple(others),
        torch=replace(torch, sunk=0.25 * seen.grade),
        box=draft.box,
        earlier=tuple(_earlier(draft, fate, term_days, random)),
        hangs=draft.hangs,
        pipped_hours=draft.pipped_hours,
        first_pip_hours=draft.first_pip_hours,
        endings=_endings(draft),
    )


def _torch(draft: Draft, fate: EggFate, seed: int) -> TorchState:
    if draft.blank:
        return TorchState(seed, 0.0, 0.0, 0.0, blank=True)
    return state_of(fate, draft.share, seed, disc=draft.disc)


def _seen(
    draft: Draft, fate: EggFate, share: float, random: np.random.Generator, *, torch: bool = True
) -> Glance:
    seen = glance(fate, share, candled=torch, dry_box=False, random=random)
    if draft.blank:
        yellow = random.random() < 0.85
        seen = replace(
            seen, grade=int(random.random() < 0.35), colour="yellowing" if yellow else "white",
            vessels="none" if torch else None, movement=False,
            feel="mushy" if random.random() < 0.6 else "firm",
        )  # fmt: skip
    return replace(seen, grade=int(np.clip(seen.grade + draft.dents, 0, 4)))


def _neighbour(draft: Draft, random: np.random.Generator) -> int:
    own = life(None, random)
    grade = sum(draft.share >= from_ for from_ in own.dents) + draft.neighbours_dents
    return int(np.clip(grade - int(random.random() < 0.12), 0, 4))


def _earlier(
    draft: Draft, fate: EggFate, term_days: float, random: np.random.Generator
) -> list[tuple[float, Glance]]:
    """Looks before: on lay day with the torch, and one on the way."""
    before = replace(draft, dents=0)
    days = [0.0] if draft.share * term_days > 2.0 else []
    if draft.share > 0.3:
        days.append(float(random.uniform(0.15, 0.7)) * draft.share * term_days)
    return [(day, _seen(before, fate, day / term_days, random, torch=day == 0.0)) for day in days]


def _endings(draft: Draft) -> dict[str, Ending]:
    """What becomes of the egg by each act: decided here, before anybody chooses."""
    lives = draft.died is None and not draft.blank
    endings = {}
    for act in ACTS:
        hatches = lives and act != "remove"
        if hatches and draft.doomed:
            hatches = act in draft.saved_by
        stays = act not in ("isolate", "remove")
        endings[act] = Ending(hatches, int(draft.taints and stays))
    return endings
