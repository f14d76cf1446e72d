"""A cabinet of boxes over a season, kept day by day by whoever acts: physics and fates of its own.

`plan_of` draws everything that chance decides before the first day, so that two keepers of one seed
meet the same season and what each choice cost can be told. `KeptSeason` lets it come true. It knows
nothing of the rules by which Sandboa advises.
"""

from sandboa.devices.simulation.kept.plan import BoxPlan, Plan, Trouble, plan_of
from sandboa.devices.simulation.kept.season import Deed, Impossible, KeptSeason, Left
from sandboa.devices.simulation.kept.seeing import BoxSeen, CabinetSeen, EggSeen

__all__ = [
    "BoxPlan",
    "BoxSeen",
    "CabinetSeen",
    "Deed",
    "EggSeen",
    "Impossible",
    "KeptSeason",
    "Left",
    "Plan",
    "Trouble",
    "plan_of",
]
