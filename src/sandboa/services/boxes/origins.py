"""Where eggs that nobody saw laid begin, and what is known of them before they came."""

from collections.abc import Mapping

from sandboa.core.development.earlier_life import (
    ABOUT_SD_C,
    UNKNOWN_BEFORE_C,
    UNKNOWN_BEFORE_SD_C,
    EarlierLife,
)
from sandboa.core.laying.origin import StageShare, TorchStage, laid_by_stage, stage_share
from sandboa.records import issued_forecasts
from sandboa.records.clutches import Clutch, ClutchOrigin
from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.snapshot import Snapshot


def began(snapshot: Snapshot, clutch: Clutch) -> tuple[float, EarlierLife]:
    """When a clutch began to develop (s), and what is known of it before it was measured here.

    By torch that is reckoned back from the stage it showed, as the house's closed clutches make it.
    """
    origin = snapshot.clutch(clutch.entity_id).origin
    if origin is None:
        return float(clutch.laid_s), EarlierLife()
    unknown = origin.before_c is None
    before_c = UNKNOWN_BEFORE_C if origin.before_c is None else float(origin.before_c)
    start_s, span_s = float(clutch.laid_s), 0.0
    share = share_of(snapshot, clutch, origin)
    if share is not None and origin.stage_seen_s is not None:
        # The time is told to whole seconds, so that eggs of one clutch have one way.
        clock = snapshot.settings.rules.clock
        start_s = float(int(laid_by_stage(share, origin.stage_seen_s, before_c, clock)))
    if origin.laid_from_s is not None and origin.laid_until_s is not None:
        span_s = float(origin.laid_until_s - origin.laid_from_s)
    return start_s, EarlierLife(
        span_s=span_s,
        arrived_s=None if origin.arrived_s is None else float(origin.arrived_s),
        temperature_c=before_c,
        temperature_sd_c=UNKNOWN_BEFORE_SD_C if unknown else ABOUT_SD_C,
        development_sd=share.sd if share is not None else None,
    )


def share_of(snapshot: Snapshot, clutch: Clutch, origin: ClutchOrigin) -> StageShare | None:
    """D at which this house's eggs show the stage a clutch showed; None where no torch told.

    What the clutch itself taught is left out.
    """
    if origin.stage is None:
        return None
    taught = stages_known(snapshot)
    seen = [
        developed
        for other, (stage, developed) in taught.items()
        if stage == origin.stage and other != clutch.entity_id
    ]
    return stage_share(TorchStage(origin.stage), seen)


def stages_known(snapshot: Snapshot) -> Mapping[int, tuple[str, float]]:
    """The stage that each closed clutch aged by torch showed, and D then, by clutch."""

    def read() -> dict[int, tuple[str, float]]:
        return {
            entity: (origin.stage, lesson.stage_development)
            for entity, lesson in issued_forecasts.lessons().items()
            if lesson.stage_development is not None
            and (origin := snapshot.clutch(entity).origin) is not None
            and origin.stage is not None
        }

    stamp = (Same(snapshot.histories.clutches), *issued_forecasts.lessons_stamp())
    return snapshot.kept.held("stages", stamp, read)
