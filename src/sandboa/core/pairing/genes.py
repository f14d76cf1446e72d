"""What a pair can produce: forms of single genes and their chances, and doubles that die.

Each gene of the keeper's own list is taken to be passed on by itself
(Mendel 1866). Genes that share a place on a chromosome are not: of two of
those one animal can carry no more than two copies in all, which is not known here.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import reduce
from itertools import product
from typing import Final

from sandboa.core.animals import TraitForm

#: Chance that an animal recorded as "possible" carries one copy (assumption: one heterozygous
#: parent).
POSSIBLE_CARRIES: Final = 0.5
#: Forms told of a pair; rarer ones are told as "others".
MOST_FORMS: Final = 12

#: Forms in which an animal shows a trait, whatever its inheritance.
SHOWN_FORMS: Final = frozenset({TraitForm.VISUAL, TraitForm.TWO_COPIES})

#: Chances of 0, 1 and 2 copies; sum 1.
Copies = tuple[float, float, float]


class Inheritance(StrEnum):
    RECESSIVE = "recessive"
    INCOMPLETE_DOMINANT = "incomplete dominant"
    DOMINANT = "dominant"


class DoubleForm(StrEnum):
    """What becomes of an animal with two copies."""

    FINE = "fine"
    HARMFUL = "harmful"
    DIES = "dies"


@dataclass(frozen=True, slots=True)
class Gene:
    """A trait of the keeper's list."""

    name: str
    inheritance: Inheritance
    double_form: DoubleForm = DoubleForm.FINE


@dataclass(frozen=True, slots=True)
class Form:
    """One form a pair can produce with its chance 0-1, among all eggs."""

    words: str
    chance: float


@dataclass(frozen=True, slots=True)
class Visible:
    """How often a gene is to be seen among hatchlings, with its chance 0-1 among those that can
    hatch."""

    gene: str
    chance: float


@dataclass(frozen=True, slots=True)
class Odds:
    """What a pair can produce.

    `forms` likeliest first; `dies` is the chance of an egg to get a double form that dies,
    `harmful` of one that is harmful, `may_die` the genes that make it. `visible` is of the
    hatchlings. `unlisted` are traits of the parents that are not on the list: they count nothing.
    """

    forms: tuple[Form, ...]
    dies: float
    harmful: float
    may_die: tuple[str, ...]
    visible: tuple[Visible, ...]
    unlisted: tuple[str, ...]


def copies_of(gene: Gene, form: TraitForm | None, carries: float = POSSIBLE_CARRIES) -> Copies:
    """Chances of 0, 1, 2 copies in an animal recorded with that form; None: not recorded.

    A visual animal of a recessive gene has two copies; of another gene one,
    unless two are recorded: a second copy of it is mostly told apart. One that is
    possible only has one copy with the chance `carries` (0-1).
    """
    if form is None:
        return (1.0, 0.0, 0.0)
    if form is TraitForm.TWO_COPIES:
        return (0.0, 0.0, 1.0)
    if form is TraitForm.VISUAL and gene.inheritance is Inheritance.RECESSIVE:
        return (0.0, 0.0, 1.0)
    if form is TraitForm.POSSIBLE:
        return (1.0 - carries, carries, 0.0)
    return (0.0, 1.0, 0.0)


def for_certain(copies: int) -> Copies:
    """The chances of 0, 1 and 2 copies in an animal of which it is known that it has so many."""
    return (float(copies == 0), float(copies == 1), float(copies == 2))


def shows(gene: Gene, form: TraitForm) -> bool:
    """Whether an animal recorded with that form is seen to have the trait.

    One copy shows unless the gene is recessive; what is possible only does not.
    """
    one_is_enough = gene.inheritance is not Inheritance.RECESSIVE
    return form in SHOWN_FORMS or (form is TraitForm.ONE_COPY and one_is_enough)


def offspring(dam: Copies, sire: Copies) -> Copies:
    """Chances of 0, 1, 2 copies in an egg of two parents; sums to 1."""
    from_dam = dam[1] / 2.0 + dam[2]
    from_sire = sire[1] / 2.0 + sire[2]
    return (
        (1 - from_dam) * (1 - from_sire),
        from_dam * (1 - from_sire) + from_sire * (1 - from_dam),
        from_dam * from_sire,
    )


