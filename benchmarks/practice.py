"""Seasons of practice kept by different keepers: who loses fewest, on seeds nobody tuned by."""

from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from typing import Final

from benchmarks.report import met
from sandboa.devices.simulation.kept import KeptSeason, plan_of
from sandboa.practice.seasons.players import (
    SCHOOLS,
    FollowsSandboa,
    Player,
    foresees,
    leaves_alone,
    played,
    school,
    waters_always,
)

SEASONS: Final = 200
#: Seeds from here on were never looked at while the physics were made.
FIRST_SEED: Final = 500_000
_BOXES: Final = 5
KEEPERS: Final = (
    "leaves alone",
    "always waters",
    *SCHOOLS,
    "follows Sandboa",
    "knows all that is hidden",
)


def report(seasons: int = SEASONS, difficulty: str = "usual") -> str:
    """Eggs lost by each keeper over the same seasons, and of what."""
    seeds = range(FIRST_SEED, FIRST_SEED + seasons)
    lines = [f"{seasons} seasons of {_BOXES} boxes, {difficulty}: eggs that hatched and were lost"]
    lost: dict[str, list[int]] = {}
    with ProcessPoolExecutor() as workers:
        for keeper in KEEPERS:
            jobs = [(keeper, seed, difficulty) for seed in seeds]
            told = list(workers.map(_kept, jobs, chunksize=10))
            lost[keeper] = [of for _, of, _ in told]
            causes: Counter[str] = Counter()
            for *_, of in told:
                causes.update(of)
            words = ", ".join(f"{cause} {n}" for cause, n in causes.most_common())
            hatched = sum(of for of, *_ in told)
            lines.append(f"  {keeper:26}{hatched:6}{sum(lost[keeper]):6}  {words}")
    ours = sum(lost["follows Sandboa"])
    for other in ("leaves alone", "always waters", *SCHOOLS):
        fewer = ours < sum(lost[other])
        seasons_fewer = sum(
            a <= b for a, b in zip(lost["follows Sandboa"], lost[other], strict=True)
        )
        lines.append(
            f"  follows Sandboa against {other}: {ours} lost against {sum(lost[other])}, "
            f"no more in {seasons_fewer} of {seasons} seasons  {met(fewer)}"
        )
    return "\n".join(lines)


def _player(keeper: str, season: KeptSeason) -> Player:
    if keeper in SCHOOLS:
        return school(SCHOOLS[keeper])
    if keeper == "follows Sandboa":
        return FollowsSandboa(season)
    return {
        "leaves alone": leaves_alone,
        "always waters": waters_always,
        "knows all that is hidden": foresees,
    }[keeper]


def _kept(job: tuple[str, int, str]) -> tuple[int, int, list[str]]:
    keeper, seed, difficulty = job
    season = KeptSeason(plan_of(seed, _BOXES, difficulty))
    left = played(season, _player(keeper, season)).left()
    return left.hatched, left.lost, list(left.causes.values())
