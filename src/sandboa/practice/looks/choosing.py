"""Which kinds of cases come next: those misjudged come back, spaced out by how well they went.

Spaced repetition by the package `fsrs` (Free Spaced Repetition Scheduler). A kind is what is
learned, not a picture: each time it comes with another egg.
"""

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import TYPE_CHECKING, Any, Final, cast

import numpy as np
from fsrs import Card, Rating, Scheduler

from sandboa.core.practice import Answer, error

if TYPE_CHECKING:
    from fsrs.card import CardDict

#: How far off (0-1) a chance may be to count as known well, known, and known with effort
#: (assumption).
_WELL, _KNOWN, _EFFORT = 0.10, 0.30, 0.50
#: Days come between reviews from the first: a kind is seen again on another day.
_SCHEDULER: Final = Scheduler(learning_steps=(), relearning_steps=(), enable_fuzzing=False)

Reviews = Mapping[str, Mapping[str, Any]]


def due(reviews: Reviews, kinds: list[str], now_s: float) -> list[str]:
    """Those of `kinds` that are to come again by now, the longest due first."""
    now = datetime.fromtimestamp(now_s, UTC)
    cards = {kind: _card(reviews[kind]) for kind in kinds if kind in reviews}
    waiting = [kind for kind, card in cards.items() if card.due <= now]
    return sorted(waiting, key=lambda kind: (cards[kind].due, kind))


def chosen(
    reviews: Reviews, kinds: list[str], many: int, now_s: float, random: np.random.Generator
) -> list[str]:
    """`many` kinds in the order they come: what is due, what is new, then any, shuffled together.

    Every kind comes once before any comes again.
    """
    waiting = due(reviews, kinds, now_s)
    new = [kind for kind in kinds if kind not in reviews]
    random.shuffle(new)
    wanted = [*waiting, *new]
    while len(wanted) < many:
        more = list(kinds)
        random.shuffle(more)
        wanted += more
    taken = wanted[:many]
    random.shuffle(taken)
    return taken


def reviewed(before: Mapping[str, Any] | None, answer: Answer) -> dict[str, Any]:
    """When a kind comes again after that answer, as plain values; `before` is None the first
    time."""
    at = datetime.fromtimestamp(answer.at_s, UTC)
    card = Card(card_id=0, due=at) if before is None else _card(before)
    card, _ = _SCHEDULER.review_card(card, _rating(answer), at)
    return dict(card.to_dict())


def _card(stored: Mapping[str, Any]) -> Card:
    # As `to_dict` wrote it.
    return Card.from_dict(cast("CardDict", stored))


def _rating(answer: Answer) -> Rating:
    off = error(answer)
    if answer.worth < 0 or off > _EFFORT:
        return Rating.Again
    if off > _KNOWN or answer.worth < answer.best:
        return Rating.Hard
    if off <= _WELL and answer.usual_said == answer.usual:
        return Rating.Easy
    return Rating.Good
