"""What stands on the card and the label of a box."""

from dataclasses import dataclass

from sandboa.core.box import shell_words
from sandboa.core.candling import Vessels
from sandboa.core.development import Window
from sandboa.core.lay_day import EggEvent
from sandboa.core.messages import Message, Temperature, Words
from sandboa.core.methods import Method
from sandboa.services.clutches.clutch_view import ClutchNow, ClutchPage
from sandboa.services.clutches.egg_judgements import EggView


@dataclass(frozen=True, slots=True)
class CardLine:
    """A line of the card: what, and how it is with this clutch."""

    name: str
    text: Words


@dataclass(frozen=True, slots=True)
class Card:
    """What one must know with the box in hand.

    `pips` is the window of the typical egg, None where no date can be told;
    `egg_notes` what sets single eggs apart; `keeping` what the small label
    says of how the eggs are kept.
    """

    code: str
    count: str
    parents: str
    laid_s: float
    pips: Window | None
    lines: tuple[CardLine, ...]
    egg_notes: str
    keeping: str


def card_of(page: ClutchPage) -> Card:
    """The card of a clutch."""
    now = page.now
    return Card(
        code=now.clutch.code,
        count=str(now.count),
        parents=f"{now.dam} × {now.sire}" if now.sire else now.dam,
        laid_s=float(now.clutch.laid_s),
        pips=now.forecast.typical_pip if now.forecast else None,
        lines=_lines(now, page.method),
        egg_notes="; ".join(note for egg in now.eggs if (note := _egg_note(egg))),
        keeping="dam keeps the eggs" if now.maternal else now.box.box.medium or "",
    )


def _lines(now: ClutchNow, method: Method) -> tuple[CardLine, ...]:
    cutting = f"{method.cutting} ({method.set_day})" if method.set_day else str(method.cutting)
    expected = (CardLine("Expect", now.expected.counts),) if now.expected else ()
    if now.maternal:
        return CardLine("Dam keeps", now.box.cabinet), CardLine("Cutting", cutting), *expected
    place = Message(
        "{cabinet}, {shelf}, {set_point}",
        cabinet=now.box.cabinet, shelf=now.box.shelf.name, set_point=Temperature(now.set_point_c),
    )  # fmt: skip
    return (
        CardLine("Place", place),
        CardLine("Medium", f"{now.box.box.medium}, {method.contact}"),
        CardLine("Closing", now.box.box.closing or ""),
        CardLine("Set up", _set_up(now)),
        CardLine("Visits", str(method.visits)),
        CardLine("Cutting", cutting),
        *expected,
    )


def _set_up(now: ClutchNow) -> str:
    box = now.box.box
    weighed = [
        f"{box.dry_mass_g:.0f} g dry" if box.dry_mass_g is not None else "",
        f"{box.water_g:.0f} g water" if box.water_g is not None else "",
        f"whole box {box.set_up_mass_g:.0f} g" if box.set_up_mass_g is not None else "",
    ]
    return ", ".join(part for part in weighed if part) or "not weighed"


def _egg_note(egg: EggView) -> str:
    """Slug, shell, weak vessels, turned or torn: "3 window, vessels weak"; empty for the others."""
    vessels = egg.torchlight.vessels
    said = [
        "slug" if egg.slug else "",
        shell_words(egg.shells) if egg.shells else "",
        f"vessels {vessels}" if vessels and vessels != Vessels.STRONG else "",
        *(event for event in egg.events if event != EggEvent.SEPARATED),
    ]
    words = ", ".join(word for word in said if word)
    return f"{egg.number} {words}" if words else ""
