"""What each sign is worth for a cause: log scores (rule G; the numbers are assumptions).

To change a rule, change its line here; the tests that guard it are
tests/core/test_causes.py and `./do bench causes`. A keeper can override each
in settings. Above 0 speaks for the cause, below against it.
"""

from dataclasses import dataclass
from typing import Final

from sandboa.core.causes.kinds import Cause
from sandboa.core.messages import Words


@dataclass(frozen=True, slots=True)
class SignScore:
    """A sign's worth for one cause; `key` names it within the cause."""

    cause: Cause
    key: str
    score: float
    words: Words

    @property
    def name(self) -> str:
        """Name of its setting."""
        return f"loss.{self.cause}.{self.key}"


#: Log score a cause starts with, before anything is known; unknown starts with 0, so that
#: without evidence it leads (assumption).
STARTS: Final = {
    **dict.fromkeys(Cause, -3.6),
    Cause.UNKNOWN: 0.0,
    Cause.CORD: -4.4,
    Cause.LETHAL_GENES: -4.4,
    Cause.POISONED_AIR: -4.9,
    Cause.PESTS: -4.4,
}

_TABLE: Final = {
    Cause.INFERTILE: (
        ("slug at lay", 6.0, "a slug at lay"),
        ("never vessels", 2.5, "no vessels at any look"),
        ("one look", 1.0, "no vessels at the one look there was"),
        ("yolk only", 4.0, "yolk only on opening"),
        ("slug share", 0.8, "many slugs of this dam or sire"),
        ("vessels seen", -9.0, "vessels were seen"),
        ("embryo found", -9.0, "an embryo was found"),
    ),
    Cause.TOO_DRY: (
        ("box dented", 2.2, "half or more of the box dented early"),
        ("water dry", 2.0, "dry, by the water left"),
        ("water low", 0.6, "water to be topped up"),
        ("medium dry", 1.4, "the medium was dry"),
        ("hard yolk", 2.2, "yolk thick or hard"),
        ("little fluid", 0.8, "hardly any fluid in it"),
        ("small siblings", 0.6, "small hatchlings from the same box"),
        ("plump", -1.8, "its eggs stayed plump"),
        ("wet lid", -1.2, "the lid was wet throughout"),
        ("water enough", -2.2, "surely water enough left"),
        ("yolk usual", -0.8, "yolk as usual"),
    ),
    Cause.TOO_WET: (
        ("medium dripped", 1.6, "the medium dripped"),
        ("lid rained", 1.0, "the lid rained at several visits"),
        ("mould after rain", 0.8, "mould came after the lid rained"),
        ("bottom soft", 3.0, "the bottom of its shell was soft"),
        ("in water", 2.2, "it lay in water"),
        ("mould below", 2.2, "mould below"),
        ("dry", -2.5, "medium or grid were dry"),
        ("bottom sound", -1.0, "its shell was sound on opening"),
    ),
    Cause.TOO_HOT: (
        ("hot", 1.5, "hours so warm that harm adds up"),
        ("very hot", 2.0, "much of it, or long"),
        ("sibling defects", 1.0, "defects in several siblings"),
        ("hatched early", 1.2, "its siblings hatched early"),
        ("small siblings", 0.4, "small siblings"),
        ("defect", 0.4, "malformed itself"),
        ("others too", 0.8, "others lost at about that time"),
        ("others fine", -1.2, "no other egg was lost at about that time"),
        ("never hot", -4.0, "never near it"),
    ),
    Cause.TOO_COLD: (
        ("cold", 1.6, "long too cold to grow"),
        (
            "very cold",
            1.8,
            "for days, or very deep",
        ),
        ("immature", 1.0, "immature for its days"),
        ("hatched late", 1.2, "its siblings hatched late"),
        ("others too", 0.8, "others lost at about that time"),
        ("others fine", -1.2, "no other egg was lost at about that time"),
        ("steady", -4.0, "never long too cold"),
    ),
    Cause.UNSTABLE: (
        (
            "swings",
            2.2,
            "large swings on several days",
        ),
        ("many swings", 1.2, "such swings on many days"),
        ("others too", 0.8, "others lost at about that time"),
        ("others fine", -1.2, "no other egg was lost at about that time"),
        ("calm", -3.0, "hardly a swing"),
    ),
    Cause.UNDERNEATH: (
        ("under", 3.8, "candled underneath and not turned"),
        ("side", 1.6, "candled at the side and not turned"),
        ("rolled", 3.8, "rolled after the first day"),
        ("found under", 2.2, "found underneath on opening"),
        ("found side", 0.8, "found at the side on opening"),
        ("on top", -2.2, "on top when candled, and not rolled since"),
        ("found on top", -2.5, "found on top on opening"),
    ),
    Cause.KNOCKED: (
        ("knocked", 2.8, "knocked, dropped or torn"),
        ("soon after", 1.2, "and lost soon after"),
        ("weeps", 0.8, "wept after it"),
        ("tear found", 2.6, "a tear or blood at one place on opening"),
        ("none", -2.2, "no knock, drop or tear was recorded"),
        ("no tear", -0.6, "its shell was sound on opening"),
    ),
    Cause.INFECTION: (
        ("while good", 3.2, "mould or smell while its vessels were still good"),
        ("neighbours", 1.2, "eggs it touched were lost about then too"),
        ("through", 1.6, "mould all through on opening"),
        ("vessels first", -2.2, "its vessels failed before any mould"),
        ("no mould", -2.6, "no mould, no smell"),
        ("clean inside", -2.0, "no mould inside"),
    ),
    Cause.STALE_AIR: (
        ("low oxygen", 2.2, "oxygen likely low"),
        ("may be low", 1.0, "oxygen may have been low"),
        ("sealed", 0.8, "sealed, and not opened for long"),
        ("siblings full term", 1.2, "siblings died at full term too"),
        ("boxes full term", 1.0, "full-term losses in several boxes"),
        ("formed", 1.2, "fully formed, no defect"),
        ("vented", -2.6, "its box was vented"),
        ("early", -5.0, "it died before air gets short"),
        ("sibling out", -0.6, "most of its siblings got out"),
    ),
    Cause.OPENED_EARLY: (
        ("too early", 4.0, "cut before full term by heat"),
        ("bled", 2.2, "it bled when it was cut"),
        ("large yolk", 1.4, "yolk large, not absorbed"),
        ("vessel cut", 1.4, "a vessel cut or torn"),
        ("at term", -1.0, "cut at full term"),
        ("never cut", -12.0, "never cut"),
        ("dead before", -9.0, "it was dead before it was cut"),
    ),
    Cause.COULD_NOT_GET_OUT: (
        ("pipped", 4.4, "it pipped and died"),
        ("long", 0.8, "it lay pipped for long"),
        ("fluid", 2.0, "fluid in its mouth"),
        ("hard shell", 2.2, "its shell was hard to cut"),
        ("slit closed", 2.4, "its slit had closed"),
        ("not term", -8.0, "it died before full term"),
        ("not pipped", -1.5, "it had not pipped"),
    ),
    Cause.CORD: (
        ("around", 4.4, "cord around the body"),
        ("free", -2.6, "cord free"),
    ),
    Cause.MALFORMED: (
        ("defect", 3.6, "malformed on opening"),
        ("siblings", 0.8, "defects in a sibling"),
        ("normal", -2.6, "normal form"),
    ),
    Cause.LETHAL_GENES: (
        ("can", 2.8, "both parents carry a gene whose double form dies"),
        ("alike", 1.6, "other eggs of this pair were lost at the same stage"),
        ("cannot", -12.0, "this pair cannot produce it"),
        ("not alike", -0.8, "no other egg of this pair was lost at that stage"),
    ),
    Cause.SHELL: (
        ("thin", 2.8, "a thin shell"),
        ("poor", 2.2, "a rough, windowed or nodular shell"),
        ("dented alone", 1.2, "dented early alone"),
        ("found thin", 1.6, "shell thin or windowed on opening"),
        ("box dented", -0.8, "the whole box was dented"),
        ("smooth", -3.2, "a smooth shell"),
    ),
    Cause.DAM: (
        ("first", 0.8, "her first clutch"),
        ("light", 1.4, "light before pairing"),
        ("ill", 1.6, "she was ill in the months before"),
        ("whole clutch", 2.2, "most of the clutch was lost"),
        ("strong", -1.6, "most of her other eggs hatched"),
        ("siblings fine", -2.4, "most of its siblings hatched"),
    ),
    Cause.POISONED_AIR: (
        ("new", 1.6, "a cabinet in use for a few months only"),
        ("altered", 3.0, "the cabinet was altered before"),
        ("whole batch", 3.6, "all boxes of the cabinet lost eggs in those weeks"),
        ("others fine", -4.5, "other eggs in that cabinet were fine"),
        ("elsewhere too", -1.2, "eggs in other cabinets were lost too"),
    ),
    Cause.PESTS: (
        ("seen", 4.2, "flies, ants or larvae in the box"),
        ("larvae", 4.2, "larvae in the egg"),
        ("none seen", -1.6, "no pests were seen"),
        ("sealed", -0.8, "its box was sealed with film"),
        ("no larvae", -2.0, "no larvae in the egg"),
    ),
    Cause.EQUIPMENT: (
        ("fault", 2.6, "a fault of the cabinet at that time"),
        ("severe", 1.4, "by several degrees, or for many hours"),
        ("siblings too", 1.2, "others in the cabinet were lost at that time too"),
        ("none", -3.6, "no fault in the readings"),
    ),
    Cause.UNKNOWN: (),
}

SCORES: Final = {
    score.name: score
    for cause, lines in _TABLE.items()
    for score in (SignScore(cause, *line) for line in lines)
}
DEFAULT_SCORES: Final = {name: score.score for name, score in SCORES.items()}


def score_of(cause: Cause, key: str) -> SignScore:
    """The table's line; KeyError for a sign that is none."""
    return SCORES[f"loss.{cause}.{key}"]
