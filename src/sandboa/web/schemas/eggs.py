"""An egg in responses: as it looks, how it is judged, and by what evidence."""

from pydantic import BaseModel, Field

from sandboa.core.box import Shell
from sandboa.core.candling import Disc, Vessels
from sandboa.core.hatching import Fate
from sandboa.core.standing import Standing
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.web.schemas.common import Moment, ResponseSchema, Share


class TorchlightResponse(ResponseSchema):
    """The latest candling, and when to candle again; nulls where there is nothing to say."""

    vessels: Vessels | None
    disc: Disc | None
    seen_at: Moment | None = Field(validation_alias="seen_s")
    again_from: Moment | None = Field(validation_alias="again_from_s")
    again_by: Moment | None = Field(validation_alias="again_by_s")


class EvidenceResponse(ResponseSchema):
    """A line of evidence. `key` is the setting it rests on; `void` says why it does not count."""

    key: str
    words: str
    log_ratio: float = Field(validation_alias="weight")
    times: float
    push: float
    seen_at: Moment | None = Field(validation_alias="at_s")
    void: str


class SettlesResponse(ResponseSchema):
    text: str
    from_at: Moment = Field(validation_alias="from_s")


class CauseResponse(ResponseSchema):
    """A cause of early dents with its share 0-1 and what spoke for (+) or against (-) it."""

    cause: str
    share: Share
    reasons: list[str]


class EggResponse(BaseModel):
    """An egg with its judgements; nulls for slugs and eggs never looked at.

    `name` is what it is called in its `box`: its number, with the code of its clutch where eggs of
    several lie there. `share` is that developed.
    """

    number: int
    name: str
    clutch: str
    clutch_id: int
    box: str
    share: Share
    x: Share
    y: Share
    slug: bool
    shells: list[Shell]
    mass_g: float | None
    clump: int | None
    events: list[str]
    torchlight: TorchlightResponse
    allowed_grade: int
    pipped_at: Moment | None
    removed_at: Moment | None
    cut_at: Moment | None
    emerged_at: Moment | None
    fate: Fate | None
    lost: bool
    signs: dict[str, str]
    looked_at: Moment | None
    grade: int | None
    graded_at: Moment | None
    excess: int | None
    scope: str | None
    urgency: str | None
    advice: str | None
    standing: Standing | None
    alive: Share | None
    will_pip: Share | None
    will_hatch: Share | None
    settles: SettlesResponse | None
    causes: list[CauseResponse]


def egg_told(egg: EggView) -> EggResponse:
    """The view of an egg as the interface draws it."""
    return EggResponse(
        number=egg.number,
        name=egg.name,
        clutch=egg.clutch,
        clutch_id=egg.clutch_id,
        box=egg.box,
        share=egg.share,
        x=egg.x,
        y=egg.y,
        slug=egg.slug,
        shells=list(egg.shells),
        mass_g=egg.mass_g,
        clump=egg.clump,
        events=list(egg.events),
        torchlight=TorchlightResponse.model_validate(egg.torchlight),
        allowed_grade=egg.allowed_grade,
        pipped_at=egg.pipped_s,  # type: ignore[arg-type]
        removed_at=egg.removed_s,  # type: ignore[arg-type]
        cut_at=egg.cut_s,  # type: ignore[arg-type]
        emerged_at=egg.emerged_s,  # type: ignore[arg-type]
        fate=egg.fate,
        lost=egg.fate is not None and egg.fate.is_loss,
        signs=dict(egg.signs),
        looked_at=egg.looked_s,  # type: ignore[arg-type]
        grade=egg.grade,
        graded_at=egg.graded_s,  # type: ignore[arg-type]
        excess=egg.excess,
        scope=egg.scope,
        urgency=egg.urgency,
        advice=egg.advice,
        standing=egg.standing.standing if egg.standing else None,
        alive=egg.standing.alive if egg.standing else None,
        will_pip=egg.standing.will_pip if egg.standing else None,
        will_hatch=egg.will_hatch,
        settles=SettlesResponse.model_validate(egg.settles) if egg.settles else None,
        causes=[CauseResponse.model_validate(cause) for cause in egg.causes],
    )
