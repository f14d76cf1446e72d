"""What a season taught: computed sentences, each with the number it rests on."""

from sandboa.core.seasons.findings import (
    MOST_SENTENCES,
    CauseCost,
    SeasonFacts,
    SeasonFinding,
    season_findings,
)

__all__ = [
    "MOST_SENTENCES",
    "CauseCost",
    "SeasonFacts",
    "SeasonFinding",
    "season_findings",
]
