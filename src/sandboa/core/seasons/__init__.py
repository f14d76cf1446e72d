"""What a season taught: computed sentences, each with the number it rests on."""

from sandboa.core.seasons.taught import (
    MOST_SENTENCES,
    CauseCost,
    Groups,
    SeasonFacts,
    Taught,
    taught,
)

__all__ = ["MOST_SENTENCES", "CauseCost", "Groups", "SeasonFacts", "Taught", "taught"]
