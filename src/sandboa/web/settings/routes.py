"""Settings: the house's methods and numbers, each with its reason; and the cabinets' readiness."""

from typing import Annotated

from fastapi import APIRouter, Path

from sandboa.core.box import Closing
from sandboa.core.dam_care import TubSchool
from sandboa.core.methods import (
    REASONS,
    TEMPERATURE_SCHOOLS,
    ClumpSchool,
    Contact,
    CuttingSchool,
    DamSchool,
    LastDays,
    MouldSchool,
    Visits,
    temperature_school,
)
from sandboa.core.settings import SETTINGS
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.climate.readiness import cabinets_readiness
from sandboa.services.clutches import methods
from sandboa.services.forms.numbers import method_form, setting_form
from sandboa.services.snapshot.settings import house_settings, set_setting
from sandboa.services.standings.learned import learned_standing
from sandboa.web.house import NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import (
    ActResponse,
)
from sandboa.web.schemas.water import MediumResponse
from sandboa.web.security.permissions import LOOK, RUN
from sandboa.web.settings.schemas import (
    CabinetReadinessResponse,
    MethodAddedResponse,
    MethodRequest,
    MethodResponse,
    MethodsResponse,
    SettingRequest,
    SettingResponse,
    TemperatureSchoolResponse,
)

router = APIRouter(prefix="/api", tags=["settings"])


MethodId = Annotated[int, Path(ge=1, le=2**53)]


_CHOICES = {
    "contact": Contact,
    "closing": Closing,
    "visits": Visits,
    "mould": MouldSchool,
    "cutting": CuttingSchool,
    "last_days": LastDays,
    "clump": ClumpSchool,
    "tub": TubSchool,
    "dam": DamSchool,
}


@router.get("/methods", dependencies=[LOOK])
def get_methods(house: TheHouse) -> MethodsResponse:
    """The house's methods, the chosen one first, and what speaks for each choice."""
    media = house.snapshot().settings.rules.media
    return MethodsResponse(
        methods=[
            MethodResponse(
                id=m.entity,
                method=m.method,
                chosen=m.chosen,
                temperature_school=temperature_school(m.method.temperature_c)[0],
                revision=revision_of(method_form(m)),
            )
            for m in methods.house_methods()
        ],
        reasons=REASONS,
        choices={line: [str(school) for school in schools] for line, schools in _CHOICES.items()},
        temperatures=[
            TemperatureSchoolResponse(above_c=above_c, reason=words)
            for above_c, _, words in TEMPERATURE_SCHOOLS
        ],
        media=[MediumResponse.model_validate(m) for m in media if not m.for_hatching],
    )


@router.post("/methods", dependencies=[RUN], status_code=201)
def add_method(asked: MethodRequest, now_s: NowS) -> MethodAddedResponse:
    """Record a house method."""
    entity, act = methods.add_method(asked.method, now_s, chosen=asked.chosen)
    return MethodAddedResponse(id=entity, act=ActResponse.of(act))


@router.put("/methods/{method}", dependencies=[RUN])
def change_house_method(
    method: MethodId, asked: MethodRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Change a house method; clutches keep the copy they have."""
    with saved_over(seen, lambda: method_form(methods.find_method(method))):
        return ActResponse.of(
            methods.change_method(method, asked.method, now_s, chosen=asked.chosen)
        )


@router.delete("/methods/{method}", dependencies=[RUN])
def drop_method(method: MethodId, now_s: NowS) -> ActResponse:
    """Take a house method away."""
    return ActResponse.of(methods.drop_method(method, now_s))


@router.get("/settings", dependencies=[LOOK])
def get_settings(house: TheHouse) -> list[SettingResponse]:
    """The house's numbers with default, range and reason, and what its eggs taught of them."""
    own = house_settings()
    learned = learned_standing(house.snapshot())
    return [
        SettingResponse(
            name=s.name,
            label=s.label,
            unit=s.unit,
            value=own[s.name],
            default=s.default,
            low=s.limits[0],
            high=s.limits[1],
            reason=s.reason,
            group=s.group,
            quantity=s.quantity,
            deep=s.deep,
            learned=learned.rules.weights.get(s.name) if s.name in learned.by_sign else None,
            learned_from=learned.by_sign.get(s.name, 0),
            revision=revision_of(setting_form(s.name, own)),
        )
        for s in SETTINGS.values()
    ]


@router.put("/settings/{name}", dependencies=[RUN])
def put_setting(
    name: Annotated[str, Path(max_length=80)], asked: SettingRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Set a number for the house."""
    with saved_over(seen, lambda: setting_form(name, house_settings())):
        return ActResponse.of(set_setting(name, asked.value, now_s))


@router.get("/readiness", dependencies=[LOOK])
def get_readiness(house: TheHouse, now_s: NowS) -> list[CabinetReadinessResponse]:
    """Whether each cabinet is ready for eggs, from its readings."""
    return [CabinetReadinessResponse.of(c) for c in cabinets_readiness(house.snapshot(), now_s)]
