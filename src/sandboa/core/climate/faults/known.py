"""Means and extremes of what is known; NaN, and no warning, where nothing is."""

import numpy as np

from sandboa.core.development.clock import FloatArray


def mean(values: FloatArray) -> float:
    """Mean of the known values."""
    known = values[~np.isnan(values)]
    return float(known.mean()) if len(known) else float("nan")


def median(values: FloatArray) -> float:
    """Median of the known values."""
    known = values[~np.isnan(values)]
    return float(np.median(known)) if len(known) else float("nan")


def lowest(values: FloatArray) -> float:
    """Lowest of the known values."""
    known = values[~np.isnan(values)]
    return float(known.min()) if len(known) else float("nan")


def column_highest(rows: FloatArray) -> FloatArray:
    """Highest known value of each column."""
    highest = np.where(np.isnan(rows), -np.inf, rows).max(axis=0, initial=-np.inf)
    return np.where(np.isfinite(highest), highest, np.nan)


def column_mean(rows: FloatArray) -> FloatArray:
    """Mean of the known values of each column."""
    known = (~np.isnan(rows)).sum(axis=0)
    total = np.where(np.isnan(rows), 0.0, rows).sum(axis=0)
    return np.asarray(np.where(known > 0, total / np.maximum(known, 1), np.nan))
