"""What was seen of a simulated egg, as a keeper would have recorded it."""

from collections.abc import Iterator
from typing import Protocol

from sandboa.core.standing import SIGNS, Observation, SignKind


class ShellSeen(Protocol):
    """What eyes, nose and hand find of an egg, in the words of the signs."""

    @property
    def mould(self) -> str: ...
    @property
    def wet(self) -> str: ...
    @property
    def colour(self) -> str: ...
    @property
    def feel(self) -> str: ...


def of_shell(
    seen: ShellSeen, at_s: float, share: float, *, smell: str | None = None
) -> Iterator[Observation]:
    """The signs of a shell looked at (s, share developed): each, and that nothing spoke against it.

    `smell` is the egg's own; None where only the whole box was smelled.
    """
    signs = [
        (SignKind.MOULD, seen.mould),
        (SignKind.WET, seen.wet),
        (SignKind.COLOUR, seen.colour),
        (SignKind.FEEL, seen.feel),
    ]
    if smell is not None:
        signs.append((SignKind.SMELL, smell))
    if not any(SIGNS[sign].weight < 0 for sign in signs):
        signs.append((SignKind.SHELL, "clean"))
    for kind, value in signs:
        yield Observation(at_s, kind, value, share)


def of_torch(vessels: str | None, moves: bool, at_s: float, share: float) -> Iterator[Observation]:
    """The signs that a torch showed; none of an egg that was not candled."""
    if vessels is not None:
        yield Observation(at_s, SignKind.VESSELS, vessels, share)
    if moves:
        yield Observation(at_s, SignKind.MOVEMENT, "seen", share)
