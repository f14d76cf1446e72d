"""How well a name answers what somebody looks for."""

import re
from enum import IntEnum

_WORD = re.compile(r"[\w-]+")


class Fit(IntEnum):
    """From the best on: the name itself, its beginning, beginnings of its words, part of it, or
    words beside it."""

    NAME = 0
    BEGINNING = 1
    WORDS = 2
    PART = 3
    BESIDE = 4


def fit(name: str, sought: str, beside: str = "") -> Fit | None:
    """How a thing called `name`, with more words about it `beside`, answers `sought`.

    Upper and lower case are alike, and so are spaces. Every word that is sought has to stand
    somewhere; None where one does not, or where nothing is sought.
    """
    called, words = " ".join(name.casefold().split()), sought.casefold().split()
    if not words:
        return None
    whole = " ".join(words)
    if called == whole:
        return Fit.NAME
    if called.startswith(whole):
        return Fit.BEGINNING
    of_name = _WORD.findall(called)
    if all(any(own.startswith(word) for own in of_name) for word in words):
        return Fit.WORDS
    if all(word in called for word in words):
        return Fit.PART
    around = f"{called} {beside.casefold()}"
    return Fit.BESIDE if all(word in around for word in words) else None
