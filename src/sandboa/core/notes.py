"""Notes in plain words: what may be written, and which are found by which words."""

import unicodedata
from typing import Final

from sandboa.core.errors import NotPlausible

#: Characters of a note at most (assumption: five pages; more is a document, not a note).
LONGEST_NOTE: Final = 10_000


def clean_note(text: str, field: str = "text") -> str:
    """A note in composed Unicode form, without control characters but line breaks.

    Spaces at its ends and at the ends of its lines are dropped. Raises NotPlausible for no
    words, or more than LONGEST_NOTE characters.
    """
    if len(text) > LONGEST_NOTE:
        raise NotPlausible(
            field, f"{len(text):,} characters are too many for a note: {LONGEST_NOTE:,} fit"
        )
    composed = unicodedata.normalize("NFC", text.replace("\r\n", "\n").replace("\r", "\n"))
    plain = "".join(c for c in composed if c == "\n" or unicodedata.category(c)[0] != "C")
    lines = "\n".join(line.rstrip() for line in plain.split("\n")).strip()
    if not lines:
        raise NotPlausible(field, "what is to be noted?")
    return lines


def is_found(text: str, words: str) -> bool:
    """Whether every one of the words stands in the text, in part or whole, in upper or lower case.

    No words find every text.
    """
    folded = text.casefold()
    return all(word in folded for word in words.casefold().split())


def beginning(text: str, longest: int = 60) -> str:
    """The first line of a note, cut after a word where it is longer than `longest` characters."""
    first, _, rest = text.partition("\n")
    if len(first) <= longest:
        return f"{first} \u2026" if rest else first
    cut = first[:longest].rsplit(" ", 1)[0] or first[:longest]
    return f"{cut} \u2026"
