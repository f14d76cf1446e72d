"""What a keeper finds who opens a simulated egg: true to its cause, misread now and then."""

from typing import Final

import numpy as np

#: Share of what could be noted that is not, and of what is noted that is misread (assumption).
_NOT_NOTED: Final = 0.12
_MISREAD: Final = 0.06
_STAGES: Final = ("early", "mid", "late", "full term")
#: What can be noted of each kind, other than how far it was grown.
_LOOKS: Final = {
    "outside": ("clean", "top", "below", "all over"),
    "shell": ("sound", "bottom soft", "hard", "thin", "torn"),
    "position": ("top", "side", "under"),
    "yolk": ("usual", "hard", "large", "absorbed"),
    "vessels": ("good", "weak", "none", "cut"),
    "fluid": ("usual", "mouth", "little"),
    "cord": ("free", "around"),
    "form": ("normal", "cleft", "open belly", "kink", "no eyes"),
    "inside": ("clean", "spots", "through"),
    "smell": ("none", "off", "foul"),
    "larvae": ("none", "seen"),
}


def stage_of(cause: str, share: float) -> str:
    """How far the animal was grown, as it is written down."""
    if cause == "blank":
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
    stage = "yolk only" if cause == "blank" else stage_of(cause, share)
    grown = share > 0.45 and cause != "blank"
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
    if cause != "blank":
        found["position"] = "under" if under and random.random() < 0.8 else "top"
    if grown:
        found["cord"] = "free"
        found["form"] = "normal"
    found |= _of_cause(cause, share, random)
    if cause == "blank":
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


def falsified(
    findings: dict[str, tuple[str, ...]], share: float, random: np.random.Generator
) -> dict[str, tuple[str, ...]]:
    """The findings with that `share` of them wrong: another look that could have been noted.

    How far it was grown is misjudged by a step; that there was an animal at all is not.
    """
    told = dict(findings)
    for kind, (value, *_) in findings.items():
        if kind.startswith("_") or value == "yolk only" or random.random() >= share:
            continue
        if kind == "stage":
            place = _STAGES.index(value) + int(random.choice([-1, 1]))
            told[kind] = (_STAGES[min(max(place, 0), 3)],)
        else:
            others = [other for other in _LOOKS[kind] if other != value]
            told[kind] = (str(random.choice(others)),)
    return told


def _of_cause(cause: str, share: float, random: np.random.Generator) -> dict[str, str]:
    often, mostly = random.random() < 0.75, random.random() < 0.88
    if cause == "parched":
        return {"yolk": "hard" if mostly else "usual", "fluid": "little" if often else "usual"}
    if cause == "soaked":
        return {"shell": "bottom soft" if mostly else "sound", "outside": "below"}
    if cause == "bump":
        return {"shell": "torn"} if often else {}
    if cause == "rot":
        return {"inside": "through" if often else "spots", "outside": "all over"}
    if cause == "early blade":
        cut = "cut" if random.random() < 0.6 else "good"
        return {"yolk": "large" if mostly else "usual", "vessels": cut}
    if cause == "locked in":
        hard = "hard" if random.random() < 0.4 else "sound"
        return {"fluid": "mouth" if often else "usual", "shell": hard, "yolk": "absorbed"}
    if cause == "tether":
        return {"cord": "around" if mostly else "free"}
    if cause == "twisted":
        defect = str(random.choice(["cleft", "open belly", "kink", "no eyes"]))
        return {"form": defect if mostly else "normal"}
    if cause == "poor wrap":
        return {"shell": "thin" if often else "sound"}
    if cause == "stuffy":
        return {"vessels": "good", "yolk": "absorbed" if share > 0.95 else "usual"}
    if cause == "fly brood":
        return {"larvae": "seen" if often else "none"}
    if cause == "heat wave" and share > 0.45 and random.random() < 0.3:
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
