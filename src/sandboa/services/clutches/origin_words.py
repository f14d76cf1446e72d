"""What is known of eggs nobody saw laid, in words, with what of it is assumed."""

from collections.abc import Iterator

from sandboa.core.development.earlier_life import UNKNOWN_BEFORE_C
from sandboa.core.laying.origin import OriginKind, StageShare
from sandboa.core.messages import Message, Moment, Temperature, Words
from sandboa.records.clutches import Clutch, ClutchOrigin
from sandboa.services.boxes.origins import share_of
from sandboa.services.snapshot.snapshot import Snapshot


def origin_words(snapshot: Snapshot, clutch: Clutch) -> tuple[Words, ...]:
    """Sentences on where a clutch comes from; none for one that was seen laid here."""
    origin = snapshot.clutch(clutch.entity_id).origin
    return () if origin is None else tuple(_sentences(snapshot, clutch, origin))


def _sentences(snapshot: Snapshot, clutch: Clutch, origin: ClutchOrigin) -> Iterator[Words]:
    if origin.laid_from_s is not None and origin.laid_until_s is not None:
        yield Message(
            "Laid between {start} and {end}; the middle is taken, and the windows are wider.",
            start=Moment(origin.laid_from_s),
            end=Moment(origin.laid_until_s),
        )
    share = share_of(snapshot, clutch, origin)
    if share is not None and origin.stage_seen_s is not None:
        yield _by_torch(origin, share)
    if origin.arrived_s is not None:
        yield _before(origin)


def _by_torch(origin: ClutchOrigin, share: StageShare) -> Words:
    learned = (
        "assumed"
        if share.clutches == 0
        else f"by {share.clutches} {'clutch' if share.clutches == 1 else 'clutches'} of yours"
    )
    return Message(
        "By torch {at}: {stage}, so about {percent} % developed then, give or take {spread} % "
        "({learned}).",
        at=Moment(origin.stage_seen_s or 0),
        stage=origin.stage,
        percent=round(100 * share.mean),
        spread=round(100 * share.sd),
        learned=learned,
    )


def _before(origin: ClutchOrigin) -> Words:
    came = "Taken from the dam" if origin.kind == OriginKind.FROM_DAM else "Here since"
    if origin.before_c is None:
        return Message(
            "{came} {at}; how warm they were before nobody knows: {taken} is taken.",
            came=came,
            at=Moment(origin.arrived_s or 0),
            taken=Temperature(UNKNOWN_BEFORE_C),
        )
    return Message(
        "{came} {at}; before that at about {about}.",
        came=came,
        at=Moment(origin.arrived_s or 0),
        about=Temperature(origin.before_c),
    )
