"""Numbers of the core that a screen draws or checks with: told once, never copied."""

from itertools import product

from fastapi import APIRouter

from sandboa.core.animals import ADULT_RANGE_G
from sandboa.core.box import Closing
from sandboa.core.cautions import CAUTIONS
from sandboa.core.climate.probe_checks import SALT_HUMIDITY
from sandboa.core.clutch_count import MOST_EGGS
from sandboa.core.hatching.advice import FULL_TERM, RESCUE_HOURS
from sandboa.core.hatching.hatchlings import HATCHLING_RANGE_G
from sandboa.core.lay_day import EGG_MASS_RANGE_G, USUAL_EGG_G, steps
from sandboa.core.people import SHORTEST_PASSPHRASE
from sandboa.core.standing import RECORDED_KINDS, SIGNS, asked_from, asks_for_torch
from sandboa.core.units import MEDIUM_MASS_RANGE_G
from sandboa.core.water.top_up import BOX_MASS_RANGE_G, POURED_RANGE_G
from sandboa.formats.data_package import LARGEST_PACKED_BYTES
from sandboa.formats.logger_files import LARGEST_FILE_BYTES
from sandboa.formats.old_records import LARGEST_LIST_BYTES
from sandboa.formats.paper import LABEL_GRIDS
from sandboa.formats.pictures import LARGEST_PHOTO_BYTES
from sandboa.services.alarms.delivery import REPEAT_S
from sandboa.web.house import TheHouse
from sandboa.web.rules.schemas import (
    CautionResponse,
    ClimateRules,
    DimpleStage,
    GramsRules,
    HatchRules,
    RulesResponse,
    StepOrder,
    WaterRules,
)
from sandboa.web.security.permissions import LOOK

router = APIRouter(prefix="/api/rules", tags=["rules"])


@router.get("", dependencies=[LOOK])
def get_rules(house: TheHouse) -> RulesResponse:
    """The numbers in force."""
    rules = house.snapshot().settings.rules
    return RulesResponse(
        dimple_stages=[DimpleStage(development=d, grade=g) for d, g in rules.dents.stages],
        largest_file_bytes=LARGEST_FILE_BYTES,
        largest_list_bytes=LARGEST_LIST_BYTES,
        most_eggs=MOST_EGGS,
        largest_photo_bytes=LARGEST_PHOTO_BYTES,
        largest_package_bytes=LARGEST_PACKED_BYTES,
        labels_per_sheet={sheet: grid.places for sheet, grid in LABEL_GRIDS.items()},
        shortest_passphrase=SHORTEST_PASSPHRASE,
        usual_egg_g=USUAL_EGG_G,
        cautions=[CautionResponse.model_validate(c) for c in CAUTIONS],
        emergency_repeat_s=REPEAT_S,
        torch_signs=[
            f"{kind}.{value}"
            for kind, value in SIGNS
            if asks_for_torch(kind, value, rules.standing)
        ],
        asked_from={kind.value: asked_from(kind) for kind in RECORDED_KINDS},
        poured_g=POURED_RANGE_G,
        grams=GramsRules(
            box_g=BOX_MASS_RANGE_G,
            dam_g=ADULT_RANGE_G,
            egg_g=EGG_MASS_RANGE_G,
            medium_g=MEDIUM_MASS_RANGE_G,
            water_g=(0.0, MEDIUM_MASS_RANGE_G[1]),
        ),
        water_shares=WaterRules(top_up=rules.water.top_up, dry=rules.water.dry),
        closings=list(Closing),
        hatch=HatchRules(
            rescue_hours=RESCUE_HOURS, full_term_from=FULL_TERM, hatchling_g=HATCHLING_RANGE_G
        ),
        climate=ClimateRules(
            fine_off_c=rules.climate.fine_off_c,
            harm_above_c=rules.climate.harm_above_c,
            slow_below_c=rules.climate.slow_below_c,
            saturated_humidity=rules.climate.saturated_humidity,
            salt_humidity=SALT_HUMIDITY,
            checked_probe_sd_c=rules.probe_sd_c[1],
            unchecked_probe_sd_c=rules.probe_sd_c[0],
            recent_days=rules.record.recent_days,
            swing_good_up_to_c=rules.climate.swing_good_c,
            swing_watch_up_to_c=rules.climate.swing_c,
        ),
        lay_day_orders=[
            StepOrder(maternal=m, to_turn=t, steps=list(steps(maternal=m, to_turn=t)))
            for m, t in product((False, True), repeat=2)
        ],
    )