def offspring_together(chances: Sequence[Sequence[float]]) -> Copies:
    """As `offspring`, of parents whose copies depend on each other: `chances` (3 x 3, sum 1) of 0,
    1, 2 copies in the dam (first) and in the sire at once."""
    mixed = [0.0, 0.0, 0.0]
    for of_dam, row in enumerate(chances):
        for of_sire, chance in enumerate(row):
            for count, share in enumerate(offspring(for_certain(of_dam), for_certain(of_sire))):
                mixed[count] += float(chance) * share
    return (mixed[0], mixed[1], mixed[2])


def pairing_odds(
    dam: Mapping[str, TraitForm],
    sire: Mapping[str, TraitForm],
    genes: Sequence[Gene],
    together: Mapping[str, Sequence[Sequence[float]]] | None = None,
) -> Odds:
    """What a dam and a sire can produce; names of traits in any case.

    Only genes that either parent may carry play a part. `together` are, by the gene's name in
    lower case, the chances of 0, 1, 2 copies in dam and sire at once (3 x 3, sum 1), where more
    is known of them than their forms (see proving).
    """
    known = {gene.name.casefold(): gene for gene in genes}
    hers = {name.casefold(): form for name, form in dam.items()}
    his = {name.casefold(): form for name, form in sire.items()}
    carried = [known[name] for name in sorted(hers.keys() | his.keys()) if name in known]
    by_gene = [
        (
            gene,
            offspring_together(together[name])
            if together and (name := gene.name.casefold()) in together
            else offspring(
                copies_of(gene, hers.get(gene.name.casefold())),
                copies_of(gene, his.get(gene.name.casefold())),
            ),
        )
        for gene in carried
    ]
    dies = [(gene, copies[2]) for gene, copies in by_gene if gene.double_form is DoubleForm.DIES]
    harmful = [c[2] for gene, c in by_gene if gene.double_form is DoubleForm.HARMFUL]
    lived = reduce(lambda left, chance: left * (1.0 - chance[1]), dies, 1.0)
    unlisted = {n for n in (*dam, *sire) if n.casefold() not in known}
    return Odds(
        forms=_forms(by_gene),
        dies=1.0 - lived,
        harmful=1.0 - reduce(lambda left, chance: left * (1.0 - chance), harmful, 1.0),
        may_die=tuple(gene.name for gene, chance in dies if chance > 0),
        visible=tuple(
            Visible(gene.name, visible_chance(gene, copies))
            for gene, copies in by_gene
            if any(copies[1:])
        ),
        unlisted=tuple(sorted(unlisted, key=str.casefold)),
    )


def visible_chance(gene: Gene, copies: Copies) -> float:
    """Chance 0-1 to see the gene at one of those that hatch, by their chances of copies."""
    none, one, two = copies
    if gene.double_form is DoubleForm.DIES:
        two = 0.0
    seen = two if gene.inheritance is Inheritance.RECESSIVE else one + two
    hatched = none + one + two
    return seen / hatched if hatched > 0 else 0.0


def _forms(by_gene: Sequence[tuple[Gene, Copies]]) -> tuple[Form, ...]:
    if not by_gene:
        return (Form("no trait of your list", 1.0),)
    forms: dict[str, float] = {}
    for combination in product(range(3), repeat=len(by_gene)):
        chance = 1.0
        parts = []
        for (gene, copies), count in zip(by_gene, combination, strict=True):
            chance *= copies[count]
            parts.append(_words(gene, count))
            if chance == 0.0:
                break
        if chance > 0.0:
            words = ", ".join(part for part in parts if part) or "no trait of your list"
            forms[words] = forms.get(words, 0.0) + chance
    ranked = sorted(forms.items(), key=lambda form: (-form[1], form[0]))
    told = [Form(words, chance) for words, chance in ranked[:MOST_FORMS]]
    rest = sum(chance for _, chance in ranked[MOST_FORMS:])
    return (*told, Form("others", rest)) if rest > 1e-9 else tuple(told)


def _words(gene: Gene, copies: int) -> str:
    if copies == 0:
        return ""
    if gene.inheritance is Inheritance.RECESSIVE:
        return f"1 copy of {gene.name}" if copies == 1 else gene.name
    if copies == 1:
        return gene.name
    dominant = gene.inheritance is Inheritance.DOMINANT
    return f"{gene.name}, 2 copies" if dominant else f"double {gene.name}"
