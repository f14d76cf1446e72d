"""What a column of a list of old records holds, by its heading, in the languages of Europe."""

import re
from collections.abc import Mapping, Sequence
from enum import StrEnum
from typing import Final

from sandboa.formats.logger_files.headings import plain
from sandboa.services.old_records.lines import RecordKind


class Field(StrEnum):
    """What a cell tells; `UNUSED` for a column nothing is read from."""

    DAM = "dam"
    SIRE = "sire"
    LAID = "laid"
    COUNT = "count"
    EGGS = "eggs"
    SLUGS = "slugs"
    HATCHED = "hatched"
    FIRST_PIP = "first_pip"
    KEPT = "kept"
    CODE = "code"
    NAME = "name"
    ROLE = "role"
    HATCH_YEAR = "hatch_year"
    TRAITS = "traits"
    ANIMAL = "animal"
    DAY = "day"
    MASS = "mass"
    START = "start"
    END = "end"
    UNUSED = "unused"


#: Fields of each kind of list, those it cannot do without first.
FIELDS: Final[Mapping[RecordKind, tuple[Field, ...]]] = {
    RecordKind.CLUTCHES: (
        Field.DAM, Field.LAID, Field.COUNT, Field.EGGS, Field.SLUGS, Field.SIRE, Field.HATCHED,
        Field.FIRST_PIP, Field.KEPT, Field.CODE,
    ),
    RecordKind.ANIMALS: (
        Field.NAME, Field.ROLE, Field.CODE, Field.HATCH_YEAR, Field.TRAITS, Field.DAM, Field.SIRE,
    ),
    RecordKind.WEIGHTS: (Field.ANIMAL, Field.DAY, Field.MASS),
    RecordKind.PAIRINGS: (Field.DAM, Field.SIRE, Field.START, Field.END),
}  # fmt: skip
#: What a list of that kind has a column for, whatever else it has; of several any one.
NEEDED: Final[Mapping[RecordKind, tuple[tuple[Field, ...], ...]]] = {
    RecordKind.CLUTCHES: ((Field.DAM,), (Field.LAID,), (Field.COUNT, Field.EGGS)),
    RecordKind.ANIMALS: ((Field.NAME,), (Field.ROLE,)),
    RecordKind.WEIGHTS: ((Field.ANIMAL,), (Field.DAY,), (Field.MASS,)),
    RecordKind.PAIRINGS: ((Field.DAM,), (Field.SIRE,), (Field.START,)),
}

_DAM: Final = (
    r"\bdam\b|female|mother|weibchen|mutter|femelle|mere\b|femmina|madre|hembra|femea"
    r"|\bmae\b|samic|matka|vrouw|moeder|femela|mama\b|самк|мать|hona\b|anya\b|nosteny"
)
_SIRE: Final = (
    r"\bsire\b|(?<!fe)male\b|father|mannchen|vater|pere\b|maschio|padre|macho|\bpai\b|samiec"
    r"|samec|ojciec|\botec\b|mannetje|vader|mascul|tata\b|самец|отец|hane\b|him\b|apa\b"
)
_DAY: Final = r"date|datum|fecha|\bdata\b|\bdia\b|\bday\b|\btag\b|jour|giorno|дата"
_LAID: Final = (
    r"\blaid|laying|\blay\b|gelegt|gelege|ablage|legedatum|pont[ea]|deposi|puesta|postura"
    r"|zniesi|zlozen|gelegd|kladen|snesen|depus|отлож|кладк|lagd|tojas|rakva"
)
_COUNT: Final = r"\bcount|\beggs?\s*[-/]\s*slugs?|7-2|anzahl|nombre|quantidad|ilosc|aantal"
_EGGS: Final = (
    r"\beggs?\b|\beier\b|\boeufs?\b|œufs?|\buova\b|huevos|\bovos\b|\bjaja?\b|eieren|\boua\b"
    r"|яиц|vejce|agg\b|tojasok"
)
_SLUGS: Final = (
    r"slug|unbefrucht|infert|steril|wachsei|clair|esteril|niezap|onbevr|nefert|жиров"
    r"|duds?\b"
)
_HATCHED: Final = (
    r"(?<!date )hatched(?! (?:on|date|at))|hatchlings?|geschlupft|schlupflinge|eclos\b"
    r"|schius[ie]\b|nacid|eclodid|wyklut|uitgekomen|eclozat|вылупи|vylihl|klackt"
)
_PIP: Final = (
    r"\bpip|angeschnitten|angepickt|schlupf|eclosion|first out|hatch|schiusa|eclosao|klucie"
)
_KEPT: Final = r"temp|inkubation|incubat|°\s*[cf]"
_CODE: Final = r"\bcode|\bid\b|nummer|number|\bno\b|\bnr\b|karte|^clutch$|^gelege$|^card"
_NAME: Final = (
    r"\bname|\bnom\b|\bnome|nombre|\btier\b|animal|snake|schlange|imie|naam|nume\b|имя|jmeno"
    r"|namn"
)
_ROLE: Final = r"\bsex\b|gender|role|geschlecht|sexe|sesso|sexo|plec|geslacht|пол\b|pohlavi|kon\b"
_YEAR: Final = (
    r"born|hatch|year|geburt|jahr|schlupf|annee|naiss|anno|nascit|ano\b|nacim|rok|jaar"
    r"|geboren|год|dob\b"
)
_TRAITS: Final = r"trait|morph|gene|farb|mutation|genetic|mutacion|mutacja|genetyk|ген"
_MASS: Final = (
    r"weight|mass|gewicht|poids|peso|waga|masa|вес|vaha|vikt|greutate|\bgrams?\b|\b(?:g|kg"
    r"|oz)\b"
)
_START: Final = (
    r"from|start|begin|together|\bvon\b|\bab\b|debut|inizio|inicio|\bod\b|van\b|paired"
    r"|pairing|verpaar"
)
_END: Final = r"until|\bto\b|\bend|apart|\bbis\b|\bfin\b|fine\b|\bdo\b|\btot\b|separated|getrennt"

