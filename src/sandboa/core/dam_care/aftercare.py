"""The dam's checklist after laying, by school (rule P5)."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.lay_day import Lump
from sandboa.core.units import SECONDS_PER_DAY

#: Days after laying without a meal taken that are worth a flag (rule P5).
NOT_EATING_DAYS: Final = 21.0
#: Days between weighings while she recovers (assumption).
WEIGH_EVERY_DAYS: Final = 7.0
#: Days between small meals while she recovers: "small and often" (the number is an assumption).
MEAL_EVERY_DAYS: Final = 6.0


class TubSchool(StrEnum):
    """When her tub is cleaned after laying: schools differ (rule P5)."""

    AT_ONCE = "clean at once"
    REST_FIRST = "let her rest 1-2 weeks first"


class AftercareTask(StrEnum):
    FEEL = "feel again"
    #: A vet saw a dam in whom an egg may be left: nobody has to feel her again for this list.
    VET = "seen by a vet"
    RINSE = "rinse"
    WATER = "water"
    WEIGH = "weigh"
    CLEAN = "clean"
    FIRST_MEAL = "first meal"
    MEAL = "meal"
    #: The keeper says that it is over, whatever she weighs.
    OVER = "aftercare over"


WORDS: Final = {
    AftercareTask.FEEL: "Feel along her belly again: a lump that stays is a case for a vet.",
    AftercareTask.VET: "A vet saw her.",
    AftercareTask.RINSE: "Rinse or wipe the scent of eggs off her, lukewarm.",
    AftercareTask.WATER: "Fresh water.",
    AftercareTask.WEIGH: "Weigh her.",
    AftercareTask.CLEAN: "Clean her tub, fresh bedding.",
    AftercareTask.FIRST_MEAL: "Offer a first small meal.",
    AftercareTask.MEAL: "Offer a small meal.",
    AftercareTask.OVER: "Her aftercare is over.",
}

#: What makes sense around lay day only.
_OF_LAY_DAY: Final = (AftercareTask.RINSE, AftercareTask.WATER, AftercareTask.CLEAN)

#: Days after laying: best from .. by. First meal 1-3 days (rule P5); the rest assumptions.
_ON_LAY_DAY: Final = (0.0, 1.0)
_FEEL_AGAIN: Final = (0.5, 1.5)
_FIRST_MEAL: Final = (1.0, 3.0)
_CLEAN: Final = {TubSchool.AT_ONCE: (0.0, 1.0), TubSchool.REST_FIRST: (7.0, 14.0)}
#: Days after which a line of lay day that nobody ticked is no longer asked for (assumption: her
#: scent and her tub are what they are by then). A lump is asked about until somebody felt her.
_ASKED_FOR_DAYS: Final = 14.0
#: Days a meal or a weighing may come late before it is said to be late (assumption).
_SLACK_DAYS: Final = 3.0


@dataclass(frozen=True, slots=True)
class CareItem:
    """One thing to do for her: best from `from_s` to `by_s`; `done_s` when it was done."""

    task: AftercareTask
    text: str
    from_s: float
    by_s: float
    done_s: float | None = None

    def due(self, now_s: float) -> bool:
        return self.done_s is None and now_s >= self.from_s


@dataclass(frozen=True, slots=True)
class LaidDam:
    """A dam that laid at `laid_s`, and what was done since.

    hollow: no lump was left when she was felt on lay day; otherwise she is
        felt again on the next.
    ticked: when the keeper ticked feel, rinse, water or clean, or that a vet saw her (s).
    weighed_s, offered_s: weighings and meals offered, taken or refused, since
        laying; they tick their own lines, so nothing is entered twice.
    maternal: she sits on her eggs; her tub is not cleaned and she is not
        rinsed (that would drive her off them), until the eggs have hatched.
    recovered: target weight reached; weighing and extra meals are over.
    """

    laid_s: float
    maternal: bool
    recovered: bool
    ticked: Mapping[AftercareTask, float]
    hollow: bool = True
    weighed_s: tuple[float, ...] = ()
    offered_s: tuple[float, ...] = ()


def aftercare(dam: LaidDam, school: TubSchool, now_s: float | None = None) -> tuple[CareItem, ...]:
    """The checklist of a dam after laying, in the order in which things fall due.

    What belongs to lay day is no longer asked for two weeks after it should
    have been done; without `now_s` every line is kept.

    Source: rule P5 (keeper practice).
    """
    laid_s, ticked = dam.laid_s, dam.ticked

    def item(
        task: AftercareTask, days: tuple[float, float], after_s: float, done_s: float | None
    ) -> CareItem:
        start, end = (after_s + d * SECONDS_PER_DAY for d in days)
        return CareItem(task, WORDS[task], start, end, done_s)

    weighed, offered = sorted(dam.weighed_s), sorted(dam.offered_s)
    items = [item(AftercareTask.WATER, _ON_LAY_DAY, laid_s, ticked.get(AftercareTask.WATER))]
    if not dam.hollow:
        felt_s = settled_s(ticked)
        items.append(item(AftercareTask.FEEL, _FEEL_AGAIN, laid_s, felt_s))
    if not dam.maternal:
        items += [
            item(AftercareTask.RINSE, _ON_LAY_DAY, laid_s, ticked.get(AftercareTask.RINSE)),
            item(AftercareTask.CLEAN, _CLEAN[school], laid_s, ticked.get(AftercareTask.CLEAN)),
            item(AftercareTask.WEIGH, _ON_LAY_DAY, laid_s, weighed[0] if weighed else None),
        ]
    items.append(
        item(AftercareTask.FIRST_MEAL, _FIRST_MEAL, laid_s, offered[0] if offered else None)
    )
    if not dam.recovered:
        if offered:
            again = (MEAL_EVERY_DAYS, MEAL_EVERY_DAYS + _SLACK_DAYS)
            items.append(item(AftercareTask.MEAL, again, offered[-1], None))
        if weighed and not dam.maternal:
            again = (WEIGH_EVERY_DAYS, WEIGH_EVERY_DAYS + _SLACK_DAYS)
            items.append(item(AftercareTask.WEIGH, again, weighed[-1], None))
    asked = [
        i
        for i in items
        if i.task not in _OF_LAY_DAY
        or now_s is None
        or i.done_s is not None
        or now_s <= i.by_s + _ASKED_FOR_DAYS * SECONDS_PER_DAY
    ]
    # Where an egg may be left in her, that comes before everything.
    first = AftercareTask.FEEL
    return tuple(sorted(asked, key=lambda i: (i.task is not first, i.from_s, i.by_s)))


def settled_s(ticked: Mapping[AftercareTask, float]) -> float | None:
    """When it was settled that no egg is left in her (s): she was hollow, or a vet saw her.

    None while nobody said so. Source: rule P5.
    """
    said = [ticked[task] for task in (AftercareTask.FEEL, AftercareTask.VET) if task in ticked]
    return min(said, default=None)


def retained_egg(name: str, lump: Lump, laid_s: float, now_s: float) -> str:
    """What to say of a dam in whom an egg may be left, and who was not felt since, by its days.

    Source: rule P5: a retained egg is a vet matter.
    """
    days = int((now_s - laid_s) // SECONDS_PER_DAY)
    since = "today" if days < 1 else "yesterday" if days < 2 else f"{days} days ago"
    if lump is Lump.LEFT:
        found = f"{name}: a lump was left in her belly when she laid, {since}."
    else:
        found = f"{name}: it was not sure whether a lump was left when she laid, {since}."
    if days < 1:
        return f"{found} Leave her alone for some hours, then feel again."
    if days < 3:
        return f"{found} Feel again now; a lump that is still there is a case for a reptile vet."
    return (
        f"{found} Nobody felt her since. A retained egg is dangerous: feel her today, and if it "
        "is there or you are not sure, a reptile vet."
    )


def not_eating(
    laid_s: float,
    last_meal_taken_s: float | None,
    now_s: float,
    *,
    maternal: bool,
    flag_days: float = NOT_EATING_DAYS,
) -> str | None:
    """What to say of a dam that has taken nothing for `flag_days` since laying, else None.

    A dam that sits on her eggs usually fasts; she is left in peace (assumption).
    """
    since = laid_s if last_meal_taken_s is None else max(laid_s, last_meal_taken_s)
    days = (now_s - since) / SECONDS_PER_DAY
    if maternal or last_meal_taken_s is not None or days < flag_days:
        return None
    return (
        f"has taken nothing since laying, {days:.0f} days ago. Offer smaller prey, warmer; "
        "thin or weak, she is a case for a reptile vet."
    )
