"""What a keeper finds who opens a simulated egg: true to its cause, misread now and then."""

from typing import Final

import numpy as np

#: Share of what could be noted that is not, and of what is noted that is misread (assumption).
_NOT_NOTED: Final = 0.12
_MISREAD: Final = 0.06
_STAGES: Final = ("early", "mid", "late", "full term")


def stage_of(cause: str, share: float) -> str:
    """How far the animal was grown, as it is written down."""
    if cause == "infertile":
        return "early"
    return _STAGES[int(np.searchsorted((0.33, 0.66, 0.9), share))]


def findings_of(
    cause: str,
    share: float,
    *,
    under: bool,
    more: dict[str, float],
    random: np.random.Generator,
) -> dict[str, tuple[str, ...]]:
    """By kind what is found; kinds with an underscore are for the teller, not for the keeper."""
    stage = "yolk only" if cause == "infertile" else stage_of(cause, share)
    grown = share > 0.45 and cause != "infertile"
    found = {
        "outside": _choose(random, {"clean": 0.5, "top": 0.3, "all over": 0.2}),
        "shell": "sound",
        "stage": stage,
        "yolk": "usual",
        "vessels": _choose(random, {"weak": 0.5, "none": 0.5}),
        "fluid": "usual",
        "inside": _choose(random, {"clean": 0.65, "spots": 0.3, "through": 0.05}),
        "smell": _choose(random, {"none": 0.4, "off": 0.35, "foul": 0.25}),
        "larvae": "none",
    }
    if cause != "infertile":
        found["position"] = "under" if under and random.random() < 0.8 else "top"
    if grown:
        found["cord"] = "free"
        found["form"] = "normal"
    found |= _of_cause(cause, share, random)
    if cause == "infertile":
        found.pop("vessels", None)
    told: dict[str, tuple[str, ...]] = {
        kind: (_misread(kind, value, random),) for kind, value in found.items()
    }
    for kind in list(told):
        if kind not in ("stage",) and random.random() < _NOT_NOTED:
            del told[kind]
    for key in ("rolled", "knocked"):
        if key in more and random.random() < 0.9:
            told[f"_{key}"] = (str(more[key]),)
    return told


def _of_cause(cause: str, share: float, random: np.random.Generator) -> dict[str, str]:
    often, mostly = random.random() < 0.75, random.random() < 0.88
    if cause == "too dry":
        return {"yolk": "hard" if mostly else "usual", "fluid": "little" if often else "usual"}
    if cause == "too wet":
        return {"shell": "bottom soft" if mostly else "sound", "outside": "below"}
    if cause == "knock, drop or torn shell":
        return {"shell": "torn"} if often else {}
    if cause == "infection first":
        return {"inside": "through" if often else "spots", "outside": "all over"}
    if cause == "opened too early":
        cut = "cut" if random.random() < 0.6 else "good"
        return {"yolk": "large" if mostly else "usual", "vessels": cut}
    if cause == "could not get out":
        hard = "hard" if random.random() < 0.4 else "sound"
        return {"fluid": "mouth" if often else "usual", "shell": hard, "yolk": "absorbed"}
    if cause == "cord around the body":
        return {"cord": "around" if mostly else "free"}
    if cause == "malformed":
        defect = str(random.choice(["cleft", "open belly", "kink", "no eyes"]))
        return {"form": defect if mostly else "normal"}
    if cause == "shell defect":
        return {"shell": "thin" if often else "sound"}
    if cause == "stale air":
        return {"vessels": "good", "yolk": "absorbed" if share > 0.95 else "usual"}
    if cause == "pests":
        return {"larvae": "seen" if often else "none"}
    if cause == "too hot" and share > 0.45 and random.random() < 0.3:
        return {"form": "kink"}
    return {}


def _choose(random: np.random.Generator, chances: dict[str, float]) -> str:
    return str(random.choice(list(chances), p=list(chances.values())))


def _misread(kind: str, value: str, random: np.random.Generator) -> str:
    if kind == "stage" and value in _STAGES and random.random() < _MISREAD:
        place = _STAGES.index(value) + int(random.choice([-1, 1]))
        return _STAGES[min(max(place, 0), 3)]
    if kind == "position" and random.random() < _MISREAD:
        return "side"
    return value