#: Looked for in this order: a heading of two fields is of the first one.
_MEANING: Final[Mapping[RecordKind, tuple[tuple[Field, str], ...]]] = {
    RecordKind.CLUTCHES: (
        (Field.SLUGS, rf"^(?:(?!eggs?\s*[-/]).)*(?:{_SLUGS})"), (Field.COUNT, _COUNT),
        (Field.HATCHED, _HATCHED), (Field.FIRST_PIP, _PIP), (Field.DAM, _DAM),
        (Field.SIRE, _SIRE), (Field.KEPT, _KEPT), (Field.EGGS, _EGGS), (Field.CODE, _CODE),
        (Field.LAID, rf"{_LAID}|{_DAY}"),
    ),
    RecordKind.ANIMALS: (
        (Field.ROLE, _ROLE), (Field.DAM, _DAM), (Field.SIRE, _SIRE), (Field.TRAITS, _TRAITS),
        (Field.HATCH_YEAR, _YEAR), (Field.NAME, _NAME), (Field.CODE, _CODE),
    ),
    RecordKind.WEIGHTS: (
        (Field.MASS, _MASS), (Field.DAY, _DAY),
        (Field.ANIMAL, rf"{_NAME}|{_DAM}|{_SIRE}|{_CODE}"),
    ),
    RecordKind.PAIRINGS: (
        (Field.END, _END), (Field.DAM, _DAM), (Field.SIRE, _SIRE),
        (Field.START, rf"{_START}|{_DAY}"),
    ),
}  # fmt: skip


def fields_of(heading: Sequence[str], kind: RecordKind) -> tuple[Field, ...]:
    """What each column of a list of that kind holds; each field is of one column, the first."""
    found: list[Field] = []
    for cell in heading:
        name = plain(cell)
        meant = next(
            (
                field
                for field, words in _MEANING[kind]
                if field not in found and re.search(words, name)
            ),
            Field.UNUSED,
        )
        found.append(meant if name else Field.UNUSED)
    return tuple(found)


def has_all(fields: Sequence[Field], kind: RecordKind) -> bool:
    """Whether everything such a list cannot do without has a column."""
    return all(any(field in fields for field in either) for either in NEEDED[kind])


def likely_kind(heading: Sequence[str]) -> RecordKind | None:
    """The kind of list a heading is of, None where it has what none of them needs.

    A list of clutches names dams and days as one of pairings does: counts tell it.
    """
    for kind in (
        RecordKind.CLUTCHES, RecordKind.PAIRINGS, RecordKind.ANIMALS, RecordKind.WEIGHTS,
    ):  # fmt: skip
        if has_all(fields_of(heading, kind), kind):
            return kind
    return None
