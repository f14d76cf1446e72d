"""Names and codes as keepers write them on cards."""

import re
import unicodedata
from collections.abc import Iterable
from typing import Final

from sandboa.core.errors import NotPlausible

#: Characters a name may have (assumption: what fits a lid).
LONGEST_NAME: Final = 60

_CODE = re.compile(r"[A-Za-z0-9][A-Za-z0-9-]{0,19}")


def clean_name(field: str, text: str) -> str:
    """A name with its spaces tidied, in composed Unicode form.

    Letters, digits, accents and punctuation of any script; no emoji, symbols
    or control characters, which no label printer prints. Raises NotPlausible.
    """
    name = " ".join(unicodedata.normalize("NFC", text[:10_000]).split())
    if not name:
        raise NotPlausible(field, f"{field}: give a name")
    if len(name) > LONGEST_NAME:
        raise NotPlausible(
            field, f"{field}: {len(name)} characters are too many for a label, {LONGEST_NAME} fit"
        )
    for character in name:
        if unicodedata.category(character)[0] not in "LMNPZ":
            raise NotPlausible(
                field,
                f"{field}: a name is letters, digits and punctuation; "
                f"{unicodedata.name(character, 'a control character').lower()} is neither",
            )
    if not any(unicodedata.category(c)[0] in "LN" for c in name):
        raise NotPlausible(field, f"{field}: a name needs at least one letter or digit")
    return name


def clean_code(text: str) -> str:
    """A clutch code such as 26-04: letters, digits and hyphens, 1-20. Raises NotPlausible."""
    code = text.strip()
    if not _CODE.fullmatch(code):
        raise NotPlausible(
            "code", "a clutch code is 1 to 20 letters, digits and hyphens, like 26-04"
        )
    return code


def next_box_name(base: str, taken: Iterable[str]) -> str:
    """The next free name beside a box called `base`: "26-04 B", then C; numbers after Z.

    `taken` are the names of all boxes; upper and lower case are alike.
    """
    stem = re.sub(r" [B-Z]$", "", base)[: LONGEST_NAME - 4]
    held = {name.casefold() for name in taken}
    endings = [*"BCDEFGHIJKLMNOPQRSTUVWXYZ", *map(str, range(27, 1000))]
    return next(name for ending in endings if (name := f"{stem} {ending}").casefold() not in held)


def next_code(year: int, taken: list[str]) -> str:
    """The next free code of `year`: two digits of the year, hyphen, running number."""
    prefix = f"{year % 100:02d}-"
    numbers = [
        int(c[3:]) for c in taken if c.startswith(prefix) and c[3:].isascii() and c[3:].isdigit()
    ]
    return f"{prefix}{max(numbers, default=0) + 1:02d}"
