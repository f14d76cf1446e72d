"""A line of old records as it was understood, in the texts its cells could have had."""

from sandboa.formats.old_records.headings import Field
from sandboa.formats.old_records.read import Texts
from sandboa.services.old_records.lines import (
    AnimalLine,
    ClutchLine,
    OldLine,
    PairingLine,
    WeightLine,
)


def texts_of(line: OldLine) -> Texts:
    """Days year first, counts like 7-2, weights in g, °C: each reads as the same line again."""
    match line:
        case ClutchLine():
            return _said(_clutch(line))
        case AnimalLine():
            return _said(
                {
                    Field.NAME: line.name,
                    Field.ROLE: line.role,
                    Field.CODE: line.code,
                    Field.HATCH_YEAR: line.hatch_year,
                    Field.TRAITS: line.traits_text,
                    Field.DAM: line.dam,
                    Field.SIRE: line.sire,
                }
            )
        case WeightLine():
            return _said(
                {
                    Field.ANIMAL: line.animal,
                    Field.DAY: line.day,
                    Field.MASS: f"{line.mass_g:.10g} g",
                }
            )
        case PairingLine():
            return _said(
                {
                    Field.DAM: line.dam,
                    Field.SIRE: line.sire,
                    Field.START: line.start,
                    Field.END: line.end,
                }
            )


def _clutch(line: ClutchLine) -> dict[Field, object]:
    told = line.told
    return {
        Field.DAM: line.dam,
        Field.SIRE: line.sire,
        Field.LAID: told.laid,
        Field.COUNT: told.count,
        Field.HATCHED: told.hatched,
        Field.FIRST_PIP: told.first_pip,
        Field.KEPT: None if told.kept_c is None else f"{told.kept_c:.6g} C",
        Field.CODE: line.code,
    }


def _said(told: dict[Field, object]) -> Texts:
    return {of: str(value) for of, value in told.items() if value not in (None, "")}
