"""What a failed egg looked like when it was opened: choices to be drawn, and their words."""

from enum import StrEnum
from typing import Final

from sandboa.core.errors import NotPlausible


class FindingKind(StrEnum):
    """What is looked at, in the order of opening."""

    OUTSIDE = "outside"
    SHELL = "shell"
    POSITION = "position"
    STAGE = "stage"
    YOLK = "yolk"
    VESSELS = "vessels"
    FLUID = "fluid"
    CORD = "cord"
    FORM = "form"
    INSIDE = "inside"
    SMELL = "smell"
    LARVAE = "larvae"


#: Values of each kind with their words; rule G, column "settle by".
FINDINGS: Final = {
    FindingKind.OUTSIDE: {
        "clean": "no mould outside",
        "top": "mould on top",
        "below": "mould below",
        "all over": "mould all over",
    },
    FindingKind.SHELL: {
        "sound": "shell sound",
        "bottom soft": "bottom of the shell soft",
        "hard": "shell hard to cut",
        "thin": "shell thin or windowed",
        "torn": "a tear, or blood at one place",
        "slit closed": "its slit had closed",
    },
    FindingKind.POSITION: {
        "top": "embryo on top",
        "side": "embryo at the side",
        "under": "embryo underneath",
    },
    FindingKind.STAGE: {
        "yolk only": "yolk only, no embryo",
        "early": "an early embryo",
        "mid": "half grown",
        "late": "nearly grown",
        "full term": "fully formed",
    },
    FindingKind.YOLK: {
        "usual": "yolk as usual for its stage",
        "hard": "yolk thick or hard",
        "large": "yolk large, not absorbed",
        "absorbed": "yolk absorbed",
    },
    FindingKind.VESSELS: {
        "good": "vessels full",
        "weak": "vessels weak",
        "none": "no vessels",
        "cut": "a vessel cut or torn",
    },
    FindingKind.FLUID: {
        "usual": "fluid as usual",
        "mouth": "fluid in its mouth",
        "little": "hardly any fluid",
    },
    FindingKind.CORD: {"free": "cord free", "around": "cord around the body"},
    FindingKind.FORM: {
        "normal": "normal form",
        "cleft": "cleft",
        "open belly": "open belly",
        "kink": "kink",
        "no eyes": "no eyes",
        "small": "small for its stage",
    },
    FindingKind.INSIDE: {
        "clean": "no mould inside",
        "spots": "spots of mould inside",
        "through": "mould all through",
    },
    FindingKind.SMELL: {"none": "no smell", "off": "smells off", "foul": "smells foul"},
    FindingKind.LARVAE: {"none": "no larvae", "seen": "larvae in it"},
}

#: Kinds of which several values can hold at once.
SEVERAL: Final = frozenset({FindingKind.FORM, FindingKind.SHELL})
#: Values that rule out the others of their kind.
ALONE: Final = frozenset({"normal", "sound"})
#: Forms that are defects.
DEFECTS: Final = frozenset({"cleft", "open belly", "kink", "no eyes"})

Findings = dict[FindingKind, frozenset[str]]


def checked_findings(said: dict[FindingKind, frozenset[str]]) -> Findings:
    """The findings, empty kinds left out; NotPlausible for values that cannot be together."""
    for kind, values in said.items():
        strange = sorted(values - FINDINGS[kind].keys())
        if strange:
            raise NotPlausible("findings", f'"{strange[0][:40]}" is no finding of {kind}')
        if len(values) > 1 and (kind not in SEVERAL or values & ALONE):
            both = " and ".join(sorted(FINDINGS[kind][v] for v in values)[:2])
            raise NotPlausible("findings", f"{both} cannot both be")
    stage = said.get(FindingKind.STAGE, frozenset())
    embryo = said.get(FindingKind.POSITION) or said.get(FindingKind.CORD)
    if "yolk only" in stage and embryo:
        raise NotPlausible("findings", "yolk only: then there is no embryo to describe")
    return {kind: values for kind, values in said.items() if values}


def finding_words(kind: FindingKind, value: str) -> str:
    return FINDINGS[kind][value]
