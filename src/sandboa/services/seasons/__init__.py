"""Seasons: what hatched by group, what was lost to what, and how good the forecasts were."""
