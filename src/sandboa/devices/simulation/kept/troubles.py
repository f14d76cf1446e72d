"""What troubles do to a cabinet's warmth and to the air that a box lets through."""

from typing import Final

import numpy as np

from sandboa.devices.simulation.kept.plan import Plan

#: l of air a day that a closing lets through, and that one with a hole more does.
_PASSES_L_DAY: Final = {
    "sealed film": 8.0,
    "lid with 1-2 pin holes": 24.0,
    "lid with 3-8 holes": 70.0,
    "film with a cracked corner": 110.0,
}
_HOLES_L_DAY: Final = 24.0
_TORN_L_DAY: Final = 520.0
_GIVES: Final = {"vermiculite": 0.62, "perlite": 1.0, "half and half": 0.8}
#: °C by shelf that a trouble of the cabinet puts off its mean, and swings it by.
_OFF_C: Final = {"fan at night": (0.9, -2.6), "too hot": (3.3, 3.0), "too cold": (-4.4, -5.0)}
_SWINGS_C: Final = {"fan at night": (0.8, 1.8), "too hot": (0.6, 0.6), "too cold": (0.6, 0.6)}
_USUAL_OFF_C: Final = (0.15, -0.15)
_USUAL_SWING_C: Final = 0.3


def _of_cabinet(plan: Plan, day: int, mended: set[int]) -> list[tuple[str, float]]:
    return [
        (trouble.kind, trouble.strength)
        for at, trouble in enumerate(plan.troubles)
        if trouble.box is None and trouble.start <= day < trouble.end and at not in mended
    ]


def heat_c(plan: Plan, day: int, shelf: int, mended: set[int]) -> float:
    """How far a shelf is off the set point on that day, °C."""
    return _USUAL_OFF_C[shelf] + sum(
        strength * _OFF_C[kind][shelf] for kind, strength in _of_cabinet(plan, day, mended)
    )


def swings_c(plan: Plan, day: int, shelf: int, mended: set[int]) -> float:
    """How far a shelf swings to either side of its mean on that day, °C."""
    return _USUAL_SWING_C + sum(
        strength * _SWINGS_C[kind][shelf] for kind, strength in _of_cabinet(plan, day, mended)
    )


def air_passing(
    plan: Plan, day: int, closings: list[str], holes: np.ndarray, *, of_water: bool = True
) -> np.ndarray:
    """l of air a day through each closing; `of_water`: as its medium gives water; (boxes,)."""
    passes = np.array(
        [
            _PASSES_L_DAY[closing] * box.passes
            for closing, box in zip(closings, plan.boxes, strict=True)
        ]
    )
    for trouble in plan.troubles:
        if trouble.box is None or trouble.start > day:
            continue
        if trouble.kind == "torn film":
            passes[trouble.box] = _TORN_L_DAY * trouble.strength
        elif trouble.kind == "no hole":
            passes[trouble.box] = _PASSES_L_DAY["sealed film"] * 0.7
    passes = passes + _HOLES_L_DAY * holes
    if not of_water:
        return np.asarray(passes)
    return np.asarray(passes * np.array([_GIVES[box.medium] for box in plan.boxes]))
