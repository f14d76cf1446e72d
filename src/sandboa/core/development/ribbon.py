"""The development ribbon: the record cut into even pieces for drawing."""

from dataclasses import dataclass

import numpy as np

from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.exposure import Exposure, exposure
from sandboa.core.development.sources import Provenance, SetPoints


@dataclass(frozen=True, slots=True)
class RibbonPiece:
    """A piece of time: development at its ends, mean temperature, its source and class."""

    start_s: float
    end_s: float
    development_start: float
    development_end: float
    mean_c: float
    provenance: Provenance
    measured: bool
    exposure: Exposure


def ribbon(
    curve: DevelopmentCurve, set_points: SetPoints, pieces: int = 180
) -> tuple[RibbonPiece, ...]:
    """Cut lay..as-of into about `pieces` even pieces, and at every change of source.

    A gap shorter than a piece keeps a piece of its own, so that none is
    drawn over. Empty on lay day itself.
    """
    temperature = curve.temperature
    if not temperature.stretches:
        return ()
    joints = [s.start_s for s in temperature.stretches]
    edges = np.unique(
        np.concatenate([np.linspace(temperature.start_s, temperature.as_of_s, pieces + 1), joints])
    )
    times, values, _ = curve.samples()
    degree_seconds = np.concatenate(
        [[0.0], np.cumsum((values[1:] + values[:-1]) / 2.0 * np.diff(times))]
    )
    at_edges = np.interp(edges, times, degree_seconds)
    development = [curve.at(float(edge)) for edge in edges]
    owners = np.searchsorted(joints, edges[:-1], side="right") - 1
    means = np.diff(at_edges) / np.diff(edges)
    return tuple(
        RibbonPiece(
            start_s=float(edges[i]),
            end_s=float(edges[i + 1]),
            development_start=development[i],
            development_end=development[i + 1],
            mean_c=float(means[i]),
            provenance=temperature.stretches[owner].provenance,
            measured=temperature.stretches[owner].measured,
            exposure=exposure(float(means[i]), set_points.at(float(edges[i]))),
        )
        for i, owner in enumerate(owners)
        if edges[i + 1] - edges[i] > 1.0
    )
